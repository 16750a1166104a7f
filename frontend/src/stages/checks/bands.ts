/** A set of tolerance bands: limits in metres, growing; a colour a band from the lowest up. The band that holds zero is the tolerance. */
export interface BandSet {
  name: string;
  limits: number[];
  colours: string[];
}

/** A place of a cloud or a surface has no name: its number then. */
export const nameOf = (points: Deviations, i: number): string => points.names[i] ?? String(i + 1);

/** Every measured point of a comparison with its deviation, null beside the reference. Metres. */
export interface Deviations {
  names: string[];
  e: number[];
  n: number[];
  h: number[];
  d: (number | null)[];
}

export interface Band {
  from: number | null;
  to: number | null;
  count: number;
  percent: number;
  colour: string;
  isTolerance: boolean;
}

/** Dark to light below, light to dark above: told apart without red and green, and by lightness alone on each side. */
const BELOW = ['#16307f', '#3561c6', '#8ea8de', '#c3d0ee'];
const ABOVE = ['#f3cdb9', '#dd9a7b', '#b64a2c', '#7c1d12'];
/** The tolerance carries no colour of its own. */
export const WITHIN = '#e9e3cf';

export const USUAL: BandSet = setOf('usual', [-0.018, -0.012, -0.006, 0.006, 0.012, 0.018]);

/** Whether two sets say the same, whatever they are called. */
export function sameBands(a: Pick<BandSet, 'limits' | 'colours'>, b: Pick<BandSet, 'limits' | 'colours'>): boolean {
  return JSON.stringify([a.limits, a.colours]) === JSON.stringify([b.limits, b.colours]);
}

/** Colours for bands between limits: the one that holds zero stays plain. */
export function setOf(name: string, limits: number[]): BandSet {
  const within = bandOf(0, limits);
  const above = limits.length - within;
  return {
    name,
    limits,
    colours: Array.from({ length: limits.length + 1 }, (_, i) =>
      i === within ? WITHIN : i < within ? shade(BELOW, i, within) : shade([...ABOVE].reverse(), limits.length - i, above),
    ),
  };
}

/** The k-th of so many shades, the darkest first and the lightest kept for when there are many. */
function shade(shades: string[], k: number, count: number): string {
  return shades[count < shades.length ? k : Math.min(shades.length - 1, Math.floor((k * shades.length) / count))]!;
}

/** Number of the band: from <= deviation < to. */
export function bandOf(deviation: number, limits: number[]): number {
  let band = 0;
  while (band < limits.length && deviation >= limits[band]!) band += 1;
  return band;
}

/** Whether a deviation counts: on the reference, and within the limit. */
export function counts(d: number | null, ignore: number | null): d is number {
  return d !== null && (ignore === null || Math.abs(d) <= ignore);
}

/** Bands from the highest down, with what lies in them. */
export function bandsOf(points: Deviations, ignore: number | null, set: BandSet): Band[] {
  // A plain list: one that is watched takes seconds for half a million places.
  const limits = [...set.limits];
  const tally = new Array<number>(limits.length + 1).fill(0);
  let used = 0;
  for (const d of points.d) {
    if (!counts(d, ignore)) continue;
    used += 1;
    tally[bandOf(d, limits)]! += 1;
  }
  const within = bandOf(0, limits);
  return tally
    .map((count, i) => ({
      from: limits[i - 1] ?? null,
      to: limits[i] ?? null,
      count,
      percent: used > 0 ? (100 * count) / used : 0,
      colour: set.colours[i] ?? WITHIN,
      isTolerance: i === within,
    }))
    .reverse();
}

/** Limits as they are typed, in the small unit: "-6 +6" or "-6; 6". Null where they do not grow, or are not numbers. */
export function readLimits(text: string, metresPerUnit: number): number[] | null {
  const words = text
    .replaceAll('\u2212', '-')
    .split(/[\s;]+/)
    .filter((w) => w !== '');
  const limits = words.map((w) => Number(w.replace(',', '.')) * metresPerUnit);
  return limits.length > 0 && limits.length <= 12 && limits.every((l, i) => Number.isFinite(l) && (i === 0 || l > limits[i - 1]!))
    ? limits
    : null;
}

const CORNERS = [
  ['south-west', 'south', 'south-east'],
  ['west', 'middle', 'east'],
  ['north-west', 'north', 'north-east'],
];

const extents = new WeakMap<Deviations, [number, number, number, number]>();

/** West, south, east and north of the measured points; looked for once. */
function extent(points: Deviations): [number, number, number, number] {
  let box = extents.get(points);
  if (!box) {
    box = [Infinity, Infinity, -Infinity, -Infinity];
    for (let i = 0; i < points.e.length; i += 1) {
      const [e, n] = [points.e[i]!, points.n[i]!];
      if (e < box[0]) box[0] = e;
      if (n < box[1]) box[1] = n;
      if (e > box[2]) box[2] = e;
      if (n > box[3]) box[3] = n;
    }
    extents.set(points, box);
  }
  return box;
}

/** Where on the measured area a place lies, in words: the corner, the edge or the middle. */
export function whereabouts(points: Deviations, i: number): string {
  const [w, s, e, n] = extent(points);
  const third = (v: number, low: number, high: number) => Math.min(2, Math.floor((3 * (v - low)) / Math.max(1e-9, high - low)));
  const row = third(points.n[i]!, s, n);
  const column = third(points.e[i]!, w, e);
  const words = CORNERS[row]![column]!;
  return words === 'middle' ? 'middle' : row !== 1 && column !== 1 ? `${words} corner` : `${words} edge`;
}

/** Points with the greatest deviations by size, of equal ones the first. */
export function worst(points: Deviations, ignore: number | null, most: number): number[] {
  const found: number[] = [];
  const size = (i: number) => Math.abs(points.d[i]!);
  for (let i = 0; i < points.d.length; i += 1) {
    if (!counts(points.d[i]!, ignore) || (found.length === most && size(i) <= size(found[most - 1]!))) continue;
    let at = found.length;
    while (at > 0 && size(i) > size(found[at - 1]!)) at -= 1;
    found.splice(at, 0, i);
    if (found.length > most) found.pop();
  }
  return found;
}

/** The measured point nearest to a place. */
export function nearest(points: Deviations, e: number, n: number): number | null {
  let best: number | null = null;
  let least = Infinity;
  points.e.forEach((pe, i) => {
    const d = (pe - e) ** 2 + (points.n[i]! - n) ** 2;
    if (d < least) [best, least] = [i, d];
  });
  return best;
}

/** Side of the squares that fill the map: how far points lie apart on the whole. */
export function spacing(points: Deviations): number {
  const [w, s, e, n] = extent(points);
  const count = Math.max(2, points.e.length);
  return Math.max(0.01, Math.sqrt((Math.max(e - w, 1e-3) * Math.max(n - s, 1e-3)) / (Math.sqrt(count) - 1) ** 2));
}

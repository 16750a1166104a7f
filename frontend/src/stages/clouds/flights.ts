import type { FlightsView, FlightView, MissionView, OrthoView, UnitsView } from '../../api/types';
import type { Column } from '../../figures/columns';
import { area, length, lengthUnit, small, smallUnit } from '../../format/units';
import { emptyScene, type Scene, type ScenePath } from '../../sketch/scene';

type Three = [number, number, number];
export interface FlightFigures {
  camera: number[];
  said: number[];
  images: { file: string; position: Three | null; angles: Three | null; rays: number; features: number }[];
  tiePoints: number[];
  known: { id: string; role: string; rays: number; off: Three | null; before: Three | null }[];
}
export type Mark = FlightView['marks'][number];

/** What the page says first. */
export function flightHeadline(f: FlightView, units: UnitsView): { words: string; tone: 'holds' | 'doubt' | 'fails' } {
  if (f.swapped.length > 0) return { words: `The marks of ${f.swapped[0]![0]} and ${f.swapped[0]![1]} are each other's`, tone: 'fails' };
  if (!f.converged) return { words: 'The adjustment does not come to an end: look at the marks and the mission', tone: 'fails' };
  if (f.alone.length > 0) return { words: `${f.alone.length} of ${f.images} images do not join the others`, tone: 'fails' };
  if (!f.isHeld) return { words: 'The images agree; control is not marked yet', tone: 'doubt' };
  if (!f.rms) return { words: 'Adjusted to control; no check point is marked', tone: 'doubt' };
  const [plan = 0, up = 0] = f.rms;
  const good = plan <= 1.5 * f.pixel && up <= 2.5 * f.pixel;
  return {
    words: `Check points agree to ${small(plan, units)} ${smallUnit(units)} in plan, ${small(up, units)} in height`,
    tone: good ? 'holds' : 'doubt',
  };
}

export function flightSentences(f: FlightView, units: UnitsView): string {
  const joined = f.joined === f.images ? `All ${f.images} images` : `${f.joined} of ${f.images} images`;
  const before = f.isHeld && f.freeSigma0 !== null ? ` (${(0.5 * f.freeSigma0).toFixed(2)} before control)` : '';
  const pixels = f.sigma0 === null ? '' : ` Rays agree to ${(0.5 * f.sigma0).toFixed(2)} pixels${before}`;
  const left = f.left > 0 ? `; ${f.left} that contradicted the others are left out` : '';
  const held = f.isHeld
    ? ` ${f.control} control points hold it.`
    : f.control > 0
      ? ` ${f.control} of three control points are marked.`
      : '';
  return (
    `${joined} of ${f.of} joined by ${f.points} tie points, ${f.rays} rays.${pixels}${left}.` +
    `${held} A pixel shows ${small(f.pixel, units)} ${smallUnit(units)} of ground.`
  );
}

/** What a mission shows of the ground. */
export function coverSentences(m: MissionView, units: UnitsView): string {
  const next = m.forward === null ? '' : `; the next image shows ${Math.round(100 * m.forward)} % of each`;
  const missing = m.missing > 0 ? ` ${m.missing} of its images have not come in.` : '';
  return (
    `${m.images.length} images show ${area(m.area, units)}, ${Math.round(100 * m.threefold)} % of it three times or more${next}. ` +
    `About ${length(m.above, units, -2)} ${lengthUnit(units)} above ground a pixel shows ${small(m.pixel, units)} ${smallUnit(units)}.${missing}`
  );
}

const figure = { align: 'right' as const, mono: true };
type Known = FlightFigures['known'][number] & { surface: number | null };
const off = (units: UnitsView, k: 0 | 1 | 2, title: string): Column<Known> => ({
  key: title,
  title,
  unit: smallUnit(units),
  width: '66px',
  ...figure,
  value: (p) => p.off?.[k] ?? null,
  text: (p) => (p.off ? small(p.off[k], units, true) : '—'),
});

/** Control and check points against what is given of them; and how far they were off before control held anything. */
export const knownColumns = (units: UnitsView): Column<Known>[] => [
  { key: 'id', title: 'point', width: 'minmax(70px, 1fr)', mono: true, value: (p) => p.id },
  { key: 'role', title: 'is', width: '64px', value: (p) => p.role },
  { key: 'rays', title: 'images', width: '56px', ...figure, value: (p) => p.rays },
  off(units, 0, 'dE'),
  off(units, 1, 'dN'),
  off(units, 2, 'dH'),
  {
    key: 'before',
    title: 'before',
    unit: smallUnit(units),
    width: '76px',
    ...figure,
    value: (p) => (p.before ? Math.hypot(...p.before) : null),
    text: (p) => (p.before ? small(Math.hypot(...p.before), units) : '—'),
  },
  {
    key: 'surface',
    title: 'heights',
    unit: smallUnit(units),
    width: '76px',
    ...figure,
    value: (p) => p.surface,
    text: (p) => (p.surface === null ? '—' : small(p.surface, units, true)),
  },
];

export const imageColumns = (units: UnitsView): Column<FlightFigures['images'][number]>[] => [
  { key: 'file', title: 'image', width: 'minmax(100px, 1fr)', value: (i) => i.file },
  { key: 'rays', title: 'rays', width: '56px', ...figure, value: (i) => i.rays },
  ...(['E', 'N', 'H'] as const).map((title, k) => ({
    key: title,
    title,
    unit: units.length,
    width: '104px',
    ...figure,
    value: (i: FlightFigures['images'][number]) => i.position?.[k] ?? null,
    text: (i: FlightFigures['images'][number]) => (i.position ? length(i.position[k]!, units, -1) : 'not oriented'),
  })),
];

export const orthoColumns = (units: UnitsView): Column<OrthoView>[] => [
  { key: 'name', title: 'orthoimage', width: 'minmax(90px, 1fr)', value: (o) => o.name },
  { key: 'of', title: 'of flight', width: '90px', value: (o) => o.of },
  {
    key: 'pixel',
    title: 'pixel',
    unit: units.length,
    width: '70px',
    ...figure,
    value: (o) => o.pixel,
    text: (o) => length(o.pixel, units),
  },
  {
    key: 'cell',
    title: 'heights every',
    unit: units.length,
    width: '110px',
    ...figure,
    value: (o) => o.cell,
    text: (o) => length(o.cell, units),
  },
  {
    key: 'complete',
    title: 'complete',
    unit: '%',
    width: '76px',
    ...figure,
    value: (o) => o.completeness,
    text: (o) => (100 * o.completeness).toFixed(1),
  },
  { key: 'state', title: '', width: '64px', value: (o) => (o.stale.length > 0 ? '◐ stale' : '✓ fresh') },
];

const COLOURS = ['#e9c46a', '#9cc5a1', '#5a9a78', '#2f6d58'];
const bandOf = (count: number) => (count >= 6 ? 3 : count >= 3 ? 2 : count === 2 ? 1 : 0);

/** The path, what each image shows, how often the ground is shown, and the points that are known. */
export function flightScene(m: MissionView | null, points: FlightsView['points'], images: ReadonlySet<string>): Scene {
  if (!m) return emptyScene;
  const paths: ScenePath[] = [{ path: m.images.flatMap((i) => [i.e, i.n]), kind: 'track' }];
  for (const i of m.images)
    if (images.has(i.file) && i.footprint.length > 0)
      paths.push({ path: [...i.footprint, i.footprint[0]!].flatMap((c) => [c[0], c[1]]), kind: 'boundary' });
  return {
    ...emptyScene,
    points: points.map((p) => ({ name: p.name, e: p.e, n: p.n, role: p.role === 'check' ? 'check' : 'control' })),
    paths,
    cells: {
      e: m.cover.e,
      n: m.cover.n,
      band: m.cover.count.map(bandOf),
      colours: COLOURS,
      labels: ['2', '3', '6'],
      size: m.cover.size,
    },
    notes: m.images.map((i) => ({ e: i.e, n: i.n, text: '·', tone: 'plain' as const })),
    caption: 'images that show the ground',
  };
}

/** Marks with one set, moved or taken away. */
export function marked(marks: Mark[], point: string, image: string, at: { x: number; y: number } | null): Mark[] {
  const others = marks.filter((m) => m.point !== point || m.image !== image);
  return at ? [...others, { point, image, x: Math.round(at.x * 100) / 100, y: Math.round(at.y * 100) / 100 }] : others;
}

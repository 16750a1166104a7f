/** How points of a cloud are coloured: by what, and in which colours. Numbers from 0 to 255. */
export type ColourBy = 'elevation' | 'class' | 'intensity' | 'colour';
export type Rgb = readonly [number, number, number];

/** From low to high; dark enough to be seen on paper, light enough at night. */
const RAMP: Rgb[] = [
  [47, 95, 158],
  [58, 140, 140],
  [106, 148, 78],
  [190, 150, 60],
  [168, 96, 42],
];
const GREY: Rgb[] = [
  [46, 52, 60],
  [204, 200, 188],
];

/** Classes of the LAS specification (ASPRS, table 17), by number. */
export const CLASSES: Record<number, { name: string; colour: Rgb }> = {
  0: { name: 'never classified', colour: [120, 120, 116] },
  1: { name: 'unclassified', colour: [120, 120, 116] },
  2: { name: 'ground', colour: [150, 110, 62] },
  3: { name: 'low vegetation', colour: [150, 176, 92] },
  4: { name: 'medium vegetation', colour: [104, 146, 72] },
  5: { name: 'high vegetation', colour: [58, 112, 62] },
  6: { name: 'building', colour: [84, 98, 146] },
  7: { name: 'noise', colour: [206, 66, 40] },
  8: { name: 'key point', colour: [96, 70, 130] },
  9: { name: 'water', colour: [52, 130, 166] },
  17: { name: 'bridge', colour: [122, 92, 150] },
  18: { name: 'high noise', colour: [206, 66, 40] },
};
const OTHER: Rgb = [90, 90, 110];

export const classOf = (c: number) => CLASSES[c] ?? { name: `class ${c}`, colour: OTHER };
export const css = ([r, g, b]: Rgb) => `rgb(${r}, ${g}, ${b})`;

export function between(part: number, colours: Rgb[] = RAMP): Rgb {
  const x = Math.min(0.9999, Math.max(0, part)) * (colours.length - 1);
  const i = Math.floor(x);
  const [a, b] = [colours[i]!, colours[i + 1]!];
  return [0, 1, 2].map((k) => Math.round(a[k]! + (x - i) * (b[k]! - a[k]!))) as unknown as Rgb;
}

const SHADES = Array.from({ length: 256 }, (_v, k) => between(k / 255));
const GREYS = Array.from({ length: 256 }, (_v, k) => between(k / 255, GREY));

/** The colours from low to high, as a stretch of them is drawn. */
export const ramp = (by: ColourBy) => `linear-gradient(90deg, ${(by === 'intensity' ? GREY : RAMP).map((c) => css(c)).join(', ')})`;

/** What is known of the points of a tile. */
export interface PointValues {
  heights: (i: number) => number;
  classes: ArrayLike<number> | null;
  intensities: ArrayLike<number> | null;
  colours: ArrayLike<number> | null;
}
export interface Range {
  from: number;
  to: number;
}

/** A byte each for red, green and blue of every point. */
export function colours(count: number, by: ColourBy, of: PointValues, heights: Range, intensities: Range): Uint8Array {
  const out = new Uint8Array(3 * count);
  const place = (v: number, r: Range) => Math.min(255, Math.max(0, Math.round((255 * (v - r.from)) / Math.max(1e-9, r.to - r.from))));
  const one = (i: number): Rgb => {
    if (by === 'class' && of.classes) return classOf(of.classes[i]!).colour;
    if (by === 'intensity' && of.intensities) return GREYS[place(of.intensities[i]!, intensities)]!;
    if (by === 'colour' && of.colours) return [of.colours[3 * i]!, of.colours[3 * i + 1]!, of.colours[3 * i + 2]!];
    return SHADES[place(of.heights(i), heights)]!;
  };
  for (let i = 0; i < count; i += 1) out.set(one(i), 3 * i);
  return out;
}

/** Where the middle most of some values lies: a few far off must not make all the rest one colour. */
export function usual(values: ArrayLike<number>): Range {
  const sorted = Float64Array.from(values).sort();
  const at = (part: number) => sorted[Math.min(sorted.length - 1, Math.floor(part * sorted.length))] ?? 0;
  return { from: at(0.02), to: at(0.98) };
}

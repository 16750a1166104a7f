import type { EpochsView } from '../../api/types';

/** Epochs as they were solved: seconds after the first, millimetres from the first place it stood at. */
export interface Scatter {
  seconds: number[];
  e: number[];
  n: number[];
  u: number[];
  fixed: number[];
  satellites: number[];
}

/** Corners of the convex hull of some epochs, closed; after Andrew's monotone chain (1979). */
export function hull(points: [number, number][]): [number, number][] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  if (sorted.length < 3) return sorted;
  const half = (list: [number, number][]) => {
    const out: [number, number][] = [];
    for (const p of list) {
      while (out.length > 1) {
        const [a, b] = [out[out.length - 2]!, out[out.length - 1]!];
        if ((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]) > 0) break;
        out.pop();
      }
      out.push(p);
    }
    return out.slice(0, -1);
  };
  const ring = [...half(sorted), ...half(sorted.reverse())];
  return [...ring, ring[0]!];
}

/** Epochs of a stand, without those that lie far off it. */
export function standing(scatter: Scatter, epochs: EpochsView, index: number): [number, number][] {
  const s = epochs.stands[index]!;
  const far = 3 * Math.max(1, s.spreadPlan);
  return scatter.seconds.flatMap((t, k): [number, number][] =>
    t >= s.from && t <= s.to && Math.hypot(scatter.e[k]! - s.mean[0]!, scatter.n[k]! - s.mean[1]!) <= far
      ? [[scatter.e[k]!, scatter.n[k]!]]
      : [],
  );
}

/** From the first colour to the second, as the share of the time goes on; both as #rrggbb. */
export function between(a: string, b: string, share: number): string {
  const part = (c: string, i: number) => parseInt(c.slice(1 + 2 * i, 3 + 2 * i), 16);
  const mixed = [0, 1, 2].map((i) => Math.round(part(a, i) + (part(b, i) - part(a, i)) * share));
  return `rgb(${mixed.join(',')})`;
}

/** Millimetres of a drawing whose two axes have one scale: half of what each shows. */
export function trueScale(
  values: [number[], number[]],
  width: number,
  height: number,
): { middle: [number, number]; half: [number, number]; step: number } {
  const [e, n] = values.map((list) => [Math.min(...list), Math.max(...list)] as const) as [
    readonly [number, number],
    readonly [number, number],
  ];
  const perPixel = Math.max(Math.max(10, e[1] - e[0]) / width, Math.max(10, n[1] - n[0]) / height) * 1.25;
  const span = perPixel * Math.max(width, height);
  const step = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10000].find((s) => span / s <= 14) ?? 20000;
  return { middle: [(e[0] + e[1]) / 2, (n[0] + n[1]) / 2], half: [(perPixel * width) / 2, (perPixel * height) / 2], step };
}

/** What a rectangle on the scatter holds, as a window of time: from the first to the last epoch in it. */
export function windowOf(scatter: Scatter, e: [number, number], n: [number, number]): [number, number] | null {
  const inside = scatter.seconds.filter(
    (_, k) => scatter.e[k]! >= e[0] && scatter.e[k]! <= e[1] && scatter.n[k]! >= n[0] && scatter.n[k]! <= n[1],
  );
  return inside.length < 2 ? null : [inside[0]!, inside[inside.length - 1]!];
}

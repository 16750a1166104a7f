import type { ScenePoint } from './scene';

export type Box = [west: number, south: number, east: number, north: number];

/** More than these are slower to draw than to pan; two hundred thousand are thinned to so many at every scale. */
export const MOST = 6000;

export interface Drawn {
  points: ScenePoint[];
  /** How many there are where the sketch looks. */
  inView: number;
}

/**
 * Which points of a large scene are drawn: every mark that matters, and of the surveyed ones in view one to a cell of the
 * screen, the cells as small as the number allows. Units of the box per pixel: resolution.
 */
export function thinned(points: ScenePoint[], box: Box, resolution: number, most = MOST): Drawn {
  const marks: ScenePoint[] = [];
  const seen: ScenePoint[] = [];
  for (const p of points) {
    if (p.e < box[0] || p.e > box[2] || p.n < box[1] || p.n > box[3]) continue;
    (p.role === 'surveyed' || p.role === 'new' ? seen : marks).push(p);
  }
  const inView = marks.length + seen.length;
  let chosen = seen;
  for (let pixels = 3; chosen.length > most; pixels *= 1.5) chosen = onePerCell(seen, box, pixels * resolution);
  return { points: [...marks, ...chosen], inView };
}

function onePerCell(points: ScenePoint[], box: Box, cell: number): ScenePoint[] {
  const columns = Math.ceil((box[2] - box[0]) / cell) + 1;
  const rows = Math.ceil((box[3] - box[1]) / cell) + 1;
  const taken = new Uint8Array(columns * rows);
  return points.filter((p) => {
    const at = Math.floor((p.n - box[1]) / cell) * columns + Math.floor((p.e - box[0]) / cell);
    if (taken[at] === 1) return false;
    taken[at] = 1;
    return true;
  });
}

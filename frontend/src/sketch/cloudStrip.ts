import { places, type Tile } from './cloudPlan';

/** Points that lie along a line on the map: how far along it, and how high. Metres. */
export interface Strip {
  along: number[];
  h: number[];
  /** Whether there are finer tiles that were not read. */
  isSome: boolean;
}
type Line = [number, number][];

/** Points that are shown, and tiles that are read for them. */
const MOST_POINTS = 60_000;
const MOST_TILES = 120;
const AT_ONCE = 8;

/** Of a line: how far along it a place lies and how far off, at its nearest. */
export function alongLine(line: Line, e: number, n: number): [number, number] {
  let [best, along, begun] = [Infinity, 0, 0];
  for (let i = 0; i + 1 < line.length; i += 1) {
    const [[x, y], [u, v]] = [line[i]!, line[i + 1]!];
    const l = Math.hypot(u - x, v - y);
    if (l > 0) {
      const t = ((e - x) * (u - x) + (n - y) * (v - y)) / l;
      const at = Math.max(0, Math.min(l, t));
      // Beyond the ends of the line nothing is cut.
      const isBeyond = (i === 0 && t < 0) || (i + 2 === line.length && t > l);
      const off = isBeyond ? Infinity : Math.hypot(e - x - (at * (u - x)) / l, n - y - (at * (v - y)) / l);
      if (off < best) [best, along] = [off, begun + at];
    }
    begun += l;
  }
  return [along, best];
}

/** Whether a tile may hold points near the line: its box is cut by a line as wide as its diagonal. */
export function isNear(tile: Tile, line: Line, half: number): boolean {
  const b = tile.boundingVolume.box;
  const reach = Math.hypot(b[3]!, b[7]!) + half;
  for (let i = 0; i + 1 < line.length; i += 1) {
    const [[x, y], [u, v]] = [line[i]!, line[i + 1]!];
    const l2 = (u - x) ** 2 + (v - y) ** 2;
    const t = l2 > 0 ? Math.max(0, Math.min(1, ((b[0]! - x) * (u - x) + (b[1]! - y) * (v - y)) / l2)) : 0;
    if (Math.hypot(x + t * (u - x) - b[0]!, y + t * (v - y) - b[1]!) <= reach) return true;
  }
  return false;
}

/** What of a cloud lies within half a width of a line, from coarse tiles to fine ones until there is enough to see. */
export async function stripOf(url: string, line: Line, half: number): Promise<Strip> {
  const folder = url.slice(0, url.lastIndexOf('/') + 1);
  const { root } = (await (await fetch(url)).json()) as { root: Tile };
  const strip: Strip = { along: [], h: [], isSome: false };
  let open = [root];
  let read = 0;
  while (open.length > 0) {
    if (read >= MOST_TILES || strip.h.length >= MOST_POINTS) return { ...strip, isSome: true };
    const now = open.splice(0, AT_ONCE).filter((t) => isNear(t, line, half));
    read += now.length;
    const all = await Promise.all(
      now.map(async (t) => (t.content ? places(await (await fetch(folder + t.content.uri)).arrayBuffer()) : [])),
    );
    for (const [e, n, h] of all.flat()) {
      const [along, off] = alongLine(line, e, n);
      if (off <= half) {
        strip.along.push(along);
        strip.h.push(h);
      }
    }
    open = [...open, ...now.flatMap((t) => t.children ?? [])];
  }
  return strip;
}

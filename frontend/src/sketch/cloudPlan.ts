import { between, css } from './cloudColours';
import type { SceneCells } from './scene';

/** Tiles that are drawn on the map: the top one, and those below it while they are few. */
const MOST_TILES = 9;
const BANDS = 12;

export interface Tile {
  boundingVolume: { box: number[] };
  content?: { uri: string };
  children?: Tile[];
}
export interface Plan {
  e: number[];
  n: number[];
  h: number[];
  /** Metres between points of the finest tile that is here. */
  size: number;
}

/** Places of a .pnts tile (OGC 22-025r4, section 10.3). */
export function places(bytes: ArrayBuffer): [number, number, number][] {
  const head = new DataView(bytes);
  const json = head.getUint32(12, true);
  const table = JSON.parse(new TextDecoder().decode(new Uint8Array(bytes, 28, json))) as {
    POINTS_LENGTH: number;
    RTC_CENTER: [number, number, number];
    POSITION: { byteOffset: number };
  };
  const begin = 28 + json + table.POSITION.byteOffset;
  const at = (i: number, k: number) => head.getFloat32(begin + 12 * i + 4 * k, true) + table.RTC_CENTER[k]!;
  return Array.from({ length: table.POINTS_LENGTH }, (_v, i) => [at(i, 0), at(i, 1), at(i, 2)]);
}

/** A cloud from above: its top tiles. */
export async function planOf(url: string): Promise<Plan> {
  const folder = url.slice(0, url.lastIndexOf('/') + 1);
  const { root } = (await (await fetch(url)).json()) as { root: Tile };
  const tiles = [root, ...(root.children ?? [])].slice(0, MOST_TILES).filter((t) => t.content);
  const all = await Promise.all(tiles.map(async (t) => places(await (await fetch(folder + t.content!.uri)).arrayBuffer())));
  const plan: Plan = { e: [], n: [], h: [], size: (2 * root.boundingVolume.box[3]!) / (tiles.length > 1 ? 96 : 48) };
  for (const [e, n, h] of all.flat()) {
    plan.e.push(e);
    plan.n.push(n);
    plan.h.push(h);
  }
  return plan;
}

/** Coloured by height, the higher over the lower; `heights` are where the colours begin and end. */
export function planCells(plan: Plan, heights: { from: number; to: number }, text: (h: number) => string): SceneCells {
  const order = plan.h.map((_v, i) => i).sort((a, b) => plan.h[a]! - plan.h[b]!);
  const step = Math.max(1e-9, heights.to - heights.from) / BANDS;
  const band = (h: number) => Math.min(BANDS - 1, Math.max(0, Math.floor((h - heights.from) / step)));
  return {
    e: order.map((i) => plan.e[i]!),
    n: order.map((i) => plan.n[i]!),
    band: order.map((i) => band(plan.h[i]!)),
    colours: Array.from({ length: BANDS }, (_v, k) => css(between((k + 0.5) / BANDS))),
    labels: Array.from({ length: BANDS - 1 }, (_v, k) => ((k + 1) % 3 === 0 ? text(heights.from + (k + 1) * step) : '')),
    size: plan.size,
  };
}

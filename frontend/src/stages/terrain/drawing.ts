import type { DrawingView } from '../../api/types';

/** What is picked of a drawing. */
export type Pick = 'faces' | 'edges' | 'corners';

export interface Picked {
  faces: number[];
  /** Edges of faces or parts of lines, each as its two corners. */
  edges: [number, number][];
  /** In the order they were picked. */
  corners: number[];
}

export const nothingPicked = (): Picked => ({ faces: [], edges: [], corners: [] });

const cornersOf = (d: DrawingView, t: number) => d.triangles.slice(3 * t, 3 * t + 3) as [number, number, number];
const key = (a: number, b: number) => (a < b ? `${a} ${b}` : `${b} ${a}`);

/** Triangles by face. */
export function trianglesOf(d: DrawingView): number[][] {
  const by: number[][] = [];
  d.faceOf.forEach((face, t) => (by[face] ??= []).push(t));
  return by;
}

/** Edges round a face, without those its triangles share. */
export function outline(d: DrawingView, triangles: number[]): [number, number][] {
  const seen = new Map<string, [number, number] | null>();
  for (const t of triangles) {
    const c = cornersOf(d, t);
    for (let k = 0; k < 3; k += 1) {
      const edge: [number, number] = [c[k]!, c[(k + 1) % 3]!];
      const name = key(...edge);
      seen.set(name, seen.has(name) ? null : edge);
    }
  }
  return [...seen.values()].filter((e): e is [number, number] => e !== null);
}

/** Square of the distance of a place from a part, in plan or in space. */
function awayFrom(d: DrawingView, [a, b]: [number, number], at: number[]): number {
  const p = [d.x[a]!, d.y[a]!, d.z[a]!];
  const u = [d.x[b]! - p[0]!, d.y[b]! - p[1]!, d.z[b]! - p[2]!];
  const w = at.map((v, k) => v - p[k]!);
  let [dot, length] = [0, 0];
  at.forEach((_v, k) => {
    dot += u[k]! * w[k]!;
    length += u[k]! ** 2;
  });
  const f = length > 0 ? Math.min(1, Math.max(0, dot / length)) : 0;
  return w.reduce((sum, v, k) => sum + (v - f * u[k]!) ** 2, 0);
}

export interface Seen {
  faces: Set<number>;
  lines: Set<number>;
  points: Set<number>;
}

/** What is on the layers that are shown. */
export function seenOf(d: DrawingView, hidden: Set<string>): Seen {
  const shown = (layer: number | undefined) => layer === undefined || !hidden.has(d.layers[layer] ?? '');
  const faces = d.faceOf.length > 0 ? d.faceOf[d.faceOf.length - 1]! + 1 : 0;
  const pick = (count: number, layers: number[]) => new Set(Array.from({ length: count }, (_v, i) => i).filter((i) => shown(layers[i])));
  return { faces: pick(faces, d.faceLayer), lines: pick(d.lines.length, d.lineLayer), points: pick(d.points.length, d.pointLayer) };
}

/** Faces whose outlines are drawn one by one; more are a haze. */
const MOST_OUTLINED = 20_000;

/** Outlines of the faces, and parts of the lines, that are shown. */
export function shownEdges(d: DrawingView, seen: Seen): [number, number][] {
  const edges: [number, number][] = [];
  if (seen.faces.size <= MOST_OUTLINED)
    trianglesOf(d).forEach((triangles, face) => seen.faces.has(face) && edges.push(...outline(d, triangles)));
  d.lines.forEach((line, i) => {
    if (seen.lines.has(i)) for (let k = 1; k < line.length; k += 1) edges.push([line[k - 1]!, line[k]!]);
  });
  return edges;
}

/** The highest face at a place in plan; null beside all. */
export function faceAt(d: DrawingView, seen: Seen, e: number, n: number): number | null {
  let [best, found]: [number, number | null] = [-Infinity, null];
  d.faceOf.forEach((face, t) => {
    if (!seen.faces.has(face)) return;
    const [a, b, c] = cornersOf(d, t);
    const cross = (p: number, q: number) => (d.x[q]! - d.x[p]!) * (n - d.y[p]!) - (d.y[q]! - d.y[p]!) * (e - d.x[p]!);
    const [u, v, w] = [cross(a, b), cross(b, c), cross(c, a)];
    const twice = u + v + w;
    if (twice === 0 || u * twice < 0 || v * twice < 0 || w * twice < 0) return;
    const h = (v * d.z[a]! + w * d.z[b]! + u * d.z[c]!) / twice;
    if (h > best) [best, found] = [h, face];
  });
  return found;
}

/** The edge of a face, or a whole line, nearest to a place within a distance; of a line all its parts. */
export function edgesAt(d: DrawingView, seen: Seen, at: number[], within: number): [number, number][] {
  let best = within ** 2;
  let found: [number, number][] = [];
  trianglesOf(d).forEach((triangles, face) => {
    if (!seen.faces.has(face)) return;
    for (const edge of outline(d, triangles)) {
      const away = awayFrom(d, edge, at);
      if (away < best) [best, found] = [away, [edge]];
    }
  });
  d.lines.forEach((line, i) => {
    if (!seen.lines.has(i)) return;
    const parts = line.slice(1).map((c, k) => [line[k]!, c] as [number, number]);
    if (parts.some((part) => awayFrom(d, part, at) < best)) {
      best = Math.min(...parts.map((part) => awayFrom(d, part, at)));
      found = parts;
    }
  });
  return found;
}

/** The corner nearest to a place within a distance. */
export function cornerAt(d: DrawingView, seen: Seen, at: number[], within: number): number | null {
  let [best, found]: [number, number | null] = [within ** 2, null];
  const look = (c: number) => {
    const p = [d.x[c]!, d.y[c]!, d.z[c]!];
    const away = at.reduce((sum, v, k) => sum + (v - p[k]!) ** 2, 0);
    if (away < best) [best, found] = [away, c];
  };
  d.faceOf.forEach((face, t) => seen.faces.has(face) && cornersOf(d, t).forEach(look));
  d.lines.forEach((line, i) => seen.lines.has(i) && line.forEach(look));
  d.points.forEach((c, i) => seen.points.has(i) && look(c));
  return found;
}

/** Another time the same is let go. */
export function toggledPick(p: Picked, what: Pick, found: number | [number, number][] | null): Picked {
  if (found === null || (Array.isArray(found) && found.length === 0)) return p;
  if (what === 'faces') return { ...p, faces: turned(p.faces, found as number) };
  if (what === 'corners') return { ...p, corners: turned(p.corners, found as number) };
  const names = new Set((found as [number, number][]).map((e) => key(...e)));
  const rest = p.edges.filter((e) => !names.has(key(...e)));
  return { ...p, edges: rest.length < p.edges.length ? rest : [...p.edges, ...(found as [number, number][])] };
}

const turned = (list: number[], one: number) => (list.includes(one) ? list.filter((x) => x !== one) : [...list, one]);

/** Corners at one place are one, the first of them: faces are drawn one by one, each with corners of its own. */
export function samePlace(d: DrawingView): number[] {
  const first = new Map<string, number>();
  return d.x.map((x, c) => {
    const place = `${x.toFixed(6)} ${d.y[c]!.toFixed(6)} ${d.z[c]!.toFixed(6)}`;
    if (!first.has(place)) first.set(place, c);
    return first.get(place)!;
  });
}

/** Edges end to end as lines: the corners of each in order, a closed one without its first corner again. */
export function chained(d: DrawingView, edges: [number, number][]): number[][] {
  const same = samePlace(d);
  const left = edges.map(([a, b]) => [same[a]!, same[b]!] as [number, number]);
  const ends = new Map<number, number>();
  left.flat().forEach((c) => ends.set(c, (ends.get(c) ?? 0) + 1));
  const lines: number[][] = [];
  while (left.length > 0) {
    // An end that only one edge has begins an open line.
    const from = left.findIndex(([a, b]) => ends.get(a) === 1 || ends.get(b) === 1);
    const [a, b] = left.splice(Math.max(0, from), 1)[0]!;
    const line = ends.get(b) === 1 && ends.get(a) !== 1 ? [b, a] : [a, b];
    for (;;) {
      const last = line[line.length - 1]!;
      const next = left.findIndex((e) => e.includes(last));
      if (next < 0) break;
      const [p, q] = left.splice(next, 1)[0]!;
      line.push(p === last ? q : p);
    }
    if (line.length > 2 && line[0] === line[line.length - 1]) line.pop();
    lines.push(line);
  }
  return lines;
}

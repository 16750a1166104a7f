import type { DrawingView } from '../../api/types';
import { emptyScene, type Scene, type ScenePath } from '../../sketch/scene';
import type { Picked, Seen } from './drawing';
import { shownEdges } from './drawing';

/** What is picked; then the layers, one after the other, alike in lightness. */
const PICKED = '#2a5bd7';
const LAYERS = ['#c6c49f', '#8fa8a0', '#d2bd94', '#b9b3c9', '#a9b89d', '#cbb39a', '#a7bcc9', '#d9c3c0'];

export const layerColour = (layer: number) => LAYERS[layer % LAYERS.length]!;

/** Faces, lines and points of a drawing on the map, coloured by layer, and what is picked of them. */
export function designScene(d: DrawingView, seen: Seen, picked: Picked): Scene {
  const isPicked = new Set(picked.faces);
  const corners: number[] = [];
  const band: number[] = [];
  d.faceOf.forEach((face, t) => {
    if (!seen.faces.has(face)) return;
    corners.push(...d.triangles.slice(3 * t, 3 * t + 3));
    band.push(isPicked.has(face) ? 0 : 1 + ((d.faceLayer[face] ?? 0) % LAYERS.length));
  });
  const xyz = new Float64Array(3 * d.x.length);
  d.x.forEach((x, i) => xyz.set([x, d.y[i]!, d.z[i]!], 3 * i));
  const used = Math.min(LAYERS.length, Math.max(1, d.layers.length && new Set(d.faceLayer).size));
  const paths: ScenePath[] = [];
  const path = (line: number[], kind: ScenePath['kind']) => paths.push({ path: line.flatMap((c) => [d.x[c]!, d.y[c]!]), kind });
  const faces = { ...seen, lines: new Set<number>() };
  for (const edge of shownEdges(d, faces)) path(edge, 'edge');
  d.lines.forEach((line, i) => seen.lines.has(i) && path(line, 'breakline'));
  for (const edge of picked.edges) path(edge, 'section');
  const shown = d.points.filter((_c, i) => seen.points.has(i));
  const point = (c: number, role: 'surveyed' | 'new') => ({ name: `corner ${c}`, e: d.x[c]!, n: d.y[c]!, role });
  return {
    ...emptyScene,
    faces: {
      xyz,
      corners: Uint32Array.from(corners),
      band: Uint8Array.from(band),
      limits: [],
      colours: [PICKED, ...LAYERS.slice(0, used)],
      labels: [],
    },
    paths,
    points: [
      ...shown.filter((c) => !picked.corners.includes(c)).map((c) => point(c, 'surveyed')),
      ...picked.corners.map((c) => point(c, 'new')),
    ],
  };
}

/** The faces that are shown as a surface in space is, and which triangles of the drawing those are. */
export function designMesh(d: DrawingView, seen: Seen): { bytes: ArrayBuffer; triangles: number[] } {
  const triangles = d.faceOf.flatMap((face, t) => (seen.faces.has(face) ? [t] : []));
  const bytes = new ArrayBuffer(8 + 24 * d.x.length + 12 * triangles.length);
  const head = new DataView(bytes);
  head.setUint32(0, d.x.length, true);
  head.setUint32(4, triangles.length, true);
  d.x.forEach((x, i) => [x, d.y[i]!, d.z[i]!].forEach((v, k) => head.setFloat64(8 + 24 * i + 8 * k, v, true)));
  const from = 8 + 24 * d.x.length;
  triangles.forEach((t, i) => [0, 1, 2].forEach((k) => head.setUint32(from + 12 * i + 4 * k, d.triangles[3 * t + k]!, true)));
  return { bytes, triangles };
}

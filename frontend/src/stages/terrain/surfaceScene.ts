import type { PointView, SurfaceView } from '../../api/types';
import { pointsScene, type Scene, type ScenePath } from '../../sketch/scene';
import type { Contour3d } from '../../sketch/Surface3d.vue';

/** Edges of the triangles of a mesh as the server sends it: counts, vertices, corners of triangles. */
function meshEdges(buffer: ArrayBuffer): ScenePath[] {
  const head = new DataView(buffer);
  const n = head.getUint32(0, true);
  const t = head.getUint32(4, true);
  const v = new Float64Array(buffer.slice(8, 8 + 24 * n));
  const f = new Uint32Array(buffer.slice(8 + 24 * n, 8 + 24 * n + 12 * t));
  const paths: ScenePath[] = [];
  for (let i = 0; i < f.length; i += 3) {
    const path: number[] = [];
    for (const k of [0, 1, 2, 0]) path.push(v[3 * f[i + k]!]!, v[3 * f[i + k]! + 1]!);
    paths.push({ path, kind: 'edge' });
  }
  return paths;
}

function contourPaths(contours: Contour3d[], interval: number): ScenePath[] {
  return contours.flatMap((level) => {
    const isIndex = Math.round(level.h / interval) % 5 === 0;
    return level.lines.map((path) => ({
      path,
      kind: isIndex ? ('index' as const) : ('contour' as const),
      label: isIndex ? level.h.toFixed(1) : undefined,
    }));
  });
}

/** The lines that shape a surface; boundaries and voids close. */
function linePaths(points: PointView[], surface: SurfaceView): ScenePath[] {
  const place = new Map(points.map((p) => [p.name, p]));
  return surface.lines.map((line) => {
    const path: number[] = [];
    for (const name of line.points) {
      const p = place.get(name);
      if (p?.e != null && p.n != null) path.push(p.e, p.n);
    }
    for (const v of line.vertices) path.push(v[0]!, v[1]!);
    if (line.role !== 'breakline') path.push(path[0]!, path[1]!);
    return { path, kind: line.role as ScenePath['kind'] };
  });
}

/** A surface as the sketch draws it; mesh when its triangles are wanted. */
export function surfaceScene(
  points: PointView[],
  surface: SurfaceView | null,
  contours: Contour3d[],
  mesh: ArrayBuffer | null,
  drawn: [number, number][] | null,
): Scene {
  const paths: ScenePath[] = [];
  if (surface && mesh) paths.push(...meshEdges(mesh));
  if (surface) paths.push(...contourPaths(contours, surface.interval), ...linePaths(points, surface));
  if (drawn) paths.push({ path: [...drawn, drawn[0]!].flat(), kind: 'boundary' });
  return { ...pointsScene(points), paths };
}

import type { LineView, PointView } from '../../api/types';
import { pointsScene, type Scene, type SceneFaces, type ScenePath } from '../../sketch/scene';
import type { Contour3d } from '../../sketch/Surface3d.vue';
import type { MeshShape } from './mesh';

/** Edges of the triangles of a mesh, each once. */
export function meshEdges(m: MeshShape): ScenePath[] {
  const paths: ScenePath[] = [];
  const seen = new Set<number>();
  const n = m.xyz.length / 3;
  for (let i = 0; i < m.corners.length; i += 1) {
    const a = m.corners[i]!;
    const b = m.corners[i % 3 === 2 ? i - 2 : i + 1]!;
    const key = Math.min(a, b) * n + Math.max(a, b);
    if (seen.has(key)) continue;
    seen.add(key);
    paths.push({ path: [m.xyz[3 * a]!, m.xyz[3 * a + 1]!, m.xyz[3 * b]!, m.xyz[3 * b + 1]!], kind: 'edge' });
  }
  return paths;
}

/** Contours; every so many of them an index contour with its height on it. */
export function contourPaths(contours: Contour3d[], interval: number, index: number, text: (h: number) => string): ScenePath[] {
  return contours.flatMap((level) => {
    const isIndex = Math.round(level.h / interval) % index === 0;
    return level.lines.map((path) => ({
      path,
      kind: isIndex ? ('index' as const) : ('contour' as const),
      label: isIndex ? text(level.h) : undefined,
    }));
  });
}

/** Lines of equal difference; the one where nothing differs stands out. */
export function isopachPaths(contours: Contour3d[], text: (h: number) => string): ScenePath[] {
  return contours.flatMap((level) =>
    level.lines.map((path) => ({ path, kind: level.h === 0 ? ('zero' as const) : ('index' as const), label: text(level.h) })),
  );
}

/** The lines that shape a surface; boundaries and voids close. */
export function linePaths(points: PointView[], lines: LineView[]): ScenePath[] {
  const place = new Map(points.map((p) => [p.name, p]));
  return lines.flatMap((line) => {
    const path: number[] = [];
    for (const name of line.points) {
      const p = place.get(name);
      if (p?.e != null && p.n != null) path.push(p.e, p.n);
    }
    for (const v of line.vertices) path.push(v[0]!, v[1]!);
    if (line.role !== 'breakline') path.push(path[0]!, path[1]!);
    return path.length < 4 ? [] : [{ path, kind: line.role as ScenePath['kind'] }];
  });
}

export function ring(corners: number[][], kind: ScenePath['kind']): ScenePath {
  return { path: [...corners, corners[0]!].flat(), kind };
}

/** The project's points with paths; where a selection is given, those outside it are left out. */
export function terrainScene(points: PointView[], paths: ScenePath[], faces?: SceneFaces, taken?: Set<string>): Scene {
  const scene = pointsScene(points);
  return {
    ...scene,
    points: taken ? scene.points.map((p) => (taken.has(p.name) ? p : { ...p, role: 'out' as const })) : scene.points,
    paths,
    ...(faces ? { faces } : {}),
  };
}

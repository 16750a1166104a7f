import type { OccupationView } from '../../api/types';
import type { ScenePath, ScenePoint, SceneShift } from '../../sketch/scene';

export interface FeatureVertex {
  rawE: number | null;
  rawN: number | null;
  rawH: number | null;
  e: number | null;
  n: number | null;
  h: number | null;
}

/** A rover feature as it was corrected; metres. */
export interface FeatureRow {
  id: string;
  kind: string;
  code: string;
  vertices: FeatureVertex[];
  positions: number;
  used: number;
  before: number;
  sdPlan: number | null;
  sdUp: number | null;
  moved: number | null;
  solution: string;
}

/** Share of the instants at which one of the references recorded. */
export function coverage(times: number[], references: OccupationView[]): number {
  if (times.length === 0) return 0;
  const inside = times.filter((t) => references.some((o) => t >= (o.trimFrom ?? o.from) - 1 && t <= (o.trimTo ?? o.to) + 1));
  return inside.length / times.length;
}

/** As "up to 0.05 m", "over 5 m". */
export function bandNames(ends: number[]): string[] {
  return [...ends.map((e) => `up to ${e} m`), `over ${ends[ends.length - 1] ?? 0} m`];
}

/** Corrected features on the map, and how far each vertex moved. */
export function drawn(rows: FeatureRow[]): { points: ScenePoint[]; paths: ScenePath[]; shifts: SceneShift[] } {
  const points: ScenePoint[] = [];
  const paths: ScenePath[] = [];
  const shifts: SceneShift[] = [];
  for (const row of rows) {
    const known = row.vertices.filter((v) => v.e !== null && v.n !== null);
    if (known.length === 0) continue;
    if (row.kind === 'Point') points.push({ name: row.id, e: known[0]!.e!, n: known[0]!.n!, role: 'adjusted' });
    else {
      const ring = row.kind === 'Polygon' ? [...known, known[0]!] : known;
      paths.push({ kind: 'feature', path: ring.flatMap((v) => [v.e!, v.n!]), label: row.id });
    }
    for (const v of known)
      if (v.rawE !== null && v.rawN !== null) shifts.push({ e: v.rawE, n: v.rawN, de: v.e! - v.rawE, dn: v.n! - v.rawN });
  }
  return { points, paths, shifts };
}

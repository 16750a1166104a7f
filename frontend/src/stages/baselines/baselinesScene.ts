import type { BaselinesView, ClosureView, PointView, ReferenceStationView } from '../../api/types';
import { pointsScene, type Scene, type SceneLine } from '../../sketch/scene';
import type { RunDocument } from './documents';
import { runOf } from './verdict';

/** Marks and baselines on the map: what is not fixed, and what a chosen loop is made of, stand out. */
export function baselinesScene(
  points: PointView[],
  view: BaselinesView | null,
  closure: ClosureView | null,
  run: RunDocument | null = null,
): Scene {
  const scene = pointsScene(points.filter((p) => p.role !== 'surveyed'));
  if (!view) return scene;
  const places = new Map(view.occupations.map((o) => [o.id, o]));
  const named = new Set(scene.points.map((p) => p.name));
  for (const o of view.occupations) {
    if (o.e === null || o.n === null || named.has(o.marker)) continue;
    named.add(o.marker);
    scene.points.push({ name: o.marker || o.file, e: o.e, n: o.n, role: 'new' });
  }
  scene.lines = view.baselines.flatMap((b): SceneLine[] => {
    const a = places.get(b.base);
    const c = places.get(b.rover);
    if (!a || !c || a.e === null || a.n === null || c.e === null || c.n === null) return [];
    const solved = runOf(b);
    const isBad = closure
      ? closure.baselines.includes(b.key) && closure.size > closure.allowed
      : solved !== null && !b.moves && solved.solution !== 'fixed';
    return [
      {
        key: b.key,
        from: [a.e, a.n],
        to: [c.e, c.n],
        style: 'vector',
        tone: isBad ? 'bad' : solved === null ? 'planned' : closure && closure.baselines.includes(b.key) ? 'planned' : 'plain',
      },
    ];
  });
  if (run?.track) {
    scene.paths = [{ kind: 'track', path: run.track.e.flatMap((e, i) => [e, run.track!.n[i]!]) }];
    scene.points = [...scene.points, ...(run.stops ?? []).map((s, i) => ({ name: `stop ${i + 1}`, e: s.e, n: s.n, role: 'new' as const }))];
  }
  return scene;
}

/** Reference stations about the marks of the project. */
export function stationsScene(points: PointView[], stations: ReferenceStationView[]): Scene {
  const scene = pointsScene(points.filter((p) => p.role === 'control'));
  for (const s of stations) if (s.e !== null && s.n !== null) scene.points.push({ name: s.id, e: s.e, n: s.n, role: 'planned' });
  return scene;
}

/** Corrected features with the marks about them. */
export function featured(
  points: PointView[],
  features: Pick<Scene, 'points' | 'paths' | 'shifts'>,
): Pick<Scene, 'points' | 'paths' | 'shifts'> {
  return { ...features, points: [...pointsScene(points.filter((p) => p.role === 'control')).points, ...features.points] };
}

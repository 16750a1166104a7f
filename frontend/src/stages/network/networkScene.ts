import type { NetworkView, PointView, RowView, ShiftView } from '../../api/types';
import { pointsScene, roleOf, type Scene, type SceneLine } from '../../sketch/scene';

/** All sights between two stations are one line of the sketch, all vectors another. */
export function lineKey(r: RowView): string {
  return sightKey(r.at, r.to, r.kind === 'vector' ? 'v' : 's');
}

export function sightKey(a: string, b: string, kind: 's' | 'v' = 's'): string {
  return `${kind}|${a < b ? `${a}|${b}` : `${b}|${a}`}`;
}

/** Sights, vectors, stations with ellipses (or moves since the run before, or those given) as the sketch draws them. */
export function networkScene(
  points: PointView[],
  network: NetworkView | null,
  showMoves: boolean,
  moves: ShiftView[] | null = null,
): Scene {
  const base = pointsScene(points.filter((p) => p.role !== 'surveyed'));
  const place = new Map<string, [number, number]>();
  for (const p of base.points) place.set(p.name, [p.e, p.n]);
  const roles = new Map(points.map((p) => [p.name, roleOf(p)]));
  for (const s of network?.stations ?? []) {
    if (!place.has(s.name)) base.points.push({ name: s.name, e: s.e, n: s.n, role: roles.get(s.name) ?? 'adjusted' });
    place.set(s.name, [s.e, s.n]);
  }
  const lines = new Map<string, SceneLine>();
  for (const r of network?.rows ?? []) {
    const from = place.get(r.at);
    const to = place.get(r.to);
    if (!from || !to) continue;
    const style = r.kind === 'vector' ? 'vector' : r.kind === 'height-difference' ? 'levelled' : 'sight';
    const key = lineKey(r);
    const line = lines.get(key) ?? { key, from, to, style, tone: 'plain' };
    if (r.used && r.flagged) line.tone = 'bad';
    else if (!r.used && line.tone === 'plain') line.tone = 'aside';
    lines.set(key, line);
  }
  const stations = network?.stations ?? [];
  const given = (list: ShiftView[]) =>
    list.flatMap((m) => {
      const at = place.get(m.name);
      return at ? [{ e: at[0], n: at[1], de: m.e, dn: m.n }] : [];
    });
  return {
    ...base,
    lines: [...lines.values()],
    ellipses: showMoves ? [] : stations,
    shifts: !showMoves
      ? []
      : moves
        ? given(moves)
        : stations.filter((s) => s.moveE !== null).map((s) => ({ e: s.e, n: s.n, de: s.moveE!, dn: s.moveN! })),
    confidence: network?.runs[0]?.confidence ?? 0.95,
  };
}

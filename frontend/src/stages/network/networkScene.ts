import type { NetworkView, PointView, RowView, ShiftView } from '../../api/types';
import { pointsScene, roleOf, type Scene, type SceneLine, type SceneNote } from '../../sketch/scene';

/** What the sketch says of the network besides its lines. */
export type Shows = 'ellipses' | 'relative' | 'redundancy' | 'external';

/** More figures than this on a sketch hide each other: the worst are written. */
const MOST_NOTES = 60;

const CAPTIONS: Record<Shows, string> = {
  ellipses: '',
  relative: 'between stations that are joined',
  redundancy: 'least redundancy number of each line: below 0.1 hardly checked, above 0.3 well',
  external: 'how far a bias that just stays undetected moves a station, largest of each line',
};

/** Redundancy numbers below a tenth are hardly checked by others, above three tenths well: common practice. */
const CHECKED: [number, number] = [0.1, 0.3];

/** All sights between two stations are one line of the sketch, all vectors another. */
export function lineKey(r: RowView): string {
  return sightKey(r.at, r.to, r.kind === 'vector' ? 'v' : 's');
}

export function sightKey(a: string, b: string, kind: 's' | 'v' = 's'): string {
  return `${kind}|${a < b ? `${a}|${b}` : `${b}|${a}`}`;
}

type Places = Map<string, [number, number]>;

/** An ellipse between every two stations that are joined: of the one seen from the other. */
function relative(network: NetworkView | null, place: Places) {
  return (network?.relative ?? []).flatMap((r) => {
    const [a, b] = [place.get(r.from), place.get(r.to)];
    if (!a || !b) return [];
    return [{ ...r, name: `${r.from}–${r.to}`, e: (a[0] + b[0]) / 2, n: (a[1] + b[1]) / 2 }];
  });
}

/** On every line the least of the redundancy numbers of what was measured there, or the largest external effect. */
function notes(network: NetworkView | null, place: Places, shows: Shows, figure: (metres: number) => string): SceneNote[] {
  if (shows !== 'redundancy' && shows !== 'external') return [];
  const worst = new Map<string, { at: string; to: string; value: number }>();
  for (const r of network?.rows ?? []) {
    const value = shows === 'redundancy' ? r.redundancy : r.external;
    if (!r.used || value === null) continue;
    const key = lineKey(r);
    const before = worst.get(key);
    if (!before || (shows === 'redundancy' ? value < before.value : value > before.value)) worst.set(key, { at: r.at, to: r.to, value });
  }
  const sign = shows === 'redundancy' ? 1 : -1;
  return [...worst.values()]
    .sort((x, y) => sign * (x.value - y.value))
    .slice(0, MOST_NOTES)
    .flatMap(({ at, to, value }): SceneNote[] => {
      const [a, b] = [place.get(at), place.get(to)];
      if (!a || !b) return [];
      const tone = shows === 'external' ? 'plain' : value < CHECKED[0] ? 'bad' : value < CHECKED[1] ? 'doubt' : 'good';
      return [{ e: (a[0] + b[0]) / 2, n: (a[1] + b[1]) / 2, text: shows === 'external' ? figure(value) : value.toFixed(2), tone }];
    });
}

/** Sights, vectors, stations with ellipses (or moves since the run before, or those given) as the sketch draws them. */
export function networkScene(
  points: PointView[],
  network: NetworkView | null,
  showMoves: boolean,
  moves: ShiftView[] | null = null,
  shows: Shows = 'ellipses',
  figure: (metres: number) => string = String,
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
    ellipses: showMoves ? [] : shows === 'relative' ? relative(network, place) : shows === 'ellipses' ? stations : [],
    notes: showMoves ? [] : notes(network, place, shows, figure),
    caption: showMoves ? '' : CAPTIONS[shows],
    shifts: !showMoves
      ? []
      : moves
        ? given(moves)
        : stations.filter((s) => s.moveE !== null).map((s) => ({ e: s.e, n: s.n, de: s.moveE!, dn: s.moveN! })),
    confidence: network?.runs[0]?.confidence ?? 0.95,
  };
}

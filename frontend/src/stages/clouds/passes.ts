import type { PassesView, PassRequest, PassView, TrajectoryFileView, UnitsView } from '../../api/types';
import type { Column } from '../../figures/columns';
import { length, lengthUnit, small, smallUnit } from '../../format/units';
import { emptyScene, type Scene } from '../../sketch/scene';

type Three = [number, number, number];
export interface Station {
  time: number;
  e: number;
  n: number;
  h: number;
  used: boolean;
  reason: string | null;
  shift: Three | null;
  sd: Three | null;
  points: number;
  rmsBefore: number | null;
  rmsAfter: number | null;
}
export interface PassDrawing {
  stations: Station[];
  path: [number[], number[]];
  reference: [number[], number[]];
  targets?: TargetRow[];
}
/** Offsets, right positive, and heights. */
export interface Section {
  ends: [number, number, number, number];
  pass: [number[], number[]];
  reference: [number[], number[]];
}
/** Points of a scan around a given place, from there; metres. */
export interface Around {
  east: number[];
  north: number[];
  up: number[];
  intensity: number[];
}
export type Target = PassView['targets'][number];
/** A target with how far it is off, given minus seen. */
export interface TargetRow {
  target: string;
  role: string;
  time: number;
  before: Three;
  after: Three;
  without: Three | null;
}
/** A station with how far along the pass it lies. */
export interface StationRow extends Station {
  i: number;
  along: number;
}

/** Why a station is left out, in words. */
const REASONS: Record<string, string> = {
  'no-points': 'fewer than 100 points',
  'no-reference': 'the other drive saw nothing here',
  geometry: 'plain walls: a direction is not held',
  agreement: 'the surfaces do not fit',
  'too-far': 'further off than is looked for',
  outlier: 'off both its neighbours',
};
export const reasonOf = (s: Station) => (s.used ? '' : (REASONS[s.reason ?? ''] ?? s.reason ?? ''));

/** What the page says first. */
export function headline(p: PassView, units: UnitsView): { words: string; tone: 'holds' | 'doubt' | 'fails' } {
  if (p.onto === '') return toControl(p, units);
  if (p.status === 'corrected')
    return {
      words: `Both drives agree to ${small(p.rmsAfter, units)} ${smallUnit(units)}`,
      tone: p.used === p.stations ? 'holds' : 'doubt',
    };
  if (p.status === 'no-overlap') return { words: 'The drives have nothing in common', tone: 'fails' };
  return { words: 'The drives are too far apart, or do not fit', tone: 'fails' };
}

/** Registered to control alone: check points say how good it is, else what the other control says of each. */
function toControl(p: PassView, units: UnitsView): ReturnType<typeof headline> {
  const words = ([plan, up]: number[]) => `${small(plan!, units)} ${smallUnit(units)} in plan, ${small(up!, units)} in height`;
  if (p.status !== 'corrected') return { words: 'As it was driven: no control point is marked in its scan yet', tone: 'doubt' };
  if (p.check) return { words: `Check points agree to ${words(p.check.after)}`, tone: 'holds' };
  if (p.without) return { words: `Control points agree with each other to ${words(p.without)}`, tone: 'holds' };
  return { words: 'Registered to one control point, which nothing checks', tone: 'doubt' };
}

export function sentences(p: PassView, units: UnitsView): string {
  if (p.onto === '')
    return p.status === 'corrected'
      ? `${p.of} follows its control points, linearly in time between them; the greatest correction is ${length(p.greatest, units)} ${lengthUnit(units)}.`
      : `Choose a point of the list above the section, and click where the scan of ${p.of} shows it.`;
  const every = p.isTime ? `${p.every} s` : `${length(p.every, units, -3)} ${lengthUnit(units)}`;
  const used = p.used === p.stations ? 'all are used' : `${p.used} are used`;
  const places = `${p.of} was compared with ${p.onto} at ${p.stations} places, every ${every}; ${used}.`;
  const moved = p.preShift.some((v) => v !== 0)
    ? ` A picked pair moved it ${length(Math.hypot(...p.preShift), units)} ${lengthUnit(units)} first.`
    : '';
  if (p.status !== 'corrected') return `${places}${moved} ${p.reason ?? ''}`;
  const before = `Before ${small(p.rmsBefore, units)} ${smallUnit(units)}; the greatest correction is ${length(p.greatest, units)} ${lengthUnit(units)}.`;
  return `${places}${moved} ${before}`;
}

/** Plan length along the pass to each of its stations, which stand in its order. */
export function stationRows(d: PassDrawing | null): StationRow[] {
  if (!d) return [];
  const [e, n] = d.path;
  let [k, along] = [0, 0];
  return d.stations.map((s, i) => {
    // The row of the way after which it stands: on from the one before.
    const away = (j: number) => Math.hypot(s.e - e[j]!, s.n - n[j]!);
    while (k + 1 < e.length && Math.hypot(e[k + 1]! - e[k]!, n[k + 1]! - n[k]!) <= away(k) + 1e-9) {
      along += Math.hypot(e[k + 1]! - e[k]!, n[k + 1]! - n[k]!);
      k += 1;
    }
    return { ...s, i, along: along + away(k) };
  });
}

/** What control and check points say, in words; nothing where none is seen. */
export function targetWords(p: PassView, units: UnitsView): string {
  const mm = smallUnit(units);
  const one = (name: string, r: PassView['control']) =>
    r
      ? `${r.count} ${name} ${r.count === 1 ? 'sighting' : 'sightings'}: ${small(r.after[0]!, units)} ${mm} in plan, ${small(r.after[1]!, units)} in height (before ${small(r.before[0]!, units)}, ${small(r.before[1]!, units)}).`
      : '';
  const each = p.without
    ? `Each control point against what the others say: ${small(p.without[0]!, units)} ${mm} in plan, ${small(p.without[1]!, units)} in height.`
    : '';
  return [one('control', p.control), one('check', p.check), each].filter(Boolean).join(' ');
}

/** Lines of text as targets: point, time, easting, northing, height. */
export function targetsOf(text: string, known: readonly string[]): { targets: Target[]; fault: string } {
  const targets: Target[] = [];
  for (const [i, line] of text.split('\n').entries()) {
    const words = line.trim().split(/[\s,;]+/);
    if (line.trim() === '') continue;
    const [target = '', ...numbers] = words;
    const [time, e, n, h] = numbers.map(Number);
    const where = `Line ${i + 1}: `;
    if (words.length !== 5 || numbers.some((v) => !Number.isFinite(Number(v))))
      return { targets, fault: `${where}a point and four numbers: time, easting, northing, height.` };
    if (!known.includes(target)) return { targets, fault: `${where}${target} is no control or check point with a given place.` };
    targets.push({ target, time: time!, e: e!, n: n!, h: h! });
  }
  return { targets, fault: '' };
}
export const targetLines = (targets: Target[]): string => targets.map((t) => `${t.target} ${t.time} ${t.e} ${t.n} ${t.h}`).join('\n');

/** The point of a scan that is nearest to where the section was clicked. */
export function nearestOf([x, y]: [number[], number[]], at: [number, number]): [number, number] | null {
  let best: [number, number] | null = null;
  let least = Infinity;
  for (const [i, v] of x.entries()) {
    const d = Math.hypot(v - at[0], y[i]! - at[1]);
    if (d < least) [best, least] = [[v, y[i]!], d];
  }
  return best;
}

/** What moves the pass so that both places of a pair are one: across the way and in height, for along it a section says nothing. */
export function pairShift(section: Section, moved: [number, number], stays: [number, number]): Three {
  const [e0, n0, e1, n1] = section.ends;
  const l = Math.hypot(e1 - e0, n1 - n0);
  const across = stays[0] - moved[0];
  return [(across * (e1 - e0)) / l, (across * (n1 - n0)) / l, stays[1] - moved[1]];
}

const figure = { align: 'right' as const, mono: true };
export const passColumns = (units: UnitsView): Column<PassView>[] => [
  { key: 'name', title: 'pass', width: 'minmax(100px, 1fr)', value: (p) => p.name },
  { key: 'version', title: 'in use', width: '58px', mono: true, value: (p) => (p.status === 'corrected' ? `v${p.run}` : 'as driven') },
  { key: 'onto', title: 'laid onto', width: 'minmax(100px, 1fr)', value: (p) => p.onto || 'control' },
  {
    key: 'length',
    title: 'length',
    unit: units.length,
    width: '76px',
    ...figure,
    value: (p) => p.length,
    text: (p) => length(p.length, units, -2),
  },
  {
    key: 'rms',
    title: 'rms',
    unit: smallUnit(units),
    width: '62px',
    ...figure,
    value: (p) => p.rmsAfter ?? -1,
    text: (p) => (p.rmsAfter === null ? '—' : small(p.rmsAfter, units)),
  },
  {
    key: 'state',
    title: '',
    width: '64px',
    value: (p) => (p.stale.length > 0 ? '◐ stale' : p.status === 'corrected' ? '✓ fresh' : '✗ not yet'),
  },
];

export function stationColumns(units: UnitsView): Column<StationRow>[] {
  const part = (k: 0 | 1 | 2, title: string): Column<StationRow> => ({
    key: title,
    title,
    unit: smallUnit(units),
    width: '70px',
    ...figure,
    value: (s) => s.shift?.[k] ?? 0,
    text: (s) => (s.shift ? small(s.shift[k], units, true) : '—'),
  });
  const rms = (key: 'rmsBefore' | 'rmsAfter', title: string): Column<StationRow> => ({
    key,
    title,
    unit: smallUnit(units),
    width: '76px',
    ...figure,
    value: (s) => s[key] ?? -1,
    text: (s) => (s[key] === null ? '—' : small(s[key], units)),
  });
  return [
    {
      key: 'along',
      title: 'along',
      unit: units.length,
      width: '72px',
      ...figure,
      value: (s) => s.along,
      text: (s) => length(s.along, units, -2),
    },
    part(0, 'east'),
    part(1, 'north'),
    part(2, 'height'),
    rms('rmsBefore', 'before'),
    rms('rmsAfter', 'after'),
    { key: 'reason', title: '', width: 'minmax(110px, 1fr)', value: (s) => reasonOf(s) || '✓ used' },
  ];
}

export function targetColumns(units: UnitsView): Column<TargetRow>[] {
  const part = (when: 'before' | 'after', k: 0 | 1 | 2, title: string): Column<TargetRow> => ({
    key: `${when}${k}`,
    title,
    unit: smallUnit(units),
    width: '62px',
    ...figure,
    value: (t) => t[when][k],
    text: (t) => small(t[when][k], units, true),
  });
  return [
    { key: 'target', title: 'point', width: 'minmax(60px, 1fr)', mono: true, value: (t) => t.target },
    { key: 'role', title: 'is', width: '60px', value: (t) => t.role },
    { key: 'time', title: 'time', unit: 's', width: '92px', ...figure, value: (t) => t.time, text: (t) => t.time.toFixed(2) },
    {
      key: 'before',
      title: 'before',
      unit: smallUnit(units),
      width: '72px',
      ...figure,
      value: (t) => Math.hypot(...t.before),
      text: (t) => small(Math.hypot(...t.before), units),
    },
    part('after', 0, 'dE'),
    part('after', 1, 'dN'),
    part('after', 2, 'dH'),
  ];
}

/** A control or check point beside a way. */
export interface Beside extends Known {
  along: number;
}
export type Known = PassesView['points'][number];

/** Control and check points within reach of the scan of a way, in the order they are come past. */
export function beside(points: Known[], [e, n]: [number[], number[]], reach = 12): Beside[] {
  const found: Beside[] = [];
  for (const p of points) {
    let [along, best, least] = [0, 0, Infinity];
    for (let i = 0; i + 1 < e.length; i += 1) {
      const [de, dn] = [e[i + 1]! - e[i]!, n[i + 1]! - n[i]!];
      const l = Math.hypot(de, dn);
      const part = l > 0 ? Math.min(1, Math.max(0, ((p.e - e[i]!) * de + (p.n - n[i]!) * dn) / (l * l))) : 0;
      const away = Math.hypot(p.e - e[i]! - part * de, p.n - n[i]! - part * dn);
      if (away < least) [best, least] = [along + part * l, away];
      along += l;
    }
    if (least <= reach) found.push({ ...p, along: best });
  }
  return found.sort((a, b) => a.along - b.along);
}

/** Where a section shows points that are given: those at most a metre before or behind it. */
export function givenIn(section: Section | null, points: Known[]): { name: string; at: [number, number] }[] {
  if (!section) return [];
  const [e0, n0, e1, n1] = section.ends;
  const half = Math.hypot(e1 - e0, n1 - n0) / 2;
  const [ue, un] = [(e1 - e0) / (2 * half), (n1 - n0) / (2 * half)];
  return points.flatMap((p) => {
    const [de, dn] = [p.e - (e0 + e1) / 2, p.n - (n0 + n1) / 2];
    const [x, ahead] = [de * ue + dn * un, de * un - dn * ue];
    return Math.abs(x) <= half && Math.abs(ahead) <= 1 ? [{ name: p.name, at: [x, p.h] as [number, number] }] : [];
  });
}

/** One sighting more; the same point marked again within two seconds takes the place of the one before. */
export const withMark = (marks: Target[], mark: Target): Target[] => [
  ...marks.filter((m) => m.target !== mark.target || Math.abs(m.time - mark.time) > 2),
  mark,
];

/** What it takes to do it again as it was done, but for what is said otherwise. */
export const again = (p: PassView, over: Partial<PassRequest>): PassRequest => ({
  name: p.name,
  number: p.number,
  trajectory: p.trajectory,
  cloud: p.cloud,
  referenceTrajectory: p.referenceTrajectory,
  referenceCloud: p.referenceCloud,
  referencePass: p.referencePass,
  isTime: p.isTime,
  every: p.every,
  radius: p.radius,
  preShift: p.preShift,
  targets: p.targets,
  ...over,
});

/** Both ways in plan, the stations, what is known beside them, and where the section is cut. */
export function passScene(d: PassDrawing | null, rows: StationRow[], section: Section | null, known: Known[] = []): Scene {
  if (!d) return emptyScene;
  const path = ([e, n]: [number[], number[]]) => e.flatMap((x, i) => [x, n[i]!]);
  return {
    ...emptyScene,
    paths: [
      ...(d.reference[0].length > 0 ? [{ path: path(d.reference), kind: 'track' as const, label: 'the other drive' }] : []),
      { path: path(d.path), kind: 'section', label: 'this drive' },
      ...(section ? [{ path: [...section.ends], kind: 'across' as const }] : []),
    ],
    notes: rows.filter((s) => !s.used).map((s) => ({ e: s.e, n: s.n, text: reasonOf(s), tone: 'doubt' as const })),
    points: [
      ...rows.filter((s) => s.used).map((s) => ({ name: `${s.along.toFixed(0)}`, e: s.e, n: s.n, role: 'surveyed' as const })),
      ...known.map((k) => ({ name: k.name, e: k.e, n: k.n, role: k.role === 'check' ? ('check' as const) : ('control' as const) })),
    ],
  };
}

/** A trajectory and the scan that goes with it: named alike but for the ending. */
export function scanOf(t: TrajectoryFileView | undefined, clouds: { id: number; name: string }[]): number {
  const stem = (name: string) => name.replace(/\.[^.]*$/, '').toLowerCase();
  return (t && clouds.find((c) => stem(c.name) === stem(t.name))?.id) ?? 0;
}

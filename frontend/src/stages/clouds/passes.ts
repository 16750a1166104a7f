import type { PassView, TrajectoryFileView, UnitsView } from '../../api/types';
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
}
/** Offsets, right positive, and heights. */
export interface Section {
  ends: [number, number, number, number];
  pass: [number[], number[]];
  reference: [number[], number[]];
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
  if (p.status === 'corrected')
    return {
      words: `Both drives agree to ${small(p.rmsAfter, units)} ${smallUnit(units)}`,
      tone: p.used === p.stations ? 'holds' : 'doubt',
    };
  if (p.status === 'no-overlap') return { words: 'The drives have nothing in common', tone: 'fails' };
  return { words: 'The drives are too far apart, or do not fit', tone: 'fails' };
}

export function sentences(p: PassView, units: UnitsView): string {
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

const figure = { align: 'right' as const, mono: true };
export const passColumns = (units: UnitsView): Column<PassView>[] => [
  { key: 'name', title: 'pass', width: 'minmax(100px, 1fr)', value: (p) => p.name },
  { key: 'version', title: 'in use', width: '58px', mono: true, value: (p) => (p.status === 'corrected' ? `v${p.run}` : 'as driven') },
  { key: 'onto', title: 'laid onto', width: 'minmax(100px, 1fr)', value: (p) => p.onto },
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

/** Both ways in plan, the stations, and where the section is cut. */
export function passScene(d: PassDrawing | null, rows: StationRow[], section: Section | null): Scene {
  if (!d) return emptyScene;
  const path = ([e, n]: [number[], number[]]) => e.flatMap((x, i) => [x, n[i]!]);
  return {
    ...emptyScene,
    paths: [
      { path: path(d.reference), kind: 'track', label: 'the other drive' },
      { path: path(d.path), kind: 'section', label: 'this drive' },
      ...(section ? [{ path: [...section.ends], kind: 'across' as const }] : []),
    ],
    notes: rows.filter((s) => !s.used).map((s) => ({ e: s.e, n: s.n, text: reasonOf(s), tone: 'doubt' as const })),
    points: rows.filter((s) => s.used).map((s) => ({ name: `${s.along.toFixed(0)}`, e: s.e, n: s.n, role: 'surveyed' as const })),
  };
}

/** A trajectory and the scan that goes with it: named alike but for the ending. */
export function scanOf(t: TrajectoryFileView | undefined, clouds: { id: number; name: string }[]): number {
  const stem = (name: string) => name.replace(/\.[^.]*$/, '').toLowerCase();
  return (t && clouds.find((c) => stem(c.name) === stem(t.name))?.id) ?? 0;
}

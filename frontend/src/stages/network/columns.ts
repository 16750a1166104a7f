import type { GroupView, RowView, RunView, StationView, UnitsView } from '../../api/types';
import type { Column } from '../../figures/columns';
import { height, isAngular, length, observed, residual, signed, small, smallAngle, smallUnit, when } from '../../format/units';

/** Standardized residuals beyond this stand out: two-sided level 0.001. */
export const LIMIT = 3.29;

/** How a group of observations agrees with its weights, in words. */
const STANDING: Record<string, string> = {
  high: '▲ worse',
  low: '▽ better',
  fits: 'fits',
  untested: 'untested',
};

const SHORT: Record<string, string> = {
  direction: 'dir',
  zenith: 'zen',
  'slope-distance': 'dist',
  'horizontal-distance': 'hor',
  vector: 'vec',
  'height-difference': 'lev',
  angle: 'ang',
  azimuth: 'az',
};

export function rowKey(r: RowView): string {
  return `${r.id}${r.component ?? ''}`;
}

/** How a group is named where its precision is kept: the kind, and the set-up or session after it. */
export function groupKey(g: GroupView): string {
  if (g.kind === '' || g.kind === 'coordinate') return '';
  return g.setup === '' ? g.kind : `${g.kind} ${g.setup}`;
}

export function atName(r: RowView): string {
  return r.kind === 'vector' || r.set === '' ? r.at : `${r.at}/${r.set}`;
}

export const observationColumns = (units: UnitsView): Column<RowView>[] => [
  { key: 'kind', title: 'kind', width: '44px', value: (r) => `${SHORT[r.kind] ?? r.kind}${r.component ? ' ' + r.component : ''}` },
  { key: 'at', title: 'at', width: '56px', value: (r) => atName(r) },
  { key: 'to', title: 'to', width: '44px', value: (r) => (r.back ? `${r.back} → ${r.to}` : r.to) },
  {
    key: 'observed',
    title: 'observed',
    width: '94px',
    align: 'right',
    mono: true,
    value: (r) => r.observed,
    text: (r) => observed(r.kind, r.observed, units),
  },
  {
    key: 'residual',
    title: 'residual',
    width: '72px',
    align: 'right',
    mono: true,
    value: (r) => r.residual,
    sortBy: (r) => Math.abs(r.groundMm ?? 0),
    text: (r) => residual(r.kind, r.residual, units),
    hint: 'Adjusted minus observed; sorts by its size on the ground',
  },
  {
    key: 'standardized',
    title: 'standardized',
    width: '104px',
    align: 'right',
    mono: true,
    value: (r) => r.standardized,
    sortBy: (r) => (r.standardized === null ? null : Math.abs(r.standardized) - (r.used ? 0 : 1e6)),
    text: (r) => (r.standardized === null ? '' : signed((r.standardized >= 0 ? '+' : '') + r.standardized.toFixed(1))),
    hint: 'Residual over its own standard deviation; looked at above 3.29',
  },
  {
    key: 'redundancy',
    title: 'redund.',
    width: '44px',
    align: 'right',
    mono: true,
    value: (r) => r.redundancy,
    text: (r) => (r.redundancy === null ? '' : r.redundancy.toFixed(2)),
    hint: 'Redundancy number: how much the others control this one',
  },
  {
    key: 'mdb',
    title: 'MDB',
    width: '48px',
    align: 'right',
    mono: true,
    value: (r) => r.detectable,
    text: (r) =>
      r.detectable === null ? '' : isAngular(r.kind) ? smallAngle(r.detectable, units).replace(' mgon', '') : small(r.detectable, units),
    hint: 'Minimal detectable bias: arc seconds (or milligon) and millimetres',
  },
  {
    key: 'flag',
    title: '',
    width: '16px',
    value: (r) => (r.used ? (r.flagged ? 2 : 0) : 1),
    text: (r) => (r.used ? (r.flagged ? '▲' : '') : '○'),
    hint: '▲ stands out, ○ set aside',
  },
];

export const stationColumns = (units: UnitsView): Column<StationView>[] => [
  { key: 'name', title: 'station', width: '54px', value: (s) => s.name },
  {
    key: 'e',
    title: 'easting',
    unit: units.length,
    width: '104px',
    align: 'right',
    mono: true,
    value: (s) => s.e,
    text: (s) => length(s.e, units, 1),
  },
  {
    key: 'n',
    title: 'northing',
    unit: units.length,
    width: '110px',
    align: 'right',
    mono: true,
    value: (s) => s.n,
    text: (s) => length(s.n, units, 1),
  },
  {
    key: 'h',
    title: 'height',
    unit: units.length,
    width: '74px',
    align: 'right',
    mono: true,
    value: (s) => s.h,
    text: (s) => height(s.h, units, 1),
  },
  {
    key: 'major',
    title: 'ellipse',
    unit: smallUnit(units),
    width: '80px',
    align: 'right',
    mono: true,
    value: (s) => s.semiMajor,
    text: (s) => (s.semiMajor === 0 ? 'held' : `${small(s.semiMajor, units)} × ${small(s.semiMinor, units)}`),
  },
  {
    key: 'sdh',
    title: 'sd h',
    unit: smallUnit(units),
    width: '52px',
    align: 'right',
    mono: true,
    value: (s) => s.sdH,
    text: (s) => small(s.sdH, units),
  },
  {
    key: 'move',
    title: 'moved',
    unit: smallUnit(units),
    width: '62px',
    align: 'right',
    mono: true,
    value: (s) => moved(s),
    text: (s) => small(moved(s), units),
    hint: 'In three dimensions, against the run before',
  },
];

export const groupColumns: Column<GroupView>[] = [
  { key: 'name', title: 'group', width: '230px', value: (g) => g.name },
  { key: 'count', title: 'count', width: '56px', align: 'right', mono: true, value: (g) => g.count },
  {
    key: 'redundancy',
    title: 'redundancy',
    width: '78px',
    align: 'right',
    mono: true,
    value: (g) => g.redundancy,
    text: (g) => g.redundancy.toFixed(1),
  },
  {
    key: 'factor',
    title: 'variance factor',
    width: '100px',
    align: 'right',
    mono: true,
    value: (g) => g.factor,
    text: (g) => g.factor?.toFixed(2) ?? '',
  },
  {
    key: 'standing',
    title: 'against its weights',
    width: '130px',
    value: (g) => g.standing,
    text: (g) => STANDING[g.standing] ?? g.standing,
  },
];

export const runColumns: Column<RunView>[] = [
  { key: 'run', title: 'run', width: '40px', align: 'right', mono: true, value: (r) => r.run },
  { key: 'passed', title: 'test', width: '70px', value: (r) => (r.passed === null ? 'untested' : r.passed ? '✓ passes' : '▲ fails') },
  {
    key: 'factor',
    title: 'variance factor',
    width: '104px',
    align: 'right',
    mono: true,
    value: (r) => r.varianceFactor,
    text: (r) => r.varianceFactor?.toFixed(3) ?? '',
  },
  { key: 'redundancy', title: 'redundant', width: '76px', align: 'right', mono: true, value: (r) => r.redundancy },
  { key: 'aside', title: 'set aside', width: '66px', align: 'right', mono: true, value: (r) => r.asideCount },
  { key: 'free', title: 'datum', width: '70px', value: (r) => (r.free ? 'free' : 'control') },
  { key: 'when', title: 'when', width: '110px', value: (r) => r.createdAt, text: (r) => when(r.createdAt) },
  { key: 'author', title: 'by', width: '120px', value: (r) => r.author },
];

function moved(s: StationView): number | null {
  return s.moveE === null ? null : Math.hypot(s.moveE, s.moveN ?? 0, s.moveH ?? 0);
}

import type { CloudFileView, CloudView, UnitsView } from '../../api/types';
import type { Column } from '../../figures/columns';
import { group, length } from '../../format/units';
import { classOf } from '../../sketch/cloudColours';

const figure = { align: 'right' as const, mono: true };
const percent = (part: number) => (100 * part).toFixed(1);

export const cloudColumns = (units: UnitsView): Column<CloudView>[] => [
  { key: 'name', title: 'cloud', width: 'minmax(110px, 1fr)', value: (c) => c.name },
  { key: 'of', title: 'made of', width: 'minmax(100px, 1fr)', value: (c) => c.of },
  { key: 'points', title: 'points', width: '86px', ...figure, value: (c) => c.points, text: (c) => group(String(c.points)) },
  { key: 'density', title: 'per m²', width: '62px', ...figure, value: (c) => c.density, text: (c) => c.density.toFixed(1) },
  {
    key: 'spacing',
    title: 'spacing',
    unit: units.length,
    width: '72px',
    ...figure,
    value: (c) => c.spacing ?? 0,
    text: (c) => length(c.spacing, units),
  },
  { key: 'state', title: '', width: '64px', value: (c) => (c.stale.length > 0 ? '◐ stale' : '✓ fresh') },
];

export interface ClassRow {
  number: number;
  name: string;
  points: number;
  part: number;
}

export function classRows(c: CloudView): ClassRow[] {
  return Object.entries(c.classes).map(([k, points]) => ({
    number: Number(k),
    name: classOf(Number(k)).name,
    points,
    part: points / Math.max(1, c.points),
  }));
}

export const classColumns: Column<ClassRow>[] = [
  { key: 'number', title: 'class', width: '56px', ...figure, value: (r) => r.number },
  { key: 'name', title: '', width: 'minmax(120px, 1fr)', value: (r) => r.name },
  { key: 'points', title: 'points', width: '90px', ...figure, value: (r) => r.points, text: (r) => group(String(r.points)) },
  { key: 'part', title: 'share', unit: '%', width: '70px', ...figure, value: (r) => r.part, text: (r) => percent(r.part) },
];

export const fileColumns: Column<CloudFileView>[] = [
  { key: 'name', title: 'came in as', width: 'minmax(140px, 1fr)', value: (f) => f.name },
  { key: 'points', title: 'points', width: '100px', ...figure, value: (f) => f.points, text: (f) => group(String(f.points)) },
  { key: 'make', title: '', width: '130px', value: () => '' },
];

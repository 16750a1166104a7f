import type { SurfaceView, UnitsView } from '../../api/types';
import type { Column } from '../../figures/columns';
import { area, areaUnit, height } from '../../format/units';

export const surfaceColumns = (units: UnitsView): Column<SurfaceView>[] => [
  { key: 'name', title: 'surface', width: 'minmax(120px, 1fr)', value: (s) => s.name },
  { key: 'points', title: 'points', width: '60px', align: 'right', mono: true, value: (s) => s.points },
  { key: 'triangles', title: 'triangles', width: '70px', align: 'right', mono: true, value: (s) => s.triangles },
  {
    key: 'area',
    title: 'plan area',
    unit: areaUnit(units),
    width: '80px',
    align: 'right',
    mono: true,
    value: (s) => s.planArea,
    text: (s) => area(s.planArea, units).replace(/ \S+$/, ''),
  },
  {
    key: 'low',
    title: 'lowest',
    unit: units.length,
    width: '74px',
    align: 'right',
    mono: true,
    value: (s) => s.hMin,
    text: (s) => height(s.hMin, units, -1),
  },
  {
    key: 'high',
    title: 'highest',
    unit: units.length,
    width: '78px',
    align: 'right',
    mono: true,
    value: (s) => s.hMax,
    text: (s) => height(s.hMax, units, -1),
  },
  { key: 'state', title: '', width: '64px', value: (s) => (!s.computed ? 'not made' : s.stale.length > 0 ? '◐ stale' : '✓ fresh') },
];

import type { DeviationView, UnitsView } from '../../api/types';
import { figures, words, type Column } from '../../figures/columns';
import { length, lengthUnit, small, smallUnit } from '../../format/units';
import { whereabouts, type Deviations } from './bands';

export function checkColumns(units: UnitsView): Column<DeviationView>[] {
  const mm = smallUnit(units);
  const size = (key: string, value: (c: DeviationView) => number | null, sign = false) =>
    figures<DeviationView>(key, key, 44, value, (c) => small(value(c), units, sign), { unit: mm });
  return [
    words('name', 'name', 110, (c) => c.name),
    words('measuredOn', 'measured', 84, (c) => c.measuredOn || '–'),
    figures('used', 'points', 48, (c) => c.used),
    size('mean', (c) => c.mean, true),
    size('rms', (c) => c.rms),
    size('min', (c) => c.min, true),
    size('max', (c) => c.max, true),
    words('state', 'is', 60, (c) => (c.stale.length > 0 ? '◐ stale' : '✓ fresh')),
  ];
}

/** A place of a comparison, by the number of its point. */
export interface Place {
  i: number;
}

export function placeColumns(units: UnitsView, points: Deviations): Column<Place>[] {
  const unit = lengthUnit(units);
  return [
    words('point', 'point', 80, (p) => points.names[p.i]!),
    figures(
      'e',
      'easting',
      92,
      (p) => points.e[p.i]!,
      (p) => length(points.e[p.i], units, -1),
      { unit },
    ),
    figures(
      'n',
      'northing',
      96,
      (p) => points.n[p.i]!,
      (p) => length(points.n[p.i], units, -1),
      { unit },
    ),
    {
      ...figures<Place>(
        'd',
        'off',
        60,
        (p) => points.d[p.i] ?? null,
        (p) => small(points.d[p.i], units, true),
        { unit: smallUnit(units) },
      ),
      sortBy: (p) => Math.abs(points.d[p.i] ?? 0),
    },
    words('where', 'where', 120, (p) => whereabouts(points, p.i)),
  ];
}

import type { AxisView, DeviationView, UnitsView } from '../../api/types';
import { figures, words, type Column } from '../../figures/columns';
import { height, length, lengthUnit, small, smallUnit } from '../../format/units';
import { nameOf, whereabouts, type Deviations } from './bands';
import type { CheckRow } from './useCheckPoints';

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
    words('point', 'point', 80, (p) => nameOf(points, p.i)),
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

const AXES: Record<string, string> = { e: 'easting', n: 'northing', h: 'height' };

export function axisColumns(units: UnitsView): Column<AxisView>[] {
  const mm = smallUnit(units);
  const size = (key: string, title: string, value: (a: AxisView) => number | null, sign = false) =>
    figures<AxisView>(key, title, 60, value, (a) => small(value(a), units, sign), { unit: mm });
  return [
    words('axis', 'in', 80, (a) => AXES[a.axis] ?? a.axis),
    figures('count', 'points', 50, (a) => a.count),
    size('mean', 'mean', (a) => a.mean, true),
    size('rms', 'rms', (a) => a.rms),
    size('sd', 'sd', (a) => a.sd),
    size('min', 'least', (a) => a.min, true),
    size('max', 'greatest', (a) => a.max, true),
  ];
}

/** @param inPlan whether differences in plan are there too: against what was measured of the points themselves */
export function checkPointColumns(units: UnitsView, inPlan: boolean): Column<CheckRow>[] {
  const unit = lengthUnit(units);
  const mm = smallUnit(units);
  const off = (key: string, value: (r: CheckRow) => number | null): Column<CheckRow> => ({
    ...figures<CheckRow>(key, key, 52, value, (r) => small(value(r), units, true), { unit: mm }),
    sortBy: (r) => Math.abs(value(r) ?? -1),
  });
  return [
    words('name', 'point', 64, (r) => r.name),
    figures(
      'e',
      'easting',
      92,
      (r) => r.e,
      (r) => length(r.e, units),
      { unit },
    ),
    figures(
      'n',
      'northing',
      98,
      (r) => r.n,
      (r) => length(r.n, units),
      { unit },
    ),
    figures(
      'h',
      'height',
      70,
      (r) => r.h,
      (r) => height(r.h, units),
      { unit },
    ),
    ...(inPlan ? [words<CheckRow>('by', 'measured as', 76, (r) => r.by || '–'), off('de', (r) => r.de), off('dn', (r) => r.dn)] : []),
    off('dh', (r) => r.dh),
  ];
}

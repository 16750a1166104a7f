import type { BaselineView, ClosureView, OccupationView, UnitsView } from '../../api/types';
import { figures, words, type Column } from '../../figures/columns';
import { length, lengthUnit, small, smallUnit } from '../../format/units';
import { clock, type Zone } from './times';
import { runOf } from './verdict';

const WORST: Record<string, number> = { code: 3, float: 2, fixed: 0 };

/** How much a baseline wants to be looked at: not fixed first, then by the weakest ratio. */
export function worry(b: BaselineView): number {
  const run = runOf(b);
  if (!run || b.moves) return 0;
  return (WORST[run.solution] ?? 1) * 1000 + (b.stale.length > 0 ? 500 : 0) + 100 / Math.max(0.5, run.ratio ?? 0.5);
}

export function baselineColumns(units: UnitsView): Column<BaselineView>[] {
  const mm = smallUnit(units);
  return [
    words('session', 'session', 72, (b) => b.session),
    words('from', 'from', 44, (b) => b.fromName || '?'),
    words('to', 'to', 44, (b) => b.toName || '?'),
    { ...words<BaselineView>('solution', 'solution', 62, (b) => solutionOf(b)), sortBy: worry },
    figures(
      'ratio',
      'ratio',
      46,
      (b) => runOf(b)?.ratio ?? null,
      (b) => ratioText(runOf(b)?.ratio ?? null),
      {
        hint: 'How much worse the second best integers fit than the best; 3 is asked for',
      },
    ),
    figures(
      'rms',
      'rms',
      38,
      (b) => runOf(b)?.rms ?? null,
      (b) => small(runOf(b)?.rms, units),
      { unit: mm, hint: 'Of the double differences of the phases' },
    ),
    figures(
      'plan',
      'sd plan',
      48,
      (b) => runOf(b)?.sdPlan ?? null,
      (b) => small(runOf(b)?.sdPlan, units),
      { unit: mm },
    ),
    figures(
      'up',
      'sd up',
      44,
      (b) => runOf(b)?.sdUp ?? null,
      (b) => small(runOf(b)?.sdUp, units),
      { unit: mm },
    ),
    figures('satellites', 'sats', 34, (b) => runOf(b)?.satellites ?? null),
    figures(
      'length',
      'length',
      50,
      (b) => b.length,
      (b) => length(b.length, units, -3),
      { unit: lengthUnit(units) },
    ),
    {
      ...words<BaselineView>('network', 'net', 36, (b) => (b.accepted ? '✓ in' : b.moves ? '' : b.independent ? '' : 'dep.')),
      hint: '✓ its vector is in the network; dep. depends on others recorded at the same time, and carries nothing new',
    },
  ];
}

export function solutionOf(b: BaselineView): string {
  const run = runOf(b);
  return run === null ? '—' : b.moves ? `track, ${run.solution}` : b.stale.length > 0 ? `${run.solution}, stale` : run.solution;
}

export function ratioText(ratio: number | null): string {
  return ratio === null ? '' : ratio > 999 ? '>999' : ratio.toFixed(1);
}

export function occupationColumns(units: UnitsView, zone: Zone, leap: number): Column<OccupationView>[] {
  return [
    words('marker', 'marker', 60, (o) => o.marker || '(none)'),
    words('from', 'from', 46, (o) => clock(o.trimFrom ?? o.from, zone, leap)),
    words('to', 'to', 46, (o) => clock(o.trimTo ?? o.to, zone, leap)),
    figures(
      'interval',
      'every',
      38,
      (o) => o.interval,
      (o) => (o.interval === null ? '' : String(o.interval)),
      { unit: 's' },
    ),
    figures('satellites', 'sats', 34, (o) => o.satellites),
    figures(
      'vertical',
      'antenna',
      62,
      (o) => o.vertical,
      (o) => length(o.vertical, units, 1),
      { unit: lengthUnit(units), hint: 'Of the reference point above the mark' },
    ),
    words('kind', 'measured', 60, (o) => o.heightKind),
    {
      ...words<OccupationView>('place', 'place', 58, (o) => ({ project: 'known', file: 'about', '': 'none' })[o.placeFrom] ?? ''),
      hint: 'Coordinates of the project, or what its file says about where it was',
    },
    words('file', 'file', 110, (o) => o.file),
  ];
}

export function closureColumns(units: UnitsView): Column<ClosureView>[] {
  const mm = smallUnit(units);
  const part = (key: string, i: number) =>
    figures<ClosureView>(
      key,
      key,
      40,
      (c) => c.closure[i]!,
      (c) => small(c.closure[i], units, true),
      { unit: mm },
    );
  return [
    words('kind', 'kind', 46, (c) => c.kind),
    { ...words<ClosureView>('marks', 'marks', 130, (c) => c.marks.join('–')) },
    figures(
      'length',
      'length',
      50,
      (c) => c.length,
      (c) => length(c.length, units, -3),
      { unit: lengthUnit(units) },
    ),
    part('east', 0),
    part('north', 1),
    part('up', 2),
    {
      ...figures<ClosureView>(
        'size',
        'misclosure',
        66,
        (c) => c.size,
        (c) => small(c.size, units),
        { unit: mm },
      ),
      sortBy: (c) => c.size / c.allowed,
    },
    figures(
      'allowed',
      'allowed',
      52,
      (c) => c.allowed,
      (c) => small(c.allowed, units),
      { unit: mm },
    ),
    {
      ...words<ClosureView>('check', 'checks', 70, (c) => (!c.independent ? 'nothing' : c.size > c.allowed ? '▲ beyond' : '✓ within')),
      hint: 'Receivers that recorded at once close by themselves',
    },
  ];
}

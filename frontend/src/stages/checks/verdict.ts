import type { DeviationView, UnitsView } from '../../api/types';
import { small, smallUnit } from '../../format/units';
import { bandOf, bandsOf, whereabouts, worst, type BandSet, type Deviations } from './bands';

export interface Verdict {
  headline: string;
  sentences: string[];
}

/** What a comparison says, in words: how much lies within tolerance, where the worst place is, what was left out. */
export function verdict(check: DeviationView, points: Deviations, set: BandSet, units: UnitsView): Verdict {
  const mm = smallUnit(units);
  const tolerance = bandsOf(points, check.ignore, set).find((b) => b.isTolerance);
  const [i] = worst(points, check.ignore, 1);
  if (!tolerance || i === undefined) {
    return {
      headline: `Nothing of ${check.name} could be compared`,
      sentences: [
        check.nearestBeyond === null
          ? `No measured point lies on ${check.against}.`
          : `No measured point lies within the limit; the nearest is ${small(check.nearestBeyond, units)} ${mm} away.`,
      ],
    };
  }
  const d = points.d[i]!;
  const isOut = bandOf(d, set.limits) !== bandOf(0, set.limits);
  const where = whereabouts(points, i);
  const range = toleranceText(tolerance.from, tolerance.to, units);
  const headline = isOut
    ? `${share(tolerance.percent)} of ${check.name} lies within ${range}; the ${where} is ${small(Math.abs(d), units)} ${mm} ${d < 0 ? 'low' : 'high'}`
    : `All of ${check.name} lies within ${range}`;
  const sentences = [
    `Mean ${small(check.mean, units, true)}, sd ${check.sd === null ? '–' : small(check.sd, units)}, rms ${small(check.rms, units)}, from ${small(check.min, units, true)} to ${small(check.max, units, true)} ${mm}. ` +
      `${check.used} of ${check.measured} points compared ${check.along === 'normal' ? 'along the normal' : 'vertically'}.`,
  ];
  const far = `more than ${small(check.ignore, units)} ${mm} away and`;
  if (check.beyond > 0) sentences.push(check.beyond === 1 ? `1 lies ${far} was left out.` : `${check.beyond} lie ${far} were left out.`);
  if (check.outside > 0) sentences.push(`${check.outside} ${check.outside === 1 ? 'lies' : 'lie'} beside the reference.`);
  if (check.planeSd !== null) sentences.push(`The plane's own points lie ${small(check.planeSd, units)} ${mm} off it (sd).`);
  const slope = slopeText(check, Math.max(Math.abs(check.min ?? 0), Math.abs(check.max ?? 0)), units);
  if (slope) sentences.push(slope);
  return { headline, sentences };
}

/** What changed between two epochs, in words. */
export function changeText(
  check: DeviationView | null,
  earlier: DeviationView | null,
  points: Deviations | null,
  units: UnitsView,
): string {
  if (!check || !earlier || !points) return '';
  const d = points.d.filter((v): v is number => v !== null);
  if (d.length === 0) return `${check.name} and ${earlier.name} have no place in common`;
  const mm = smallUnit(units);
  const mean = d.reduce((a, b) => a + b, 0) / d.length;
  const [i] = worst(points, null, 1);
  return (
    `Since ${earlier.name}${earlier.measuredOn ? `, ${earlier.measuredOn}` : ''}: ${small(mean, units, true)} ${mm} in the mean of ${d.length} places, ` +
    `${small(points.d[i!], units, true)} at the most`
  );
}

function share(percent: number): string {
  return percent >= 99.95 ? `${percent === 100 ? '100' : '99.9'} %` : `${percent.toFixed(1)} %`;
}

/** "±6 mm" or "−4 to +10 mm". */
export function toleranceText(from: number | null, to: number | null, units: UnitsView): string {
  const mm = smallUnit(units);
  const trim = (text: string) => text.replace(/\.0$/, '');
  if (from === null || to === null)
    return from === null ? `below ${trim(small(to, units, true))} ${mm}` : `above ${trim(small(from, units, true))} ${mm}`;
  return Math.abs(from + to) < 1e-9
    ? `±${trim(small(to, units))} ${mm}`
    : `${trim(small(from, units, true))} to ${trim(small(to, units, true))} ${mm}`;
}

/** On a slope a height difference is longer than the distance along the normal: by how much at most, when that is not nothing. */
export function slopeText(check: DeviationView, greatest: number, units: UnitsView): string {
  if (check.steepest === null || check.steepest === 0) return '';
  const difference = greatest * (Math.sqrt(1 + check.steepest ** 2) - 1);
  const slope = `The reference slopes by up to ${(100 * check.steepest).toFixed(1)} %`;
  const by = `${small(difference, units)} ${smallUnit(units)}`;
  if (check.along === 'normal') return difference < 5e-5 ? '' : `${slope}: heights would overstate the deviations by up to ${by}.`;
  return difference < 5e-5 ? '' : `${slope}: heights overstate the deviations by up to ${by}; compare along the normal.`;
}

import type { CorrectionRequest, SuspectView, UnitsView } from '../../api/types';
import { angle, length, lengthUnit, signed, small, smallAngle, smallUnit } from '../../format/units';

/** What the job of looking for suspects found. */
export interface SuspectsFound {
  suspects: SuspectView[];
  tried: number;
  varianceFactor: number | null;
  passed: boolean | null;
}

const FINE_ANGLE = 0.2;
const FINE_LENGTH = 0.0995;

/** The estimate with its standard deviation, in a size that can be read. */
export function sizeOf(s: SuspectView, units: UnitsView): string {
  if (s.estimate === null) return '';
  const plus = s.estimate >= 0 ? '+' : '';
  if (s.quantity === 'ppm') return s.suggests?.includes('feet') ? s.suggests : signed(`${plus}${s.estimate.toFixed(1)} ppm`);
  if (s.quantity === 'angle') {
    const sd = s.sd === null ? '' : ` ± ${smallAngle(s.sd, units)}`;
    return Math.abs(s.estimate) < FINE_ANGLE ? `${smallAngle(s.estimate, units, true)}${sd}` : `${plus}${angle(s.estimate, units)}${sd}`;
  }
  if (Math.abs(s.estimate) < FINE_LENGTH) {
    return `${small(s.estimate, units, true)}${s.sd === null ? '' : ` ± ${small(s.sd, units)}`} ${smallUnit(units)}`;
  }
  const sd = s.sd === null ? '' : ` ± ${length(s.sd, units)}`;
  return `${plus}${length(s.estimate, units)}${sd} ${lengthUnit(units)}`;
}

export function percent(part: number): string {
  return `${Math.round(100 * part)} %`;
}

export function correctionOf(s: SuspectView, reason: string): CorrectionRequest {
  return {
    cause: s.cause,
    words: s.suggests && s.quantity !== 'angle' ? `${s.words}: ${s.suggests}` : s.words,
    changes: s.changes,
    reason,
  };
}

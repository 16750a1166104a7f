import type { FitView, UnitsView } from '../../api/types';
import { small, smallUnit } from '../../format/units';

/** Why a pair is suspected, in the unit that is shown. */
export function suspicion(suspect: NonNullable<FitView['suspect']>, units: UnitsView): string {
  const text = (metres: number) => `${small(metres, units)} ${smallUnit(units)}`;
  const [e = 0, n = 0] = suspect.off;
  const compass = (metres: number, positive: string, negative: string) => `${text(Math.abs(metres))} ${metres < 0 ? negative : positive}`;
  const [others, off] =
    suspect.part === 'height'
      ? ['the other heights fit', `its grid height is ${compass(e, 'above', 'below')} theirs`]
      : ['the others fit', `its grid position lies ${compass(e, 'east', 'west')} and ${compass(n, 'north', 'south')} of where they put it`];
  return `without it ${others} to ${text(suspect.sigmaWithout)} instead of ${text(suspect.sigma)}; ${off}`;
}

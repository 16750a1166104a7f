import type { CloudFitView, CloudView, UnitsView } from '../../api/types';
import { group, length, lengthUnit, small, smallUnit } from '../../format/units';
import type { Met } from '../../sketch/cloudSpace';

const hectares = (m2: number) => (m2 >= 10000 ? `${(m2 / 10000).toFixed(2)} ha` : `${m2.toFixed(0)} m²`);

/** How much there is, how dense, where the heights lie. */
export function cloudWords(c: CloudView, units: UnitsView): string {
  const covered = c.points / Math.max(1e-9, c.density);
  const apart = c.spacing === null ? '' : `, ${length(c.spacing, units)} ${lengthUnit(units)} apart`;
  return `${group(String(c.points))} points over ${hectares(covered)}: ${c.density.toFixed(1)} to a square metre${apart}.`;
}

/** How well it lies on the other, and what that took. */
export function fitWords(f: CloudFitView, units: UnitsView): string {
  const moved = length(Math.hypot(...f.shift), units);
  const on = `${(100 * f.overlap).toFixed(0)} % of its points lie on ${f.onto}, rms ${small(f.rms, units)} ${smallUnit(units)}`;
  return `Laid onto ${f.onto}: ${on}; moved by ${moved} ${lengthUnit(units)} and turned by ${f.turn.toFixed(3)}°.`;
}

/** From one place to the next. */
export function between(a: Met, b: Met, units: UnitsView): string {
  const [de, dn, dh] = [b.e - a.e, b.n - a.n, b.h - a.h];
  const unit = lengthUnit(units);
  const rise = `${dh < 0 ? '−' : '+'}${length(Math.abs(dh), units)}`;
  return `${length(Math.hypot(de, dn, dh), units)} ${unit} from the one before: ${length(Math.hypot(de, dn), units)} in plan, ${rise} in height`;
}

/** A limit between colours, as short as it can be read. */
export const shortHeight = (h: number, units: UnitsView) => (units.length === 'm' ? h.toFixed(1) : length(h, units));

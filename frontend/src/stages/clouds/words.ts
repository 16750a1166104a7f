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

/** What targets moved it by, and how well they fit. */
export function targetFitWords(t: NonNullable<CloudView['byTargets']>, units: UnitsView): string {
  const mm = smallUnit(units);
  const control = t.off.filter((o) => o.role !== 'check').length;
  const checks = t.off.filter((o) => o.role === 'check');
  const moved = `moved by ${length(Math.hypot(...t.shift), units)} ${lengthUnit(units)} and turned by ${t.turn.toFixed(3)}°`;
  const tilt = t.isTilted ? '' : control > 1 ? ', level as it was' : '';
  const rms = control > 1 ? `; rms ${small(t.rms, units)} ${mm}` : '';
  const held = checks.map((o) => `${o.target} is off by ${small(Math.hypot(...o.off), units)} ${mm}`).join(', ');
  return `By ${control} ${control === 1 ? 'target' : 'targets'} ${moved}${tilt}${rms}.${held ? ` Held out: ${held}.` : ''}`;
}

/** What the colours of a painted cloud begin and end with. */
export function paintedEnds(p: NonNullable<CloudView['painted']>, units: UnitsView): [string, string] {
  if (p.by === 'time') return ['first', `${(p.to - p.from).toFixed(1)} s later`];
  return [`−${small(-p.from, units)}`, `+${small(p.to, units)} ${smallUnit(units)}`];
}
/** The colours from low to high, as the cloud was painted with. */
export const paintedRamp = (by: string) =>
  `linear-gradient(90deg, ${(by === 'time' ? ['47 95 158', '58 140 140', '106 148 78', '190 150 60', '168 96 42'] : ['47 95 158', '225 222 214', '168 96 42']).map((c) => `rgb(${c})`).join(', ')})`;

/** Lines of text as targets: a point, and where the cloud shows it. */
export function seenOf(text: string, known: readonly string[]): { targets: CloudView['targets']; fault: string } {
  const targets: CloudView['targets'] = [];
  for (const [i, line] of text.split('\n').entries()) {
    if (line.trim() === '') continue;
    const [target = '', ...numbers] = line.trim().split(/[\s,;]+/);
    const [e, n, h] = numbers.map(Number);
    if (numbers.length !== 3 || numbers.some((v) => !Number.isFinite(Number(v))))
      return { targets, fault: `Line ${i + 1}: a point, and easting, northing, height where the cloud shows it.` };
    if (!known.includes(target)) return { targets, fault: `Line ${i + 1}: ${target} is no control or check point with a given place.` };
    targets.push({ target, e: e!, n: n!, h: h! });
  }
  return { targets, fault: '' };
}
export const seenLines = (targets: CloudView['targets']): string => targets.map((t) => `${t.target} ${t.e} ${t.n} ${t.h}`).join('\n');

/** From one place to the next. */
export function between(a: Met, b: Met, units: UnitsView): string {
  const [de, dn, dh] = [b.e - a.e, b.n - a.n, b.h - a.h];
  const unit = lengthUnit(units);
  const rise = `${dh < 0 ? '−' : '+'}${length(Math.abs(dh), units)}`;
  return `${length(Math.hypot(de, dn, dh), units)} ${unit} from the one before: ${length(Math.hypot(de, dn), units)} in plan, ${rise} in height`;
}

/** A limit between colours, as short as it can be read. */
export const shortHeight = (h: number, units: UnitsView) => (units.length === 'm' ? h.toFixed(1) : length(h, units));

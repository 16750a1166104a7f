import type { UnitsView } from '../../api/types';
import { small, smallUnit } from '../../format/units';
import { emptyScene, type Scene } from '../../sketch/scene';
import { bandOf, counts, spacing, type BandSet, type Deviations } from './bands';
import type { Place } from './columns';

/** How many figures are written on the map, and how far apart they stand, in parts of the extent. */
const NOTED = 6;
const APART = 0.12;

/** Squares coloured by band, what was left out hollow, and figures at the worst places that stand apart. */
export function checksScene(points: Deviations | null, ignore: number | null, set: BandSet, units: UnitsView, worst: Place[]): Scene {
  if (!points) return emptyScene;
  const size = spacing(points);
  const trim = (v: number) => small(v, units, true).replace(/\.0$/, '');
  // A plain list, as in bandsOf.
  const limits = [...set.limits];
  const labels = limits.map(trim);
  const span = size * Math.sqrt(points.e.length);
  const noted: number[] = [];
  for (const { i } of worst) {
    if (noted.length >= NOTED) break;
    if (noted.every((j) => Math.hypot(points.e[i]! - points.e[j]!, points.n[i]! - points.n[j]!) > APART * span)) noted.push(i);
  }
  const left = points.d.flatMap((d, i) => (counts(d, ignore) ? [] : [i]));
  return {
    ...emptyScene,
    cells: {
      e: points.e,
      n: points.n,
      band: points.d.map((d) => (counts(d, ignore) ? bandOf(d, limits) : -1)),
      colours: set.colours,
      labels,
      size,
    },
    notes: noted.map((i) => ({ e: points.e[i]!, n: points.n[i]!, text: trim(points.d[i]!), tone: 'plain' as const })),
    caption:
      `${smallUnit(units)}, measured less reference` +
      (left.length > 0 ? ` · ${left.length} left out, drawn hollow` : '') +
      ' · click to read a point',
  };
}

import type { PointView } from '../../api/types';
import { namePattern } from '../../format/pattern';

/** Which points make a surface, as it is chosen on the page; the server reads it by the same rules. */
export interface Selection {
  roles: string[];
  codes: string[];
  pattern: string;
  areas: number[][][];
  include: string[];
  exclude: string[];
}

export function inside(ring: number[][], e: number, n: number): boolean {
  let is = false;
  ring.forEach(([bx, by], i) => {
    const [ax, ay] = ring[(i + ring.length - 1) % ring.length] as [number, number];
    if (ay > n !== by! > n && e < ax + ((n - ay) / (by! - ay)) * (bx! - ax)) is = !is;
  });
  return is;
}

/** Those points that are chosen. */
export function chosen(points: PointView[], s: Selection): PointView[] {
  const hasGlobal = points.some((p) => p.known === 'global' && p.e !== null);
  const patterns = s.pattern
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map(namePattern);
  const [include, exclude, roles, codes] = [new Set(s.include), new Set(s.exclude), new Set(s.roles), new Set(s.codes)];
  return points.filter((p) => {
    if (p.h === null || p.e === null || p.n === null || (hasGlobal && p.known !== 'global') || exclude.has(p.name)) return false;
    if (include.has(p.name)) return true;
    return (
      roles.has(p.role) &&
      (codes.size === 0 || codes.has(p.code)) &&
      (patterns.length === 0 || patterns.some((r) => r.test(p.name))) &&
      (s.areas.length === 0 || s.areas.some((a) => inside(a, p.e!, p.n!)))
    );
  });
}

/** The selection with a point the other way round: out where it was in, in where it was out. */
export function toggled<S extends Selection>(s: S, point: PointView, points: PointView[]): S {
  const isIn = chosen(points, s).includes(point);
  const without = (names: string[]) => names.filter((n) => n !== point.name);
  const plain = { ...s, include: without(s.include), exclude: without(s.exclude) };
  if (chosen([point], plain).length > 0 !== isIn) return plain;
  return isIn ? { ...plain, exclude: [...plain.exclude, point.name] } : { ...plain, include: [...plain.include, point.name] };
}

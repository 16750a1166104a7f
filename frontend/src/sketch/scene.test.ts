import { describe, expect, it } from 'vitest';
import type { PointView } from '../api/types';
import { pointsScene, roleOf, roundNumber } from './scene';

describe('round numbers for scale bars, grids and exaggerations', () => {
  it('are 1, 2 or 5 times a power of ten and not above the value', () => {
    for (const v of [0.0013, 0.9, 1, 1.99, 2, 4.9, 5, 7, 99, 100, 12345]) {
      const r = roundNumber(v);
      expect(r).toBeLessThanOrEqual(v * 1.000001);
      expect(v / r).toBeLessThan(2.51);
      const mantissa = r / 10 ** Math.floor(Math.log10(r) + 1e-9);
      expect([1, 2, 5]).toContain(Math.round(mantissa * 1e6) / 1e6);
    }
  });
});

const point = (name: string, over: Partial<PointView> = {}) =>
  ({ name, role: 'surveyed', held: '', known: 'global', e: 1, n: 2, h: 3, ...over }) as PointView;

describe('points on the sketch', () => {
  it('are those with a place', () => {
    expect(pointsScene([point('A'), point('B', { e: null }), point('C', { n: null })]).points.map((p) => p.name)).toEqual(['A']);
  });

  it('leave out numbers known only locally beside places on the grid', () => {
    const mixed = [point('A'), point('L', { known: 'local' })];
    expect(pointsScene(mixed).points.map((p) => p.name)).toEqual(['A']);
  });

  it('show local numbers when there is nothing else, or when the others have no place yet', () => {
    const local = [point('L1', { known: 'local' }), point('L2', { known: 'local' })];
    expect(pointsScene(local).points).toHaveLength(2);
    expect(pointsScene([...local, point('A', { e: null })]).points).toHaveLength(2);
  });

  it('have a symbol by what they are', () => {
    expect(roleOf(point('K', { role: 'control', held: 'enh' }))).toBe('held');
    expect(roleOf(point('K', { role: 'control' }))).toBe('control');
    expect(roleOf(point('K', { role: 'adjusted' }))).toBe('adjusted');
    expect(roleOf(point('K'))).toBe('surveyed');
  });
});

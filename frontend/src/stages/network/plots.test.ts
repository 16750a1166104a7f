import { describe, expect, it } from 'vitest';
import { observationRow } from '../../../tests/network';
import { dots, normalQuantile } from './plots';

describe('what residuals are plotted against', () => {
  it('knows the normal distribution', () => {
    // NIST/SEMATECH e-Handbook, table of the cumulative normal distribution.
    expect(normalQuantile(0.975)).toBeCloseTo(1.959964, 5);
    expect(normalQuantile(0.5)).toBeCloseTo(0, 9);
    expect(normalQuantile(0.001)).toBeCloseTo(-3.090232, 5);
    expect(normalQuantile(0.999)).toBeCloseTo(3.090232, 5);
  });

  it('takes what is used and has the other quantity', () => {
    const rows = [
      observationRow({ id: 1, kind: 'zenith', observed: 88, line: 2, standardized: 1 }),
      observationRow({ id: 2, kind: 'direction', line: 2, standardized: -1, observedAt: '2031-05-04T09:00:00Z' }),
      observationRow({ id: 3, kind: 'direction', line: 3, standardized: 0.5 }),
      observationRow({ id: 4, used: false }),
    ];
    expect(dots(rows, [], 'normal', '').map((d) => d.key)).toEqual(['2', '3', '1']);
    expect(dots(rows, [], 'zenith', '').map((d) => [d.key, d.x])).toEqual([
      ['1', 88],
      ['2', 88],
    ]);
    expect(dots(rows, [], 'time', '').map((d) => d.key)).toEqual(['2']);
    expect(dots(rows, [], 'length', '')).toEqual([]);
    expect(dots(rows, [], 'normal', 'direction')).toHaveLength(2);
  });
});

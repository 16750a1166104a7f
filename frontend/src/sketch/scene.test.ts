import { describe, expect, it } from 'vitest';
import { roundNumber } from './scene';

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

import { describe, expect, it } from 'vitest';
import { suspicion } from './suspicion';

const metres = { length: 'm', decimals: 3, angle: 'dms', heights: 3, angles: 1, small: 1, areas: 1 };

describe('suspicion', () => {
  it('tells a height by up and down', () => {
    const low = { name: 'P5', part: 'height', sigma: 0.031, sigmaWithout: 0.002, off: [-0.1] };
    expect(suspicion(low, metres as never)).toBe(
      'without it the other heights fit to 2.0 mm instead of 31.0 mm; its grid height is 100.0 mm below theirs',
    );
  });

  it('speaks in feet where feet are shown', () => {
    const west = { name: 'P5', part: 'horizontal', sigma: 0.3048, sigmaWithout: 0.03048, off: [-0.3048, 0.6096] };
    expect(suspicion(west, { ...metres, length: 'ft' } as never)).toBe(
      'without it the others fit to 0.1000 ft instead of 1.0000 ft; its grid position lies 1.0000 ft west and 2.0000 ft north of where they put it',
    );
  });
});

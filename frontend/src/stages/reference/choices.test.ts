import { describe, expect, it } from 'vitest';
import { asked, choicesOf, everythingFitted, heightsOf, type LocalizationFile, pairsOf } from './choices';

const file: LocalizationFile = {
  name: 'Site',
  grid: { system: 'EPSG:25830', heights: 'geoid|installed:egm96_15.gtx' },
  horizontal: { shift: { e: 492358.75, n: 6023243.39 }, rotation: 21.43, scale: 0.999565, held: ['scale', 'shift.e'] },
  vertical: { model: 'plane' },
  pairs: [{ name: 'M', local: { e: 1, n: 2, h: null }, grid: { e: 3, n: 4, h: 5 }, use: { horizontal: true, vertical: false } }],
};

describe('what is held', () => {
  it('is asked for by its value, and what is fitted by nothing', () => {
    const c = everythingFitted();
    expect(asked(c)).toEqual({ shiftE: null, shiftN: null, rotation: null, scale: null, vertical: 'shift' });
    c.hold.scale = true;
    c.hold.rotation = true;
    c.held.rotation = 12.5;
    expect(asked(c)).toEqual({ shiftE: null, shiftN: null, rotation: 12.5, scale: 1, vertical: 'shift' });
  });

  it('is found again in a file', () => {
    const c = choicesOf(file);
    expect(asked(c)).toEqual({ shiftE: 492358.75, shiftN: null, rotation: null, scale: 0.999565, vertical: 'plane' });
    expect(c.held.rotation, 'Turned by nothing, until it is held.').toBe(0);
  });

  it('starts anew every time', () => {
    everythingFitted().hold.scale = true;
    expect(everythingFitted().hold.scale).toBe(false);
  });
});

describe('a file', () => {
  it('gives its pairs and its heights', () => {
    expect(pairsOf(file)).toEqual([
      { name: 'M', localE: 1, localN: 2, localH: null, gridE: 3, gridN: 4, gridH: 5, horizontal: true, vertical: false },
    ]);
    expect(heightsOf(file)).toEqual({ heights: 'geoid', geoid: 'installed:egm96_15.gtx' });
    expect(heightsOf({ ...file, grid: { system: 'EPSG:25830', heights: 'ellipsoidal' } })).toEqual({ heights: 'ellipsoidal', geoid: '' });
  });
});

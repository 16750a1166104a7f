import { describe, expect, it } from 'vitest';
import type { PointView } from '../../api/types';
import { merged, pastePairs } from './pairs';

const points = [
  { name: 'M1', e: 493000.5, n: 6028000.25, h: 200 },
  { name: 'M2', e: 493400, n: 6028010, h: null },
  { name: 'M3', e: null, n: null, h: 3 },
] as PointView[];

describe('pasted pairs', () => {
  it('take the other side from the project by name', () => {
    const { pairs, problems } = pastePairs('name,e,n,h\nm1, 1000, 2000, 50\nM2;1400,5;2010;52\n', 'local', points);
    expect(problems).toEqual([]);
    expect(pairs[0]).toMatchObject({ name: 'm1', localE: 1000, localN: 2000, localH: 50, gridE: 493000.5, gridN: 6028000.25, gridH: 200 });
    expect(pairs[1]).toMatchObject({ localE: 1400.5, gridH: null });
  });
  it('may be typed on the grid side, or on both', () => {
    expect(pastePairs('M1 5 6', 'grid', points).pairs[0]).toMatchObject({ localE: 493000.5, gridE: 5, gridH: null });
    expect(pastePairs('X\t1\t2\t3\t4\t5\t6', 'local', points).pairs[0]).toMatchObject({ localN: 2, gridE: 4, gridH: 6 });
  });
  it('are in the unit that is shown', () => {
    const pair = pastePairs('M1 1000 2000 10', 'local', points, 0.3048).pairs[0]!;
    expect([pair.localE, pair.localN, pair.localH]).toEqual([304.8, 609.6, 3.048]);
    expect(pair.gridE, 'What the project knows is metres already.').toBe(493000.5);
  });
  it('name what cannot be used by line', () => {
    expect(pastePairs('# site\nM1,ten,20\nM9,1,2\nM3,1,2\nM1,1,2,high', 'local', points).problems).toEqual([
      'line 2: give name, easting, northing and height as numbers',
      'line 3: the project has no point M9 with coordinates',
      'line 4: the project has no point M3 with coordinates',
      'line 5: give name, easting, northing and height as numbers',
    ]);
  });
  it('replace those of the same name', () => {
    const one = pastePairs('M1 1 2', 'local', points).pairs;
    expect(
      merged(
        one,
        pastePairs('M1 3 4', 'local', points).pairs.map((p) => ({ ...p, name: 'M1' })),
      ),
    ).toHaveLength(1);
  });
});

import { describe, expect, it } from 'vitest';
import type { DeviationView, UnitsView } from '../../api/types';
import { bandOf, bandsOf, nearest, readLimits, setOf, spacing, USUAL, whereabouts, WITHIN, worst, type Deviations } from './bands';
import { checksScene } from './checksScene';
import { slopeText, verdict } from './verdict';

const units = { length: 'm', angle: 'dms', decimals: 3 } as unknown as UnitsView;
/** Nine points on a square of eight metres, one of them beside the reference and one far off. */
const points: Deviations = {
  names: ['A', 'B', 'C', 'D', 'E', 'F', 'G', 'H', 'I'],
  e: [0, 4, 8, 0, 4, 8, 0, 4, 8],
  n: [0, 0, 0, 4, 4, 4, 8, 8, 8],
  h: [1, 1, 1, 1, 1, 1, 1, 1, 1],
  d: [0.001, -0.002, -0.014, 0.006, null, 0.9, -0.006, 0.0, 0.0059],
};
const check = (over: Partial<DeviationView> = {}): DeviationView => ({
  number: 1,
  name: 'slab',
  measuredOn: '',
  against: '12 faces of d.dxf',
  reference: 'design',
  along: 'normal',
  codes: [],
  pattern: '',
  surface: 0,
  design: 1,
  layers: [],
  planeCodes: [],
  elevation: 0,
  ignore: 0.3,
  unit: '',
  measuredKind: 'points',
  measuredSurface: 0,
  measuredCloud: 0,
  cloud: 0,
  radius: null,
  measured: 9,
  used: 7,
  beyond: 1,
  outside: 1,
  mean: -0.0013,
  rms: 0.0064,
  sd: 0.0068,
  min: -0.014,
  max: 0.006,
  nearestBeyond: 0.9,
  steepest: 0.016,
  planeSd: null,
  run: 1,
  output: 'x',
  at: '',
  author: 'A',
  limits: [],
  colours: [],
  stale: [],
  ...over,
});

describe('bands', () => {
  it('begin at their lower limit', () => {
    expect([-0.0061, -0.006, 0, 0.0059, 0.006].map((d) => bandOf(d, [-0.006, 0.006]))).toEqual([0, 1, 1, 1, 2]);
  });
  it('count what lies on the reference and within the limit', () => {
    const bands = bandsOf(points, 0.3, setOf('x', [-0.006, 0.006]));
    expect(bands.map((b) => b.count)).toEqual([1, 5, 1]);
    expect(bands[1]).toMatchObject({ isTolerance: true, colour: WITHIN, from: -0.006, to: 0.006 });
    expect(bands[1]!.percent).toBeCloseTo(500 / 7, 9);
    expect(bandsOf(points, null, setOf('x', [0]))[0]!.count).toBe(5);
  });
  it('get colours by side, each shade once while there are few', () => {
    expect(new Set(USUAL.colours).size).toBe(7);
    expect(USUAL.colours[3]).toBe(WITHIN);
    const many = setOf('x', [-0.05, -0.04, -0.03, -0.02, -0.01, 0.01]);
    expect(many.colours).toHaveLength(7);
    expect(many.colours[5]).toBe(WITHIN);
    expect(setOf('x', [0.01, 0.02]).colours[0]).toBe(WITHIN);
  });
  it('are read as they are typed, and refused where they do not grow', () => {
    expect(readLimits('−12 −6 +6; 12', 0.001)).toEqual([-0.012, -0.006, 0.006, 0.012]);
    expect(readLimits('-6 -6', 0.001)).toBeNull();
    expect(readLimits('6 x', 0.001)).toBeNull();
    expect(readLimits('', 0.001)).toBeNull();
  });
});

describe('places', () => {
  it('are named by where they lie', () => {
    expect([0, 1, 2, 4, 8].map((i) => whereabouts(points, i))).toEqual([
      'south-west corner',
      'south edge',
      'south-east corner',
      'middle',
      'north-east corner',
    ]);
  });
  it('are sorted by size, the first of equal ones first', () => {
    expect(worst(points, 0.3, 3)).toEqual([2, 3, 6]);
    expect(worst(points, null, 1)).toEqual([5]);
  });
  it('are found by a click, and fill the map', () => {
    expect(nearest(points, 7, 1)).toBe(2);
    expect(spacing(points)).toBeCloseTo(4, 9);
    const scene = checksScene(points, 0.3, USUAL, units, [{ i: 2 }, { i: 3 }]);
    expect(scene.cells!.band).toEqual([3, 3, 1, 4, -1, -1, 3, 3, 3]);
    expect(scene.cells!.labels).toHaveLength(scene.cells!.colours.length - 1);
    expect(scene.notes.map((n) => n.text)).toEqual(['−14', '+6']);
    expect(scene.caption).toContain('2 left out');
  });
});

describe('the verdict', () => {
  it('says how much is within tolerance, where the worst place is and what was left out', () => {
    const words = verdict(check(), points, setOf('x', [-0.006, 0.006]), units);
    expect(words.headline).toBe('71.4 % of slab lies within ±6 mm; the south-east corner is 14 mm low');
    expect(words.sentences[0]).toContain('7 of 9 points compared along the normal');
    expect(words.sentences).toContain('1 lies more than 300 mm away and was left out.');
  });
  it('is content when all lies within', () => {
    expect(verdict(check(), points, setOf('x', [-0.02, 0.02]), units).headline).toBe('All of slab lies within ±20 mm');
  });
  it('says how far away everything is when nothing could be compared', () => {
    const nothing = { ...points, d: points.d.map(() => 1204) };
    const words = verdict(check({ used: 0, nearestBeyond: 1204 }), nothing, USUAL, units);
    expect(words.sentences[0]).toContain('the nearest is 1');
  });
  it('says what a slope does to heights only when it matters', () => {
    expect(slopeText(check({ along: 'vertical', steepest: 0.5 }), 0.02, units)).toContain('compare along the normal');
    expect(slopeText(check({ along: 'vertical', steepest: 0.016 }), 0.014, units)).toBe('');
    expect(slopeText(check({ steepest: null }), 1, units)).toBe('');
  });
});

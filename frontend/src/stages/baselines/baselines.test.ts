import { describe, expect, it } from 'vitest';
import type { BaselineRunView, BaselinesView, BaselineView, EpochsView, OccupationView } from '../../api/types';
import { baselinesScene } from './baselinesScene';
import { baselineColumns, worry } from './columns';
import { rmsOf } from './documents';
import { between, hull, standing, trueScale, windowOf, type Scatter } from './epochs';
import { bandNames, coverage, drawn } from './features';
import { ahead, clock, clocks, day, hours, isoHour, minutes, ticks } from './times';
import { compass, verdict } from './verdict';

// 2031-05-04 12:00:00 GPS.
const NOON = (Date.UTC(2031, 4, 4, 12) - Date.UTC(1980, 0, 6)) / 1000;
const UNITS = { length: 'm', angle: 'dms', decimals: 3, heights: 3, angles: 1, small: 1, areas: 1 };

const run = (more: Partial<BaselineRunView> = {}): BaselineRunView => ({
  run: 1,
  solution: 'fixed',
  ratio: 12,
  rms: 0.007,
  sdPlan: 0.002,
  sdUp: 0.003,
  vector: [1, 2, 3],
  less: null,
  length: 500,
  epochs: 120,
  from: NOON,
  to: NOON + 3600,
  satellites: 12,
  slips: 0,
  settings: 'mask 10°',
  baseFrom: 'of the project',
  warnings: [],
  at: '',
  author: 'A',
  output: 'x',
  ...more,
});
const baseline = (key: string, more: Partial<BaselineView> = {}): BaselineView => ({
  key,
  base: Number(key.split('-')[0]),
  rover: Number(key.split('-')[1]),
  fromName: 'A',
  toName: 'B',
  session: '124 12:00',
  from: NOON,
  to: NOON + 3600,
  independent: true,
  length: 500,
  runs: [run()],
  stale: [],
  accepted: false,
  epochs: null,
  moves: false,
  ...more,
});
const occupation = (id: number, marker: string, more: Partial<OccupationView> = {}): OccupationView => ({
  id,
  version: 0,
  marker,
  file: `${marker}.31o`,
  from: NOON,
  to: NOON + 3600,
  trimFrom: null,
  trimTo: null,
  interval: 30,
  epochs: 121,
  satellites: 12,
  receiver: '',
  antenna: '',
  heightKind: 'vertical',
  heightValue: 1.5,
  heightRadius: 0,
  heightAbove: 0,
  vertical: 1.5,
  heightWords: '',
  e: 100 * id,
  n: 0,
  h: 0,
  placeFrom: 'project',
  question: '',
  suggested: null,
  moves: false,
  ...more,
});
const epochs: EpochsView = {
  mark: 'B',
  first: NOON,
  epochs: 8,
  fixed: 8,
  keep: 0,
  output: '',
  stale: [],
  warnings: [],
  stands: [
    { from: 0, to: 2700, count: 90, mean: [0, 0, 0], spreadPlan: 2, spreadUp: 4 },
    { from: 3060, to: 6000, count: 98, mean: [-16, -14, -4], spreadPlan: 2, spreadUp: 4 },
  ],
  moves: [{ from: 2700, to: 3060, shift: [-16, -14, -4], confidence: 1 }],
};
const page = (baselines: BaselineView[], more: Partial<BaselinesView> = {}): BaselinesView => ({
  occupations: [occupation(1, 'A'), occupation(2, 'B')],
  baselines,
  closures: [],
  constant: 0.01,
  ppm: 1,
  broadcast: true,
  precise: false,
  leap: 18,
  recordings: [],
  ...more,
});

describe('clocks', () => {
  it('says GPS time, UTC and local time with daylight saving', () => {
    expect(clock(NOON, 'gps', 18, true)).toBe('12:00:00');
    expect(clock(NOON, 'utc', 18, true)).toBe('11:59:42');
    expect(clock(NOON, 'utc', 18)).toBe('12:00');
    expect(clock(NOON, 'Europe/London', 18)).toBe('13:00');
    expect(ahead(NOON, 'Europe/London', 18)).toBe('UTC+1');
    expect(ahead(NOON, 'gps', 18)).toBe('UTC + 18 s');
    expect(day(NOON, 'Pacific/Auckland', 18)).toBe('4 May 2031');
    expect(clocks(NOON, 'Europe/London', 18)).toBe('12:59:42 Europe/London (UTC+1) · 11:59:42 UTC · 12:00:00 GPS');
    expect(minutes(4200)).toBe('1 h 10');
    expect(minutes(1800)).toBe('30 min');
  });
  it('puts ticks where the shown clock is round', () => {
    expect(ticks(NOON - 60, NOON + 7300, 6, 'utc', 18).map((t) => clock(t, 'utc', 18, true))).toEqual([
      '12:00:00',
      '12:30:00',
      '13:00:00',
      '13:30:00',
      '14:00:00',
    ]);
  });
});

describe('windows of stations', () => {
  it('are rounded outward to whole hours of UTC', () => {
    const [from, to] = hours(NOON + 600, NOON + 4000, 18);
    expect([isoHour(from, 18), isoHour(to, 18)]).toEqual(['2031-05-04T12:00:00Z', '2031-05-04T14:00:00Z']);
    // Noon of GPS time is still the hour before in UTC.
    expect(isoHour(hours(NOON, NOON + 60, 18)[0], 18)).toBe('2031-05-04T11:00:00Z');
  });
});

describe('verdict', () => {
  it('says what left its mark, how far and when', () => {
    const v = verdict(page([baseline('1-2', { runs: [run({ solution: 'float', ratio: 1.3 })], epochs }), baseline('1-3')]), 'utc');
    expect(v.headline).toBe('B left its mark; 1 baseline is fixed');
    expect(v.sentences[0]).toBe('B moved 21 mm south-west between 12:45 and 12:51 and stayed there. The 45 minutes before can be kept.');
  });
  it('says what is kept once it is trimmed, and which loop is worst', () => {
    const closures = [
      {
        key: 'x',
        kind: 'loop',
        marks: ['A', 'B', 'C'],
        baselines: ['1-2'],
        sessions: ['a', 'b'],
        length: 1500,
        closure: [0, 0.02, 0],
        size: 0.02,
        allowed: 0.0115,
        independent: true,
      },
    ];
    const occupations = [occupation(1, 'A'), occupation(2, 'B', { trimTo: NOON + 2700 })];
    const v = verdict(page([baseline('1-2', { epochs })], { closures, occupations }), 'utc');
    expect(v.headline).toBe('The baseline is fixed');
    expect(v.sentences[0]).toContain('are kept');
    expect(v.sentences[1]).toBe('The loop A – B – C misses by 20 mm, 12 allowed.');
  });
  it('teaches before anything is solved, and when nothing checks', () => {
    expect(verdict(page([baseline('1-2', { runs: [] })]), 'utc').headline).toBe('1 baseline can be processed');
    expect(verdict(page([]), 'utc').headline).toBe('No two receivers recorded together');
    expect(verdict(page([baseline('1-2')]), 'utc').sentences).toContain('Nothing checks them yet: no loop, no baseline measured twice.');
  });
  it('names directions', () => {
    expect([compass(0, 1), compass(1, 0), compass(-1, -1), compass(-1, 0.1)]).toEqual(['north', 'east', 'south-west', 'west']);
  });
});

describe('epochs', () => {
  const scatter: Scatter = {
    seconds: [0, 30, 60, 90, 3060, 3090, 3120, 3150],
    e: [0, 1, -1, 0, -16, -15, -17, -16],
    n: [0, 1, 1, -1, -14, -13, -15, -14],
    u: [0, 0, 0, 0, 0, 0, 0, 0],
    fixed: [1, 1, 1, 1, 1, 1, 1, 1],
    satellites: [9, 9, 9, 9, 9, 9, 9, 9],
  };
  it('draws a hull about a stand', () => {
    expect(
      hull([
        [0, 0],
        [2, 0],
        [1, 1],
        [2, 2],
        [0, 2],
        [1, 0],
      ]),
    ).toEqual([
      [0, 0],
      [2, 0],
      [2, 2],
      [0, 2],
      [0, 0],
    ]);
    expect(standing(scatter, epochs, 1)).toHaveLength(4);
  });
  it('has one scale for both axes', () => {
    const s = trueScale([scatter.e, scatter.n], 600, 300);
    expect(s.half[0] / 600).toBeCloseTo(s.half[1] / 300);
    expect(s.half[1]).toBeGreaterThanOrEqual(8);
    expect(s.step).toBeGreaterThan(1);
  });
  it('takes a rectangle on the plan for the time its epochs span', () => {
    expect(windowOf(scatter, [-20, -10], [-20, -10])).toEqual([3060, 3150]);
    expect(windowOf(scatter, [100, 110], [0, 1])).toBeNull();
  });
  it('colours by time', () => {
    expect(between('#000000', '#ff8000', 0.5)).toBe('rgb(128,64,0)');
  });
});

describe('tables and map', () => {
  it('puts what is not fixed first', () => {
    expect(worry(baseline('1-2', { runs: [run({ solution: 'float', ratio: 1.2 })] }))).toBeGreaterThan(
      worry(baseline('1-3', { runs: [run({ ratio: 3.1 })] })),
    );
    expect(worry(baseline('1-3', { runs: [run({ ratio: 3.1 })] }))).toBeGreaterThan(worry(baseline('1-3')));
    const texts = baselineColumns(UNITS).map((c) => c.text?.(baseline('1-2')) ?? c.value(baseline('1-2')));
    expect(texts).toContain('2.0');
    expect(texts).toContain('fixed');
  });
  it('draws a baseline that is not fixed as one that fails', () => {
    const scene = baselinesScene([], page([baseline('1-2', { runs: [run({ solution: 'float' })] })]), null);
    expect(scene.lines.map((l) => l.tone)).toEqual(['bad']);
    expect(scene.points.map((p) => p.name)).toEqual(['A', 'B']);
  });
  it('takes the residuals of all signals of a satellite together', () => {
    const document = {
      first: 0,
      satellites: [],
      residuals: [
        { signal: 'G05 L1', seconds: [0, 1], mm: [3, -3] },
        { signal: 'G05 L2', seconds: [0], mm: [0] },
        { signal: 'G06 L1', seconds: [0], mm: [9] },
      ],
    };
    expect(rmsOf(document, 'G05')).toBeCloseTo(Math.sqrt(6));
    expect(rmsOf(document, 'G09')).toBeNull();
  });
});

describe('rover features', () => {
  const row = {
    id: 'D1',
    kind: 'LineString',
    code: 'DITCH',
    positions: 10,
    used: 10,
    before: 2.5,
    sdPlan: 0.2,
    sdUp: 0.3,
    moved: 2,
    solution: 'code',
  };
  const vertex = (e: number, n: number) => ({ rawE: e + 1, rawN: n - 1, rawH: 0, e, n, h: 0 });
  it('say what share of them a reference covers', () => {
    expect(coverage([NOON, NOON + 60, NOON + 9000, NOON + 9060], [occupation(1, 'A')])).toBe(0.5);
    expect(coverage([NOON + 60], [occupation(1, 'A', { trimFrom: NOON + 120 })])).toBe(0);
    expect(coverage([], [occupation(1, 'A')])).toBe(0);
  });
  it('are drawn where they are, with what moved them', () => {
    const d = drawn([
      { ...row, vertices: [vertex(0, 0), vertex(10, 5)] },
      { ...row, id: 'P', kind: 'Point', vertices: [vertex(3, 3)] },
    ]);
    expect(d.paths[0]!.path).toEqual([0, 0, 10, 5]);
    expect(d.points.map((p) => p.name)).toEqual(['P']);
    expect(d.shifts[0]).toEqual({ e: 1, n: -1, de: -1, dn: 1 });
  });
  it('fall into bands with names', () => {
    expect(bandNames([0.05, 1])).toEqual(['up to 0.05 m', 'up to 1 m', 'over 1 m']);
  });
});

describe('rovers that move', () => {
  const document = {
    first: NOON,
    satellites: [],
    residuals: [],
    track: { seconds: [0, 1], e: [10, 20], n: [5, 6], h: [1, 1], sd: [0.01, 0.01], solution: ['fixed', 'fixed'] },
    stops: [{ from: 0, to: 9, count: 10, e: 10, n: 5, h: 1.23456, sdPlan: 0.008, sdUp: 0.012, solution: 'fixed' }],
  };
  const b = baseline('1-2', { moves: true, runs: [run({ solution: 'code' })] });
  it('are no worry and have a track on the map', () => {
    expect(worry(b)).toBe(0);
    expect(verdict(page([b]), 'utc').headline).toBe('1 track is there');
    const scene = baselinesScene([], page([b]), null, document);
    expect(scene.paths[0]!.path).toEqual([10, 5, 20, 6]);
    expect(scene.points.map((p) => p.name)).toContain('stop 1');
    expect(scene.lines[0]!.tone).toBe('plain');
  });
});

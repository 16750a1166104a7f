// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { ElSelect } from 'element-plus';
import { afterEach, describe, expect, it } from 'vitest';
import { office, overview, show } from '../../../tests/office';
import type { PassesView, PassRequest, PassView } from '../../api/types';
import AroundPlot from './AroundPlot.vue';
import { equalScale } from './equalScale';
import PassesPages from './PassesPages.vue';
import PassForm from './PassForm.vue';
import {
  beside,
  givenIn,
  headline,
  nearestOf,
  pairShift,
  passScene,
  reasonOf,
  scanOf,
  sentences,
  type Station,
  stationRows,
  targetColumns,
  targetLines,
  targetsOf,
  targetWords,
  withMark,
} from './passes';

afterEach(() => (document.body.innerHTML = ''));

const units = overview.units;
const pass = (over: Partial<PassView> = {}): PassView => ({
  number: 1,
  name: 'up',
  of: 'up.csv',
  onto: 'down.csv',
  trajectory: 3,
  cloud: 4,
  referenceTrajectory: 1,
  referenceCloud: 2,
  referencePass: null,
  every: 20,
  isTime: false,
  radius: 1,
  preShift: [0, 0, 0],
  status: 'corrected',
  reason: null,
  stations: 8,
  used: 8,
  length: 140,
  rmsBefore: 0.2,
  rmsAfter: 0.006,
  greatest: 0.31,
  targets: [],
  control: null,
  check: null,
  without: null,
  run: 2,
  output: 'o',
  at: '2031-06-07T09:00:00Z',
  author: 'Demo',
  stale: [],
  ...over,
});
const station = (e: number, n: number, over: Partial<Station> = {}): Station => ({
  time: 0,
  e,
  n,
  h: 0,
  used: true,
  reason: null,
  shift: [0.1, -0.2, 0],
  sd: null,
  points: 900,
  rmsBefore: 0.2,
  rmsAfter: 0.006,
  ...over,
});
const stage = (over: Partial<PassesView> = {}): PassesView => ({
  passes: [],
  trajectories: [
    { id: 1, name: 'down.csv', rows: 10, length: 140 },
    { id: 3, name: 'up.csv', rows: 10, length: 140 },
  ],
  clouds: [
    { id: 2, name: 'down.las', points: 100 },
    { id: 4, name: 'up.las', points: 100 },
  ],
  points: [{ name: 'T1', role: 'control', e: 1, n: 2, h: 3 }],
  ...over,
});

describe('what a pass says', () => {
  it('is how well both agree, or what to do', () => {
    expect(headline(pass(), units)).toEqual({ words: 'Both drives agree to 6.0 mm', tone: 'holds' });
    expect(headline(pass({ used: 6 }), units).tone).toBe('doubt');
    expect(headline(pass({ status: 'no-overlap' }), units)).toEqual({ words: 'The drives have nothing in common', tone: 'fails' });
    expect(sentences(pass({ used: 6 }), units)).toBe(
      'up.csv was compared with down.csv at 8 places, every 20 m; 6 are used. Before 200.0 mm; the greatest correction is 0.310 m.',
    );
    expect(sentences(pass({ isTime: true, every: 2, preShift: [3, 4, 0] }), units)).toContain(
      'every 2 s; all are used. A picked pair moved it 5.000 m first.',
    );
    expect(sentences(pass({ status: 'needs-pre-shift', reason: 'give a pre-shift' }), units)).toContain('give a pre-shift');
  });

  it('names why a station is left out', () => {
    expect(reasonOf(station(0, 0))).toBe('');
    expect(reasonOf(station(0, 0, { used: false, reason: 'geometry' }))).toBe('plain walls: a direction is not held');
  });
});

describe('control, check points and a picked pair', () => {
  it('reads a line each, and says what is wrong with one', () => {
    const lines = 'T1 10.5 1 2 3\n\nT1; 20; 1.5; 2.5; 3.5';
    const { targets, fault } = targetsOf(lines, ['T1']);
    expect(fault).toBe('');
    expect(targets).toEqual([
      { target: 'T1', time: 10.5, e: 1, n: 2, h: 3 },
      { target: 'T1', time: 20, e: 1.5, n: 2.5, h: 3.5 },
    ]);
    expect(targetsOf(targetLines(targets), ['T1']).targets).toEqual(targets);
    expect(targetsOf('T1 1 2 3', ['T1']).fault).toBe('Line 1: a point and four numbers: time, easting, northing, height.');
    expect(targetsOf('T9 1 2 3 4', ['T1']).fault).toContain('T9 is no control or check point');
    expect(targetsOf('T1 1 2 x 4', ['T1']).fault).toContain('four numbers');
    expect(targetsOf('', []).targets).toEqual([]);
  });

  it('says how far they are off', () => {
    const rms = { before: [0.2, 0.1], after: [0.004, 0.006], count: 2 };
    expect(targetWords(pass(), units)).toBe('');
    expect(targetWords(pass({ control: rms, check: { ...rms, count: 1 } }), units)).toBe(
      '2 control sightings: 4.0 mm in plan, 6.0 in height (before 200.0, 100.0). ' +
        '1 check sighting: 4.0 mm in plan, 6.0 in height (before 200.0, 100.0).',
    );
    expect(targetWords(pass({ without: [0.01, 0.002] }), units)).toBe(
      'Each control point against what the others say: 10.0 mm in plan, 2.0 in height.',
    );
    const row = { target: 'T1', role: 'check', time: 1, before: [0.3, 0.4, 0], after: [0.001, -0.002, 0], without: null };
    const texts = targetColumns(units).map((c) => c.text?.(row as never) ?? c.value(row as never));
    expect(texts).toEqual(['T1', 'check', '1.00', '500.0', '+1.0', '−2.0', '+0.0']);
  });

  it('says first what checks a pass that follows control alone', () => {
    const alone = (over: Partial<PassView>) =>
      headline(pass({ onto: '', referenceTrajectory: null, referenceCloud: null, ...over }), units);
    const rms = { before: [0.2, 0.1], after: [0.004, 0.006], count: 2 };
    expect(alone({ check: rms, without: [0.01, 0.002] })).toEqual({
      words: 'Check points agree to 4.0 mm in plan, 6.0 in height',
      tone: 'holds',
    });
    expect(alone({ without: [0.01, 0.002] }).words).toBe('Control points agree with each other to 10.0 mm in plan, 2.0 in height');
    expect(alone({}).tone).toBe('doubt');
    expect(alone({ status: 'as-driven' }).words).toContain('As it was driven');
    expect(sentences(pass({ onto: '', status: 'as-driven' }), units)).toContain('click where the scan of up.csv shows it');
    expect(sentences(pass({ onto: '' }), units)).toContain('up.csv follows its control points');
  });

  it('finds points beside the way, and where a section shows them', () => {
    const known = [
      { name: 'far', role: 'control', e: 5, n: 40, h: 1 },
      { name: 'second', role: 'check', e: 20, n: 15, h: 2 },
      { name: 'first', role: 'control', e: 5, n: -4, h: 3 },
    ];
    const path: [number[], number[]] = [
      [0, 20, 20],
      [0, 0, 30],
    ];
    expect(beside(known, path).map((p) => [p.name, p.along])).toEqual([
      ['first', 5],
      ['second', 35],
    ]);
    // On the way east, right of it is south.
    const section = { ends: [5.5, 12, 5.5, -12] as [number, number, number, number], pass: [[], []] as [number[], number[]] };
    expect(givenIn({ ...section, reference: [[], []] }, known)).toEqual([{ name: 'first', at: [4, 3] }]);
    expect(givenIn(null, known)).toEqual([]);
    const mark = { target: 'first', time: 10, e: 1, n: 2, h: 3 };
    expect(withMark([mark, { ...mark, time: 20 }], { ...mark, time: 11, e: 9 }).map((m) => [m.time, m.e])).toEqual([
      [20, 1],
      [11, 9],
    ]);
  });

  it('moves across the way and up: along it a section says nothing', () => {
    const section = {
      ends: [0, 12, 0, -12] as [number, number, number, number],
      pass: [
        [1, 5],
        [220, 221],
      ] as [number[], number[]],
      reference: [[2.5], [220.4]] as [number[], number[]],
    };
    expect(nearestOf(section.pass, [1.2, 220.1])).toEqual([1, 220]);
    expect(nearestOf([[], []], [0, 0])).toBeNull();
    // Right of the way is south here.
    expect(pairShift(section, [1, 220], [2.5, 220.4]).map((v) => Math.round(v * 1000) / 1000)).toEqual([0, -1.5, 0.4]);
  });
});

describe('stations', () => {
  const drawing = {
    stations: [station(0, 0), station(15, 0, { used: false, reason: 'outlier' }), station(20, 10)],
    path: [
      [0, 10, 20, 20],
      [0, 0, 0, 20],
    ] as [number[], number[]],
    reference: [
      [0, 20],
      [1, 1],
    ] as [number[], number[]],
  };
  it('lie along the way, round its corners', () => {
    expect(stationRows(drawing).map((s) => s.along)).toEqual([0, 15, 30]);
    expect(stationRows(null)).toEqual([]);
  });

  it('stand on the map, those left out with their reason', () => {
    const rows = stationRows(drawing);
    const scene = passScene(drawing, rows, { ends: [0, 5, 0, -5], pass: [[], []], reference: [[], []] });
    expect(scene.points.map((p) => p.name)).toEqual(['0', '30']);
    expect(scene.notes.map((n) => n.text)).toEqual(['off both its neighbours']);
    expect(scene.paths.map((p) => p.kind)).toEqual(['track', 'section', 'across']);
    const alone = passScene({ ...drawing, reference: [[], []] }, [], null, [{ name: 'K', role: 'check', e: 1, n: 2, h: 3 }]);
    expect(alone.paths.map((p) => p.kind)).toEqual(['section']);
    expect(alone.points).toEqual([{ name: 'K', e: 1, n: 2, role: 'check' }]);
  });
});

describe('the form', () => {
  it('finds the scan that is named as the drive is, and sends the pair only where there is one', async () => {
    expect(scanOf(stage().trajectories[1], stage().clouds)).toBe(4);
    expect(scanOf(undefined, stage().clouds)).toBe(0);
    office();
    const wrapper = await show(PassForm, { stage: stage(), pass: null });
    expect(wrapper.text()).toContain('It needs a name.');
    const name = wrapper.get('[data-test=pass-name]');
    await (name.element.tagName === 'INPUT' ? name : name.get('input')).setValue('up');
    await wrapper.get('form').trigger('submit');
    const [request] = wrapper.emitted('save')![0] as [PassRequest];
    expect(request).toEqual({
      name: 'up',
      number: null,
      trajectory: 3,
      cloud: 4,
      referenceTrajectory: 1,
      referenceCloud: 2,
      referencePass: null,
      isTime: false,
      every: 20,
      radius: 1,
      preShift: [],
      targets: [],
    });
  });

  it('keeps what an alignment was made with', async () => {
    office();
    const wrapper = await show(PassForm, { stage: stage(), pass: pass({ isTime: true, every: 3, preShift: [2, 0, 0.5] }) });
    await wrapper.get('form').trigger('submit');
    const [request] = wrapper.emitted('save')![0] as [PassRequest];
    expect(request).toMatchObject({ number: 1, isTime: true, every: 3, preShift: [2, 0, 0.5] });
  });

  it('lays a drive onto a version in use, and needs no other one for control alone', async () => {
    office();
    const down = pass({ number: 4, name: 'down', trajectory: 1, cloud: 2, onto: '', referenceTrajectory: null, referenceCloud: null });
    const wrapper = await show(PassForm, { stage: stage({ passes: [down] }), pass: pass({ referenceTrajectory: null, referencePass: 4 }) });
    await wrapper.get('form').trigger('submit');
    const [request] = wrapper.emitted('save')![0] as [PassRequest];
    expect(request).toMatchObject({ referencePass: 4, referenceTrajectory: null, referenceCloud: null });
    const alone = await show(PassForm, { stage: stage({ passes: [down] }), pass: down });
    expect(alone.text()).not.toContain('compared every');
    await alone.get('form').trigger('submit');
    expect(alone.emitted('save')![0]).toMatchObject([{ number: 4, referencePass: null, referenceTrajectory: null, preShift: [] }, false]);
  });
});

describe('marking a point in a scan', () => {
  it('looks at the scan around it, takes where it is pointed at, and registers anew with it', async () => {
    const alone = pass({ onto: '', referenceTrajectory: null, referenceCloud: null, status: 'as-driven', length: 20 });
    const known = { name: 'M1', role: 'control', e: 5, n: -4, h: 3 };
    const section = { ends: [0, 0, 0, 0], pass: [[], []], reference: [[], []] };
    const seen = { target: 'M1', time: 2, e: 5.1, n: -4, h: 3 };
    const o = office({
      'GET /clouds/passes': stage({ passes: [alone], points: [known] }),
      'GET /clouds/passes/1': {
        stations: [],
        path: [
          [0, 20],
          [0, 0],
        ],
        reference: [[], []],
        targets: [],
      },
      'GET /clouds/passes/1/section/10.00': section,
      'GET /clouds/passes/1/section/5.00': section,
      'POST /clouds/passes/1/around': { east: [0.1], north: [0], up: [0], intensity: [900] },
      'POST /clouds/passes/1/seen': seen,
    });
    const wrapper = await show(PassesPages);
    await flushPromises();
    expect(wrapper.text()).toContain('As it was driven');
    wrapper.findComponent<typeof ElSelect>('[data-test=mark-point]').vm.$emit('change', 'M1');
    await flushPromises();
    expect(wrapper.get('[data-test=marks]').text()).toContain('Click the middle of M1');
    const plot = wrapper.getComponent(AroundPlot);
    expect(plot.props('around')).toMatchObject({ intensity: [900] });
    plot.vm.$emit('at', [0.1, 0]);
    await flushPromises();
    expect(o.bodies('POST /clouds/passes/1/seen')).toEqual([{ target: 'M1', east: 0.1, north: 0 }]);
    expect(wrapper.get('[data-test=marks]').text()).toContain('Marked M1');
  });

  it('draws as many metres to a pixel upwards as across', () => {
    const ends = equalScale([0, 10], [2, 4], { width: 200, height: 100 }, 0);
    expect(ends).toEqual({ x: [0, 10], y: [0.5, 5.5] });
    expect(equalScale([], [], { width: 10, height: 10 }, 0)).toEqual({ x: [-1, 1], y: [-0.5, 1.5] });
  });
});

describe('the page', () => {
  it('says what serves where there is nothing', async () => {
    office({ 'GET /clouds/passes': stage({ trajectories: [] }) });
    const wrapper = await show(PassesPages);
    await flushPromises();
    expect(wrapper.text()).toContain('No pass yet');
    expect(wrapper.text()).toContain('CSV with time, e, n, h, roll, pitch, heading');
  });

  it('says what is in use where a pass could not be laid', async () => {
    office({
      'GET /clouds/passes': stage({ passes: [pass({ status: 'needs-pre-shift', reason: 'give a pre-shift', used: 0, rmsAfter: null })] }),
      'GET /clouds/passes/1': { stations: [station(0, 0, { used: false, reason: 'too-far' })], path: [[0], [0]], reference: [[0], [0]] },
      'GET /clouds/passes/1/section/70.00': { ends: [0, 0, 0, 0], pass: [[], []], reference: [[], []] },
    });
    const wrapper = await show(PassesPages);
    await flushPromises();
    expect(wrapper.text()).toContain('The drives are too far apart, or do not fit');
    expect(wrapper.text()).toContain('Its trajectory is in use as it was driven');
    expect(wrapper.text()).toContain('further off than is looked for');
  });
});

// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { BaselineRunView, BaselinesView, BaselineView, OccupationView } from '../../api/types';
import { office, point, press, Refusal, route, show } from '../../../tests/office';
import BaselinesStage from './BaselinesStage.vue';
import BaseSheet from './BaseSheet.vue';
import FeatureSheet from './FeatureSheet.vue';
import OccupationSlip from './OccupationSlip.vue';
import StationSheet from './StationSheet.vue';

afterEach(() => {
  document.body.innerHTML = '';
  route.query = {};
});

// 2031-05-04 12:00:00 GPS.
const NOON = (Date.UTC(2031, 4, 4, 12) - Date.UTC(1980, 0, 6)) / 1000;
const props = { zone: 'utc', leap: 18 };

const run = (over: Partial<BaselineRunView> = {}): BaselineRunView => ({
  run: 1,
  solution: 'fixed',
  ratio: 12.3,
  rms: 0.0074,
  sdPlan: 0.0016,
  sdUp: 0.0022,
  vector: [1, 2, 3],
  less: null,
  length: 559,
  epochs: 120,
  from: NOON,
  to: NOON + 3600,
  satellites: 18,
  slips: 0,
  settings: 'mask 10°, broadcast orbits, both bands',
  baseFrom: 'of the project',
  warnings: [],
  at: '2031-05-04T15:00:00Z',
  author: 'Demo',
  output: 'x',
  ...over,
});
const occupation = (id: number, marker: string, over: Partial<OccupationView> = {}): OccupationView => ({
  id,
  version: 4,
  marker,
  file: `${marker.toLowerCase()}.31o`,
  from: NOON,
  to: NOON + 6300,
  trimFrom: null,
  trimTo: null,
  interval: 30,
  epochs: 211,
  satellites: 23,
  receiver: 'INVENTED RECEIVER',
  antenna: 'INVENTED ANTENNA',
  heightKind: 'vertical',
  heightValue: 1.559,
  heightRadius: 0,
  heightAbove: 0,
  vertical: 1.559,
  heightWords: 'vertical 1.5590 m',
  e: 100 * id,
  n: 50 * id,
  h: 230,
  placeFrom: 'project',
  question: '',
  suggested: null,
  moves: false,
  ...over,
});
const baseline = (over: Partial<BaselineView> = {}): BaselineView => ({
  key: '1-2',
  base: 1,
  rover: 2,
  fromName: 'KT01',
  toName: 'KT08',
  session: '124 12:00',
  from: NOON,
  to: NOON + 6300,
  independent: true,
  length: 558.6,
  runs: [run({ solution: 'float', ratio: 1.3, warnings: ['parts of the session lie 22 mm apart'] })],
  stale: [],
  accepted: false,
  epochs: null,
  moves: false,
  ...over,
});
const epochs = {
  mark: 'KT08',
  first: NOON,
  epochs: 4,
  fixed: 4,
  keep: 0,
  output: 'e',
  stale: [],
  warnings: [],
  stands: [
    { from: 0, to: 2700, count: 90, mean: [0, 0, 0], spreadPlan: 2, spreadUp: 4 },
    { from: 3060, to: 6300, count: 108, mean: [-16, -14, -4], spreadPlan: 2, spreadUp: 4 },
  ],
  moves: [{ from: 2700, to: 3060, shift: [-16, -14, -4], confidence: 1 }],
};
const page = (over: Partial<BaselinesView> = {}): BaselinesView => ({
  occupations: [
    occupation(1, 'KT01'),
    occupation(2, 'KT08'),
    occupation(3, 'KT9', { question: 'KT9 is no mark of the project; is it KT09?', suggested: 'KT09' }),
  ],
  baselines: [baseline(), baseline({ key: '1-3', rover: 3, toName: 'KT9', runs: [run()] })],
  closures: [],
  constant: 0.01,
  ppm: 1,
  broadcast: true,
  precise: false,
  leap: 18,
  recordings: [],
  ...over,
});
const sky = { from: NOON, span: 6300, count: [9, 10], rows: [{ id: 'G05', tracked: [1, 0.5], strength: [44, null], lost: [0, 2] }] };
const answers = (view: BaselinesView = page()) => ({
  'GET /baselines': view,
  'GET /baselines/occupations/2/sky': sky,
  'GET /baselines/occupations/3/sky': sky,
  'GET /baselines/occupations/1/sky': sky,
  'POST /baselines/process': { job: 'j' },
  'POST /baselines/epochs': { job: 'j' },
  'POST /baselines/accept': { seq: 9 },
  'PUT /baselines/occupations/2': { seq: 8 },
  'GET /jobs/j': { id: 'j', state: 'done', title: 'Process', outcome: { failed: {} } },
});

describe('the baselines page', () => {
  it('says what is not fixed first and processes all in one job', async () => {
    const { calls } = office(answers());
    const stage = await show(BaselinesStage);
    expect(stage.get('[data-test=headline]').text()).toBe('1 baseline is not fixed; 1 is fixed');
    expect(stage.text()).toContain('parts of the session lie 22 mm apart');
    await press(stage, 'Process all 2');
    await flushPromises();
    expect(calls.find((c) => c.route === 'POST /baselines/process')?.body).toEqual({
      pairs: [
        [1, 2],
        [1, 3],
      ],
    });
  });

  it('accepts only what is fixed, fresh and independent without a further look', async () => {
    const { calls } = office(answers());
    const stage = await show(BaselinesStage);
    await press(stage, 'Accept 1 fixed');
    await flushPromises();
    expect(calls.find((c) => c.route === 'POST /baselines/accept')?.body).toEqual({ baselines: ['1-3'] });
  });

  it('trims to the first place of a receiver that moved, and processes again', async () => {
    const view = page({ baselines: [baseline({ epochs }), baseline({ key: '1-3', rover: 3, toName: 'KT9', runs: [run()] })] });
    const { calls } = office(answers(view));
    const stage = await show(BaselinesStage);
    expect(stage.get('[data-test=headline]').text()).toBe('KT08 left its mark; 1 baseline is fixed');
    expect(stage.get('[data-test=keep]').text()).toBe('Keep 12:00 to 12:45 and process');
    await stage.get('[data-test=keep]').trigger('click');
    await flushPromises();
    const put = calls.find((c) => c.route === 'PUT /baselines/occupations/2');
    expect(put?.body).toMatchObject({ marker: 'KT08', trimFrom: NOON, trimTo: NOON + 2700, reason: 'the receiver left its mark' });
    expect(put?.headers['If-Match']).toBe('"4"');
    expect(calls.find((c) => c.route === 'POST /baselines/process')?.body).toEqual({ pairs: [[1, 2]] });
  });

  it('solves epoch by epoch with one key', async () => {
    const { calls } = office(answers());
    await show(BaselinesStage);
    document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'e', bubbles: true }));
    await flushPromises();
    expect(calls.find((c) => c.route === 'POST /baselines/epochs')?.body).toEqual({ base: 1, rover: 2 });
  });

  it('takes the stops of a rover in as points, named and coded as typed', async () => {
    const track = baseline({ key: '1-3', rover: 3, toName: 'KERB', moves: true, runs: [run()] });
    const stop = { from: 0, to: 22, count: 12, e: 1, n: 2, h: 3, sdPlan: 0.004, sdUp: 0.006, solution: 'fixed' };
    const document_ = { first: NOON, satellites: [], residuals: [], stops: [stop] };
    const { calls } = office({
      ...answers(page({ baselines: [track] })),
      'GET /baselines/runs/1-3': document_,
      'POST /baselines/stops/1-3': { file: 8 },
    });
    const stage = await show(BaselinesStage);
    await flushPromises();
    expect(stage.text()).toContain('1 stops averaged (largest sd 4.0 mm in plan)');
    await stage.get('[aria-label="Code of the stops"]').setValue('KERB');
    await stage.get('.stops').trigger('submit');
    await flushPromises();
    expect(calls.find((c) => c.route === 'POST /baselines/stops/1-3')?.body).toEqual({ prefix: 'KERB-', code: 'KERB' });
  });

  it('processes a part of the time, and all of it unless asked', async () => {
    const { calls } = office(answers());
    const stage = await show(BaselinesStage);
    await press(stage, 'Process again with…');
    const slider = stage.getComponent({ name: 'ElSlider' });
    slider.vm.$emit('update:modelValue', [30, 105]);
    await flushPromises();
    expect(stage.get('[data-test=time-used]').text()).toContain('time 12:30 to 13:45');
    await stage.get('.settings').trigger('submit');
    await flushPromises();
    expect(calls.find((c) => c.route === 'POST /baselines/process')?.body).toMatchObject({ from: NOON + 1800, to: NOON + 6300 });
    slider.vm.$emit('update:modelValue', [0, 105]);
    await flushPromises();
    await stage.get('.settings').trigger('submit');
    await flushPromises();
    expect(calls.filter((c) => c.route === 'POST /baselines/process')[1]?.body).toMatchObject({ from: null, to: null });
  });

  it('asks for the loops anew when another allowance is typed', async () => {
    const closures = [
      {
        key: 'a b c',
        kind: 'loop',
        marks: ['A', 'B', 'C'],
        baselines: ['1-2'],
        sessions: ['1'],
        length: 900,
        closure: [0.01, 0, 0],
        size: 0.01,
        allowed: 0.011,
        independent: true,
      },
    ];
    const { calls } = office({ ...answers(page({ closures })), 'PUT /api/account/preferences/baselines.allowance': {} });
    const stage = await show(BaselinesStage);
    await stage.get('[data-test=tab-closures]').trigger('click');
    await flushPromises();
    await stage.get('[data-test=allowed-constant] input').setValue('5');
    await new Promise((r) => setTimeout(r, 400));
    await flushPromises();
    expect(calls.filter((c) => c.route === 'GET /baselines').map((c) => c.query.toString())).toEqual([
      'constant=10&ppm=1',
      'constant=5&ppm=1',
    ]);
  });

  it('asks about markers, and offers to write recordings as RINEX', async () => {
    const recording = {
      id: 7,
      name: 'kt02.log',
      kind: 'receiver-log',
      marker: 'KT02',
      epochs: 100,
      satellites: 22,
      ephemerides: 54,
      from: NOON,
      to: NOON,
      written: false,
    };
    const { calls } = office({ ...answers(page({ recordings: [recording] })), 'POST /baselines/recordings/7/rinex': { files: [] } });
    route.query = { occupation: '3' };
    const stage = await show(BaselinesStage);
    expect(stage.text()).toContain('Occupations 3 · 2 asked');
    expect(stage.text()).toContain('KT9 is no mark of the project; is it KT09?');
    await stage.get('[data-test=write-rinex]').trigger('click');
    await flushPromises();
    expect(calls.some((c) => c.route === 'POST /baselines/recordings/7/rinex')).toBe(true);
  });

  it('teaches what to bring while there is nothing', async () => {
    office({ 'GET /baselines': page({ occupations: [], baselines: [] }) }, {}, [point('P', 1, 1, 1)]);
    const stage = await show(BaselinesStage);
    expect(stage.text()).toContain('No GNSS sessions yet');
    expect(stage.find('[data-test=open-base]').exists()).toBe(true);
  });
});

describe('an occupation', () => {
  it('reduces a slant height as it is typed and keeps it', async () => {
    const { calls } = office({ 'PUT /baselines/occupations/2': { seq: 1 } });
    const slip = await show(OccupationSlip, {
      ...props,
      occupation: occupation(2, 'KT08', { heightKind: 'slant', heightValue: 1.6, heightRadius: 0.15 }),
    });
    expect(slip.text()).toContain('1.5930 m to the reference point');
    await slip.get('[data-test=save-occupation]').trigger('click');
    await flushPromises();
    expect(calls.find((c) => c.route.startsWith('PUT'))?.body).toMatchObject({
      heightKind: 'slant',
      heightValue: 1.6,
      heightRadius: 0.15,
      moves: false,
    });
  });

  it('shows all three clocks and takes the name that is suggested', async () => {
    const { calls } = office({ 'PUT /baselines/occupations/3': { seq: 1 } });
    const slip = await show(OccupationSlip, { ...props, occupation: occupation(3, 'KT9', { question: 'is it KT09?', suggested: 'KT09' }) });
    expect(slip.text()).toContain('11:59:42 UTC');
    expect(slip.text()).toContain('12:00:00 GPS');
    await slip.get('[data-test=take-marker]').trigger('click');
    await vi.waitFor(() => expect(calls[0]?.body).toMatchObject({ marker: 'KT09' }), 5000);
  });
});

describe('a base correction', () => {
  const base = {
    files: [{ id: 5, name: 'shots.csv', records: 37, bases: ['BASE1'], corrected: '' }],
    sessions: [],
    epoch: 2031.34,
    hasGeoid: false,
  };
  const points = [point('BASE1', 10, 20, 30, { role: 'surveyed' }), point('KT05', 9, 21, 29)];
  const preview = {
    rows: [{ name: 'D1', code: 'DITCH', e: 1, n: 2, h: 3, newE: 0, newN: 3, newH: 2 }],
    count: 37,
    shift: [-1, 1, -1],
    base: [9, 21, 29],
    words: 'given in the project',
  };

  it('shows every move before it is made', async () => {
    const { calls } = office(
      { 'GET /baselines/base': base, 'POST /baselines/base/preview': preview, 'POST /baselines/base': { seq: 3 } },
      {},
      points,
    );
    const sheet = await show(BaseSheet);
    await flushPromises();
    expect(calls.some((c) => c.route === 'POST /baselines/base/preview')).toBe(false);
    const inputs = sheet.findAll('.grid.four')[1]!.findAll('input.el-input__inner');
    for (const [i, value] of [
      ['0', '9'],
      ['1', '21'],
      ['2', '29'],
    ] as const)
      await inputs[Number(i)]!.setValue(value);
    await flushPromises();
    expect(calls.find((c) => c.route === 'POST /baselines/base/preview')?.body).toMatchObject({
      files: [5],
      usedE: 10,
      usedN: 20,
      usedH: 30,
      epoch: 2031.34,
    });
    expect(sheet.get('[data-test=base-shift]').text()).toContain('37 points move: east −1.000, north +1.000, up −1.000 m');
    expect(sheet.emitted('shifts')!.at(-1)![0]).toEqual([{ e: 1, n: 2, de: -1, dn: 1 }]);
    await sheet.get('[data-test=correct-base]').trigger('click');
    await flushPromises();
    expect(calls.some((c) => c.route === 'POST /baselines/base')).toBe(true);
  });

  it('says what was corrected already', async () => {
    office({ 'GET /baselines/base': { ...base, files: [{ ...base.files[0], corrected: 'moved by 1.619 m by Demo' }] } }, {}, points);
    const sheet = await show(BaseSheet);
    await flushPromises();
    expect(sheet.text()).toContain('Its base was corrected already: moved by 1.619 m by Demo');
  });
});

describe('rover features', () => {
  const file = {
    id: 4,
    name: 'walk.geojson',
    title: 'Drainage',
    times: [NOON, NOON + 60],
    rinex: 'rover.31o',
    bands: [0.5, 5],
    isCorrected: true,
    features: 2,
    corrected: 2,
    positions: 20,
    covered: 20,
    before: [0, 2, 0],
    after: [2, 0, 0],
    output: 'x',
    stale: [],
  };
  it('say how they are covered, what the header misses by, and what they are worth', async () => {
    const { calls } = office({
      'GET /baselines/features': { files: [file] },
      'GET /baselines/features/4': { rows: [] },
      'POST /baselines/features/preview': { less: [0.5, -2.4, -3.1], place: [1, 2, 3] },
      'POST /baselines/features': { job: 'j' },
      'GET /jobs/j': { id: 'j', state: 'done', title: 'Correct' },
    });
    const sheet = await show(FeatureSheet, {
      ...props,
      occupations: [occupation(1, 'KT01'), occupation(9, 'ROVER', { file: 'rover.31o' })],
    });
    await flushPromises();
    expect(sheet.get('[data-test=coverage]').text()).toContain('100 %');
    expect(sheet.get('[data-test=less]').text()).toContain('east +0.500, north −2.400, up −3.100 m');
    expect(sheet.get('[data-test=features-verdict]').text()).toContain('2 of 2 features are corrected');
    await sheet.get('[data-test=correct-features]').trigger('click');
    await flushPromises();
    expect(calls.find((c) => c.route === 'POST /baselines/features')?.body).toEqual({
      file: 4,
      references: [1],
      position: 'mark',
      mark: 'KT01',
    });
  });
});

describe('reference stations', () => {
  const station = { id: 'FELL', lat: 54.4, lon: -3.1, h: 331.2, distance: 5400, e: 1, n: 2, intervals: [1, 5, 30], formats: ['rinex-3'] };
  it('are ordered for whole hours about what was recorded', async () => {
    const { calls } = office({
      'GET /baselines/stations': { service: 'Simulated stations', stations: [station], from: NOON + 600, to: NOON + 4000, why: '' },
      'POST /baselines/stations/order': { job: 'j' },
      'GET /jobs/j': { id: 'j', state: 'done', title: 'Order' },
    });
    const sheet = await show(StationSheet, { ...props, occupations: [occupation(1, 'KT01')] });
    await flushPromises();
    expect(sheet.get('[data-test=window]').text()).toContain('12:00 to 14:00 UTC');
    await sheet.get('form').trigger('submit');
    await flushPromises();
    expect(calls.find((c) => c.route === 'POST /baselines/stations/order')?.body).toEqual({
      station: 'FELL',
      from: '2031-05-04T12:00:00Z',
      to: '2031-05-04T14:00:00Z',
      interval: 30,
      format: 'rinex-3',
    });
  });

  it('say why there are none, and what the service answers to a file', async () => {
    office({
      'GET /baselines/stations': { service: '', stations: [], from: null, to: null, why: 'no reference-station service is set up' },
    });
    const none = await show(StationSheet, { ...props, occupations: [] });
    await flushPromises();
    expect(none.text()).toContain('no reference-station service is set up');
    office({
      'GET /baselines/stations': { service: 'S', stations: [station], from: NOON, to: NOON + 60, why: '' },
      'POST /baselines/occupations/1/position': new Refusal(422, 'holds less than a quarter of an hour'),
    });
    const some = await show(StationSheet, { ...props, occupations: [occupation(1, 'KT01')] });
    await flushPromises();
    expect(some.find('[data-test=report]').exists()).toBe(false);
  });
});

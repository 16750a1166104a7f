// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it } from 'vitest';
import type { NetworkView, RowView, RunView } from '../../api/types';
import { office, overview, point, press, route, show } from '../../../tests/office';
import { observationRow } from '../../../tests/network';
import ControlSheet from './ControlSheet.vue';
import NetworkStage from './NetworkStage.vue';
import SettingsSheet from './SettingsSheet.vue';

afterEach(() => (document.body.innerHTML = ''));

const settings = {
  directionSd: 1.5,
  zenithSd: 2,
  distanceConstant: 0.0015,
  distancePpm: 2,
  instrumentCentring: 0.001,
  targetCentring: 0.001,
  heightCentring: 0.001,
  refraction: 0.13,
  confidence: 0.95,
  free: false,
  factors: {},
  deflections: 'none',
  xi: 0,
  eta: 0,
};
const row = (id: number, over: Partial<RowView> = {}) => observationRow({ id, fileId: 4, line: 12, ...over });
const run: RunView = {
  id: 1,
  run: 3,
  createdAt: '2031-05-04T09:00:00Z',
  author: 'Demo',
  passed: false,
  converged: true,
  varianceFactor: 1.94,
  lower: 0.8,
  upper: 1.2,
  redundancy: 120,
  observations: 180,
  stations: 12,
  asideCount: 2,
  free: false,
  confidence: 0.95,
  headline: 'Adjustment 3 fails its global test',
  sentences: ['Look at direction KT03/2 to KT07.'],
  warnings: [],
};
const network = (over: Partial<NetworkView> = {}): NetworkView => ({
  settings,
  settingsVersion: 'w1',
  rows: [
    row(1),
    row(2, { standardized: 4.2, at: 'KT05', to: 'KT09', kind: 'slope-distance' }),
    row(3, { used: false, asideBy: 'Demo', reason: 'wrong' }),
  ],
  stations: [],
  kinds: [{ name: 'directions', kind: 'direction', setup: '', count: 58, redundancy: 30.2, factor: 1.9, standing: 'high' }],
  setups: [],
  runs: [run],
  stale: [],
  comparison: null,
  accepted: false,
  largestEllipse: 0.0042,
  largestEllipseAt: 'KT06',
  corrections: [],
  relative: [],
  ...over,
});
const job = { id: 'j', title: 'Adjust the network', state: 'done', outcome: null };

describe('the network stage', () => {
  it('says what to do when there is nothing', async () => {
    office({ 'GET /network': network({ rows: [], runs: [] }) });
    expect((await show(NetworkStage)).text()).toContain('No observations yet');
  });

  it('says the verdict, worst first, and what stands out', async () => {
    office({ 'GET /network': network() });
    const stage = await show(NetworkStage);
    expect(stage.get('h1').text()).toBe('Adjustment 3 fails its global test');
    expect(stage.text()).toContain('Look at direction KT03/2 to KT07.');
    expect(stage.findAll('.body .row')[0]!.text()).toContain('KT05');
    expect(stage.get('.strip').text()).toContain('directions1.90 ▲');
    expect(stage.get('.strip').text()).toContain('4.2 mm KT06');
    expect(stage.text()).toContain('1 set aside ○');
  });

  it('sets the chosen row aside with one key and adjusts again at once', async () => {
    const o = office({
      'GET /network': network(),
      'POST /network/use': { seq: 1 },
      'POST /network/adjust': { job: 'j' },
      'GET /jobs/j': job,
    });
    const stage = await show(NetworkStage);
    await stage.findAll('.body .row')[0]!.trigger('click');
    document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'x', bubbles: true }));
    await flushPromises();
    await flushPromises();
    expect(o.bodies('POST /network/use')).toEqual([{ rows: [{ id: 2, component: null }], aside: true, reason: '' }]);
    expect(o.calls.some((c) => c.route === 'POST /network/adjust')).toBe(true);
  });

  it('does nothing of the kind for a reader', async () => {
    const o = office({ 'GET /network': network() }, { mayChange: false });
    const stage = await show(NetworkStage);
    await stage.findAll('.body .row')[0]!.trigger('click');
    document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'x', bubbles: true }));
    await flushPromises();
    expect(o.calls.some((c) => c.route.startsWith('POST'))).toBe(false);
  });

  it('proposes by screening and sets aside what is accepted', async () => {
    const proposals = [{ id: 2, component: null, pass: 1, standardized: 4.2, text: 'slope distance KT05/1 → KT09' }];
    const o = office({
      'GET /network': network(),
      'POST /network/screen': { job: 's' },
      'GET /jobs/s': { ...job, id: 's', outcome: { proposals } },
      'POST /network/use': {},
      'POST /network/adjust': { job: 'j' },
      'GET /jobs/j': job,
    });
    const stage = await show(NetworkStage);
    await press(stage, 'Screening');
    expect(stage.text()).toContain('slope distance KT05/1 → KT09');
    await press(stage, 'Set them aside and compare');
    await flushPromises();
    expect(o.bodies('POST /network/screen')).toEqual([{ limit: 3.29, most: null }]);
    expect(o.bodies('POST /network/use')).toEqual([{ rows: [{ id: 2, component: null }], aside: true, reason: 'screened above 3.29' }]);
  });

  it('comes from the search with the observation chosen', async () => {
    office({ 'GET /network': network(), 'GET /intake/4/lines/12': [{ line: 12, text: 'KT03;1;…' }] });
    route.query = { observation: '2' };
    const stage = await show(NetworkStage);
    expect(stage.get('.row.selected').text()).toContain('KT05');
    await stage.get('[data-test=source]').trigger('click');
    await flushPromises();
    expect(stage.text()).toContain('KT03;1;…');
  });

  it('offers to adjust again when something changed', async () => {
    const o = office({ 'GET /network': network({ stale: ['control changed'] }), 'POST /network/adjust': { job: 'j' }, 'GET /jobs/j': job });
    const stage = await show(NetworkStage);
    expect(stage.text()).toContain('Stale: control changed.');
    expect(stage.get<HTMLButtonElement>('[data-test=accept-coordinates]').element.disabled).toBe(true);
    await press(stage, 'Adjust again');
    expect(o.calls.some((c) => c.route === 'POST /network/adjust')).toBe(true);
  });
});

describe('control', () => {
  const marks = [
    point('KT01', 493120.412, 6028061.238, 236.418, { held: 'enh' }),
    point('KT04', 493212.087, 6028408.339, 244.261, { sdE: 0.004, sdN: 0.004, sdH: 0.007 }),
    point('P1', 1, 2, 3, { role: 'surveyed' }),
  ];
  const input = (name: string) => `[aria-label="${name}"]`;

  it('shows given values in the units of the project, and surveyed points only when asked', async () => {
    office({}, { units: { length: 'ft', angle: 'dms', decimals: 2, heights: 3, angles: 1, small: 1, areas: 1 } }, marks);
    const sheet = await show(ControlSheet, { selected: new Set(['KT01']) });
    expect(sheet.findAll('.body .row')).toHaveLength(2);
    expect(sheet.get<HTMLInputElement>(input('height')).element.value).toBe('775.64961');
    await sheet.get('input[type=checkbox]').setValue(true);
    await flushPromises();
    expect(sheet.findAll('.body .row')).toHaveLength(3);
  });

  it('reads a coordinate aloud while it is typed and stores metres', async () => {
    const o = office({ 'PUT /control': { seq: 2 } }, {}, marks);
    const sheet = await show(ControlSheet, { selected: new Set(['KT04']) });
    await sheet.get(input('northing')).setValue('6 028 408,5');
    expect(sheet.text()).toContain('6\u2009028\u2009408.5 m');
    await sheet.get('form').trigger('submit');
    await flushPromises();
    expect(o.bodies('PUT /control')).toEqual([
      { point: 'KT04', e: 493212.087, n: 6028408.5, h: 244.261, held: '', sdE: 0.004, sdN: 0.004, sdH: 0.007 },
    ]);
  });

  it('sends nothing that is not a number', async () => {
    const o = office({}, {}, marks);
    const sheet = await show(ControlSheet, { selected: new Set(['KT04']) });
    await sheet.get(input('easting')).setValue('49x');
    expect(sheet.text()).toContain('is not a number');
    await sheet.get('form').trigger('submit');
    await flushPromises();
    expect(o.bodies('PUT /control')).toEqual([]);
    expect(o.project.note?.text).toBe('A coordinate or a standard deviation is not a number.');
  });

  it('renames a mark and follows it', async () => {
    const o = office({ 'POST /points/rename': { seq: 2 } }, {}, marks);
    const sheet = await show(ControlSheet, { selected: new Set(['KT04']) });
    await sheet.get(input('name')).setValue('PILLAR4');
    await sheet.findAll('form')[1]!.trigger('submit');
    await flushPromises();
    expect(o.bodies('POST /points/rename')).toEqual([{ from: 'KT04', to: 'PILLAR4' }]);
    expect(sheet.emitted('select')!.at(-1)).toEqual([['PILLAR4']]);
  });
});

describe('weights', () => {
  it('are shown in the units of the trade and stored in those of the core', async () => {
    const o = office({ 'PUT /network/settings': { seq: 3 } });
    const sheet = await show(SettingsSheet, { settings });
    expect(sheet.get<HTMLInputElement>('#distanceConstant').element.value).toBe('1.5');
    expect(sheet.get<HTMLInputElement>('#confidence').element.value).toBe('95');
    await sheet.get('#distanceConstant').setValue('2,5');
    await sheet.get('form').trigger('submit');
    await flushPromises();
    expect(o.bodies('PUT /network/settings')).toEqual([{ ...settings, distanceConstant: 0.0025 }]);
  });
});

describe('a network that cannot be adjusted', () => {
  const failed = {
    id: 'j1',
    kind: 'adjust',
    title: 'Adjust the network',
    state: 'failed',
    stage: '',
    progress: 0,
    secondsLeft: null,
    error: 'stations: KT01 and KT02: datum defect: nothing fixes their position',
    outcome: { fault: 'datum-defect' },
  };
  const open = (over: Partial<NetworkView> = {}) =>
    office(
      {
        'GET /network': network(over),
        'POST /control/hold': {},
        'PUT /network/settings': {},
        'POST /network/adjust': { job: 'j2' },
        'GET /jobs/j2': { ...failed, id: 'j2', state: 'done', error: null, outcome: null },
      },
      { jobs: [failed] },
      [point('KT01', 1, 2, 3), point('KT02', 4, 5, 6), point('P1', 7, 8, 9, { role: 'surveyed' })],
    );

  it('says why on its page, and offers to hold the marks', async () => {
    const o = open();
    const stage = await show(NetworkStage);
    expect(stage.get('[data-test=failure]').text()).toContain('nothing fixes their position');
    await press(stage, 'Hold KT01 and KT02');
    expect(o.bodies('POST /control/hold')).toEqual([{ points: ['KT01', 'KT02'] }]);
    expect(o.calls.some((c) => c.route === 'POST /network/adjust')).toBe(true);
  });

  it('offers to adjust free, unless it is already', async () => {
    const o = open();
    const stage = await show(NetworkStage);
    await press(stage, 'Adjust free');
    expect(o.bodies('PUT /network/settings')).toMatchObject([{ free: true }]);
    open({ settings: { ...settings, free: true } });
    const again = await show(NetworkStage);
    expect(again.find('[data-test=remedy-free]').exists()).toBe(false);
  });

  it('leaves the notice away once it is closed', async () => {
    open();
    const stage = await show(NetworkStage);
    await stage.get('[data-test=failure] .el-button.is-link').trigger('click');
    await flushPromises();
    expect(stage.find('[data-test=failure]').exists()).toBe(false);
  });
});

describe('weights of a project in gon', () => {
  // 1 mgon is 3.24 seconds of arc by definition.
  it('are shown and typed in milligon, and kept in seconds', async () => {
    const o = office({ 'PUT /network/settings': {} }, { units: { ...overview.units, angle: 'gon' } });
    const sheet = await show(SettingsSheet, { settings: { ...settings, directionSd: 3.24 }, version: 'w1' });
    const input = sheet.get<HTMLInputElement>('#directionSd');
    expect(input.element.value).toBe('1');
    await input.setValue('0.5');
    await sheet.get('form').trigger('submit');
    await flushPromises();
    expect((o.bodies('PUT /network/settings')[0] as { directionSd: number }).directionSd).toBeCloseTo(1.62, 9);
  });
});

// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it } from 'vitest';
import type { ChecksView, DeviationView } from '../../api/types';
import { office, overview, point, press, show } from '../../../tests/office';
import { USUAL } from './bands';
import ChecksStage from './ChecksStage.vue';
import { checkHeadline, checkScene, checkSentences } from './useCheckPoints';

afterEach(() => (document.body.innerHTML = ''));

const deviation: DeviationView = {
  number: 3,
  name: 'slab',
  measuredOn: '2031-05-04',
  against: '12 faces of d.dxf',
  reference: 'design',
  along: 'normal',
  codes: ['SLAB'],
  pattern: '',
  surface: 0,
  design: 7,
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
  measured: 4,
  used: 3,
  beyond: 1,
  outside: 0,
  mean: 0,
  rms: 0.01,
  sd: 0.01,
  min: -0.02,
  max: 0.001,
  nearestBeyond: 1,
  steepest: null,
  planeSd: null,
  run: 1,
  output: 'x',
  at: '2031-05-04T15:00:00Z',
  author: 'Demo',
  limits: USUAL.limits,
  colours: USUAL.colours,
  stale: [],
};
const page = (over: Partial<ChecksView> = {}): ChecksView => ({
  deviations: [deviation],
  designs: [{ id: 7, name: 'd.dxf', faces: 12, layers: { TOP: 12 }, lines: 0, points: 0, lineLayers: {} }],
  surfaces: [],
  codes: { SLAB: 4 },
  clouds: [],
  checks: [],
  checkPoints: 0,
  made: {},
  ...over,
});
const measured = { names: ['A', 'B', 'C', 'D'], e: [0, 1, 0, 1], n: [0, 0, 1, 1], h: [1, 1, 1, 2], d: [0.001, -0.02, 0, 1] };
const answers = (view: ChecksView = page()) => ({
  'GET /checks': view,
  'GET /checks/deviations/3/points': measured,
  'POST /checks/deviations': { job: 'j' },
  'GET /jobs/j': { id: 'j', state: 'done', title: 'Compare', outcome: { number: 3 } },
  'PUT /api/account/preferences/checks.bands': {},
});
const points = [point('A', 0, 0, 1, { code: 'SLAB' }), point('X', 5, 5, 1, { code: 'OTHER' })];

describe('the checks page', () => {
  it('says what lies within and moves with the limits that are typed', async () => {
    office(answers(), {}, points);
    const stage = await show(ChecksStage);
    await flushPromises();
    expect(stage.get('[data-test=headline]').text()).toBe('66.7 % of slab lies within ±6 mm; the south-east corner is 20.0 mm low');
    await stage.get('[data-test=limits] input, input[data-test=limits]').setValue('-30 30');
    await flushPromises();
    expect(stage.get('[data-test=headline]').text()).toBe('All of slab lies within ±30 mm');
    await stage.get('[data-test=limits] input, input[data-test=limits]').setValue('30 -30');
    await flushPromises();
    expect(stage.get('[data-test=limits-fault]').text()).toContain('numbers that grow');
    await press(stage, 'Left out 1');
    expect(stage.text()).toContain('D');
  });

  it('asks what is compared with what, and starts a job', async () => {
    const { calls } = office(answers(page({ deviations: [] })), {}, points);
    const stage = await show(ChecksStage);
    await flushPromises();
    expect(stage.text()).toContain('Nothing compared yet');
    await stage.get('[data-test=new-check]').trigger('click');
    await flushPromises();
    expect(stage.text()).toContain('It needs a name.');
    await stage.get('[data-test=check-name] input, input[data-test=check-name]').setValue('slab B3');
    await stage.get('form').trigger('submit');
    await flushPromises();
    expect(calls.find((c) => c.route === 'POST /checks/deviations')?.body).toMatchObject({
      name: 'slab B3',
      reference: 'design',
      design: 7,
      along: 'normal',
      number: null,
      ignore: null,
    });
  });

  it('compares anew under the same number', async () => {
    const { calls } = office(answers(), {}, points);
    const stage = await show(ChecksStage);
    await flushPromises();
    await stage.get('[data-test=change-check]').trigger('click');
    await flushPromises();
    expect(stage.get('[data-test=chosen]').text()).toBe('1 points with a height.');
    await stage.get('form').trigger('submit');
    await flushPromises();
    expect(calls.find((c) => c.route === 'POST /checks/deviations')?.body).toMatchObject({ number: 3, ignore: 0.3, codes: ['SLAB'] });
  });

  it('shows what changed since an earlier survey', async () => {
    const may = { ...deviation, number: 2, name: 'slab, May', output: 'y' };
    office(
      {
        ...answers(page({ deviations: [may, deviation] })),
        'GET /checks/deviations/2/points': measured,
        'GET /checks/deviations/2/since/3': { ...measured, d: [0.004, null, -0.001, null] },
      },
      {},
      points,
    );
    const stage = await show(ChecksStage);
    await flushPromises();
    expect(stage.get('[data-test=headline]').text()).toContain('66.7 % of slab, May');
    (stage.getComponent('[data-test=since]') as unknown as { vm: { $emit: (e: string, v: number) => void } }).vm.$emit(
      'update:modelValue',
      3,
    );
    await flushPromises();
    expect(stage.get('[data-test=headline]').text()).toBe('Since slab, 2031-05-04: +1.5 mm in the mean of 2 places, +4.0 at the most');
  });

  it('writes the report in the bands that are shown', async () => {
    const o = office(
      {
        ...answers(),
        'PUT /checks/deviations/3/bands': { seq: 9 },
        'POST /handover': { job: 'j' },
        'GET /handover': { offers: [], exports: [], archive: [], geoids: [] },
      },
      {},
      points,
    );
    const stage = await show(ChecksStage);
    await flushPromises();
    await stage.get('[data-test=limits] input, input[data-test=limits]').setValue('-30 30');
    await stage.get('[data-test=check-report]').trigger('click');
    await flushPromises();
    expect(o.bodies('PUT /checks/deviations/3/bands')[0]).toMatchObject({ limits: [-0.03, 0.03] });
    expect(o.bodies('POST /handover')).toEqual([{ kind: 'deviation-pdf', surfaces: [3] }]);
    expect(o.project.note?.text).toContain('archive of Hand-over');
  });
});

describe('check points', () => {
  const check = {
    number: 1,
    name: 'scan',
    compared: 'cloud',
    against: '900 points of s.las',
    pattern: '',
    surface: 0,
    cloud: 4,
    within: 0.1,
    radius: null,
    made: '',
    count: 3,
    used: 2,
    axes: [{ axis: 'h', count: 2, mean: 0.001, rms: 0.005, sd: 0.006, min: -0.004, max: 0.006 }],
    radial: null,
    horizontal: null,
    vertical: 0.0098,
    enough: 20,
    run: 1,
    output: 'x',
    at: '',
    author: 'A',
    stale: [],
  };
  const rows = [
    { name: 'C1', e: 0, n: 0, h: 1, by: '', de: null, dn: null, dh: 0.006 },
    { name: 'C2', e: 5, n: 0, h: 1, by: '', de: null, dn: null, dh: null },
  ];

  it('say the accuracy first, and where nothing was computed', async () => {
    office({ ...answers(page({ checks: [check], checkPoints: 3 })), 'GET /checks/points/1': { points: rows } }, {}, points);
    const stage = await show(ChecksStage);
    await flushPromises();
    await press(stage, 'Check points 3');
    expect(stage.get('[data-test=points-headline]').text()).toBe('scan: accurate to 9.8 mm in height at 95 %');
    expect(stage.text()).toContain('asks for 20 points or more');
    expect(stage.text()).toContain('held out of every adjustment');
    const scene = checkScene(rows, overview.units);
    expect(scene.notes.map((n) => [n.text, n.tone])).toEqual([
      ['+6.0', 'plain'],
      ['–', 'doubt'],
    ]);
    expect(checkHeadline({ ...check, horizontal: 0.02 }, overview.units)).toContain('20.0 mm in plan and 9.8 mm in height');
    expect(checkSentences({ ...check, radial: 0.02 })[2]).toContain('look at each');
  });

  it('are compared as the form says', async () => {
    const { calls } = office(
      {
        ...answers(page({ checks: [], checkPoints: 1, clouds: [{ id: 4, name: 's.las', points: 900 }] })),
        'POST /checks/points': { job: 'j' },
        'GET /checks/points/3': { points: rows },
      },
      {},
      [...points, point('C1', 2, 2, 1, { role: 'check' })],
    );
    const stage = await show(ChecksStage);
    await flushPromises();
    await press(stage, 'Check points 1');
    await stage.get('[data-test=new-points]').trigger('click');
    await flushPromises();
    expect(stage.get('[data-test=points-chosen]').text()).toContain('1 check points');
    await stage.get('[data-test=points-name] input, input[data-test=points-name]').setValue('rover');
    await stage.get('form').trigger('submit');
    await flushPromises();
    expect(calls.find((c) => c.route === 'POST /checks/points')?.body).toMatchObject({
      name: 'rover',
      against: 'point',
      within: 0.1,
      cloud: 4,
    });
  });
});

// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it } from 'vitest';
import type { SuspectView } from '../../api/types';
import { observationRow } from '../../../tests/network';
import { choose, office, press, show, type } from '../../../tests/office';
import ComponentsSheet from './ComponentsSheet.vue';
import EditFigures from './EditFigures.vue';
import SuspectSheet from './SuspectSheet.vue';
import SuspectSlip from './SuspectSlip.vue';
import { sideView } from './side';
import SideView from './SideView.vue';

afterEach(() => (document.body.innerHTML = ''));

const suspect = (over: Partial<SuspectView> = {}): SuspectView => ({
  cause: 'target-height',
  words: 'target height KT10 to KT06',
  quantity: 'length',
  estimate: 0.1994,
  sd: 0.002,
  statistic: -42.34,
  explains: 0.934,
  factorAfter: 1.08,
  suggests: '1.700 for 1.500',
  touched: [3],
  changes: [{ id: 3, field: 'ht', add: 0.2 }],
  station: null,
  rows: [{ id: 3, kind: 'zenith', component: null, at: 'KT10/1', to: 'KT06', before: 9.4, after: -0.6 }],
  moves: [],
  largestMove: null,
  largestMoveAt: null,
  ...over,
});

describe('suspects', () => {
  const props = { chosen: null, corrections: [], ready: true };

  it('are looked for when asked, and never with nothing adjusted', async () => {
    office();
    const sheet = await show(SuspectSheet, { ...props, found: null });
    await press(sheet, 'Look for suspects');
    expect(sheet.emitted('search')).toHaveLength(1);
    const unready = await show(SuspectSheet, { ...props, found: null, ready: false });
    expect(unready.get<HTMLButtonElement>('[data-test=search-suspects]').element.disabled).toBe(true);
  });

  it('are ranked with size, weight and share, and what the chosen one touches', async () => {
    office();
    const found = { suspects: [suspect(), suspect({ words: 'another', explains: 0.2 })], tried: 1234, varianceFactor: 9, passed: false };
    const correction = {
      id: 4,
      cause: 'typed',
      words: 'prism',
      reason: 'tag',
      author: 'Demo',
      createdAt: '2031-05-04T09:00:00Z',
      observations: [1],
    };
    const sheet = await show(SuspectSheet, { ...props, found, chosen: found.suspects[0], corrections: [correction] });
    const first = sheet.findAll('.body .row')[0]!.text();
    for (const part of ['1  target height KT10 to KT06', '+0.199 ± 0.002 m', '42.3', '93 %']) expect(first).toContain(part);
    expect(sheet.text()).toContain('1 234 causes tried');
    expect(sheet.get('.touches').text()).toMatch(/zenith.*KT10\/1.*9\.4.*→ \u22120\.6/);
    await sheet.findAll('.body .row')[1]!.trigger('click');
    expect(sheet.emitted('choose')!.at(-1)).toEqual([1]);
    expect(sheet.text()).toContain('prism');
  });

  it('say what would have been read, and are corrected or set aside with a reason', async () => {
    office();
    const slip = await show(SuspectSlip, { suspect: suspect(), source: 'rounds.csv line 31', touched: [] });
    expect(slip.text()).toContain('1.700 for 1.500');
    expect(slip.text()).toContain('variance factor is 1.08');
    await type(slip, '[aria-label=Reason]', 'field book says so');
    await press(slip, 'Correct and compare');
    expect(slip.emitted('accept')).toEqual([['field book says so']]);
    await press(slip, 'Set aside instead');
    expect(slip.emitted('aside')).toEqual([['field book says so']]);
  });

  it('that lie in a mark lead to it; those in no value offer no correction', async () => {
    office();
    const mark = await show(SuspectSlip, { suspect: suspect({ changes: [], station: 'KT04' }), source: '', touched: [] });
    expect(mark.find('[data-test=accept-suspect]').exists()).toBe(false);
    await press(mark, 'Show the mark');
    expect(mark.emitted('mark')).toEqual([['KT04']]);
    const none = await show(SuspectSlip, { suspect: suspect({ changes: [] }), source: '', touched: [] });
    expect(none.text()).toContain('It lies in no single value');
  });

  it('shows an angle in the form of the project', async () => {
    office({}, { units: { length: 'm', angle: 'gon', decimals: 3, heights: 3, angles: 1, small: 1, areas: 1 } });
    const slip = await show(SuspectSlip, {
      suspect: suspect({ quantity: 'angle', estimate: 0.9, suggests: 'x' }),
      source: '',
      touched: [observationRow({ observed: 45 })],
    });
    expect(slip.text()).toContain('51.00000 for 50.00000');
  });
});

describe('a height seen from the side', () => {
  const stations = [
    { name: 'A', e: 0, n: 0, h: 100 },
    { name: 'B', e: 300, n: 400, h: 110 },
  ] as never;
  const rows = [
    observationRow({ kind: 'slope-distance', at: 'A', to: 'B' }),
    observationRow({ kind: 'zenith', at: 'A', to: 'B', observed: 90, hi: 1.5, ht: 1.6 }),
  ];

  it('has the line of sight over the mark, with curvature and refraction', () => {
    const view = sideView(suspect(), rows, stations)!;
    expect([view.distance, view.changed]).toEqual([500, 'ht']);
    expect(view.becomes).toBeCloseTo(1.8, 9);
    // A level sight of 500 m: 0.87 · 500² / (2 · 6371 km) above the level surface of the instrument.
    expect(view.seen).toBeCloseTo(1.5 + 0.01707 - 10, 4);
  });

  it('is for heights alone, and only where both marks are known', () => {
    expect(sideView(suspect({ cause: 'distance' }), rows, stations)).toBeNull();
    expect(sideView(suspect(), rows, [])).toBeNull();
    expect(sideView(suspect({ changes: [] }), rows, stations)).toBeNull();
    expect(sideView(null, rows, stations)).toBeNull();
  });

  it('says what was written and what it would be', async () => {
    office();
    const drawn = await show(SideView, {
      view: sideView(suspect({ cause: 'instrument-height', changes: [{ id: 3, field: 'hi', add: -0.2 }] }), rows, stations),
    });
    expect(drawn.text()).toContain('written 1.500 m');
    expect(drawn.text()).toContain('with it 1.300 m');
    expect(drawn.text()).toContain('each above its mark; 500.000 m apart');
  });
});

describe('a figure put right by hand', () => {
  it('sends only what was changed, with its reason, and adjusts again', async () => {
    const job = { id: 'j', title: 'Adjust', state: 'done', outcome: null };
    const o = office({ 'POST /network/corrections': { seq: 1 }, 'POST /network/adjust': { job: 'j' }, 'GET /jobs/j': job });
    const form = await show(EditFigures, { row: observationRow({ id: 9, kind: 'zenith', observed: 90, hi: 1.5, ht: 1.6, set: '2' }) });
    expect(form.get<HTMLButtonElement>('[data-test=correct-figures]').element.disabled).toBe(true);
    await form.findAll('input')[2]!.setValue('1.7');
    await type(form, '[aria-label="Reason of the correction"]', 'misread');
    await form.get('form').trigger('submit');
    await flushPromises();
    const [sent] = o.bodies('POST /network/corrections') as { words: string; reason: string; changes: { field: string; add: number }[] }[];
    expect(sent!.words).toBe('zenith KT03/2 to KT07');
    expect(sent!.reason).toBe('misread');
    expect(sent!.changes.map((c) => [c.field, Number(c.add.toFixed(6))])).toEqual([['ht', 0.1]]);
    expect(form.emitted('done')).toHaveLength(1);
  });

  it('names another target', async () => {
    const o = office({
      'POST /network/corrections': { seq: 1 },
      'POST /network/adjust': { job: 'j' },
      'GET /jobs/j': { id: 'j', state: 'done' },
    });
    const form = await show(EditFigures, { row: observationRow({ id: 9 }) });
    await type(form, '[aria-label=Target]', ' KT08 ');
    await form.get('form').trigger('submit');
    await flushPromises();
    expect(o.bodies('POST /network/corrections')).toMatchObject([{ changes: [{ id: 9, field: 'to', to: 'KT08' }] }]);
  });
});

describe('precision of groups', () => {
  it('weighs one group by hand, and as its kind again with 1', async () => {
    const o = office({
      'PUT /network/settings': { seq: 1 },
      'POST /network/adjust': { job: 'j' },
      'GET /jobs/j': { id: 'j', state: 'done' },
    });
    const settings = { directionSd: 1.5, factors: { 'direction KT03/2': 2, vector: 3 } };
    const sheet = await show(ComponentsSheet, {
      settings,
      version: 'w1',
      ready: true,
      groups: ['direction', 'direction KT03/2', 'vector S1'],
    });
    await choose(sheet, '[aria-label=Group]', 'direction KT03/2');
    const times = sheet.findAll('form input').at(-1)!;
    expect((times.element as HTMLInputElement).value).toBe('2');
    await times.setValue('1,5');
    await sheet.get('form').trigger('submit');
    await flushPromises();
    expect(o.bodies('PUT /network/settings').at(-1)).toMatchObject({ factors: { 'direction KT03/2': 1.5, vector: 3 } });
    await times.setValue('1');
    await sheet.get('form').trigger('submit');
    await flushPromises();
    expect(o.bodies('PUT /network/settings').at(-1)).toMatchObject({ factors: { vector: 3 } });
  });

  it('shows the effect first and takes all factors by one button', async () => {
    const outcome = {
      components: [
        { group: 'direction', count: 50, redundancy: 30.2, present: 1, proposed: 1.43216 },
        { group: 'zenith', count: 3, redundancy: 1, present: 1, proposed: 1 },
      ],
      before: 1.94,
      after: 1.01,
      largestMove: 0.0031,
      largestMoveAt: 'KT06',
      flaggedBefore: 2,
      flaggedAfter: 0,
    };
    const o = office({
      'POST /network/components': { job: 'j' },
      'GET /jobs/j': { id: 'j', title: '', state: 'done', outcome },
      'PUT /network/settings': { seq: 1 },
      'POST /network/adjust': { job: 'j' },
    });
    const settings = { directionSd: 1.5, factors: { vector: 2 } };
    const sheet = await show(ComponentsSheet, { settings, version: 'w1', ready: true });
    expect(sheet.text()).toContain('In force: vector × 2.00');
    await press(sheet, 'Propose from the residuals');
    expect(sheet.text()).toContain('variance factor goes 1.94 → 1.01');
    expect(sheet.text()).toContain('find those first');
    expect(sheet.text()).toContain('untested');
    await press(sheet, 'Take these weights and compare');
    expect(o.bodies('PUT /network/settings')).toMatchObject([{ factors: { vector: 2, direction: 1.4322, zenith: 1 } }]);
    await press(sheet, 'Take the factors off');
    expect(o.bodies('PUT /network/settings').at(-1)).toMatchObject({ factors: {} });
  });
});

// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it } from 'vitest';
import type { PlanView } from '../../api/types';
import { office, point, press, show } from '../../../tests/office';
import { freeName, heightNear, planScene, renamed, toggled, without, type Plan } from './plan';
import PlanSheet from './PlanSheet.vue';
import { usePlan } from './usePlan';

afterEach(() => (document.body.innerHTML = ''));

const settings = { withMeasured: false, vectorPlan: 0.003, vectorHeight: 0.006, vectorPpm: 0.5, perKm: 0.001, wanted: 0.005 };
const sight = (from: string, to: string, kind = 'pointing', rounds = 2) => ({ from, to, kind, rounds });
const plan = (over: Partial<Plan> = {}): Plan => ({
  marks: [
    { name: 'P1', e: 10, n: 20, h: 5, held: false },
    { name: 'P2', e: 30, n: 20, h: 5, held: true },
  ],
  sights: [sight('P1', 'P2'), sight('A', 'P1', 'vector')],
  settings,
  ...over,
});
const station = { name: 'P1', e: 10, n: 20, h: 5, sdE: 0.002, sdN: 0.002, sdH: 0.004, semiMajor: 0.006, semiMinor: 0.004, bearing: 10 };
const view = (over: Partial<PlanView> = {}): PlanView => ({
  ...plan(),
  version: '3',
  stations: [{ ...station, planned: true }],
  worth: [
    { redundancy: 0.05, external: 0.012 },
    { redundancy: 0.6, external: null },
  ],
  redundancy: 2,
  confidence: 0.95,
  fault: null,
  ...over,
});

describe('a plan', () => {
  it('names a new mark after those there are, as high as the nearest', () => {
    expect(freeName(['P1', 'P3', 'A'])).toBe('P2');
    expect(
      heightNear(0, 0, [
        { e: 5, n: 0, h: 12.34 },
        { e: 1, n: 0, h: null },
        { e: 50, n: 0, h: 99 },
      ]),
    ).toBe(12.3);
  });

  it('takes a sight back that is laid again; a vector is the same from either end, a pointing is not', () => {
    expect(toggled([sight('A', 'B')], sight('A', 'B'))).toEqual([]);
    expect(toggled([sight('A', 'B')], sight('B', 'A'))).toHaveLength(2);
    expect(toggled([sight('A', 'B', 'vector')], sight('B', 'A', 'vector'))).toEqual([]);
    expect(toggled([sight('A', 'B', 'vector')], sight('A', 'B', 'levelled'))).toHaveLength(2);
  });

  it('keeps sights with their marks', () => {
    expect(without(plan(), 'P1')).toMatchObject({ marks: [{ name: 'P2' }], sights: [] });
    expect(renamed(plan(), 'P1', { ...plan().marks[0]!, name: 'Q' }).sights.map((s) => `${s.from}${s.to}`)).toEqual(['QP2', 'AQ']);
  });

  it('draws planned marks, their sights and ellipses; red where hardly anything checks', () => {
    const scene = planScene(plan(), view(), [point('A', 0, 0, 0)], null);
    expect(scene.points.map((p) => [p.name, p.role])).toContainEqual(['P1', 'planned']);
    expect(scene.points.map((p) => [p.name, p.role])).toContainEqual(['P2', 'held']);
    expect(scene.lines.map((l) => [l.style, l.tone])).toEqual([
      ['sight', 'bad'],
      ['vector', 'planned'],
    ]);
    expect(scene.ellipses).toHaveLength(1);
    expect(scene.caption).toContain('redundancy number below 0.1');
  });
});

describe('the page of the plan', () => {
  async function open(answers: Record<string, unknown> = {}) {
    const o = office({ 'GET /plan': view(), 'POST /plan/draft': view(), 'PUT /plan': { seq: 9 }, ...answers }, {}, [point('A', 0, 0, 7.5)]);
    const state = usePlan(() => null);
    const sheet = await show(PlanSheet, { state });
    return { o, state, sheet };
  }

  it('says which marks are beyond what is wanted and which sights nothing checks', async () => {
    const { sheet } = await open();
    expect(sheet.text()).toContain('1 planned mark beyond the ellipse wanted: P1');
    expect(sheet.text()).toContain('1 sight hardly checked');
    await sheet
      .findAll('label')
      .find((l) => l.text().startsWith('Sights'))!
      .get('input')
      .setValue(true);
    expect(sheet.findAll('.body .row').map((r) => r.text())[0]).toContain('hardly checked');
  });

  it('places a mark where the sketch is clicked, lays sights from mark to mark, and keeps the plan once it is asked to', async () => {
    const { o, state, sheet } = await open({ 'GET /plan': view({ marks: [], sights: [], stations: [], worth: [] }) });
    expect(sheet.text()).toContain('Lay sights from marks that are known');
    state.place(12.34, 56.78);
    await flushPromises();
    expect(state.plan.value!.marks).toEqual([{ name: 'P1', e: 12.3, n: 56.8, h: 7.5, held: false }]);
    state.mode.value = 'sights';
    state.place(1, 1);
    state.point('A');
    state.point('P1');
    await flushPromises();
    expect(state.plan.value!.sights).toEqual([sight('A', 'P1')]);
    state.point('A');
    expect(state.from.value).toBe('');
    expect(o.bodies('POST /plan/draft')).toHaveLength(2);
    await press(sheet, 'Keep the plan');
    expect(o.bodies('PUT /plan')).toEqual([
      { marks: [{ name: 'P1', e: 12.3, n: 56.8, h: 7.5, held: false }], sights: [sight('A', 'P1')], ...settings },
    ]);
    expect(o.calls.find((c) => c.route === 'PUT /plan')!.headers['If-Match']).toBe('"3"');
  });

  it('renames a mark with its sights, refuses a name twice, and takes it out', async () => {
    const { o, state, sheet } = await open();
    state.chosen.value = 'P1';
    await flushPromises();
    const name = sheet.get<HTMLInputElement>('[aria-label="Name of the mark"]');
    await name.setValue('P2');
    await name.trigger('change');
    expect(sheet.text()).toContain('P2 is planned already');
    await name.setValue('GATE');
    await name.trigger('change');
    await flushPromises();
    expect((o.bodies('POST /plan/draft').at(-1) as Plan).sights.map((s) => s.from)).toContain('GATE');
    await press(sheet, 'Remove');
    expect(state.plan.value!.marks.map((m) => m.name)).toEqual(['P2']);
  });

  it('says why a plan cannot be worked out', async () => {
    const { sheet } = await open({ 'GET /plan': view({ stations: [], worth: [], fault: 'P1 is not determined' }) });
    expect(sheet.text()).toContain('P1 is not determined');
    expect(sheet.findAll('.body .row')).toHaveLength(2);
  });
});

// @vitest-environment happy-dom
import { flushPromises, type VueWrapper } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { LevelBookView, LevelDraftView, LevelRunView } from '../../../api/types';
import { office, press, show } from '../../../../tests/office';
import LevelResults from './LevelResults.vue';
import LevelSheet from './LevelSheet.vue';

beforeEach(() => localStorage.clear());
afterEach(() => (document.body.innerHTML = ''));

const sight = (kind: string, point: string, reading: number | null, distance: number | null = 20) => ({ kind, point, reading, distance });
const run = (over: Partial<LevelRunView> = {}): LevelRunView => ({
  id: 4,
  version: 7,
  name: '1',
  pattern: 'BF',
  rows: [sight('back', 'BM1', 1.5), sight('fore', 'T1', 1.2)],
  ...over,
});
const section = { run: '1', from: 'BM1', to: 'BM2', setups: 2, length: 80, difference: 0.5, given: 0.5, unbalance: null };
const book = (over: Partial<LevelBookView> = {}): LevelBookView => ({
  settings: {
    k: 0.012,
    per: 'km',
    distribute: 'length',
    curvature: false,
    refraction: 0.13,
    repeatLimit: 0.0015,
    scalePpm: 0,
    expansion: 0,
    temperature: 20,
    referenceTemperature: 20,
  },
  version: '0',
  benchmarks: [],
  known: [],
  runs: [run()],
  fault: null,
  sections: [{ ...section, misclosure: 0.009, allowable: 0.0034, passed: false }],
  points: [{ id: 'T1', h: 100.3, adjusted: true, role: 'turning point', run: '1', again: [{ run: '2', h: 100.301, difference: 0.001 }] }],
  loops: [],
  network: [{ run: '1', from: 'BM1', to: 'BM2', value: 0.5, length: 80, setups: 2 }],
  warnings: [],
  perKm: 0.0021,
  perSetup: 0.0004,
  ...over,
});
const draft: LevelDraftView = {
  rows: [
    { setup: 1, h: null, horizon: 101.5, misclosure: null, repeat: null, isBeyond: false, unbalance: null, fault: null },
    { setup: 1, h: 100.3, horizon: null, misclosure: null, repeat: null, isBeyond: false, unbalance: 0, fault: null },
  ],
  backs: 1.5,
  fores: 1.2,
  setups: 1,
  length: 40,
};
const cell = (sheet: VueWrapper, row: number, field: number) => sheet.get<HTMLInputElement>(`[data-cell="${row}-${field}"] input`);
const typed = async (sheet: VueWrapper, row: number, field: number, text: string) => {
  await cell(sheet, row, field).setValue(text);
  await cell(sheet, row, field).trigger('keydown', { key: 'Enter' });
  await flushPromises();
};

describe('the sheet of levels', () => {
  it('opens the first run with its readings as they are written, sums and closures', async () => {
    office({ 'GET /levels': book(), 'POST /levels/draft': draft });
    const sheet = await show(LevelSheet);
    expect(cell(sheet, 0, 1).element.value).toBe('1.5000');
    expect(cell(sheet, 1, 0).element.value).toBe('T1');
    expect(sheet.text()).toContain('sum of backs1.5000');
    expect(sheet.text()).toContain('+9.0 of 3.4 mm');
    expect(sheet.get<HTMLButtonElement>('[data-test=keep-run]').text()).toContain('Kept');
  });

  it('is typed by Enter alone and kept with the version that was seen', async () => {
    const o = office({ 'GET /levels': book(), 'POST /levels/draft': draft, 'PUT /levels/runs': { seq: 3 } });
    const sheet = await show(LevelSheet);
    await cell(sheet, 1, 2).trigger('keydown', { key: 'Enter' });
    await flushPromises();
    expect(cell(sheet, 2, 0).element.value).toBe('T1');
    await typed(sheet, 2, 1, '1,4');
    await typed(sheet, 2, 2, '20');
    await typed(sheet, 3, 0, 'BM2');
    await typed(sheet, 3, 1, '0.9');
    await cell(sheet, 3, 2).trigger('keydown', { key: 'Enter', ctrlKey: true });
    await flushPromises();
    expect(o.bodies('PUT /levels/runs')).toEqual([
      {
        id: 4,
        name: '1',
        pattern: 'BF',
        rows: [...run().rows, sight('back', 'T1', 1.4), sight('fore', 'BM2', 0.9, null)],
      },
    ]);
    expect(o.calls.find((c) => c.route === 'PUT /levels/runs')!.headers['If-Match']).toBe('"7"');
  });

  it('names what is no number before it keeps anything, and finds what was typed again', async () => {
    const o = office({ 'GET /levels': book(), 'POST /levels/draft': draft });
    const sheet = await show(LevelSheet);
    await cell(sheet, 1, 1).setValue('1.2.3');
    await flushPromises();
    expect(sheet.text()).toContain('Sight 2 has something that is not a number');
    expect(sheet.get<HTMLButtonElement>('[data-test=keep-run]').element.disabled).toBe(true);
    await cell(sheet, 1, 2).trigger('keydown', { key: 'Enter', ctrlKey: true });
    expect(o.bodies('PUT /levels/runs')).toEqual([]);
    sheet.unmount();
    expect(cell(await show(LevelSheet), 1, 1).element.value).toBe('1.2.3');
  });

  it('takes a run out of the book', async () => {
    const o = office({ 'GET /levels': book(), 'POST /levels/draft': draft, 'DELETE /levels/runs/4': { seq: 3 } });
    const sheet = await show(LevelSheet);
    await press(sheet, 'Take it out');
    expect(o.calls.some((c) => c.route === 'DELETE /levels/runs/4')).toBe(true);
  });
});

describe('the results of levelling', () => {
  const radio = (sheet: VueWrapper, text: string) =>
    sheet
      .findAll('label')
      .find((l) => l.text() === text)!
      .get('input');

  it('say which sections fail and which points were reached again', async () => {
    office();
    const sheet = await show(LevelResults, { book: book() });
    expect(sheet.text()).toContain('▲ fails');
    expect(sheet.text()).toContain('+1.0 (2)');
  });

  it('go to the network raw, weighted by length', async () => {
    const o = office({ 'POST /levels/network': { seq: 2 } });
    const sheet = await show(LevelResults, { book: book() });
    await press(sheet, 'Hand 1 over');
    expect(o.bodies('POST /levels/network')).toEqual([{ as: 'raw', weight: 'length', sigma: 0.002 }]);
  });

  it('say why no weight by length can be had without sight lengths', async () => {
    office();
    const network = [{ run: '1', from: 'BM1', to: 'BM2', value: 0.5, length: null, setups: 2 }];
    const sheet = await show(LevelResults, { book: book({ network }) });
    expect(sheet.text()).toMatch(/sight length|lengths/);
    expect(radio(sheet, 'length').attributes('disabled')).toBeDefined();
  });
});

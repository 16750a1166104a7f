// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it } from 'vitest';
import type { BookSetupView, BookView, SetupPlacesView, TraverseView } from '../../api/types';
import { office, press, show } from '../../../tests/office';
import BookSheet from './BookSheet.vue';
import TraverseSheet from './TraverseSheet.vue';

afterEach(() => (document.body.innerHTML = ''));

const target = { target: 'T1', ht: 1.5, direction: 10.5, zenith: 89.25, slope: 120.125, horizontal: 120.115, faces: 'both', pointings: 4 };
const setup = (over: Partial<BookSetupView> = {}): BookSetupView => ({
  key: 'KT07|5',
  station: 'KT07',
  hi: 1.532,
  rounds: 2,
  collimation: 4.1 / 3600,
  index: -6.3 / 3600,
  sdDirection: 1 / 3600,
  sdZenith: null,
  spread: null,
  ppm: 1.25,
  targets: [{ ...target, heightDifference: 1.57, ellipsoid: 120.11, grid: 120.07 }],
  pointings: [
    {
      id: 7,
      round: 'S/1',
      face: 1,
      target: 'T1',
      ht: 1.5,
      direction: 10.5,
      zenith: 89.25,
      distance: 120.125,
      used: true,
      line: 9,
      corrected: false,
    },
    {
      id: 8,
      round: 'S/1',
      face: 2,
      target: 'T1',
      ht: 1.5,
      direction: 10.5,
      zenith: 89.25,
      distance: 120.125,
      used: true,
      line: 10,
      corrected: true,
    },
  ],
  warnings: [],
  fault: null,
  mode: 'pointings',
  precision: 'a-priori',
  temperature: null,
  pressure: null,
  humidity: null,
  prism: 0,
  recordedWeather: '',
  ...over,
});
const book = (setups: BookSetupView[]): BookView => ({ referenceRefractivity: null, wavelength: 0.658, version: 'v', setups });
const label = (sheet: Awaited<ReturnType<typeof show>>, text: string) =>
  sheet
    .findAll('label')
    .find((l) => l.text().startsWith(text))!
    .get('input')
    .setValue(true);

describe('the total-station book', () => {
  it('shows what was read beside what it is reduced to, down to the grid', async () => {
    office({ 'GET /book': book([setup()]) });
    const sheet = await show(BookSheet);
    expect(sheet.findAll('.body .row')[0]!.text()).toMatch(/KT07.*1.532.*4.1".*\u22126.3"/);
    expect(sheet.findAll('.body .row')[1]!.text()).toContain('120.0700');
    await label(sheet, 'As read');
    const read = sheet.findAll('.body .row').map((r) => r.text());
    expect(read[1]).not.toContain('✎');
    expect(read[2]).toContain('T1 ✎');
  });

  it('reduces the file of a set-up in one go', async () => {
    const o = office({ 'GET /book': book([setup()]), 'PUT /book': { seq: 2 } });
    const sheet = await show(BookSheet);
    await label(sheet, 'means');
    await press(sheet, 'Its file');
    expect(o.bodies('PUT /book')).toMatchObject([{ setup: 'KT07|5', mode: 'means', scope: 'file', prism: 0 }]);
  });

  it('reduces sights to the mark their target stood beside', async () => {
    const o = office({ 'GET /book': book([setup()]), 'POST /book/eccentric': { seq: 2 } });
    const sheet = await show(BookSheet);
    await label(sheet, 'As read');
    await sheet.findAll('.body .row')[1]!.trigger('click');
    expect(sheet.text()).toContain('1 sight: the target stood beside the mark');
    const send = sheet.get<HTMLButtonElement>('[data-test=centre]');
    expect(send.element.disabled).toBe(true);
    await sheet.findAll('.eccentric input')[0]!.setValue('0.35');
    await sheet.findAll('.eccentric input')[1]!.setValue('x');
    expect(send.element.disabled).toBe(true);
    await sheet.findAll('.eccentric input')[1]!.setValue('-0,2');
    await sheet.get('.eccentric').trigger('submit');
    await flushPromises();
    expect(o.bodies('POST /book/eccentric')).toEqual([{ pointings: [7], right: 0.35, onwards: -0.2, up: 0, reason: '' }]);
    expect(sheet.find('.eccentric').exists()).toBe(false);
  });

  it('places a set-up by resection and says when nothing checks it', async () => {
    const placed: SetupPlacesView = {
      station: 'KT07',
      resection: true,
      stationKnown: true,
      held: ['KT01', 'KT04'],
      offered: ['KT01', 'KT04', 'T1'],
      places: [{ name: 'KT07', e: 10, n: 20, h: 5, sdE: 0.002, sdN: 0.001, sdH: 0.003, offE: 0.004, offN: 0, offH: null }],
      checks: [{ target: 'KT01', across: 0.0021, along: -0.001, up: null, flagged: true }],
      redundancy: 0,
      varianceFactor: null,
      passed: null,
      fault: null,
    };
    const o = office({
      'GET /book': book([setup()]),
      'POST /book/places': (body: { resection: boolean }) =>
        body.resection ? placed : { ...placed, fault: 'nothing orients it', places: [] },
    });
    const sheet = await show(BookSheet);
    await label(sheet, 'Placed');
    await flushPromises();
    expect(sheet.text()).toContain('nothing orients it');
    await sheet.get('.placed input[type=checkbox]').setValue(true);
    await flushPromises();
    expect(o.bodies('POST /book/places').at(-1)).toEqual({ setup: 'KT07|5', resection: true, held: [] });
    expect(sheet.text()).toContain('Nothing checks this');
    expect(sheet.text()).toContain('+2.1');
    expect(sheet.text()).toContain('▲ look');
  });
});

describe('the traverse', () => {
  const station = (name: string, over = {}) => ({
    name,
    angle: 180,
    azimuth: 90,
    distance: 100,
    thereLessBack: 0.002,
    e: 10.004,
    n: 20,
    rigorousE: 10,
    rigorousN: 20.001,
    sdE: 0.001,
    sdN: 0.003,
    ...over,
  });
  const traverse = (over: Partial<TraverseView> = {}): TraverseView => ({
    back: 'A',
    stations: [station('B'), station('C')],
    fore: 'D',
    found: [{ back: 'A', stations: ['B', 'C'], fore: 'D' }],
    angularMisclosure: 30 / 3600,
    angularAllowed: 20 / 3600,
    misclosureE: 0.003,
    misclosureN: 0.004,
    linear: 0.005,
    linearAllowed: 0.01,
    length: 100,
    ratio: 20000,
    varianceFactor: 0.9,
    passed: true,
    fault: null,
    occupied: ['B', 'C'],
    ...over,
  });

  it('says its closures against what is allowed, and the compass rule beside least squares', async () => {
    office({ 'POST /traverse/draft': traverse() });
    const sheet = await show(TraverseSheet);
    expect(sheet.text()).toContain('▲ angles close to +30.0", allowed 20.0"');
    expect(sheet.text()).toContain('✓ position closes to 5.0 mm (east +3.0, north +4.0) in 100.000 m, 1 : 20000; allowed 10.0 mm');
    expect(sheet.findAll('.body .row')[0]!.text()).toMatch(/10\.000.*20\.001.*3\.0.*\+4\.0.*\u22121\.0/);
    expect(sheet.emitted('trace')!.at(-1)).toEqual([['A', 'B', 'C', 'D']]);
    await sheet.findAll('.body .row')[1]!.trigger('click');
    expect(sheet.emitted('point')!.at(-1)).toEqual(['C']);
  });

  it('asks again with what is allowed, and says when ends are open', async () => {
    const open = { fore: null, angularMisclosure: null, angularAllowed: null, misclosureE: null, misclosureN: null, linear: null };
    const flat = [station('B', { rigorousE: null, rigorousN: null, sdE: null, sdN: null })];
    const o = office({
      'POST /traverse/draft': traverse({ ...open, linearAllowed: null, varianceFactor: null, passed: null, stations: flat }),
    });
    const sheet = await show(TraverseSheet);
    expect(sheet.text()).toContain('angles are not closed');
    expect(sheet.text()).toContain('position is not closed');
    expect(sheet.text()).not.toContain('rule E');
    await sheet.findAll('.allowed input')[0]!.setValue('10');
    await sheet.get('.allowed').trigger('submit');
    await flushPromises();
    expect(o.bodies('POST /traverse/draft').at(-1)).toEqual({ back: 'A', stations: ['B'], fore: '', angular: 10, ratio: 10000 });
  });

  it('says what to do when no line is found, and why one cannot be closed', async () => {
    office({ 'POST /traverse/draft': traverse({ back: null, fore: null, stations: [], found: [] }) });
    expect((await show(TraverseSheet)).text()).toContain('No line of set-ups leads from control to control');
    office({ 'POST /traverse/draft': traverse({ fault: 'no set-up on B sights both A and C' }) });
    expect((await show(TraverseSheet)).text()).toContain('no set-up on B sights both A and C');
  });
});

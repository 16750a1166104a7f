// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { office, show } from '../../../tests/office';
import RemarkList from '../../frame/RemarkList.vue';
import CadPage from './CadPage.vue';
import { beginning, correctedCode, logged, missingIn, newAttribute, newType, placesNeeded, signOf } from './catalogue';
import GisPage from './GisPage.vue';
import { arranged, beyond, newWindow, paper, scaleText } from './sheets';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => {
  vi.useRealTimers();
  document.body.innerHTML = '';
});
/** What is asked a moment after the last change, and its answer. */
async function settled() {
  await vi.advanceTimersByTimeAsync(400);
  await flushPromises();
}

describe('sheets', () => {
  const sizes = [{ name: 'A3', width: 297, height: 420 }];
  it('lies across or upright', () => {
    expect(paper(sizes, 'A3', true)).toEqual({ width: 420, height: 297 });
    expect(paper(sizes, 'A3', false)).toEqual({ width: 297, height: 420 });
  });
  it('arranges windows side by side, clear of the title block', () => {
    const page = paper(sizes, 'A3', true);
    const two = arranged([newWindow(1), newWindow(2)], page, false);
    expect(two[1]!.x).toBeGreaterThan(two[0]!.x + two[0]!.width);
    expect(two[1]!.x + two[1]!.width).toBeLessThanOrEqual(page.width - 14.9);
    expect(two[0]!.y + two[0]!.height).toBeLessThan(page.height - 50);
    expect(arranged([newWindow(1)], page, true)[0]!.height).toBe(267);
    expect(beyond(two, page)).toBe('');
    expect(beyond([{ ...newWindow(1), x: 400 }], page)).toBe('Window 1 reaches beyond the paper.');
  });
  it('says scales', () => expect([scaleText(500), scaleText(2500.5)]).toEqual(['1 : 500', '1 : 2500.5']));
});

describe('the catalogue', () => {
  it('logs places at even distances over bends of the way', () => {
    const first = logged([0, 0], [7, 0], 5, 5);
    expect(first.at).toEqual([[5, 0]]);
    expect(first.left).toBeCloseTo(3, 12);
    const second = logged([7, 0], [7, 13], 5, first.left);
    expect(second.at.map(([e, n]) => [e, Math.round(n * 1e9) / 1e9])).toEqual([
      [7, 3],
      [7, 8],
      [7, 13],
    ]);
    expect(second.left).toBeCloseTo(5, 12);
    expect(logged([1, 1], [1, 1], 5, 2)).toEqual({ at: [], left: 2 });
  });

  it('draws a type as its symbol, its line or an area', () => {
    const svg = (over: object) => decodeURIComponent(signOf({ ...newType('A'), ...over }));
    expect(svg({ symbol: 'square' })).toContain('<rect');
    expect(svg({ kind: 'line', style: 'dashed' })).toContain('stroke-dasharray');
    expect(svg({ kind: 'area', colour: '#112233' })).toContain('fill="#112233"');
  });

  const type = {
    ...newType('HYDRANT'),
    attributes: [
      { ...newAttribute('bore'), kind: 'number', least: 50, most: 200, decimals: 0, number: 80, unit: 'mm', required: true },
      { ...newAttribute('day'), kind: 'date' },
      { ...newAttribute('hour'), kind: 'time', isFilled: false },
    ],
  };
  it('offers a code without blanks', () => expect([correctedCode(' MAN HOLE/2 '), correctedCode('KERB')]).toEqual(['MAN_HOLE_2', 'KERB']));
  it('begins with defaults, the day filled by itself', () =>
    expect(beginning(type, new Date(2031, 4, 4, 9, 5))).toEqual({ bore: '80', day: '2031-05-04', hour: '' }));
  it('says what is missing or out of range', () => {
    expect(missingIn(type, {})).toBe('bore is missing');
    expect(missingIn(type, { bore: '20' })).toBe('bore is outside 50 to 200 mm');
    expect(missingIn(type, { bore: 'x' })).toBe('bore is no number');
    expect(missingIn(type, { bore: '60' })).toBe('');
    expect([newType(), { ...newType(), kind: 'line' }, { ...newType(), kind: 'area' }].map(placesNeeded)).toEqual([1, 2, 3]);
  });
});

describe('the pages of sets', () => {
  const file = {
    id: 9,
    slot: 'export:cad:1',
    kind: 'cad',
    label: 'x',
    name: 'x.zip',
    size: 10,
    run: 1,
    createdAt: '2031-05-04T09:00:00Z',
    author: 'Demo',
    holds: true,
    checks: [],
    leftOut: [],
    stale: [],
  };
  it('shows every layer before, and maps it', async () => {
    const o = office({
      'GET /handover/cad': { sets: [], surfaces: [], roles: [], codes: [], layers: [], alignments: [], catalogues: [], colours: [] },
      'POST /handover/cad/layers': {
        layers: [{ name: 'KERB', from: 'KERB', colour: 7, style: 'solid', count: 2 }],
        points: 0,
        lines: 2,
        faces: 0,
      },
    });
    const page = await show(CadPage);
    await settled();
    expect(page.get('h1').text()).toBe('2 lines on 1 layer');
    const to = page.get('[aria-label="KERB becomes"]');
    await to.setValue('ROAD');
    await to.trigger('change');
    await settled();
    expect(o.bodies('POST /handover/cad/layers').at(-1)).toMatchObject({ mapping: [{ from: 'KERB', to: 'ROAD', colour: '', style: '' }] });
  });
  it('says how many points stay out, and why', async () => {
    const set = {
      id: 1,
      version: 2,
      name: 'fine',
      format: 'gpkg',
      roles: ['adjusted'],
      codes: [],
      plan: 0.02,
      up: null,
      unknown: false,
      layers: [],
      attributes: ['name'],
      system: '',
      files: [{ ...file, leftOut: ['3 points known worse than 0.020 m in plan'] }],
    };
    office({
      'GET /handover/gis': {
        sets: [set],
        formats: [{ key: 'gpkg', name: 'GeoPackage' }],
        attributes: ['name'],
        roles: [],
        codes: [],
        layers: [],
      },
      'POST /handover/gis/count': { points: 12, kept: 8, worse: 3, unknown: 1, lines: 5, areas: 0 },
      'GET /remarks/export%3Acad%3A1': [],
    });
    const page = await show(GisPage);
    await settled();
    expect(page.get('h1').text()).toBe('8 of 12 points go along; 3 are known worse, of 1 nobody knows, 5 lines');
    expect(page.text()).toContain('Left out: 3 points known worse than 0.020 m in plan.');
  });
});

describe('remarks', () => {
  const remark = {
    id: 1,
    about: 'surface:3',
    text: 'Is it?',
    author: 'Rita',
    at: '2031-05-04T09:00:00Z',
    answers: 0,
    checks: false,
    stands: false,
    why: '',
  };
  it('says whether a check stands, and takes a remark', async () => {
    vi.useRealTimers();
    const list = [remark, { ...remark, id: 2, text: '', checks: true, stands: false, why: 'run 2 is another' }];
    const o = office({ 'GET /remarks/surface%3A3': list, 'POST /remarks': { seq: 4 } });
    const box = await show(RemarkList, { about: 'surface:3' });
    await flushPromises();
    expect(box.text()).toContain('checked by Rita, but no more: run 2 is another');
    await box.get('[data-test=remarks]').trigger('click');
    await box.get('[aria-label=Remark]').setValue('It is.');
    await box.get('form').trigger('submit');
    await flushPromises();
    await box.get('[data-test=mark-checked]').trigger('click');
    await flushPromises();
    expect(o.bodies('POST /remarks')).toEqual([
      { about: 'surface:3', text: 'It is.', answers: 0, checks: false },
      { about: 'surface:3', text: '', answers: 0, checks: true },
    ]);
  });
});

// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { ExtractRequest, LocalizationRequest, ReferenceRequest } from '../../api/types';
import { office, point, press, Refusal, show, type } from '../../../tests/office';
import { detail, egm, fitted, moves, reference, way } from '../../../tests/reference';
import ChangeSheet from './ChangeSheet.vue';
import HeightsPage from './HeightsPage.vue';
import InversePage from './InversePage.vue';
import LocalizationPage from './LocalizationPage.vue';
import OwnSystemsPage from './OwnSystemsPage.vue';
import SystemPage from './SystemPage.vue';

afterEach(() => {
  vi.useRealTimers();
  document.body.innerHTML = '';
});

const hit = (ref: string, name: string, over = {}) => ({
  reference: ref,
  name,
  kind: 'projected',
  area: 'Europe: everywhere',
  why: 'covers all points',
  deprecated: false,
  recent: false,
  ...over,
});

describe('finding a system', () => {
  const answers = {
    'GET /reference/systems': (_b: never, q: URLSearchParams) =>
      q.get('q') === 'zz'
        ? []
        : q.get('q') === 'here'
          ? new Refusal(422, '/q: no points', [{ pointer: '/q', detail: 'the project has no points known globally yet' }])
          : [hit('EPSG:25830', 'ETRS89 / UTM zone 30N'), hit('EPSG:2600', 'Old grid', { deprecated: true, why: 'elsewhere' })],
    'GET /reference/system': detail('EPSG:2600', 'Old grid', { deprecated: true, successor: 'EPSG:3346', coversPoints: false }),
    'POST /reference/preview': moves(),
  };

  it('lists what covers the points, marks what is in use and what is deprecated', async () => {
    office(answers);
    const page = await show(SystemPage, { view: reference() });
    expect(page.findAll('.hit')).toHaveLength(2);
    expect(page.findAll('.hit')[0]!.text()).toContain('✓ in use');
    expect(page.findAll('.hit')[1]!.text()).toContain('deprecated');
    expect(page.text()).toContain('Registry: EPSG data set v10.076');
    expect(page.find('[data-test=change]').exists()).toBe(false);
  });

  it('says the parts of a chosen one, its successor, and that it lies elsewhere', async () => {
    office(answers);
    const page = await show(SystemPage, { view: reference() });
    await page.findAll('.hit')[1]!.trigger('click');
    await flushPromises();
    expect(page.text()).toContain('The registry names EPSG:3346 as its successor.');
    expect(page.text()).toContain('The project’s points lie outside its area of use.');
    expect(page.text()).toContain('34.00° N to 80.00° N, 6.00° W to 0.00° E');
    await press(page, 'all 2 ways');
    expect(page.findAll('.ways li')).toHaveLength(2);
    await press(page, 'Definition as text');
    expect(page.get('pre').text()).toBe('PROJCRS["x"]');
    await press(page, 'PROJ string');
    expect(page.get('pre').text()).toBe('+proj=utm');
    await press(page, 'Change to this system');
    expect(page.text()).toContain('Change to Old grid');
  });

  it('says when nothing is found, or when there is no here', async () => {
    vi.useFakeTimers();
    office(answers);
    const page = await show(SystemPage, { view: reference() });
    await type(page, '[data-test=system-search]', 'zz');
    await vi.advanceTimersByTimeAsync(300);
    expect(page.text()).toContain('No system is called “zz”');
    await type(page, '[data-test=system-search]', 'here');
    await vi.advanceTimersByTimeAsync(300);
    expect(page.text()).toContain('the project has no points known globally yet');
  });
});

describe('changing the system', () => {
  const props = { target: 'EPSG:25829', targetName: 'UTM zone 29N', view: reference() };

  it('shows before and after, then asks the server for the same change', async () => {
    const o = office({ 'POST /reference/preview': moves({ warnings: ['outside the area'] }), 'PUT /reference': { seq: 4 } });
    const sheet = await show(ChangeSheet, props);
    expect(sheet.get('[data-test=change-says]').text()).toContain(
      '1 point follows; 1 known only locally keep their numbers. Way: one, 1 m.',
    );
    expect(sheet.text()).toContain('outside the area');
    expect(sheet.findAll('.body .row')[0]!.text()).toBe('A493612.3456028050.500221.250882909.0576044104.547221.250');
    await press(sheet, 'Change');
    expect(o.bodies('PUT /reference')).toEqual([
      { reference: 'EPSG:25829', heights: 'ellipsoidal', geoid: '', operation: null, epoch: null },
    ]);
    expect(sheet.emitted('done')).toHaveLength(1);
  });

  it('does not change while a grid is missing, and takes the way that is chosen by hand', async () => {
    const ways = [way('best', { usable: false, missing: ['fine.gsb'], accuracy: 0.03 }), way('coarse', { accuracy: 2, epoch: 2010 })];
    const o = office({
      'POST /reference/preview': (b: ReferenceRequest) =>
        b.operation === 'coarse'
          ? moves({ operation: 'coarse', candidates: ways })
          : moves({ problem: 'needs the grid fine.gsb', rows: [], candidates: ways }),
    });
    const sheet = await show(ChangeSheet, props);
    expect(sheet.get('[data-test=change-problem]').text()).toBe('needs the grid fine.gsb');
    expect(sheet.get<HTMLButtonElement>('[data-test=confirm-change]').element.disabled).toBe(true);
    expect(sheet.findAll('.ways li')[0]!.text(), 'What can be used stands first.').toContain('coarse');
    expect(sheet.findAll('.ways li')[1]!.text()).toContain('needs fine.gsb, which is not installed');
    await sheet.get('.ways input:not([disabled])').trigger('change');
    await flushPromises();
    expect(sheet.get<HTMLButtonElement>('[data-test=confirm-change]').element.disabled).toBe(false);
    expect((o.bodies('POST /reference/preview').at(-1)! as ReferenceRequest).operation).toBe('coarse');
    expect(sheet.text()).toContain('epoch of the coordinates');
  });

  it('moves heights by a geoid', async () => {
    const lifted = moves({ rows: [{ ...moves().rows[0]!, newH: 168.33 }], localOnly: 0 });
    const o = office({ 'POST /reference/preview': (b: ReferenceRequest) => (b.heights === 'geoid' ? lifted : moves()) });
    const sheet = await show(ChangeSheet, { ...props, target: 'EPSG:25830' });
    await sheet.get('[data-test=change-heights]').setValue('geoid');
    await flushPromises();
    expect((o.bodies('POST /reference/preview').at(-1)! as ReferenceRequest).geoid).toBe('installed:egm96_15.gtx');
    expect(sheet.get('[data-test=change-says]').text()).toContain('Eastings and northings stay. Heights move by −52.920 to −52.920 m.');
  });

  it('tells a plane project that only a localization brings its points onto the grid', async () => {
    office({ 'POST /reference/preview': moves({ operation: 'no coordinates are computed', moved: 0 }) });
    const sheet = await show(ChangeSheet, { ...props, view: reference({ system: null }) });
    expect(sheet.text()).toContain('fit a localization instead');
  });

  it('lets a reader look and not change', async () => {
    office({ 'POST /reference/preview': moves() }, { mayChange: false });
    const sheet = await show(ChangeSheet, props);
    expect(sheet.get<HTMLButtonElement>('[data-test=confirm-change]').element.disabled).toBe(true);
  });
});

describe('own systems', () => {
  const tried = {
    name: 'x',
    datum: 'ETRS89',
    wkt: 'PROJCRS',
    proj: '',
    e: 493508.0476,
    n: 6028031.9486,
    backLat: 54.4,
    backLon: -3.1,
    convergence: -0.08,
    scale: 0.9996,
    problem: '',
  };

  it('tries a method with its parameters while they are typed', async () => {
    const o = office({ 'POST /reference/custom/try': tried });
    const page = await show(OwnSystemsPage, { view: reference() });
    const inputs = page.findAll('.grid input');
    await inputs[1]!.setValue('54');
    await inputs[2]!.setValue('3 W');
    await flushPromises();
    const body = o.bodies('POST /reference/custom/try').at(-1)! as { parameters: Record<string, number>; geodetic: string; method: number };
    expect(body).toMatchObject({ method: 9807, geodetic: 'EPSG:4258', parameters: { '8801': 54, '8802': -3, '8805': 1 } });
    expect(page.get('[data-test=own-tried]').text()).toContain('E 493508.0476 N 6028031.9486 m');
  });

  it('keeps one under a name, and not without', async () => {
    const o = office({ 'POST /reference/custom/try': tried, 'POST /reference/custom': { id: 5 } });
    const page = await show(OwnSystemsPage, { view: reference() });
    await press(page, 'From a text');
    await type(page, '[data-test=own-definition]', '+proj=utm +zone=30 +ellps=GRS80');
    expect(page.get<HTMLButtonElement>('[data-test=own-keep]').element.disabled).toBe(true);
    await type(page, '[data-test=own-name]', 'Site');
    await press(page, 'Keep with the project');
    expect(o.bodies('POST /reference/custom')[0]).toMatchObject({ name: 'Site', definition: '+proj=utm +zone=30 +ellps=GRS80' });
    expect(page.emitted('changed')).toHaveLength(1);
  });

  it('takes a definition from a file, and its name', async () => {
    const o = office({ 'POST /reference/custom/try': tried });
    const page = await show(OwnSystemsPage, { view: reference() });
    await press(page, 'From a text');
    const input = page.get<HTMLInputElement>('[data-test=own-file]');
    Object.defineProperty(input.element, 'files', { configurable: true, value: [new File(['PROJCRS["tarn"]\n'], 'tarn grid.wkt')] });
    await input.trigger('change');
    await flushPromises();
    expect(o.bodies('POST /reference/custom/try').at(-1)).toMatchObject({ name: 'tarn grid', definition: 'PROJCRS["tarn"]' });
    Object.defineProperty(input.element, 'files', { configurable: true, value: [new File(['x'.repeat(30000)], 'long.txt')] });
    await input.trigger('change');
    await flushPromises();
    expect(o.project.note?.text).toBe('long.txt is too long to be a definition (20 kB).');
  });

  it('says what is wrong with a definition', async () => {
    office({ 'POST /reference/custom/try': { ...tried, wkt: '', problem: '+proj=nothing is not a projection' } });
    const page = await show(OwnSystemsPage, { view: reference() });
    await press(page, 'From a text');
    await type(page, '[data-test=own-definition]', '+proj=nothing');
    expect(page.get('[data-test=own-problem]').text()).toBe('+proj=nothing is not a projection');
  });

  it('proposes a low-distortion system and draws its distortion', async () => {
    const samples = Array.from({ length: 81 }, (_, i) => ({ e: i, n: i, ppm: i - 40 }));
    const design = {
      method: 'Transverse Mercator',
      scale: 1.000036,
      originLat: 54.4,
      originLon: -3.1,
      min: -0.2,
      max: 0.3,
      mean: 0.1,
      otherMethod: 'Lambert',
      otherMin: -1,
      otherMax: 1,
      projectMin: -434,
      projectMax: -433,
      wkt: '',
      samples,
      id: null,
    };
    office({ 'POST /reference/custom/try': tried, 'POST /reference/design': design });
    const page = await show(OwnSystemsPage, { view: reference() });
    await press(page, 'Low distortion');
    expect(page.get('[data-test=design]').text()).toContain('−0.20 to 0.30 ppm');
    expect(page.get('[data-test=design]').text()).toContain('−434.0 to −433.0 ppm');
    const scene = page.emitted('scene')!.at(-1)![0] as { notes: { text: string; tone: string }[] };
    expect(scene.notes).toHaveLength(25);
    expect(new Set(scene.notes.map((n) => n.tone))).toEqual(new Set(['bad', 'doubt', 'good']));
  });

  it('scales to the ground about a mark', async () => {
    const o = office({ 'POST /reference/custom/try': tried, 'POST /reference/ground': { id: 2 } }, {}, [
      point('KT01', 1, 2, 3),
      point('P1', 1, 2, 3, { role: 'surveyed' }),
      point('L', 1, 2, 3, { known: 'local' }),
    ]);
    const page = await show(OwnSystemsPage, { view: reference() });
    await press(page, 'Scaled to the ground');
    expect(page.findAll('[data-test=own-point] option').map((x) => x.text())).toEqual(['choose', 'KT01']);
    await page.get('[data-test=own-point]').setValue('KT01');
    await type(page, '[data-test=own-name]', 'Ground');
    await press(page, 'Keep with the project');
    expect(o.bodies('POST /reference/ground')).toEqual([{ point: 'KT01', name: 'Ground' }]);
  });
});

describe('heights', () => {
  const plan = {
    name: 'egm96_15_x.gtx',
    bounds: [54, -4, 55, -3],
    stepLat: 0.25,
    stepLon: 0.25,
    rows: 5,
    columns: 5,
    gtxSize: 140,
    isgSize: 900,
    sameStep: true,
    ellipsoid: 'WGS 84',
    id: null,
    checked: null,
    largest: null,
    rms: null,
    note: '',
    outline: [
      [1, 2],
      [3, 4],
    ],
  };
  const answers = {
    'GET /reference/undulation': { n: 52.922, geoid: 'egm96_15.gtx' },
    'POST /reference/extract/plan': plan,
    'GET /reference/factors': [{ name: 'KT01', lat: 54.40025, lon: -3.10597 }],
  };

  it('shows N at the middle of the project, and at a point taken on the sketch', async () => {
    const o = office(answers);
    const page = await show(HeightsPage, { view: reference(), picked: '' });
    expect(page.get('[data-test=undulation]').text()).toContain('52.922 m');
    await page.setProps({ picked: 'KT01' } as never);
    await flushPromises();
    const query = o.calls.filter((c) => c.route === 'GET /reference/undulation').at(-1)!.query;
    expect([query.get('lat'), query.get('lon'), query.get('geoid')]).toEqual(['54.40025', '-3.10597', 'installed:egm96_15.gtx']);
  });

  it('plans an extract while its limits are typed, then makes it', async () => {
    const o = office({ ...answers, 'POST /reference/extract': { ...plan, id: 9, checked: 200, largest: 0.0004, rms: 0.0001 } });
    const page = await show(HeightsPage, { view: reference(), picked: '' });
    await press(page, 'Cut a piece of egm96_15.gtx');
    await type(page, '#x-north', '54 48');
    const asked = o.bodies('POST /reference/extract/plan').at(-1)! as ExtractRequest;
    expect(asked).toMatchObject({ geoid: 'installed:egm96_15.gtx', by: 'corners', north: 54.8, step: null, ellipsoid: 'global' });
    expect(page.get('[data-test=extract-plan]').text()).toContain(
      '5 × 5 nodes every 15′, those of the model; 140 B as GTX, 900 B as ISG text.',
    );
    expect(page.emitted('scene')!.at(-1)![0]).toEqual({ paths: [{ path: [1, 2, 3, 4], kind: 'limits' }] });
    await press(page, 'Make and check it');
    expect(page.get('[data-test=extract-made]').text()).toContain(
      'checked at 200 random places against its source: largest difference 0.4 mm',
    );
  });

  it('says what is wrong with the limits', async () => {
    office({
      ...answers,
      'POST /reference/extract/plan': new Refusal(422, '/south: no', [{ pointer: '/south', detail: 'south lies below north' }]),
    });
    const page = await show(HeightsPage, { view: reference(), picked: '' });
    await press(page, 'Cut a piece');
    expect(page.get('[data-test=extract-problem]').text()).toBe('south lies below north');
    expect(page.get<HTMLButtonElement>('[data-test=extract-make]').element.disabled).toBe(true);
  });

  it('offers a grid of the project for download, and says when one does not cover', async () => {
    office(answers);
    const own = {
      ...egm,
      reference: 'grid:4',
      id: 4,
      name: 'tarn.gtx',
      origin: 'extract',
      coversPoints: false,
      notes: ['checked at 200 places'],
    };
    const page = await show(HeightsPage, { view: reference({ grids: [egm, own], geoid: 'grid:4', heights: 'geoid' }), picked: '' });
    expect(page.findAll('[data-test=grid-downloads] a').map((a) => a.attributes('href'))).toEqual([
      '/api/projects/1/reference/grids/4.gtx',
      '/api/projects/1/reference/grids/4.isg',
    ]);
    expect(page.text()).toContain('checked at 200 places');
    expect(page.findAll('.body .row')[1]!.text()).toContain('no');
  });

  it('imports a grid and chooses it', async () => {
    const o = office({ ...answers, 'POST /reference/grids': { id: 7, seq: 3 } });
    const page = await show(HeightsPage, { view: reference(), picked: '' });
    const input = page.get<HTMLInputElement>('[data-test=grid-file]');
    Object.defineProperty(input.element, 'files', { value: [new File(['x'], 'n.gtx')] });
    await input.trigger('change');
    await flushPromises();
    expect(o.bodies('POST /reference/grids')[0]).toBeInstanceOf(FormData);
    expect(o.project.note?.text).toBe('Imported n.gtx.');
  });
});

describe('localization', () => {
  const marks = [point('KT01', 493120, 6028061, 236), point('KT03', 493377, 6028105, 228), point('KT04', 493212, 6028408, 244)];
  const lines = 'name,e,n,h\nKT01,1000,2000,86\nKT03,1250,2100,78\nKT04,1000,2300,94';

  async function page(over: Parameters<typeof fitted>[1] = {}, view = reference()) {
    const o = office(
      {
        'POST /reference/localizations/fit': (b: LocalizationRequest) =>
          fitted(
            b.pairs.map((p) => p.name),
            over,
          ),
        'POST /reference/localizations': { id: 3 },
        'POST /reference/localizations/3/apply': { seq: 9 },
      },
      {},
      marks,
    );
    const wrapper = await show(LocalizationPage, { view });
    return { o, wrapper };
  }

  it('pairs pasted site coordinates with the project’s marks and fits them', async () => {
    const { o, wrapper } = await page();
    expect(wrapper.text()).toContain('A pair is one mark known on both sides');
    await press(wrapper, 'Add pairs');
    await type(wrapper, '[data-test=paste]', `${lines}\nKT99,1,2,3`);
    await press(wrapper, 'Pair them by name');
    expect(wrapper.text()).toContain('line 5: the project has no point KT99 with coordinates');
    expect(wrapper.get<HTMLTextAreaElement>('[data-test=paste]').element.value, 'What is left to mend.').toBe('KT99,1,2,3');
    const body = o.bodies('POST /reference/localizations/fit').at(-1)! as LocalizationRequest;
    expect(body.pairs).toHaveLength(3);
    expect(body.pairs[0]).toMatchObject({ name: 'KT01', localE: 1000, gridE: 493120, gridH: 236, horizontal: true });
    expect(body).toMatchObject({ system: 'EPSG:25830', heights: 'ellipsoidal', vertical: 'shift', scale: null });
    expect(wrapper.get('[data-test=fit-sigma]').text()).toBe('σ 17.2 mm');
    const scene = wrapper.emitted('scene')!.at(-1)![0] as { shifts: unknown[]; paths: { kind: string }[] };
    expect(scene.shifts).toHaveLength(3);
    expect(scene.paths[0]!.kind).toBe('hull');
  });

  it('leaves a pair out, holds the scale, and tilts the heights', async () => {
    const { o, wrapper } = await page();
    await press(wrapper, 'Add pairs');
    await type(wrapper, '[data-test=paste]', lines);
    await press(wrapper, 'Pair them by name');
    await wrapper.get('[aria-label="KT03 fits in plan"]').setValue(false);
    await wrapper.get('[data-test=hold-scale]').setValue(true);
    await wrapper.get('[data-test=vertical]').setValue('plane');
    await flushPromises();
    const body = o.bodies('POST /reference/localizations/fit').at(-1)! as LocalizationRequest;
    expect([body.pairs[1]!.horizontal, body.pairs[1]!.vertical, body.scale, body.vertical]).toEqual([false, true, 1, 'plane']);
    expect(wrapper.get('[data-test=parameters]').text()).toContain('tilt 20.0 E, −10.0 N ppm');
  });

  it('names the suspected pair and the points beyond the hull', async () => {
    const { wrapper } = await page({
      suspect: { name: 'KT03', part: 'horizontal', sigma: 0.0174, sigmaWithout: 0.0021, off: [0.05, -0.0123] },
      outside: [{ name: 'SP14', distance: 84.2 }],
    });
    await press(wrapper, 'Add pairs');
    await type(wrapper, '[data-test=paste]', lines);
    await press(wrapper, 'Pair them by name');
    expect(wrapper.get('[data-test=suspect]').text()).toContain(
      '✕ KT03 does not fit the others: without it the others fit to 2.1 mm instead of 17.4 mm; its grid position lies 50.0 mm east and 12.3 mm south of where they put it.',
    );
    expect(wrapper.get('[data-test=outside]').text()).toContain('1 point lies beyond the pairs’ hull, SP14 farthest with 84.2 m');
  });

  it('says why pairs cannot be fitted', async () => {
    const o = office(
      {
        'POST /reference/localizations/fit': new Refusal(422, '/pairs: x', [
          { pointer: '/pairs', detail: 'the pairs fit far better mirrored' },
        ]),
      },
      {},
      marks,
    );
    const wrapper = await show(LocalizationPage, { view: reference() });
    await press(wrapper, 'Add pairs');
    await type(wrapper, '[data-test=paste]', lines);
    await press(wrapper, 'Pair them by name');
    expect(o.bodies('POST /reference/localizations/fit')).toHaveLength(1);
    expect(wrapper.get('[data-test=fit-problem]').text()).toBe('the pairs fit far better mirrored');
    expect(wrapper.get<HTMLButtonElement>('[data-test=localization-keep]').element.disabled).toBe(true);
  });

  it('keeps, lists and applies one', async () => {
    const { o, wrapper } = await page(
      {},
      reference({ localPoints: 14, localizations: [{ id: 3, name: 'Site', pairs: 8, system: 'EPSG:25830', vertical: 'none' }] }),
    );
    await press(wrapper, 'Add pairs');
    await type(wrapper, '[data-test=paste]', lines);
    await press(wrapper, 'Pair them by name');
    await type(wrapper, '[data-test=localization-name]', 'Again');
    await press(wrapper, 'Keep with the project');
    expect((o.bodies('POST /reference/localizations')[0]! as LocalizationRequest).name).toBe('Again');
    expect(wrapper.findAll('.kept a').map((a) => a.text())).toEqual(['JSON', 'WKT2']);
    await press(wrapper, 'apply to 14 points');
    expect(o.project.note?.text).toBe('Site is applied; undo takes it back.');
  });

  it('opens a kept one with what it held', async () => {
    const kept = {
      name: 'Site',
      grid: { system: 'EPSG:25830', heights: 'geoid|installed:egm96_15.gtx' },
      horizontal: { shift: { e: 1, n: 2 }, rotation: 3, scale: 0.5, held: ['scale'] },
      vertical: { model: 'plane' },
      pairs: [{ name: 'M', local: { e: 1, n: 2, h: null }, grid: { e: 3, n: 4, h: null }, use: { horizontal: true, vertical: false } }],
    };
    const o = office(
      {
        'GET /reference/localizations/3.json': kept,
        'POST /reference/localizations/fit': (b: LocalizationRequest) => fitted(b.pairs.map((p) => p.name)),
      },
      {},
      marks,
    );
    const wrapper = await show(LocalizationPage, {
      view: reference({ localizations: [{ id: 3, name: 'Site', pairs: 1, system: 'EPSG:25830', vertical: 'plane' }] }),
    });
    await press(wrapper, 'open');
    expect(o.bodies('POST /reference/localizations/fit').at(-1)).toMatchObject({
      scale: 0.5,
      rotation: null,
      vertical: 'plane',
      heights: 'geoid',
      geoid: 'installed:egm96_15.gtx',
      pairs: [{ name: 'M', vertical: false }],
    });
  });

  it('refuses a file that is no JSON without sending it', async () => {
    const { o, wrapper } = await page();
    const input = wrapper.get<HTMLInputElement>('[data-test=localization-file]');
    Object.defineProperty(input.element, 'files', { value: [new File(['PK'], 'site.zip')] });
    await input.trigger('change');
    await flushPromises();
    expect(o.project.note?.text).toContain('site.zip is not JSON');
    expect(o.calls.some((c) => c.route.endsWith('/import'))).toBe(false);
  });
});

describe('the inverse', () => {
  const marks = [point('KT01', 493120, 6028061, 236), point('KT09', 493607, 6028307, 228)];
  const view = {
    from: 'KT01',
    to: 'KT09',
    rows: [
      { label: 'grid distance', value: 546.2367, kind: 'length', source: 'UTM' },
      { label: 'ground distance', value: null, kind: 'length', source: 'a height is missing' },
      { label: 'grid bearing', value: 63.15394, kind: 'angle', source: 'grid north' },
      { label: 'grid less ground', value: -435.82, kind: 'ppm', source: 'combined less one' },
    ],
    ends: [{ label: 'latitude', from: 54.400258, to: 54.402481, kind: 'latitude', source: 'ETRS89' }],
  };

  it('shows every figure with its source, and draws the line', async () => {
    office({ 'GET /reference/inverse': view, 'GET /reference/factors': [] }, {}, marks);
    const page = await show(InversePage, { picked: '' });
    await type(page, '[data-test=inverse-from]', 'KT01');
    await type(page, '[data-test=inverse-to]', 'KT09');
    const text = page.get('[data-test=inverse]').text();
    for (const part of ['546.2367 m', '—', 'a height is missing', '63 09 14.2', '−435.82 ppm', '54° 24′ 00.9288″ N'])
      expect(text).toContain(part);
    expect((page.emitted('scene')!.at(-1)![0] as { lines: unknown[] }).lines).toHaveLength(1);
  });

  it('takes two points clicked one after the other, and begins again with the third', async () => {
    const o = office({ 'GET /reference/inverse': view, 'GET /reference/factors': [] }, {}, [...marks, point('KT05', 1, 2, 3)]);
    const page = await show(InversePage, { picked: '' });
    for (const name of ['KT01', 'KT09']) {
      await page.setProps({ picked: name } as never);
      await flushPromises();
    }
    expect(o.calls.filter((c) => c.route === 'GET /reference/inverse')).toHaveLength(1);
    await page.setProps({ picked: 'KT05' } as never);
    await flushPromises();
    expect(page.get<HTMLInputElement>('[data-test=inverse-from]').element.value).toBe('KT05');
    expect(page.get<HTMLInputElement>('[data-test=inverse-to]').element.value).toBe('');
  });

  it('says a name that is none, and why two points have no inverse', async () => {
    office(
      {
        'GET /reference/inverse': new Refusal(422, '/to: same', [{ pointer: '/to', detail: 'KT01 and KT01 are the same place' }]),
        'GET /reference/factors': [],
      },
      {},
      marks,
    );
    const page = await show(InversePage, { picked: '' });
    await type(page, '[data-test=inverse-from]', 'KT77');
    expect(page.text()).toContain('No point with coordinates is called “KT77”.');
    await type(page, '[data-test=inverse-from]', 'KT01');
    await type(page, '[data-test=inverse-to]', 'KT01');
    expect(page.get('[role=alert]').text()).toBe('KT01 and KT01 are the same place');
  });

  it('lists the factors of all points meanwhile', async () => {
    office(
      {
        'GET /reference/factors': [
          { name: 'KT01', lat: 54, lon: -3, convergence: -0.0862, scale: 0.99960054, combined: 0.99956356, n: 52.924 },
        ],
      },
      {},
      marks,
    );
    const page = await show(InversePage, { picked: '' });
    expect(page.get('.body .row').text()).toBe('KT01−0 05 10.30.999600540.99956356−436.452.924');
  });
});

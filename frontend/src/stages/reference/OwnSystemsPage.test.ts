// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it } from 'vitest';
import { choose, entries, give, office, point, press, show, type } from '../../../tests/office';
import { reference } from '../../../tests/reference';
import OwnSystemsPage from './OwnSystemsPage.vue';

afterEach(() => (document.body.innerHTML = ''));

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
    const inputs = page.findAll('.grid .el-input input');
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
    await give(page, '[data-test=own-file]', new File(['PROJCRS["tarn"]\n'], 'tarn grid.wkt'));
    expect(o.bodies('POST /reference/custom/try').at(-1)).toMatchObject({ name: 'tarn grid', definition: 'PROJCRS["tarn"]' });
    await give(page, '[data-test=own-file]', new File(['x'.repeat(30000)], 'long.txt'));
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
    expect(entries(page, '[data-test=own-point]')).toEqual(['KT01']);
    await choose(page, '[data-test=own-point]', 'KT01');
    await type(page, '[data-test=own-name]', 'Ground');
    await press(page, 'Keep with the project');
    expect(o.bodies('POST /reference/ground')).toEqual([{ point: 'KT01', name: 'Ground' }]);
  });
});

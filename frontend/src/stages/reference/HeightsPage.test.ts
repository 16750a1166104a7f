// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it } from 'vitest';
import type { ExtractRequest } from '../../api/types';
import { give, office, press, Refusal, show, type } from '../../../tests/office';
import { egm, reference } from '../../../tests/reference';
import HeightsPage from './HeightsPage.vue';

afterEach(() => (document.body.innerHTML = ''));

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
    await give(page, '[data-test=grid-file]', new File(['x'], 'n.gtx'));
    expect(o.bodies('POST /reference/grids')[0]).toBeInstanceOf(FormData);
    expect(o.project.note?.text).toBe('Imported n.gtx.');
  });
});

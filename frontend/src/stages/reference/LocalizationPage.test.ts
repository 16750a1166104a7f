// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it } from 'vitest';
import type { LocalizationRequest } from '../../api/types';
import { choose, give, office, point, press, Refusal, show, tick, type } from '../../../tests/office';
import { fitted, reference } from '../../../tests/reference';
import LocalizationPage from './LocalizationPage.vue';

afterEach(() => (document.body.innerHTML = ''));

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
    await tick(wrapper, '[aria-label="KT03 fits in plan"]', false);
    await tick(wrapper, '[data-test=hold-scale]');
    await choose(wrapper, '[data-test=vertical]', 'plane');
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
    await give(wrapper, '[data-test=localization-file]', new File(['PK'], 'site.zip'));
    expect(o.project.note?.text).toContain('site.zip is not JSON');
    expect(o.calls.some((c) => c.route.endsWith('/import'))).toBe(false);
  });
});

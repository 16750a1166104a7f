// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { ReferenceRequest } from '../../api/types';
import { choose, office, press, Refusal, show, type } from '../../../tests/office';
import { detail, moves, reference, way } from '../../../tests/reference';
import ChangeSheet from './ChangeSheet.vue';
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
    await page.get('input[value=proj]').setValue(true);
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
    await choose(sheet, '[data-test=change-heights]', 'geoid');
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

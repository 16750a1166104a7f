// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it } from 'vitest';
import { choose, given, office, point, Refusal, show } from '../../../tests/office';
import InversePage from './InversePage.vue';

afterEach(() => (document.body.innerHTML = ''));

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
    await choose(page, '[data-test=inverse-from]', 'KT01');
    await choose(page, '[data-test=inverse-to]', 'KT09');
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
    expect(given(page, '[data-test=inverse-from]').modelValue).toBe('KT05');
    expect(given(page, '[data-test=inverse-to]').modelValue).toBe('');
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
    await choose(page, '[data-test=inverse-from]', 'KT77');
    expect(page.text()).toContain('No point with coordinates is called “KT77”.');
    await choose(page, '[data-test=inverse-from]', 'KT01');
    await choose(page, '[data-test=inverse-to]', 'KT01');
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

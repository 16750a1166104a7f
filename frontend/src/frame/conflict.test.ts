// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { office, point, Refusal, show } from '../../tests/office';
import { differing, type Conflict } from '../api/conflict';
import ControlSheet from '../stages/network/ControlSheet.vue';
import ConflictSheet from './ConflictSheet.vue';

afterEach(() => {
  vi.unstubAllGlobals();
  document.body.innerHTML = '';
});

const text = (v: unknown) => String(v ?? '');
const fields = [
  { key: 'e', label: 'easting', text },
  { key: 'n', label: 'northing', text },
  { key: 'held', label: 'held', text },
];
const conflict: Conflict = {
  author: 'Ada',
  at: '2031-05-04T09:00:00Z',
  change: 'Changed control KT01',
  theirs: { e: 1, n: 20, held: 'enh' },
  version: '7',
};

describe('two who edit one thing', () => {
  it('see only what differs', () => {
    expect(differing(fields, conflict.theirs, { e: 1, n: 2, held: '' }).map((f) => f.key)).toEqual(['n', 'held']);
    expect(differing(fields, {}, { e: null })).toEqual([]);
  });

  it('see who changed what, both side by side, and take each from either', async () => {
    const sheet = await show(ConflictSheet, { what: 'KT01', conflict, fields, mine: { e: 1, n: 2, held: '' } });
    expect(sheet.text()).toContain('Ada');
    expect(sheet.text()).toContain('Changed control KT01');
    expect(
      sheet.findAll('tbody tr').map((r) =>
        r
          .findAll('td')
          .slice(0, 2)
          .map((d) => d.text()),
      ),
    ).toEqual([
      ['20', '2'],
      ['enh', 'none'],
    ]);
    await sheet.get('[data-test="save-mine"]').trigger('click');
    expect(sheet.emitted('save')![0]).toEqual([{ e: 1, n: 2, held: '' }, '7']);
    await sheet.findAll('tbody tr')[1]!.get('input[value="theirs"]').setValue();
    expect(sheet.get('[data-test="save-mine"]').text()).toBe('Save as taken');
    await sheet.get('[data-test="save-mine"]').trigger('click');
    expect(sheet.emitted('save')![1]).toEqual([{ e: 1, n: 2, held: 'enh' }, '7']);
    await sheet.get('[data-test="keep-theirs"]').trigger('click');
    expect(sheet.emitted('theirs')).toHaveLength(1);
  });

  it('are asked on the control sheet before one writes over the other', async () => {
    const mark = point('KT01', 100, 200, 30, { version: 4 });
    let first = true;
    const o = office(
      {
        'PUT /control': () => {
          if (!first) return { seq: 9 };
          first = false;
          return new Refusal(409, 'KT01 was changed.', [], {
            theirs: { point: 'KT01', e: 101, n: 200, h: 30, held: '' },
            version: '8',
            author: 'Ada',
          });
        },
      },
      {},
      [mark],
    );
    const sheet = await show(ControlSheet, { selected: new Set(['KT01']) });
    await sheet.get('input[aria-label="easting"]').setValue('100.5');
    await sheet.get('form.edit').trigger('submit');
    await flushPromises();
    expect(sheet.text()).toContain('KT01 was changed while you edited it');
    await sheet.get('[data-test="save-mine"]').trigger('click');
    await flushPromises();
    expect(o.calls.filter((c) => c.route === 'PUT /control').map((c) => c.headers['If-Match'])).toEqual(['"4"', '"8"']);
    expect((o.bodies('PUT /control')[1] as { e: number }).e).toBe(100.5);
    expect(sheet.text()).not.toContain('while you edited it');
  });

  it('keep what they are typing when the points are loaded again', async () => {
    const o = office({}, {}, [point('KT01', 100, 200, 30, { version: 4 })]);
    const sheet = await show(ControlSheet, { selected: new Set(['KT01']) });
    await sheet.get('input[aria-label="easting"]').setValue('100.5');
    o.project.points = [point('KT01', 999, 200, 30, { version: 8 })];
    await flushPromises();
    expect((sheet.get('input[aria-label="easting"]').element as HTMLInputElement).value).toBe('100.5');
    await sheet.get('form.edit').trigger('submit');
    await flushPromises();
    expect(o.calls.filter((c) => c.route === 'PUT /control').map((c) => c.headers['If-Match'])).toEqual(['"4"']);
  });
});

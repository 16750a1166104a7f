// @vitest-environment happy-dom
import { flushPromises, type VueWrapper } from '@vue/test-utils';
import { describe, expect, it, vi } from 'vitest';
import { office, show } from '../../tests/office';
import { useSession } from '../state/session';
import type { Column } from './columns';
import FiguresTable from './FiguresTable.vue';

interface Row {
  name: string;
  v: number | null;
}

const rows: Row[] = [
  { name: 'KT10', v: -4.5 },
  { name: 'KT2', v: 1.25 },
  { name: 'KT1', v: null },
  { name: 'peg', v: 3 },
];
const columns: Column<Row>[] = [
  { key: 'name', title: 'point', width: '1fr', value: (r) => r.name },
  {
    key: 'v',
    title: 'residual',
    unit: 'mm',
    width: '80px',
    align: 'right',
    mono: true,
    value: (r) => r.v,
    text: (r) => (r.v === null ? '' : r.v.toFixed(1)),
  },
];

async function table(over: Record<string, unknown> = {}): Promise<VueWrapper> {
  office();
  return show(FiguresTable as never, { columns, rows, rowKey: (r: Row) => r.name, selected: new Set(), label: 'points', ...over });
}
const names = (t: VueWrapper) => t.findAll('.body .row').map((r) => r.find('[role=gridcell]').text());
const click = async (t: VueWrapper, index: number, keys: Record<string, boolean> = {}) => {
  await t.findAll('.body .row')[index]!.trigger('click', keys);
  return t.emitted('select')?.at(-1)?.[0];
};

describe('the figures table', () => {
  it('sorts names as people count and figures by their value, largest first', async () => {
    const t = await table();
    await t.findAll('[role=columnheader]')[0]!.trigger('click');
    await flushPromises();
    expect(names(t)).toEqual(['KT1', 'KT2', 'KT10', 'peg']);
    await t.findAll('[role=columnheader]')[1]!.trigger('click');
    await flushPromises();
    expect(names(t).slice(0, 3)).toEqual(['peg', 'KT2', 'KT10']);
    expect(t.findAll('[role=columnheader]')[1]!.text()).toContain('▾');
    await t.findAll('[role=columnheader]')[1]!.trigger('click');
    await flushPromises();
    expect(names(t).at(-1)).toBe('peg');
  });

  it('filters by words, and by the size of a figure', async () => {
    const t = await table();
    await t.get('.filter input').setValue('kt');
    await flushPromises();
    expect(names(t)).toHaveLength(3);
    expect(t.text()).toContain('3 of 4');
    await t.get('.filter input').setValue('residual>2');
    await flushPromises();
    expect(names(t)).toEqual(['KT10', 'peg']);
    await t.get('.filter input').setValue('zzz');
    await flushPromises();
    expect(t.text()).toContain('No row holds “zzz”');
    await t.get('.none button').trigger('click');
    await flushPromises();
    expect(names(t)).toHaveLength(4);
  });

  it('selects one, adds one, or a range', async () => {
    const t = await table();
    expect(await click(t, 1)).toEqual(['KT2']);
    await t.setProps({ selected: new Set(['KT2']) } as never);
    expect(await click(t, 3, { ctrlKey: true })).toEqual(['KT2', 'peg']);
    expect(await click(t, 0, { shiftKey: true })).toEqual(['KT10', 'KT2', 'KT1', 'peg']);
    await t.setProps({ selected: new Set(['KT2', 'peg']) } as never);
    expect(await click(t, 3, { ctrlKey: true })).toEqual(['KT2']);
  });

  it('is walked with the keyboard', async () => {
    const t = await table();
    const grid = t.get('[role=grid]');
    await click(t, 0);
    await grid.trigger('keydown', { key: 'ArrowDown' });
    expect(t.emitted('select')?.at(-1)?.[0]).toEqual(['KT2']);
    await grid.trigger('keydown', { key: 'End' });
    expect(t.emitted('select')?.at(-1)?.[0]).toEqual(['peg']);
    await grid.trigger('keydown', { key: 'a', ctrlKey: true });
    expect(t.emitted('select')?.at(-1)?.[0]).toHaveLength(4);
    await grid.trigger('keydown', { key: 'Enter' });
    expect(t.emitted('open')?.at(-1)?.[0]).toEqual(rows[3]);
  });

  it('copies the chosen rows as text with their headings', async () => {
    const writeText = vi.fn(() => Promise.resolve());
    vi.stubGlobal('navigator', { ...navigator, clipboard: { writeText } });
    const t = await table({ selected: new Set(['KT10', 'KT1']) });
    await t.get('[role=grid]').trigger('keydown', { key: 'c', ctrlKey: true });
    expect(writeText).toHaveBeenCalledWith('point\tresidual mm\nKT10\t-4.5\nKT1\t');
  });

  it('leaves out a column this person does not want, and remembers it', async () => {
    const t = await table();
    const o = useSession();
    await o.prefer('table.points', { hidden: ['v'], widths: {} });
    await flushPromises();
    expect(t.findAll('[role=columnheader]').map((h) => h.text())).toEqual(['point']);
    expect(t.text()).toContain('columns 1 of 2');
    await o.prefer('table.points', { hidden: [], widths: { name: 300 } });
    await flushPromises();
    expect(t.get('.head').attributes('style')).toContain('300px');
  });

  it('draws only what is seen of ten thousand rows', async () => {
    const t = await table({ rows: Array.from({ length: 10000 }, (_, i) => ({ name: `P${i}`, v: i })) });
    expect(t.findAll('.body .row').length).toBeLessThan(60);
    expect(t.get('[role=grid]').attributes('aria-rowcount')).toBe('10001');
  });

  it('says what to do when it is empty', async () => {
    office();
    const t = await show({
      components: { FiguresTable },
      template: '<FiguresTable v-bind="p"><template #empty>Bring files in</template></FiguresTable>',
      setup: () => ({ p: { columns, rows: [], rowKey: (r: Row) => r.name, selected: new Set(), label: 'x' } }),
    } as never);
    expect(t.text()).toContain('Bring files in');
  });
});

import { describe, expect, it } from 'vitest';
import type { Column } from './columns';
import { arrange, layoutOf, needed } from './layout';

interface Row {
  n: number;
  says: string;
}
const figure: Column<Row> = { key: 'n', title: 'records', width: '50px', align: 'right', mono: true, value: (r) => r.n };
const words: Column<Row> = { key: 'says', title: 'verdict', width: 'minmax(60px, 1fr)', value: (r) => r.says };

describe('the widths of a table', () => {
  it('give the longest figure and the longest word of a heading their room', () => {
    expect(needed(figure, [{ n: 5, says: '' }])).toBeGreaterThanOrEqual(7 * 6);
    expect(needed(figure, [{ n: 200000000, says: '' }])).toBeGreaterThan(needed(figure, [{ n: 5, says: '' }]));
    expect(needed({ ...figure, title: 'standardized', width: '10px' }, [])).toBeGreaterThanOrEqual(12 * 6);
  });

  it('do not follow one endless text', () => {
    expect(needed(words, [{ n: 1, says: 'x'.repeat(4000) }])).toBe(340);
  });

  it('scroll sideways below what the columns need, and keep what was dragged', () => {
    const rows = [{ n: 5, says: 'worse than weighted' }];
    const free = arrange([figure, words], rows, layoutOf(undefined));
    const own = arrange([figure, words], rows, layoutOf({ widths: { says: 300 } }));
    expect(free.template).toMatch(/^\d+px minmax\(\d+px, 1fr\)$/);
    expect(own.template.endsWith(' 300px')).toBe(true);
    expect(own.least).toBeGreaterThan(free.least);
  });

  it('take what was kept though it is incomplete', () => {
    expect(layoutOf({ hidden: ['n'] })).toEqual({ hidden: ['n'], widths: {} });
    expect(layoutOf(null)).toEqual({ hidden: [], widths: {} });
  });
});

import type { Column } from './columns';

/** What a person chose for one table: columns left out, and widths in pixels where they were dragged. */
export interface Layout {
  hidden: string[];
  widths: Record<string, number>;
}

export const AS_MADE: Layout = { hidden: [], widths: {} };
const GAP = 8;
const MONO = 7.6;
const SANS = 6.1;
const WIDEST = 340;
/** So many rows are looked at, evenly spread, to see how wide a column's words are. */
const LOOKED_AT = 400;

export function layoutOf(kept: unknown): Layout {
  const given = (kept ?? {}) as Partial<Layout>;
  return { hidden: [...(given.hidden ?? [])], widths: { ...given.widths } };
}

export function textOf<Row>(c: Column<Row>, row: Row): string {
  return c.text ? c.text(row) : String(c.value(row) ?? '');
}

/** The pixels a column needs so that no word of its heading and no cell that was looked at is cut off. */
export function needed<Row>(c: Column<Row>, rows: readonly Row[]): number {
  const step = Math.max(1, Math.floor(rows.length / LOOKED_AT));
  let longest = 0;
  for (let i = 0; i < rows.length; i += step) longest = Math.max(longest, textOf(c, rows[i]!).length);
  const words = [...c.title.split(' '), c.unit ?? ''].map((w) => w.length);
  const heading = 6.2 * Math.max(...words) + 13;
  const made = Number(/(\d+)px/.exec(c.width)?.[1] ?? 40);
  return Math.min(WIDEST, Math.ceil(Math.max(made, heading, longest * (c.mono ? MONO : SANS) + 4)));
}

/** Grid columns and the width below which the table scrolls sideways. */
export function arrange<Row>(columns: Column<Row>[], rows: readonly Row[], layout: Layout): { template: string; least: number } {
  let least = 16 + GAP * Math.max(0, columns.length - 1);
  const parts = columns.map((c) => {
    const own = layout.widths[c.key];
    const px = own ?? needed(c, rows);
    least += px;
    if (own !== undefined) return `${own}px`;
    return c.width.includes('fr') ? `minmax(${px}px, 1fr)` : `${px}px`;
  });
  return { template: parts.join(' '), least };
}

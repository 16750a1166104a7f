/** A column of a figures table. `value` sorts and filters; `text` is what is shown and copied. */
export interface Column<Row> {
  key: string;
  title: string;
  unit?: string;
  width: string;
  align?: 'left' | 'right';
  mono?: boolean;
  hint?: string;
  value: (row: Row) => string | number | null | undefined;
  text?: (row: Row) => string;
  sortBy?: (row: Row) => string | number | null;
}

/** A column of figures: digits under digits. */
export function figures<Row>(
  key: string,
  title: string,
  width: number,
  value: (row: Row) => number | null,
  text?: (row: Row) => string,
  more: Pick<Column<Row>, 'unit' | 'hint' | 'sortBy'> = {},
): Column<Row> {
  return { key, title, width: `${width}px`, align: 'right', mono: true, value, ...(text ? { text } : {}), ...more };
}

/** A column of words. */
export function words<Row>(key: string, title: string, width: number, value: (row: Row) => string): Column<Row> {
  return { key, title, width: `${width}px`, value };
}

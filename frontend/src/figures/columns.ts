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

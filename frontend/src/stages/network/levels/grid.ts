/** The grid of a levelling book: rows as they are typed, setups as the pattern cuts them. */
export type Kind = 'back' | 'fore' | 'intermediate';
export type Pattern = 'BF' | 'BFFB' | 'BBFF';

export interface GridRow {
  kind: Kind;
  point: string;
  reading: string;
  distance: string;
}

const LETTERS: Record<string, Kind> = { B: 'back', F: 'fore' };

export function kindsOf(pattern: Pattern): Kind[] {
  return [...pattern].map((l) => LETTERS[l]!);
}

export const blank = (kind: Kind, point = ''): GridRow => ({ kind, point, reading: '', distance: '' });

/** Where each setup begins and ends (after its last row); an unfinished one at the end is one too. */
export function setups(pattern: Pattern, rows: GridRow[]): [number, number][] {
  const list: [number, number][] = [];
  let start = 0;
  let count = 0;
  rows.forEach((row, i) => {
    if (row.kind !== 'intermediate') count++;
    if (count === pattern.length) {
      list.push([start, i + 1]);
      start = i + 1;
      count = 0;
    }
  });
  if (start < rows.length) list.push([start, rows.length]);
  return list;
}

export function setupAt(pattern: Pattern, rows: GridRow[], index: number): number {
  return setups(pattern, rows).findIndex(([from, to]) => index >= from && index < to);
}

function pointOf(rows: GridRow[], kind: Kind): string {
  return rows.find((r) => r.kind === kind)?.point ?? '';
}

/** The row that is due after the last one, with the point it must be to where that is known. */
export function due(pattern: Pattern, rows: GridRow[]): GridRow {
  const kinds = kindsOf(pattern);
  const all = setups(pattern, rows);
  const last = all[all.length - 1];
  if (!last) return blank('back');
  const inSetup = rows.slice(last[0], last[1]);
  const main = inSetup.filter((r) => r.kind !== 'intermediate');
  if (main.length >= kinds.length) return blank('back', pointOf(inSetup, 'fore'));
  const kind = kinds[main.length]!;
  return blank(kind, pointOf(inSetup, kind));
}

/** A setup between two others takes over their chain: from where the one before ended; the next follows when its fore is named. */
export function insertSetup(pattern: Pattern, rows: GridRow[], index: number): GridRow[] {
  const all = setups(pattern, rows);
  const at = all[setupAt(pattern, rows, index)]?.[1] ?? rows.length;
  const before = all.find(([, to]) => to === at);
  const from = before ? pointOf(rows.slice(...before), 'fore') : '';
  const added = kindsOf(pattern).map((kind) => blank(kind, kind === 'back' ? from : ''));
  return [...rows.slice(0, at), ...added, ...rows.slice(at)];
}

export function removeSetup(pattern: Pattern, rows: GridRow[], index: number): GridRow[] {
  const range = setups(pattern, rows)[setupAt(pattern, rows, index)];
  return range ? [...rows.slice(0, range[0]), ...rows.slice(range[1])] : rows;
}

/** Changes places with the setup before (-1) or after (1). */
export function moveSetup(pattern: Pattern, rows: GridRow[], index: number, by: -1 | 1): [GridRow[], number] {
  const all = setups(pattern, rows);
  const k = setupAt(pattern, rows, index);
  const first = all[Math.min(k, k + by)];
  const second = all[Math.max(k, k + by)];
  if (k < 0 || !first || !second || first === second) return [rows, index];
  const moved = [...rows.slice(0, first[0]), ...rows.slice(...second), ...rows.slice(...first), ...rows.slice(second[1])];
  return [moved, by < 0 ? index - (first[1] - first[0]) : index + (second[1] - second[0])];
}

export function insertIntermediate(rows: GridRow[], index: number): GridRow[] {
  return [...rows.slice(0, index + 1), blank('intermediate'), ...rows.slice(index + 1)];
}

/** A point typed anew: its repeats in the setup follow, and the next setup's back sights when they were to the same place. */
export function namePoint(pattern: Pattern, rows: GridRow[], index: number, name: string): GridRow[] {
  const row = rows[index];
  if (!row) return rows;
  const out = rows.map((r) => ({ ...r }));
  out[index]!.point = name;
  if (row.kind === 'intermediate') return out;
  const all = setups(pattern, rows);
  const k = setupAt(pattern, rows, index);
  const [from, to] = all[k]!;
  for (let i = from; i < to; i++) {
    if (rows[i]!.kind === row.kind && (rows[i]!.point === row.point || rows[i]!.point === '')) out[i]!.point = name;
  }
  const next = all[k + 1];
  if (row.kind === 'fore' && next) {
    const back = pointOf(rows.slice(from, to), 'back');
    for (let i = next[0]; i < next[1]; i++) {
      const r = rows[i]!;
      if (r.kind === 'back' && (r.point === row.point || (row.point === '' && r.point === back))) out[i]!.point = name;
    }
  }
  return out;
}

/** A number as it is typed, with a point or a comma; null when there is none, NaN when it is not one. */
/** A distance, or the stadia hairs as upper/lower: a hundred times what they span. */
export function readDistance(text: string): number | null {
  const hairs = text.split('/');
  if (hairs.length !== 2) return readCell(text);
  const [upper, lower] = hairs.map(readCell);
  return upper == null || lower == null ? NaN : Math.round(1000 * 100 * Math.abs(upper - lower)) / 1000;
}

export function readCell(text: string): number | null {
  const plain = text.trim().replace(',', '.');
  if (plain === '') return null;
  return /^-?\d*\.?\d+$|^-?\d+\.$/.test(plain) ? Number(plain) : NaN;
}

import type { RowView } from '../../api/types';
import { atName, rowKey } from './columns';

/** More than the one value that was chosen: what belongs together when it is set aside. */
export interface Wider {
  text: string;
  keys: string[];
}

export function wider(row: RowView, rows: RowView[]): Wider[] {
  const found: Wider[] = [];
  const add = (text: string, same: (r: RowView) => boolean) => {
    const keys = rows.filter((r) => r.used === row.used && same(r)).map(rowKey);
    if (keys.length > 1 && !found.some((w) => w.keys.length === keys.length && w.keys.every((k, i) => k === keys[i])))
      found.push({ text: `${text} (${keys.length})`, keys });
  };
  if (row.kind === 'vector') {
    add(`the whole vector ${row.at} to ${row.to}`, (r) => r.id === row.id);
    if (row.set !== '') add(`session ${row.set}`, (r) => r.kind === 'vector' && r.set === row.set);
    return found;
  }
  if (row.fileId !== null && row.line !== null) {
    add('the whole pointing', (r) => r.fileId === row.fileId && r.line === row.line);
  }
  const inSetup = (r: RowView) => r.kind !== 'vector' && r.at === row.at && r.set === row.set;
  add(`${row.to} from ${atName(row)}`, (r) => inSetup(r) && r.to === row.to);
  if (row.round !== null) add(`round ${row.round} of ${atName(row)}`, (r) => inSetup(r) && r.round === row.round);
  add(`${row.kind.replace('-', ' ')}s of ${atName(row)}`, (r) => inSetup(r) && r.kind === row.kind);
  add(`setup ${atName(row)}`, inSetup);
  return found;
}

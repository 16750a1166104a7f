import type { FileView, PreviewView } from '../../api/types';

/** Where a waiting file stands: what it needs before it can be accepted. */
export type Standing = 'reading' | 'ready' | 'asks' | 'twin' | 'unreadable';

export function standingOf(preview: PreviewView | undefined): Standing {
  if (preview === undefined) return 'reading';
  if (preview.unreadable !== null) return 'unreadable';
  if (preview.twin !== '') return 'twin';
  return preview.acceptable && preview.leftOut === 0 ? 'ready' : 'asks';
}

const WORDS: [Standing, string][] = [
  ['ready', 'ready'],
  ['asks', 'with questions'],
  ['twin', 'here already'],
  ['unreadable', 'cannot be read'],
  ['reading', 'being read'],
];

/** "8 ready, 2 with questions" */
export function summary(standings: Standing[]): string {
  return WORDS.map(([key, words]) => {
    const n = standings.filter((s) => s === key).length;
    return n === 0 ? '' : `${n} ${words}`;
  })
    .filter(Boolean)
    .join(', ');
}

/** Marks before what observes them, so that the next file is read against what the one before it brought. */
const ORDER = ['control', 'points', 'vectors', 'total-station'];
export function inTurn(files: FileView[], previews: ReadonlyMap<number, PreviewView>): FileView[] {
  const place = (f: FileView) => ORDER.indexOf(previews.get(f.id)?.kind ?? '');
  return [...files].sort((a, b) => place(a) - place(b) || a.id - b.id);
}

/** Files of an operating system's own that come along with a folder. */
export function isFieldFile(file: File): boolean {
  return !file.name.startsWith('.') && !/(^|\/)(__MACOSX|\.[^/]+)\//.test(file.webkitRelativePath ?? '') && file.name !== 'Thumbs.db';
}

export const isZip = (file: File): boolean => /\.zip$/i.test(file.name);

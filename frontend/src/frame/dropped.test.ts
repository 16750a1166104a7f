import { describe, expect, it } from 'vitest';
import { droppedFiles } from './dropped';
import { isFieldFile, isZip, summary } from '../stages/intake/queue';

const file = (name: string) => new File(['x'], name);
const entry = (name: string) => ({ isFile: true, isDirectory: false, file: (done: (f: File) => void) => done(file(name)) });
function folder(portions: unknown[][]) {
  const left = [...portions];
  return {
    isFile: false,
    isDirectory: true,
    createReader: () => ({ readEntries: (done: (e: unknown[]) => void) => done(left.shift() ?? []) }),
  };
}
const drop = (entries: unknown[], files: File[] = []) =>
  ({ items: entries.map((e) => ({ webkitGetAsEntry: () => e })), files }) as unknown as DataTransfer;

describe('what is dropped', () => {
  it('is taken as it is when it holds no folder', async () => {
    expect(await droppedFiles(drop([entry('a.csv')], [file('a.csv')]))).toHaveLength(1);
    expect(await droppedFiles(null)).toEqual([]);
  });

  it('is followed into folders, which come in portions', async () => {
    const found = await droppedFiles(drop([entry('a.csv'), folder([[entry('b.csv')], [entry('c.csv'), folder([[entry('d.csv')]])]])]));
    expect(found.map((f) => f.name)).toEqual(['a.csv', 'b.csv', 'c.csv', 'd.csv']);
  });

  it('leaves out what an operating system put there', () => {
    expect(['a.csv', '.DS_Store', 'Thumbs.db'].map((n) => isFieldFile(file(n)))).toEqual([true, false, false]);
    expect([isZip(file('a.ZIP')), isZip(file('a.csv'))]).toEqual([true, false]);
  });

  it('is summed up in words', () => {
    expect(summary(['ready', 'asks', 'ready', 'twin', 'unreadable'])).toBe('2 ready, 1 with questions, 1 here already, 1 cannot be read');
  });
});

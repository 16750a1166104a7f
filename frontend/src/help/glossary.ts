import text from '../../../docs/glossary.md?raw';

/** Words and their meanings as the documentation has them: rows of its tables, split where two words share a row. */
export const GLOSSARY: ReadonlyMap<string, string> = new Map(
  text
    .split('\n')
    .map((line) => /^\|([^|]+)\|([^|]+)\|$/.exec(line.trim()))
    .filter((row) => row !== null && !/^\s*(word|-+)\s*$/.test(row[1]!))
    .flatMap((row) => row![1]!.split(' / ').map((word): [string, string] => [word.trim().toLowerCase(), row![2]!.trim()])),
);

import type { LocalizationRequest, PointView } from '../../api/types';

export type Pair = LocalizationRequest['pairs'][number];
export type Side = 'local' | 'grid';

export interface PastedPairs {
  pairs: Pair[];
  /** What could not be used, line by line, and those lines. */
  problems: string[];
  left: string[];
}

function numbers(cells: string[], metres: number): (number | null)[] {
  return cells.map((c) => {
    const value = Number(c.replace('\u2212', '-').replace(/^(-?\d+),(\d+)$/, '$1.$2'));
    return c !== '' && Number.isFinite(value) ? value * metres : null;
  });
}

function cells(line: string): string[] {
  const separator = line.includes('\t') ? '\t' : line.includes(';') ? ';' : line.includes(',') ? ',' : /\s+/;
  return line
    .trim()
    .split(separator)
    .map((c) => c.trim());
}

/**
 * Lines "name, easting, northing[, height]" of the side the project does not know, paired by name with its points; or lines
 * with both sides: "name, local easting, northing, height, grid easting, northing, height". `metres` is the length of the unit
 * they are typed in.
 */
export function pastePairs(text: string, side: Side, points: PointView[], metres = 1): PastedPairs {
  const byName = new Map(points.map((p) => [p.name.toLowerCase(), p]));
  const result: PastedPairs = { pairs: [], problems: [], left: [] };
  const refuse = (i: number, raw: string, reason: string) => {
    result.problems.push(`line ${i + 1}: ${reason}`);
    result.left.push(raw);
  };
  text.split(/\r\n|\n|\r/).forEach((raw, i) => {
    const line = raw.trim();
    if (line === '' || line.startsWith('#')) return;
    const [name = '', ...rest] = cells(line);
    const values = numbers(rest, metres);
    // A heading says nothing by itself.
    if (i === 0 && values.slice(0, 2).every((v) => v === null)) return;
    const base = { name, horizontal: true, vertical: true };
    if (rest.length >= 6) {
      const [localE, localN, localH, gridE, gridN, gridH] = values;
      if (localE == null || localN == null || gridE == null || gridN == null) {
        refuse(i, raw, `a coordinate of ${name} is not a number`);
        return;
      }
      result.pairs.push({ ...base, localE, localN, localH: localH ?? null, gridE, gridN, gridH: gridH ?? null });
      return;
    }
    const [e, n, h] = values;
    if (e == null || n == null || (rest.length > 2 && rest[2] !== '' && h == null)) {
      refuse(i, raw, `give name, easting, northing and height as numbers`);
      return;
    }
    const other = byName.get(name.toLowerCase());
    if (other?.e == null || other.n == null) {
      refuse(i, raw, `the project has no point ${name} with coordinates`);
      return;
    }
    const typed = { e, n, h: h ?? null };
    const known = { e: other.e, n: other.n, h: other.h };
    const [local, grid] = side === 'local' ? [typed, known] : [known, typed];
    result.pairs.push({ ...base, localE: local.e, localN: local.n, localH: local.h, gridE: grid.e, gridN: grid.n, gridH: grid.h });
  });
  return result;
}

/** Pairs by name, later ones in place of earlier ones. */
export function merged(before: Pair[], added: Pair[]): Pair[] {
  const byName = new Map(before.map((p) => [p.name, p]));
  for (const p of added) byName.set(p.name, p);
  return [...byName.values()];
}

import { describe, expect, it } from 'vitest';
import {
  blank,
  due,
  insertIntermediate,
  insertSetup,
  moveSetup,
  namePoint,
  readCell,
  readDistance,
  removeSetup,
  setups,
  type GridRow,
} from './grid';

const row = (kind: GridRow['kind'], point: string, reading = '1'): GridRow => ({ kind, point, reading, distance: '' });
const line = (...points: string[]): GridRow[] => points.slice(1).flatMap((p, i) => [row('back', points[i]!), row('fore', p)]);
const names = (rows: GridRow[]) => rows.map((r) => r.kind[0] + r.point).join(' ');

describe('the grid of a levelling book', () => {
  it('says which sight is due', () => {
    expect(due('BF', [])).toEqual(blank('back'));
    expect(due('BF', [row('back', 'A')])).toEqual(blank('fore'));
    expect(due('BF', line('A', 'B'))).toEqual(blank('back', 'B'));
    expect(due('BFFB', [row('back', 'A'), row('fore', 'B')])).toEqual(blank('fore', 'B'));
    expect(due('BFFB', [row('back', 'A'), row('fore', 'B'), row('intermediate', 'P'), row('fore', 'B')])).toEqual(blank('back', 'A'));
    expect(due('BBFF', [row('back', 'A')])).toEqual(blank('back', 'A'));
  });

  it('puts a missing setup in between without retyping', () => {
    let rows = insertSetup('BF', line('A', 'B', 'C'), 1);
    expect(names(rows)).toBe('bA fB bB f bB fC');
    rows = namePoint('BF', rows, 3, 'B2');
    expect(names(rows)).toBe('bA fB bB fB2 bB2 fC');
  });

  it('renames a turning point in both setups that meet on it, with its repeats', () => {
    expect(names(namePoint('BF', line('A', 'B', 'C'), 1, 'X'))).toBe('bA fX bX fC');
    const repeated = [row('back', 'A'), row('fore', 'B'), row('fore', 'B'), row('back', 'A')];
    expect(names(namePoint('BFFB', repeated, 1, 'X'))).toBe('bA fX fX bA');
    expect(names(namePoint('BF', insertIntermediate(line('A', 'B'), 0), 1, 'P'))).toBe('bA iP fB');
  });

  it('takes setups out and changes their places', () => {
    expect(names(removeSetup('BF', line('A', 'B', 'C'), 0))).toBe('bB fC');
    const [moved, at] = moveSetup('BF', line('A', 'B', 'C'), 3, -1);
    expect(names(moved)).toBe('bB fC bA fB');
    expect(at).toBe(1);
    expect(moveSetup('BF', moved, 0, -1)).toEqual([moved, 0]);
    expect(setups('BF', insertIntermediate(line('A', 'B', 'C'), 0))).toEqual([
      [0, 3],
      [3, 5],
    ]);
  });

  it('reads what is typed', () => {
    expect(readCell('1,2345')).toBe(1.2345);
    expect(readCell(' ')).toBe(null);
    expect(readCell('.5')).toBe(0.5);
    expect(readCell('1.2.3')).toBeNaN();
    expect(readDistance('24,5')).toBe(24.5);
    expect(readDistance('1.632/1.408')).toBe(22.4);
    expect(readDistance('1.632/')).toBeNaN();
    expect(readDistance('1.6/x')).toBeNaN();
    expect(readDistance('')).toBe(null);
  });
});

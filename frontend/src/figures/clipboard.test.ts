import { describe, expect, it } from 'vitest';
import { safeCell } from './clipboard';

describe('cells on the clipboard', () => {
  it.each([
    ['=HYPERLINK("http://x","y")', `'=HYPERLINK("http://x","y")`],
    ['+cmd|x', "'+cmd|x"],
    ['-2+3+A1', "'-2+3+A1"],
    ['@SUM(A1)', "'@SUM(A1)"],
    ['=1+1', "'=1+1"],
    ['-2+3', "'-2+3"],
  ])('%s cannot become a formula', (text, safe) => expect(safeCell(text)).toBe(safe));

  it.each(['-12.345', '+0.3', '−1.2', 'KT-01', '-3.2"', '-12° 30\u2032 05\u2033', '1.5e-7', ''])('%s stays as it is', (text) =>
    expect(safeCell(text)).toBe(text),
  );

  it('cannot break out of its cell', () => expect(safeCell('a\tb\r\n=c')).toBe('a b =c'));
});

import { describe, expect, it } from 'vitest';
import { readAngle, readNumber, sayAngle, sideHint } from './angles';

describe('a typed angle', () => {
  it.each([
    ['39 05', 'lat', 39 + 5 / 60],
    ['39.05', 'lat', 39.05],
    ['39,05', 'lat', 39.05],
    ['39 05 30', 'lat', 39 + 5 / 60 + 30 / 3600],
    ['39°05′30.5″', 'lat', 39 + 5 / 60 + 30.5 / 3600],
    ['39:05:30', 'angle', 39 + 5 / 60 + 30 / 3600],
    ['3 06 W', 'lon', -3.1],
    ['W 3 06', 'lon', -3.1],
    ['-3 06', 'lon', -3.1],
    ['\u22123.1', 'lon', -3.1],
    ['54.4s', 'lat', -54.4],
    ['3d06', 'lon', 3.1],
    ['0 30 W', 'lon', -0.5],
  ] as const)('%s as %s is %f', (text, kind, value) => {
    expect(readAngle(text, kind).value).toBeCloseTo(value, 12);
  });

  it('says how it was understood', () => {
    expect(readAngle('39 05', 'lat').said).toBe('degrees, minutes: 39° 05′ 00.00″ N = 39.083333°');
    expect(readAngle('39.05', 'lat').said).toBe('decimal degrees: 39° 03′ 00.00″ N');
  });

  it.each([
    ['39 75', 'lat', '75 minutes are not below 60'],
    ['39 05 60', 'lat', '60 seconds are not below 60'],
    ['39.5 05', 'lat', 'only the last part'],
    ['91', 'lat', 'between −90 and 90'],
    ['-3 W', 'lon', 'both a minus and W'],
    ['3 E', 'lat', 'not a side of latitude'],
    ['north', 'lat', 'type decimal degrees'],
    ['1 2 3 4', 'lon', 'type decimal degrees'],
    ['3 W', 'angle', 'no side'],
  ] as const)('%s as %s is refused', (text, kind, reason) => {
    const reading = readAngle(text, kind);
    expect(reading.value).toBeNull();
    expect(reading.problem).toContain(reason);
  });

  it('rounds over a full minute', () => {
    expect(sayAngle(54.4, 'lat', 0)).toBe('54° 24′ 00″ N');
    expect(sayAngle(10.9999999999, 'lon')).toBe('11° 00′ 00.00″ E');
  });
});

describe('the side', () => {
  const extent = [54.3, -3.2, 54.5, -3.0];
  it('is doubted when the other lands at the project', () => {
    const hint = sideHint(3.1, 'lon', extent);
    expect(hint?.instead).toBe(-3.1);
    expect(hint?.text).toContain('with W it lies at the project');
    expect(sideHint(-54.4, 'lat', extent)?.instead).toBe(54.4);
  });
  it('is not doubted near the project, nor without one', () => {
    expect(sideHint(-3.1, 'lon', extent)).toBeNull();
    expect(sideHint(3.1, 'lon', null)).toBeNull();
  });
  it('says far when neither side is near', () => {
    expect(sideHint(120, 'lon', extent)).toEqual({ text: 'This lies 123° from the project.', instead: null });
  });
});

describe('a typed number', () => {
  it('is shown in groups', () => {
    expect(readNumber('6028050.5', 'm').said).toBe('6\u2009028\u2009050.5 m');
    expect(readNumber('493 612,345', 'm').value).toBe(493612.345);
    expect(readNumber('-1234', '').said).toBe('\u22121\u2009234');
  });
  it('is refused when it is none', () => {
    expect(readNumber('12a', 'm').problem).toBe('is not a number');
    expect(readNumber('1,234,567.8', 'm').problem).toContain('leave the commas');
    expect(readNumber('', 'm').problem).toBe('');
  });
});

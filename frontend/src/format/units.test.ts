import { describe, expect, it } from 'vitest';
import { angle, group, height, length, residual, small, smallAngle, volume } from './units';

const metric = { length: 'm', angle: 'dms', decimals: 3, heights: 3, angles: 1, small: 1, areas: 1 };

describe('units', () => {
  it('carries seconds into minutes and degrees', () => {
    expect(angle(59 + 59 / 60 + 59.97 / 3600, metric)).toBe('60 00 00.0');
    expect(angle(-0.5, metric)).toBe('\u22120 30 00.0');
    expect(angle(100, { ...metric, angle: 'gon' })).toBe('111.11111');
  });

  it('converts the international and the US survey foot by definition', () => {
    expect(length(0.3048, { ...metric, length: 'ft' })).toBe('1.000');
    expect(length(1200, { ...metric, length: 'ftUS' })).toBe('3937.000');
  });

  it('shows small things in small units', () => {
    expect(small(0.0123, metric, true)).toBe('+12.3');
    expect(smallAngle(-9.8 / 3600, metric, true)).toBe('\u22129.8"');
    expect(residual('vector', -0.0088, metric)).toBe('\u22128.8 mm');
  });

  it('groups thousands', () => {
    expect(group('1234567.5')).toBe('1\u2009234\u2009567.5');
    expect(volume(21353.31, metric)).toBe('21\u2009353.3 m³');
  });

  it('gives each quantity its own decimals, and never fewer than none', () => {
    const own = { ...metric, decimals: 0, heights: 2, angles: 2, small: 0, areas: 3 };
    expect([length(1234.56, own), length(1234.56, own, -1), height(12.345, own)]).toEqual(['1235', '1235', '12.35']);
    expect(angle(45.5125, own)).toBe('45 30 45.00');
    expect(angle(45.5125, { ...own, angles: 0 })).toBe('45 30 45');
    expect(angle(45.5125, { ...own, angle: 'gon', angles: 0 })).toBe('50.5694');
    expect([small(0.0123, own), small(0.0123, { ...own, length: 'ft' })]).toEqual(['12', '0.040']);
    expect(volume(21353.3125, own)).toBe('21\u2009353.313 m³');
  });

  it('rounds seconds over into minutes', () => {
    expect(angle(10.99999, metric)).toBe('11 00 00.0');
  });
});

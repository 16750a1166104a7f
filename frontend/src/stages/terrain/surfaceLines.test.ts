import { describe, expect, it } from 'vitest';
import type { LineView, PointView } from '../../api/types';
import { codeLine, readLines } from './surfaceLines';

const line = (over: Partial<LineView>): LineView => ({
  role: 'breakline',
  name: 'crest',
  points: ['P1', 'P2', 'P3'],
  vertices: [],
  ...over,
});

describe('lines of a surface in its form', () => {
  it('loses nothing it cannot show', () => {
    const byNames = line({ name: 'by names' });
    const hole = line({
      role: 'void',
      name: 'pond',
      points: [],
      vertices: [
        [0, 0],
        [1, 0],
        [1, 1],
      ],
    });
    const ring = line({
      role: 'boundary',
      name: 'limit',
      points: [],
      vertices: [
        [0, 0],
        [9, 0],
        [9, 9],
      ],
    });
    const second = line({
      role: 'boundary',
      name: 'island',
      points: [],
      vertices: [
        [20, 0],
        [29, 0],
        [29, 9],
      ],
    });
    const form = readLines([line({}), byNames, hole, ring, second], ['', 'CREST', 'pillar']);
    expect(form.codes).toEqual(['CREST']);
    expect(form.others).toEqual([byNames, hole, ring, second]);
  });

  it('knows codes whatever their case and whether their line was closed', () => {
    expect(readLines([line({ name: 'pillar' })], ['pillar'])).toMatchObject({ codes: ['pillar'], closed: false });
    expect(readLines([line({ points: ['P1', 'P2', 'P3', 'P1'] })], ['CREST']).closed).toBe(true);
    expect(readLines([], ['CREST'])).toEqual({ codes: [], closed: true, others: [] });
  });

  it('follows the points of a code in order, those with heights only', () => {
    const points = [
      { name: 'P1', code: 'TOE', h: 1 },
      { name: 'P2', code: 'TOE', h: null },
      { name: 'P3', code: 'CREST', h: 1 },
      { name: 'P4', code: 'TOE', h: 1 },
      { name: 'P5', code: 'TOE', h: 1 },
    ] as PointView[];
    expect(codeLine('TOE', true, points).points).toEqual(['P1', 'P4', 'P5', 'P1']);
    expect(codeLine('TOE', false, points)).toEqual({ role: 'breakline', name: 'toe', points: ['P1', 'P4', 'P5'], vertices: [] });
  });
});

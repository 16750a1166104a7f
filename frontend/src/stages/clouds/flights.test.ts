// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import type { FlightView, MissionView } from '../../api/types';
import { overview } from '../../../tests/office';
import { coverSentences, flightHeadline, flightScene, flightSentences, knownColumns, marked } from './flights';

const units = overview.units;
const flight = (over: Partial<FlightView> = {}): FlightView => ({
  number: 1,
  name: 'field',
  of: 'field, May',
  mission: 3,
  images: 15,
  joined: 15,
  alone: [],
  points: 470,
  rays: 3031,
  left: 71,
  sigma0: 0.54,
  freeSigma0: 0.53,
  control: 5,
  isHeld: true,
  checks: 4,
  rms: [0.032, 0.145],
  pixel: 0.149,
  swapped: [],
  converged: true,
  marks: [],
  run: 1,
  output: 'abc',
  at: '2031-05-04T09:00:00Z',
  author: 'Demo Surveyor',
  stale: [],
  ...over,
});
const mission: MissionView = {
  id: 3,
  name: 'field, May',
  isGroup: false,
  width: 480,
  height: 360,
  above: 60,
  isOriented: false,
  missing: 2,
  pixel: 0.15,
  area: 1200,
  threefold: 0.63,
  forward: 0.71,
  images: [
    {
      file: 'a.jpg',
      photo: 4,
      e: 1,
      n: 2,
      h: 60,
      footprint: [
        { 0: 0, 1: 0 },
        { 0: 9, 1: 0 },
        { 0: 9, 1: 9 },
      ],
    },
    { file: 'b.jpg', photo: null, e: 3, n: 4, h: 60, footprint: [] },
  ],
  cover: { e: [1, 2, 3, 4], n: [1, 2, 3, 4], count: [1, 2, 5, 9], size: 1 },
};

describe('a photo flight', () => {
  it('says first what is wrong with it, else what check points say', () => {
    expect(flightHeadline(flight(), units)).toEqual({
      words: 'Check points agree to 32.0 mm in plan, 145.0 in height',
      tone: 'holds',
    });
    expect(flightHeadline(flight({ rms: [0.4, 0.1] }), units).tone).toBe('doubt');
    expect(flightHeadline(flight({ isHeld: false, rms: null }), units).words).toContain('control is not marked');
    expect(flightHeadline(flight({ converged: false }), units).tone).toBe('fails');
    expect(flightHeadline(flight({ rms: null }), units).words).toContain('no check point');
    expect(flightHeadline(flight({ alone: ['x.jpg'] }), units)).toEqual({ words: '1 of 15 images do not join the others', tone: 'fails' });
    expect(flightHeadline(flight({ swapped: [{ 0: 'A', 1: 'B' }] }), units).words).toBe("The marks of A and B are each other's");
    expect(flightSentences(flight(), units)).toContain(
      'Rays agree to 0.27 pixels (0.27 before control); 71 that contradicted the others are left out.',
    );
    expect(flightSentences(flight({ isHeld: false, control: 2, left: 0 }), units)).toContain('2 of three control points are marked.');
  });

  it('says what its images show, and what is missing', () => {
    const words = coverSentences(mission, units);
    expect(words).toContain('63 % of it three times or more; the next image shows 71 % of each');
    expect(words).toContain('2 of its images have not come in.');
  });

  it('draws how often the ground is shown, and the image that is chosen', () => {
    const scene = flightScene(mission, [{ name: 'K', role: 'check', e: 1, n: 1, h: 1 }], new Set(['a.jpg', 'b.jpg']));
    expect(scene.cells!.band).toEqual([0, 1, 2, 3]);
    expect(scene.paths.map((p) => p.kind)).toEqual(['track', 'boundary']);
    expect(scene.paths[1]!.path).toEqual([0, 0, 9, 0, 9, 9, 0, 0]);
    expect(scene.points[0]!.role).toBe('check');
    expect(flightScene(null, [], new Set()).paths).toEqual([]);
  });

  it('keeps one mark of a point in an image', () => {
    const one = marked([], 'A', 'a.jpg', { x: 10.123, y: 20 });
    expect(one).toEqual([{ point: 'A', image: 'a.jpg', x: 10.12, y: 20 }]);
    const moved = marked(marked(one, 'B', 'a.jpg', { x: 1, y: 1 }), 'A', 'a.jpg', { x: 11, y: 21 });
    expect(moved.map((m) => m.point)).toEqual(['B', 'A']);
    expect(marked(moved, 'A', 'a.jpg', null)).toHaveLength(1);
  });

  it('shows what points are off before and with control', () => {
    const columns = knownColumns(units);
    const row = { id: 'P', role: 'check', rays: 3, off: [0.01, -0.02, 0.03] as [number, number, number], before: null, surface: -0.012 };
    const text = (key: string) => columns.find((c) => c.key === key)!.text!(row);
    expect([text('dE'), text('before')]).toEqual(['+10.0', '—']);
  });
});

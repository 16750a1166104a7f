import { describe, expect, it } from 'vitest';
import type { ScenePoint } from './scene';
import { thinned, type Box } from './thin';

/** A square of 200,000 points, a thousand metres wide, with three marks. */
function square(): ScenePoint[] {
  const points: ScenePoint[] = [];
  for (let i = 0; i < 200000; i += 1)
    points.push({ name: `T${i}`, e: (i * 0.618034 * 1000) % 1000, n: (i / 200000) * 1000, role: 'surveyed' });
  for (const at of [1, 500.5, 999]) points.push({ name: `K${at}`, e: at, n: at, role: 'held' });
  return points;
}

describe('a large scene', () => {
  const points = square();
  const all: Box = [-500, -500, 1500, 1500];

  it('draws no more than it can, and every mark', () => {
    const { points: drawn, inView } = thinned(points, all, 1.6);
    expect(inView).toBe(200003);
    expect(drawn.length).toBeLessThanOrEqual(6003);
    expect(drawn.length).toBeGreaterThan(2000);
    expect(drawn.filter((p) => p.role === 'held').map((p) => p.name)).toEqual(['K1', 'K500.5', 'K999']);
  });

  it('leaves no hole where there are points', () => {
    const { points: drawn } = thinned(points, all, 1.6);
    const blocks = new Set(drawn.map((p) => Math.floor(p.e / 50) * 100 + Math.floor(p.n / 50)));
    expect(blocks.size).toBe(20 * 20);
  });

  it('draws all of them from near', () => {
    const near: Box = [500, 500, 530, 530];
    const { points: drawn, inView } = thinned(points, near, 0.05);
    const there = points.filter((p) => p.e >= 500 && p.e <= 530 && p.n >= 500 && p.n <= 530);
    expect(inView).toBe(there.length);
    expect(new Set(drawn)).toEqual(new Set(there));
  });

  it('has nothing to draw where nothing is', () => {
    expect(thinned(points, [5000, 5000, 6000, 6000], 1)).toEqual({ points: [], inView: 0 });
  });
});

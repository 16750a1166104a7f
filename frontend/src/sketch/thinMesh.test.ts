import { describe, expect, it } from 'vitest';
import { thinned, thinnedAside } from './thinMesh';

/** A slope of so many squares a side, two triangles each. */
function slope(side: number) {
  const xyz = new Float64Array(3 * (side + 1) ** 2);
  const corners: number[] = [];
  for (let r = 0; r <= side; r += 1)
    for (let c = 0; c <= side; c += 1) {
      const i = r * (side + 1) + c;
      xyz.set([500000 + c, 4000000 + r, 100 + 0.1 * c], 3 * i);
      if (r < side && c < side) corners.push(i, i + 1, i + side + 2, i, i + side + 2, i + side + 1);
    }
  return { xyz, corners: Uint32Array.from(corners), band: new Uint8Array(corners.length / 3).fill(3) };
}

function planArea({ xyz, corners }: { xyz: Float64Array; corners: Uint32Array }) {
  let area = 0;
  for (let t = 0; t < corners.length; t += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => 3 * corners[t + k]!) as [number, number, number];
    area += 0.5 * ((xyz[b]! - xyz[a]!) * (xyz[c + 1]! - xyz[a + 1]!) - (xyz[b + 1]! - xyz[a + 1]!) * (xyz[c]! - xyz[a]!));
  }
  return area;
}

describe('a mesh from afar', () => {
  it('is alike in place, height and colour with a part of the triangles', () => {
    const full = slope(400);
    const thin = thinned(full, 50);
    expect(full.corners.length / 3).toBe(320000);
    expect(thin.corners.length / 3).toBeLessThanOrEqual(2 * 51 * 51);
    // Only a half square is lost along the border.
    expect(planArea(thin) / planArea(full)).toBeGreaterThan(0.95);
    expect(planArea(thin)).toBeLessThanOrEqual(planArea(full));
    for (let i = 0; i < thin.xyz.length; i += 3) expect(thin.xyz[i + 2]).toBeCloseTo(100 + 0.1 * (thin.xyz[i]! - 500000), 6);
    expect(new Set(thin.band)).toEqual(new Set([3]));
    expect(thin.band).toHaveLength(thin.corners.length / 3);
  });
  it('is a coarse one for itself', async () => {
    const thin = await thinnedAside(slope(3));
    expect(thin.corners.length / 3).toBe(18);
    expect(thinned({ xyz: new Float64Array(), corners: new Uint32Array() }).corners).toHaveLength(0);
  });
});

import type { UnitsView } from '../../api/types';
import { height, length } from '../../format/units';
import type { SceneFaces } from '../../sketch/scene';
import { gradient, type MeshShape } from './mesh';

export type Shading = 'none' | 'elevation' | 'slope' | 'difference';

/** Subdued tints from low to high, alike in lightness. */
const HEIGHTS = ['#8fa8a0', '#a9b89d', '#c6c49f', '#d2bd94', '#cbb39a', '#d9d2c8'];
/** Level ground has no colour; the steeper the darker. */
const SLOPES = ['transparent', '#efe3c4', '#e0c793', '#c99f61', '#a8743f', '#7a4a2b'];
const SLOPE_LIMITS = [0.02, 0.05, 0.1, 0.25, 0.5];
/** Blue where material is put in, warm where it is taken away; about nothing there is no colour. */
const DIFFERENCES = ['#2f5f9e', '#6f97c6', '#b9cfe6', 'transparent', '#f0d3b0', '#d99a55', '#a8602a'];
/** What is about nothing, as a part of a step. */
const NOTHING = 0.05;

/** A round step that divides a range into about so many parts. */
export function roundStep(range: number, parts: number): number {
  const raw = Math.max(1e-6, range / parts);
  const power = 10 ** Math.floor(Math.log10(raw));
  return power * ([1, 2, 5, 10].find((s) => s * power >= raw * 0.999) ?? 10);
}

/** Triangles of a surface coloured by height, slope, or what lies between two surfaces. */
export function shaded(mesh: MeshShape | null, by: Shading, units: UnitsView): SceneFaces | undefined {
  if (!mesh || by === 'none') return undefined;
  if (by === 'slope') {
    const band = new Uint8Array(mesh.corners.length / 3);
    for (let i = 0; i < band.length; i += 1) {
      const slope = Math.hypot(...gradient(mesh, 3 * i));
      while (band[i]! < SLOPE_LIMITS.length && slope >= SLOPE_LIMITS[band[i]!]!) band[i]! += 1;
    }
    return { ...mesh, band, limits: SLOPE_LIMITS, colours: SLOPES, labels: SLOPE_LIMITS.map((l) => `${100 * l} %`) };
  }
  let [low, high] = [Infinity, -Infinity];
  for (let i = 2; i < mesh.xyz.length; i += 3) {
    low = Math.min(low, mesh.xyz[i]!);
    high = Math.max(high, mesh.xyz[i]!);
  }
  if (by === 'difference') {
    const step = roundStep(Math.max(Math.abs(low), Math.abs(high)), 3);
    const limits = [-2, -1, -NOTHING, NOTHING, 1, 2].map((k) => k * step);
    return { ...mesh, limits, colours: DIFFERENCES, labels: limits.map((l) => (l > 0 ? '+' : '') + length(l, units, -1)) };
  }
  const step = roundStep(high - low, 5);
  const limits = [0, 1, 2, 3, 4].map((k) => (Math.ceil(low / step) + k) * step);
  return { ...mesh, limits, colours: HEIGHTS, labels: limits.map((l) => height(l, units, -1)) };
}

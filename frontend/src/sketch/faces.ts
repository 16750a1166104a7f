import { PaintedLayer, type Extent } from './painted';
import type { SceneFaces } from './scene';

/** x and y on the canvas, and what is shown there. */
type Corner = [number, number, number];

/** The part of a triangle where what is shown lies between two limits. */
export function between(corners: Corner[], low: number, high: number): Corner[] {
  let part = corners;
  for (const [limit, sign] of [
    [low, 1],
    [high, -1],
  ] as const) {
    if (!Number.isFinite(limit)) continue;
    const kept: Corner[] = [];
    part.forEach((a, k) => {
      const b = part[(k + 1) % part.length]!;
      const [da, db] = [sign * (a[2] - limit), sign * (b[2] - limit)];
      if (da >= 0) kept.push(a);
      if ((da > 0 && db < 0) || (da < 0 && db > 0)) {
        const f = da / (da - db);
        kept.push([a[0] + f * (b[0] - a[0]), a[1] + f * (b[1] - a[1]), limit]);
      }
    });
    part = kept;
  }
  return part;
}

/** A layer of filled triangles; what is smaller than a pixel is a dot. */
export class FaceLayer extends PaintedLayer<SceneFaces> {
  constructor() {
    super(0.85);
  }

  protected paint(context: CanvasRenderingContext2D, f: SceneFaces, [w, , , n]: Extent, scale: number, size: [number, number]) {
    // One colour after the other: changing it for every triangle takes longer than painting it.
    f.colours.forEach((colour, band) => {
      if (colour === 'transparent') return;
      context.fillStyle = colour;
      context.strokeStyle = colour;
      context.lineWidth = 0.6;
      context.beginPath();
      const [low, high] = [f.limits[band - 1] ?? -Infinity, f.limits[band] ?? Infinity];
      for (let i = 0; i < f.corners.length; i += 3) {
        if (f.band && f.band[i / 3] !== band) continue;
        const corners: Corner[] = [0, 1, 2].map((k) => {
          const v = 3 * f.corners[i + k]!;
          return [(f.xyz[v]! - w) * scale, (n - f.xyz[v + 1]!) * scale, f.xyz[v + 2]!];
        });
        const [[ax, ay], [bx, by], [cx, cy]] = corners as [Corner, Corner, Corner];
        const [left, right, top, foot] = [Math.min(ax, bx, cx), Math.max(ax, bx, cx), Math.min(ay, by, cy), Math.max(ay, by, cy)];
        if (right < 0 || left > size[0] || foot < 0 || top > size[1]) continue;
        const part = f.band ? corners : between(corners, low, high);
        if (part.length < 3) continue;
        if (right - left < 1 && foot - top < 1) {
          context.fillRect(left, top, 1, 1);
          continue;
        }
        part.forEach(([x, y], k) => (k === 0 ? context.moveTo(x, y) : context.lineTo(x, y)));
        context.closePath();
      }
      context.fill();
      // A hair over the edge closes the seams between neighbours.
      context.stroke();
    });
  }
}

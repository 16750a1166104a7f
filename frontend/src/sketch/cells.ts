import { PaintedLayer, type Extent } from './painted';
import type { SceneCells } from './scene';

/** A layer of filled squares. */
export class CellLayer extends PaintedLayer<SceneCells> {
  protected paint(context: CanvasRenderingContext2D, c: SceneCells, [w, , , n]: Extent, scale: number, size: [number, number]) {
    const side = Math.max(1.5, c.size * scale);
    context.strokeStyle = getComputedStyle(document.documentElement).getPropertyValue('--ochre');
    // Overlapping by a hair closes the seams between neighbours.
    const fill = side + 0.7;
    c.band.forEach((band, i) => {
      const x = (c.e[i]! - w) * scale - side / 2;
      const y = (n - c.n[i]!) * scale - side / 2;
      if (x > size[0] || y > size[1] || x + side < 0 || y + side < 0) return;
      if (band < 0) {
        if (side > 3) context.strokeRect(x + 1, y + 1, side - 2, side - 2);
        return;
      }
      context.fillStyle = c.colours[band]!;
      context.fillRect(x, y, fill, fill);
    });
  }
}

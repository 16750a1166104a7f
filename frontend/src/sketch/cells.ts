import ImageLayer from 'ol/layer/Image';
import ImageCanvasSource from 'ol/source/ImageCanvas';
import type { SceneCells } from './scene';

/** A layer of filled squares, painted as one picture: a million of them are no more to the map than ten. */
export class CellLayer {
  private cells: SceneCells | null = null;
  private readonly source = new ImageCanvasSource({
    ratio: 1,
    canvasFunction: (extent, resolution, pixelRatio, size) =>
      this.paint(extent as [number, number, number, number], resolution, pixelRatio, size as [number, number]),
  });
  readonly layer = new ImageLayer({ source: this.source });

  show(cells: SceneCells | null) {
    this.cells = cells;
    this.source.changed();
  }

  private paint(
    [w, , , n]: [number, number, number, number],
    resolution: number,
    ratio: number,
    size: [number, number],
  ): HTMLCanvasElement {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = size;
    const context = canvas.getContext('2d');
    const c = this.cells;
    if (!c || !context) return canvas;
    const scale = ratio / resolution;
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
    return canvas;
  }
}

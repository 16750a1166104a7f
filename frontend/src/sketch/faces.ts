import ImageLayer from 'ol/layer/Image';
import ImageCanvasSource from 'ol/source/ImageCanvas';
import type { SceneFaces } from './scene';

/** A layer of filled triangles, painted as one picture; what is smaller than a pixel is a dot. */
export class FaceLayer {
  private faces: SceneFaces | null = null;
  private readonly source = new ImageCanvasSource({
    ratio: 1,
    canvasFunction: (extent, resolution, pixelRatio, size) =>
      this.paint(extent as [number, number, number, number], resolution, pixelRatio, size as [number, number]),
  });
  readonly layer = new ImageLayer({ source: this.source, opacity: 0.85 });

  show(faces: SceneFaces | null) {
    this.faces = faces;
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
    const f = this.faces;
    if (!f || !context) return canvas;
    const scale = ratio / resolution;
    const px = (v: number) => (f.xyz[3 * v]! - w) * scale;
    const py = (v: number) => (n - f.xyz[3 * v + 1]!) * scale;
    // One colour after the other: changing it for every triangle takes longer than painting it.
    f.colours.forEach((colour, band) => {
      if (colour === 'transparent') return;
      context.fillStyle = colour;
      context.strokeStyle = colour;
      context.lineWidth = 0.6;
      context.beginPath();
      for (let i = 0; i < f.band.length; i += 1) {
        if (f.band[i] !== band) continue;
        const [a, b, c] = [f.corners[3 * i]!, f.corners[3 * i + 1]!, f.corners[3 * i + 2]!];
        const [ax, ay, bx, by, cx, cy] = [px(a), py(a), px(b), py(b), px(c), py(c)];
        const [left, right, top, foot] = [Math.min(ax, bx, cx), Math.max(ax, bx, cx), Math.min(ay, by, cy), Math.max(ay, by, cy)];
        if (right < 0 || left > size[0] || foot < 0 || top > size[1]) continue;
        if (right - left < 1 && foot - top < 1) {
          context.fillRect(left, top, 1, 1);
          continue;
        }
        context.moveTo(ax, ay);
        context.lineTo(bx, by);
        context.lineTo(cx, cy);
        context.closePath();
      }
      context.fill();
      // A hair over the edge closes the seams between neighbours.
      context.stroke();
    });
    return canvas;
  }
}

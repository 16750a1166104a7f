import ImageLayer from 'ol/layer/Image';
import ImageCanvasSource from 'ol/source/ImageCanvas';

/** West, south, east and north of what is painted. */
export type Extent = [number, number, number, number];

/** A layer that is painted as one picture: a million of what is on it are no more to the map than ten. */
export abstract class PaintedLayer<Shown> {
  private shown: Shown | null = null;
  private readonly source = new ImageCanvasSource({
    ratio: 1,
    canvasFunction: (extent, resolution, pixelRatio, size) => {
      const canvas = document.createElement('canvas');
      [canvas.width, canvas.height] = size as [number, number];
      const context = canvas.getContext('2d');
      if (this.shown && context) this.paint(context, this.shown, extent as Extent, pixelRatio / resolution, size as [number, number]);
      return canvas;
    },
  });
  readonly layer: ImageLayer<ImageCanvasSource>;

  constructor(opacity = 1) {
    this.layer = new ImageLayer({ source: this.source, opacity });
  }

  show(shown: Shown | null) {
    this.shown = shown;
    this.source.changed();
  }

  /** @param scale canvas units of a metre */
  protected abstract paint(context: CanvasRenderingContext2D, shown: Shown, extent: Extent, scale: number, size: [number, number]): void;
}

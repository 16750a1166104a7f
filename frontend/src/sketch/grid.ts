import type OlMap from 'ol/Map';
import { group } from '../format/units';
import { roundNumber } from './scene';
import type { Styles } from './styles';

/** Grid lines at round coordinates with their values along the top and left edges. */
export function drawGrid(canvas: HTMLCanvasElement, map: OlMap, styles: Styles): void {
  const size = map.getSize();
  if (!size) return;
  const [width, height] = size as [number, number];
  const ratio = window.devicePixelRatio || 1;
  if (canvas.width !== Math.round(width * ratio) || canvas.height !== Math.round(height * ratio)) {
    canvas.width = Math.round(width * ratio);
    canvas.height = Math.round(height * ratio);
  }
  const c = canvas.getContext('2d')!;
  c.setTransform(ratio, 0, 0, ratio, 0, 0);
  c.clearRect(0, 0, width, height);
  const box = map.getView().calculateExtent(size);
  const [x0 = 0, y0 = 0, x1 = 1, y1 = 1] = box;
  const resolution = (x1 - x0) / width;
  const step = roundNumber(170 * resolution);
  const decimals = Math.max(0, -Math.floor(Math.log10(step)));
  c.strokeStyle = styles.colour('--rule');
  c.globalAlpha = 0.65;
  c.lineWidth = 1;
  c.beginPath();
  for (let x = Math.ceil(x0 / step) * step; x <= x1; x += step) {
    const px = Math.round((x - x0) / resolution) + 0.5;
    c.moveTo(px, 52);
    c.lineTo(px, height - 44);
  }
  for (let y = Math.ceil(y0 / step) * step; y <= y1; y += step) {
    const py = Math.round((y1 - y) / resolution) + 0.5;
    if (py < 52 || py > height - 44) continue;
    c.moveTo(0, py);
    c.lineTo(width, py);
  }
  c.stroke();
  c.globalAlpha = 1;
  c.fillStyle = styles.colour('--ink-soft');
  c.font = "10.5px 'IBM Plex Mono'";
  c.textAlign = 'center';
  for (let x = Math.ceil(x0 / step) * step; x <= x1; x += step) {
    const px = (x - x0) / resolution;
    if (px > 60 && px < width - 60) c.fillText(`${group(x.toFixed(decimals))} E`, px, 46);
  }
  c.textAlign = 'left';
  for (let y = Math.ceil(y0 / step) * step; y <= y1; y += step) {
    const py = (y1 - y) / resolution;
    if (py > 70 && py < height - 60) c.fillText(`${group(y.toFixed(decimals))} N`, 6, py - 4);
  }
}

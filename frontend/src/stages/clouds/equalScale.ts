import type { ECharts } from 'echarts/core';
import type { UnitsView } from '../../api/types';
import { metresPer } from '../../format/units';

/** Says where a plot is clicked, in metres of its axes. */
export function onPlace(chart: ECharts, units: () => UnitsView, at: (place: [number, number]) => void): void {
  chart.getZr().on('click', (event) => {
    const [x = 0, y = 0] = chart.convertFromPixel({ gridIndex: 0 }, [event.offsetX, event.offsetY]);
    const metres = metresPer(units());
    at([x * metres, y * metres]);
  });
}

/** Least and greatest of some values. */
export function reach(values: readonly number[]): [number, number] {
  return [values.reduce((a, v) => Math.min(a, v), Infinity), values.reduce((b, v) => Math.max(b, v), -Infinity)];
}

/** Ends of both axes of a plot, with as many metres to a pixel upwards as across, and a little room around what is shown. */
export function equalScale(x: readonly number[], y: readonly number[], pixels: { width: number; height: number }, room = 0.6) {
  const [left, right] = x.length > 0 ? reach(x) : [-1, 1];
  const [low, high] = y.length > 0 ? reach(y) : [0, 1];
  const scale = Math.max((right - left + room) / Math.max(1, pixels.width), (high - low + room) / Math.max(1, pixels.height));
  const about = (middle: number, size: number): [number, number] => [middle - 0.5 * scale * size, middle + 0.5 * scale * size];
  return { x: about(0.5 * (left + right), pixels.width), y: about(0.5 * (low + high), pixels.height) };
}

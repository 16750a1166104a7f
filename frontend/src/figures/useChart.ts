import * as echarts from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { onBeforeUnmount, onMounted, useTemplateRef, watch, type WatchSource } from 'vue';
import { useSession } from '../state/session';

echarts.use([SVGRenderer]);

/** A colour of the present theme by its name, as --ink. */
export type Colour = (name: string) => string;

/**
 * A chart in the element of the template that is called "host": drawn when it is there, when what it shows changes, when the theme
 * changes and when its size does.
 */
export function useChart(
  draw: (chart: echarts.ECharts, colour: Colour, host: HTMLElement) => void,
  shows: WatchSource[],
  started: (chart: echarts.ECharts) => void = () => undefined,
): void {
  const host = useTemplateRef<HTMLElement>('host');
  const session = useSession();
  let chart: echarts.ECharts | null = null;
  let watcher: ResizeObserver | null = null;

  function again() {
    if (!chart || !host.value) return;
    const css = getComputedStyle(document.documentElement);
    draw(chart, (name) => css.getPropertyValue(name).trim(), host.value);
  }
  onMounted(() => {
    chart = echarts.init(host.value!, undefined, { renderer: 'svg' });
    started(chart);
    watcher = new ResizeObserver(() => {
      chart?.resize();
      again();
    });
    watcher.observe(host.value!);
    again();
  });
  onBeforeUnmount(() => {
    watcher?.disconnect();
    chart?.dispose();
  });
  watch([...shows, () => session.theme], again);
}

<script setup lang="ts">
import { ScatterChart } from 'echarts/charts';
import { GridComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { useChart, type Colour } from '../../figures/useChart';
import { toDisplayLength } from '../../format/units';
import { useProject } from '../../state/project';
import { equalScale, onPlace, reach } from './equalScale';
import type { Around } from './passes';

/** What a scan shows around a given place, seen from above: light where it reflects much. */
const props = defineProps<{ around: Around | null; name: string }>();
/** Where it was clicked, from the given place, metres. */
const emit = defineEmits<{ at: [place: [number, number]] }>();
echarts.use([ScatterChart, GridComponent]);
const project = useProject();
const MARGIN = { left: 62, right: 20, top: 14, bottom: 40 };
/** Of dull things and of bright ones, red, green and blue. */
const SHADES = [
  [126, 108, 84],
  [0, 128, 128],
] as const;

function shade(part: number): string {
  const [dull, bright] = SHADES;
  return `rgb(${dull.map((v, k) => Math.round(v + part * (bright[k]! - v))).join(',')})`;
}

function draw(chart: echarts.ECharts, colour: Colour, host: HTMLElement) {
  const shown = (m: number) => toDisplayLength(m, project.units);
  const a = props.around ?? { east: [], north: [], up: [], intensity: [] };
  const ends = equalScale([-1.5, 1.5], [-1.5, 1.5], {
    width: host.clientWidth - MARGIN.left - MARGIN.right,
    height: host.clientHeight - MARGIN.top - MARGIN.bottom,
  });
  const ink = colour('--ink-soft');
  const label = { color: ink, fontSize: 11, fontFamily: 'IBM Plex Mono' };
  const axis = ([min, max]: [number, number], name: string) => ({
    type: 'value' as const,
    min: shown(min),
    max: shown(max),
    name,
    nameLocation: 'middle' as const,
    nameTextStyle: { color: ink },
    axisLine: { show: false },
    axisTick: { show: false },
    axisLabel: { ...label, formatter: (v: number) => v.toFixed(1), hideOverlap: true, showMinLabel: false, showMaxLabel: false },
    splitLine: { lineStyle: { color: colour('--rule') } },
  });
  const [least, most] = reach(a.intensity);
  chart.setOption(
    {
      animation: false,
      grid: MARGIN,
      xAxis: { ...axis(ends.x, `east of where it is given, ${project.units.length}`), nameGap: 24 },
      yAxis: { ...axis(ends.y, 'north'), nameGap: 40 },
      series: [
        {
          type: 'scatter',
          symbolSize: 4,
          silent: true,
          data: a.east.map((e, i) => ({
            value: [shown(e), shown(a.north[i]!)],
            itemStyle: { color: shade(most > least ? (a.intensity[i]! - least) / (most - least) : 0) },
          })),
        },
        {
          type: 'scatter',
          symbol: 'diamond',
          symbolSize: 12,
          itemStyle: { color: 'none', borderColor: colour('--ink'), borderWidth: 1.5 },
          label: { show: true, position: 'top', formatter: props.name, ...label, color: colour('--ink') },
          silent: true,
          data: [[0, 0]],
        },
      ],
    },
    { notMerge: true },
  );
}
useChart(draw, [() => props.around, () => project.units], (chart) =>
  onPlace(
    chart,
    () => project.units,
    (place) => emit('at', place),
  ),
);
</script>

<template>
  <div ref="host" class="plot" role="img" :aria-label="`The scan around ${name} from above`" />
</template>

<style scoped>
.plot {
  height: 100%;
  min-height: 200px;
  cursor: crosshair;
}
</style>

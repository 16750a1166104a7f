<script setup lang="ts">
import { CustomChart, LineChart, ScatterChart } from 'echarts/charts';
import { GridComponent, LegendComponent, MarkLineComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { computed } from 'vue';
import { useChart, type Colour } from '../../figures/useChart';
import { toDisplayLength } from '../../format/units';
import { useProject } from '../../state/project';
import { LINES } from './sections';

/** Heights along a line, or across it. A place that is pointed at is said in stations from the begin. */
const props = withDefaults(
  defineProps<{
    lines: { name: string; pieces: [number, number][][] }[];
    points?: { name: string; station: number; h: number }[];
    start?: number;
    at?: number | null;
    title: string;
  }>(),
  { points: () => [], start: 0, at: null },
);
const emit = defineEmits<{ point: [station: number | null] }>();
echarts.use([LineChart, ScatterChart, CustomChart, GridComponent, LegendComponent, MarkLineComponent]);
const project = useProject();
const shown = (metres: number) => toDisplayLength(metres, project.units);
const extent = computed(() => {
  const all = props.lines.flatMap((l) => l.pieces.flat());
  const heights = [...all.map((p) => p[1]), ...props.points.map((p) => p.h)];
  const stations = all.map((p) => p[0]);
  const reach = (v: number[]): [number, number] =>
    v.reduce(([low, high], x) => [Math.min(low, x), Math.max(high, x)] as [number, number], [Infinity, -Infinity] as [number, number]);
  return { s: reach(stations), h: reach(heights) };
});

function draw(chart: echarts.ECharts, colour: Colour) {
  const ink = colour('--ink-soft');
  const label = { color: ink, fontSize: 11, fontFamily: 'IBM Plex Mono' };
  const { s, h } = extent.value;
  const pad = 0.06 * Math.max(0.1, h[1] - h[0]);
  const unit = project.units.length;
  const at = props.at === null ? [] : [{ xAxis: shown(props.start + props.at) }];
  chart.setOption(
    {
      animation: false,
      grid: { left: 62, right: 20, top: 30, bottom: 44 },
      legend: { top: 4, right: 20, textStyle: { color: ink, fontSize: 11 }, itemWidth: 18, itemHeight: 3, icon: 'rect' },
      xAxis: {
        type: 'value',
        min: shown(props.start + s[0]),
        max: shown(props.start + s[1]),
        name: `${props.title}, ${unit}`,
        nameLocation: 'middle',
        nameGap: 26,
        nameTextStyle: { color: ink },
        axisLabel: { ...label, hideOverlap: true, showMinLabel: false, showMaxLabel: false },
        splitLine: { lineStyle: { color: colour('--rule') } },
      },
      yAxis: {
        type: 'value',
        min: shown(h[0] - pad),
        max: shown(h[1] + pad),
        axisLabel: { ...label, formatter: (v: number) => v.toFixed(h[1] - h[0] > 2 ? 1 : 2), showMinLabel: false, showMaxLabel: false },
        splitLine: { lineStyle: { color: colour('--rule') } },
      },
      series: [
        ...props.lines.map((l, k) => ({
          type: 'line' as const,
          name: l.name,
          showSymbol: false,
          silent: true,
          color: LINES[k % LINES.length]!,
          lineStyle: { width: 1.8 },
          // Between two pieces the line is broken.
          data: l.pieces.flatMap((piece) => [...piece.map(([x, y]) => [shown(props.start + x), shown(y)]), [null, null]]),
          markLine:
            k === 0 && at.length > 0
              ? {
                  silent: true,
                  symbol: 'none',
                  label: { show: false },
                  lineStyle: { color: colour('--ink'), type: 'solid', width: 1 },
                  data: at,
                }
              : undefined,
        })),
        {
          type: 'scatter' as const,
          name: 'points beside it',
          color: colour('--ink'),
          symbol: 'diamond',
          symbolSize: 6,
          silent: true,
          data: props.points.map((p) => [shown(props.start + p.station), shown(p.h)]),
        },
      ].filter((x) => x.type === 'line' || props.points.length > 0),
    },
    { notMerge: true },
  );
}

function started(chart: echarts.ECharts) {
  chart.getZr().on('mousemove', (e) => {
    const [x] = chart.convertFromPixel('grid', [e.offsetX, e.offsetY]) as [number, number];
    const station = x * extentRatio() - props.start;
    emit('point', station >= extent.value.s[0] && station <= extent.value.s[1] ? station : null);
  });
  chart.getZr().on('globalout', () => emit('point', null));
}
/** Metres in one unit of the axis. */
const extentRatio = () => 1 / toDisplayLength(1, project.units);

useChart(draw, [() => props.lines, () => props.points, () => props.at, () => project.units], started);
</script>

<template>
  <div ref="host" class="profile" role="img" :aria-label="title" />
</template>

<style scoped>
.profile {
  height: 100%;
  min-height: 150px;
}
</style>

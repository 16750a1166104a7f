<script setup lang="ts">
import { ScatterChart } from 'echarts/charts';
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { useChart, type Colour } from './useChart';

/** Dots over two quantities; those beyond the limit stand out, lines lie across, a click says which dot. */
echarts.use([ScatterChart, GridComponent, MarkLineComponent, TooltipComponent]);
export interface Dot {
  x: number;
  y: number;
  key: string;
  text: string;
}
const props = withDefaults(
  defineProps<{ dots: Dot[]; xName: string; yName: string; limit?: number; time?: boolean; diagonal?: boolean }>(),
  { limit: 3.29, time: false, diagonal: false },
);
const emit = defineEmits<{ select: [key: string] }>();

function draw(chart: echarts.ECharts, colour: Colour) {
  const axis = {
    nameLocation: 'middle' as const,
    nameTextStyle: { color: colour('--ink-soft'), fontSize: 11, fontFamily: 'IBM Plex Sans' },
    axisLabel: { color: colour('--ink-soft'), fontSize: 10, fontFamily: 'IBM Plex Mono' },
    axisLine: { lineStyle: { color: colour('--rule-strong') } },
    splitLine: { lineStyle: { color: colour('--rule') } },
  };
  const across = props.diagonal
    ? [[{ coord: [-2.9, -2.9] }, { coord: [2.9, 2.9] }]]
    : [{ yAxis: props.limit }, { yAxis: -props.limit }, { yAxis: 0 }];
  chart.setOption(
    {
      animation: false,
      grid: { left: 46, right: 14, top: 10, bottom: 38 },
      tooltip: {
        trigger: 'item',
        formatter: (p: { data: { name: string } }) => p.data.name,
        backgroundColor: colour('--page'),
        textStyle: { color: colour('--ink'), fontSize: 12 },
      },
      xAxis: { ...axis, type: props.time ? 'time' : 'value', name: props.xName, nameGap: 24, scale: !props.diagonal },
      yAxis: { ...axis, type: 'value', name: props.yName, nameGap: 30 },
      series: [
        {
          type: 'scatter',
          symbolSize: 6,
          data: props.dots.map((d) => ({
            value: [d.x, d.y],
            name: d.text,
            key: d.key,
            itemStyle: { color: Math.abs(d.y) > props.limit ? colour('--vermilion') : colour('--slate'), opacity: 0.8 },
          })),
          markLine: {
            silent: true,
            symbol: 'none',
            label: { show: false },
            lineStyle: { color: colour('--rule-strong'), type: 'dashed' },
            data: across,
          },
        },
      ],
    },
    true,
  );
}

useChart(draw, [() => props.dots], (chart) => chart.on('click', (p) => emit('select', (p.data as { key: string }).key)));
</script>

<template>
  <div ref="host" class="host" role="img" :aria-label="`${yName} against ${xName}, ${dots.length} values`" />
</template>

<style scoped>
.host {
  flex: 1;
  min-height: 220px;
}
</style>

<script setup lang="ts">
import { BarChart } from 'echarts/charts';
import { GridComponent, MarkLineComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { useChart, type Colour } from './useChart';

echarts.use([BarChart, GridComponent, MarkLineComponent]);
const props = defineProps<{ values: number[] }>();
const HALF = 5;
const BINS = 20;

function draw(chart: echarts.ECharts, colour: Colour) {
  const ink = colour('--ink-soft');
  const counts = new Array<number>(BINS).fill(0);
  for (const v of props.values) {
    const bin = Math.min(BINS - 1, Math.max(0, Math.floor(((v + HALF) / (2 * HALF)) * BINS)));
    counts[bin]! += 1;
  }
  chart.setOption({
    animation: false,
    grid: { left: 2, right: 2, top: 2, bottom: 16 },
    xAxis: {
      type: 'category',
      data: counts.map((_, i) => i),
      axisTick: { show: false },
      axisLine: { lineStyle: { color: colour('--rule-strong') } },
      axisLabel: {
        color: ink,
        fontSize: 10,
        fontFamily: 'IBM Plex Mono',
        interval: (i: number) => i === 0 || i === BINS / 2 || i === BINS - 1,
        formatter: (v: string) => (v === '0' ? '≤−5' : v === String(BINS / 2) ? '0' : '≥5'),
      },
    },
    yAxis: { show: false },
    series: [
      {
        type: 'bar',
        barCategoryGap: '12%',
        data: counts.map((c, i) => {
          const centre = -HALF + ((i + 0.5) * 2 * HALF) / BINS;
          return {
            value: c,
            itemStyle: { color: Math.abs(centre) > 3.29 ? colour('--vermilion') : colour('--slate') },
          };
        }),
      },
    ],
  });
}

useChart(draw, [() => props.values]);
</script>

<template>
  <figure>
    <div ref="host" class="host" role="img" :aria-label="`Histogram of ${values.length} standardized residuals`" />
    <figcaption class="quiet">standardized residuals, {{ values.length }}</figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  width: 190px;
}
.host {
  height: 64px;
}
figcaption {
  font-size: 11px;
}
</style>

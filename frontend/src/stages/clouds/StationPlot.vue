<script setup lang="ts">
import { LineChart } from 'echarts/charts';
import { GridComponent, LegendComponent, MarkLineComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { useChart, type Colour } from '../../figures/useChart';
import { toDisplayLength } from '../../format/units';
import { useProject } from '../../state/project';
import type { StationRow } from './passes';

/** What a pass is corrected by, along it; where a station is left out the line goes on to the next. */
const props = defineProps<{ rows: StationRow[]; at: number }>();
echarts.use([LineChart, GridComponent, LegendComponent, MarkLineComponent]);
const project = useProject();

function draw(chart: echarts.ECharts, colour: Colour) {
  const ink = colour('--ink-soft');
  const label = { color: ink, fontSize: 11, fontFamily: 'IBM Plex Mono' };
  const shown = (m: number) => toDisplayLength(m, project.units);
  const used = props.rows.filter((s) => s.used && s.shift);
  const looks = [
    ['east', '--cobalt', 'circle'],
    ['north', '--ochre', 'rect'],
    ['height', '--teal', 'triangle'],
  ] as const;
  chart.setOption(
    {
      animation: false,
      grid: { left: 58, right: 16, top: 28, bottom: 38 },
      legend: { top: 2, right: 16, textStyle: { color: ink, fontSize: 11 }, itemWidth: 18 },
      xAxis: {
        type: 'value',
        name: `along the pass, ${project.units.length}`,
        nameLocation: 'middle',
        nameGap: 22,
        nameTextStyle: { color: ink },
        axisLabel: { ...label, hideOverlap: true },
        axisLine: { onZero: false, lineStyle: { color: ink } },
        splitLine: { show: false },
      },
      yAxis: {
        type: 'value',
        splitNumber: 3,
        axisLabel: { ...label, formatter: (v: number) => v.toFixed(2) },
        splitLine: { lineStyle: { color: colour('--rule') } },
      },
      series: looks.map(([name, ink2, symbol], k) => ({
        type: 'line' as const,
        name,
        symbol,
        symbolSize: 6,
        color: colour(ink2),
        lineStyle: { width: 1.2 },
        silent: true,
        data: used.map((s) => [shown(s.along), shown(s.shift![k]!)]),
        markLine:
          k === 0
            ? {
                silent: true,
                symbol: 'none',
                label: { show: false },
                lineStyle: { color: colour('--ink'), type: 'solid', width: 1 },
                data: [{ xAxis: shown(props.at) }],
              }
            : undefined,
      })),
    },
    { notMerge: true },
  );
}
useChart(draw, [() => props.rows, () => props.at, () => project.units]);
</script>

<template>
  <div ref="host" class="plot" role="img" aria-label="What the pass is corrected by, along it" />
</template>

<style scoped>
.plot {
  flex: none;
  height: 150px;
}
</style>

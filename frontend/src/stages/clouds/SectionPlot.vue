<script setup lang="ts">
import { ScatterChart } from 'echarts/charts';
import { GridComponent, LegendComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { useChart, type Colour } from '../../figures/useChart';
import { toDisplayLength } from '../../format/units';
import { useProject } from '../../state/project';
import { equalScale, onPlace } from './equalScale';
import type { Section } from './passes';

/** Two scans across the way, at one scale in both directions. */
const props = defineProps<{
  section: Section | null;
  pass: string;
  reference: string;
  picked?: [number, number][];
  given?: { name: string; at: [number, number] }[];
  across?: string;
}>();
/** Where it was clicked: right of the way, and height, metres. */
const emit = defineEmits<{ at: [place: [number, number]] }>();
echarts.use([ScatterChart, GridComponent, LegendComponent]);
const project = useProject();
const MARGIN = { left: 62, right: 20, top: 34, bottom: 40 };

function draw(chart: echarts.ECharts, colour: Colour, host: HTMLElement) {
  const ink = colour('--ink-soft');
  const label = { color: ink, fontSize: 11, fontFamily: 'IBM Plex Mono' };
  const shown = (m: number) => toDisplayLength(m, project.units);
  const s = props.section;
  const heights = s ? [...s.pass[1], ...s.reference[1]] : [];
  const offsets = s ? [...s.pass[0], ...s.reference[0]] : [];
  const ends = equalScale(offsets, heights, {
    width: host.clientWidth - MARGIN.left - MARGIN.right,
    height: host.clientHeight - MARGIN.top - MARGIN.bottom,
  });
  const between = ([min, max]: [number, number]) => ({ min: shown(min), max: shown(max) });
  const axis = {
    type: 'value' as const,
    axisLine: { show: false },
    axisTick: { show: false },
    axisLabel: { ...label, formatter: (v: number) => v.toFixed(1), hideOverlap: true, showMinLabel: false, showMaxLabel: false },
    splitLine: { lineStyle: { color: colour('--rule') } },
  };
  const cloud = (name: string, [x, y]: [number[], number[]], ink2: string) => ({
    type: 'scatter' as const,
    name,
    color: colour(ink2),
    symbolSize: 3,
    silent: true,
    large: true,
    data: x.map((v, i) => [shown(v), shown(y[i]!)]),
  });
  chart.setOption(
    {
      animation: false,
      grid: MARGIN,
      legend: { top: 6, right: 20, itemWidth: 12, itemHeight: 8, textStyle: { color: ink, fontSize: 11 } },
      xAxis: {
        ...axis,
        ...between(ends.x),
        name: `${props.across ?? 'right of the way'}, ${project.units.length}`,
        nameLocation: 'middle',
        nameGap: 24,
        nameTextStyle: { color: ink },
      },
      yAxis: { ...axis, ...between(ends.y) },
      series: s
        ? [
            ...(props.reference ? [cloud(props.reference, s.reference, '--cobalt')] : []),
            cloud(props.pass, s.pass, '--ochre'),
            {
              type: 'scatter' as const,
              color: colour('--ink'),
              symbol: 'circle',
              symbolSize: 13,
              itemStyle: { color: 'none', borderColor: colour('--ink'), borderWidth: 2 },
              silent: true,
              data: (props.picked ?? []).map(([x, y]) => [shown(x), shown(y)]),
            },
            {
              type: 'scatter' as const,
              color: colour('--ink'),
              symbol: 'diamond',
              symbolSize: 12,
              itemStyle: { color: 'none', borderColor: colour('--ink'), borderWidth: 1.5 },
              label: { show: true, position: 'top' as const, formatter: '{b}', ...label, color: colour('--ink') },
              silent: true,
              data: (props.given ?? []).map((g) => ({ name: g.name, value: [shown(g.at[0]), shown(g.at[1])] })),
            },
          ]
        : [],
    },
    { notMerge: true },
  );
}
useChart(draw, [() => props.section, () => props.picked, () => props.given, () => project.units], (chart) =>
  onPlace(
    chart,
    () => project.units,
    (place) => emit('at', place),
  ),
);
</script>

<template>
  <div ref="host" class="plot" role="img" aria-label="Both scans across the way" />
</template>

<style scoped>
.plot {
  height: 100%;
  min-height: 200px;
}
</style>

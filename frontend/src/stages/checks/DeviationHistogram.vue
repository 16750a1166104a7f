<script setup lang="ts">
import { BarChart } from 'echarts/charts';
import { GridComponent, MarkLineComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { computed } from 'vue';
import { useChart, type Colour } from '../../figures/useChart';
import { small, smallUnit } from '../../format/units';
import { useProject } from '../../state/project';
import { bandOf, counts, type BandSet, type Deviations } from './bands';

/** How often deviations of each size are, coloured by their band. */
const props = defineProps<{ points: Deviations; ignore: number | null; set: BandSet }>();
echarts.use([BarChart, GridComponent, MarkLineComponent]);
const project = useProject();
const BINS = 48;

const bins = computed(() => {
  const used = props.points.d.filter((d): d is number => counts(d, props.ignore));
  let [low, high] = [Infinity, -Infinity];
  for (const d of used) {
    if (d < low) low = d;
    if (d > high) high = d;
  }
  const width = Math.max(1e-6, (high - low) / BINS);
  const tally = new Array<number>(BINS).fill(0);
  for (const d of used) tally[Math.min(BINS - 1, Math.floor((d - low) / width))]! += 1;
  return used.length === 0 ? [] : tally.map((count, i) => ({ centre: low + (i + 0.5) * width, count }));
});

function draw(chart: echarts.ECharts, colour: Colour) {
  const ink = colour('--ink-soft');
  const label = { color: ink, fontSize: 11, fontFamily: 'IBM Plex Mono' };
  chart.setOption({
    animation: false,
    grid: { left: 60, right: 24, top: 34, bottom: 48 },
    xAxis: {
      type: 'category',
      data: bins.value.map((b) => small(b.centre, project.units, true)),
      name: `${smallUnit(project.units)}, measured less reference`,
      nameLocation: 'middle',
      nameGap: 30,
      nameTextStyle: { color: ink },
      axisLabel: { ...label, interval: 5 },
      axisLine: { lineStyle: { color: colour('--rule-strong') } },
    },
    yAxis: {
      type: 'value',
      name: 'points',
      nameTextStyle: { color: ink },
      axisLabel: label,
      splitLine: { lineStyle: { color: colour('--rule') } },
    },
    series: [
      {
        type: 'bar',
        barCategoryGap: '6%',
        data: bins.value.map((b) => ({
          value: b.count,
          itemStyle: {
            color: props.set.colours[bandOf(b.centre, props.set.limits)],
            borderColor: colour('--rule-strong'),
            borderWidth: 1,
          },
        })),
      },
    ],
  });
}

useChart(draw, [bins, () => props.set, () => project.units]);
</script>

<template>
  <div ref="host" class="host" role="img" :aria-label="`Histogram of ${points.d.length} deviations`" />
</template>

<style scoped>
.host {
  position: absolute;
  inset: 52px 10px 14px;
}
</style>

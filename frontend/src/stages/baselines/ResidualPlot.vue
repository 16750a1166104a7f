<script setup lang="ts">
import { LineChart } from 'echarts/charts';
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { computed } from 'vue';
import { useChart, type Colour } from '../../figures/useChart';
import type { RunDocument } from './documents';
import { clock, type Zone } from './times';

/** Phase residuals of every satellite against time, one line a satellite; the one pointed at stands out. */
echarts.use([LineChart, GridComponent, MarkLineComponent, TooltipComponent]);
const props = defineProps<{ document: RunDocument; zone: Zone; leap: number; shown: string; band: string }>();
const GAP = 300;

const series = computed(() => props.document.residuals.filter((r) => r.signal.endsWith(props.band)));

function draw(chart: echarts.ECharts, colour: Colour) {
  const text = { color: colour('--ink-soft'), fontSize: 11, fontFamily: 'IBM Plex Mono' };
  chart.setOption(
    {
      animation: false,
      grid: { left: 56, right: 20, top: 18, bottom: 36 },
      tooltip: {
        trigger: 'item',
        backgroundColor: colour('--page'),
        textStyle: { color: colour('--ink'), fontSize: 12 },
        formatter: (p: { seriesName: string; value: [number, number] }) =>
          `${p.seriesName}, ${clock(props.document.first + p.value[0], props.zone, props.leap, true)}: ${p.value[1]} mm`,
      },
      xAxis: {
        type: 'value',
        min: 0,
        max: 'dataMax',
        axisLabel: { ...text, formatter: (v: number) => clock(props.document.first + v, props.zone, props.leap) },
        splitLine: { show: false },
        axisLine: { onZero: false, lineStyle: { color: colour('--rule-strong') } },
      },
      yAxis: {
        type: 'value',
        name: 'residual mm',
        nameLocation: 'middle',
        nameGap: 38,
        nameTextStyle: text,
        axisLabel: text,
        splitLine: { lineStyle: { color: colour('--rule') } },
      },
      series: series.value.map((r) => {
        const satellite = r.signal.split(' ')[0]!;
        const isShown = satellite === props.shown;
        // A gap in the observations is a gap of the line.
        const data = r.seconds.flatMap((t, k): [number, number | null][] =>
          k > 0 && t - r.seconds[k - 1]! > GAP
            ? [
                [t - 1, null],
                [t, r.mm[k]!],
              ]
            : [[t, r.mm[k]!]],
        );
        return {
          type: 'line',
          name: r.signal,
          data,
          showSymbol: false,
          symbol: 'circle',
          symbolSize: 4,
          z: isShown ? 3 : 2,
          lineStyle: {
            width: isShown ? 2 : 0.9,
            opacity: props.shown === '' || isShown ? 0.85 : 0.3,
            color: isShown
              ? colour('--vermilion')
              : satellite.startsWith('G')
                ? colour('--cobalt')
                : satellite.startsWith('E')
                  ? colour('--teal')
                  : colour('--ochre'),
          },
        };
      }),
    },
    true,
  );
}

useChart(draw, [series, () => props.shown, () => props.zone]);
</script>

<template>
  <div ref="host" class="host" role="img" :aria-label="`Residuals of ${series.length} satellites against time`" />
</template>

<style scoped>
.host {
  flex: 1;
  min-height: 200px;
}
</style>

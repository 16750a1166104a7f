<script setup lang="ts">
import { LineChart, ScatterChart } from 'echarts/charts';
import { BrushComponent, GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { useChart, type Colour } from '../../figures/useChart';
import type { EpochsView } from '../../api/types';
import { between, hull, standing, trueScale, windowOf, type Scatter } from './epochs';
import { clock, type Zone } from './times';

/** Where a receiver was epoch by epoch: in plan at true scale, and east, north, up against time. A drag over either chooses a window. */
echarts.use([ScatterChart, LineChart, GridComponent, BrushComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent]);
const props = defineProps<{ scatter: Scatter; epochs: EpochsView; window: [number, number] | null; zone: Zone; leap: number }>();
const emit = defineEmits<{ window: [window: [number, number] | null] }>();

const LEFT = 62;
const RIGHT = 20;
const TOP = 30;
const GAP = 30;
const BOTTOM = 46;
const BETWEEN = 18;
const SERIES = ['east', 'north', 'up'] as const;

function draw(chart: echarts.ECharts, colour: Colour, box: HTMLElement) {
  if (box.clientHeight < 100) return;
  const { scatter: s, epochs } = props;
  const width = box.clientWidth - LEFT - RIGHT;
  const planHeight = Math.max(120, 0.52 * box.clientHeight - TOP);
  const timeTop = TOP + planHeight + GAP;
  const each = Math.max(40, (box.clientHeight - timeTop - BOTTOM - 2 * BETWEEN) / 3);
  const scale = trueScale([s.e, s.n], width, planHeight);
  const last = s.seconds[s.seconds.length - 1] || 1;
  const colours = s.seconds.map((t) => between(colour('--cobalt'), colour('--ochre'), t / last));
  const at = (t: number) => clock(epochs.first + t, props.zone, props.leap);
  const text = { color: colour('--ink-soft'), fontSize: 11, fontFamily: 'IBM Plex Mono' };
  const line = { lineStyle: { color: colour('--rule') } };
  const values = [s.e, s.n, s.u];
  const reach = Math.max(10, ...values.flat().map(Math.abs));
  const limit =
    Math.ceil(
      Math.min(
        reach,
        4 * Math.max(10, ...epochs.stands.map((x) => Math.max(...x.mean.map(Math.abs)) + 4 * Math.max(x.spreadPlan, x.spreadUp))),
      ) / 10,
    ) * 10;
  const tip = (k: number) =>
    `${clock(epochs.first + s.seconds[k]!, props.zone, props.leap, true)}<br>east ${s.e[k]!.toFixed(1)} north ${s.n[k]!.toFixed(1)} up ${s.u[k]!.toFixed(1)} mm<br>${s.satellites[k]} satellites, ${s.fixed[k] ? 'fixed' : 'float'}`;
  const moves = epochs.moves.map((m) => ({ xAxis: (m.from + m.to) / 2 }));
  chart.setOption(
    {
      animation: false,
      tooltip: {
        trigger: 'item',
        backgroundColor: colour('--page'),
        textStyle: { color: colour('--ink'), fontSize: 12 },
        formatter: (p: { seriesType: string; dataIndex: number }) => (p.seriesType === 'scatter' ? tip(p.dataIndex) : ''),
      },
      brush: {
        toolbox: [],
        xAxisIndex: 'all',
        brushMode: 'single',
        throttleType: 'debounce',
        throttleDelay: 200,
        brushStyle: { color: `color-mix(in srgb, ${colour('--cobalt')} 14%, transparent)`, borderColor: colour('--cobalt') },
        outOfBrush: { colorAlpha: 1 },
      },
      grid: [
        { left: LEFT, top: TOP, width, height: planHeight },
        ...SERIES.map((_, i) => ({ left: LEFT, top: timeTop + i * (each + BETWEEN), width, height: each })),
      ],
      xAxis: [
        {
          gridIndex: 0,
          min: scale.middle[0] - scale.half[0],
          max: scale.middle[0] + scale.half[0],
          interval: scale.step,
          axisLabel: { show: false },
          axisTick: { show: false },
          axisLine: { show: false },
          splitLine: line,
        },
        ...SERIES.map((_, i) => ({
          gridIndex: 1 + i,
          min: 0,
          max: last,
          interval: last / 5,
          axisLabel: { ...text, show: i === 2, showMinLabel: true, showMaxLabel: true, formatter: (v: number) => at(v) },
          axisTick: { show: i === 2 },
          axisLine: { onZero: false, lineStyle: { color: colour('--rule-strong') } },
          splitLine: { show: false },
        })),
      ],
      yAxis: [
        {
          gridIndex: 0,
          min: scale.middle[1] - scale.half[1],
          max: scale.middle[1] + scale.half[1],
          interval: scale.step,
          axisLabel: { show: false },
          axisTick: { show: false },
          axisLine: { show: false },
          splitLine: line,
        },
        ...SERIES.map((name, i) => ({
          gridIndex: 1 + i,
          min: -limit,
          max: limit,
          interval: limit,
          name,
          nameLocation: 'middle' as const,
          nameGap: 42,
          nameRotate: 90,
          nameTextStyle: { ...text, fontFamily: 'IBM Plex Sans' },
          axisLabel: { ...text, formatter: (v: number) => (v > 0 ? `+${v}` : String(v).replace('-', '\u2212')) },
          axisLine: { show: false },
          axisTick: { show: false },
          splitLine: line,
        })),
      ],
      series: [
        ...epochs.stands.map((_, i) => ({
          type: 'line' as const,
          xAxisIndex: 0,
          yAxisIndex: 0,
          silent: true,
          showSymbol: false,
          data: hull(standing(s, epochs, i)),
          lineStyle: { color: colour(i === epochs.keep ? '--cobalt' : '--ochre'), width: 1.4 },
          endLabel: { show: false },
          z: 3,
          markPoint: undefined,
        })),
        {
          type: 'scatter',
          xAxisIndex: 0,
          yAxisIndex: 0,
          symbolSize: 5,
          data: s.seconds.map((_, k) => ({ value: [s.e[k]!, s.n[k]!], itemStyle: { color: colours[k]!, opacity: 0.75 } })),
        },
        ...(epochs.stands.length > 1
          ? [
              {
                type: 'line' as const,
                xAxisIndex: 0,
                yAxisIndex: 0,
                silent: true,
                symbol: ['none', 'triangle'],
                showSymbol: false,
                z: 4,
                data: epochs.stands.map((x) => [x.mean[0]!, x.mean[1]!]),
                lineStyle: { color: colour('--vermilion'), width: 1.6 },
              },
            ]
          : []),
        ...values.map((list, i) => ({
          type: 'scatter' as const,
          xAxisIndex: 1 + i,
          yAxisIndex: 1 + i,
          symbolSize: 3.5,
          data: s.seconds.map((t, k) => ({ value: [t, Math.max(-limit, Math.min(limit, list[k]!))], itemStyle: { color: colours[k]! } })),
          markLine: {
            silent: true,
            symbol: 'none',
            label: { show: false },
            lineStyle: { color: colour('--vermilion'), type: 'dashed' },
            data: moves,
          },
          markArea: props.window
            ? {
                silent: true,
                itemStyle: { color: `color-mix(in srgb, ${colour('--cobalt')} 12%, transparent)` },
                data: [[{ xAxis: props.window[0] }, { xAxis: props.window[1] }]],
              }
            : undefined,
        })),
      ],
    },
    true,
  );
  chart.dispatchAction({ type: 'takeGlobalCursor', key: 'brush', brushOption: { brushType: 'rect', brushMode: 'single' } });
}

interface Brushed {
  areas: { coordRange?: [[number, number], [number, number]]; coordRanges?: [[number, number], [number, number]][]; panelId?: string }[];
}

function brushed(chart: echarts.ECharts, event: unknown) {
  const area = (event as Brushed).areas[0];
  if (!area?.coordRange) return;
  const [x, y] = area.coordRange;
  const grid = Number(/grid--(\d+)/.exec(area.panelId ?? '')?.[1] ?? 1);
  const chosen = grid === 0 ? windowOf(props.scatter, x, y) : ([Math.max(0, x[0]), x[1]] as [number, number]);
  chart.dispatchAction({ type: 'brush', areas: [] });
  if (chosen && chosen[1] - chosen[0] > 60) emit('window', chosen);
}

useChart(draw, [() => props.scatter, () => props.epochs, () => props.window, () => props.zone], (chart) =>
  chart.on('brushEnd', (event) => brushed(chart, event)),
);
const step = () => trueScale([props.scatter.e, props.scatter.n], 600, 300).step;
</script>

<template>
  <div class="plot">
    <div
      ref="host"
      class="host"
      role="img"
      :aria-label="`Epochs of ${epochs.mark}: ${epochs.epochs} places, ${epochs.moves.length} changes`"
    />
    <p class="quiet scale">{{ step() }} mm grid, true scale</p>
    <ul class="stands">
      <li v-for="(s, i) in epochs.stands" :key="i" :class="{ kept: i === epochs.keep }">
        <span class="mono">{{ clock(epochs.first + s.from, zone, leap) }} to {{ clock(epochs.first + s.to, zone, leap) }}</span>
        {{ s.count }} epochs, spread {{ s.spreadPlan.toFixed(1) }} mm
      </li>
      <li v-for="(m, i) in epochs.moves" :key="`m${i}`" class="fails">
        moved {{ Math.hypot(m.shift[0]!, m.shift[1]!).toFixed(0) }} mm in plan, {{ m.shift[2]! < 0 ? 'down' : 'up' }}
        {{ Math.abs(m.shift[2]!).toFixed(0) }} mm, {{ m.confidence > 0.999 ? 'more than 99.9' : (100 * m.confidence).toFixed(1) }} % sure
      </li>
    </ul>
    <p class="quiet hint">Coloured by time. Drag over any plot to choose the part to keep</p>
  </div>
</template>

<style scoped>
.plot {
  position: absolute;
  inset: 40px 0 0;
  display: flex;
}
.host {
  flex: 1;
  min-width: 0;
}
p,
ul {
  position: absolute;
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: 12px;
  pointer-events: none;
}
.scale {
  left: 66px;
  top: 4px;
}
.stands {
  right: 22px;
  top: 4px;
  text-align: right;
  background: color-mix(in srgb, var(--sketch) 80%, transparent);
}
.stands li .mono {
  margin-right: 6px;
}
.stands li.fails {
  font-weight: 400;
}
.stands li {
  color: var(--ochre);
}
.stands li.kept {
  color: var(--cobalt);
}
.stands li.fails {
  color: var(--vermilion);
}
.hint {
  left: 66px;
  bottom: 2px;
}
</style>

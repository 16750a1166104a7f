<script setup lang="ts">
import { computed } from 'vue';
import { length, lengthUnit } from '../../format/units';
import { useProject } from '../../state/project';
import type { SideView } from './side';

/** The sight from the side, each end above its own mark: as it was written, and as it would be. */
const props = defineProps<{ view: SideView }>();
const project = useProject();
const W = 460;
const H = 130;
const [LEFT, RIGHT] = [60, 300];
const [TOP, FOOT] = [16, H - 30];
/** Labels closer than this lie over each other. */
const APART = 13;

const written = computed(() => (props.view.changed === 'ht' ? props.view.ht : props.view.hi));
const eye = computed(() => (props.view.changed === 'hi' ? props.view.becomes : props.view.hi));
/** The poles are cut short, so that what differs is seen. */
const range = computed(() => {
  const all = [props.view.hi, props.view.ht, props.view.becomes, props.view.seen];
  const most = Math.max(...all);
  const difference = Math.abs(props.view.becomes - written.value);
  return { least: Math.max(0, Math.min(...all) - 2 * difference - 0.1), most };
});
const y = (h: number) => FOOT - ((h - range.value.least) / Math.max(0.01, range.value.most - range.value.least)) * (FOOT - TOP);
const pole = computed(() => (props.view.changed === 'ht' ? RIGHT : LEFT));
const labels = computed(() => {
  const [a, b] = [y(written.value), y(props.view.becomes)];
  const push = Math.max(0, APART - Math.abs(a - b)) / 2;
  return a > b ? { written: a + push + 4, becomes: b - push + 4 } : { written: a - push + 4, becomes: b + push + 4 };
});
const said = (metres: number) => `${length(metres, project.units)} ${lengthUnit(project.units)}`;
</script>

<template>
  <svg :viewBox="`0 0 ${W} ${H}`" role="img" :aria-label="`From ${view.at} to ${view.to} from the side`">
    <line class="ground" x1="20" :x2="RIGHT + 40" :y1="FOOT" :y2="FOOT" />
    <line class="pole" :x1="LEFT" :x2="LEFT" :y1="FOOT" :y2="y(view.hi)" />
    <line class="pole" :x1="RIGHT" :x2="RIGHT" :y1="FOOT" :y2="y(view.ht)" />
    <line class="new" :x1="pole" :x2="pole" :y1="y(written)" :y2="y(view.becomes)" />
    <line class="sight" :x1="LEFT" :x2="RIGHT" :y1="y(eye)" :y2="y(view.seen)" />
    <circle :cx="LEFT" :cy="y(eye)" r="3.5" />
    <path v-for="x in range.least > 0 ? [LEFT, RIGHT] : []" :key="x" class="cut" :d="`M${x - 5} ${FOOT - 6} l10 -5`" />
    <path class="was" :d="`M${pole - 7} ${y(written)} h14`" />
    <path class="is" :d="`M${pole - 7} ${y(view.becomes)} h14`" />
    <text :x="pole + 12" :y="labels.written" class="quiet">written {{ said(written) }}</text>
    <text :x="pole + 12" :y="labels.becomes" class="becomes">with it {{ said(view.becomes) }}</text>
    <text :x="LEFT" :y="FOOT + 14" text-anchor="middle">{{ view.at }}</text>
    <text :x="RIGHT" :y="FOOT + 14" text-anchor="middle">{{ view.to }}</text>
    <text :x="(LEFT + RIGHT) / 2" :y="FOOT + 26" text-anchor="middle" class="quiet">
      each above its mark; {{ said(view.distance) }} apart
    </text>
  </svg>
</template>

<style scoped>
svg {
  font:
    11px 'IBM Plex Mono',
    monospace;
  fill: var(--ink);
}
.ground {
  stroke: var(--rule-strong);
  stroke-width: 1.5;
}
.pole {
  stroke: var(--ink-soft);
  stroke-width: 3;
}
.new {
  stroke: var(--vermilion);
  stroke-width: 3;
}
.sight {
  stroke: var(--cobalt);
  stroke-width: 1.2;
  stroke-dasharray: 4 3;
}
.cut {
  stroke: var(--sketch);
  stroke-width: 3;
}
.was {
  stroke: var(--ink-soft);
  stroke-width: 1.5;
}
.is {
  stroke: var(--vermilion);
  stroke-width: 1.5;
}
text.quiet {
  fill: var(--ink-soft);
}
.becomes {
  fill: var(--vermilion);
  font-weight: 600;
}
</style>

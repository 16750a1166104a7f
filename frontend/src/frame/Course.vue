<script setup lang="ts">
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import type { StageView } from '../api/types';

const props = defineProps<{ stages: StageView[]; here: string }>();
const route = useRoute();

// The course wanders like a traverse: the same offsets every time, so that a stage keeps its place.
const OFFSETS = [26, 18, 28, 20, 27, 19, 27, 21];
const marks = computed(() =>
  props.stages.map((s, i) => ({ ...s, x: (100 * (i + 0.5)) / props.stages.length, y: OFFSETS[i] ?? 24, legDone: s.state === 'done' })),
);
const WORDS: Record<string, string> = {
  empty: 'empty',
  ready: 'ready to begin',
  attention: 'needs attention',
  stale: 'stale',
  done: 'done',
};
</script>

<template>
  <nav class="course" aria-label="Stages">
    <svg class="legs" preserveAspectRatio="none" viewBox="0 0 100 48" aria-hidden="true">
      <line
        v-for="(m, i) in marks.slice(1)"
        :key="m.key"
        :x1="marks[i]!.x"
        :y1="marks[i]!.y"
        :x2="m.x"
        :y2="m.y"
        vector-effect="non-scaling-stroke"
        :class="m.state === 'empty' || marks[i]!.state === 'empty' ? 'open' : 'walked'"
      />
    </svg>
    <router-link
      v-for="(m, i) in marks"
      :key="m.key"
      class="stop"
      :class="[m.state, { here: m.key === here }]"
      :to="`/p/${route.params.id}/${m.key}`"
      :style="{ left: `${m.x}%` }"
      :aria-current="m.key === here ? 'page' : undefined"
      :title="`${m.label}: ${WORDS[m.state]} (key ${i + 1})`"
    >
      <svg class="mark" viewBox="-14 -14 28 28" :style="{ top: `${m.y - 14}px` }" aria-hidden="true">
        <circle v-if="m.key === here" r="12.5" class="ring" />
        <circle v-if="m.state === 'empty'" r="5" class="shape hollow" />
        <rect v-else-if="m.state === 'ready'" x="-5" y="-5" width="10" height="10" transform="rotate(45)" class="shape ready" />
        <path v-else-if="m.state === 'attention'" d="M0 -7.5 7 5 -7 5Z" class="shape bad" />
        <g v-else-if="m.state === 'stale'">
          <circle r="6" class="shape half" />
          <path d="M0 -6A6 6 0 0 1 0 6Z" class="halfside" />
        </g>
        <g v-else>
          <circle r="6.5" class="shape good" />
          <path d="M-3 0.2 -0.8 2.6 3.2 -2.4" class="tick" />
        </g>
      </svg>
      <span class="name">{{ m.label }}</span>
      <span class="caption">{{ m.caption }}</span>
    </router-link>
  </nav>
</template>

<style scoped>
.course {
  position: relative;
  height: 78px;
  flex: none;
  background: var(--paper-deep);
  border-bottom: 1px solid var(--rule);
}
.legs {
  position: absolute;
  left: 0;
  top: 0;
  width: 100%;
  height: 48px;
}
.walked {
  stroke: var(--ink);
  stroke-width: 1.4;
}
.open {
  stroke: var(--rule-strong);
  stroke-width: 1.4;
  stroke-dasharray: 2 4;
}
.stop {
  position: absolute;
  top: 0;
  height: 100%;
  width: 11%;
  transform: translateX(-50%);
  color: inherit;
  text-decoration: none;
  text-align: center;
}
.mark {
  position: absolute;
  left: calc(50% - 14px);
  width: 28px;
  height: 28px;
}
.ring {
  fill: var(--page);
  stroke: var(--ink);
  stroke-width: 1.2;
}
.hollow {
  fill: var(--paper-deep);
  stroke: var(--rule-strong);
  stroke-width: 1.5;
}
.ready {
  fill: var(--page);
  stroke: var(--cobalt);
  stroke-width: 1.8;
}
.bad {
  fill: var(--vermilion);
}
.good {
  fill: var(--teal);
}
.half {
  fill: var(--page);
  stroke: var(--ochre);
  stroke-width: 1.5;
}
.halfside {
  fill: var(--ochre);
}
.tick {
  fill: none;
  stroke: var(--paper);
  stroke-width: 1.8;
}
.name,
.caption {
  position: absolute;
  width: 100%;
  left: 0;
  white-space: nowrap;
}
.name {
  top: 42px;
}
.caption {
  top: 59px;
  font-size: 11px;
  color: var(--ink-soft);
}
.here .name {
  font-weight: 600;
}
.attention .caption {
  color: var(--vermilion);
}
.stale .caption {
  color: var(--ochre);
}
.done .caption {
  color: var(--teal);
}
.ready .caption {
  color: var(--cobalt);
}
@media (max-width: 900px) {
  .course {
    overflow-x: auto;
    overflow-y: hidden;
  }
  .stop {
    width: 12.5%;
  }
  .caption {
    display: none;
  }
}
</style>

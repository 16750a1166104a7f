<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue';
import type { OccupationView, SkyView } from '../../api/types';
import { clock, ticks, type Zone } from './times';

/** Occupations as bars on a time axis; what is trimmed stays as an outline. Under them the satellites of the chosen one. */
const props = defineProps<{ occupations: OccupationView[]; chosen: Set<number>; sky: SkyView | null; zone: Zone; leap: number }>();
const emit = defineEmits<{ choose: [id: number] }>();

const from = computed(() => Math.min(...props.occupations.map((o) => o.from)));
const span = computed(() => Math.max(60, Math.max(...props.occupations.map((o) => o.to)) - from.value));
const marks = computed(() => ticks(from.value, from.value + span.value, 6, props.zone, props.leap));
const share = (t: number) => (100 * (t - from.value)) / span.value;
const used = (o: OccupationView) => [o.trimFrom ?? o.from, o.trimTo ?? o.to] as const;
/** What is chosen is in sight. */
const host = ref<HTMLElement>();
watch(
  () => [...props.chosen].join(),
  () => nextTick(() => host.value?.querySelector('.chosen')?.scrollIntoView({ block: 'nearest' })),
  { immediate: true },
);
const most = computed(() => Math.max(1, ...(props.sky?.count ?? [1])));
</script>

<template>
  <figure class="strip" aria-label="Occupations in time">
    <div class="axis">
      <span v-for="t in marks" :key="t" class="mono" :style="{ left: `${share(t)}%` }">{{ clock(t, zone, leap) }}</span>
    </div>
    <div ref="host" class="rows">
      <ElButton
        v-for="o in occupations"
        :key="o.id"
        text
        class="row"
        :class="{ chosen: chosen.has(o.id) }"
        :aria-label="`${o.marker || o.file}, ${clock(used(o)[0], zone, leap)} to ${clock(used(o)[1], zone, leap)}`"
        @click="emit('choose', o.id)"
      >
        <span class="mono name">{{ o.marker || '?' }}</span>
        <span class="track">
          <span class="whole" :style="{ left: `${share(o.from)}%`, width: `${(100 * (o.to - o.from)) / span}%` }" />
          <span class="used" :style="{ left: `${share(used(o)[0])}%`, width: `${(100 * (used(o)[1] - used(o)[0])) / span}%` }" />
        </span>
      </ElButton>
    </div>
    <div v-if="sky" class="sky" aria-hidden="true">
      <span class="quiet name">satellites</span>
      <span class="track">
        <span
          v-for="(n, i) in sky.count"
          :key="i"
          class="count"
          :style="{
            left: `${share(sky.from + (i * sky.span) / sky.count.length)}%`,
            width: `${(94 * sky.span) / sky.count.length / span}%`,
            height: `${(100 * n) / most}%`,
          }"
        />
      </span>
      <span class="mono quiet most">{{ most }}</span>
    </div>
  </figure>
</template>

<style scoped>
.strip {
  flex: none;
  margin: 2px 0 8px;
  padding-right: 26px;
}
.rows {
  max-height: 68px;
  overflow-y: auto;
}
.axis {
  position: relative;
  height: 18px;
  margin-left: 62px;
  font-size: 11px;
  color: var(--ink-soft);
}
.axis span {
  position: absolute;
  transform: translateX(-50%);
}
.row {
  display: flex;
  width: 100%;
  height: 16px;
  min-height: 16px;
  padding: 0;
  margin: 0;
}
.row + .row {
  margin: 0;
}
.row :deep(> span) {
  display: flex;
  width: 100%;
  align-items: center;
}
.name {
  flex: 0 0 62px;
  text-align: left;
  font-size: 11.5px;
}
.track {
  position: relative;
  flex: 1;
  height: 11px;
}
.whole,
.used {
  position: absolute;
  top: 0;
  height: 11px;
  border: 1px solid var(--cobalt);
}
.whole {
  border-style: dashed;
  opacity: 0.6;
}
.used {
  background: var(--cobalt-soft);
}
.chosen .used {
  background: var(--cobalt);
}
.sky {
  position: relative;
  display: flex;
  align-items: flex-end;
  height: 22px;
}
.sky .track {
  height: 18px;
}
.count {
  position: absolute;
  bottom: 0;
  background: var(--slate);
}
.most {
  position: absolute;
  right: -24px;
  bottom: 0;
  font-size: 11px;
}
</style>

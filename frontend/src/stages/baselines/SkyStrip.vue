<script setup lang="ts">
import { computed } from 'vue';
import type { SkyView } from '../../api/types';
import { clock, type Zone } from './times';

/** Each satellite of an occupation in time: tracked or not, how strong, where lock was lost. */
const props = defineProps<{ sky: SkyView; zone: Zone; leap: number; marker: string }>();
const cells = computed(() => props.sky.count.length);
const WEAK = 30;
const STRONG = 50;

/** Strength as the height of a cell, so that it is not told by colour alone. */
function share(strength: number | null, tracked: number): number {
  if (tracked === 0) return 0;
  return strength === null ? 0.6 : Math.max(0.2, Math.min(1, 0.2 + (0.8 * (strength - WEAK)) / (STRONG - WEAK)));
}
const ticks = computed(() =>
  [0, 0.25, 0.5, 0.75, 1].map((s) => ({ s, text: clock(props.sky.from + s * props.sky.span, props.zone, props.leap) })),
);
</script>

<template>
  <div class="sky">
    <p class="quiet">
      {{ marker }}: {{ sky.rows.length }} satellites. A cell is as high as the signal is strong (30 to 50 dB-Hz); ▾ marks a loss of lock.
    </p>
    <div class="rows">
      <div v-for="r in sky.rows" :key="r.id" class="row">
        <span class="mono id">{{ r.id }}</span>
        <svg
          :viewBox="`0 0 ${cells} 1`"
          preserveAspectRatio="none"
          role="img"
          :aria-label="`${r.id}, lock lost ${r.lost.reduce((a, b) => a + b, 0)} times`"
        >
          <rect
            v-for="(t, i) in r.tracked"
            v-show="t > 0"
            :key="i"
            :x="i"
            :y="1 - share(r.strength[i] ?? null, t)"
            width="0.92"
            :height="share(r.strength[i] ?? null, t)"
            :opacity="0.35 + 0.65 * t"
          />
        </svg>
        <span
          v-for="(n, i) in r.lost"
          v-show="n > 0"
          :key="`l${i}`"
          class="lost"
          :style="{ left: `calc(44px + (100% - 44px) * ${(i + 0.5) / cells})` }"
          >▾</span
        >
      </div>
    </div>
    <div class="axis">
      <span v-for="t in ticks" :key="t.s" class="mono" :style="{ left: `${100 * t.s}%` }">{{ t.text }}</span>
    </div>
  </div>
</template>

<style scoped>
.sky {
  position: absolute;
  inset: 44px 34px 10px 18px;
  display: flex;
  flex-direction: column;
  gap: 4px;
}
p {
  margin: 0;
}
.rows {
  flex: 1;
  overflow: auto;
  display: flex;
  flex-direction: column;
}
.row {
  position: relative;
  flex: 1 0 14px;
  max-height: 24px;
  display: flex;
  align-items: stretch;
  border-bottom: 1px solid var(--rule);
}
.id {
  flex: 0 0 44px;
  font-size: 11px;
  align-self: center;
}
svg {
  flex: 1;
  height: 100%;
  min-width: 0;
}
rect {
  fill: var(--cobalt);
}
.lost {
  position: absolute;
  top: -4px;
  color: var(--vermilion);
  transform: translateX(-50%);
  font-size: 12px;
}
.axis {
  position: relative;
  flex: none;
  height: 18px;
  margin-left: 44px;
  font-size: 11px;
  color: var(--ink-soft);
}
.axis span {
  position: absolute;
  transform: translateX(-50%);
}
</style>

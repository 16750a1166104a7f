<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import type { MissionView, RaysView } from '../../api/types';
import { useProject } from '../../state/project';

/** The images of a group: one large to pick in, the others below with the line the picked ray runs along and where it was found. */
const props = defineProps<{ mission: MissionView; rays: RaysView | null; mayPick: boolean }>();
const active = defineModel<string>('active', { required: true });
const emit = defineEmits<{ pick: [image: string, at: { x: number; y: number }] }>();
const project = useProject();
const NEAR = 90;
const isNear = ref(false);
const frame = ref<SVGSVGElement | null>(null);

const source = (file: string) => {
  const photo = props.mission.images.find((i) => i.file === file)?.photo;
  return photo ? project.path(`/intake/${photo}/source`) : undefined;
};
const rayIn = (file: string) => props.rays?.rays.find((r) => r.image === file) ?? null;
const shownIn = (file: string) => props.rays?.shows.find((r) => r.image === file) ?? null;
const lineIn = (file: string) =>
  props.rays?.lines
    .find((l) => l.image === file)
    ?.line.map((p) => `${p[0].toFixed(1)},${p[1].toFixed(1)}`)
    .join(' ') ?? '';
const whole = computed(() => `0 0 ${props.mission.width} ${props.mission.height}`);
const box = computed(() => {
  const middle = rayIn(active.value) ?? shownIn(active.value);
  if (!isNear.value || !middle) return whole.value;
  const wide = NEAR;
  const high = (NEAR * props.mission.height) / props.mission.width;
  return `${middle.x - wide} ${middle.y - high} ${2 * wide} ${2 * high}`;
});
const size = computed(() => Number(box.value.split(' ')[2]) / 60);

function click(event: MouseEvent) {
  const matrix = frame.value?.getScreenCTM();
  if (!matrix || !props.mayPick) return;
  const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
  if (p.x < 0 || p.y < 0 || p.x > props.mission.width || p.y > props.mission.height) return;
  emit('pick', active.value, { x: p.x, y: p.y });
}
watch(
  () => props.mission.id,
  () => {
    if (!props.mission.images.some((i) => i.file === active.value)) active.value = props.mission.images[0]?.file ?? '';
  },
  { immediate: true },
);
</script>

<template>
  <div class="images">
    <div class="top">
      <span class="mono">{{ active }}</span>
      <ElCheckbox v-model="isNear" :disabled="!rayIn(active) && !shownIn(active)" data-test="rays-near">near</ElCheckbox>
      <span class="quiet">{{
        !mayPick
          ? 'Orient the images first.'
          : !rays
            ? 'Click a place in it.'
            : rayIn(active)
              ? active === rays.rays[0]?.image
                ? 'Click elsewhere for another place.'
                : 'Click to move its ray.'
              : 'Click where it shows the place, on the line.'
      }}</span>
    </div>
    <svg ref="frame" class="large" :viewBox="box" data-test="pick-view" role="img" :aria-label="`${active}, to pick in`" @click="click">
      <image v-if="source(active)" :href="source(active)" :width="mission.width" :height="mission.height" />
      <polyline v-if="lineIn(active)" class="line" :points="lineIn(active)" />
      <circle v-if="!rayIn(active) && shownIn(active)" class="guess" :cx="shownIn(active)!.x" :cy="shownIn(active)!.y" :r="1.6 * size" />
      <path
        v-if="rayIn(active)"
        class="ray"
        :d="`M${rayIn(active)!.x - 1.4 * size} ${rayIn(active)!.y}h${2.8 * size}M${rayIn(active)!.x} ${rayIn(active)!.y - 1.4 * size}v${2.8 * size}`"
      />
    </svg>
    <div class="strip" data-test="strip">
      <button
        v-for="i in mission.images"
        :key="i.file"
        type="button"
        :class="{ on: i.file === active }"
        :aria-label="i.file"
        :aria-pressed="i.file === active"
        :data-test="`image-${i.file}`"
        @click="active = i.file"
      >
        <svg :viewBox="whole">
          <image v-if="i.photo" :href="source(i.file)" :width="mission.width" :height="mission.height" />
          <polyline v-if="lineIn(i.file)" class="line" :points="lineIn(i.file)" />
          <circle v-if="rayIn(i.file)" class="found" :cx="rayIn(i.file)!.x" :cy="rayIn(i.file)!.y" :r="mission.width / 45" />
        </svg>
        <span class="mono">{{ i.file.replace(/\.jpe?g$/i, '') }}</span>
      </button>
    </div>
  </div>
</template>

<style scoped>
.images {
  position: absolute;
  inset: 48px 14px 12px;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.top {
  display: flex;
  gap: 14px;
  align-items: center;
}
.large {
  flex: 1;
  min-height: 0;
  width: 100%;
  cursor: crosshair;
  background: var(--paper-deep);
}
.strip {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(88px, 1fr));
  gap: 6px;
  max-height: 230px;
  overflow-y: auto;
}
.strip button {
  display: flex;
  flex-direction: column;
  padding: 2px;
  border: 1px solid var(--rule);
  background: none;
  font-size: 11px;
  color: inherit;
  cursor: pointer;
}
.strip button.on {
  border-color: var(--ink);
  outline: 1px solid var(--ink);
}
.line,
.guess {
  fill: none;
  stroke: #e9c46a;
  stroke-width: 1.6;
  vector-effect: non-scaling-stroke;
}
.ray,
.found {
  fill: none;
  stroke: #c0392b;
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}
</style>

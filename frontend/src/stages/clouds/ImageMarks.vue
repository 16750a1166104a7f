<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { get } from '../../api/client';
import type { FlightsView, MissionView } from '../../api/types';
import { useProject } from '../../state/project';
import { marked, type Mark } from './flights';

/** Control is marked in the images by clicking; where it should be seen is shown, from the orientation or from the mission. */
const props = defineProps<{ mission: MissionView; points: FlightsView['points'] }>();
const marks = defineModel<Mark[]>({ required: true });
const project = useProject();
const NEAR = 120;

const point = ref(props.points[0]?.name ?? '');
const shown = ref<{ image: string; x: number; y: number }[]>([]);
const image = ref('');
const isNear = ref(true);
const frame = ref<SVGSVGElement | null>(null);

const photo = computed(() => props.mission.images.find((i) => i.file === image.value)?.photo ?? null);
const at = computed(() => shown.value.find((s) => s.image === image.value) ?? null);
const mark = computed(() => marks.value.find((m) => m.point === point.value && m.image === image.value) ?? null);
const of = (name: string) => marks.value.filter((m) => m.point === name).length;
const isMarked = (file: string) => marks.value.some((m) => m.point === point.value && m.image === file);
const box = computed(() => {
  const { width, height } = props.mission;
  const middle = mark.value ?? at.value;
  if (!isNear.value || !middle) return [0, 0, width, height];
  const reach = Math.min(NEAR, width / 3);
  return [middle.x - reach, middle.y - 0.75 * reach, 2 * reach, 1.5 * reach];
});
const size = computed(() => box.value[2]! / 50);

let asked = 0;
async function look() {
  if (point.value === '') return;
  const mine = ++asked;
  const answer = await get<typeof shown.value>(
    project.path(`/clouds/missions/${props.mission.id}/shows/${encodeURIComponent(point.value)}`),
  );
  if (mine !== asked) return;
  shown.value = answer;
  if (!answer.some((s) => s.image === image.value)) image.value = answer[0]?.image ?? '';
}
watch([point, () => props.mission], look, { immediate: true });

function click(event: MouseEvent) {
  const svg = frame.value;
  const matrix = svg?.getScreenCTM();
  if (!svg || !matrix || image.value === '' || !project.mayChange) return;
  const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
  if (p.x < 0 || p.y < 0 || p.x > props.mission.width || p.y > props.mission.height) return;
  marks.value = marked(marks.value, point.value, image.value, p);
}
</script>

<template>
  <div class="marks">
    <div class="top">
      <ElSelect v-model="point" aria-label="Point" data-test="mark-point" filterable>
        <ElOption v-for="p in points" :key="p.name" :value="p.name" :label="`${p.name} · ${p.role} · ${of(p.name)} marked`" />
      </ElSelect>
      <ElSelect v-model="image" aria-label="Image" data-test="mark-image" no-data-text="no image shows it">
        <ElOption v-for="s in shown" :key="s.image" :value="s.image" :label="`${isMarked(s.image) ? '✓ ' : ''}${s.image}`" />
      </ElSelect>
      <ElCheckbox v-model="isNear">near</ElCheckbox>
      <span class="spacer" />
      <ElButton size="small" data-test="unmark" :disabled="!mark || !project.mayChange" @click="marks = marked(marks, point, image, null)"
        >Take the mark away</ElButton
      >
    </div>
    <p v-if="shown.length === 0" class="quiet none">No image of this flight shows {{ point || 'a point' }}.</p>
    <svg v-else ref="frame" :viewBox="box.join(' ')" data-test="mark-view" role="img" :aria-label="`${image}, ${point}`" @click="click">
      <image v-if="photo" :href="project.path(`/intake/${photo}/source`)" :width="mission.width" :height="mission.height" />
      <g v-if="at" class="guess">
        <circle :cx="at.x" :cy="at.y" :r="2.2 * size" />
      </g>
      <g v-if="mark" class="set">
        <path :d="`M${mark.x - 1.6 * size} ${mark.y}h${3.2 * size}M${mark.x} ${mark.y - 1.6 * size}v${3.2 * size}`" />
      </g>
    </svg>
    <p class="quiet mono foot">
      <template v-if="mark">marked at {{ mark.x.toFixed(1) }}, {{ mark.y.toFixed(1) }}</template>
      <template v-else-if="at">it should be seen within the circle; click where it is</template>
      <template v-if="!photo && image"> · the image has not come in</template>
    </p>
  </div>
</template>

<style scoped>
.marks {
  position: absolute;
  inset: 48px 14px 12px;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.top {
  display: flex;
  gap: 8px;
  align-items: center;
}
.top .el-select {
  width: 190px;
}
svg {
  flex: 1;
  min-height: 0;
  width: 100%;
  cursor: crosshair;
  background: var(--paper-deep);
}
.guess circle {
  fill: none;
  stroke: #e9c46a;
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}
.set path {
  stroke: #c0392b;
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}
.none {
  flex: 1;
}
.foot {
  margin: 0;
}
</style>

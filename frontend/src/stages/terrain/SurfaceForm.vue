<script setup lang="ts">
import { computed, ref } from 'vue';
import type { LineView, SurfaceRequest, SurfaceView } from '../../api/types';
import { fromDisplayLength, toDisplayLength } from '../../format/units';
import { useProject } from '../../state/project';
import { codeLine, readLines } from './surfaceLines';

const props = defineProps<{
  surface: SurfaceView | null;
  codes: Record<string, number>;
  drawn: [number, number][] | null;
  drawing: boolean;
}>();
const emit = defineEmits<{ save: [r: SurfaceRequest]; cancel: []; draw: [on: boolean] }>();
const project = useProject();
const units = computed(() => project.units);

const name = ref(props.surface?.name ?? '');
const roles = ref<string[]>(props.surface?.roles ?? ['adjusted', 'surveyed']);
const codes = ref<string[]>(props.surface?.codes ?? []);
const exclude = ref((props.surface?.exclude ?? []).join(' '));
const interval = ref(String(Number(toDisplayLength(props.surface?.interval ?? 1, units.value).toFixed(3))));
const maxEdge = ref(props.surface?.maxEdge ? String(toDisplayLength(props.surface.maxEdge, units.value)) : '');
const start = readLines(props.surface?.lines ?? [], Object.keys(props.codes));
const boundary = computed(() => props.drawn ?? start.boundary);
const keepBoundary = ref(true);
const lineCodes = ref(start.codes);
const closed = ref(start.closed);
const others = ref(start.others);
const names = ref('');

function breaklines(): LineView[] {
  const lines = [...others.value, ...lineCodes.value.map((code) => codeLine(code, closed.value, project.points))];
  const typed = names.value.split(/[\s,;]+/).filter(Boolean);
  if (typed.length > 1) lines.push({ role: 'breakline', name: 'by names', points: typed, vertices: [] });
  return lines;
}

const count = computed(
  () =>
    project.points.filter((p) => p.h !== null && roles.value.includes(p.role) && (codes.value.length === 0 || codes.value.includes(p.code)))
      .length,
);

function save() {
  const lines = breaklines();
  if (boundary.value && keepBoundary.value) lines.push({ role: 'boundary', name: 'boundary', points: [], vertices: boundary.value });
  const number = (t: string) => fromDisplayLength(Number(t.replace(',', '.')), units.value);
  emit('save', {
    name: name.value,
    roles: roles.value,
    codes: codes.value,
    exclude: exclude.value.split(/[\s,;]+/).filter(Boolean),
    lines,
    maxEdge: maxEdge.value.trim() === '' ? null : number(maxEdge.value),
    interval: number(interval.value),
  });
}
</script>

<template>
  <ElForm label-position="top" class="make scroll" @submit.prevent="save">
    <h1>{{ surface ? `Change ${surface.name}` : 'Make a surface' }}</h1>
    <ElFormItem label="name"><ElInput id="surface-name" v-model="name" required maxlength="120" autofocus /></ElFormItem>
    <fieldset>
      <legend>
        points <strong class="mono">{{ count }}</strong>
      </legend>
      <ElCheckboxGroup v-model="roles" aria-label="Roles">
        <ElCheckbox v-for="r in ['control', 'adjusted', 'surveyed']" :key="r" :value="r">{{ r }}</ElCheckbox>
      </ElCheckboxGroup>
      <span class="quiet">of codes</span>
      <ElCheckboxGroup v-model="codes" aria-label="Codes">
        <ElCheckbox v-for="(n, c) in props.codes" :key="`code ${c}`" :value="c"
          >{{ c === '' ? 'no code' : c }} <span class="quiet mono">{{ n }}</span></ElCheckbox
        >
      </ElCheckboxGroup>
      <span class="quiet">{{ codes.length === 0 ? '(none ticked: all)' : '' }}</span>
    </fieldset>
    <ElFormItem label="without these points">
      <ElInput id="surface-exclude" v-model="exclude" placeholder="names, such as a pillar that stands proud" />
    </ElFormItem>
    <fieldset>
      <legend>breaklines</legend>
      <ElCheckboxGroup v-model="lineCodes" aria-label="Breaklines along codes">
        <ElCheckbox v-for="c in Object.keys(props.codes).filter((x) => x !== '')" :key="`line ${c}`" :value="c" :data-test="`break-${c}`"
          >along {{ c }}</ElCheckbox
        >
      </ElCheckboxGroup>
      <ElCheckbox v-model="closed">back to their first point</ElCheckbox>
      <ElInput v-model="names" placeholder="or point names in order: P001 P002 P003" aria-label="Breakline by names" />
      <span v-for="(l, i) in others" :key="i" class="quiet"
        >{{ l.role }} {{ l.name }} stays
        <ElButton link type="primary" @click="others = others.filter((_l, k) => k !== i)">take out</ElButton></span
      >
    </fieldset>
    <fieldset>
      <legend>boundary</legend>
      <span v-if="boundary">{{ boundary.length }} corners <ElCheckbox v-model="keepBoundary">cut along it</ElCheckbox></span>
      <span v-else class="quiet">none: the surface reaches to the hull of its points</span>
      <ElButton type="primary" plain data-test="draw-boundary" @click="emit('draw', !drawing)">
        {{ drawing ? 'Stop drawing' : 'Draw on the sketch' }}
      </ElButton>
    </fieldset>
    <div class="two">
      <ElFormItem :label="`contours every (${units.length})`">
        <ElInput id="surface-interval" v-model="interval" class="mono" inputmode="decimal" required />
      </ElFormItem>
      <ElFormItem :label="`longest edge (${units.length})`">
        <ElInput id="surface-edge" v-model="maxEdge" class="mono" inputmode="decimal" placeholder="any" />
      </ElFormItem>
    </div>
    <div class="actions">
      <ElButton type="primary" native-type="submit" data-test="save-surface" :disabled="count < 3">
        {{ surface ? 'Change and compute' : 'Make it' }}</ElButton><ElButton @click="emit('cancel')"> Leave it </ElButton>
    </div>
  </ElForm>
</template>

<style scoped>
.make {
  display: grid;
  gap: 12px;
  align-content: start;
  padding-bottom: 14px;
}
fieldset {
  border: 0;
  border-top: 1px solid var(--rule);
  margin: 0;
  padding: 6px 0 0;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
}
legend {
  padding: 0 8px 0 0;
  color: var(--ink-soft);
}
.two {
  display: grid;
  grid-template-columns: 160px 160px;
  gap: 16px;
}
.actions {
  display: flex;
  gap: 8px;
}
</style>

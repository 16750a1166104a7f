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
  <form class="make scroll" @submit.prevent="save">
    <h1>{{ surface ? `Change ${surface.name}` : 'Make a surface' }}</h1>
    <div class="field">
      <label for="surface-name">name</label><input id="surface-name" v-model="name" class="input" required maxlength="120" autofocus />
    </div>
    <fieldset>
      <legend>
        points <strong class="mono">{{ count }}</strong>
      </legend>
      <label v-for="r in ['control', 'adjusted', 'surveyed']" :key="r"><input v-model="roles" type="checkbox" :value="r" /> {{ r }}</label>
      <span class="quiet">of codes</span>
      <label v-for="(n, c) in props.codes" :key="`code ${c}`"
        ><input v-model="codes" type="checkbox" :value="c" /> {{ c === '' ? 'no code' : c }} <span class="quiet mono">{{ n }}</span></label
      >
      <span class="quiet">{{ codes.length === 0 ? '(none ticked: all)' : '' }}</span>
    </fieldset>
    <div class="field">
      <label for="surface-exclude">without these points</label
      ><input id="surface-exclude" v-model="exclude" class="input" placeholder="names, such as a pillar that stands proud" />
    </div>
    <fieldset>
      <legend>breaklines</legend>
      <label v-for="(_n, c) in props.codes" v-show="c !== ''" :key="`line ${c}`"
        ><input v-model="lineCodes" type="checkbox" :value="c" :data-test="`break-${c}`" /> along {{ c }}</label
      >
      <label><input v-model="closed" type="checkbox" /> back to their first point</label>
      <input v-model="names" class="input" placeholder="or point names in order: P001 P002 P003" aria-label="Breakline by names" />
      <span v-for="(l, i) in others" :key="i" class="quiet"
        >{{ l.role }} {{ l.name }} stays
        <button type="button" class="link" @click="others = others.filter((_l, k) => k !== i)">take out</button></span
      >
    </fieldset>
    <fieldset>
      <legend>boundary</legend>
      <span v-if="boundary"
        >{{ boundary.length }} corners <label><input v-model="keepBoundary" type="checkbox" /> cut along it</label></span
      >
      <span v-else class="quiet">none: the surface reaches to the hull of its points</span>
      <button type="button" class="button" data-test="draw-boundary" @click="emit('draw', !drawing)">
        {{ drawing ? 'Stop drawing' : 'Draw on the sketch' }}
      </button>
    </fieldset>
    <div class="two">
      <div class="field">
        <label for="surface-interval">contours every ({{ units.length }})</label
        ><input id="surface-interval" v-model="interval" class="input mono" inputmode="decimal" required />
      </div>
      <div class="field">
        <label for="surface-edge">longest edge ({{ units.length }})</label
        ><input id="surface-edge" v-model="maxEdge" class="input mono" inputmode="decimal" placeholder="any" />
      </div>
    </div>
    <div class="actions">
      <button class="button main" type="submit" data-test="save-surface" :disabled="count < 3">
        {{ surface ? 'Change and compute' : 'Make it' }}</button><button type="button" class="button plain" @click="emit('cancel')">
        Leave it
      </button>
    </div>
  </form>
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

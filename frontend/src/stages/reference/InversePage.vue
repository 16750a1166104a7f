<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue';
import { get, reasonOf } from '../../api/client';
import { latest } from '../../api/latest';
import type { InverseView } from '../../api/types';
import type { Column } from '../../figures/columns';
import FiguresTable from '../../figures/FiguresTable.vue';
import { sayAngle } from '../../format/angles';
import { angle, length, signed } from '../../format/units';
import { pointsScene, type Scene } from '../../sketch/scene';
import PointPicker from '../../fields/PointPicker.vue';
import { useProject } from '../../state/project';

interface Factor {
  name: string;
  convergence: number | null;
  scale: number | null;
  combined: number | null;
  n: number | null;
}

const props = defineProps<{ picked: string }>();
const emit = defineEmits<{ scene: [scene: Partial<Scene> | null]; picked: [name: string] }>();
const project = useProject();
const units = computed(() => project.units);
const from = ref('');
const to = ref('');
const result = ref<InverseView | null>(null);
const problem = ref('');
const factors = ref<Factor[]>([]);
const names = computed(() => project.points.filter((p) => p.e !== null).map((p) => p.name));

function figure(kind: string, value: number | null): string {
  if (value === null) return '—';
  switch (kind) {
    case 'length':
      return `${length(value, units.value, 1)} ${units.value.length}`;
    case 'angle':
      return angle(value, units.value);
    case 'latitude':
      return sayAngle(value, 'lat', 4);
    case 'longitude':
      return sayAngle(value, 'lon', 4);
    case 'ppm':
      return `${signed(value.toFixed(2))} ppm`;
    default:
      return value.toFixed(9);
  }
}

const ppm = (f: Factor) => (f.combined === null ? null : 1e6 * (f.combined - 1));
const columns = computed<Column<Factor>[]>(() => [
  { key: 'name', title: 'point', width: 'minmax(56px, 1fr)', value: (f) => f.name },
  {
    key: 'convergence',
    title: 'convergence',
    width: '92px',
    align: 'right',
    mono: true,
    value: (f) => f.convergence,
    text: (f) => (f.convergence === null ? '' : angle(f.convergence, units.value)),
  },
  {
    key: 'scale',
    title: 'point scale',
    width: '92px',
    align: 'right',
    mono: true,
    value: (f) => f.scale,
    text: (f) => f.scale?.toFixed(8) ?? '',
  },
  {
    key: 'combined',
    title: 'combined',
    width: '92px',
    align: 'right',
    mono: true,
    value: (f) => f.combined,
    text: (f) => f.combined?.toFixed(8) ?? '',
  },
  {
    key: 'ppm',
    title: 'ppm',
    width: '64px',
    align: 'right',
    mono: true,
    value: ppm,
    text: (f) => signed(ppm(f)?.toFixed(1) ?? ''),
  },
  {
    key: 'n',
    title: 'N',
    unit: units.value.length,
    width: '74px',
    align: 'right',
    mono: true,
    value: (f) => f.n,
    text: (f) => length(f.n, units.value),
  },
]);

const inverses = latest();
watch(
  [from, to, () => project.version],
  () => {
    result.value = null;
    problem.value = '';
    inverses.forget();
    emit('scene', null);
    if (from.value === '' || to.value === '' || !names.value.includes(from.value) || !names.value.includes(to.value)) return;
    void inverses.ask(
      () => get<InverseView>(project.path(`/reference/inverse?from=${encodeURIComponent(from.value)}&to=${encodeURIComponent(to.value)}`)),
      show,
      (e) => (problem.value = reasonOf(e)),
    );
  },
  { immediate: true },
);

function show(inverse: InverseView) {
  result.value = inverse;
  const place = new Map(project.points.map((p) => [p.name, p]));
  const a = place.get(from.value)!;
  const b = place.get(to.value)!;
  emit('scene', {
    ...pointsScene(project.points),
    lines: [{ key: 'inverse', from: [a.e!, a.n!], to: [b.e!, b.n!], style: 'levelled', tone: 'plain' }],
  });
}

// Points clicked on the sketch fill from, then to, then begin again.
watch(
  () => props.picked,
  (name) => {
    if (name === '' || name === from.value) return;
    if (from.value === '' || (to.value !== '' && name !== to.value)) {
      from.value = name;
      to.value = '';
    } else to.value = name;
  },
);

async function load() {
  factors.value = await get<Factor[]>(project.path('/reference/factors'));
}
onMounted(load);
watch(() => project.version, load);
</script>

<template>
  <div class="inverse">
    <div class="row">
      <PointPicker v-model="from" label="from" test="inverse-from" :names="names" />
      <ElButton aria-label="Exchange the two" @click="[from, to] = [to, from]">⇄</ElButton>
      <PointPicker v-model="to" label="to" test="inverse-to" :names="names" />
      <span class="quiet hint">or click two points on the sketch</span>
    </div>
    <ElAlert v-if="problem" type="error" :closable="false">{{ problem }}</ElAlert>
    <p v-else-if="(from && !names.includes(from)) || (to && !names.includes(to))" class="quiet">
      No point with coordinates is called “{{ names.includes(from) ? to : from }}”.
    </p>
    <div v-if="result" class="scroll figures" data-test="inverse">
      <table>
        <tbody>
          <tr v-for="r in result.rows" :key="r.label">
            <td>{{ r.label }}</td>
            <td class="mono value">{{ figure(r.kind, r.value) }}</td>
            <td class="quiet source">{{ r.source }}</td>
          </tr>
        </tbody>
      </table>
      <table v-if="result.ends.length > 0">
        <thead>
          <tr>
            <th></th>
            <th>{{ result.from }}</th>
            <th>{{ result.to }}</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in result.ends" :key="r.label">
            <td>{{ r.label }}</td>
            <td class="mono value">{{ figure(r.kind, r.from) }}</td>
            <td class="mono value">{{ figure(r.kind, r.to) }}</td>
            <td class="quiet source">{{ r.source }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <template v-else>
      <h2 v-if="factors.length > 0">Factors at the points</h2>
      <p v-if="factors.length === 0" class="quiet">Give two points to see every distance and azimuth between them.</p>
      <FiguresTable
        v-else
        label="factors"
        :columns="columns"
        :rows="factors"
        :row-key="(f) => f.name"
        :selected="new Set([picked])"
        @select="(k) => emit('picked', k[0] ?? '')"
      />
    </template>
  </div>
</template>

<style scoped>
.inverse {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.row {
  display: flex;
  gap: 10px;
  align-items: flex-end;
}
.row .field {
  width: 150px;
}
.hint {
  padding-bottom: 5px;
}
.figures {
  display: grid;
  gap: 14px;
  align-content: start;
  padding-bottom: 14px;
}
table {
  border-collapse: collapse;
  width: 100%;
}
td {
  padding: 3px 12px 3px 0;
  border-bottom: 1px solid var(--rule);
  vertical-align: baseline;
}
th {
  text-align: right;
  padding-right: 12px;
  font-weight: 600;
  border-bottom: 1.5px solid var(--ink);
}
.value {
  text-align: right;
  white-space: nowrap;
}
.source {
  font-size: 11.5px;
}
</style>

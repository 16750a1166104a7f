<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue';
import { post } from '../../api/client';
import type { TraverseRequest, TraverseStationView, TraverseView } from '../../api/types';
import NumberInput from '../../fields/NumberInput.vue';
import { figures, words, type Column } from '../../figures/columns';
import FiguresTable from '../../figures/FiguresTable.vue';
import { angle, length, lengthUnit, small, smallAngle, smallUnit } from '../../format/units';
import { useProject } from '../../state/project';

/** A traverse along set-ups: its closures, and its points by the compass rule beside least squares. */
const emit = defineEmits<{ trace: [names: string[]]; point: [name: string] }>();
const project = useProject();
const units = computed(() => project.units);
const traverse = shallowRef<TraverseView | null>(null);
const back = ref('');
const stations = ref<string[]>([]);
const fore = ref('');
const angular = ref<number | null>(15);
const ratio = ref<number | null>(10000);
const chosen = ref(new Set<string>());

async function work() {
  await project.attempt(async () => {
    traverse.value = await post<TraverseView>(project.path('/traverse/draft'), {
      back: back.value,
      stations: stations.value,
      fore: fore.value,
      angular: angular.value ?? 15,
      ratio: ratio.value ?? 10000,
    } satisfies TraverseRequest);
    const t = traverse.value;
    if (stations.value.length === 0) {
      back.value = t.back ?? '';
      stations.value = t.stations.map((s) => s.name);
      fore.value = t.fore ?? '';
    }
    emit(
      'trace',
      t.stations.length > 0 ? [...(t.back ? [t.back] : []), ...t.stations.map((s) => s.name), ...(t.fore ? [t.fore] : [])] : [],
    );
  });
}
onMounted(work);
watch(() => project.version, work);

const found = computed(() => traverse.value?.found ?? []);
const which = computed(() =>
  found.value.findIndex(
    (l) => l.stations.join('\n') === stations.value.join('\n') && (l.back ?? '') === back.value && (l.fore ?? '') === fore.value,
  ),
);
function take(index: number) {
  const line = found.value[index];
  if (!line) return;
  [back.value, stations.value, fore.value] = [line.back ?? '', [...line.stations], line.fore ?? ''];
  void work();
}
const names = computed(() => [...new Set([...(traverse.value?.occupied ?? []), ...project.points.map((p) => p.name)])].slice(0, 3000));

/** Least squares where the traverse is closed; the compass rule beside it, or alone. */
const isRigorous = computed(() => traverse.value?.stations.some((s) => s.rigorousE !== null) ?? false);
const less = (a: number | null, b: number | null) => (a === null || b === null ? null : a - b);
const columns = computed<Column<TraverseStationView>[]>(() => {
  const u = units.value;
  const both = isRigorous.value;
  const place = (title: string, of: (s: TraverseStationView) => number | null) =>
    figures<TraverseStationView>(title, title, 82, of, (s) => length(of(s), u), {
      unit: lengthUnit(u),
      hint: both ? 'By least squares' : 'By the compass rule',
    });
  const fine = (key: string, title: string, of: (s: TraverseStationView) => number | null, hint: string, sign = true) =>
    figures<TraverseStationView>(key, title, sign ? 46 : 34, of, (s) => small(of(s), u, sign), { unit: smallUnit(u), hint });
  const turn = (key: 'angle' | 'azimuth', hint: string) =>
    figures<TraverseStationView>(
      key,
      key,
      76,
      (s) => s[key],
      (s) => (s[key] === null ? '' : angle(s[key], u)),
      { hint },
    );
  return [
    words('name', 'station', 44, (s) => s.name),
    turn('angle', 'Clockwise from the station before to the next'),
    figures(
      'distance',
      'distance',
      62,
      (s) => s.distance,
      (s) => length(s.distance, u, 1),
      { unit: lengthUnit(u), hint: 'To the next station, on the grid: the mean of there and back' },
    ),
    place('easting', (s) => (both ? s.rigorousE : s.e)),
    place('northing', (s) => (both ? s.rigorousN : s.n)),
    ...(both
      ? [
          fine('sd', 'sd', (s) => Math.max(s.sdE ?? 0, s.sdN ?? 0), 'Of the least-squares place, the larger of east and north', false),
          fine('de', 'rule E', (s) => less(s.e, s.rigorousE), 'Easting by the compass rule less that by least squares'),
          fine('dn', 'rule N', (s) => less(s.n, s.rigorousN), 'Northing by the compass rule less that by least squares'),
        ]
      : []),
    turn('azimuth', 'To the next station, with balanced angles'),
    fine('back', 'there −back', (s) => s.thereLessBack, 'The distance there less the one back'),
  ];
});
const isAngular = computed(() => {
  const t = traverse.value;
  return t?.angularMisclosure == null || t.angularAllowed === null ? null : Math.abs(t.angularMisclosure) <= t.angularAllowed;
});
const isLinear = computed(() => {
  const t = traverse.value;
  return t?.linear == null || t.linearAllowed === null ? null : t.linear <= t.linearAllowed;
});
</script>

<template>
  <section v-if="traverse" class="traverse">
    <form class="line" @submit.prevent="work">
      <ElSelect
        v-if="found.length > 0"
        size="small"
        aria-label="Traverses found"
        placeholder="another line"
        :model-value="which < 0 ? undefined : which"
        @change="take"
      >
        <ElOption
          v-for="(l, i) in found"
          :key="i"
          :value="i"
          :label="`${l.stations[0]} to ${l.stations.at(-1)}, ${l.stations.length} stations`"
        />
      </ElSelect>
      <ElSelect v-model="back" size="small" filterable clearable aria-label="Backsight" placeholder="backsight" :value-on-clear="''">
        <ElOption v-for="n in names" :key="n" :value="n" :label="n" />
      </ElSelect>
      <ElSelect
        v-model="stations"
        class="many"
        size="small"
        multiple
        filterable
        aria-label="Stations in order"
        placeholder="stations in order"
      >
        <ElOption v-for="n in names" :key="n" :value="n" :label="n" />
      </ElSelect>
      <ElSelect v-model="fore" size="small" filterable clearable aria-label="Foresight" placeholder="foresight" :value-on-clear="''">
        <ElOption v-for="n in names" :key="n" :value="n" :label="n" />
      </ElSelect>
      <ElButton type="primary" size="small" native-type="submit" data-test="traverse">Close it</ElButton>
    </form>
    <p v-if="traverse.stations.length === 0" class="quiet">
      No line of set-ups leads from control to control. Choose a backsight with coordinates and the stations in order, then a foresight to
      close the angles on.
    </p>
    <template v-else>
      <ElAlert v-if="traverse.fault" type="warning" :closable="false">{{ traverse.fault }}</ElAlert>
      <div v-else class="closures">
        <span v-if="traverse.angularMisclosure !== null" :class="isAngular ? 'holds' : 'fails'"
          >{{ isAngular ? '✓' : '▲' }} angles close to {{ smallAngle(traverse.angularMisclosure, units, true) }}, allowed
          {{ smallAngle(traverse.angularAllowed, units) }}</span
        >
        <span v-else>angles are not closed: no foresight</span>
        <span v-if="traverse.linear !== null" :class="isLinear ? 'holds' : 'fails'"
          >{{ isLinear ? '✓' : '▲' }} position closes to {{ small(traverse.linear, units) }} {{ smallUnit(units) }} (east
          {{ small(traverse.misclosureE, units, true) }}, north {{ small(traverse.misclosureN, units, true) }}) in
          {{ length(traverse.length, units) }} {{ lengthUnit(units) }}, 1 : {{ traverse.ratio?.toFixed(0) }}; allowed
          {{ small(traverse.linearAllowed, units) }} {{ smallUnit(units) }}</span
        >
        <span v-else>position is not closed: the end is not control</span>
        <span v-if="traverse.varianceFactor !== null" :class="traverse.passed === false ? 'fails' : 'holds'"
          >{{ traverse.passed === false ? '▲' : '✓' }} least squares with the weights of the network: variance factor
          {{ traverse.varianceFactor.toFixed(2) }}</span
        >
      </div>
      <FiguresTable
        label="traverse"
        :columns="columns"
        :rows="traverse.stations"
        :row-key="(s) => s.name"
        :selected="chosen"
        :filterable="false"
        @select="
          (keys) => {
            chosen = new Set(keys);
            if (keys[0]) emit('point', keys[0]);
          }
        "
      />
      <form class="allowed" @submit.prevent="work">
        <NumberInput v-model="angular" label="allowed by root of the angles" unit="″" :digits="2" />
        <NumberInput v-model="ratio" label="allowed in position: one in" :digits="0" />
        <ElButton size="small" native-type="submit">Allow so</ElButton>
        <span class="quiet">Places by least squares; “rule” is the compass rule less these.</span>
      </form>
    </template>
  </section>
</template>

<style scoped>
.traverse {
  display: flex;
  flex-direction: column;
  gap: 6px;
  flex: 1;
  min-height: 0;
}
.line {
  display: grid;
  grid-template-columns: 1.3fr 0.7fr 2fr 0.7fr auto;
  gap: 6px;
  align-items: start;
}
.closures {
  display: flex;
  flex-direction: column;
}
.allowed {
  display: grid;
  grid-template-columns: 190px 190px auto 1fr;
  gap: 10px;
  align-items: center;
  padding-bottom: 6px;
}
p {
  margin: 0;
}
</style>

<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue';
import type { PlanStationView } from '../../api/types';
import NumberInput from '../../fields/NumberInput.vue';
import { figures, words, type Column } from '../../figures/columns';
import FiguresTable from '../../figures/FiguresTable.vue';
import { height, length, lengthUnit, metresPer, small, smallUnit } from '../../format/units';
import { useProject } from '../../state/project';
import { KINDS, renamed, without, type PlanMark } from './plan';
import type { PlanState } from './usePlan';

/** A network before it is measured: marks and sights placed on the sketch, and how precise and how well checked it will be. */
const props = defineProps<{ state: PlanState }>();
const { plan, view, isEdited, mode, kind, rounds, from, chosen, load, change, keep } = props.state;
const project = useProject();
const units = computed(() => project.units);
const page = ref<'stations' | 'sights'>('stations');
const picked = ref(new Set<string>());
onMounted(load);
watch(
  () => project.version,
  () => {
    if (!isEdited.value) void load();
  },
);

interface SightRow {
  key: string;
  from: string;
  to: string;
  kind: string;
  rounds: number;
  redundancy: number | null;
  external: number | null;
}
const sightRows = computed<SightRow[]>(() =>
  (plan.value?.sights ?? []).map((s, i) => ({
    key: String(i),
    ...s,
    redundancy: view.value?.worth[i]?.redundancy ?? null,
    external: view.value?.worth[i]?.external ?? null,
  })),
);
/** Without a result the planned marks are listed all the same. */
const stationRows = computed<PlanStationView[]>(() => {
  const found = view.value?.stations ?? [];
  if (found.length > 0) return [...found].sort((a, b) => Number(b.planned) - Number(a.planned));
  return (plan.value?.marks ?? []).map((m) => ({ ...m, sdE: 0, sdN: 0, sdH: 0, semiMajor: 0, semiMinor: 0, bearing: 0, planned: true }));
});
const hasResult = computed(() => (view.value?.stations.length ?? 0) > 0);
const wanted = computed(() => plan.value?.settings.wanted ?? 0.005);
const beyond = computed(() => stationRows.value.filter((s) => s.planned && s.semiMajor > wanted.value));
const weak = computed(() => sightRows.value.filter((s) => s.redundancy !== null && s.redundancy < 0.1));

const stationColumns = computed<Column<PlanStationView>[]>(() => {
  const u = units.value;
  const fine = (key: string, title: string, of: (s: PlanStationView) => number) =>
    figures<PlanStationView>(key, title, 42, of, (s) => (hasResult.value ? small(of(s), u) : ''), { unit: smallUnit(u) });
  return [
    words('name', 'mark', 48, (s) => s.name),
    words('planned', '', 58, (s) => (s.planned ? 'planned' : '')),
    figures(
      'e',
      'easting',
      82,
      (s) => s.e,
      (s) => length(s.e, u, -2),
      { unit: lengthUnit(u) },
    ),
    figures(
      'n',
      'northing',
      90,
      (s) => s.n,
      (s) => length(s.n, u, -2),
      { unit: lengthUnit(u) },
    ),
    figures(
      'h',
      'height',
      52,
      (s) => s.h,
      (s) => height(s.h, u, -2),
      { unit: lengthUnit(u) },
    ),
    fine('major', 'ellipse', (s) => s.semiMajor),
    fine('minor', 'by', (s) => s.semiMinor),
    fine('sdH', 'sd H', (s) => s.sdH),
    words('verdict', '', 64, (s) => (!hasResult.value || !s.planned ? '' : s.semiMajor > wanted.value ? '▲ beyond' : '✓')),
  ];
});
const sightColumns = computed<Column<SightRow>[]>(() => [
  words('from', 'from', 60, (s) => s.from),
  words('to', 'to', 60, (s) => s.to),
  words('kind', 'kind', 84, (s) => KINDS.find(([k]) => k === s.kind)?.[1] ?? s.kind),
  figures('rounds', 'times', 50, (s) => s.rounds),
  figures(
    'redundancy',
    'redundancy',
    70,
    (s) => s.redundancy,
    (s) => s.redundancy?.toFixed(2) ?? '',
    { hint: 'The least redundancy number of what it measures: 0 is checked by nothing, 1 wholly by others' },
  ),
  figures(
    'external',
    'external effect',
    70,
    (s) => s.external,
    (s) => small(s.external, units.value),
    { unit: smallUnit(units.value), hint: 'How far a bias that just stays undetected moves a mark' },
  ),
  words('verdict', '', 110, (s) => (s.redundancy !== null && s.redundancy < 0.1 ? '▲ hardly checked' : '')),
]);

const mark = computed<PlanMark | null>(() => plan.value?.marks.find((m) => m.name === chosen.value) ?? null);
const typed = ref('');
const problem = ref('');
watch(mark, (m) => (typed.value = m?.name ?? ''), { immediate: true });
const metre = computed(() => metresPer(units.value));
const fineUnit = computed(() => (units.value.length === 'm' ? 0.001 : metre.value));

const PLACE = [
  ['e', 'easting'],
  ['n', 'northing'],
  ['h', 'height'],
] as const;
const SETTINGS = [
  ['wanted', 'ellipse wanted', true],
  ['vectorPlan', 'vector in plan', true],
  ['vectorHeight', 'in height', true],
  ['vectorPpm', 'and by length, ppm', false],
  ['perKm', 'levelled, by √km', true],
] as const;

function edit(over: Partial<PlanMark>) {
  if (!plan.value || !mark.value) return;
  const next = { ...mark.value, ...over };
  problem.value = '';
  if (next.name !== mark.value.name && plan.value.marks.some((m) => m.name === next.name)) {
    problem.value = `${next.name} is planned already`;
    return;
  }
  const before = mark.value.name;
  chosen.value = next.name;
  void change(renamed(plan.value, before, next));
}
function set(over: Partial<NonNullable<typeof plan.value>['settings']>) {
  if (plan.value) void change({ ...plan.value, settings: { ...plan.value.settings, ...over } });
}
function setNumber(key: (typeof SETTINGS)[number][0], value: number | null) {
  if (value !== null && value >= 0 && value !== plan.value?.settings[key]) set({ [key]: value });
}
function removeSights() {
  if (!plan.value) return;
  const sights = plan.value.sights.filter((_, i) => !picked.value.has(String(i)));
  picked.value = new Set();
  void change({ ...plan.value, sights });
}
</script>

<template>
  <section v-if="plan" class="plan">
    <div class="tools">
      <ElRadioGroup v-model="mode" size="small" aria-label="A click on the sketch">
        <ElRadioButton value="marks">Place marks</ElRadioButton><ElRadioButton value="sights">Lay sights</ElRadioButton>
      </ElRadioGroup>
      <template v-if="mode === 'sights'">
        <ElSelect v-model="kind" size="small" class="kind" aria-label="Kind of sight">
          <ElOption v-for="[key, label] in KINDS" :key="key" :value="key" :label="label" />
        </ElSelect>
        <ElInputNumber v-model="rounds" size="small" class="rounds" :min="1" :max="50" aria-label="Times measured" />
        <span class="quiet"
          >times; {{ from === '' ? 'click where it starts' : `from ${from}: click its targets, then ${from} again` }}</span
        >
      </template>
      <span v-else class="quiet">click the sketch where a mark shall be</span>
    </div>
    <ElAlert v-if="view?.fault" type="warning" :closable="false">{{ view.fault }}</ElAlert>
    <p v-else-if="hasResult">
      <span :class="beyond.length > 0 ? 'fails' : 'holds'">{{
        beyond.length > 0
          ? `▲ ${beyond.length} planned mark${beyond.length === 1 ? '' : 's'} beyond the ellipse wanted: ${beyond
              .slice(0, 4)
              .map((s) => s.name)
              .join(', ')}`
          : '✓ every planned mark within the ellipse wanted'
      }}</span>;
      <span :class="weak.length > 0 ? 'fails' : 'holds'">{{
        weak.length > 0 ? `▲ ${weak.length} sight${weak.length === 1 ? '' : 's'} hardly checked` : '✓ every sight is checked'
      }}</span>; redundancy {{ view?.redundancy }}.
    </p>
    <p v-else class="quiet">Lay sights from marks that are known to the planned ones; precision and reliability appear as you do.</p>
    <div class="tools">
      <ElRadioGroup v-model="page" size="small" aria-label="Shown of the plan">
        <ElRadioButton value="stations">Marks {{ stationRows.length }}</ElRadioButton
        ><ElRadioButton value="sights">Sights {{ sightRows.length }}</ElRadioButton>
      </ElRadioGroup>
      <ElCheckbox :model-value="plan.settings.withMeasured" @update:model-value="set({ withMeasured: $event === true })"
        >with what is measured already</ElCheckbox
      >
      <span class="spacer" />
      <ElButton v-if="page === 'sights' && picked.size > 0" size="small" data-test="remove-sights" @click="removeSights"
        >Remove {{ picked.size }}</ElButton
      >
      <ElButton v-if="isEdited" size="small" @click="load">Leave it</ElButton>
      <ElButton size="small" type="primary" data-test="keep-plan" :disabled="!isEdited || !project.mayChange" @click="keep"
        >Keep the plan</ElButton
      >
    </div>
    <FiguresTable
      v-if="page === 'stations'"
      label="planned-marks"
      :columns="stationColumns"
      :rows="stationRows"
      :row-key="(s) => s.name"
      :selected="new Set([chosen])"
      :filterable="false"
      @select="(keys) => (chosen = keys[0] ?? '')"
      ><template #empty><p class="quiet">No mark is planned yet. Click the sketch where one shall be.</p></template></FiguresTable
    >
    <FiguresTable
      v-else
      label="planned-sights"
      :columns="sightColumns"
      :rows="sightRows"
      :row-key="(s) => s.key"
      :selected="picked"
      :filterable="false"
      @select="(keys) => (picked = new Set(keys))"
      ><template #empty
        ><p class="quiet">No sight is planned yet. Choose “Lay sights”, then click from mark to mark.</p></template
      ></FiguresTable
    >
    <form v-if="mark && page === 'stations'" class="fields" @submit.prevent="edit({ name: typed.trim() || mark.name })">
      <ElFormItem label="mark"
        ><ElInput v-model="typed" aria-label="Name of the mark" @change="edit({ name: typed.trim() || mark!.name })"
      /></ElFormItem>
      <NumberInput
        v-for="[key, label] in PLACE"
        :key="key"
        :model-value="mark[key]"
        :label="label"
        :unit="lengthUnit(units)"
        :factor="metre"
        :digits="2"
        @update:model-value="(v) => v !== null && edit({ [key]: v })"
      />
      <ElCheckbox :model-value="mark.held" @update:model-value="edit({ held: $event === true })">held</ElCheckbox>
      <ElButton size="small" data-test="remove-mark" @click="change(without(plan!, mark!.name))">Remove</ElButton>
      <span v-if="problem" class="fails">{{ problem }}</span>
    </form>
    <form v-else class="fields" @submit.prevent>
      <NumberInput
        v-for="[key, label, isLength] in SETTINGS"
        :key="key"
        :model-value="plan.settings[key]"
        :label="label"
        :unit="isLength ? smallUnit(units) : ''"
        :factor="isLength ? fineUnit : 1"
        @update:model-value="(v) => setNumber(key, v)"
      />
      <span class="quiet">Total-station sights take the weights of the network.</span>
    </form>
  </section>
</template>

<style scoped>
.plan {
  display: flex;
  flex-direction: column;
  gap: 6px;
  flex: 1;
  min-height: 0;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 8px;
  align-items: center;
}
.kind {
  width: 118px;
}
.rounds {
  width: 90px;
}
.fields {
  display: grid;
  grid-template-columns: repeat(5, minmax(0, 1fr)) minmax(0, 1.1fr);
  gap: 4px 10px;
  align-items: start;
  padding-bottom: 8px;
}
p {
  margin: 0;
}
</style>

<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { post, put } from '../../api/client';
import type { Conflict, ConflictField } from '../../api/conflict';
import type { ControlRequest, PointView, RenameRequest } from '../../api/types';
import type { Column } from '../../figures/columns';
import FiguresTable from '../../figures/FiguresTable.vue';
import ConflictSheet from '../../frame/ConflictSheet.vue';
import RemarkList from '../../frame/RemarkList.vue';
import Slip from '../../frame/Slip.vue';
import { readNumber } from '../../format/angles';
import { fromDisplayLength, height, length, small, smallUnit, toDisplayLength } from '../../format/units';
import { useProject } from '../../state/project';

const props = defineProps<{ selected: Set<string> }>();
const emit = defineEmits<{ select: [names: string[]] }>();
const project = useProject();
const units = computed(() => project.units);
const all = ref(false);
const shown = computed(() => project.points.filter((p) => all.value || p.role !== 'surveyed'));
const point = computed(() => project.points.find((p) => props.selected.has(p.name)) ?? null);
const form = ref({ e: '', n: '', h: '', held: '', sdE: '', sdN: '', sdH: '' });
const rename = ref('');
const checks = computed(() => project.points.filter((p) => p.role === 'check').length);

const columns = computed<Column<PointView>[]>(() => [
  { key: 'name', title: 'point', width: '54px', value: (p) => p.name },
  {
    key: 'role',
    title: 'role',
    width: '60px',
    value: (p) => p.role,
    text: (p) => (p.known === 'local' && project.overview?.reference !== 'plane' ? 'local' : p.role),
    sortBy: (p) => ['control', 'check', 'adjusted', 'surveyed'].indexOf(p.role),
  },
  { key: 'held', title: 'held', width: '32px', value: (p) => p.held },
  {
    key: 'e',
    title: 'given easting',
    unit: units.value.length,
    width: '108px',
    align: 'right',
    mono: true,
    value: (p) => p.givenE,
    text: (p) => length(p.givenE, units.value, 1),
  },
  {
    key: 'n',
    title: 'given northing',
    unit: units.value.length,
    width: '114px',
    align: 'right',
    mono: true,
    value: (p) => p.givenN,
    text: (p) => length(p.givenN, units.value, 1),
  },
  {
    key: 'h',
    title: 'given height',
    unit: units.value.length,
    width: '84px',
    align: 'right',
    mono: true,
    value: (p) => p.givenH,
    text: (p) => height(p.givenH, units.value, 1),
  },
  {
    key: 'sd',
    title: 'sd',
    unit: smallUnit(units.value),
    width: '104px',
    align: 'right',
    mono: true,
    value: (p) => p.sdE,
    text: (p) =>
      [p.sdE, p.sdN, p.sdH]
        .filter((v) => v !== null)
        .map((v) => small(v, units.value))
        .join(' '),
  },
]);

const conflict = ref<Conflict | null>(null);
const mine = ref<ControlRequest | null>(null);
/** The form as it was filled, and the version of the mark it was filled from. */
let filled = '';
let seen = 0;

function fill(p: PointView | null) {
  rename.value = p?.name ?? '';
  const text = (v: number | null | undefined) =>
    v === null || v === undefined ? '' : String(Number(toDisplayLength(v, units.value).toFixed(5)));
  const mm = (v: number | null | undefined) => (v === null || v === undefined ? '' : String(Number((1000 * v).toFixed(3))));
  form.value = {
    e: text(p?.givenE ?? p?.e),
    n: text(p?.givenN ?? p?.n),
    h: text(p?.givenH ?? p?.h),
    held: p?.held ?? '',
    sdE: mm(p?.sdE),
    sdN: mm(p?.sdN),
    sdH: mm(p?.sdH),
  };
  filled = JSON.stringify(form.value);
  seen = p?.version ?? 0;
  conflict.value = null;
}

// What is being typed stays when the points are loaded again: whoever saves second is asked, not overwritten.
watch(
  point,
  (p, before) => {
    if (p?.name !== before?.name || JSON.stringify(form.value) === filled) fill(p);
  },
  { immediate: true },
);

const inLength = (v: unknown) => (typeof v === 'number' ? length(v, units.value, 1) : '');
const inMm = (v: unknown) => (typeof v === 'number' ? `${Number((1000 * v).toFixed(3))} mm` : '');
const FIELDS: ConflictField[] = [
  { key: 'e', label: 'easting', text: inLength },
  { key: 'n', label: 'northing', text: inLength },
  { key: 'h', label: 'height', text: inLength },
  { key: 'held', label: 'held', text: (v) => String(v ?? '') },
  { key: 'sdE', label: 'sd e', text: inMm },
  { key: 'sdN', label: 'sd n', text: inMm },
  { key: 'sdH', label: 'sd h', text: inMm },
];

const read = (text: string) => readNumber(text, units.value.length);

async function save() {
  if (!point.value) return;
  const number = (t: string) => (t.trim() === '' ? null : fromDisplayLength(read(t).value ?? NaN, units.value));
  const metres = (t: string) => (t.trim() === '' ? null : Number(t.replace(',', '.')) / 1000);
  const f = form.value;
  const values = [number(f.e), number(f.n), number(f.h)] as const;
  const sds = [metres(f.sdE), metres(f.sdN), metres(f.sdH)] as const;
  if ([...values, ...sds].some((v) => v !== null && !Number.isFinite(v))) {
    project.say('bad', 'A coordinate or a standard deviation is not a number.');
    return;
  }
  await send(
    { point: point.value.name, e: values[0], n: values[1], h: values[2], held: f.held, sdE: sds[0], sdN: sds[1], sdH: sds[2] },
    seen,
  );
}

async function send(values: ControlRequest, version: number | string) {
  mine.value = values;
  const ok = await project.attempt(
    () => put(project.path('/control'), values, version),
    `Control ${values.point} changed.`,
    (theirs) => (conflict.value = theirs),
  );
  if (ok) fill(point.value);
}

/** Makes the mark a check point, or control again that is weighted or held from then on. */
const holdOut = () => {
  const name = point.value!.name;
  return project.attempt(
    () => post(project.path('/control/check'), { points: [name] }),
    `${name} is a check point; no adjustment uses it.`,
  );
};

async function keepTheirs() {
  await project.refresh();
  fill(point.value);
}

async function renameNow() {
  // The form follows the points as they are loaded again; by then the old name is nobody's.
  const from = point.value?.name;
  const to = rename.value;
  if (!from || to === from) return;
  if (
    await project.attempt(
      () => post(project.path('/points/rename'), { from, to } satisfies RenameRequest),
      `Renamed to ${to}; its observations follow.`,
    )
  )
    emit('select', [to]);
}
</script>

<template>
  <FiguresTable
    label="control"
    :columns="columns"
    :rows="shown"
    :row-key="(p) => p.name"
    :selected="selected"
    :sort="{ key: 'role', desc: false }"
    @select="(k) => emit('select', k)"
  >
    <template #tools
      ><ElCheckbox class="quiet" v-model="all">surveyed points too</ElCheckbox>
      <span v-if="checks > 0" class="quiet" data-test="held-out"
        >{{ checks }} check {{ checks === 1 ? 'point is' : 'points are' }} held out of every adjustment</span
      ></template
    >
    <template #empty><p class="quiet">No control yet. Bring in a control list, or give an adjusted station values here.</p></template>
  </FiguresTable>
  <Slip v-if="point">
    <RemarkList :about="`point:${point.name}`" />
    <ConflictSheet
      v-if="conflict && mine"
      :what="point.name"
      :conflict="conflict"
      :fields="FIELDS"
      :mine="{ ...mine }"
      @theirs="keepTheirs"
      @save="(values, version) => send(values as unknown as ControlRequest, version)"
    />
    <form v-else class="edit" @submit.prevent="save">
      <strong>{{ point.name }}</strong>
      <ElFormItem
        v-for="[k, t] in [
          ['e', 'easting'],
          ['n', 'northing'],
          ['h', 'height'],
        ] as const"
        :key="k"
        class="field"
        :label="`${t} ${units.length}`"
        ><ElInput
          v-model="form[k]"
          class="mono"
          :aria-label="t"
          inputmode="decimal"
          :aria-invalid="read(form[k]).problem !== ''"
          :disabled="!project.mayChange"
        /><span class="read" :class="read(form[k]).problem ? 'fails' : 'quiet'">{{
          read(form[k]).problem || read(form[k]).said
        }}</span></ElFormItem
      >
      <ElFormItem class="field held" label="held"
        ><ElSelect v-model="form.held" aria-label="held" :disabled="!project.mayChange">
          <ElOption value="" label="not" />
          <ElOption value="enh" label="e n h" />
          <ElOption value="en" label="e n" />
          <ElOption value="h" label="h" /> </ElSelect
      ></ElFormItem>
      <ElFormItem
        v-for="[k, t] in [
          ['sdE', 'sd e'],
          ['sdN', 'sd n'],
          ['sdH', 'sd h'],
        ] as const"
        :key="k"
        class="field sd"
        :label="`${t} mm`"
        ><ElInput v-model="form[k]" class="mono" :aria-label="t" inputmode="decimal" :disabled="!project.mayChange"
      /></ElFormItem>
      <ElButton type="primary" native-type="submit" :disabled="!project.mayChange">{{
        point.role === 'check' ? 'Make it control' : 'Change control'
      }}</ElButton>
      <ElButton v-if="point.role !== 'check'" data-test="hold-out" :disabled="!project.mayChange" @click="holdOut"
        >Make it a check point</ElButton
      >
    </form>
    <form v-if="!conflict" class="edit" @submit.prevent="renameNow">
      <ElFormItem class="field" label="name"><ElInput v-model="rename" aria-label="name" :disabled="!project.mayChange" /></ElFormItem>
      <ElButton native-type="submit" :disabled="!project.mayChange || rename === point.name || rename.trim() === ''"> Rename </ElButton>
      <span class="quiet"
        >{{ point.file ? `from ${point.file} line ${point.line}` : 'from the adjustment' }}; onto an existing name joins both marks</span
      >
    </form>
  </Slip>
</template>

<style scoped>
.edit {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: flex-end;
}
.edit .field {
  width: 122px;
}
.read {
  font-size: 11px;
  text-align: right;
}
.edit .held {
  width: 74px;
}
.edit .sd {
  width: 62px;
}
</style>

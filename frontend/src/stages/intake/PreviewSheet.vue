<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { post, put, remove } from '../../api/client';
import { inOrder } from '../../api/inOrder';
import type { AcceptRequest, FieldView, PreviewView } from '../../api/types';
import { useProject } from '../../state/project';
import MeaningSheet from './MeaningSheet.vue';
import { settled } from './previews';

const props = defineProps<{ preview: PreviewView }>();
const emit = defineEmits<{ preview: [p: PreviewView]; changed: [] }>();
const project = useProject();
const leaveOut = ref(false);
const UNIT_NAMES: Record<string, string> = {
  m: 'm',
  mm: 'mm',
  cm: 'cm',
  ft: 'ft (international)',
  ftUS: 'ft (US survey)',
  deg: 'decimal °',
  dms: '° \u2032 \u2033',
  'd.mmss': 'D.MMSS packed',
  gon: 'gon',
  m2: 'm²',
  mm2: 'mm²',
};

const PLACES = [
  ['e', 'n'],
  ['lat', 'lon'],
];

const counts = computed(() =>
  Object.entries(props.preview.counts)
    .map(([k, v]) => `${v} ${v === 1 && k.endsWith('s') ? k.slice(0, -1) : k}`)
    .join(', '),
);
const size = computed(() =>
  props.preview.extent
    ? `${Math.round(props.preview.extent[2]! - props.preview.extent[0]!)} × ${Math.round(props.preview.extent[3]! - props.preview.extent[1]!)} m`
    : '',
);

const changes = inOrder();
// Choices made before the last one came back are kept.
let chosen: { columns: Record<string, number>; units: Record<string, string> } = { columns: {}, units: {} };
watch(
  () => props.preview,
  ({ fields }) => {
    if (changes.busy()) return;
    chosen = { columns: {}, units: {} };
    for (const f of fields) {
      if (f.column !== null) chosen.columns[f.key] = f.column;
      if (f.unit !== null) chosen.units[f.key] = f.unit;
    }
  },
  { immediate: true },
);

async function save(mapping: { kind: string; columns?: Record<string, number>; units?: Record<string, string> }) {
  const path = project.path(`/intake/${props.preview.id}/mapping`);
  await project.attempt(() =>
    changes.send(
      () => settled(project, put(path, mapping)),
      (p) => emit('preview', p),
    ),
  );
}
const send = () => save({ kind: props.preview.kind, columns: { ...chosen.columns }, units: { ...chosen.units } });

function chooseColumn(field: FieldView, column: string) {
  delete chosen.columns[field.key];
  if (column !== '') {
    chosen.columns[field.key] = Number(column);
    // A place is said one way: choosing a column of the one lets go of those of the other.
    const isPlace = PLACES.flat().includes(field.key);
    for (const key of isPlace ? PLACES.filter((way) => !way.includes(field.key)).flat() : []) {
      delete chosen.columns[key];
      delete chosen.units[key];
    }
  }
  return send();
}

/** The unit of one column answers for its like while they are silent: lengths are rarely mixed in one file. */
function chooseUnit(field: FieldView, unit: string) {
  const asked = field.unit === null;
  chosen.units[field.key] = unit;
  for (const f of asked ? props.preview.fields : []) {
    if (f.quantity === field.quantity && f.key in chosen.columns) chosen.units[f.key] ??= unit;
  }
  return send();
}

async function accept() {
  if (
    await project.attempt(
      () => post(project.path(`/intake/${props.preview.id}/accept`), { leaveOutBad: leaveOut.value } satisfies AcceptRequest),
      `Accepted ${props.preview.name}: ${counts.value}.`,
    )
  )
    emit('changed');
}

async function discard() {
  if (await project.attempt(() => remove(project.path(`/intake/${props.preview.id}`)), `Discarded ${props.preview.name}.`)) emit('changed');
}
</script>

<template>
  <section class="preview" aria-label="Preview of the file">
    <header>
      <h2>{{ preview.name }}</h2>
      <template v-if="!preview.unreadable">
        <span class="quiet">is read as</span>
        <ElSelect class="kind" aria-label="Kind of file" :model-value="preview.kind" @change="save({ kind: $event })">
          <ElOption v-for="k in preview.kinds" :key="k.key" :value="k.key" :label="k.label" />
        </ElSelect>
      </template>
      <span class="spacer" />
      <ElButton :disabled="!project.mayChange" @click="discard">Discard</ElButton>
      <ElButton
        type="primary"
        data-test="accept"
        :disabled="!project.mayChange || !preview.acceptable || (preview.leftOut > 0 && !leaveOut)"
        @click="accept"
      >
        Accept
      </ElButton>
    </header>
    <ElAlert v-if="preview.unreadable" type="error" :closable="false">{{ preview.unreadable }}</ElAlert>
    <div v-else class="scroll body">
      <p>
        <strong>{{ counts }}</strong><span v-if="size" class="quiet">, over {{ size }}</span>
      </p>
      <ElCheckbox v-if="preview.leftOut > 0" class="left-out" v-model="leaveOut" data-test="leave-out"
        >{{ preview.leftOut }} line{{ preview.leftOut === 1 ? '' : 's' }} cannot be used. Accept the rest without
        {{ preview.leftOut === 1 ? 'it' : 'them' }}.</ElCheckbox
      >
      <ul v-if="preview.findingCount > 0" class="findings" :aria-label="`${preview.findingCount} things to look at`">
        <li v-for="(f, i) in preview.findings" :key="i">
          <span :class="f.severity === 'error' ? 'fails' : 'doubt'">{{ f.severity === 'error' ? '✕' : '?' }}</span><span
            v-if="f.line !== null"
            class="mono quiet"
            >line {{ f.line }}</span
          ><span :class="{ whole: f.line === null }">{{ f.message }}</span>
        </li>
      </ul>
      <ElAlert v-for="q in preview.questions" :key="q" type="warning" :closable="false">
        <strong class="doubt">?</strong> {{ q }} Answer in the unit column below.
      </ElAlert>
      <MeaningSheet v-if="preview.meaning" :file="preview.id" :meaning="preview.meaning" @preview="(p) => emit('preview', p)" />
      <table class="mapping">
        <thead>
          <tr>
            <th>meaning</th>
            <th>column</th>
            <th>unit</th>
            <th>first cells</th>
          </tr>
        </thead>
        <tr v-for="f in preview.fields" :key="f.key" :class="{ missing: f.required && f.column === null }">
          <td>{{ f.label }}<span v-if="f.required" class="quiet" title="needed"> *</span></td>
          <td>
            <ElSelect :aria-label="`Column of ${f.label}`" :model-value="f.column ?? ''" @change="chooseColumn(f, $event)">
              <ElOption value="" :label="f.required ? 'choose' : 'none'" />
              <ElOption v-for="c in preview.columns" :key="c.index" :value="c.index" :label="c.heading" />
            </ElSelect>
          </td>
          <td>
            <ElSelect
              v-if="f.units.length > 0 && f.column !== null"
              :class="{ asked: f.unit === null }"
              :aria-label="`Unit of ${f.label}`"
              :model-value="f.unit ?? ''"
              @change="chooseUnit(f, $event)"
            >
              <ElOption v-if="f.unit === null" value="" label="which?" />
              <ElOption v-for="u in f.units" :key="u" :value="u" :label="UNIT_NAMES[u] ?? u" />
            </ElSelect>
          </td>
          <td class="mono quiet cells">{{ f.column === null ? '' : preview.columns[f.column]?.samples.slice(0, 3).join('  ') }}</td>
        </tr>
      </table>
    </div>
  </section>
</template>

<style scoped>
.preview {
  flex: 1 1 60%;
  min-height: 0;
  display: flex;
  flex-direction: column;
  gap: 6px;
  border-top: 3px solid var(--cobalt);
  padding-top: 8px;
  margin-bottom: 10px;
}
header {
  display: flex;
  gap: 10px;
  align-items: center;
}
.kind {
  width: 190px;
}
.body {
  display: grid;
  gap: 7px;
  grid-auto-rows: max-content;
  align-content: start;
}
.mapping {
  border-collapse: collapse;
}
.mapping th {
  text-align: left;
  font-weight: 400;
  font-size: 11.5px;
  color: var(--ink-soft);
}
.mapping td {
  padding: 1px 10px 1px 0;
}
.mapping .asked {
  border-color: var(--ochre);
  background: var(--ochre-soft);
}
.missing td:first-child {
  color: var(--vermilion);
}
.cells {
  font-size: 11.5px;
  max-width: 240px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.findings {
  max-height: 104px;
  overflow: auto;
  list-style: none;
  margin: 0;
  padding: 0;
}
.findings li {
  display: grid;
  grid-template-columns: 14px 66px 1fr;
  gap: 6px;
  padding: 2px 0;
  border-bottom: 1px solid var(--rule);
}
.whole {
  grid-column: 2 / -1;
}
</style>

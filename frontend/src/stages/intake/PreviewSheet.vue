<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { post, put, remove } from '../../api/client';
import { inOrder } from '../../api/inOrder';
import type { AcceptRequest, FieldView, PreviewView, UnitAskView } from '../../api/types';
import { group } from '../../format/units';
import { useProject } from '../../state/project';
import MappingTable from './MappingTable.vue';
import MeaningSheet from './MeaningSheet.vue';
import MemoryLine from './MemoryLine.vue';
import UnitAsk from './UnitAsk.vue';
import { settled } from './previews';

const props = defineProps<{ preview: PreviewView }>();
const emit = defineEmits<{ preview: [p: PreviewView]; changed: []; reload: [] }>();
const project = useProject();
const leaveOut = ref(false);
const PLACES = [
  ['e', 'n'],
  ['lat', 'lon'],
];

const counts = computed(() =>
  Object.entries(props.preview.counts)
    .map(([k, v]) => `${group(String(v))} ${v === 1 && k.endsWith('s') ? k.slice(0, -1) : k}`)
    .join(', '),
);
const size = computed(() =>
  props.preview.extent
    ? `${Math.round(props.preview.extent[2]! - props.preview.extent[0]!)} × ${Math.round(props.preview.extent[3]! - props.preview.extent[1]!)} m`
    : '',
);

/** Headings of the two plan columns, as they are read now. */
const plan = computed(() =>
  ['e', 'n'].map((key) => {
    const column = props.preview.fields.find((f) => f.key === key)?.column ?? null;
    return column === null ? '' : (props.preview.columns[column]?.heading ?? '');
  }),
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

function chooseColumn(field: FieldView, column: number | '') {
  delete chosen.columns[field.key];
  // Another column states its own unit, or none.
  delete chosen.units[field.key];
  if (column !== '') {
    chosen.columns[field.key] = column;
    // A place is said one way: choosing a column of the one lets go of those of the other.
    const isPlace = PLACES.flat().includes(field.key);
    for (const key of isPlace ? PLACES.filter((way) => !way.includes(field.key)).flat() : []) {
      delete chosen.columns[key];
      delete chosen.units[key];
    }
  }
  return send();
}

function chooseUnit(field: FieldView, unit: string) {
  chosen.units[field.key] = unit;
  return send();
}

/** One answer for every column that is silent. */
function answerUnit(ask: UnitAskView, unit: string) {
  for (const key of ask.fields) if (key in chosen.columns) chosen.units[key] = unit;
  return send();
}

/** Says which of the two plan columns is the easting; that they stand right is said by sending them as they are. */
function order(exchange: boolean) {
  const { e, n } = chosen.columns;
  if (exchange && e !== undefined && n !== undefined) Object.assign(chosen.columns, { e: n, n: e });
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
    <img v-if="preview.kind === 'photo'" class="photo" :src="project.path(`/intake/${preview.id}/source`)" :alt="preview.name" />
    <header>
      <h2>{{ preview.name }}</h2>
      <template v-if="!preview.unreadable">
        <span class="quiet">is read as</span>
        <ElSelect class="kind" aria-label="Kind of file" :model-value="preview.kind" @change="save({ kind: $event })">
          <ElOption v-for="k in preview.kinds" :key="k.key" :value="k.key" :label="k.label" />
        </ElSelect>
      </template>
      <span class="spacer" />
      <ElPopconfirm
        :title="`Take ${preview.name} off the list?`"
        confirm-button-text="Discard it"
        cancel-button-text="Keep it"
        width="240"
        @confirm="discard"
      >
        <template #reference><ElButton :disabled="!project.mayChange">Discard</ElButton></template>
      </ElPopconfirm>
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
      <MemoryLine v-if="preview.memory" :memory="preview.memory" @changed="emit('reload')" />
      <UnitAsk
        v-for="q in preview.questions"
        :key="q.text"
        :ask="q"
        :disabled="!project.mayChange"
        @answer="(unit) => answerUnit(q, unit)"
      />
      <MeaningSheet
        v-if="preview.meaning"
        :file="preview.id"
        :meaning="preview.meaning"
        :plan="plan"
        :said-by="['cloud', 'trajectory'].includes(preview.kind) ? 'project' : 'heading'"
        @preview="(p) => emit('preview', p)"
        @order="order"
      />
      <MappingTable v-if="preview.fields.length > 0" :preview="preview" @column="chooseColumn" @unit="chooseUnit" />
    </div>
  </section>
</template>

<style scoped>
.photo {
  max-width: 100%;
  max-height: 260px;
  object-fit: contain;
  object-position: left;
}
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
  grid-template-columns: minmax(0, 1fr);
  gap: 7px;
  grid-auto-rows: max-content;
  align-content: start;
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

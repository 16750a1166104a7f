<script setup lang="ts">
import { nextTick, ref } from 'vue';
import type { LevelDraftView } from '../../../api/types';
import { height, lengthUnit, small, smallUnit } from '../../../format/units';
import { useProject } from '../../../state/project';
import {
  due,
  insertIntermediate,
  insertSetup,
  moveSetup,
  namePoint,
  readCell,
  readDistance,
  removeSetup,
  type GridRow,
  type Kind,
  type Pattern,
} from './grid';

/** Sights typed one after another; what follows from them stands beside, as the server works it out. */
const props = defineProps<{ rows: GridRow[]; pattern: Pattern; draft: LevelDraftView | null; disabled: boolean }>();
const emit = defineEmits<{ change: [rows: GridRow[]]; keep: [] }>();
const project = useProject();
const grid = ref<HTMLElement | null>(null);
const FIELDS = ['point', 'reading', 'distance'] as const;
const LETTER: Record<Kind, string> = { back: 'B', fore: 'F', intermediate: 'I' };

const worked = (i: number) => props.draft?.rows[i] ?? null;
const isNumber = (text: string, field: string) => !Number.isNaN(field === 'distance' ? readDistance(text) : readCell(text));

async function focus(row: number, field: number) {
  await nextTick();
  const input = grid.value?.querySelector<HTMLInputElement>(`[data-cell="${row}-${field}"] input`);
  input?.focus();
  input?.select();
}

function set(i: number, field: (typeof FIELDS)[number], text: string) {
  emit(
    'change',
    field === 'point' ? namePoint(props.pattern, props.rows, i, text) : props.rows.map((r, k) => (k === i ? { ...r, [field]: text } : r)),
  );
}

/** On to the next cell that is empty; at the end of the run the sight that is due. */
async function onward(i: number, field: number) {
  for (let f = field + 1; f < FIELDS.length; f++) {
    if (FIELDS[f] !== 'point' || props.rows[i]!.point === '') return focus(i, f);
  }
  if (i + 1 < props.rows.length) return focus(i + 1, props.rows[i + 1]!.point === '' ? 0 : 1);
  const next = due(props.pattern, props.rows);
  emit('change', [...props.rows, next]);
  return focus(i + 1, next.point === '' ? 0 : 1);
}

function key(event: KeyboardEvent | Event, i: number, field: number) {
  if (!(event instanceof KeyboardEvent)) return;
  const done = (rows: GridRow[], row: number, f = field) => {
    event.preventDefault();
    emit('change', rows);
    void focus(Math.max(0, Math.min(row, rows.length - 1)), f);
  };
  if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
    event.preventDefault();
    emit('keep');
  } else if (event.key === 'Enter') {
    event.preventDefault();
    void onward(i, field);
  } else if (event.altKey && event.key === 'ArrowUp') {
    done(...moveSetup(props.pattern, props.rows, i, -1));
  } else if (event.altKey && event.key === 'ArrowDown') {
    done(...moveSetup(props.pattern, props.rows, i, 1));
  } else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
    event.preventDefault();
    void focus(Math.max(0, Math.min(props.rows.length - 1, i + (event.key === 'ArrowUp' ? -1 : 1))), field);
  } else if (event.key === 'Insert' || (event.altKey && event.key.toLowerCase() === 'n')) {
    const rows = insertSetup(props.pattern, props.rows, i);
    const at = rows.findIndex((r, k) => k > i && r !== props.rows[k]);
    done(rows, at, 1);
  } else if (event.altKey && event.key.toLowerCase() === 'i') {
    done(insertIntermediate(props.rows, i), i + 1, 0);
  } else if (event.ctrlKey && event.key === 'Delete') {
    const rows = removeSetup(props.pattern, props.rows, i);
    done(rows.length > 0 ? rows : [due(props.pattern, [])], Math.min(i, rows.length - 1));
  } else if (event.ctrlKey && event.key === 'Backspace') {
    const rows = props.rows.filter((_r, k) => k !== i);
    done(rows.length > 0 ? rows : [due(props.pattern, [])], i - 1);
  }
}

defineExpose({ focus });
</script>

<template>
  <div ref="grid" class="grid" role="table" aria-label="sights of the run">
    <div class="row head" role="row">
      <span role="columnheader">setup</span><span role="columnheader">sight</span><span role="columnheader">point</span
      ><span class="number" role="columnheader">reading {{ lengthUnit(project.units) }}</span
      ><span class="number" role="columnheader">distance {{ lengthUnit(project.units) }}</span
      ><span class="number" role="columnheader">horizon</span><span class="number" role="columnheader">height</span
      ><span role="columnheader">remark</span>
    </div>
    <div
      v-for="(row, i) in rows"
      :key="i"
      class="row"
      role="row"
      :class="{ first: i === 0 || worked(i)?.setup !== worked(i - 1)?.setup, side: row.kind === 'intermediate' }"
    >
      <span class="mono quiet" role="cell">{{ i === 0 || worked(i)?.setup !== worked(i - 1)?.setup ? (worked(i)?.setup ?? '') : '' }}</span>
      <span class="mono" role="cell" :title="row.kind">{{ LETTER[row.kind] }}</span>
      <span v-for="(field, f) in FIELDS" :key="field" role="cell" :data-cell="`${i}-${f}`">
        <ElInput
          :model-value="row[field]"
          size="small"
          :class="{ mono: field !== 'point', number: field !== 'point' }"
          :inputmode="field === 'point' ? 'text' : 'decimal'"
          autocomplete="off"
          :disabled="disabled"
          :aria-label="`${field} of sight ${i + 1}`"
          :aria-invalid="field !== 'point' && !isNumber(row[field], field)"
          @update:model-value="(v: string) => set(i, field, v)"
          @keydown="key($event, i, f)"
        />
      </span>
      <span class="number mono quiet" role="cell">{{ height(worked(i)?.horizon, project.units, 1) }}</span>
      <span class="number mono" role="cell">{{ height(worked(i)?.h, project.units, 1) }}</span>
      <span role="cell" class="remark">
        <span
          v-if="(row.reading !== '' && !isNumber(row.reading, 'reading')) || (row.distance !== '' && !isNumber(row.distance, 'distance'))"
          class="fails"
          >not a number</span
        >
        <span v-else-if="worked(i)?.fault && (row.reading !== '' || i + 1 < rows.length)" class="fails">{{ worked(i)!.fault }}</span>
        <span v-else-if="worked(i)?.misclosure != null" class="doubt"
          >closes by {{ small(worked(i)!.misclosure, project.units, true) }} {{ smallUnit(project.units) }}</span
        >
        <span v-else-if="worked(i)?.repeat != null" :class="worked(i)!.isBeyond ? 'fails' : 'quiet'"
          >repeats within {{ small(Math.abs(worked(i)!.repeat!), project.units) }} {{ smallUnit(project.units) }}</span
        >
      </span>
    </div>
  </div>
</template>

<style scoped>
.grid {
  flex: 1;
  min-height: 120px;
  overflow: auto;
  font-size: 12.5px;
}
.row {
  display: grid;
  grid-template-columns: 40px 34px minmax(64px, 96px) 92px 84px 84px 84px minmax(120px, 1fr);
  gap: 6px;
  align-items: center;
  padding: 1px 0;
  min-width: 620px;
}
.row.first {
  border-top: 1px solid var(--rule);
}
.head {
  position: sticky;
  top: 0;
  z-index: 1;
  background: var(--page);
  color: var(--quiet);
  border-bottom: 1px solid var(--ink);
}
.number {
  text-align: right;
}
.number :deep(input) {
  text-align: right;
}
.side {
  opacity: 0.85;
}
.remark {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>

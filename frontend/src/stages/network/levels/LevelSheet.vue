<script setup lang="ts">
import { computed, nextTick, onMounted, ref, shallowRef, watch } from 'vue';
import { get, post, put, remove } from '../../../api/client';
import type { LevelBookView, LevelDraftView, LevelRunRequest, LevelRunView } from '../../../api/types';
import FilePick from '../../../fields/FilePick.vue';
import { fromDisplayLength, height, small, smallUnit, toDisplayLength } from '../../../format/units';
import { useProject } from '../../../state/project';
import { due, readCell, readDistance, type GridRow, type Kind, type Pattern } from './grid';
import LevelGrid from './LevelGrid.vue';
import LevelResults from './LevelResults.vue';
import LevelSettings from './LevelSettings.vue';

/** The levelling book: runs are written here, worked out as they are typed, kept, and handed on. */
const project = useProject();
const book = shallowRef<LevelBookView | null>(null);
const page = ref<'write' | 'results' | 'settings'>('write');
const runId = ref<number | null>(null);
const name = ref('1');
const pattern = ref<Pattern>('BF');
const rows = ref<GridRow[]>([due('BF', [])]);
const draft = shallowRef<LevelDraftView | null>(null);
const grid = ref<InstanceType<typeof LevelGrid> | null>(null);
let seen = '';
let kept = '';

const asText = () => JSON.stringify([name.value, pattern.value, rows.value]);
const isKept = computed(() => asText() === kept);
/** What is typed and is no number is not thrown away by keeping the run: it is named first. */
const wrong = computed(() => {
  const at = rows.value.findIndex((r) => Number.isNaN(readCell(r.reading)) || Number.isNaN(readDistance(r.distance)));
  return at < 0 ? '' : `Sight ${at + 1} has something that is not a number; the run can be kept when it is put right.`;
});
const drawer = () => `mensura-levels-${project.id}`;

/** As it is written in a book: four decimals of a reading, also when they are noughts. */
const shown = (metres: number | null, decimals: number) => {
  if (metres === null) return '';
  const text = String(Number(toDisplayLength(metres, project.units).toFixed(5)));
  return (text.split('.')[1] ?? '').length >= decimals ? text : Number(text).toFixed(decimals);
};
const stored = (text: string, read = readCell) => {
  const value = read(text);
  return value === null || Number.isNaN(value) ? null : fromDisplayLength(value, project.units);
};

function request(): LevelRunRequest {
  const written = [...rows.value];
  while (written.length > 0 && written[written.length - 1]!.reading === '' && written[written.length - 1]!.distance === '') written.pop();
  return {
    id: runId.value,
    name: name.value.trim(),
    pattern: pattern.value,
    rows: written.map((r) => ({
      kind: r.kind,
      point: r.point.trim(),
      reading: stored(r.reading),
      distance: stored(r.distance, readDistance),
    })),
  };
}

function open(run: LevelRunView | null, text?: { name: string; pattern: string; rows: LevelRunView['rows'] }) {
  const source = run ?? text;
  runId.value = run?.id ?? null;
  seen = run ? String(run.version) : '';
  name.value = source?.name ?? nextName();
  pattern.value = (source?.pattern ?? pattern.value) as Pattern;
  const written = (source?.rows ?? []).map((r) => ({
    kind: r.kind as Kind,
    point: r.point,
    reading: shown(r.reading, 4),
    distance: shown(r.distance, 1),
  }));
  rows.value = run ? written : [...written, due(pattern.value, written)];
  kept = run ? asText() : '';
  void work();
}

function nextName(): string {
  const names = new Set(book.value?.runs.map((r) => r.name));
  let k = 1;
  while (names.has(String(k))) k++;
  return String(k);
}

let waiting: ReturnType<typeof setTimeout> | undefined;
async function work() {
  const asked = request();
  if (asked.name === '') return;
  const answer = await post<LevelDraftView>(project.path('/levels/draft'), {
    ...asked,
    rows: rows.value.map((r) => ({
      kind: r.kind,
      point: r.point.trim(),
      reading: stored(r.reading),
      distance: stored(r.distance, readDistance),
    })),
  });
  draft.value = answer;
}
watch([rows, pattern], () => {
  clearTimeout(waiting);
  waiting = setTimeout(() => void work().catch(() => undefined), 120);
  // What is typed outlives the page: it is kept in the browser until the run is kept in the project.
  if (!isKept.value)
    localStorage.setItem(drawer(), JSON.stringify({ id: runId.value, seen, name: name.value, pattern: pattern.value, rows: rows.value }));
});

async function keep() {
  if (wrong.value !== '') return;
  const asked = request();
  await project.attempt(async () => {
    await put(project.path('/levels/runs'), asked, runId.value === null ? undefined : seen);
    localStorage.removeItem(drawer());
    await load();
    const run = book.value?.runs.find((r) => r.name === asked.name);
    if (run) {
      const typing = rows.value;
      open(run);
      // The sight that is due next stays to be typed on.
      if (typing.length > run.rows.length) rows.value = typing;
      kept = asText();
    }
  }, `Run ${asked.name} is in the book.`);
}

async function drop() {
  if (runId.value === null) return open(null);
  const id = runId.value;
  await project.attempt(() => remove(project.path(`/levels/runs/${id}`)), 'The run is taken out of the book; undo brings it back.');
  await load();
  open(book.value?.runs[0] ?? null);
}

async function readFiles(files: File[]) {
  for (const file of files) {
    const text = await file.text();
    await project.attempt(async () => {
      const read = await post<{ name: string; pattern: string; rows: LevelRunView['rows'] }[]>(project.path('/levels/read'), { text });
      const names = new Set(book.value?.runs.map((r) => r.name));
      for (const run of read) {
        await put(project.path('/levels/runs'), {
          ...run,
          name: names.has(run.name) ? `${run.name} (${file.name})`.slice(0, 60) : run.name,
        });
      }
      await load();
      open(book.value?.runs.find((r) => r.name === read[0]?.name) ?? null);
    }, `${file.name} is in the book.`);
  }
}

async function load() {
  book.value = await get<LevelBookView>(project.path('/levels'));
}

function choose(id: number | string) {
  open(id === 'new' ? null : (book.value?.runs.find((r) => r.id === id) ?? null));
  page.value = 'write';
  void nextTick(() => grid.value?.focus(Math.max(0, rows.value.length - 1), rows.value[rows.value.length - 1]?.point ? 1 : 0));
}

onMounted(async () => {
  await load();
  const left = localStorage.getItem(drawer());
  if (left) {
    const d = JSON.parse(left) as { id: number | null; seen: string; name: string; pattern: Pattern; rows: GridRow[] };
    runId.value = d.id;
    seen = d.seen;
    name.value = d.name;
    pattern.value = d.pattern;
    rows.value = d.rows;
  } else open(book.value?.runs[0] ?? null);
});
watch(() => project.version, load);
const last = computed(() => book.value?.sections.filter((s) => s.run === name.value && s.misclosure !== null) ?? []);
</script>

<template>
  <section v-if="book" class="levels">
    <div class="tools">
      <ElSelect :model-value="runId ?? 'new'" class="run" size="small" aria-label="Run" data-test="level-run" @update:model-value="choose">
        <ElOption v-for="r in book.runs" :key="r.id" :value="r.id" :label="`run ${r.name}`" /><ElOption value="new" label="new run" />
      </ElSelect>
      <ElInput v-model="name" class="name" size="small" aria-label="Name of the run" :disabled="!project.mayChange" />
      <ElRadioGroup v-model="pattern" size="small" aria-label="Pattern of sights">
        <ElRadioButton value="BF">BF</ElRadioButton><ElRadioButton value="BFFB">BFFB</ElRadioButton
        ><ElRadioButton value="BBFF">BBFF</ElRadioButton>
      </ElRadioGroup>
      <ElButton
        type="primary"
        size="small"
        data-test="keep-run"
        :disabled="!project.mayChange || name.trim() === '' || isKept || wrong !== ''"
        @click="keep"
        >{{ isKept ? 'Kept ✓' : 'Keep the run' }}</ElButton
      >
      <ElButton size="small" :disabled="!project.mayChange" @click="drop">Take it out</ElButton>
      <FilePick text="Read a file" multiple test="level-file" :disabled="!project.mayChange" @files="readFiles" />
      <span class="spacer" />
      <ElRadioGroup v-model="page" size="small" aria-label="Page of the levelling book">
        <ElRadioButton value="write">Write</ElRadioButton><ElRadioButton value="results">Results</ElRadioButton
        ><ElRadioButton value="settings">Benchmarks</ElRadioButton>
      </ElRadioGroup>
    </div>
    <template v-if="page === 'write'">
      <LevelGrid
        ref="grid"
        :rows="rows"
        :pattern="pattern"
        :draft="draft"
        :disabled="!project.mayChange"
        @change="(r) => (rows = r)"
        @keep="keep"
      />
      <p v-if="wrong" class="fails keys">{{ wrong }}</p>
      <div v-if="draft" class="sums">
        <span
          ><span class="label">setups</span><span class="mono">{{ draft.setups }}</span></span
        >
        <span
          ><span class="label">sum of backs</span><span class="mono">{{ height(draft.backs, project.units, 1) }}</span></span
        >
        <span
          ><span class="label">sum of fores</span><span class="mono">{{ height(draft.fores, project.units, 1) }}</span></span
        >
        <span
          ><span class="label">length</span
          ><span class="mono">{{ draft.length === null ? '—' : toDisplayLength(draft.length, project.units).toFixed(0) }}</span></span
        >
        <span v-for="s in last" :key="`${s.from}${s.to}`"
          ><span class="label">{{ s.from }} to {{ s.to }}</span
          ><span class="mono" :class="{ fails: s.passed === false, holds: s.passed === true }"
            >{{ small(s.misclosure, project.units, true) }} of {{ s.allowable === null ? '—' : small(s.allowable, project.units) }}
            {{ smallUnit(project.units) }}</span
          ></span
        >
      </div>
      <p class="quiet keys">
        <kbd>Enter</kbd> next · <kbd>Alt</kbd> <kbd>i</kbd> intermediate sight · <kbd>Ins</kbd> setup after · <kbd>Ctrl</kbd>
        <kbd>Del</kbd> setup out · <kbd>Alt</kbd> <kbd>↑</kbd> <kbd>↓</kbd> move setup · <kbd>Ctrl</kbd> <kbd>Enter</kbd> keep · distance by
        stadia: upper/lower hair
      </p>
    </template>
    <LevelResults v-else-if="page === 'results'" :book="book" />
    <LevelSettings v-else :book="book" />
  </section>
</template>

<style scoped>
.levels {
  display: flex;
  flex-direction: column;
  gap: 8px;
  flex: 1;
  min-height: 0;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 8px;
  align-items: center;
}
.run {
  width: 110px;
}
.name {
  width: 76px;
}
.sums {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
}
.sums > span {
  display: grid;
}
.keys {
  margin: 0;
}
</style>

<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue';
import { get, post, put } from '../../api/client';
import { copyOf } from '../../api/copyOf';
import type { CatalogueRequest, CatalogueView, ExportRequest, LineworkView } from '../../api/types';
import FilePick from '../../fields/FilePick.vue';
import type { Column } from '../../figures/columns';
import { figures, words } from '../../figures/columns';
import FiguresTable from '../../figures/FiguresTable.vue';
import { when } from '../../format/units';
import EmptyPage from '../../frame/EmptyPage.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { MapSketch } from '../../sketch';
import { pointsScene } from '../../sketch/scene';
import { useProject } from '../../state/project';
import { newType, signOf, type FeatureType } from './catalogue';
import CollectDevice from './CollectDevice.vue';
import TypeForm from './TypeForm.vue';

/** The feature catalogue: types of features with what is asked of each, in versions, tried on the simulated controller. */
const project = useProject();
const list = ref<CatalogueView[]>([]);
const isLoaded = ref(false);
const chosen = ref(0);
const draft = ref<CatalogueView | null>(null);
const index = ref(0);
const onDevice = ref(0);
const types = ref<FeatureType[]>([]);

const kept = computed(() => list.value.find((c) => c.id === chosen.value) ?? list.value[0] ?? null);
const isChanged = computed(
  () => draft.value !== null && kept.value !== null && JSON.stringify(plain(draft.value)) !== JSON.stringify(plain(kept.value)),
);
const newest = computed(() => kept.value?.files[0] ?? null);
const tried = computed(() => kept.value?.files.find((f) => f.id === onDevice.value) ?? null);
const type = computed<FeatureType | null>(() => draft.value?.types[index.value] ?? null);
const code = computed(() => type.value?.code ?? '');
const headline = computed(() => {
  const c = draft.value;
  if (!c) return '';
  const types = `${c.types.length} ${c.types.length === 1 ? 'type' : 'types'}`;
  const version = !newest.value
    ? 'not written yet'
    : newest.value.stale.length > 0
      ? `version ${newest.value.run}, changed since`
      : `version ${newest.value.run}`;
  return `Catalogue ${c.name}: ${types}, ${version}`;
});
const columns: Column<FeatureType>[] = [
  { key: 'code', title: 'code', width: 'minmax(110px, 1fr)', mono: true, value: (t) => t.code },
  words('alias', 'called', 130, (t) => t.alias),
  words('kind', 'is a', 60, (t) => t.kind),
  figures('positions', 'positions', 78, (t) => t.positions),
  words('needs', 'needs', 110, (t) => `${t.solution === 'any' ? '' : t.solution}${t.accuracy > 0 ? ` ${t.accuracy} m` : ''}`.trim()),
  figures('attributes', 'attributes', 78, (t) => t.attributes.length),
];
const linework = ref<LineworkView | null>(null);
const lineColumns: Column<LineworkView['lines'][number]>[] = [
  { key: 'code', title: 'line', width: 'minmax(90px, 1fr)', mono: true, value: (l) => `${l.code} ${l.number}`.trim() },
  words('from', 'from', 100, (l) => l.from),
  words('to', 'to', 100, (l) => l.to),
  figures('points', 'points', 60, (l) => l.points),
  figures(
    'length',
    'length',
    90,
    (l) => l.length,
    (l) => l.length.toFixed(3),
    { unit: 'm' },
  ),
  words('closed', '', 60, (l) => (l.closed ? 'closed' : '')),
];
const scene = computed(() => ({
  ...pointsScene(project.points),
  paths: (linework.value?.lines ?? []).map((l) => ({
    path: l.path,
    kind: 'drawn' as const,
    colour: kept.value?.types.find((t) => t.code === l.code)?.colour ?? '#2a5bd7',
  })),
}));
const plain = (c: CatalogueView): CatalogueRequest => ({ name: c.name, scope: c.scope, types: c.types });

async function load() {
  list.value = await get<CatalogueView[]>(project.path('/handover/catalogues'));
  isLoaded.value = true;
  linework.value = kept.value ? await get<LineworkView>(project.path(`/handover/catalogues/${kept.value.id}/lines`)) : null;
  if (!isChanged.value || draft.value?.id !== kept.value?.id) begin();
}
function begin() {
  draft.value = kept.value ? copyOf(kept.value) : null;
  if (!type.value) index.value = 0;
}
watch(chosen, begin);
watch(chosen, load);
watch(() => project.version, load);

async function create() {
  const first = { ...newType('TREE'), alias: 'Tree' };
  const request: CatalogueRequest = { name: `catalogue ${list.value.length + 1}`, scope: '', types: [first] };
  await project.attempt(
    async () => (chosen.value = (await post<{ catalogue: number }>(project.path('/handover/catalogues'), request)).catalogue),
  );
}
async function save(): Promise<boolean> {
  const d = draft.value;
  if (!d) return false;
  const ok = await project.attempt(() => put(project.path(`/handover/catalogues/${d.id}`), plain(d), d.version));
  if (ok) await load();
  if (ok) begin();
  return ok;
}
async function write() {
  if (isChanged.value && !(await save())) return;
  const surfaces = [kept.value!.id];
  await project.attempt(
    () => project.job(post(project.path('/handover'), { kind: 'catalogue', surfaces } satisfies ExportRequest)),
    'The next version is written; older ones stay.',
  );
  await load();
  begin();
}
async function bringFile(file: File) {
  let parsed: unknown;
  try {
    parsed = JSON.parse(await file.text());
  } catch (e) {
    project.say(
      'bad',
      `${file.name} is no JSON file (${String(e instanceof Error ? e.message : e)}); bring a catalogue as it was written.`,
    );
    return;
  }
  await project.attempt(
    async () => (chosen.value = (await post<{ catalogue: number }>(project.path('/handover/catalogues/import'), parsed)).catalogue),
    'Taken in.',
  );
}
function add() {
  const d = draft.value;
  if (!d) return;
  let k = d.types.length + 1;
  while (d.types.some((t) => t.code === `TYPE_${k}`)) k += 1;
  d.types.push(newType(`TYPE_${k}`));
  index.value = d.types.length - 1;
}
function choose(keys: string[]) {
  const i = draft.value?.types.findIndex((t) => t.code === keys[0]) ?? -1;
  if (i >= 0) index.value = i;
}
function away() {
  draft.value?.types.splice(index.value, 1);
  index.value = 0;
}
/** The types as that version holds them. */
async function tryOut(id: number) {
  const version = await get<{ types: FeatureType[] }>(project.path(`/handover/${id}/file`));
  [types.value, onDevice.value] = [version.types, id];
}
onMounted(load);
</script>

<template>
  <TwoPages>
    <template #figures>
      <div class="sheet scroll">
        <slot />
        <EmptyPage v-if="isLoaded && list.length === 0" title="No feature catalogue yet">
          <p>
            A catalogue says which types of features are collected in the field, how well each must be known, and what is asked of it. It
            goes out as an open file, and what comes back is held against the version it was collected with.
          </p>
          <p>
            <ElButton type="primary" data-test="new-catalogue" :disabled="!project.mayChange" @click="create">New catalogue</ElButton>
            <FilePick
              text="Bring a file in"
              accept=".json"
              test="import-first"
              :disabled="!project.mayChange"
              @files="([file]) => file && bringFile(file)"
            />
          </p>
        </EmptyPage>
        <template v-else-if="draft && kept">
          <h1 data-test="catalogue-headline">{{ headline }}</h1>
          <div class="row">
            <ElSelect
              v-if="list.length > 1"
              :model-value="kept.id"
              class="which"
              aria-label="Catalogue"
              @change="(id: number) => (chosen = id)"
              ><ElOption v-for="c in list" :key="c.id" :value="c.id" :label="c.name"
            /></ElSelect>
            <ElInput v-model="draft.name" class="which" maxlength="80" aria-label="Name of the catalogue" data-test="catalogue-name" />
            <span class="spacer" />
            <FilePick
              text="Bring a file in"
              accept=".json"
              test="import-catalogue"
              :disabled="!project.mayChange"
              @files="([file]) => file && bringFile(file)"
            />
            <ElButton data-test="new-catalogue" :disabled="!project.mayChange" @click="create">New catalogue</ElButton>
          </div>
          <div class="list" :style="{ minHeight: `${Math.min(8, draft.types.length) * 27 + 36}px` }">
            <FiguresTable
              label="types"
              :columns="columns"
              :rows="draft.types"
              :row-key="(t) => t.code"
              :selected="new Set([code])"
              :filterable="draft.types.length > 12"
              @select="(k) => choose([...k])"
              ><template #cell-code="{ row }"
                ><img :src="signOf(row)" alt="" class="sign" /><span class="mono">{{ row.code }}</span></template
              ></FiguresTable
            >
          </div>
          <div class="row">
            <ElButton size="small" data-test="add-type" :disabled="!project.mayChange" @click="add">Another type</ElButton>
            <ElButton size="small" :disabled="!project.mayChange || !type" @click="away">Remove {{ code }}</ElButton>
            <span class="spacer" />
            <ElButton type="primary" plain data-test="save-catalogue" :disabled="!project.mayChange || !isChanged" @click="save"
              >Keep</ElButton
            >
            <ElButton type="primary" data-test="write-catalogue" :disabled="!project.mayChange || draft.types.length === 0" @click="write"
              >Write the next version</ElButton
            >
          </div>
          <section v-if="type" class="part-of" :aria-label="`Type ${code}`">
            <TypeForm :key="index" v-model="draft.types[index]!" />
          </section>
          <section v-if="linework && (linework.lines.length > 0 || linework.faults.length > 0)" data-test="linework">
            <h2>Lines that the codes of the points draw</h2>
            <p v-for="f in linework.faults" :key="f" class="doubt">{{ f }}.</p>
            <div class="list" :style="{ minHeight: `${Math.min(8, linework.lines.length) * 27 + 36}px` }">
              <FiguresTable
                label="lines"
                :columns="lineColumns"
                :rows="linework.lines"
                :row-key="(l) => `${l.code} ${l.number} ${l.from}`"
                :selected="new Set()"
                :filterable="false"
              />
            </div>
          </section>
          <section v-if="kept.files.length > 0">
            <h2>Versions</h2>
            <div v-for="f in kept.files" :key="f.id" class="row version">
              <strong>version {{ f.run }}</strong>
              <span class="quiet">{{ when(f.createdAt) }} by {{ f.author }}</span>
              <span class="spacer" />
              <ElButton size="small" :data-test="`try-${f.run}`" @click="tryOut(f.id)">Try it on the controller</ElButton>
              <a class="link" :href="project.path(`/handover/${f.id}/file`)">Download</a>
            </div>
          </section>
        </template>
      </div>
    </template>
    <template #sketch>
      <CollectDevice
        v-if="tried && kept"
        :key="tried.id"
        :name="kept.name"
        :version="tried.run"
        :result="tried.id"
        :types="types"
        @close="onDevice = 0"
      />
      <MapSketch v-else :scene="scene" />
    </template>
  </TwoPages>
</template>

<style scoped>
.row {
  display: flex;
  gap: 8px;
  align-items: center;
}
.row .el-button {
  margin: 0;
}
.which {
  width: 190px;
}
.list {
  display: flex;
  flex-direction: column;
  flex: none;
}
.sign {
  margin-right: 7px;
  vertical-align: -2px;
}
.part-of {
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
.version {
  padding: 4px 0;
  border-top: 1px solid var(--rule);
}
</style>

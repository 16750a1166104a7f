<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue';
import { get, post, put, remove } from '../../api/client';
import type { ExportRequest, LockRequest, SavedViewView, SheetRequest, SheetsView, SheetView, ViewRequest } from '../../api/types';
import type { Column } from '../../figures/columns';
import { words } from '../../figures/columns';
import FiguresTable from '../../figures/FiguresTable.vue';
import { fileSize, when } from '../../format/units';
import EmptyPage from '../../frame/EmptyPage.vue';
import Slip from '../../frame/Slip.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { useProject } from '../../state/project';
import PdfPreview from './PdfPreview.vue';
import ReceiptTable from './ReceiptTable.vue';
import SheetForm from './SheetForm.vue';
import { requestOf, scaleText } from './sheets';
import ViewForm from './ViewForm.vue';

/** Drawing sheets: views that are kept, laid out true to scale; the preview is the PDF itself. */
const project = useProject();
const data = ref<SheetsView | null>(null);
const selected = ref(new Set<string>());
const asking = ref<null | 'sheet' | 'view'>(null);
const sheet = ref<SheetView | null>(null);
const view = ref<SavedViewView | null>(null);
const preview = shallowRef<ArrayBuffer | null>(null);
const previewed = ref('');
let timer = 0;
let turn = 0;

const chosen = computed(() => (data.value?.sheets ?? []).filter((s) => selected.value.has(String(s.id))));
const nameOf = (id: number) => data.value?.views.find((v) => v.id === id)?.name ?? 'a view that is gone';
const columns: Column<SheetView>[] = [
  { key: 'name', title: 'sheet', width: 'minmax(120px, 1fr)', value: (s) => s.name },
  words('size', 'paper', 110, (s) => `${s.size} ${s.landscape ? 'across' : 'upright'}`),
  words('shows', 'shows', 150, (s) => s.windows.map((w) => nameOf(w.view)).join(', ')),
  words('scale', 'scale', 110, (s) => [...new Set(s.windows.map((w) => scaleText(w.scale)))].join(', ')),
];
/** The newest file of just these sheets. */
const file = computed(() => {
  const slot = `export:sheet:${chosen.value.map((s) => s.id).join(',')}`;
  return data.value?.files.find((f) => f.slot === slot) ?? null;
});
const headline = computed(() => {
  const d = data.value;
  if (!d) return '';
  const stale = d.files.filter((f) => f.stale.length > 0).length;
  const sheets = `${d.sheets.length} ${d.sheets.length === 1 ? 'sheet' : 'sheets'}`;
  return stale > 0
    ? `${sheets}, of what was drawn ${stale} ${stale === 1 ? 'file is' : 'files are'} stale`
    : `${sheets} of ${d.views.length} ${d.views.length === 1 ? 'view' : 'views'}`;
});

async function load() {
  data.value = await get<SheetsView>(project.path('/handover/sheets'));
  if (chosen.value.length === 0 && data.value.sheets[0]) selected.value = new Set([String(data.value.sheets[0].id)]);
}
/** The sheet as a PDF, a moment after the last change. */
function show(request: SheetRequest | null) {
  window.clearTimeout(timer);
  const mine = (turn += 1);
  if (!request || request.windows?.length === 0) {
    preview.value = null;
    return;
  }
  timer = window.setTimeout(async () => {
    try {
      const pdf = await post<ArrayBuffer>(project.path('/handover/sheets/preview'), { ...request, name: request.name || 'draft' });
      if (mine === turn) [preview.value, previewed.value] = [pdf, request.name];
    } catch (e) {
      if (mine === turn) project.say('bad', String(e instanceof Error ? e.message : e));
    }
  }, 250);
}
watch([chosen, asking], () => {
  if (asking.value === null) show(chosen.value[0] ? requestOf(chosen.value[0]) : null);
});
watch(() => project.version, load);

async function saveView(request: ViewRequest) {
  const of = view.value;
  const ok = await project.attempt(() =>
    of ? put(project.path(`/handover/views/${of.id}`), request, of.version) : post(project.path('/handover/views'), request),
  );
  if (ok) asking.value = null;
}
async function saveSheet(request: SheetRequest) {
  const of = sheet.value;
  let id = 0;
  const ok = await project.attempt(async () => {
    const answer = of
      ? await put<{ sheet: number }>(project.path(`/handover/sheets/${of.id}`), request, of.version)
      : await post<{ sheet: number }>(project.path('/handover/sheets'), request);
    id = answer.sheet;
  });
  if (!ok) return;
  await load();
  [selected.value, asking.value] = [new Set([String(id)]), null];
}
async function lock(v: SavedViewView, locked: boolean) {
  const said = locked ? `${v.name} stays as it is now, whatever the project becomes.` : `${v.name} follows the project again.`;
  await project.attempt(() => put(project.path(`/handover/views/${v.id}/lock`), { locked } satisfies LockRequest, v.version), said);
}
async function draw() {
  const surfaces = chosen.value.map((s) => s.id);
  await project.attempt(
    () => project.job(post(project.path('/handover'), { kind: 'sheet', surfaces } satisfies ExportRequest)),
    'Drawn, and measured in the file.',
  );
  await load();
}
const away = (what: 'sheets' | 'views', id: number) => project.attempt(() => remove(project.path(`/handover/${what}/${id}`)));
onMounted(load);
</script>

<template>
  <TwoPages>
    <template #figures>
      <div class="sheet scroll">
        <slot />
        <ViewForm v-if="asking === 'view' && data" :choices="data" :kept="view" @save="saveView" @cancel="asking = null" />
        <SheetForm
          v-else-if="asking === 'sheet' && data"
          :choices="data"
          :kept="sheet"
          @save="saveSheet"
          @cancel="asking = null"
          @change="show"
        />
        <EmptyPage v-else-if="data && data.views.length === 0" title="No drawing sheet yet">
          <p>
            A view says what a drawing shows: points, contours, lines of designs. A sheet lays views out on paper, true to scale, and is
            measured in the PDF that was written.
          </p>
          <p>
            <ElButton type="primary" data-test="new-view" :disabled="!project.mayChange" @click="[view, asking] = [null, 'view']"
              >Keep a first view</ElButton
            >
          </p>
        </EmptyPage>
        <template v-else-if="data">
          <h1 data-test="sheets-headline">{{ headline }}</h1>
          <div class="row">
            <ElButton type="primary" plain data-test="new-sheet" :disabled="!project.mayChange" @click="[sheet, asking] = [null, 'sheet']"
              >New sheet</ElButton
            >
            <ElButton
              :disabled="chosen.length !== 1 || !project.mayChange"
              data-test="edit-sheet"
              @click="[sheet, asking] = [chosen[0]!, 'sheet']"
              >Change it</ElButton
            >
            <ElButton :disabled="chosen.length !== 1 || !project.mayChange" @click="away('sheets', chosen[0]!.id)">Remove it</ElButton>
          </div>
          <div class="list">
            <FiguresTable
              label="sheets"
              :columns="columns"
              :rows="data.sheets"
              :row-key="(s) => String(s.id)"
              :selected="selected"
              :filterable="data.sheets.length > 12"
              @select="(k) => (selected = new Set(k))"
            >
              <template #empty><p class="quiet">No sheet yet: lay a view out on one.</p></template>
            </FiguresTable>
          </div>
          <div class="views">
            <h2>Views</h2>
            <ElButton size="small" data-test="new-view" :disabled="!project.mayChange" @click="[view, asking] = [null, 'view']"
              >New view</ElButton
            >
          </div>
          <div v-for="v in data.views" :key="v.id" class="view">
            <strong>{{ v.name }}</strong>
            <span :class="v.locked ? 'holds' : 'quiet'">{{ v.locked ? 'locked: stays as it was drawn' : 'follows the project' }}</span>
            <span class="spacer" />
            <template v-if="v.locked">
              <ElButton size="small" :disabled="!project.mayChange" @click="lock(v, true)">Look again</ElButton>
              <ElButton size="small" :disabled="!project.mayChange" @click="lock(v, false)">Unlock</ElButton>
            </template>
            <ElButton v-else size="small" :data-test="`lock-${v.id}`" :disabled="!project.mayChange" @click="lock(v, true)">Lock</ElButton>
            <ElButton size="small" :disabled="!project.mayChange" @click="[view, asking] = [v, 'view']">Change</ElButton>
            <ElButton size="small" text :disabled="!project.mayChange" @click="away('views', v.id)">Remove</ElButton>
          </div>
          <span class="spacer" />
          <Slip v-if="chosen.length > 0" :tone="file && file.stale.length > 0 ? 'doubt' : 'plain'">
            <div>
              <strong>{{ chosen.length === 1 ? chosen[0]!.name : `${chosen.length} sheets in one file` }}</strong>
              <span v-if="file" class="quiet"
                >{{ file.name }}, {{ fileSize(file.size) }}, version {{ file.run }}, {{ when(file.createdAt) }} by {{ file.author }}</span
              >
              <span v-else class="quiet">not drawn yet</span>
            </div>
            <div v-if="file && file.stale.length > 0" class="doubt">Stale: {{ file.stale.join('; ') }}.</div>
            <ReceiptTable v-if="file" :checks="file.checks" found="measured" />
            <div class="row">
              <ElButton type="primary" data-test="draw-sheets" :disabled="!project.mayChange" @click="draw">{{
                chosen.length === 1 ? 'Draw it as PDF' : 'Draw them as one PDF'
              }}</ElButton>
              <ElButton v-if="file?.holds" tag="a" :href="project.path(`/handover/${file.id}/file`)">Download</ElButton>
            </div>
          </Slip>
        </template>
      </div>
    </template>
    <template #sketch>
      <PdfPreview :bytes="preview" :label="previewed || 'Preview'">The sheet shows here as it will be printed.</PdfPreview>
    </template>
  </TwoPages>
</template>

<style scoped>
.row,
.views,
.view {
  display: flex;
  gap: 8px;
  align-items: center;
}
.row .el-button,
.view .el-button {
  margin: 0;
}
.view {
  padding: 4px 0;
  border-top: 1px solid var(--rule);
}
.list {
  display: flex;
  flex-direction: column;
  min-height: 130px;
}
</style>

<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { get, post, put } from '../../api/client';
import type { ComparedView, ExportRequest, ExportView, HandOverView, LetterheadRequest, OfferView } from '../../api/types';
import type { Column } from '../../figures/columns';
import FiguresTable from '../../figures/FiguresTable.vue';
import LineageList from '../../frame/LineageList.vue';
import Slip from '../../frame/Slip.vue';
import PageTabs from '../../frame/PageTabs.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { fileSize, when } from '../../format/units';
import { MapSketch } from '../../sketch';
import { pointsScene, type Scene, type ScenePath } from '../../sketch/scene';
import { useProject } from '../../state/project';
import ReceiptTable from './ReceiptTable.vue';

/** Files as they are written one by one, and what was handed over before. */
const project = useProject();
const route = useRoute();
const data = ref<HandOverView>({ letterhead: '', offers: [], exports: [], archive: [], geoids: [] });
/** What is chosen for each kind of file. */
const picked = ref<Record<string, number[]>>({});
const surfaces = computed(() => picked.value.dxf ?? []);
const selected = ref(new Set<string>());
const head = ref('');
const compared = ref<ComparedView | null>(null);
const tab = ref<'current' | 'archive'>('current');
const archive = computed(() => tab.value === 'archive');
const paths = ref<ScenePath[]>([]);

const rows = computed(() => (archive.value ? data.value.archive : data.value.exports));
const chosen = computed(() => [...data.value.exports, ...data.value.archive].find((e) => selected.value.has(String(e.id))) ?? null);
const bad = computed(() => data.value.exports.filter((e) => e.stale.length > 0).length);
const scene = computed<Scene>(() => ({ ...pointsScene(project.points), paths: paths.value }));

const columns: Column<ExportView>[] = [
  { key: 'name', title: 'file', width: 'minmax(160px, 1fr)', value: (e) => e.name },
  { key: 'size', title: 'size', width: '64px', align: 'right', mono: true, value: (e) => e.size, text: (e) => fileSize(e.size) },
  { key: 'receipt', title: 'receipt', width: '64px', value: (e) => (e.holds ? '✓ holds' : '✕ fails') },
  { key: 'state', title: 'state', width: '58px', value: (e) => (e.stale.length > 0 ? '◐ stale' : '✓ fresh') },
  { key: 'when', title: 'written', width: '88px', value: (e) => e.createdAt, text: (e) => when(e.createdAt) },
];

async function load() {
  data.value = await get<HandOverView>(project.path('/handover'));
  head.value = data.value.letterhead;
  // Everything that may be chosen together is, to begin with; of what is written one by one, the newest.
  for (const o of data.value.offers) {
    const ids = o.choices.map((c) => c.id);
    const kept = picked.value[o.kind]?.filter((id) => ids.includes(id));
    picked.value[o.kind] = kept && (kept.length > 0 || o.takes !== 1) ? kept : o.takes > 1 ? ids : ids.slice(-1);
  }
  if (!chosen.value && data.value.exports[0]) selected.value = new Set([String(data.value.exports[0].id)]);
}

/** What there is to write, under what people look for. Packages have a page of their own. */
const groups = computed(() => {
  const by = new Map<string, OfferView[]>();
  for (const o of data.value.offers) if (o.group !== 'Packages') by.set(o.group, [...(by.get(o.group) ?? []), o]);
  return [...by];
});

/** One that is chosen for needs one to choose. */
const canBe = (o: OfferView) => o.takes !== 1 || o.choices.length > 0;

async function write(kind: string) {
  await project.attempt(
    () => project.job(post(project.path('/handover'), { kind, surfaces: picked.value[kind] ?? [] } satisfies ExportRequest)),
    'Written and read back.',
  );
  await load();
  const newest = [...data.value.exports].filter((e) => e.kind === kind).sort((a, b) => b.id - a.id)[0];
  if (newest) selected.value = new Set([String(newest.id)]);
}

/** The one before it in its place. */
const before = computed(() =>
  chosen.value
    ? [...data.value.exports, ...data.value.archive].find((e) => e.slot === chosen.value!.slot && e.run === chosen.value!.run - 1)
    : undefined,
);
async function compare() {
  compared.value = await get<ComparedView>(project.path(`/handover/${chosen.value!.id}/against/${before.value!.id}`));
}
watch(chosen, () => (compared.value = null));

async function saveHead() {
  if (head.value === data.value.letterhead) return;
  await project.attempt(() => put(project.path('/handover/letterhead'), { letterhead: head.value } satisfies LetterheadRequest));
}

async function drawContours() {
  const all: ScenePath[] = [];
  for (const id of surfaces.value) {
    for (const level of await get<{ h: number; lines: number[][] }[]>(project.path(`/terrain/surfaces/${id}/contours`)))
      for (const path of level.lines) all.push({ path, kind: 'contour' });
  }
  paths.value = all;
}

onMounted(async () => {
  await load();
  await drawContours();
  if (route.query.action === 'pdf') await write('pdf');
  if (typeof route.query.report === 'string') selected.value = new Set([route.query.report]);
});
watch(() => project.version, load);
watch(surfaces, drawContours);
</script>

<template>
  <TwoPages>
    <template #figures>
      <div class="sheet scroll">
        <slot />
        <div>
          <h1>
            {{
              data.exports.length === 0
                ? 'Nothing is handed over yet'
                : bad > 0
                  ? `${bad} of ${data.exports.length} files are stale`
                  : `${data.exports.length} files, all fresh`
            }}
          </h1>
          <p class="quiet">Every file is read back and compared before it is offered. What was handed over stays in the archive.</p>
          <ElButton link type="primary" data-test="whole-project" @click="project.panel = 'archive'"
            >The whole project as one file, or a copy of it</ElButton
          >
        </div>
        <label class="head"
          ><span class="label">Heads every report</span
          ><ElInput
            v-model="head"
            type="textarea"
            :rows="1"
            autosize
            maxlength="400"
            placeholder="the company, and where it is"
            aria-label="Heads every report"
            data-test="letterhead"
            :disabled="!project.mayChange"
            @change="saveHead"
        /></label>
        <ElAlert v-if="bad > 0" type="warning" :closable="false">
          <span>Their inputs changed after they were written.</span><span class="spacer" /><ElButton
            type="primary"
            plain
            :disabled="!project.mayChange"
            @click="project.recompute()"
          >
            Recompute in order
          </ElButton>
        </ElAlert>
        <section class="choices offers" aria-label="Write a file">
          <template v-for="[group, offers] in groups" :key="group">
            <h2>{{ group }}</h2>
            <div v-for="o in offers" :key="o.kind">
              <strong>{{ o.title }}</strong>
              <span class="quiet"
                >{{ o.format }}: {{ o.holds }}
                <ElCheckboxGroup v-if="o.takes > 1" v-model="picked[o.kind]" :aria-label="o.title">
                  <ElCheckbox v-for="c in o.choices" :key="c.id" :value="c.id">{{ c.name }}</ElCheckbox>
                </ElCheckboxGroup>
                <ElSelect
                  v-else-if="o.takes === 1 && o.choices.length > 0"
                  size="small"
                  class="choice"
                  :model-value="picked[o.kind]?.[0]"
                  :aria-label="o.title"
                  @update:model-value="(id: number) => (picked[o.kind] = [id])"
                >
                  <ElOption v-for="c in o.choices" :key="c.id" :value="c.id" :label="c.name" />
                </ElSelect>
              </span>
              <ElButton
                type="primary"
                plain
                :data-test="`write-${o.kind}`"
                :disabled="!project.mayChange || !canBe(o)"
                @click="write(o.kind)"
              >
                Write {{ o.format }}
              </ElButton>
            </div>
          </template>
        </section>
        <section v-if="data.geoids.length > 0" class="choices" aria-label="Geoid extracts">
          <div v-for="g in data.geoids" :key="g.id">
            <strong>Geoid extract</strong>
            <span
              ><span class="mono name">{{ g.name }}</span
              >, {{ fileSize(g.size) }}<span class="quiet">; {{ g.notes.join('; ') }}</span></span
            >
            <span
              ><a class="link" :href="project.path(`/reference/grids/${g.id}.gtx`)">GTX</a>
              <a class="link isg" :href="project.path(`/reference/grids/${g.id}.isg`)">ISG</a></span
            >
          </div>
        </section>
        <PageTabs
          v-model="tab"
          :tabs="[
            ['current', 'Handed over'],
            ['archive', `Archive ${data.archive.length}`],
          ]"
          label="Files"
        />
        <div class="files">
          <FiguresTable
            label="files"
            :columns="columns"
            :rows="rows"
            :row-key="(e) => String(e.id)"
            :selected="selected"
            :filterable="rows.length > 12"
            @select="(k) => (selected = new Set(k))"
          >
            <template #cell-receipt="{ row, text }"
              ><span :class="row.holds ? 'holds' : 'fails'">{{ text }}</span></template
            >
            <template #cell-state="{ row, text }"
              ><span :class="row.stale.length > 0 ? 'doubt' : 'holds'">{{ text }}</span></template
            >
            <template #empty
              ><p class="quiet">
                {{
                  archive
                    ? 'Older versions of a file are kept here when it is written again.'
                    : 'Write a file above; it appears here with its receipt.'
                }}
              </p></template
            >
          </FiguresTable>
        </div>
        <Slip v-if="chosen" :tone="!chosen.holds ? 'bad' : chosen.stale.length > 0 ? 'doubt' : 'plain'">
          <div>
            <strong>{{ chosen.label }}</strong> <span class="quiet mono">{{ chosen.name }}</span>
            <span class="quiet">version {{ chosen.run }}, {{ when(chosen.createdAt) }} by {{ chosen.author }}</span>
          </div>
          <div v-if="chosen.stale.length > 0" class="doubt">Stale: {{ chosen.stale.join('; ') }}.</div>
          <ReceiptTable :checks="chosen.checks" />
          <div class="quiet">{{ chosen.leftOut.length === 0 ? 'Nothing was left out.' : `Left out: ${chosen.leftOut.join('; ')}.` }}</div>
          <div class="quiet mono hash" data-test="inputs">
            SHA-256 {{ chosen.sha256.slice(0, 16) }}…<template v-if="chosen.inputs.length > 0"
              >; of {{ chosen.inputs.join(', ') }}</template
            >
          </div>
          <div v-if="compared" data-test="compared">
            <strong>{{
              compared.same ? `The same as version ${compared.from}, to the byte.` : `Against version ${compared.from}:`
            }}</strong>
            <span v-if="compared.because.length > 0">{{ compared.because.join('; ') }}.</span>
            <template v-if="!compared.same">
              <span class="quiet">{{
                compared.gone + compared.new === 0
                  ? 'What this kind of file holds is not compared line by line.'
                  : `${compared.gone} lines gone, ${compared.new} new.`
              }}</span>
              <pre
                v-if="compared.before.length + compared.now.length > 0"
              ><span v-for="(l, i) in compared.before" :key="`b${i}`" class="fails">− {{ l }}
</span><span v-for="(l, i) in compared.now" :key="`n${i}`" class="holds">+ {{ l }}
</span></pre>
            </template>
          </div>
          <LineageList :place="chosen.slot" />
          <div>
            <ElButton tag="a" type="primary" v-if="chosen.holds" data-test="download" :href="project.path(`/handover/${chosen.id}/file`)"
              >Download</ElButton
            ><span v-else class="fails">Not offered: the receipt does not hold.</span>
            <ElButton v-if="before" data-test="compare" @click="compare">Compare with version {{ before.run }}</ElButton>
          </div>
        </Slip>
      </div>
    </template>
    <template #sketch><MapSketch :scene="scene" /></template>
  </TwoPages>
</template>

<style scoped>
/* What was written is seen without looking for it: the kinds there are to write scroll by themselves. */
.offers {
  flex: 0 1 auto;
  min-height: 140px;
  max-height: 30vh;
  overflow-y: auto;
  scrollbar-gutter: stable;
}
.head {
  display: grid;
  grid-template-columns: 140px 1fr;
  gap: 12px;
  align-items: center;
}
.hash {
  font-size: 11px;
}
pre {
  font: 11px/1.45 'IBM Plex Mono';
  max-height: 180px;
  overflow: auto;
  margin: 2px 0;
}
.choice {
  width: 180px;
}
/* However many kinds of files there are to write, the list of those written keeps room; the page scrolls. */
.files {
  display: flex;
  flex-direction: column;
  flex: 1 0 130px;
  min-height: 130px;
}
.choices > div {
  display: grid;
  grid-template-columns: 140px 1fr 136px;
  gap: 12px;
  align-items: center;
  padding: 5px 0;
  border-top: 1px solid var(--rule);
}
.name {
  font-size: 12px;
  overflow-wrap: anywhere;
}
.isg {
  margin-left: 10px;
}
</style>

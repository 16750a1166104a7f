<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { get, Problem, request } from '../../api/client';
import type { FileView, IntakeView, PreviewView } from '../../api/types';
import type { Column } from '../../figures/columns';
import FilePick from '../../fields/FilePick.vue';
import FiguresTable from '../../figures/FiguresTable.vue';
import Slip from '../../frame/Slip.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { fileSize, when } from '../../format/units';
import { MapSketch } from '../../sketch';
import { pointsScene, type Scene } from '../../sketch/scene';
import { useProject } from '../../state/project';
import PreviewSheet from './PreviewSheet.vue';
import { settled } from './previews';

const project = useProject();
const route = useRoute();
const files = ref<FileView[]>([]);
const selected = ref(new Set<string>());
const preview = ref<PreviewView | null>(null);
const uploading = ref('');

const columns: Column<FileView>[] = [
  { key: 'name', title: 'file', width: 'minmax(120px, 1fr)', value: (f) => f.name },
  { key: 'kind', title: 'read as', width: '134px', value: (f) => f.kindLabel },
  {
    key: 'records',
    title: 'records',
    width: '50px',
    align: 'right',
    mono: true,
    value: (f) => (f.state === 'accepted' ? f.records : null),
  },
  {
    key: 'leftOut',
    title: 'left out',
    width: '50px',
    align: 'right',
    mono: true,
    value: (f) => (f.state === 'accepted' ? f.leftOut : null),
  },
  { key: 'size', title: 'size', width: '62px', align: 'right', mono: true, value: (f) => f.size, text: (f) => fileSize(f.size) },
  {
    key: 'when',
    title: 'accepted',
    width: '102px',
    value: (f) => f.acceptedAt ?? '',
    text: (f) => (f.acceptedAt ? when(f.acceptedAt) : 'waiting'),
  },
];

const chosen = computed(() => files.value.find((f) => selected.value.has(String(f.id))) ?? null);
const waiting = computed(() => files.value.filter((f) => f.state === 'waiting').length);

const scene = computed<Scene>(() => {
  const base = pointsScene(project.points);
  const p = preview.value;
  if (!p) return base;
  const known = new Set(base.points.map((x) => x.name));
  return {
    ...base,
    points: [
      ...base.points,
      ...p.points.filter((x) => !known.has(x.name)).map((x) => ({ name: x.name, e: x.e, n: x.n, role: 'new' as const })),
    ],
    lines: p.rays.map(([a, b], i) => ({
      key: `ray ${i}`,
      from: [p.points[a!]!.e, p.points[a!]!.n],
      to: [p.points[b!]!.e, p.points[b!]!.n],
      style: p.kind === 'vectors' ? 'vector' : 'sight',
      tone: 'plain',
    })),
  };
});

async function load() {
  files.value = (await get<IntakeView>(project.path('/intake'))).files;
}

async function show(id: number) {
  selected.value = new Set([String(id)]);
  const file = files.value.find((f) => f.id === id);
  preview.value = file && file.state === 'waiting' ? await settled(project, get(project.path(`/intake/${id}`))) : null;
}

async function bring(list: File[]) {
  for (const file of list) {
    uploading.value = file.name;
    const form = new FormData();
    form.append('file', file);
    try {
      preview.value = await settled(project, request('POST', project.path('/intake'), form));
      await load();
      selected.value = new Set([String(preview.value.id)]);
    } catch (e) {
      project.say('bad', `${file.name}: ${e instanceof Problem ? e.message : String(e)}`);
    }
  }
  uploading.value = '';
  await project.refresh();
}

async function changed() {
  await load();
  const next = files.value.find((f) => f.state === 'waiting');
  if (next) await show(next.id);
  else preview.value = null;
}

onMounted(async () => {
  await load();
  const first = files.value.find((f) => String(f.id) === route.query.file) ?? files.value.find((f) => f.state === 'waiting');
  if (first) await show(first.id);
});
watch(() => project.version, load);
watch(
  () => project.dropped,
  (list) => {
    if (list.length === 0) return;
    project.dropped = [];
    void bring(list);
  },
  { immediate: true },
);
</script>

<template>
  <TwoPages>
    <template #figures>
      <div class="sheet">
        <header class="answer">
          <div>
            <h1>
              {{
                files.length === 0
                  ? 'Bring in the field files'
                  : waiting > 0
                    ? `${waiting} file${waiting === 1 ? ' waits' : 's wait'} to be accepted`
                    : `${files.length} file${files.length === 1 ? '' : 's'}, all accepted`
              }}
            </h1>
            <p class="quiet">Drop files anywhere on the page. A file is read and shown first; it joins the project when you accept it.</p>
          </div>
          <span class="spacer" />
          <FilePick text="Choose files" test="files" main multiple :disabled="!project.mayChange" @files="bring" />
        </header>
        <ElAlert v-if="uploading" type="warning" :closable="false">Reading {{ uploading }}…</ElAlert>
        <FiguresTable
          :class="{ short: preview }"
          class="files"
          label="files"
          :columns="columns"
          :rows="files"
          :row-key="(f) => String(f.id)"
          :selected="selected"
          :filterable="files.length > 8"
          :dim="(f) => f.state === 'waiting'"
          @select="(k) => show(Number(k[0]))"
        >
          <template #cell-kind="{ row }"
            ><span :class="{ fails: row.kind === 'unknown' }">{{ row.kindLabel }}</span></template
          >
          <template #cell-leftOut="{ row }"
            ><span :class="{ doubt: row.leftOut > 0 }">{{ row.state === 'accepted' ? row.leftOut : '' }}</span></template
          >
          <template #cell-when="{ row }"
            ><span :class="{ doubt: !row.acceptedAt }">{{ row.acceptedAt ? when(row.acceptedAt) : 'waiting' }}</span></template
          >
          <template #empty>
            <div class="empty">
              <p>Four kinds of delimited text are recognised by what their headings mean:</p>
              <ul>
                <li><strong>control list</strong>: point, easting, northing, height, held or standard deviations</li>
                <li>
                  <strong>total-station pointings</strong>: station, round, instrument height, target, target height, direction, zenith
                  angle, slope distance
                </li>
                <li><strong>GNSS vectors</strong>: from, to, dX, dY, dZ and their covariance</li>
                <li><strong>surveyed points</strong>: point, easting, northing, height, code</li>
              </ul>
              <p class="quiet">Units stand in the heading, such as easting [m]; where they do not, you are asked.</p>
            </div>
          </template>
        </FiguresTable>
        <PreviewSheet v-if="preview" :key="preview.id" :preview="preview" @preview="(p) => (preview = p)" @changed="changed" />
        <Slip v-else-if="chosen">
          <div>
            <strong>{{ chosen.name }}</strong> <span class="quiet">{{ chosen.kindLabel }}</span>
          </div>
          <div>
            {{ chosen.records }} records taken, {{ chosen.leftOut }} lines left out. Received {{ when(chosen.receivedAt) }} by
            {{ chosen.author }}.
          </div>
          <div class="quiet mono sha">sha-256 {{ chosen.sha256 }}</div>
          <div><a class="link" :href="project.path(`/intake/${chosen.id}/source`)">Download as received</a></div>
        </Slip>
      </div>
    </template>
    <template #sketch><MapSketch :scene="scene" /></template>
  </TwoPages>
</template>

<style scoped>
.answer {
  display: flex;
  gap: 16px;
  align-items: flex-start;
}
.files {
  min-height: 90px;
}
.files.short {
  flex: 0 0 166px;
}
.sha {
  font-size: 11px;
  overflow: hidden;
  text-overflow: ellipsis;
}
ul {
  margin: 0;
  padding-left: 18px;
}
</style>

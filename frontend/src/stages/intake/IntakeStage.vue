<script setup lang="ts">
import { computed, onMounted, reactive, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { get, post, reasonOf, request } from '../../api/client';
import type { AcceptRequest, FileView, IntakeView, NameQuestionView, PreviewView } from '../../api/types';
import type { Column } from '../../figures/columns';
import FilePick from '../../fields/FilePick.vue';
import FiguresTable from '../../figures/FiguresTable.vue';
import Slip from '../../frame/Slip.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { fileSize, when } from '../../format/units';
import { MapSketch } from '../../sketch';
import { pointsScene, type Scene } from '../../sketch/scene';
import { useProject } from '../../state/project';
import NamesSheet from './NamesSheet.vue';
import { formOf, inPieces, PIECE } from './pieces';
import PreviewSheet from './PreviewSheet.vue';
import { settled } from './previews';
import { inTurn, isFieldFile, isZip, standingOf, summary, type Standing } from './queue';

const project = useProject();
const route = useRoute();
const files = ref<FileView[]>([]);
const selected = ref(new Set<string>());
const previews = reactive(new Map<number, PreviewView>());
const names = ref<NameQuestionView[]>([]);
const uploading = ref('');
const accepting = ref('');

const shown = computed(() => Number([...selected.value][0] ?? 0));
const preview = computed(() => previews.get(shown.value) ?? null);
const waitingFiles = computed(() => files.value.filter((f) => f.state === 'waiting'));
const standings = computed(() => waitingFiles.value.map((f) => standingOf(previews.get(f.id))));
const ready = computed(() => waitingFiles.value.filter((f) => standingOf(previews.get(f.id)) === 'ready'));
const openNames = computed(() => names.value.filter((n) => n.answer === null).length);

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
    value: (f) => f.acceptedAt ?? STANDING[standingOf(previews.get(f.id))],
    text: (f) => (f.acceptedAt ? when(f.acceptedAt) : STANDING[standingOf(previews.get(f.id))]),
  },
];
const TONE: Record<Standing, string> = { reading: 'quiet', ready: 'holds', asks: 'doubt', twin: 'doubt', unreadable: 'fails' };
const STANDING: Record<Standing, string> = {
  reading: 'being read…',
  ready: 'ready',
  asks: 'has questions',
  twin: 'here already',
  unreadable: 'cannot be read',
};

const chosen = computed(() => files.value.find((f) => selected.value.has(String(f.id))) ?? null);
const waiting = computed(() => waitingFiles.value.length);

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

/** One after the other: reading is the server's work, and the page shows each as it is there. */
async function read(list: FileView[]) {
  for (const file of list) {
    try {
      previews.set(file.id, await settled(project, get(project.path(`/intake/${file.id}`))));
    } catch (e) {
      if (files.value.some((f) => f.id === file.id)) project.say('bad', `${file.name}: ${reasonOf(e)}`);
    }
  }
}

async function askNames() {
  names.value = waiting.value === 0 ? [] : await get<NameQuestionView[]>(project.path('/intake/names')).catch(() => []);
}

/** What waits is read against what the project holds, so again when that changed. */
async function readAgain() {
  await load();
  for (const id of [...previews.keys()]) if (!waitingFiles.value.some((f) => f.id === id)) previews.delete(id);
  await read(waitingFiles.value);
  await askNames();
}

async function show(id: number) {
  selected.value = new Set([String(id)]);
  const file = waitingFiles.value.find((f) => f.id === id);
  if (file && !previews.has(id)) await read([file]);
}

/** The first that has questions, else the first that waits. */
async function showNext() {
  const next = waitingFiles.value.find((f) => standingOf(previews.get(f.id)) === 'asks') ?? waitingFiles.value[0];
  if (next) await show(next.id);
}

async function bring(all: File[]) {
  for (const file of all.filter(isFieldFile)) {
    uploading.value = file.name;
    try {
      if (isZip(file)) await request('POST', project.path('/intake/zip'), formOf(file, file.name));
      else {
        const got = await settled(
          project,
          file.size > PIECE
            ? inPieces(project.path('/intake/pieces'), file, (of) => (uploading.value = `${file.name}, ${Math.round(100 * of)} %`))
            : request('POST', project.path('/intake'), formOf(file, file.name)),
        );
        previews.set(got.id, got);
      }
      await load();
    } catch (e) {
      project.say('bad', `${file.name}: ${reasonOf(e)}`);
    }
  }
  uploading.value = '';
  await project.refresh();
  await read(waitingFiles.value.filter((f) => !previews.has(f.id)));
  await askNames();
  await showNext();
}

/** Everything that asks nothing, one entry of the ledger each; what one brings may raise a question in the next, which then stays. */
async function acceptReady() {
  let taken = 0;
  for (const file of inTurn(ready.value, previews)) {
    accepting.value = file.name;
    const now = await settled(project, get(project.path(`/intake/${file.id}`)));
    previews.set(file.id, now);
    if (standingOf(now) !== 'ready') continue;
    const body = { leaveOutBad: false } satisfies AcceptRequest;
    if (!(await project.attempt(() => post(project.path(`/intake/${file.id}/accept`), body)))) break;
    taken += 1;
  }
  accepting.value = '';
  await readAgain();
  await showNext();
  if (taken > 0)
    project.say('good', `Accepted ${taken} file${taken === 1 ? '' : 's'}${waiting.value > 0 ? `; ${summary(standings.value)}` : ''}.`);
}

async function changed() {
  await readAgain();
  await showNext();
}

onMounted(async () => {
  await load();
  const asked = files.value.find((f) => String(f.id) === route.query.file);
  if (asked) await show(asked.id);
  await read(waitingFiles.value.filter((f) => !previews.has(f.id)));
  if (!asked && selected.value.size === 0) await showNext();
  await askNames();
});
// A change made elsewhere may change what a waiting file means; one made here is read where it is made.
watch(
  () => project.version,
  () => (uploading.value === '' && accepting.value === '' ? readAgain() : load()),
);
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
            <p v-if="waiting > 0" data-test="summary">
              {{ summary(standings)
              }}<template v-if="openNames > 0">, {{ openNames }} name{{ openNames === 1 ? '' : 's' }} to look at</template>.
            </p>
            <p v-else class="quiet">
              Drop files, a folder or a zip anywhere on the page. A file is read and shown first; it joins the project when you accept it.
            </p>
          </div>
          <span class="spacer" />
          <div class="acts">
            <ElButton
              v-if="ready.length > 1"
              type="primary"
              data-test="accept-ready"
              :loading="accepting !== ''"
              :disabled="!project.mayChange || uploading !== ''"
              @click="acceptReady"
              >Accept the {{ ready.length }} ready</ElButton
            >
            <FilePick text="Choose files" test="files" :main="waiting === 0" multiple :disabled="!project.mayChange" @files="bring" />
            <FilePick text="A folder" test="folder" folder :disabled="!project.mayChange" @files="bring" />
          </div>
        </header>
        <ElAlert v-if="uploading || accepting" type="info" :closable="false" role="status">{{
          uploading ? `Reading ${uploading}…` : `Accepting ${accepting}…`
        }}</ElAlert>
        <FiguresTable
          :style="preview ? { flex: `0 0 ${Math.min(6, files.length) * 27 + (files.length > 8 ? 62 : 34)}px` } : {}"
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
            ><span v-if="row.acceptedAt">{{ when(row.acceptedAt) }}</span
            ><span v-else :class="TONE[standingOf(previews.get(row.id))]">{{ STANDING[standingOf(previews.get(row.id))] }}</span></template
          >
          <template #empty>
            <div class="kinds">
              <p>Four kinds of delimited text are recognised by what their headings and values mean:</p>
              <ul>
                <li><strong>control list</strong>: point, easting, northing, height, held or standard deviations</li>
                <li>
                  <strong>total-station pointings</strong>: station, round, face, instrument height, target, target height, direction,
                  zenith angle, slope or horizontal distance
                </li>
                <li><strong>GNSS vectors</strong>: from, to, dX, dY, dZ and their covariance</li>
                <li><strong>surveyed points</strong>: point, easting, northing, height, code</li>
              </ul>
              <p class="quiet">
                Units stand in the heading, such as easting [m]; where they do not, you are asked once. A list without headings is read by
                its values.
              </p>
            </div>
          </template>
        </FiguresTable>
        <NamesSheet v-if="names.length > 0" :names="names" @changed="readAgain" />
        <PreviewSheet
          v-if="preview"
          :key="preview.id"
          :preview="preview"
          @preview="(p) => previews.set(p.id, p)"
          @reload="readAgain"
          @changed="changed"
        />
        <Slip v-else-if="chosen">
          <div>
            <strong>{{ chosen.name }}</strong> <span class="quiet">{{ chosen.kindLabel }}</span>
          </div>
          <div>
            {{ chosen.records }} records taken, {{ chosen.leftOut }} lines left out. Received {{ when(chosen.receivedAt) }} by
            {{ chosen.author }}.
          </div>
          <img v-if="chosen.kind === 'photo'" class="photo" :src="project.path(`/intake/${chosen.id}/source`)" :alt="chosen.name" />
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
.acts {
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 8px;
}
.files {
  min-height: 90px;
}
.photo {
  max-width: 100%;
  max-height: 320px;
  object-fit: contain;
  object-position: left;
}
.kinds {
  padding: 18px 8px;
  max-width: 64ch;
  display: grid;
  gap: 10px;
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

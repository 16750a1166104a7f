<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue';
import { bytes, get, post, put } from '../../api/client';
import type { ExportRequest, HeldDrawingView, HeldView, PackageRequest, PackagesView, PackageView } from '../../api/types';
import type { Column } from '../../figures/columns';
import { figures, words } from '../../figures/columns';
import FiguresTable from '../../figures/FiguresTable.vue';
import { fileSize, height, lengthUnit, when } from '../../format/units';
import EmptyPage from '../../frame/EmptyPage.vue';
import { isTyping } from '../../frame/keys';
import LineageList from '../../frame/LineageList.vue';
import Slip from '../../frame/Slip.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { MapSketch } from '../../sketch';
import { emptyScene } from '../../sketch/scene';
import { useProject } from '../../state/project';
import { readMesh } from '../terrain/mesh';
import FieldDevice from './FieldDevice.vue';
import { fieldScene } from './fieldScene';
import PackageForm from './PackageForm.vue';
import ReceiptTable from './ReceiptTable.vue';

/** Packages for controllers and machines: what is chosen, what the zip holds, and how a controller shows it. */
type Item = HeldView['items'][number];
const project = useProject();
const units = computed(() => project.units);
const data = ref<PackagesView | null>(null);
const chosen = ref(0);
const run = ref(0);
const asking = ref<null | 'new' | 'edit'>(null);
const held = shallowRef<HeldView | null>(null);
const drawing = shallowRef<HeldDrawingView | null>(null);
const mesh = shallowRef<ArrayBuffer | null>(null);
const onDevice = ref(false);
const selected = ref(new Set<string>());
let loaded = 0;

const kept = computed<PackageView | null>(() => data.value?.packages.find((p) => p.id === chosen.value) ?? data.value?.packages[0] ?? null);
const file = computed(() => kept.value?.files.find((f) => f.id === run.value) ?? kept.value?.files[0] ?? null);
const key = (i: Item) => `${i.kind} ${i.name}`;
const item = computed(() => held.value?.items.find((i) => selected.value.has(key(i))) ?? null);
const surface = computed(() =>
  item.value?.kind === 'surface' ? (held.value?.surfaces.findIndex((s) => s.name === item.value!.name) ?? -1) : -1,
);
const scene = computed(() =>
  held.value && drawing.value ? fieldScene(held.value, drawing.value, readMesh(mesh.value), new Set()) : emptyScene,
);
const COUNTED: Record<string, [string, string]> = {
  surface: ['face', 'faces'],
  alignment: ['element', 'elements'],
  lines: ['line', 'lines'],
  points: ['point', 'points'],
  background: ['line', 'lines'],
};
const counted = (i: Item) => (COUNTED[i.kind] ? `${i.count} ${COUNTED[i.kind]![i.count === 1 ? 0 : 1]}` : '');
const headline = computed(() => {
  const h = held.value;
  if (!h && file.value && !file.value.holds) return `Package ${kept.value!.name} was written, and its receipt does not hold`;
  if (!h) return kept.value ? `Package ${kept.value.name} is not written yet` : '';
  const lines = h.layers.reduce((n, l) => n + l.lines, 0);
  const points = h.items.find((i) => i.kind === 'points')?.count ?? 0;
  const say = (n: number, one: string) => (n === 0 ? [] : [`${n} ${one}${n === 1 ? '' : 's'}`]);
  const parts = [...say(h.surfaces.length, 'surface'), ...say(lines, 'line'), ...say(points, 'point')];
  return `Package ${h.name} holds ${parts.length > 1 ? `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}` : (parts[0] ?? 'nothing')}`;
});

const columns: Column<Item>[] = [
  words('kind', 'in it', 84, (i) => i.kind),
  { key: 'name', title: 'name', width: 'minmax(110px, 1fr)', value: (i) => i.name },
  figures('count', 'holds', 92, (i) => i.count, counted),
  { key: 'file', title: 'file', width: '122px', mono: true, value: (i) => i.file },
  { key: 'back', title: 'read back', width: '82px', value: (i) => (i.why === '' ? '✓ holds' : '✕ differs') },
];

async function load() {
  data.value = await get<PackagesView>(project.path('/handover/packages'));
  await open();
}
/** Reads what the zip holds; once for each. */
async function open() {
  const f = file.value;
  if (!f?.holds) {
    [held.value, drawing.value, mesh.value, loaded] = [null, null, null, 0];
    return;
  }
  if (loaded === f.id) return;
  loaded = f.id;
  onDevice.value = false;
  const [h, d] = await Promise.all([
    get<HeldView>(project.path(`/handover/${f.id}/held`)),
    get<HeldDrawingView>(project.path(`/handover/${f.id}/held/drawing`)),
  ]);
  if (loaded !== f.id) return;
  [held.value, drawing.value, mesh.value] = [h, d, null];
  const begin = h.items[0];
  selected.value = new Set(begin ? [key(begin)] : []);
}
watch([surface, held], async ([k]) => {
  const of = file.value?.id;
  const shape = k < 0 || of === undefined ? null : await bytes(project.path(`/handover/${of}/held/surfaces/${k}`));
  // Another may be chosen by now.
  if (surface.value === k && file.value?.id === of) mesh.value = shape;
});
watch([kept, file], open);
watch(() => project.version, load);

async function write(id: number) {
  run.value = 0;
  await project.attempt(
    () => project.job(post(project.path('/handover'), { kind: 'package', surfaces: [id] } satisfies ExportRequest)),
    'Written, and read back from the zip.',
  );
  await load();
}
async function save(request: PackageRequest) {
  const edited = asking.value === 'edit' ? kept.value : null;
  let id = 0;
  const ok = await project.attempt(async () => {
    const answer = edited
      ? await put<{ package: number }>(project.path(`/handover/packages/${edited.id}`), request, edited.version)
      : await post<{ package: number }>(project.path('/handover/packages'), request);
    id = answer.package;
  });
  if (!ok) return;
  [asking.value, chosen.value] = [null, id];
  await write(id);
}
function pressed(event: KeyboardEvent) {
  if (!isTyping(event) && event.key === 'o' && held.value && !event.ctrlKey && !event.metaKey) onDevice.value = true;
}
onMounted(async () => {
  window.addEventListener('keydown', pressed);
  await load();
});
onBeforeUnmount(() => window.removeEventListener('keydown', pressed));
</script>

<template>
  <TwoPages>
    <template #figures>
      <div class="sheet">
        <slot />
        <PackageForm v-if="asking && data" :choices="data" :kept="asking === 'edit' ? kept : null" @save="save" @cancel="asking = null" />
        <EmptyPage v-else-if="data && !kept" title="No package yet">
          <p>
            A package is one zip of open files for a controller or a machine: points, lines, surfaces, alignments, and what their
            coordinates mean. It is read back, and opened on a simulated controller, before anything goes out.
          </p>
          <p>
            <ElButton type="primary" data-test="new-package" :disabled="!project.mayChange" @click="asking = 'new'">New package</ElButton>
          </p>
        </EmptyPage>
        <template v-else-if="data && kept">
          <div>
            <h1 data-test="package-headline">{{ headline }}</h1>
            <p v-if="file">
              This is what the zip holds, read back from it, not what was asked for.
              {{ file.leftOut.length === 0 ? 'Nothing was left out.' : `Left out: ${file.leftOut.join('; ')}.` }}
            </p>
            <p v-if="file" class="quiet">
              {{ file.name }}, {{ fileSize(file.size) }}, version {{ file.run }}, {{ when(file.createdAt) }} by {{ file.author
              }}<template v-if="held?.checked">; {{ held.checked }}</template>
            </p>
          </div>
          <ElAlert v-if="file && file.stale.length > 0" type="warning" :closable="false">
            <span>{{
              file.run < (kept.files[0]?.run ?? 0) ? 'An older version: a newer one was written.' : `Stale: ${file.stale.join('; ')}.`
            }}</span><span class="spacer" /><ElButton type="primary" plain :disabled="!project.mayChange" @click="write(kept.id)"
              >Write it again</ElButton
            >
          </ElAlert>
          <div class="row">
            <ElSelect
              v-if="data.packages.length > 1"
              :model-value="kept.id"
              class="which"
              aria-label="Package"
              @change="(id: number) => ([chosen, run] = [id, 0])"
            >
              <ElOption v-for="p in data.packages" :key="p.id" :value="p.id" :label="p.name" />
            </ElSelect>
            <ElSelect
              v-if="kept.files.length > 1"
              :model-value="file?.id"
              class="run"
              aria-label="Version"
              @change="(id: number) => (run = id)"
            >
              <ElOption v-for="f in kept.files" :key="f.id" :value="f.id" :label="`version ${f.run}`" />
            </ElSelect>
            <span class="spacer" />
            <ElButton data-test="edit-package" :disabled="!project.mayChange" @click="asking = 'edit'">Change what is in it</ElButton>
            <ElButton type="primary" plain data-test="new-package" :disabled="!project.mayChange" @click="asking = 'new'"
              >New package</ElButton
            >
          </div>
          <ReceiptTable v-if="file && !file.holds" :checks="file.checks" />
          <div v-if="held" class="items">
            <FiguresTable
              label="what the package holds"
              :columns="columns"
              :rows="held.items"
              :row-key="key"
              :selected="selected"
              :filterable="held.items.length > 12"
              @select="(k) => (selected = new Set(k))"
            >
              <template #cell-back="{ row, text }"
                ><span :class="row.why === '' ? 'holds' : 'fails'" :title="row.why">{{ text }}</span></template
              >
            </FiguresTable>
          </div>
          <div v-if="held && held.layers.length > 0" class="layers">
            <span class="label">Layers, as the machine shows them</span>
            <span v-for="l in held.layers" :key="l.name"
              ><i :style="{ background: l.colour }" />{{ l.name }} <span class="quiet">{{ l.lines }}</span></span
            >
          </div>
          <span class="spacer" />
          <Slip v-if="held && file" :tone="file.stale.length > 0 ? 'doubt' : 'plain'">
            <div v-if="item">
              <strong>{{ item.name }}</strong>
              <span v-if="surface >= 0" class="mono"
                >{{ counted(item) }}, {{ height(held.surfaces[surface]!.low, units) }} to {{ height(held.surfaces[surface]!.high, units) }}
                {{ lengthUnit(units) }}</span
              ><span v-else class="mono">{{ counted(item) }}</span>
            </div>
            <div v-if="item">
              {{ item.why === '' ? `Read from ${item.file} in the package` : item.why
              }}<template v-if="item.from">; made of {{ item.from }}</template
              >.
            </div>
            <div class="quiet">{{ held.system }}, {{ held.heights }} heights.</div>
            <LineageList :place="file.slot" />
            <div class="row">
              <ElButton type="primary" data-test="open-device" @click="onDevice = true">Open on the controller</ElButton>
              <kbd>o</kbd>
              <ElButton tag="a" :href="project.path(`/handover/${file.id}/file`)">Download</ElButton>
            </div>
          </Slip>
        </template>
      </div>
    </template>
    <template #sketch>
      <FieldDevice
        v-if="onDevice && held && drawing && file"
        :key="file.id"
        :result="file.id"
        :held="held"
        :drawing="drawing"
        @close="onDevice = false"
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
.which {
  width: 200px;
}
.run {
  width: 110px;
}
.items {
  display: flex;
  flex-direction: column;
  flex: 0 1 auto;
  min-height: 150px;
}
.layers {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  align-items: center;
}
.layers i {
  display: inline-block;
  width: 18px;
  height: 4px;
  margin-right: 6px;
  vertical-align: middle;
}
</style>

<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue';
import { get, post, put, remove } from '../../api/client';
import { copyOf } from '../../api/copyOf';
import type { ExportRequest, GisCountView, GisRequest, GisSetView, GisView } from '../../api/types';
import NumberInput from '../../fields/NumberInput.vue';
import SystemPicker from '../../fields/SystemPicker.vue';
import { fileSize, smallUnit, metresPerSmall, when } from '../../format/units';
import LineageList from '../../frame/LineageList.vue';
import Slip from '../../frame/Slip.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { MapSketch } from '../../sketch';
import { pointsScene } from '../../sketch/scene';
import { useProject } from '../../state/project';
import ReceiptTable from './ReceiptTable.vue';

/** What goes to information systems: well enough known, with the attributes that are chosen, in the system that is asked for. */
const project = useProject();
const units = computed(() => project.units);
const data = ref<GisView | null>(null);
const chosen = ref(0);
const draft = ref<GisRequest>(begin(null));
const count = ref<GisCountView | null>(null);
const problem = ref('');
let timer = 0;
let turn = 0;

const kept = computed<GisSetView | null>(() => data.value?.sets.find((s) => s.id === chosen.value) ?? null);
const file = computed(() => kept.value?.files[0] ?? null);
const layerKey = (l: { file: number; layer: string }) => `${l.file} ${l.layer}`;
const layers = computed({
  get: () => (draft.value.layers ?? []).map(layerKey),
  set: (keys: string[]) => {
    const of = (data.value?.layers ?? []).filter((l) => keys.includes(layerKey(l)));
    draft.value.layers = of.map((l) => ({ file: l.file, layer: l.layer }));
  },
});
const said = computed(() => {
  const c = count.value;
  if (!c) return '';
  const out = [...(c.worse > 0 ? [`${c.worse} are known worse`] : []), ...(c.unknown > 0 ? [`of ${c.unknown} nobody knows`] : [])];
  const more = [...(c.lines > 0 ? [`${c.lines} lines`] : []), ...(c.areas > 0 ? [`${c.areas} areas`] : [])];
  return [`${c.kept} of ${c.points} points go along${out.length > 0 ? `; ${out.join(', ')}` : ''}`, ...more].join(', ');
});

function begin(s: GisSetView | null): Required<GisRequest> {
  return {
    name: s?.name ?? '',
    format: s?.format ?? 'gpkg',
    roles: s?.roles ?? ['control', 'adjusted'],
    codes: s?.codes ?? [],
    plan: s?.plan ?? null,
    up: s?.up ?? null,
    unknown: s?.unknown ?? true,
    layers: s?.layers ?? [],
    attributes: s?.attributes ?? ['name', 'code', 'height', 'sd_e', 'sd_n', 'sd_h', 'source'],
    system: s?.system ?? '',
  };
}
async function load() {
  data.value = await get<GisView>(project.path('/handover/gis'));
  if (!kept.value && data.value.sets[0] && draft.value.name === '') choose(data.value.sets[0].id);
}
function choose(id: number) {
  chosen.value = id;
  draft.value = copyOf(begin(kept.value));
}
/** What would go along, a moment after the last change. */
watch(
  draft,
  () => {
    window.clearTimeout(timer);
    const mine = (turn += 1);
    timer = window.setTimeout(async () => {
      try {
        const found = await post<GisCountView>(project.path('/handover/gis/count'), { ...draft.value, name: draft.value.name || 'draft' });
        if (mine === turn) [count.value, problem.value] = [found, ''];
      } catch (e) {
        if (mine === turn) [count.value, problem.value] = [null, String(e instanceof Error ? e.message : e)];
      }
    }, 300);
  },
  { deep: true, immediate: true },
);
watch(() => project.version, load);

async function write() {
  const of = kept.value;
  let id = 0;
  const ok = await project.attempt(async () => {
    const body = { ...draft.value, name: draft.value.name.trim() };
    const answer = of
      ? await put<{ set: number }>(project.path(`/handover/gis/${of.id}`), body, of.version)
      : await post<{ set: number }>(project.path('/handover/gis'), body);
    id = answer.set;
    await project.job(post(project.path('/handover'), { kind: 'gis', surfaces: [id] } satisfies ExportRequest));
  }, 'Written, and counted again in the file.');
  await load();
  if (ok) choose(id);
}
async function away() {
  if (kept.value && (await project.attempt(() => remove(project.path(`/handover/gis/${kept.value!.id}`))))) {
    await load();
    choose(data.value?.sets[0]?.id ?? 0);
  }
}
onMounted(load);
</script>

<template>
  <TwoPages>
    <template #figures>
      <div class="sheet scroll">
        <slot />
        <h1 data-test="gis-headline">{{ said || 'Points, lines and areas for information systems' }}</h1>
        <p v-if="problem" class="fails">{{ problem }}</p>
        <form v-if="data" class="gis" @submit.prevent="write">
          <div class="row">
            <ElSelect v-if="data.sets.length > 0" :model-value="chosen" class="which" aria-label="GIS set" @change="choose">
              <ElOption v-for="s in data.sets" :key="s.id" :value="s.id" :label="s.name" /><ElOption :value="0" label="a new one" />
            </ElSelect>
            <ElInput v-model="draft.name" placeholder="its name" maxlength="80" aria-label="Name of the set" data-test="gis-name" />
            <ElRadioGroup v-model="draft.format" aria-label="Format"
              ><ElRadioButton v-for="f in data.formats" :key="f.key" :value="f.key">{{ f.name }}</ElRadioButton></ElRadioGroup
            >
          </div>
          <ElFormItem label="Points">
            <ElCheckboxGroup v-model="draft.roles" aria-label="Points"
              ><ElCheckbox v-for="r in data.roles" :key="r.role" :value="r.role"
                >{{ r.role }} <span class="quiet">{{ r.points }}</span></ElCheckbox
              ></ElCheckboxGroup
            >
          </ElFormItem>
          <div class="row">
            <ElFormItem label="with a code" class="wide"
              ><ElSelect v-model="draft.codes" multiple collapse-tags :max-collapse-tags="3" placeholder="all codes" aria-label="Codes"
                ><ElOption v-for="c in data.codes" :key="c" :value="c" :label="c === '' ? 'no code' : c" /></ElSelect
            ></ElFormItem>
            <NumberInput
              v-model="draft.plan!"
              label="known in plan to"
              :unit="smallUnit(units)"
              :factor="metresPerSmall(units)"
              :digits="1"
              placeholder="any"
            />
            <NumberInput
              v-model="draft.up!"
              label="in height to"
              :unit="smallUnit(units)"
              :factor="metresPerSmall(units)"
              :digits="1"
              placeholder="any"
            />
          </div>
          <ElCheckbox v-model="draft.unknown" data-test="gis-unknown">points go along whose precision nobody knows</ElCheckbox>
          <ElFormItem v-if="data.layers.length > 0" label="Lines of drawings, by layer; closed ones are areas">
            <ElCheckboxGroup v-model="layers" aria-label="Layers"
              ><ElCheckbox v-for="l in data.layers" :key="layerKey(l)" :value="layerKey(l)"
                >{{ l.layer }} <span class="quiet">{{ l.lines }} of {{ l.fileName }}</span></ElCheckbox
              ></ElCheckboxGroup
            >
          </ElFormItem>
          <ElFormItem label="Said of each">
            <ElCheckboxGroup v-model="draft.attributes" aria-label="Attributes"
              ><ElCheckbox v-for="a in data.attributes" :key="a" :value="a">{{ a }}</ElCheckbox></ElCheckboxGroup
            >
          </ElFormItem>
          <SystemPicker
            v-if="draft.format !== 'kml'"
            id="gis-system"
            :model-value="draft.system ?? ''"
            path="/api/systems"
            label="In the system"
            :also="[{ value: '', label: 'the project\'s own' }]"
            @update:model-value="(v: string) => (draft.system = v)"
          />
          <div class="row">
            <ElButton
              type="primary"
              native-type="submit"
              data-test="write-gis"
              :disabled="!project.mayChange || draft.name.trim() === '' || !count"
              >Write it</ElButton
            >
            <ElButton v-if="kept" :disabled="!project.mayChange" @click="away">Remove it</ElButton>
          </div>
        </form>
        <span class="spacer" />
        <Slip v-if="file" :tone="file.stale.length > 0 ? 'doubt' : 'plain'">
          <div>
            <strong>{{ kept!.name }}</strong>
            <span class="quiet"
              >{{ file.name }}, {{ fileSize(file.size) }}, version {{ file.run }}, {{ when(file.createdAt) }} by {{ file.author }}</span
            >
          </div>
          <div v-if="file.stale.length > 0" class="doubt">Stale: {{ file.stale.join('; ') }}.</div>
          <ReceiptTable :checks="file.checks" />
          <div class="quiet">{{ file.leftOut.length === 0 ? 'Nothing was left out.' : `Left out: ${file.leftOut.join('; ')}.` }}</div>
          <LineageList :place="file.slot" />
          <div v-if="file.holds">
            <ElButton tag="a" type="primary" :href="project.path(`/handover/${file.id}/file`)">Download</ElButton>
          </div>
        </Slip>
      </div>
    </template>
    <template #sketch><MapSketch :scene="pointsScene(project.points)" /></template>
  </TwoPages>
</template>

<style scoped>
.gis {
  display: grid;
  gap: 4px;
}
.gis :deep(.el-form-item) {
  margin-bottom: 2px;
}
.row {
  display: flex;
  gap: 10px;
  align-items: flex-end;
}
.row .el-button {
  margin: 0;
}
.row .el-radio-group {
  flex: none;
  flex-wrap: nowrap;
}
.which {
  width: 160px;
  flex: none;
}
.wide {
  flex: 1;
}
</style>

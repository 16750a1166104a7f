<script setup lang="ts">
import { computed } from 'vue';
import type { GisCountView, GisRequest, GisSetView, GisView } from '../../api/types';
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
import { useSets } from './useSets';

/** What goes to information systems: well enough known, with the attributes that are chosen, in the system that is asked for. */
const project = useProject();
const units = computed(() => project.units);
const {
  data,
  chosen,
  draft,
  before: count,
  problem,
  kept,
  file,
  choose,
  write,
  away,
} = useSets<GisSetView, GisView, Required<GisRequest>, GisCountView>('gis', 'count', begin, 'Written, and counted again in the file.');
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

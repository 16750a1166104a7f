<script setup lang="ts">
import { computed, ref } from 'vue';
import type { CadLayersView, CadRequest, CadSetView, CadView } from '../../api/types';
import { fileSize, when } from '../../format/units';
import LineageList from '../../frame/LineageList.vue';
import Slip from '../../frame/Slip.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { MapSketch } from '../../sketch';
import { pointsScene } from '../../sketch/scene';
import { useProject } from '../../state/project';
import ReceiptTable from './ReceiptTable.vue';
import { useSets } from './useSets';

/** What goes to drawing programs, and onto which layers: the mapping shows every layer before anything is written. */
const project = useProject();
const STYLES = ['solid', 'dashed', 'dotted'];
const {
  data,
  chosen,
  draft,
  before: layers,
  problem,
  kept,
  file,
  choose,
  write,
  away,
} = useSets<CadSetView, CadView, Required<CadRequest>, CadLayersView>('cad', 'layers', begin, 'Written, and looked into again.');
const key = (x: { file: number; layer?: string; name?: string }) => `${x.file} ${x.layer ?? x.name}`;
const drawn = computed({
  get: () => draft.value.layers.map(key),
  set: (keys: string[]) => {
    draft.value.layers = (data.value?.layers ?? []).filter((l) => keys.includes(key(l))).map((l) => ({ file: l.file, layer: l.layer }));
  },
});
const axes = computed({
  get: () => draft.value.alignments.map(key),
  set: (keys: string[]) => {
    draft.value.alignments = (data.value?.alignments ?? [])
      .filter((a) => keys.includes(key(a)))
      .map((a) => ({ file: a.file, name: a.name }));
  },
});
const said = computed(() => {
  const l = layers.value;
  if (!l) return 'Drawings for drawing programs';
  const count = (n: number, one: string) => (n === 0 ? [] : [`${n} ${one}${n === 1 ? '' : 's'}`]);
  const parts = [...count(l.points, 'point'), ...count(l.lines, 'line'), ...count(l.faces, 'face')];
  return parts.length === 0
    ? 'Nothing is chosen yet'
    : `${parts.join(', ')} on ${l.layers.length} ${l.layers.length === 1 ? 'layer' : 'layers'}`;
});

function begin(s: CadSetView | null): Required<CadRequest> {
  return {
    name: s?.name ?? '',
    format: s?.format ?? 'dxf',
    roles: s?.roles ?? ['control', 'adjusted', 'check'],
    codes: s?.codes ?? [],
    blocks: s?.blocks ?? true,
    texts: s?.texts ?? false,
    surfaces: s?.surfaces ?? [],
    layers: s?.layers ?? [],
    alignments: s?.alignments ?? [],
    catalogue: s?.catalogue ?? 0,
    mapping: s?.mapping ?? [],
    codeLines: s?.codeLines ?? false,
    within: s?.within ?? [],
  };
}
const drawing = ref(false);
const scene = computed(() => {
  const corners = draft.value.within;
  const ring = corners.length > 0 ? [...corners, corners[0]!].flatMap((c) => [c.e, c.n]) : [];
  return { ...pointsScene(project.points), paths: ring.length > 0 ? [{ path: ring, kind: 'limits' as const }] : [] };
});
function drew(ring: [number, number][]) {
  draft.value.within = ring.map(([e, n]) => ({ e, n }));
  drawing.value = false;
}
const shows = (id: number) => {
  const s = draft.value.surfaces.find((x) => x.id === id);
  return s ? (['faces', 'lines', 'contours'] as const).filter((k) => s[k]) : [];
};
function show(id: number, what: string[]) {
  const others = draft.value.surfaces.filter((s) => s.id !== id);
  const now = { id, faces: what.includes('faces'), lines: what.includes('lines'), contours: what.includes('contours') };
  draft.value.surfaces = what.length === 0 ? others : [...others, now];
}
const mapped = (from: string) => draft.value.mapping.find((m) => m.from === from) ?? { from, to: '', colour: '', style: '' };
function map(from: string, more: Partial<{ to: string; colour: string; style: string }>) {
  const now = { ...mapped(from), ...more };
  const others = draft.value.mapping.filter((m) => m.from !== from);
  draft.value.mapping = now.to === '' && now.colour === '' && now.style === '' ? others : [...others, now];
}
</script>

<template>
  <TwoPages>
    <template #figures>
      <div class="sheet scroll">
        <slot />
        <h1 data-test="cad-headline">{{ said }}</h1>
        <p v-if="problem" class="fails">{{ problem }}</p>
        <form v-if="data" class="cad" @submit.prevent="write">
          <div class="row">
            <ElSelect v-if="data.sets.length > 0" :model-value="chosen" class="which" aria-label="Drawing set" @change="choose">
              <ElOption v-for="s in data.sets" :key="s.id" :value="s.id" :label="s.name" /><ElOption :value="0" label="a new one" />
            </ElSelect>
            <ElInput v-model="draft.name" placeholder="its name" maxlength="80" aria-label="Name of the drawing" data-test="cad-name" />
            <ElRadioGroup v-model="draft.format" aria-label="Format"
              ><ElRadioButton value="dxf">DXF</ElRadioButton><ElRadioButton value="xml">LandXML</ElRadioButton></ElRadioGroup
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
            <ElButton size="small" data-test="cad-within" :type="drawing ? 'primary' : ''" @click="drawing = !drawing">{{
              drawing ? 'Stop drawing' : 'Choose on the map…'
            }}</ElButton>
            <template v-if="draft.within.length > 0"
              ><span>points and lines inside {{ draft.within.length }} corners</span>
              <ElButton size="small" text data-test="cad-everywhere" @click="draft.within = []">take everything</ElButton></template
            >
          </div>
          <div class="row">
            <ElFormItem label="with a code" class="wide"
              ><ElSelect v-model="draft.codes" multiple collapse-tags :max-collapse-tags="3" placeholder="all codes" aria-label="Codes"
                ><ElOption v-for="c in data.codes" :key="c" :value="c" :label="c === '' ? 'no code' : c" /></ElSelect
            ></ElFormItem>
            <ElFormItem label="layers by the codes of" class="wide"
              ><ElSelect v-model="draft.catalogue" aria-label="Code table"
                ><ElOption :value="0" label="none: by role" /><ElOption
                  v-for="c in data.catalogues"
                  :key="c.id"
                  :value="c.id"
                  :label="c.name" /></ElSelect
            ></ElFormItem>
          </div>
          <ElCheckbox v-if="draft.catalogue > 0" v-model="draft.codeLines" data-test="cad-code-lines"
            >lines and areas that the codes draw</ElCheckbox
          >
          <div v-if="draft.format === 'dxf'">
            <ElCheckbox v-model="draft.blocks">points as blocks with name, height, code and symbol</ElCheckbox>
            <ElCheckbox v-model="draft.texts">names as text too</ElCheckbox>
          </div>
          <ElFormItem v-if="data.surfaces.length > 0" label="Surfaces">
            <div class="rows">
              <template v-for="s in data.surfaces" :key="s.id">
                <b>{{ s.name }}</b>
                <ElCheckboxGroup :model-value="shows(s.id)" :aria-label="s.name" @update:model-value="(w) => show(s.id, w as string[])">
                  <ElCheckbox value="faces">faces</ElCheckbox><ElCheckbox value="lines">lines</ElCheckbox
                  ><ElCheckbox value="contours" :disabled="draft.format !== 'dxf'">contours</ElCheckbox>
                </ElCheckboxGroup>
              </template>
            </div>
          </ElFormItem>
          <ElFormItem v-if="data.layers.length > 0" label="Lines of drawings">
            <ElCheckboxGroup v-model="drawn" aria-label="Lines of drawings"
              ><ElCheckbox v-for="l in data.layers" :key="key(l)" :value="key(l)"
                >{{ l.layer }} <span class="quiet">{{ l.lines }}</span></ElCheckbox
              ></ElCheckboxGroup
            >
          </ElFormItem>
          <ElFormItem v-if="data.alignments.length > 0" label="Alignments">
            <ElCheckboxGroup v-model="axes" aria-label="Alignments"
              ><ElCheckbox v-for="a in data.alignments" :key="key(a)" :value="key(a)">{{ a.name }}</ElCheckbox></ElCheckboxGroup
            >
          </ElFormItem>
          <div class="row">
            <ElButton
              type="primary"
              native-type="submit"
              data-test="write-cad"
              :disabled="!project.mayChange || draft.name.trim() === '' || !layers"
              >Write it</ElButton
            >
            <ElButton v-if="kept" :disabled="!project.mayChange" @click="away">Remove it</ElButton>
          </div>
          <template v-if="layers && layers.layers.length > 0 && draft.format === 'dxf'">
            <h2>Layers, and what they are called instead</h2>
            <div class="mapping">
              <template v-for="l in layers.layers" :key="l.from">
                <span class="mono">{{ l.from }}</span>
                <span class="quiet mono count">{{ l.count }}</span>
                <ElInput
                  size="small"
                  :model-value="mapped(l.from).to"
                  :placeholder="l.name"
                  maxlength="60"
                  :aria-label="`${l.from} becomes`"
                  @change="(to: string) => map(l.from, { to: to.trim() })"
                />
                <ElSelect
                  size="small"
                  :model-value="mapped(l.from).colour"
                  :aria-label="`Colour of ${l.from}`"
                  @change="(colour: string) => map(l.from, { colour })"
                  ><ElOption value="" :label="`colour ${l.colour}`" /><ElOption
                    v-for="c in data.colours"
                    :key="c.name"
                    :value="c.name"
                    :label="c.name"
                    ><i class="swatch" :style="{ background: c.css }" />{{ c.name }}</ElOption
                  ></ElSelect
                >
                <ElSelect
                  size="small"
                  :model-value="mapped(l.from).style"
                  :aria-label="`Line type of ${l.from}`"
                  @change="(style: string) => map(l.from, { style })"
                  ><ElOption value="" :label="l.style" /><ElOption v-for="s in STYLES" :key="s" :value="s" :label="s"
                /></ElSelect>
              </template>
            </div>
          </template>
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
          <LineageList :place="file.slot" />
          <div v-if="file.holds">
            <ElButton tag="a" type="primary" :href="project.path(`/handover/${file.id}/file`)">Download</ElButton>
          </div>
        </Slip>
      </div>
    </template>
    <template #sketch><MapSketch :scene="scene" :drawing="drawing ? 'lasso' : false" @drawn="drew" /></template>
  </TwoPages>
</template>

<style scoped>
.cad {
  display: grid;
  gap: 4px;
}
.cad :deep(.el-form-item) {
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
.rows {
  width: 100%;
  display: grid;
  grid-template-columns: 1fr 260px;
  align-items: center;
}
.mapping {
  display: grid;
  grid-template-columns: minmax(120px, 1fr) 56px minmax(110px, 1fr) 110px 90px;
  gap: 2px 10px;
  align-items: center;
  font-size: 12px;
}
.count {
  text-align: right;
}
.swatch {
  display: inline-block;
  width: 16px;
  height: 4px;
  margin-right: 8px;
}
</style>

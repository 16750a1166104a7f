<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import NumberInput from '../../fields/NumberInput.vue';
import { lengthUnit, metresPer } from '../../format/units';
import EmptyPage from '../../frame/EmptyPage.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { MapSketch, Surface3d } from '../../sketch';
import { emptyScene } from '../../sketch/scene';
import { useProject } from '../../state/project';
import { designMesh, designScene, layerColour } from './designScene';
import { nothingPicked, shownEdges, type Pick } from './drawing';
import { useDesigns } from './useDesigns';
import ViewSwitch from './ViewSwitch.vue';

/** What others drew, taken apart: corners and edges become points and lines, faces a surface. */
const emit = defineEmits<{ made: [surface: number] }>();
const project = useProject();
const units = computed(() => project.units);
const d = useDesigns();
const view = ref<'map' | '3d'>('map');
const [prefix, code, name, interval] = [ref('D-'), ref(''), ref(''), ref<number | null>(0.5)];

const scene = computed(() => (d.drawing.value && d.seen.value ? designScene(d.drawing.value, d.seen.value, d.picked.value) : emptyScene));
const mesh = computed(() => (d.drawing.value && d.seen.value ? designMesh(d.drawing.value, d.seen.value) : null));
/** Outlines of faces, and lines, that are shown. */
const edges = computed(() => (d.drawing.value && d.seen.value ? shownEdges(d.drawing.value, d.seen.value) : []));
/** What is picked, by triangles and corners of the mesh in space. */
const marks = computed(() => {
  const faces = new Set(d.picked.value.faces);
  const triangles = (mesh.value?.triangles ?? []).flatMap((t, i) => (faces.has(d.drawing.value!.faceOf[t]!) ? [i] : []));
  return { triangles, segments: d.picked.value.edges, corners: d.picked.value.corners, outline: edges.value };
});
const layers = computed(() => {
  const x = d.design.value;
  if (!x || !d.drawing.value) return [];
  return d.drawing.value.layers.map((layer, i) => {
    const parts = [x.layers[layer] ? `${x.layers[layer]} faces` : '', x.lineLayers[layer] ? `${x.lineLayers[layer]} lines` : ''];
    return { layer, colour: x.layers[layer] ? layerColour(i) : 'transparent', said: parts.filter(Boolean).join(', ') || 'points' };
  });
});
const holds = computed(() => {
  const x = d.design.value!;
  const count = (n: number, one: string) => (n === 0 ? [] : [`${n} ${one}${n === 1 ? '' : 's'}`]);
  return [...count(x.faces, 'face'), ...count(x.lines, 'line'), ...count(x.points, 'point')].join(', ');
});
const HINTS: Record<Pick, string> = {
  faces: 'Click the faces that are wanted; another click lets one go.',
  edges: 'Click edges of faces, or lines: they are joined end to end.',
  corners: 'Click corners in the order of their names.',
};
const said = computed(() => {
  const p = d.picked.value;
  if (d.what.value === 'faces') return `${p.faces.length} of ${d.seen.value?.faces.size ?? 0} faces picked`;
  if (d.what.value === 'edges')
    return `${p.edges.length} ${p.edges.length === 1 ? 'edge' : 'edges'} picked, ${d.lines.value.length} ${d.lines.value.length === 1 ? 'line' : 'lines'}`;
  return `${p.corners.length} corners picked`;
});
const several = computed(() => d.what.value === 'edges' && d.lines.value.length > 1);

async function surface() {
  const number = await d.makeSurface(name.value.trim(), interval.value ?? 0.5);
  if (number !== null) emit('made', number);
}

onMounted(d.load);
</script>

<template>
  <TwoPages>
    <template #figures>
      <div class="sheet">
        <slot />
        <EmptyPage v-if="!d.design.value && !d.isLoading.value" title="No design yet">
          <p>A design is a DXF with faces, lines or points, a LandXML surface, a PLY mesh or a GeoTIFF of heights.</p>
          <p class="quiet"><router-link class="link" :to="`/p/${project.id}/intake`">Bring files in</router-link></p>
        </EmptyPage>
        <template v-else-if="d.design.value && d.drawing.value">
          <h1 data-test="design-headline">{{ d.design.value.name }}: {{ holds }}</h1>
          <div class="row">
            <ElSelect
              v-if="d.designs.value.length > 1"
              v-model="d.chosen.value"
              class="which"
              aria-label="Design"
              placeholder="another design"
            >
              <ElOption v-for="x in d.designs.value" :key="x.id" :value="x.id" :label="x.name" />
            </ElSelect>
            <ElSelect v-model="d.unit.value" class="unit" aria-label="Drawn in">
              <ElOption value="" label="drawn in metres" /><ElOption value="ft" label="drawn in feet" /><ElOption
                value="ftUS"
                label="drawn in US survey feet"
              /><ElOption value="mm" label="drawn in millimetres" />
            </ElSelect>
          </div>
          <template v-if="layers.length > 0">
            <h2>Layers that are shown</h2>
            <ElCheckboxGroup
              :model-value="d.drawing.value.layers.filter((l) => !d.hidden.value.has(l))"
              class="layers"
              aria-label="Layers"
              @update:model-value="(l) => d.show(l as string[])"
            >
              <ElCheckbox v-for="l in layers" :key="l.layer" :value="l.layer"
                ><i class="swatch" :style="{ background: l.colour }" />{{ l.layer }} <span class="quiet">{{ l.said }}</span></ElCheckbox
              >
            </ElCheckboxGroup>
          </template>
          <h2>Pick</h2>
          <div class="row">
            <ElRadioGroup v-model="d.what.value" aria-label="Pick">
              <ElRadioButton value="faces" :disabled="d.design.value.faces === 0" data-test="pick-faces">faces</ElRadioButton
              ><ElRadioButton value="edges" data-test="pick-edges">edges</ElRadioButton
              ><ElRadioButton value="corners" data-test="pick-corners">corners</ElRadioButton>
            </ElRadioGroup>
            <strong data-test="picked-of">{{ said }}</strong>
            <span class="spacer" />
            <ElButton v-if="d.what.value === 'faces'" size="small" data-test="pick-all" @click="d.all">All that is shown</ElButton>
            <ElButton size="small" @click="d.picked.value = nothingPicked()">None</ElButton>
          </div>
          <p class="quiet">{{ HINTS[d.what.value] }}</p>
          <form v-if="d.what.value === 'faces'" class="act" @submit.prevent="surface">
            <ElFormItem label="as a surface called"
              ><ElInput v-model="name" maxlength="120" aria-label="Name of the surface" data-test="design-surface-name"
            /></ElFormItem>
            <NumberInput v-model="interval" label="contours every" :unit="lengthUnit(units)" :factor="metresPer(units)" :digits="3" />
            <ElButton
              type="primary"
              native-type="submit"
              data-test="design-surface"
              :disabled="!project.mayChange || d.picked.value.faces.length === 0 || name.trim() === ''"
              >Make the surface</ElButton
            >
          </form>
          <form class="act" @submit.prevent="d.takePoints(prefix.trim(), code.trim())">
            <ElFormItem label="as points called"
              ><ElInput v-model="prefix" maxlength="40" aria-label="Names begin with" data-test="prefix"
            /></ElFormItem>
            <ElFormItem label="coded"
              ><ElInput v-model="code" maxlength="60" aria-label="Code" data-test="design-code" placeholder="no code"
            /></ElFormItem>
            <ElButton
              native-type="submit"
              data-test="take-points"
              :disabled="!project.mayChange || d.corners.value.length === 0 || prefix.trim() === ''"
              >Make {{ d.corners.value.length }} {{ d.corners.value.length === 1 ? 'point' : 'points' }}</ElButton
            >
          </form>
          <p v-if="several" class="doubt">
            These edges are {{ d.lines.value.length }} lines: pick one at a time to make it a breakline along its code.
          </p>
          <p v-else-if="d.what.value === 'edges'" class="quiet">
            Points of one line under a code of their own are a breakline along that code.
          </p>
        </template>
      </div>
    </template>
    <template #sketch>
      <MapSketch
        v-if="view === 'map'"
        :scene="scene"
        still
        @place="(e, n) => d.pick([e, n], null)"
        @point="(key) => d.pickCorner(Number(key.slice(7)))"
        @over="d.over"
      >
        <template #corner><ViewSwitch v-model="view" /></template>
      </MapSketch>
      <template v-else>
        <Surface3d
          :mesh="mesh?.bytes ?? null"
          :contours="[]"
          :marks="marks"
          @read="(e, n, h, t, within) => d.pick([e, n, h], mesh ? (d.drawing.value!.faceOf[mesh.triangles[t]!] ?? null) : null, within)"
        />
        <div class="switch"><ViewSwitch v-model="view" /></div>
      </template>
    </template>
  </TwoPages>
</template>

<style scoped>
.row,
.act {
  display: flex;
  gap: 10px;
  align-items: center;
}
.act {
  align-items: flex-end;
}
.act > * {
  flex: 1;
}
.act > .el-button {
  flex: none;
  margin-bottom: 4px;
}
.which {
  width: 240px;
}
.unit {
  width: 190px;
}
.layers {
  display: grid;
  grid-template-columns: 1fr 1fr;
}
.swatch {
  display: inline-block;
  width: 11px;
  height: 11px;
  margin-right: 6px;
  border: 1px solid var(--rule-strong);
}
.sheet p,
h2 {
  margin: 0;
}
.switch {
  position: absolute;
  top: 10px;
  left: 14px;
}
</style>

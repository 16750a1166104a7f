<script setup lang="ts">
import { computed } from 'vue';
import type { CloudFileView, DesignFileView } from '../../api/types';
import NumberInput from '../../fields/NumberInput.vue';
import { metresPer } from '../../format/units';
import { useProject } from '../../state/project';
import type { SurfaceDraft, Tool } from './useDraft';

const props = defineProps<{
  making: SurfaceDraft;
  codes: Record<string, number>;
  designs: DesignFileView[];
  clouds: CloudFileView[];
  title: string;
  button: string;
}>();
const emit = defineEmits<{ save: []; cancel: [] }>();
const project = useProject();
const units = computed(() => project.units);
const d = computed(() => props.making.draft.value!);
const m = props.making;
const preview = computed(() => m.preview.value);

/** Points of the project alone make it, and they are not enough for a triangle. */
const isTooFew = computed(() => !d.value.design && !d.value.cloud && m.taken.value.length < 3);

const names = (list: string[] | undefined) => (list ?? []).join(' ');
const read = (text: string) => text.split(/[\s,;]+/).filter(Boolean);
/** Lines that others drew, by drawing and layer. */
const drawings = computed(() =>
  props.designs.flatMap((x) => Object.entries(x.lineLayers).map(([l, n]) => ({ key: `${x.id} ${l}`, said: `${x.name} · ${l} · ${n}` }))),
);
const drawnRoles = [
  { role: 'breakline', many: 'breaklines', layers: m.drawnLayers },
  { role: 'boundary', many: 'boundaries', layers: m.drawnBoundaries },
  { role: 'void', many: 'voids', layers: m.drawnVoids },
];
const source = computed(() => props.designs.find((x) => x.id === d.value.design?.file)?.name ?? 'a drawing');
/** Classes of points as the LAS specification numbers them. */
const CLASSES: Record<number, string> = {
  1: 'unclassified',
  2: 'ground',
  3: 'low vegetation',
  4: 'medium vegetation',
  5: 'high vegetation',
  6: 'building',
  7: 'noise',
  8: 'key point',
  9: 'water',
};
const cloud = computed({
  get: () => d.value.cloud?.file ?? 0,
  set: (file: number) => (m.draft.value = { ...d.value, cloud: file === 0 ? null : { ...d.value.cloud, file } }),
});
const ofCloud = (more: { classes?: number[]; spacing?: number | null }) =>
  (m.draft.value = { ...d.value, cloud: { ...d.value.cloud!, ...more } });
const toggle = (tool: Tool) => (m.tool.value = m.tool.value === tool ? 'points' : tool);
const drop = (i: number) => (m.draft.value = { ...d.value, lines: (d.value.lines ?? []).filter((_l, k) => k !== i) });
const said = (l: { role: string; name: string }) =>
  l.role === l.name || l.name.startsWith('edge') ? l.name : `${l.role} ${l.name.replace(/^breakline /, 'from ')}`;
</script>

<template>
  <ElForm label-position="top" class="make scroll" @submit.prevent="emit('save')">
    <h1>{{ title }}</h1>
    <ElFormItem label="name"><ElInput id="surface-name" v-model="d.name" required maxlength="120" autofocus /></ElFormItem>
    <p v-if="d.design" class="quiet">Its faces are taken from {{ source }}, as they were picked.</p>
    <fieldset v-else>
      <legend>
        points <strong class="mono" data-test="chosen">{{ m.taken.value.length }}</strong>
      </legend>
      <ElCheckboxGroup v-model="d.roles" aria-label="Roles">
        <ElCheckbox v-for="r in ['control', 'adjusted', 'surveyed']" :key="r" :value="r">{{ r }}</ElCheckbox>
      </ElCheckboxGroup>
      <ElSelect v-model="d.codes" multiple filterable collapse-tags :max-collapse-tags="4" aria-label="Codes" placeholder="of all codes">
        <ElOption v-for="(n, c) in codes" :key="`code ${c}`" :value="c" :label="`${c === '' ? 'no code' : c} ${n}`" />
      </ElSelect>
      <ElInput v-model="d.pattern" aria-label="Names like" placeholder="names like HA-* (with * and ?), all if empty" />
      <span class="line">
        <ElButton size="small" data-test="tool-box" :type="m.tool.value === 'box' ? 'primary' : ''" @click="toggle('box')"
          >In a box</ElButton
        >
        <ElButton size="small" data-test="tool-lasso" :type="m.tool.value === 'lasso' ? 'primary' : ''" @click="toggle('lasso')"
          >In a lasso</ElButton
        >
        <ElTag v-for="(_a, i) in d.areas" :key="i" closable @close="d.areas = d.areas!.filter((_x, k) => k !== i)">area {{ i + 1 }}</ElTag>
        <span class="quiet">or click points on the sketch, in or out</span>
      </span>
      <label v-if="(d.include ?? []).length > 0" class="wide"
        ><span class="quiet">also</span>
        <ElInput :model-value="names(d.include)" aria-label="Also these points" @change="(t: string) => (d.include = read(t))"
      /></label>
      <label class="wide"
        ><span class="quiet">without</span>
        <ElInput
          id="surface-exclude"
          :model-value="names(d.exclude)"
          placeholder="names, such as a peg that stands proud"
          @change="(t: string) => (d.exclude = read(t))"
      /></label>
    </fieldset>
    <fieldset v-if="!d.design && clouds.length > 0">
      <legend>point cloud</legend>
      <ElSelect v-model="cloud" aria-label="Point cloud" data-test="surface-cloud">
        <ElOption :value="0" label="none" />
        <ElOption v-for="c in clouds" :key="c.id" :value="c.id" :label="`${c.name}, ${c.points} points`" />
      </ElSelect>
      <span v-if="d.cloud" class="line">
        <ElSelect
          :model-value="d.cloud.classes ?? []"
          multiple
          aria-label="Classes"
          placeholder="of all classes"
          @update:model-value="(c: number[]) => ofCloud({ classes: c })"
        >
          <ElOption v-for="(name, c) in CLASSES" :key="c" :value="Number(c)" :label="`${c} ${name}`" />
        </ElSelect>
        <NumberInput
          :model-value="d.cloud.spacing ?? null"
          label="one point in"
          :unit="units.length"
          :factor="metresPer(units)"
          :digits="3"
          placeholder="take all"
          @update:model-value="(s: number | null) => ofCloud({ spacing: s })"
        />
      </span>
    </fieldset>
    <fieldset v-if="!d.design">
      <legend>lines</legend>
      <template v-if="drawings.length > 0">
        <ElSelect
          v-for="x in drawnRoles"
          :key="x.role"
          v-model="x.layers.value"
          multiple
          filterable
          collapse-tags
          :max-collapse-tags="2"
          :aria-label="`${x.many} of drawings`"
          :placeholder="`${x.many} that others drew`"
          :data-test="`drawn-${x.role}`"
        >
          <ElOption v-for="l in drawings" :key="l.key" :value="l.key" :label="x.role === 'breakline' ? l.said : `${x.role}: ${l.said}`" />
        </ElSelect>
      </template>
      <ElSelect v-model="m.lineCodes.value" multiple aria-label="Breaklines along codes" placeholder="breaklines along codes">
        <ElOption v-for="c in Object.keys(codes).filter((x) => x !== '')" :key="`line ${c}`" :value="c" :label="`along ${c}`" />
      </ElSelect>
      <ElCheckbox v-if="m.lineCodes.value.length > 0" v-model="m.closed.value">back to their first point</ElCheckbox>
      <span class="line">
        <ElButton
          size="small"
          data-test="tool-breakline"
          :type="m.tool.value === 'breakline' ? 'primary' : ''"
          @click="m.tool.value === 'breakline' ? m.endBreakline() : toggle('breakline')"
          >{{ m.tool.value === 'breakline' ? `End it at ${m.picked.value.length} points` : 'Pick a breakline' }}</ElButton
        >
        <ElButton size="small" data-test="draw-boundary" :type="m.tool.value === 'boundary' ? 'primary' : ''" @click="toggle('boundary')"
          >Draw a boundary</ElButton
        >
        <ElButton size="small" data-test="tool-void" :type="m.tool.value === 'void' ? 'primary' : ''" @click="toggle('void')"
          >Draw a void</ElButton
        >
        <ElButton size="small" data-test="tool-swap" :type="m.tool.value === 'swap' ? 'primary' : ''" @click="toggle('swap')"
          >Swap an edge</ElButton
        >
      </span>
      <span v-if="(d.lines ?? []).length > 0" class="line">
        <ElTag v-for="(l, i) in d.lines" :key="i" closable type="info" @close="drop(i)">{{ said(l) }}</ElTag>
      </span>
      <label class="line"
        ><span class="quiet">where they cross at different heights</span>
        <ElRadioGroup v-model="d.crossing" size="small" aria-label="Where breaklines cross at different heights">
          <ElRadioButton value="refuse">refuse it</ElRadioButton><ElRadioButton value="mean">take the mean</ElRadioButton>
        </ElRadioGroup></label
      >
    </fieldset>
    <div class="four">
      <NumberInput
        id="surface-interval"
        :model-value="d.interval ?? 1"
        label="contours every"
        :unit="units.length"
        :factor="metresPer(units)"
        @update:model-value="(v) => v !== null && v > 0 && (d.interval = v)"
      />
      <ElFormItem label="index, every"
        ><ElInputNumber v-model="d.index" :min="1" :max="100" :precision="0" controls-position="right" aria-label="Index contour every" />
      </ElFormItem>
      <NumberInput
        id="surface-edge"
        :model-value="d.maxEdge ?? null"
        label="longest edge"
        :unit="units.length"
        :factor="metresPer(units)"
        placeholder="any"
        @update:model-value="(v) => (d.maxEdge = v)"
      />
      <ElFormItem label="contours"><ElCheckbox v-model="d.smooth" data-test="smooth">smooth</ElCheckbox></ElFormItem>
    </div>
    <p v-if="preview?.refusal" class="fails" data-test="refusal">{{ preview.refusal }}</p>
    <p v-else-if="preview && preview.mesh === null" class="quiet">{{ preview.points }} points: drawn when it is made.</p>
    <p v-else-if="preview" class="quiet" data-test="would-be">
      {{ preview.points }} points in {{ preview.triangles }} triangles.
      <span v-for="w in preview.warnings.slice(0, 3)" :key="w" class="doubt">{{ w }}. </span>
    </p>
    <p v-if="m.said.value" class="quiet" data-test="said">{{ m.said.value }}</p>
    <div class="actions">
      <ElButton type="primary" native-type="submit" data-test="save-surface" :disabled="isTooFew || !!preview?.refusal">
        {{ button }}</ElButton><ElButton @click="emit('cancel')"> Leave it </ElButton>
    </div>
  </ElForm>
</template>

<style scoped>
.make {
  display: grid;
  gap: 10px;
  align-content: start;
  padding-bottom: 14px;
}
fieldset {
  border: 0;
  border-top: 1px solid var(--rule);
  margin: 0;
  padding: 6px 0 0;
  display: grid;
  gap: 6px;
}
legend {
  padding: 0 8px 0 0;
  color: var(--ink-soft);
}
.line,
.wide {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.wide {
  flex-wrap: nowrap;
}
.line .el-button + .el-button {
  margin: 0;
}
.four {
  display: grid;
  grid-template-columns: 1fr 100px 1fr 100px;
  gap: 12px;
}
.el-input-number {
  width: 100%;
}
.actions {
  display: flex;
  gap: 8px;
}
p {
  margin: 0;
}
</style>

<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import type { AlignmentView, SectionRequest, SectionView, SurfaceView } from '../../api/types';
import NumberInput from '../../fields/NumberInput.vue';
import { length, lengthUnit, metresPer } from '../../format/units';
import { useProject } from '../../state/project';

/** What is cut along what. */
const props = defineProps<{
  surfaces: SurfaceView[];
  alignments: AlignmentView[];
  section: SectionView | null;
  drawn: [number, number][] | null;
  drawing: boolean;
}>();
const emit = defineEmits<{ save: [request: SectionRequest]; cancel: []; draw: [on: boolean] }>();
const project = useProject();
const units = computed(() => project.units);
const s = props.section;
const made = computed(() => props.surfaces.filter((x) => x.computed));
const name = ref(s?.name ?? '');
const cut = ref<number[]>(s?.surfaces ?? made.value.map((x) => x.id));
const key = (a: { file: number; name: string }) => `${a.file} ${a.name}`;
const along = ref(s && s.file > 0 ? key({ file: s.file, name: s.alignment }) : '');
const line = ref<number[][]>(s?.line ?? []);
const offset = ref<number | null>(s?.offset ?? 1);
const every = ref<number | null>(s && s.every === 0 ? null : (s?.every ?? null));
const half = ref<number | null>(s?.half ?? 10);
watch(
  () => props.drawn,
  (path) => path && (line.value = path),
);
const missing = computed(() =>
  name.value.trim() === ''
    ? 'It needs a name.'
    : cut.value.length === 0
      ? 'Choose a surface.'
      : along.value === '' && line.value.length < 2
        ? 'Draw the line on the sketch, or choose an alignment.'
        : '',
);

function save() {
  const a = props.alignments.find((x) => key(x) === along.value);
  emit('save', {
    name: name.value.trim(),
    surfaces: cut.value,
    number: s?.number ?? null,
    line: a ? [] : line.value,
    file: a?.file ?? 0,
    alignment: a?.name ?? '',
    offset: offset.value ?? 0,
    every: every.value ?? 0,
    half: half.value ?? 10,
  });
}
</script>

<template>
  <ElForm label-position="top" class="form" @submit.prevent="save">
    <h1>{{ section ? `Cut ${section.name} anew` : 'What is cut along what?' }}</h1>
    <div class="grid">
      <ElFormItem label="name"><ElInput v-model="name" maxlength="80" aria-label="Name" data-test="section-name" /></ElFormItem>
      <ElFormItem label="surfaces"
        ><ElSelect v-model="cut" multiple collapse-tags :max-collapse-tags="2" aria-label="Surfaces"
          ><ElOption v-for="x in made" :key="x.id" :value="x.id" :label="x.name" /></ElSelect
      ></ElFormItem>
      <ElFormItem label="along"
        ><ElSelect v-model="along" aria-label="Along"
          ><ElOption value="" label="a line on the sketch" /><ElOption
            v-for="a in alignments"
            :key="key(a)"
            :value="key(a)"
            :label="`${a.name}, ${length(a.length, units, -1)} ${lengthUnit(units)}`" /></ElSelect
      ></ElFormItem>
      <ElFormItem v-if="along === ''" label="the line">
        <span class="line">
          <ElButton size="small" data-test="section-line" :type="drawing ? 'primary' : ''" @click="emit('draw', !drawing)">{{
            drawing ? 'Stop drawing' : line.length > 0 ? 'Draw another…' : 'Draw it…'
          }}</ElButton>
          <span class="quiet">{{ line.length > 0 ? `${line.length} places` : '' }}</span>
        </span>
      </ElFormItem>
    </div>
    <div class="three">
      <NumberInput v-model="offset" label="points within" :unit="lengthUnit(units)" :factor="metresPer(units)" placeholder="none" />
      <NumberInput v-model="every" label="cross-sections every" :unit="lengthUnit(units)" :factor="metresPer(units)" placeholder="none" />
      <NumberInput v-model="half" label="to either side" :unit="lengthUnit(units)" :factor="metresPer(units)" />
    </div>
    <p class="line">
      <ElButton type="primary" native-type="submit" data-test="cut" :disabled="!project.mayChange || missing !== ''">Cut</ElButton>
      <ElButton @click="emit('cancel')">Leave it</ElButton><span class="doubt">{{ missing }}</span>
    </p>
  </ElForm>
</template>

<style scoped>
.form {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.grid {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 16px;
}
.three {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 4px 16px;
}
.line {
  display: flex;
  gap: 8px;
  align-items: center;
  margin: 0;
}
.line .el-button + .el-button {
  margin: 0;
}
</style>

<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import type { SurfaceView, VolumeRequest, VolumeView } from '../../api/types';
import NumberInput from '../../fields/NumberInput.vue';
import { lengthUnit, metresPer } from '../../format/units';
import { useProject } from '../../state/project';

/** What a volume lies between. */
const props = defineProps<{ surfaces: SurfaceView[]; volume: VolumeView | null; drawn: [number, number][] | null; drawing: boolean }>();
const emit = defineEmits<{ save: [request: VolumeRequest]; cancel: []; draw: [on: boolean] }>();
const project = useProject();
const units = computed(() => project.units);
const v = props.volume;
const made = computed(() => props.surfaces.filter((s) => s.computed));
const name = ref(v?.name ?? '');
const surface = ref(v?.surface ?? made.value[made.value.length - 1]?.id ?? 0);
const against = ref(v?.against ?? 'elevation');
const other = ref(v?.other || (made.value.find((s) => s.id !== surface.value)?.id ?? 0));
const elevation = ref<number | null>(v?.against === 'elevation' ? v.elevation : null);
const boundary = ref<number[][]>(v?.boundary ?? []);
const slice = ref<number | null>(v?.slice ?? 1);
watch(
  () => props.drawn,
  (ring) => ring && (boundary.value = ring),
);
const missing = computed(() =>
  name.value.trim() === ''
    ? 'It needs a name.'
    : against.value === 'elevation' && elevation.value === null
      ? 'Type an elevation, such as 225.0.'
      : against.value === 'surface' && (!other.value || other.value === surface.value)
        ? 'Choose another surface.'
        : slice.value === null || slice.value <= 0
          ? 'Slices have a thickness.'
          : '',
);

function save() {
  emit('save', {
    name: name.value.trim(),
    surface: surface.value,
    against: against.value,
    number: v?.number ?? null,
    other: against.value === 'surface' ? other.value : 0,
    elevation: elevation.value ?? 0,
    boundary: boundary.value,
    slice: slice.value ?? 1,
  });
}
</script>

<template>
  <ElForm label-position="top" class="form" @submit.prevent="save">
    <h1>{{ volume ? `Compute ${volume.name} anew` : 'What lies between what?' }}</h1>
    <div class="grid">
      <ElFormItem label="name"><ElInput v-model="name" maxlength="80" aria-label="Name" data-test="volume-name" /></ElFormItem>
      <ElFormItem label="surface"
        ><ElSelect v-model="surface" aria-label="Surface"><ElOption v-for="s in made" :key="s.id" :value="s.id" :label="s.name" /></ElSelect
      ></ElFormItem>
    </div>
    <ElFormItem label="against"
      ><ElRadioGroup v-model="against" aria-label="Against">
        <ElRadioButton value="elevation">an elevation</ElRadioButton
        ><ElRadioButton value="surface" :disabled="made.length < 2">another surface</ElRadioButton
        ><ElRadioButton value="rim">its own edge</ElRadioButton>
      </ElRadioGroup></ElFormItem
    >
    <div class="grid">
      <NumberInput
        v-if="against === 'elevation'"
        id="volume-elevation"
        v-model="elevation"
        label="elevation"
        :unit="lengthUnit(units)"
        :factor="metresPer(units)"
        placeholder="such as 225.0"
      />
      <ElFormItem v-else-if="against === 'surface'" label="the other"
        ><ElSelect v-model="other" aria-label="Other surface"
          ><ElOption v-for="s in made.filter((x) => x.id !== surface)" :key="s.id" :value="s.id" :label="s.name" /></ElSelect
      ></ElFormItem>
      <p v-else class="quiet">The surface through the edge alone: the heap above it and the hollow below it, at once.</p>
      <NumberInput v-model="slice" label="slices of" :unit="lengthUnit(units)" :factor="metresPer(units)" />
    </div>
    <p class="line">
      <ElButton size="small" data-test="volume-boundary" :type="drawing ? 'primary' : ''" @click="emit('draw', !drawing)">
        {{ drawing ? 'Stop drawing' : 'Inside a boundary…' }}
      </ElButton>
      <ElTag v-if="boundary.length > 0" closable @close="boundary = []">{{ boundary.length }} corners</ElTag>
      <span v-else class="quiet">the whole surface</span>
    </p>
    <p class="quiet">Cut is where the surface lies above the other, fill where it lies below. Only what both cover counts.</p>
    <p class="line">
      <ElButton type="primary" native-type="submit" data-test="compute-volume" :disabled="!project.mayChange || missing !== ''"
        >Compute</ElButton
      >
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
  align-items: start;
}
.line {
  display: flex;
  gap: 8px;
  align-items: center;
}
.line .el-button + .el-button {
  margin: 0;
}
p {
  margin: 0;
}
</style>

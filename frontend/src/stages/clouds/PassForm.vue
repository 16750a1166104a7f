<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import type { PassesView, PassRequest, PassView } from '../../api/types';
import NumberInput from '../../fields/NumberInput.vue';
import { group, lengthUnit, metresPer } from '../../format/units';
import { useProject } from '../../state/project';
import { scanOf, targetLines, targetsOf } from './passes';

/** Which drive is laid onto which. */
const props = defineProps<{ stage: PassesView; pass: PassView | null }>();
const emit = defineEmits<{ save: [request: PassRequest]; cancel: [] }>();
const project = useProject();
const units = computed(() => project.units);
const p = props.pass;
const [first, second] = props.stage.trajectories;
const name = ref(p?.name ?? '');
const trajectory = ref(p?.trajectory ?? second?.id ?? 0);
const reference = ref(p?.referenceTrajectory ?? first?.id ?? 0);
const file = (id: number) => props.stage.trajectories.find((t) => t.id === id);
const cloud = ref(p?.cloud ?? scanOf(file(trajectory.value), props.stage.clouds));
const referenceCloud = ref(p?.referenceCloud ?? scanOf(file(reference.value), props.stage.clouds));
watch(trajectory, (id) => (cloud.value = scanOf(file(id), props.stage.clouds) || cloud.value));
watch(reference, (id) => (referenceCloud.value = scanOf(file(id), props.stage.clouds) || referenceCloud.value));
const isTime = ref(p?.isTime ?? false);
const metres = ref<number | null>(p && !p.isTime ? p.every : 20);
const seconds = ref<number | null>(p?.isTime ? p.every : 2);
const radius = ref<number | null>(p?.radius ?? 1);
const isPicked = ref(p?.preShift.some((v) => v !== 0) ?? false);
const shift = ref<(number | null)[]>(p?.preShift.some((v) => v !== 0) ? [...p.preShift] : [null, null, null]);
const targetText = ref(targetLines(p?.targets ?? []));
const targets = computed(() =>
  targetsOf(
    targetText.value,
    props.stage.points.map((k) => k.name),
  ),
);
const missing = computed(() =>
  name.value.trim() === ''
    ? 'It needs a name.'
    : !trajectory.value || !reference.value || trajectory.value === reference.value
      ? 'Choose two drives.'
      : !cloud.value || !referenceCloud.value || cloud.value === referenceCloud.value
        ? 'Choose the scan of each drive.'
        : isPicked.value && shift.value.some((v) => v === null)
          ? 'The pre-shift has three parts.'
          : targets.value.fault,
);

function save() {
  emit('save', {
    name: name.value.trim(),
    number: p?.number ?? null,
    trajectory: trajectory.value,
    cloud: cloud.value,
    referenceTrajectory: reference.value,
    referenceCloud: referenceCloud.value,
    isTime: isTime.value,
    every: (isTime.value ? seconds.value : metres.value) ?? (isTime.value ? 2 : 20),
    radius: radius.value ?? 1,
    preShift: isPicked.value ? shift.value.map((v) => v ?? 0) : [],
    targets: targets.value.targets,
  });
}
</script>

<template>
  <ElForm label-position="top" class="form" @submit.prevent="save">
    <h1>{{ p ? `Align ${p.name} anew` : 'Which drive is laid onto which?' }}</h1>
    <div class="grid">
      <ElFormItem label="pass that is moved"
        ><ElSelect v-model="trajectory" aria-label="Pass that is moved" data-test="pass-trajectory">
          <ElOption v-for="t in stage.trajectories" :key="t.id" :value="t.id" :label="t.name" /></ElSelect
      ></ElFormItem>
      <ElFormItem label="its scan"
        ><ElSelect v-model="cloud" aria-label="Its scan">
          <ElOption v-for="c in stage.clouds" :key="c.id" :value="c.id" :label="`${c.name} · ${group(String(c.points))}`" /></ElSelect
      ></ElFormItem>
      <ElFormItem label="drive that stays"
        ><ElSelect v-model="reference" aria-label="Drive that stays">
          <ElOption v-for="t in stage.trajectories" :key="t.id" :value="t.id" :label="t.name" /></ElSelect
      ></ElFormItem>
      <ElFormItem label="the scan of that"
        ><ElSelect v-model="referenceCloud" aria-label="The scan of that">
          <ElOption v-for="c in stage.clouds" :key="c.id" :value="c.id" :label="`${c.name} · ${group(String(c.points))}`" /></ElSelect
      ></ElFormItem>
      <ElFormItem label="name"><ElInput v-model="name" maxlength="80" aria-label="Name" data-test="pass-name" /></ElFormItem>
      <NumberInput v-model="radius" label="off by less than" :unit="lengthUnit(units)" :factor="metresPer(units)" />
      <ElFormItem label="compared every"
        ><ElRadioGroup v-model="isTime" aria-label="Compared every">
          <ElRadioButton :value="false">distance</ElRadioButton><ElRadioButton :value="true">time</ElRadioButton>
        </ElRadioGroup></ElFormItem
      >
      <NumberInput v-if="isTime" v-model="seconds" label="seconds" unit="s" />
      <NumberInput v-else v-model="metres" label="distance" :unit="lengthUnit(units)" :factor="metresPer(units)" />
    </div>
    <p class="line"><ElCheckbox v-model="isPicked" data-test="pass-picked">move it by a picked pair first</ElCheckbox></p>
    <div v-if="isPicked" class="three">
      <NumberInput
        v-for="(axis, k) in ['east', 'north', 'height']"
        :id="`pass-shift-${k}`"
        :key="axis"
        v-model="shift[k]!"
        :label="axis"
        :unit="lengthUnit(units)"
        :factor="metresPer(units)"
      />
    </div>
    <p class="quiet">
      A pair: the same place in both scans, what stays less what is moved, good to some decimetres. Scans need the time of each point (LAS,
      LAZ).
    </p>
    <ElFormItem label="control and check points as the scans show them, a line each"
      ><ElInput
        v-model="targetText"
        type="textarea"
        class="mono"
        :rows="3"
        aria-label="Targets"
        data-test="pass-targets"
        :placeholder="`point  moves or stays  time  easting  northing  height`"
    /></ElFormItem>
    <p class="quiet">
      Control seen by the drive that stays corrects it first; what is held out only says how well the result agrees.
      <template v-if="stage.points.length === 0">The project has no control or check point with a given place yet.</template>
    </p>
    <p class="line">
      <ElButton type="primary" native-type="submit" data-test="align-pass" :disabled="!project.mayChange || missing !== ''">Align</ElButton>
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
.three {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 4px 16px;
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

<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import type { PassesView, PassRequest, PassView } from '../../api/types';
import NumberInput from '../../fields/NumberInput.vue';
import { group, lengthUnit, metresPer } from '../../format/units';
import { useProject } from '../../state/project';
import { scanOf, targetLines, targetsOf } from './passes';

/** Which drive is laid onto which, or registered to control alone. */
const props = defineProps<{ stage: PassesView; pass: PassView | null }>();
const emit = defineEmits<{ save: [request: PassRequest, scan: boolean]; cancel: [] }>();
const project = useProject();
const units = computed(() => project.units);
const p = props.pass;
const [first, second] = props.stage.trajectories;
const CONTROL = 'control';
/** What stays: "pass:2" by the version in use, "drive:7" as it came, or control alone. */
const staying = (q: PassView) =>
  q.referencePass ? `pass:${q.referencePass}` : q.referenceTrajectory ? `drive:${q.referenceTrajectory}` : CONTROL;
const name = ref(p?.name ?? '');
const trajectory = ref(p?.trajectory ?? second?.id ?? first?.id ?? 0);
const versions = computed(() =>
  props.stage.passes.filter((q) => q.status === 'corrected' && q.number !== p?.number && q.trajectory !== trajectory.value),
);
const others = computed(() => props.stage.trajectories.filter((t) => t.id !== trajectory.value));
const stays = ref(
  p ? staying(p) : versions.value[0] ? `pass:${versions.value[0].number}` : others.value[0] ? `drive:${others.value[0].id}` : CONTROL,
);
const numbered = (kind: string) => (stays.value.startsWith(`${kind}:`) ? Number(stays.value.split(':')[1]) : null);
const referencePass = computed(() => numbered('pass'));
const reference = computed(() => numbered('drive'));
const file = (id: number) => props.stage.trajectories.find((t) => t.id === id);
const cloud = ref(p?.cloud ?? scanOf(file(trajectory.value), props.stage.clouds));
const referenceCloud = ref(p?.referenceCloud ?? scanOf(file(reference.value ?? 0), props.stage.clouds));
watch(trajectory, (id) => (cloud.value = scanOf(file(id), props.stage.clouds) || cloud.value));
watch(reference, (id) => (referenceCloud.value = scanOf(file(id ?? 0), props.stage.clouds) || referenceCloud.value));
const scan = ref(false);
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
    : !trajectory.value || trajectory.value === reference.value
      ? 'Choose two drives.'
      : !cloud.value || (reference.value !== null && (!referenceCloud.value || cloud.value === referenceCloud.value))
        ? 'Choose the scan of each drive.'
        : stays.value !== CONTROL && isPicked.value && shift.value.some((v) => v === null)
          ? 'The pre-shift has three parts.'
          : targets.value.fault,
);

function save() {
  const request: PassRequest = {
    name: name.value.trim(),
    number: p?.number ?? null,
    trajectory: trajectory.value,
    cloud: cloud.value,
    referenceTrajectory: reference.value,
    referenceCloud: reference.value === null ? null : referenceCloud.value,
    referencePass: referencePass.value,
    isTime: isTime.value,
    every: (isTime.value ? seconds.value : metres.value) ?? (isTime.value ? 2 : 20),
    radius: radius.value ?? 1,
    preShift: stays.value !== CONTROL && isPicked.value ? shift.value.map((v) => v ?? 0) : [],
    targets: targets.value.targets,
  };
  emit('save', request, scan.value);
}
</script>

<template>
  <ElForm label-position="top" class="form" @submit.prevent="save">
    <h1>{{ p ? `Align ${p.name} anew` : 'Which drive is laid onto what?' }}</h1>
    <div class="grid">
      <ElFormItem label="pass that is moved"
        ><ElSelect v-model="trajectory" aria-label="Pass that is moved" data-test="pass-trajectory">
          <ElOption v-for="t in stage.trajectories" :key="t.id" :value="t.id" :label="t.name" /></ElSelect
      ></ElFormItem>
      <ElFormItem label="its scan"
        ><ElSelect v-model="cloud" aria-label="Its scan">
          <ElOption v-for="c in stage.clouds" :key="c.id" :value="c.id" :label="`${c.name} · ${group(String(c.points))}`" /></ElSelect
      ></ElFormItem>
      <ElFormItem label="what stays"
        ><ElSelect v-model="stays" aria-label="What stays" data-test="pass-stays">
          <ElOption :value="CONTROL" label="control points alone" />
          <ElOption v-for="q in versions" :key="`p${q.number}`" :value="`pass:${q.number}`" :label="`${q.name} v${q.run}, in use`" />
          <ElOption v-for="t in others" :key="t.id" :value="`drive:${t.id}`" :label="`${t.name}, as it came`" /></ElSelect
      ></ElFormItem>
      <ElFormItem v-if="reference !== null" label="the scan of that"
        ><ElSelect v-model="referenceCloud" aria-label="The scan of that">
          <ElOption v-for="c in stage.clouds" :key="c.id" :value="c.id" :label="`${c.name} · ${group(String(c.points))}`" /></ElSelect
      ></ElFormItem>
      <ElFormItem label="name"><ElInput v-model="name" maxlength="80" aria-label="Name" data-test="pass-name" /></ElFormItem>
    </div>
    <template v-if="stays !== CONTROL">
      <div class="three">
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
        A pair: the same place in both scans, what stays less what is moved, good to some decimetres. Scans need the time of each point
        (LAS, LAZ).
      </p>
    </template>
    <ElFormItem label="control and check points as its scan shows them, a line each"
      ><ElInput
        v-model="targetText"
        type="textarea"
        class="mono"
        :rows="3"
        aria-label="Targets"
        data-test="pass-targets"
        placeholder="point  time  easting  northing  height"
    /></ElFormItem>
    <p class="quiet">
      They can be marked in the section afterwards. Control corrects a pass that is registered to control alone; where it is laid onto a
      drive they only say how well it agrees. Check points never take part.
      <template v-if="stage.points.length === 0">The project has no control or check point with a given place yet.</template>
    </p>
    <p class="line">
      <ElButton type="primary" native-type="submit" data-test="align-pass" :disabled="!project.mayChange || missing !== ''">{{
        stays === CONTROL ? 'Register' : 'Align'
      }}</ElButton>
      <ElButton @click="emit('cancel')">Leave it</ElButton
      ><ElCheckbox v-model="scan" data-test="pass-scan-at-once">make its scan again at once</ElCheckbox
      ><span class="doubt">{{ missing }}</span>
    </p>
  </ElForm>
</template>

<style scoped>
.form {
  display: flex;
  flex-direction: column;
  flex: 1;
  gap: 8px;
  min-height: 0;
  overflow: auto;
  padding-bottom: 10px;
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

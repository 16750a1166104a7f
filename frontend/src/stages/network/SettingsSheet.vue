<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue';
import { put } from '../../api/client';
import type { Conflict, ConflictField } from '../../api/conflict';
import type { SettingsRequest, SettingsView } from '../../api/types';
import NumberInput from '../../fields/NumberInput.vue';
import ConflictSheet from '../../frame/ConflictSheet.vue';
import { metresPer, smallUnit } from '../../format/units';
import { useProject } from '../../state/project';

const props = defineProps<{ settings: SettingsView; version: string }>();
const project = useProject();
const form = ref({ ...props.settings });
const conflict = ref<Conflict | null>(null);
/** The version of the settings the form was filled from. */
let seen = props.version;

function fill() {
  form.value = { ...props.settings };
  seen = props.version;
  conflict.value = null;
}

// What is being typed stays when the page loads again; whoever saves second is asked.
watch(
  () => props.settings,
  (_now, before) => {
    if (JSON.stringify(form.value) === JSON.stringify(before)) fill();
  },
);
/** Seconds of arc or milligon, millimetres or feet, as the project shows small quantities; stored in seconds and metres. */
const arc = computed<[string, number]>(() => (project.units.angle === 'gon' ? ['mgon', 1 / 3.24] : ['"', 1]));
const fine = computed<[string, number]>(() => [
  smallUnit(project.units),
  project.units.length === 'm' ? 1000 : 1 / metresPer(project.units),
]);
const FIELDS = computed<[keyof SettingsView, string, string, number][]>(() => [
  ['directionSd', 'direction', ...arc.value],
  ['zenithSd', 'zenith angle', ...arc.value],
  ['distanceConstant', 'distance, constant', ...fine.value],
  ['distancePpm', 'distance, per length', 'ppm', 1],
  ['instrumentCentring', 'centring, instrument', ...fine.value],
  ['targetCentring', 'centring, target', ...fine.value],
  ['heightCentring', 'instrument and target heights', ...fine.value],
  ['refraction', 'refraction coefficient', '', 1],
  ['confidence', 'confidence', '%', 100],
]);
const PLUMB: [string, string][] = [
  ['none', 'the normal of the ellipsoid'],
  ['geoid', 'the slope of the geoid'],
  ['measured', 'measured deflection'],
];

function change(key: keyof SettingsView, value: number | null) {
  if (value !== null) form.value = { ...form.value, [key]: value };
}

const COMPARED = computed<ConflictField[]>(() => [
  ...FIELDS.value.map(([key, label, unit, factor]) => ({
    key: key as string,
    label,
    text: (v: unknown) => `${Number((Number(v) * factor).toFixed(6))} ${unit}`.trim(),
  })),
  { key: 'free', label: 'free network', text: (v) => (v ? 'yes' : 'no') },
  { key: 'deflections', label: 'plumb line', text: (v) => PLUMB.find(([k]) => k === v)?.[1] ?? String(v) },
]);

async function send(values: SettingsRequest, version: string) {
  form.value = { ...form.value, ...values };
  const ok = await project.attempt(
    () => put(project.path('/network/settings'), values, version),
    'Weights changed. Adjust again to see their effect.',
    (theirs) => (conflict.value = theirs),
  );
  if (ok) {
    conflict.value = null;
    await nextTick();
    seen = props.version;
  }
}
const save = () => send({ ...form.value } satisfies SettingsRequest, seen);
</script>

<template>
  <ConflictSheet
    v-if="conflict"
    class="settings scroll"
    what="The weighting"
    :conflict="conflict"
    :fields="COMPARED"
    :mine="{ ...form }"
    @theirs="fill"
    @save="(values, version) => send(values as unknown as SettingsRequest, version)"
  />
  <form v-else class="settings scroll" @submit.prevent="save">
    <p class="quiet">
      A-priori standard deviations of observations that bring none of their own. Vectors carry their covariance, control its own.
    </p>
    <NumberInput
      v-for="[k, t, u, f] in FIELDS"
      :id="k"
      :key="k"
      :model-value="Number(form[k])"
      :label="t"
      :unit="u"
      :factor="1 / f"
      :digits="6"
      :disabled="!project.mayChange"
      @update:model-value="(v) => change(k, v)"
    />
    <ElFormItem class="field" label="plumb line of the instruments">
      <ElSelect v-model="form.deflections" aria-label="Plumb line of the instruments" :disabled="!project.mayChange">
        <ElOption
          v-for="[key, label] in PLUMB"
          :key="key"
          :value="key"
          :label="label"
          :disabled="key === 'geoid' && project.overview?.geoid === ''"
        />
      </ElSelect>
    </ElFormItem>
    <template v-if="form.deflections === 'measured'">
      <NumberInput
        v-for="[k, t] in [
          ['xi', 'deflection to the north'],
          ['eta', 'deflection to the east'],
        ] as const"
        :key="k"
        :model-value="form[k]"
        :label="t"
        unit="″"
        :digits="3"
        :disabled="!project.mayChange"
        @update:model-value="(v) => change(k, v)"
      />
    </template>
    <ElCheckbox v-model="form.free" class="wide" :disabled="!project.mayChange"
      >free network <span class="quiet">inner constraints over the given coordinates; control is not held</span></ElCheckbox
    >
    <ElButton type="primary" native-type="submit" :disabled="!project.mayChange">Change weights</ElButton>
  </form>
</template>

<style scoped>
.settings {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 190px));
  gap: 6px 18px;
  align-content: start;
  flex: 1;
  padding-bottom: 12px;
}
.settings > p,
.wide {
  grid-column: 1 / -1;
}
.el-button {
  justify-self: start;
  margin-top: 6px;
}
</style>

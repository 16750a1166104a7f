<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { post, reasonOf } from '../../api/client';
import { latest } from '../../api/latest';
import type { ExtractRequest, ExtractView, GridFileView, ReferenceView } from '../../api/types';
import AngleInput from '../../fields/AngleInput.vue';
import NumberInput from '../../fields/NumberInput.vue';
import { fileSize } from '../../format/units';
import type { Scene } from '../../sketch/scene';
import { useProject } from '../../state/project';

/** A piece of a geoid for the field, by corners or about a place. */
const props = defineProps<{ view: ReferenceView; grid: GridFileView; lat: number | null; lon: number | null }>();
const emit = defineEmits<{ scene: [scene: Partial<Scene> | null]; begun: []; made: [piece: ExtractView] }>();
const project = useProject();
const extracting = ref(false);
const by = ref<'corners' | 'radius'>('corners');
const pad = 0.1;
const south = ref<number | null>(props.view.extent ? Number((props.view.extent[0]! - pad).toFixed(2)) : null);
const west = ref<number | null>(props.view.extent ? Number((props.view.extent[1]! - pad).toFixed(2)) : null);
const north = ref<number | null>(props.view.extent ? Number((props.view.extent[2]! + pad).toFixed(2)) : null);
const east = ref<number | null>(props.view.extent ? Number((props.view.extent[3]! + pad).toFixed(2)) : null);
const radius = ref<number | null>(20);
const step = ref<number | null>(null);
const ellipsoid = ref('global');
const label = ref('');
const plan = ref<ExtractView | null>(null);
const planProblem = ref('');
const extract = computed<ExtractRequest>(() => ({
  geoid: props.grid.reference,
  by: by.value,
  south: south.value,
  west: west.value,
  north: north.value,
  east: east.value,
  lat: props.lat,
  lon: props.lon,
  radiusKm: radius.value,
  step: step.value === null ? null : step.value / 60,
  ellipsoid: ellipsoid.value,
  label: label.value,
}));
const plans = latest();
watch(
  [extract, extracting],
  () => {
    plan.value = null;
    planProblem.value = '';
    plans.forget();
    if (!extracting.value) {
      emit('scene', null);
      return;
    }
    void plans.ask(
      () => post<ExtractView>(project.path('/reference/extract/plan'), extract.value),
      (result) => {
        plan.value = result;
        emit('scene', result.outline.length > 0 ? { paths: [{ path: result.outline.flat(), kind: 'limits' }] } : null);
      },
      (e) => {
        planProblem.value = reasonOf(e);
        emit('scene', null);
      },
    );
  },
  { deep: true },
);

async function make() {
  await project.attempt(async () => {
    const made = await post<ExtractView>(project.path('/reference/extract'), extract.value);
    extracting.value = false;
    emit('made', made);
  });
}
</script>

<template>
  <section aria-label="Geoid extract">
    <div class="row">
      <h2>Geoid extract</h2>
      <span class="spacer" />
      <ElButton v-if="!extracting" data-test="extract-open" :disabled="!project.mayChange" @click="((extracting = true), emit('begun'))">
        Cut a piece of {{ grid.name }}
      </ElButton>
    </div>
    <p v-if="!extracting" class="quiet">
      A piece of the model for the field: small, named by model, area and ellipsoid, and checked against its source.
    </p>
    <template v-else>
      <div class="row">
        <ElRadio v-model="by" value="corners">two corners</ElRadio>
        <ElRadio v-model="by" value="radius" data-test="by-radius">centre and radius</ElRadio>
        <span class="spacer" />
        <span
          >on
          <ElSelect v-model="ellipsoid" class="inline" aria-label="Ellipsoid of the extract">
            <ElOption value="global" :label="grid.ellipsoid || 'WGS 84'" />
            <ElOption value="local" :disabled="view.system === null" label="the project’s ellipsoid" /> </ElSelect
        ></span>
      </div>
      <div v-if="by === 'corners'" class="grid two">
        <AngleInput id="x-south" v-model="south" label="south" kind="lat" :extent="view.extent" />
        <AngleInput id="x-west" v-model="west" label="west" kind="lon" :extent="view.extent" />
        <AngleInput id="x-north" v-model="north" label="north" kind="lat" :extent="view.extent" />
        <AngleInput id="x-east" v-model="east" label="east" kind="lon" :extent="view.extent" />
      </div>
      <div v-else class="grid">
        <NumberInput v-model="radius" label="radius about the point above, up to 100" unit="km" :digits="3" />
      </div>
      <div class="grid">
        <NumberInput
          v-model="step"
          label="grid step"
          unit="′"
          :digits="4"
          :placeholder="`as in the model, ${Number((60 * (grid.step ?? 0)).toFixed(3))}`"
        />
        <ElFormItem class="field" label="a word for its name"
          ><ElInput v-model="label" maxlength="80" data-test="extract-label"
        /></ElFormItem>
      </div>
      <ElAlert v-if="planProblem" data-test="extract-problem" type="error" :closable="false">{{ planProblem }}</ElAlert>
      <template v-else-if="plan">
        <p data-test="extract-plan">
          <strong class="mono name">{{ plan.name }}</strong><br />{{ plan.rows }} × {{ plan.columns }} nodes every
          {{ Number((60 * plan.stepLat).toFixed(3)) }}′{{ plan.sameStep ? ', those of the model' : ', interpolated' }};
          {{ fileSize(plan.gtxSize) }} as GTX, {{ fileSize(plan.isgSize) }} as ISG text.
        </p>
        <ElAlert v-if="plan.note" type="warning" :closable="false">{{ plan.note }}</ElAlert>
      </template>
      <div class="row">
        <ElButton type="primary" data-test="extract-make" :disabled="!project.mayChange || !plan" @click="make">
          Make and check it
        </ElButton>
        <ElButton @click="extracting = false">Cancel</ElButton>
      </div>
    </template>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
.row {
  display: flex;
  gap: 12px;
  align-items: center;
}
.grid {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 8px 12px;
}
.grid.two {
  grid-template-columns: repeat(2, minmax(0, 1fr));
}
.inline {
  width: 150px;
}
.name {
  overflow-wrap: anywhere;
  font-size: 12px;
}
</style>

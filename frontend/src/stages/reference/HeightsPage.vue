<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { get, post, reasonOf, request } from '../../api/client';
import { latest } from '../../api/latest';
import type { ExtractRequest, ExtractView, GridFileView, ReferenceView } from '../../api/types';
import AngleInput from '../../fields/AngleInput.vue';
import NumberInput from '../../fields/NumberInput.vue';
import type { Column } from '../../figures/columns';
import FiguresTable from '../../figures/FiguresTable.vue';
import { fileSize, length } from '../../format/units';
import type { Scene } from '../../sketch/scene';
import { useProject } from '../../state/project';
import ChangeSheet from './ChangeSheet.vue';

const props = defineProps<{ view: ReferenceView; picked: string }>();
const emit = defineEmits<{ scene: [scene: Partial<Scene> | null]; changed: [] }>();
const project = useProject();
const units = computed(() => project.units);
const picker = ref<HTMLInputElement>();
const changing = ref(false);
const geoids = computed(() => props.view.grids.filter((g) => g.kind === 'geoid'));
const chosen = ref(props.view.geoid || (geoids.value[0]?.reference ?? ''));
const grid = computed(() => props.view.grids.find((g) => g.reference === chosen.value) ?? null);

const columns: Column<GridFileView>[] = [
  { key: 'name', title: 'grid', width: 'minmax(150px, 1fr)', value: (g) => g.name },
  { key: 'kind', title: 'kind', width: '48px', value: (g) => g.kind },
  { key: 'origin', title: 'origin', width: '62px', value: (g) => g.origin },
  { key: 'ellipsoid', title: 'above', width: '84px', value: (g) => g.ellipsoid },
  {
    key: 'step',
    title: 'step',
    unit: '′',
    width: '48px',
    align: 'right',
    mono: true,
    value: (g) => g.step,
    text: (g) => (g.step === null ? '' : String(Number((g.step * 60).toFixed(3)))),
  },
  { key: 'size', title: 'size', width: '66px', align: 'right', mono: true, value: (g) => g.size, text: (g) => fileSize(g.size) },
  { key: 'covers', title: 'covers', width: '52px', value: (g) => (g.bounds === null ? '' : g.coversPoints ? 'yes' : 'no') },
];

// N at a point
const lat = ref<number | null>(props.view.extent ? Number(((props.view.extent[0]! + props.view.extent[2]!) / 2).toFixed(6)) : null);
const lon = ref<number | null>(props.view.extent ? Number(((props.view.extent[1]! + props.view.extent[3]!) / 2).toFixed(6)) : null);
const undulation = ref<{ n: number; geoid: string } | null>(null);
const undulationProblem = ref('');
const undulations = latest();
const places = latest();
watch(
  [lat, lon, grid],
  () => {
    undulation.value = null;
    undulationProblem.value = '';
    undulations.forget();
    if (lat.value === null || lon.value === null || chosen.value === '' || grid.value?.kind !== 'geoid') return;
    const path = `/reference/undulation?lat=${lat.value}&lon=${lon.value}&geoid=${encodeURIComponent(chosen.value)}`;
    void undulations.ask(
      () => get<{ n: number; geoid: string }>(project.path(path)),
      (n) => (undulation.value = n),
      (e) => (undulationProblem.value = reasonOf(e)),
    );
  },
  { immediate: true },
);
watch(
  () => props.picked,
  (name) =>
    void places.ask(
      () => get<{ lat: number | null; lon: number | null }[]>(project.path(`/reference/factors?point=${encodeURIComponent(name)}`)),
      ([place]) => {
        if (place?.lat == null || place.lon === null) return;
        lat.value = Number(place.lat.toFixed(8));
        lon.value = Number(place.lon.toFixed(8));
      },
      (e) => (undulationProblem.value = reasonOf(e)),
    ),
);

// Extract
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
const made = ref<ExtractView | null>(null);
const extract = computed<ExtractRequest>(() => ({
  geoid: chosen.value,
  by: by.value,
  south: south.value,
  west: west.value,
  north: north.value,
  east: east.value,
  lat: lat.value,
  lon: lon.value,
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
    if (!extracting.value || grid.value?.kind !== 'geoid') {
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
    made.value = await post<ExtractView>(project.path('/reference/extract'), extract.value);
    extracting.value = false;
    chosen.value = `grid:${made.value.id}`;
  });
  emit('changed');
}

async function bring(event: Event) {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (!file) return;
  const form = new FormData();
  form.append('file', file);
  await project.attempt(async () => {
    const { id } = await request<{ id: number }>('POST', project.path('/reference/grids'), form);
    chosen.value = `grid:${id}`;
  }, `Imported ${file.name}.`);
  emit('changed');
}

const mm = (v: number | null) => (v === null ? '' : `${(1000 * v).toFixed(1)} mm`);
</script>

<template>
  <ChangeSheet
    v-if="changing"
    :target="project.overview!.reference"
    :target-name="project.overview!.referenceName"
    :view="{ ...view, geoid: grid?.kind === 'geoid' ? chosen : view.geoid, heights: 'geoid' }"
    @done="changing = false"
    @back="changing = false"
    @scene="(s) => emit('scene', s)"
  />
  <div v-else class="scroll heights">
    <div class="row">
      <h2>Geoids and shift grids</h2>
      <span class="spacer" />
      <button
        v-if="view.system"
        class="button plain"
        data-test="change-heights-open"
        :disabled="!project.mayChange"
        @click="changing = true"
      >
        Change the project’s heights
      </button>
      <button class="button plain" :disabled="!project.mayChange" @click="picker?.click()">Import a grid</button>
      <input ref="picker" type="file" hidden data-test="grid-file" @change="bring" />
    </div>
    <FiguresTable
      label="grids"
      :columns="columns"
      :rows="view.grids"
      :row-key="(g) => g.reference"
      :selected="new Set([chosen])"
      :filterable="false"
      :style="{
        flex: `0 0 ${Math.max(1, Math.min(6, view.grids.length)) * 27 + 30}px`,
        height: `${Math.max(1, Math.min(6, view.grids.length)) * 27 + 30}px`,
      }"
      @select="(k) => (chosen = k[0] ?? '')"
    >
      <template #cell-covers="{ row }"
        ><span :class="row.coversPoints ? 'holds' : 'doubt'">{{
          row.bounds === null ? '' : row.coversPoints ? '✓ yes' : 'no'
        }}</span></template
      >
      <template #empty
        ><div class="empty"><p>No geoid is here. Import one: GTX, ISG text or GeoTIFF; NTv2 for datum shifts.</p></div></template
      >
    </FiguresTable>
    <p v-for="n in grid?.notes ?? []" :key="n" class="quiet">{{ n }}</p>
    <p v-if="grid && grid.id !== null && grid.kind === 'geoid'" class="row" data-test="grid-downloads">
      <span class="quiet">Take it along as</span>
      <a class="link" :href="project.path(`/reference/grids/${grid.id}.gtx`)">GTX</a>
      <a class="link" :href="project.path(`/reference/grids/${grid.id}.isg`)">ISG text</a>
    </p>
    <p v-if="made" class="notice good" data-test="extract-made">
      <span
        ><strong>{{ made.name }}</strong> is made and checked at {{ made.checked }} random places against its source: largest difference
        {{ mm(made.largest) }}, rms {{ mm(made.rms) }}.</span
      >
    </p>

    <section v-if="grid?.kind === 'geoid'" aria-label="N at a point">
      <h2>N at a point</h2>
      <div class="grid">
        <AngleInput id="n-lat" v-model="lat" label="latitude" kind="lat" :extent="view.extent" />
        <AngleInput id="n-lon" v-model="lon" label="longitude" kind="lon" :extent="view.extent" />
        <div class="fact" data-test="undulation">
          <span class="label">geoid height N</span>
          <strong v-if="undulation" class="mono">{{ length(undulation.n, units) }} {{ units.length }}</strong>
          <span v-else class="fails small">{{ undulationProblem }}</span>
          <span v-if="undulation" class="quiet small">from {{ undulation.geoid }}</span>
        </div>
      </div>
    </section>

    <section v-if="grid?.kind === 'geoid'" aria-label="Geoid extract">
      <div class="row">
        <h2>Geoid extract</h2>
        <span class="spacer" />
        <button
          v-if="!extracting"
          class="button plain"
          data-test="extract-open"
          :disabled="!project.mayChange"
          @click="((extracting = true), (made = null))"
        >
          Cut a piece of {{ grid.name }}
        </button>
      </div>
      <p v-if="!extracting" class="quiet">
        A piece of the model for the field: small, named by model, area and ellipsoid, and checked against its source.
      </p>
      <template v-else>
        <div class="row">
          <label><input v-model="by" type="radio" value="corners" /> two corners</label>
          <label><input v-model="by" type="radio" value="radius" data-test="by-radius" /> centre and radius</label>
          <span class="spacer" />
          <label
            >on
            <select v-model="ellipsoid" class="input inline">
              <option value="global">{{ grid.ellipsoid || 'WGS 84' }}</option>
              <option value="local" :disabled="view.system === null">the project’s ellipsoid</option>
            </select></label
          >
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
          <label class="field"
            ><span class="label">a word for its name</span><input v-model="label" class="input" maxlength="80" data-test="extract-label"
          /></label>
        </div>
        <p v-if="planProblem" class="notice bad" role="alert" data-test="extract-problem">{{ planProblem }}</p>
        <template v-else-if="plan">
          <p data-test="extract-plan">
            <strong class="mono name">{{ plan.name }}</strong><br />{{ plan.rows }} × {{ plan.columns }} nodes every
            {{ Number((60 * plan.stepLat).toFixed(3)) }}′{{ plan.sameStep ? ', those of the model' : ', interpolated' }};
            {{ fileSize(plan.gtxSize) }} as GTX, {{ fileSize(plan.isgSize) }} as ISG text.
          </p>
          <p v-if="plan.note" class="notice">{{ plan.note }}</p>
        </template>
        <div class="row">
          <button class="button main" data-test="extract-make" :disabled="!project.mayChange || !plan" @click="make">
            Make and check it
          </button>
          <button class="button plain" @click="extracting = false">Cancel</button>
        </div>
      </template>
    </section>
  </div>
</template>

<style scoped>
.heights {
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 0 8px 14px 0;
  flex: 1;
}
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
.fact {
  display: grid;
  align-content: start;
}
.fact strong {
  font-size: 15px;
}
.small {
  font-size: 11px;
}
.inline {
  width: auto;
  height: 24px;
  padding: 0 4px;
}
.name {
  overflow-wrap: anywhere;
  font-size: 12px;
}
.notice {
  margin: 0;
}
</style>

<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { get, reasonOf } from '../../api/client';
import { latest } from '../../api/latest';
import type { GridFileView, ReferenceView } from '../../api/types';
import AngleInput from '../../fields/AngleInput.vue';
import { length } from '../../format/units';
import { useProject } from '../../state/project';

/** N of a geoid at a place, typed or picked on the sketch. */
const props = defineProps<{ view: ReferenceView; picked: string; grid: GridFileView }>();
const lat = defineModel<number | null>('lat', { required: true });
const lon = defineModel<number | null>('lon', { required: true });
const project = useProject();
const units = computed(() => project.units);
const undulation = ref<{ n: number; geoid: string } | null>(null);
const undulationProblem = ref('');
const undulations = latest();
const places = latest();
watch(
  [lat, lon, () => props.grid.reference],
  () => {
    undulation.value = null;
    undulationProblem.value = '';
    undulations.forget();
    if (lat.value === null || lon.value === null) return;
    const path = `/reference/undulation?lat=${lat.value}&lon=${lon.value}&geoid=${encodeURIComponent(props.grid.reference)}`;
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
</script>

<template>
  <section aria-label="N at a point">
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
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 8px 12px;
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
</style>

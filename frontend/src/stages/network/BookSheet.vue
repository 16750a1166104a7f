<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue';
import { get, put } from '../../api/client';
import type { BookRequest, BookView } from '../../api/types';
import NumberInput from '../../fields/NumberInput.vue';
import FiguresTable from '../../figures/FiguresTable.vue';
import { metresPer, small, smallUnit } from '../../format/units';
import { useProject } from '../../state/project';
import { pointingColumns, setupColumns, targetColumns } from './bookColumns';
import EccentricForm from './EccentricForm.vue';
import PlacedPage from './PlacedPage.vue';

/** Instrument set-ups as they were read and as they are reduced; how each goes into the adjustment. */
const project = useProject();
const book = shallowRef<BookView | null>(null);
const chosen = ref('');
const units = computed(() => project.units);
const setup = computed(() => book.value?.setups.find((s) => s.key === chosen.value) ?? book.value?.setups[0] ?? null);
const setups = computed(() => setupColumns(units.value));
const onGrid = computed(() => setup.value?.targets.some((t) => t.grid !== null) ?? false);
const targets = computed(() => targetColumns(units.value, onGrid.value));
const pointings = computed(() => pointingColumns(units.value));
const picked = ref<Set<string>>(new Set());
const pickedIds = computed(() => setup.value?.pointings.filter((p) => picked.value.has(String(p.id))).map((p) => p.id) ?? []);

const page = ref<'reduced' | 'read' | 'placed'>('reduced');
const form = ref<Omit<BookRequest, 'setup' | 'scope'>>(blank());
function blank(): Omit<BookRequest, 'setup' | 'scope'> {
  const s = setup.value;
  return {
    mode: s?.mode ?? 'pointings',
    precision: s?.precision ?? 'a-priori',
    temperature: s?.temperature ?? null,
    pressure: s?.pressure ?? null,
    humidity: s?.humidity ?? null,
    prism: s?.prism ?? 0,
    referenceRefractivity: book.value?.referenceRefractivity ?? null,
    wavelength: book.value?.wavelength ?? 0.658,
  };
}
watch([setup, book], () => (form.value = blank()));
watch(
  () => setup.value?.key,
  () => (picked.value = new Set()),
);
const fine = computed(() => (units.value.length === 'm' ? 0.001 : metresPer(units.value)));

const SCOPES = [
  ['one', 'Reduce this one so', 'The set-up is reduced so now.'],
  ['file', 'Its file', 'Every set-up of the file is reduced so now.'],
  ['all', 'Every set-up', 'Every set-up is reduced so now.'],
] as const;
const save = (scope: (typeof SCOPES)[number]) =>
  project.attempt(
    () =>
      put(project.path('/book'), {
        ...form.value,
        prism: form.value.prism ?? 0,
        setup: setup.value!.key,
        scope: scope[0],
      } satisfies BookRequest),
    `${scope[2]} Adjust again to see the effect.`,
  );

const load = async () => (book.value = await get<BookView>(project.path('/book')));
onMounted(load);
watch(() => project.version, load);
</script>

<template>
  <section v-if="book" class="book">
    <div class="top" :style="{ height: `${44 + 27.5 * Math.min(7, Math.max(1, book.setups.length))}px` }">
      <FiguresTable
        label="station-book"
        :columns="setups"
        :rows="book.setups"
        :row-key="(s) => s.key"
        :selected="new Set(setup ? [setup.key] : [])"
        :filterable="false"
        @select="(keys) => (chosen = keys[0] ?? '')"
        ><template #empty><p class="quiet">Bring in a total-station file; its set-ups are reduced here.</p></template></FiguresTable
      >
    </div>
    <template v-if="setup">
      <div class="tools">
        <strong>{{ setup.station }}</strong>
        <ElRadioGroup v-model="page" size="small" aria-label="Shown of the set-up">
          <ElRadioButton value="reduced">Reduced</ElRadioButton
          ><ElRadioButton value="read">As read {{ setup.pointings.length }}</ElRadioButton
          ><ElRadioButton value="placed">Placed</ElRadioButton>
        </ElRadioGroup>
        <span class="spacer" />
        <span class="quiet">into the adjustment</span>
        <ElRadioGroup v-model="form.mode" size="small" aria-label="Into the adjustment">
          <ElRadioButton value="pointings">each pointing</ElRadioButton><ElRadioButton value="means">means</ElRadioButton>
        </ElRadioGroup>
        <ElRadioGroup v-if="form.mode === 'means'" v-model="form.precision" size="small" aria-label="Precision of the means">
          <ElRadioButton value="rounds">sd from rounds</ElRadioButton><ElRadioButton value="a-priori">a priori</ElRadioButton>
        </ElRadioGroup>
      </div>
      <ElAlert v-if="setup.fault" type="error" :closable="false">{{ setup.fault }}</ElAlert>
      <p v-for="w in setup.warnings" :key="w" class="doubt">{{ w }}</p>
      <FiguresTable
        v-if="page === 'reduced'"
        label="reduced"
        :columns="targets"
        :rows="setup.targets"
        :row-key="(t) => `${t.target} ${t.ht}`"
        :selected="new Set()"
        :filterable="false"
        @select="() => undefined"
      />
      <PlacedPage v-else-if="page === 'placed'" :setup="setup.key" :version="book.version" />
      <FiguresTable
        v-else
        label="pointings"
        :columns="pointings"
        :rows="setup.pointings"
        :row-key="(p) => String(p.id)"
        :selected="picked"
        :dim="(p) => !p.used"
        @select="(keys) => (picked = new Set(keys))"
      />
      <EccentricForm v-if="page === 'read' && pickedIds.length > 0" :pointings="pickedIds" @done="picked = new Set()" />
      <form v-else-if="page !== 'placed'" class="air" @submit.prevent="save(SCOPES[0])">
        <NumberInput v-model="form.temperature!" label="temperature" unit="°C" />
        <NumberInput v-model="form.pressure!" label="pressure" unit="hPa" />
        <NumberInput v-model="form.humidity!" label="humidity" unit="%" />
        <NumberInput v-model="form.prism!" label="prism constant" :unit="smallUnit(units)" :factor="fine" :digits="2" />
        <NumberInput v-model="form.referenceRefractivity!" label="reference refractivity" />
        <NumberInput v-model="form.wavelength!" label="wavelength" unit="µm" />
        <div class="wide">
          <ElButton type="primary" native-type="submit" size="small" data-test="reduce-setup" :disabled="!project.mayChange">{{
            SCOPES[0][1]
          }}</ElButton>
          <ElButton size="small" data-test="reduce-file" :disabled="!project.mayChange" @click="save(SCOPES[1])">{{
            SCOPES[1][1]
          }}</ElButton>
          <ElButton size="small" data-test="reduce-all" :disabled="!project.mayChange" @click="save(SCOPES[2])">{{
            SCOPES[2][1]
          }}</ElButton>
        </div>
        <span class="quiet"
          >Prism {{ small(setup.prism, units, true) }} {{ smallUnit(units) }}, air {{ setup.ppm.toFixed(1) }} ppm{{
            setup.recordedWeather && setup.temperature === null ? ` (recorded: ${setup.recordedWeather})` : ''
          }}; curvature and refraction with the coefficient of the weights.</span
        >
      </form>
    </template>
  </section>
</template>

<style scoped>
.book {
  display: flex;
  flex-direction: column;
  gap: 6px;
  flex: 1;
  min-height: 0;
}
.top {
  display: flex;
  flex-direction: column;
  flex: none;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 8px;
  align-items: center;
}
.air {
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  gap: 4px 10px;
  align-items: end;
  padding-bottom: 8px;
}
.air > span:last-child {
  grid-column: span 3;
}
.air .wide {
  grid-column: span 3;
  white-space: nowrap;
}
p {
  margin: 0;
}
</style>

<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue';
import { get, put } from '../../api/client';
import type { BookRequest, BookSetupView, BookView } from '../../api/types';
import NumberInput from '../../fields/NumberInput.vue';
import type { Column } from '../../figures/columns';
import FiguresTable from '../../figures/FiguresTable.vue';
import { angle, height, length, lengthUnit, metresPer, small, smallAngle, smallUnit } from '../../format/units';
import { useProject } from '../../state/project';

/** Instrument set-ups as they were read and as they are reduced; how each goes into the adjustment. */
const project = useProject();
const book = shallowRef<BookView | null>(null);
const chosen = ref('');
const units = computed(() => project.units);
const setup = computed(() => book.value?.setups.find((s) => s.key === chosen.value) ?? book.value?.setups[0] ?? null);
type Target = BookSetupView['targets'][number];
type Pointing = BookSetupView['pointings'][number];

const figure = (key: string, title: string, of: (s: BookSetupView) => number | null): Column<BookSetupView> => ({
  key,
  title,
  width: '72px',
  align: 'right',
  mono: true,
  value: of,
  sortBy: (s) => Math.abs(of(s) ?? 0),
  text: (s) => smallAngle(of(s), units.value),
});
const setups = computed<Column<BookSetupView>[]>(() => [
  { key: 'station', title: 'station', width: '60px', value: (s) => s.station },
  {
    key: 'hi',
    title: 'hi',
    unit: lengthUnit(units.value),
    width: '52px',
    align: 'right',
    mono: true,
    value: (s) => s.hi,
    text: (s) => length(s.hi, units.value),
  },
  { key: 'rounds', title: 'rounds', width: '50px', align: 'right', mono: true, value: (s) => s.rounds },
  { key: 'targets', title: 'targets', width: '52px', align: 'right', mono: true, value: (s) => s.targets.length },
  figure('collimation', 'collimation', (s) => s.collimation),
  figure('index', 'index', (s) => s.index),
  figure('spread', 'spread', (s) => s.sdDirection ?? s.spread),
  { key: 'ppm', title: 'ppm', width: '44px', align: 'right', mono: true, value: (s) => s.ppm, text: (s) => s.ppm.toFixed(1) },
  { key: 'mode', title: 'goes in as', width: '90px', value: (s) => (s.mode === 'means' ? 'means' : 'pointings') },
]);
const targets = computed<Column<Target>[]>(() => [
  { key: 'target', title: 'target', width: '60px', value: (t) => t.target },
  { key: 'faces', title: 'faces', width: '44px', value: (t) => t.faces },
  { key: 'n', title: 'sights', width: '44px', align: 'right', mono: true, value: (t) => t.pointings },
  {
    key: 'direction',
    title: 'direction',
    width: '92px',
    align: 'right',
    mono: true,
    value: (t) => t.direction,
    text: (t) => angle(t.direction, units.value),
  },
  {
    key: 'zenith',
    title: 'zenith',
    width: '92px',
    align: 'right',
    mono: true,
    value: (t) => t.zenith,
    text: (t) => angle(t.zenith, units.value),
  },
  {
    key: 'slope',
    title: 'slope',
    unit: lengthUnit(units.value),
    width: '78px',
    align: 'right',
    mono: true,
    value: (t) => t.slope,
    text: (t) => length(t.slope, units.value, 1),
  },
  {
    key: 'horizontal',
    title: 'horizontal',
    unit: lengthUnit(units.value),
    width: '84px',
    align: 'right',
    mono: true,
    value: (t) => t.horizontal,
    text: (t) => length(t.horizontal, units.value, 1),
  },
  {
    key: 'dh',
    title: 'height diff.',
    unit: lengthUnit(units.value),
    width: '84px',
    align: 'right',
    mono: true,
    value: (t) => t.heightDifference,
    text: (t) => height(t.heightDifference, units.value, 1),
  },
]);
const pointings = computed<Column<Pointing>[]>(() => [
  { key: 'line', title: 'line', width: '40px', align: 'right', mono: true, value: (p) => p.line },
  { key: 'round', title: 'round', width: '50px', value: (p) => p.round },
  { key: 'face', title: 'face', width: '36px', align: 'right', mono: true, value: (p) => p.face },
  { key: 'target', title: 'target', width: '60px', value: (p) => p.target },
  {
    key: 'ht',
    title: 'ht',
    unit: lengthUnit(units.value),
    width: '52px',
    align: 'right',
    mono: true,
    value: (p) => p.ht,
    text: (p) => length(p.ht, units.value),
  },
  {
    key: 'direction',
    title: 'direction',
    width: '92px',
    align: 'right',
    mono: true,
    value: (p) => p.direction,
    text: (p) => (p.direction === null ? '' : angle(p.direction, units.value)),
  },
  {
    key: 'zenith',
    title: 'zenith',
    width: '92px',
    align: 'right',
    mono: true,
    value: (p) => p.zenith,
    text: (p) => (p.zenith === null ? '' : angle(p.zenith, units.value)),
  },
  {
    key: 'distance',
    title: 'distance',
    unit: lengthUnit(units.value),
    width: '78px',
    align: 'right',
    mono: true,
    value: (p) => p.distance,
    text: (p) => length(p.distance, units.value, 1),
  },
]);

const page = ref<'reduced' | 'read'>('reduced');
const form = ref<Omit<BookRequest, 'setup' | 'all'>>(blank());
function blank(): Omit<BookRequest, 'setup' | 'all'> {
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
const fine = computed(() => (units.value.length === 'm' ? 0.001 : metresPer(units.value)));

const save = (all: boolean) =>
  project.attempt(
    () => put(project.path('/book'), { ...form.value, prism: form.value.prism ?? 0, setup: setup.value!.key, all } satisfies BookRequest),
    all
      ? 'Every set-up is reduced so now. Adjust again to see the effect.'
      : 'The set-up is reduced so now. Adjust again to see the effect.',
  );

const load = async () => (book.value = await get<BookView>(project.path('/book')));
onMounted(load);
watch(() => project.version, load);
</script>

<template>
  <section v-if="book" class="book">
    <div class="part" :style="{ height: `${44 + 27.5 * Math.min(7, Math.max(1, book.setups.length))}px` }">
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
          ><ElRadioButton value="read">As read {{ setup.pointings.length }}</ElRadioButton>
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
      <FiguresTable
        v-else
        label="pointings"
        :columns="pointings"
        :rows="setup.pointings"
        :row-key="(p) => String(p.id)"
        :selected="new Set()"
        :dim="(p) => !p.used"
        @select="() => undefined"
      />
      <form class="air" @submit.prevent="save(false)">
        <NumberInput v-model="form.temperature!" label="temperature" unit="°C" />
        <NumberInput v-model="form.pressure!" label="pressure" unit="hPa" />
        <NumberInput v-model="form.humidity!" label="humidity" unit="%" />
        <NumberInput v-model="form.prism!" label="prism constant" :unit="smallUnit(units)" :factor="fine" :digits="2" />
        <NumberInput v-model="form.referenceRefractivity!" label="reference refractivity" />
        <NumberInput v-model="form.wavelength!" label="wavelength" unit="µm" />
        <ElButton type="primary" native-type="submit" size="small" data-test="reduce-setup" class="wide" :disabled="!project.mayChange"
          >Reduce this one so</ElButton
        >
        <ElButton size="small" data-test="reduce-all" :disabled="!project.mayChange" @click="save(true)">Every set-up</ElButton>
        <span class="quiet"
          >Prism {{ small(setup.prism, units, true) }} {{ smallUnit(units) }}, air {{ setup.ppm.toFixed(1) }} ppm; curvature and refraction
          with the coefficient of the weights.</span
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
.part {
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
.air .el-button {
  justify-self: start;
  margin: 0;
}
.air > span:last-child {
  grid-column: span 3;
}
.air .wide {
  grid-column: span 2;
}
p {
  margin: 0;
}
</style>

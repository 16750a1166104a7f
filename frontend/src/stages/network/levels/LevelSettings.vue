<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { put } from '../../../api/client';
import type { LevelBookView, LevelSettingsRequest } from '../../../api/types';
import NumberInput from '../../../fields/NumberInput.vue';
import { fromDisplayLength, height, lengthUnit, metresPer, smallUnit, toDisplayLength } from '../../../format/units';
import { useProject } from '../../../state/project';
import { readCell } from './grid';

/** Benchmarks and how the book is worked out. */
const props = defineProps<{ book: LevelBookView }>();
const project = useProject();
const form = ref({ ...props.book.settings });
const typed = () => props.book.benchmarks.map((b) => ({ id: b.id, h: String(Number(toDisplayLength(b.h, project.units).toFixed(5))) }));
const benchmarks = ref([...typed(), { id: '', h: '' }]);
watch(
  () => props.book.version,
  () => {
    form.value = { ...props.book.settings };
    benchmarks.value = [...typed(), { id: '', h: '' }];
  },
);
const fine = computed(() => (project.units.length === 'm' ? 0.001 : metresPer(project.units)));

function change(i: number, field: 'id' | 'h', text: string) {
  benchmarks.value[i]![field] = text;
  if (i === benchmarks.value.length - 1 && text !== '') benchmarks.value.push({ id: '', h: '' });
}

const save = () =>
  project.attempt(
    () =>
      put(
        project.path('/levels/settings'),
        {
          ...form.value,
          benchmarks: benchmarks.value
            .filter((b) => b.id.trim() !== '' || b.h.trim() !== '')
            .map((b) => ({ id: b.id.trim(), h: fromDisplayLength(readCell(b.h) ?? NaN, project.units) })),
        } satisfies LevelSettingsRequest,
        props.book.version,
      ),
    'The book is worked out with these settings now.',
  );
</script>

<template>
  <form class="level-settings" @submit.prevent="save">
    <section>
      <h3>Benchmarks</h3>
      <p class="quiet">Typed here; they come before the project’s own control.</p>
      <div v-for="(b, i) in benchmarks" :key="i" class="pair">
        <ElInput
          :model-value="b.id"
          size="small"
          placeholder="name"
          :aria-label="`Benchmark ${i + 1}`"
          @update:model-value="(v: string) => change(i, 'id', v)"
        />
        <ElInput
          :model-value="b.h"
          size="small"
          class="mono"
          inputmode="decimal"
          :placeholder="`height ${lengthUnit(project.units)}`"
          :aria-label="`Height of benchmark ${i + 1}`"
          @update:model-value="(v: string) => change(i, 'h', v)"
        />
      </div>
      <p v-if="book.known.length > 0" class="quiet">
        From the project:
        {{
          book.known
            .slice(0, 12)
            .map((k) => `${k.id} ${height(k.h, project.units, 1)}`)
            .join(', ')
        }}{{ book.known.length > 12 ? ' …' : '' }}
      </p>
    </section>
    <section class="fields">
      <h3>Limits</h3>
      <NumberInput v-model="form.k" label="allowable misclosure" :unit="smallUnit(project.units)" :factor="fine" :digits="3" />
      <ElRadioGroup v-model="form.per" size="small" aria-label="Allowable per">
        <ElRadioButton value="km">× √km</ElRadioButton><ElRadioButton value="setup">× √setups</ElRadioButton>
      </ElRadioGroup>
      <NumberInput v-model="form.repeatLimit" label="repeats within" :unit="smallUnit(project.units)" :factor="fine" :digits="3" />
      <span class="quiet">misclosure shared by</span>
      <ElRadioGroup v-model="form.distribute" size="small" aria-label="Shared by">
        <ElRadioButton value="length">length</ElRadioButton><ElRadioButton value="setup">setups</ElRadioButton>
      </ElRadioGroup>
    </section>
    <section class="fields">
      <h3>Corrections</h3>
      <ElCheckbox v-model="form.curvature">curvature and refraction</ElCheckbox>
      <NumberInput v-model="form.refraction" label="refraction coefficient" />
      <NumberInput v-model="form.scalePpm" label="staff scale" unit="ppm" />
      <NumberInput v-model="form.expansion" label="staff expansion" unit="ppm/K" :factor="1e-6" />
      <NumberInput v-model="form.temperature" label="temperature" unit="°C" />
      <NumberInput v-model="form.referenceTemperature" label="staff compared at" unit="°C" />
    </section>
    <ElButton type="primary" native-type="submit" data-test="level-settings" :disabled="!project.mayChange">Change the settings</ElButton>
  </form>
</template>

<style scoped>
.level-settings {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 8px 20px;
  align-content: start;
  flex: 1;
  min-height: 0;
  overflow: auto;
}
h3 {
  margin: 0;
  font-size: 13px;
}
p {
  margin: 2px 0;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
  margin-bottom: 3px;
}
.fields {
  display: grid;
  gap: 4px;
  align-content: start;
  justify-items: start;
}
.el-button {
  justify-self: start;
}
</style>

<script setup lang="ts">
import { ref } from 'vue';
import { angle, length, small, smallUnit } from '../format/units';
import { useProject } from '../state/project';
import OverPage from './OverPage.vue';

const LENGTHS = [
  ['m', 'metre'],
  ['ft', 'international foot'],
  ['ftUS', 'US survey foot'],
] as const;
const ANGLES = [
  ['dms', 'degrees, minutes, seconds'],
  ['deg', 'decimal degrees'],
  ['gon', 'gon'],
] as const;

const DECIMALS = [
  ['decimals', 'plan and distances', 6],
  ['heights', 'heights', 6],
  ['angles', 'angles (of the second)', 4],
  ['small', 'residuals and precisions', 4],
  ['areas', 'areas and volumes', 4],
] as const;

const project = useProject();
const units = ref({ ...project.units });
const save = () => project.setUnits({ ...units.value });
</script>

<template>
  <OverPage title="Units">
    <p class="quiet">Changes what is shown and printed on the screen, never the data.</p>
    <ElForm label-position="top" :disabled="!project.mayChange" @submit.prevent>
      <ElFormItem label="lengths">
        <ElRadioGroup v-model="units.length" @change="save">
          <ElRadio v-for="[v, t] in LENGTHS" :key="v" :value="v">{{ t }}</ElRadio>
        </ElRadioGroup>
      </ElFormItem>
      <ElFormItem label="angles">
        <ElRadioGroup v-model="units.angle" @change="save">
          <ElRadio v-for="[v, t] in ANGLES" :key="v" :value="v">{{ t }}</ElRadio>
        </ElRadioGroup>
      </ElFormItem>
      <div class="decimals">
        <ElFormItem v-for="[key, text, most] in DECIMALS" :key="key" :label="text">
          <ElInputNumber
            v-model="units[key]"
            :min="0"
            :max="most"
            :precision="0"
            controls-position="right"
            :aria-label="`Decimals of ${text}`"
            @change="save"
          />
        </ElFormItem>
      </div>
    </ElForm>
    <p>
      1234.5678 m shows as <span class="mono">{{ length(1234.5678, project.units) }}</span>, 12.3 mm as
      <span class="mono">{{ small(0.0123, project.units) }} {{ smallUnit(project.units) }}</span
      >, 45.5125° as <span class="mono">{{ angle(45.5125, project.units) }}</span>.
    </p>
  </OverPage>
</template>

<style scoped>
.el-form {
  margin: 14px 0;
}
.decimals {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 0 14px;
}
.el-input-number {
  width: 90px;
}
</style>

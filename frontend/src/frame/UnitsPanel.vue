<script setup lang="ts">
import { ref } from 'vue';
import { angle, length } from '../format/units';
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
      <ElFormItem label="decimals of coordinates">
        <ElInputNumber
          v-model="units.decimals"
          :min="0"
          :max="6"
          :precision="0"
          controls-position="right"
          aria-label="decimals"
          @change="save"
        />
      </ElFormItem>
    </ElForm>
    <p>
      1234.5678 m shows as <span class="mono">{{ length(1234.5678, project.units) }}</span>, 45.5125° as
      <span class="mono">{{ angle(45.5125, project.units) }}</span>.
    </p>
  </OverPage>
</template>

<style scoped>
.el-form {
  margin: 14px 0;
}
.el-input-number {
  width: 90px;
}
</style>

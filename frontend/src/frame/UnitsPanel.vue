<script setup lang="ts">
import { ref } from 'vue';
import { angle, length } from '../format/units';
import { useProject } from '../state/project';
import OverPage from './OverPage.vue';

const project = useProject();
const units = ref({ ...project.units });
const save = () => project.setUnits({ ...units.value });
</script>

<template>
  <OverPage title="Units">
    <p class="quiet">Changes what is shown and printed on the screen, never the data.</p>
    <div class="grid">
      <span class="label">lengths</span>
      <label
        v-for="[v, t] in [
          ['m', 'metre'],
          ['ft', 'international foot'],
          ['ftUS', 'US survey foot'],
        ]"
        :key="v"
        ><input v-model="units.length" type="radio" name="length" :value="v" :disabled="!project.mayChange" @change="save" /> {{ t }}</label
      >
      <span class="label">angles</span>
      <label
        v-for="[v, t] in [
          ['dms', 'degrees, minutes, seconds'],
          ['deg', 'decimal degrees'],
          ['gon', 'gon'],
        ]"
        :key="v"
        ><input v-model="units.angle" type="radio" name="angle" :value="v" :disabled="!project.mayChange" @change="save" /> {{ t }}</label
      >
      <span class="label">decimals of coordinates</span>
      <input
        v-model.number="units.decimals"
        class="input mono"
        type="number"
        min="0"
        max="6"
        aria-label="decimals"
        :disabled="!project.mayChange"
        @change="save"
      />
    </div>
    <p>
      1234.5678 m shows as <span class="mono">{{ length(1234.5678, project.units) }}</span>, 45.5125° as
      <span class="mono">{{ angle(45.5125, project.units) }}</span>.
    </p>
  </OverPage>
</template>

<style scoped>
.grid {
  display: grid;
  gap: 6px;
  margin: 14px 0;
  justify-items: start;
}
.label {
  margin-top: 8px;
}
.input {
  width: 90px;
}
</style>

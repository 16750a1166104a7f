<script setup lang="ts">
/** What the sketch page shows of the baselines. */
export type Side = 'map' | 'epochs' | 'residuals' | 'sky';
const side = defineModel<Side>({ required: true });
</script>

<template>
  <ElRadioGroup v-model="side" size="small" aria-label="View">
    <ElRadioButton value="map">Map</ElRadioButton>
    <ElRadioButton value="epochs" data-test="view-epochs">Epochs</ElRadioButton>
    <ElRadioButton value="residuals" data-test="view-residuals">Residuals</ElRadioButton>
    <ElRadioButton value="sky" data-test="view-sky">Satellites</ElRadioButton>
  </ElRadioGroup>
</template>

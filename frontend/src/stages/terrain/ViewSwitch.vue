<script setup lang="ts">
/** The surface in plan, or in space. */
const view = defineModel<'map' | '3d'>({ required: true });
</script>

<template>
  <ElRadioGroup v-model="view" size="small" aria-label="View">
    <ElRadioButton value="map">Map</ElRadioButton>
    <ElRadioButton value="3d" data-test="view-3d">3D</ElRadioButton>
  </ElRadioGroup>
</template>

<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useProject } from '../../state/project';
import type { Offer } from './ownSystem';

/** The project's projection scaled to the ground at one of its marks. */
const emit = defineEmits<{ offer: [offer: Offer | null] }>();
const project = useProject();
const point = ref('');
const marks = computed(() => project.points.filter((p) => p.known === 'global' && p.e !== null && p.h !== null && p.role !== 'surveyed'));
watch(point, () => emit('offer', point.value === '' ? null : { path: '/reference/ground', body: { point: point.value } }), {
  immediate: true,
});
</script>

<template>
  <p class="quiet">The project’s projection scaled by the inverse of the combined factor at one point; that point keeps its coordinates.</p>
  <ElFormItem class="field half" label="about the point"
    ><ElSelect v-model="point" filterable placeholder="choose" data-test="own-point">
      <ElOption v-for="p in marks" :key="p.name" :value="p.name" :label="p.name" /> </ElSelect
  ></ElFormItem>
</template>

<style scoped>
.half {
  width: 260px;
}
</style>

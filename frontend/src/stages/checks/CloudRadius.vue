<script setup lang="ts">
import { computed } from 'vue';
import type { CloudFileView } from '../../api/types';
import NumberInput from '../../fields/NumberInput.vue';
import { lengthUnit, metresPer } from '../../format/units';
import { useProject } from '../../state/project';

/** A point cloud that is compared with, and how wide the planes are that are fitted through it. */
defineProps<{ clouds: CloudFileView[] }>();
const cloud = defineModel<number>('cloud', { required: true });
const radius = defineModel<number | null>('radius', { required: true });
const project = useProject();
const units = computed(() => project.units);
</script>

<template>
  <div class="grid">
    <ElFormItem label="point cloud"
      ><ElSelect v-model="cloud" aria-label="Point cloud" placeholder="none is here"
        ><ElOption v-for="c in clouds" :key="c.id" :value="c.id" :label="`${c.name}, ${c.points} points`" /></ElSelect
    ></ElFormItem>
    <NumberInput
      v-model="radius"
      label="planes within"
      :unit="lengthUnit(units)"
      :factor="metresPer(units)"
      :digits="3"
      placeholder="three spacings"
    />
  </div>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 16px;
}
</style>

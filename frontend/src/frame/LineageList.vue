<script setup lang="ts">
import { ref, watch } from 'vue';
import { get } from '../api/client';
import type { LineageView } from '../api/types';
import { useProject } from '../state/project';
import RemarkList from './RemarkList.vue';

const props = defineProps<{ place: string }>();
const project = useProject();
const steps = ref<LineageView[] | null>(null);

async function show() {
  steps.value = steps.value === null ? await get<LineageView[]>(project.path(`/lineage/${encodeURIComponent(props.place)}`)) : null;
}

watch([() => props.place, () => project.version], () => (steps.value = null));
</script>

<template>
  <div>
    <ElButton link type="primary" data-test="lineage" :aria-expanded="steps !== null" @click="show">
      {{ steps === null ? 'What it rests on' : 'Hide what it rests on' }}
    </ElButton>
    <ol v-if="steps !== null">
      <li v-for="(s, i) in steps" :key="i" :style="{ paddingLeft: `${16 * s.depth}px` }">
        <span v-if="s.stale" class="doubt">◐ stale </span>{{ s.text }}
      </li>
    </ol>
    <RemarkList :about="place" />
  </div>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
  font-size: 12px;
}
</style>

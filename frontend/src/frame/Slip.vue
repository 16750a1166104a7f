<script setup lang="ts">
import { useProject } from '../state/project';

defineProps<{ tone?: 'plain' | 'bad' | 'doubt' }>();
const project = useProject();
</script>

<template>
  <aside v-if="project.slipOpen" class="slip" :class="tone && `tone-${tone}`" aria-label="Slip">
    <ElButton text class="close" aria-label="Close the slip (Space)" @click="project.slipOpen = false">×</ElButton>
    <slot />
  </aside>
</template>

<style scoped>
.slip {
  position: relative;
  flex: none;
  margin: 0 0 12px;
  padding: 9px 14px 11px;
  background: var(--page);
  border: 1px solid var(--rule);
  border-top: 3px solid var(--cobalt);
  box-shadow: var(--shadow);
  display: grid;
  gap: 6px;
  max-height: 46%;
  overflow: auto;
}
.slip.tone-bad {
  border-top-color: var(--vermilion);
}
.slip.tone-doubt {
  border-top-color: var(--ochre);
}
.slip > :deep(:nth-child(2)) {
  padding-right: 22px;
}
.slip :deep(strong),
.slip :deep(.mono) {
  margin-right: 6px;
}
.close {
  position: absolute;
  right: 10px;
  top: 4px;
  font-size: 18px;
}
</style>

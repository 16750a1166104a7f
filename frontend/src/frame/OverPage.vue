<script setup lang="ts">
import { useProject } from '../state/project';

/** A page laid over the right side; what lies beside it stays in reach. */
defineProps<{ title: string }>();
const project = useProject();
</script>

<template>
  <ElDrawer
    :model-value="true"
    :title="title"
    size="min(48%, 620px)"
    class="over"
    :modal="false"
    modal-penetrable
    :lock-scroll="false"
    :show-close="false"
    @close="project.panel = null"
  >
    <template #header="{ titleId }">
      <h2 :id="titleId">{{ title }}</h2>
      <span class="spacer" />
      <slot name="actions" />
      <ElButton link type="primary" @click="project.panel = null">close</ElButton>
    </template>
    <slot />
  </ElDrawer>
</template>

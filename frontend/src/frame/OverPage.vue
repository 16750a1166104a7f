<script setup lang="ts">
import { useProject } from '../state/project';

defineProps<{ title: string }>();
const project = useProject();
</script>

<template>
  <aside class="over" :aria-label="title">
    <header>
      <h2>{{ title }}</h2>
      <span class="spacer" />
      <slot name="actions" />
      <button class="link" @click="project.panel = null">close</button>
    </header>
    <div class="scroll"><slot /></div>
  </aside>
</template>

<style scoped>
.over {
  position: absolute;
  z-index: 20;
  top: 120px;
  right: 0;
  bottom: 0;
  width: min(48%, 620px);
  background: var(--page);
  border-left: 1px solid var(--rule-strong);
  box-shadow: var(--shadow);
  display: flex;
  flex-direction: column;
}
header {
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 12px 18px 8px;
  border-bottom: 1px solid var(--rule);
}
.scroll {
  flex: 1;
  padding: 8px 18px 18px;
}
</style>

<script setup lang="ts">
import { useProject } from '../state/project';

/** A page that asks what is wanted: its fields, what is missing still, and the two ways out. */
defineProps<{ title: string; button: string; missing: string; test: string }>();
const emit = defineEmits<{ save: []; cancel: [] }>();
const project = useProject();
</script>

<template>
  <form class="form" @submit.prevent="emit('save')">
    <h1>{{ title }}</h1>
    <slot />
    <div class="line">
      <ElButton type="primary" native-type="submit" :data-test="test" :disabled="!project.mayChange || missing !== ''">{{
        button
      }}</ElButton>
      <ElButton @click="emit('cancel')">Cancel</ElButton>
      <span class="doubt">{{ missing }}</span>
    </div>
  </form>
</template>

<style scoped>
.form {
  display: flex;
  flex-direction: column;
  gap: 6px;
}
.form :slotted(.grid) {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 16px;
}
.line {
  display: flex;
  gap: 8px;
  align-items: center;
}
.line .el-button + .el-button {
  margin-left: 0;
}
</style>

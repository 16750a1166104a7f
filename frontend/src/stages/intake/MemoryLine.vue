<script setup lang="ts">
import { ref } from 'vue';
import { put, remove } from '../../api/client';
import type { LabelRequest, MemoryView } from '../../api/types';
import { useProject } from '../../state/project';

/** Says that a file is read as another one with the same headings was; that can be renamed, or forgotten. */
const props = defineProps<{ memory: MemoryView }>();
const emit = defineEmits<{ changed: [] }>();
const project = useProject();
const label = ref<string | null>(null);
const path = () => project.path(`/intake/memories/${props.memory.id}`);

async function rename() {
  const text = label.value ?? '';
  if (await project.attempt(() => put(path(), { label: text } satisfies LabelRequest))) {
    label.value = null;
    emit('changed');
  }
}

async function forget() {
  if (await project.attempt(() => remove(path()), 'Forgotten. This file stays as it is read now.')) emit('changed');
}
</script>

<template>
  <form class="memory" data-test="memory" @submit.prevent="rename">
    <template v-if="label === null">
      <span
        ><span class="holds">✓</span> Read as remembered: <strong>{{ memory.label }}</strong>
        <span class="quiet">by {{ memory.author }}, for files with these headings</span></span
      >
      <ElButton link type="primary" :disabled="!project.mayChange" @click="label = memory.label">rename</ElButton>
      <ElButton link type="primary" :disabled="!project.mayChange" data-test="forget" @click="forget">forget</ElButton>
    </template>
    <template v-else>
      <ElInput v-model="label" size="small" maxlength="80" aria-label="Name of the mapping" />
      <ElButton size="small" type="primary" native-type="submit" :disabled="label.trim() === ''">Rename</ElButton>
      <ElButton size="small" @click="label = null">Leave it</ElButton>
    </template>
  </form>
</template>

<style scoped>
.memory {
  display: flex;
  gap: 10px;
  align-items: baseline;
}
</style>

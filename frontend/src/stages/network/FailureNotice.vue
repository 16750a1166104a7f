<script setup lang="ts">
import { computed } from 'vue';
import { post, put } from '../../api/client';
import type { HoldRequest, JobView, NetworkView, SettingsRequest } from '../../api/types';
import { useProject } from '../../state/project';

/** Why the network could not be adjusted, and what mends it. */
const props = defineProps<{ job: JobView; network: NetworkView }>();
const emit = defineEmits<{ adjust: []; close: [] }>();
const project = useProject();
const isDefect = computed(() => props.job.outcome?.fault === 'datum-defect');
const marks = computed(() =>
  isDefect.value ? project.points.filter((p) => p.role === 'control' && p.givenE !== null && p.givenN !== null).map((p) => p.name) : [],
);
const holds = computed(() =>
  marks.value.length > 4
    ? `Hold the ${marks.value.length} control marks`
    : `Hold ${marks.value.slice(0, -1).join(', ')}${marks.value.length > 1 ? ' and ' : ''}${marks.value.at(-1)}`,
);

async function hold() {
  if (await project.attempt(() => post(project.path('/control/hold'), { points: marks.value } satisfies HoldRequest))) emit('adjust');
}

async function free() {
  const values = { ...props.network.settings, free: true } satisfies SettingsRequest;
  if (await project.attempt(() => put(project.path('/network/settings'), values, props.network.settingsVersion))) emit('adjust');
}
</script>

<template>
  <ElAlert type="error" :closable="false" data-test="failure">
    <span class="words">{{ job.title }} failed. {{ job.error }}</span>
    <template v-if="isDefect">
      <ElButton v-if="marks.length > 0" type="primary" plain data-test="remedy-hold" :disabled="!project.mayChange" @click="hold">{{
        holds
      }}</ElButton>
      <ElButton v-if="!network.settings.free" data-test="remedy-free" :disabled="!project.mayChange" @click="free">Adjust free</ElButton>
    </template>
    <ElButton link type="primary" @click="emit('close')">close</ElButton>
  </ElAlert>
</template>

<style scoped>
.words {
  flex: 1 1 100%;
}
</style>

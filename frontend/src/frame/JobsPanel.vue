<script setup lang="ts">
import { post } from '../api/client';
import { useProject } from '../state/project';
import OverPage from './OverPage.vue';

const project = useProject();
const cancel = (id: string) => project.attempt(() => post(project.path(`/jobs/${id}/cancel`)));
</script>

<template>
  <OverPage title="Jobs">
    <p v-if="!project.overview?.jobs.length" class="quiet">No job has run yet.</p>
    <div v-for="j in project.overview?.jobs" :key="j.id" class="job">
      <strong>{{ j.title }}</strong>
      <span :class="{ fails: j.state === 'failed', holds: j.state === 'done', quiet: j.state === 'cancelled' }">{{ j.state }}</span>
      <span class="quiet">{{
        j.state === 'running'
          ? `${j.stage}, ${Math.round(100 * j.progress)} %${j.secondsLeft === null ? '' : `, about ${Math.ceil(j.secondsLeft)} s left`}`
          : ''
      }}</span>
      <ElButton v-if="j.state === 'queued' || j.state === 'running'" link type="primary" @click="cancel(j.id)">cancel</ElButton>
      <p v-if="j.error" class="fails">{{ j.error }}</p>
    </div>
  </OverPage>
</template>

<style scoped>
.job {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  padding: 7px 0;
  border-bottom: 1px solid var(--rule);
}
.job p {
  width: 100%;
}
</style>

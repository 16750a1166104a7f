<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import type { RowView, SuspectView } from '../../api/types';
import { angle } from '../../format/units';
import Slip from '../../frame/Slip.vue';
import { useProject } from '../../state/project';
import { sizeOf } from './suspects';

/** One cause: what it says, and the two ways to act on it. */
const props = defineProps<{ suspect: SuspectView; source: string; touched: RowView[] }>();
const emit = defineEmits<{ accept: [reason: string]; aside: [reason: string]; mark: [name: string] }>();
const project = useProject();
const reason = ref('');
/** What would have been read; angles in the project's own form. */
const suggests = computed(() => {
  const s = props.suspect;
  if (s.quantity !== 'angle' || s.estimate === null) return s.suggests;
  const one = props.touched.length === 1 ? props.touched[0]! : null;
  return one ? `${angle((one.observed + s.estimate + 360) % 360, project.units)} for ${angle(one.observed, project.units)}` : null;
});
watch(
  () => props.suspect.words,
  () => (reason.value = ''),
);
</script>

<template>
  <Slip tone="bad">
    <div>
      <strong>{{ suspect.words }}</strong> <span class="quiet mono">{{ source }}</span>
    </div>
    <div>
      <template v-if="suggests"
        >{{ suggests }}<span v-if="suspect.estimate !== null"> ({{ sizeOf(suspect, project.units) }})</span>: </template
      ><template v-else-if="suspect.estimate !== null">{{ sizeOf(suspect, project.units) }}: </template> with it the variance factor is
      {{ suspect.factorAfter?.toFixed(2) ?? '—' }}.
      <template v-if="suspect.changes.length > 0">The file keeps what it says; the correction stands beside it, with your name.</template>
      <template v-else-if="suspect.station">The mark’s coordinates are control: edit or free them on the Control page.</template>
      <template v-else>It lies in no single value: set the setup’s sights aside, or measure them again.</template>
    </div>
    <div class="actions">
      <ElInput v-model="reason" class="reason" placeholder="reason, for the report" aria-label="Reason" :disabled="!project.mayChange" />
      <ElButton
        v-if="suspect.changes.length > 0"
        type="primary"
        data-test="accept-suspect"
        :disabled="!project.mayChange"
        @click="emit('accept', reason)"
        >Correct and compare</ElButton
      ><kbd v-if="suspect.changes.length > 0">c</kbd>
      <ElButton v-if="suspect.station" type="primary" @click="emit('mark', suspect.station)">Show the mark</ElButton>
      <ElButton v-else data-test="aside-suspect" :disabled="!project.mayChange" @click="emit('aside', reason)">Set aside instead</ElButton>
    </div>
  </Slip>
</template>

<style scoped>
.actions {
  display: flex;
  gap: 8px;
  align-items: center;
}
.reason {
  max-width: 190px;
}
</style>

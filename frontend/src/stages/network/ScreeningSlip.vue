<script setup lang="ts">
import type { ScreenedView } from '../../api/types';
import Slip from '../../frame/Slip.vue';
import { signed } from '../../format/units';

/** What screening proposes to set aside; the surveyor decides. */
defineProps<{ proposals: ScreenedView[] }>();
const emit = defineEmits<{ accept: []; leave: [] }>();
</script>

<template>
  <Slip tone="doubt">
    <strong>{{
      proposals.length === 0
        ? 'Screening proposes nothing: no standardized residual exceeds 3.29.'
        : `Screening proposes to set aside ${proposals.length}, one pass after another:`
    }}</strong>
    <div v-for="p in proposals" :key="p.pass" class="mono">{{ p.pass }}. {{ p.text }} {{ signed(p.standardized.toFixed(1)) }}</div>
    <div class="actions">
      <ElButton v-if="proposals.length > 0" type="primary" @click="emit('accept')">Set them aside and compare</ElButton
      ><ElButton @click="emit('leave')">Leave it</ElButton>
    </div>
  </Slip>
</template>

<style scoped>
.actions {
  display: flex;
  gap: 8px;
  align-items: center;
}
</style>

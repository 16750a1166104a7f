<script setup lang="ts">
import { ref } from 'vue';
import type { ScreenedView } from '../../api/types';
import Slip from '../../frame/Slip.vue';
import { signed } from '../../format/units';

/** What screening proposes to set aside; the surveyor decides. */
const props = defineProps<{ proposals: ScreenedView[]; limit: number; most: number | null; disabled: boolean }>();
const emit = defineEmits<{ accept: []; leave: []; again: [limit: number, most: number | null] }>();
const limit = ref<number | undefined>(props.limit);
const most = ref<number | undefined>(props.most ?? undefined);
</script>

<template>
  <Slip tone="doubt">
    <strong>{{
      proposals.length === 0
        ? `Screening proposes nothing: no standardized residual exceeds ${limit}.`
        : `Screening proposes to set aside ${proposals.length}, one pass after another:`
    }}</strong>
    <div v-for="p in proposals" :key="p.pass" class="mono">{{ p.pass }}. {{ p.text }} {{ signed(p.standardized.toFixed(1)) }}</div>
    <div class="actions">
      <ElButton v-if="proposals.length > 0" type="primary" @click="emit('accept')">Set them aside and compare</ElButton
      ><ElButton @click="emit('leave')">Leave it</ElButton>
      <span class="spacer" />
      <span class="quiet">above</span>
      <ElInputNumber
        v-model="limit"
        :min="2"
        :max="20"
        :step="0.1"
        :precision="2"
        size="small"
        controls-position="right"
        aria-label="Limit of the standardized residual"
      />
      <span class="quiet">at most</span>
      <ElInputNumber
        v-model="most"
        :min="1"
        :max="1000"
        size="small"
        controls-position="right"
        placeholder="all"
        aria-label="Removals at most"
      />
      <ElButton size="small" data-test="screen-again" :disabled="disabled" @click="emit('again', limit ?? 3.29, most ?? null)"
        >Again</ElButton
      >
    </div>
  </Slip>
</template>

<style scoped>
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 8px;
  align-items: center;
}
.actions .el-input-number {
  width: 84px;
}
.actions .quiet {
  white-space: nowrap;
}
</style>

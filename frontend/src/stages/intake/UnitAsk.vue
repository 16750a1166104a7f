<script setup lang="ts">
import type { UnitAskView } from '../../api/types';
import { unitName } from '../../format/units';

/** One question for every column that says nothing of its unit; the likely answer is one press away. */
defineProps<{ ask: UnitAskView; disabled?: boolean }>();
const emit = defineEmits<{ answer: [unit: string] }>();
</script>

<template>
  <ElAlert type="warning" :closable="false" data-test="ask-unit">
    <strong class="doubt">?</strong>
    <span class="words"
      >{{ ask.text }} <span class="quiet">Likely {{ unitName(ask.offer) }}: {{ ask.why }}.</span></span
    >
    <ElButton type="primary" plain size="small" data-test="take-unit" :disabled="disabled" @click="emit('answer', ask.offer)">{{
      unitName(ask.offer)
    }}</ElButton>
    <ElSelect
      class="others asked"
      size="small"
      placeholder="another"
      :aria-label="ask.text"
      :disabled="disabled"
      @change="(u: string) => emit('answer', u)"
    >
      <ElOption v-for="u in ask.units.filter((x) => x !== ask.offer)" :key="u" :value="u" :label="unitName(u)" />
    </ElSelect>
  </ElAlert>
</template>

<style scoped>
.words {
  flex: 1 1 240px;
}
.others {
  width: 130px;
}
</style>

<script setup lang="ts">
import { computed } from 'vue';
import { GLOSSARY } from './glossary';

/** A word of the trade or of ours; what it means shows when it is pointed at or reached by the keyboard. */
const props = defineProps<{ word: string }>();
const meaning = computed(() => GLOSSARY.get(props.word.toLowerCase()));
</script>

<template>
  <ElTooltip v-if="meaning" :content="`${word}: ${meaning}`" placement="top" :show-after="300" :enterable="false">
    <span class="term" tabindex="0"
      ><slot>{{ word }}</slot></span
    >
  </ElTooltip>
  <slot v-else>{{ word }}</slot>
</template>

<style scoped>
.term {
  text-decoration: underline dotted var(--rule-strong);
  text-underline-offset: 3px;
}
</style>

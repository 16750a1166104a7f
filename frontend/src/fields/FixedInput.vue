<script setup lang="ts">
import NumberInput from './NumberInput.vue';

/** A number that is never missing: while nothing is typed the last one stays. */
const value = defineModel<number>({ required: true });
withDefaults(defineProps<{ label: string; unit?: string; digits?: number }>(), { unit: '', digits: 1 });
</script>

<template>
  <NumberInput
    :model-value="value"
    :label="label"
    :unit="unit"
    :digits="digits"
    @update:model-value="(v: number | null) => v !== null && (value = v)"
  />
</template>

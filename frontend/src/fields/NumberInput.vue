<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { readNumber } from '../format/angles';

const props = withDefaults(
  defineProps<{
    modelValue: number | null;
    label: string;
    unit?: string;
    factor?: number;
    digits?: number;
    placeholder?: string;
    id?: string;
    disabled?: boolean;
  }>(),
  { unit: '', factor: 1, digits: 5, placeholder: '', id: undefined },
);
const emit = defineEmits<{ 'update:modelValue': [value: number | null]; problem: [text: string] }>();
const text = ref(props.modelValue === null ? '' : plain(props.modelValue));
const reading = computed(() => readNumber(text.value, props.unit));

function plain(value: number): string {
  return String(Number((value / props.factor).toFixed(props.digits)));
}

function typed() {
  emit('update:modelValue', reading.value.value === null ? null : reading.value.value * props.factor);
  emit('problem', reading.value.problem);
}

watch(
  () => props.modelValue,
  (value) => {
    const now = reading.value.value === null ? null : reading.value.value * props.factor;
    if (value !== now && !(value === null && reading.value.problem !== '')) text.value = value === null ? '' : plain(value);
  },
);
</script>

<template>
  <ElFormItem class="field" :label="`${label}${unit ? ` ${unit}` : ''}`"
    ><ElInput
      :id="id"
      v-model="text"
      class="mono"
      inputmode="decimal"
      autocomplete="off"
      :placeholder="placeholder"
      :disabled="disabled"
      :aria-invalid="reading.problem !== ''"
      @input="typed"
    />
    <span class="read" :class="reading.problem ? 'fails' : 'quiet'">{{ reading.problem || reading.said || '\u00a0' }}</span></ElFormItem
  >
</template>

<style scoped>
.read {
  font-size: 11px;
  line-height: 1.3;
  font-weight: 400;
  text-align: right;
}
</style>

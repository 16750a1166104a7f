<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { type AngleKind, readAngle, sayAngle, sideHint } from '../format/angles';

const props = withDefaults(
  defineProps<{ modelValue: number | null; label: string; kind: AngleKind; extent?: number[] | null; id?: string }>(),
  {
    extent: null,
    id: undefined,
  },
);
const emit = defineEmits<{ 'update:modelValue': [value: number | null]; problem: [text: string] }>();
const text = ref(props.modelValue === null ? '' : plain(props.modelValue));
const reading = computed(() => readAngle(text.value, props.kind));
const hint = computed(() => sideHint(reading.value.value, props.kind, props.extent));

function plain(value: number): string {
  return String(Number(value.toFixed(9)));
}

function typed() {
  emit('update:modelValue', reading.value.value);
  emit('problem', reading.value.problem);
}

function other(value: number) {
  text.value = sayAngle(value, props.kind, 4);
  typed();
}

// A value given from outside replaces what was typed, unless it is what was typed.
watch(
  () => props.modelValue,
  (value) => {
    if (value !== reading.value.value && !(value === null && reading.value.problem !== '')) text.value = value === null ? '' : plain(value);
  },
);
</script>

<template>
  <ElFormItem class="field" :label="label"
    ><ElInput
      :id="id"
      v-model="text"
      class="mono"
      autocomplete="off"
      spellcheck="false"
      :aria-invalid="reading.problem !== ''"
      placeholder="39 05 30 N or 39.0917"
      @input="typed"
    />
    <span v-if="reading.problem" class="read fails" role="alert">{{ reading.problem }}</span>
    <span v-else-if="hint" class="read doubt"
      >{{ hint.text
      }}<ElButton v-if="hint.instead !== null" link type="primary" @click.prevent="other(hint.instead)">Read it so</ElButton></span
    >
    <span v-else class="read quiet">{{ reading.said || '\u00a0' }}</span></ElFormItem
  >
</template>

<style scoped>
.read {
  font-size: 11px;
  line-height: 1.3;
  font-weight: 400;
}
.link {
  margin-left: 6px;
  font-size: 11px;
}
</style>

<script setup lang="ts">
import { ref } from 'vue';

/** Chooses a point by its name, out of any number of them. */
const props = defineProps<{ names: string[]; label: string; test: string }>();
const name = defineModel<string>({ required: true });
const found = ref<string[]>([]);

/** Names that begin as typed come first; a list longer than this helps nobody. */
function find(typed: string) {
  const word = typed.toLowerCase();
  const has = props.names.filter((n) => n.toLowerCase().includes(word));
  const begins = has.filter((n) => n.toLowerCase().startsWith(word));
  found.value = [...new Set([...begins, ...has])].slice(0, 50);
}
</script>

<template>
  <ElFormItem class="field" :label="label"
    ><ElSelect
      v-model="name"
      filterable
      remote
      :remote-method="find"
      remote-show-suffix
      default-first-option
      clearable
      value-on-clear=""
      placeholder="type a name"
      :data-test="test"
      @visible-change="(open: boolean) => open && find('')"
    >
      <ElOption v-for="n in found" :key="n" :value="n" :label="n" /> </ElSelect
  ></ElFormItem>
</template>

<script setup lang="ts">
import { onMounted, ref } from 'vue';
import { get } from '../api/client';
import type { SystemHit } from '../api/types';

/** Chooses a system by words or code; `path` is where it is searched. */
const props = defineProps<{ modelValue: string; path: string; label: string; id: string; also?: { value: string; label: string }[] }>();
const emit = defineEmits<{ 'update:modelValue': [value: string] }>();
const hits = ref<SystemHit[]>([]);

async function search(text: string) {
  hits.value = await get<SystemHit[]>(`${props.path}?q=${encodeURIComponent(text)}`).catch(() => []);
}
onMounted(() => search(/^EPSG:\d+$/.test(props.modelValue) ? props.modelValue : ''));
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <ElSelect
      :id="id"
      :model-value="modelValue"
      filterable
      remote
      :remote-method="search"
      placeholder="type a code or zone, such as utm 30"
      @update:model-value="(v: string) => emit('update:modelValue', v)"
    >
      <ElOption v-for="a in also ?? []" :key="a.value" :value="a.value" :label="a.label" />
      <ElOption v-for="s in hits" :key="s.reference" :value="s.reference" :label="`${s.reference}  ${s.name}`" />
    </ElSelect>
  </div>
</template>

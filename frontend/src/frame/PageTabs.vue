<script setup lang="ts" generic="Key extends string">
/** The pages of a stage by name; what stands to their right is handed in. */
defineProps<{ modelValue: Key; tabs: readonly (readonly [Key, string])[]; label: string; test?: string }>();
const emit = defineEmits<{ 'update:modelValue': [key: Key] }>();
</script>

<template>
  <div class="page-tabs">
    <ElTabs :model-value="modelValue" :aria-label="label" @update:model-value="emit('update:modelValue', $event as Key)">
      <ElTabPane v-for="[key, text] in tabs" :key="key" :name="key" :label="text">
        <template #label
          ><span :data-test="`${test ?? 'tab'}-${key}`">{{ text }}</span></template
        >
      </ElTabPane>
    </ElTabs>
    <slot />
  </div>
</template>

<style scoped>
.page-tabs {
  display: flex;
  gap: 12px;
  align-items: center;
  border-top: 1px solid var(--rule);
  padding-top: 4px;
}
.el-tabs {
  flex: 1;
  min-width: 0;
}
.el-tabs :deep(.el-tabs__content) {
  display: none;
}
</style>

<script setup lang="ts">
/** What a page says while it holds nothing: what it is for, and the next step. */
defineProps<{ title: string }>();
</script>

<template>
  <ElEmpty class="empty-page">
    <template #image>
      <svg viewBox="0 0 150 40" width="150" height="40" aria-hidden="true">
        <polyline points="6,30 44,12 84,26 122,9 144,20" />
        <circle
          v-for="[x, y] in [
            [6, 30],
            [44, 12],
            [84, 26],
            [122, 9],
            [144, 20],
          ]"
          :key="x"
          :cx="x"
          :cy="y"
          r="3.5"
        />
      </svg>
    </template>
    <template #description
      ><h1>{{ title }}</h1></template
    >
    <div class="words"><slot /></div>
  </ElEmpty>
</template>

<style scoped>
.empty-page {
  --el-empty-image-width: 150px;
}
svg {
  width: 150px;
  fill: var(--paper);
  stroke: var(--rule-strong);
  stroke-width: 1.4;
}
polyline {
  fill: none;
}
.words {
  display: grid;
  gap: 10px;
  max-width: 60ch;
}
</style>

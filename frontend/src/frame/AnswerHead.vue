<script setup lang="ts">
/** What a page says first: the words, and beside them what can be done about it. */
</script>

<template>
  <header class="answer">
    <div class="words"><slot /></div>
    <div class="actions"><slot name="actions" /></div>
  </header>
</template>

<style scoped>
.answer {
  display: flex;
  gap: 14px;
  align-items: flex-start;
}
.words {
  flex: 1;
  min-width: 0;
}
.words :slotted(p) {
  margin: 0 0 2px;
}
.actions {
  display: grid;
  gap: 5px;
  flex: none;
}
.actions :slotted(.el-button) {
  margin: 0;
}
</style>

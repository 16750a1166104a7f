<script setup lang="ts">
/** The case of a field controller: a small screen, large keys under it, and what leads the rover below. */
defineProps<{ label: string }>();
</script>

<template>
  <div class="stand">
    <div class="device" role="group" :aria-label="label">
      <div class="screen"><slot /></div>
      <div class="keys"><slot name="keys" /></div>
    </div>
    <p class="quiet"><slot name="hint" /></p>
  </div>
</template>

<style scoped>
.stand {
  height: 100%;
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 6px;
  padding: 8px;
  overflow: auto;
  background: var(--paper);
}
.device {
  flex: 0 1 610px;
  min-height: 450px;
  width: min(420px, 100%);
  display: flex;
  flex-direction: column;
  gap: 10px;
  padding: 14px;
  border-radius: 18px;
  background: #2b313b;
}
.screen {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
  background: var(--page);
}
.keys {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 8px;
}
.keys :slotted(.el-button) {
  height: 40px;
  margin: 0;
  font-size: 15px;
  font-weight: 600;
}
</style>

<template>
  <div class="loading" role="status">
    <span class="quiet">Loading…</span>
    <ElSkeleton :rows="6" animated />
  </div>
</template>

<style scoped>
.loading {
  padding: 24px;
  display: grid;
  gap: 12px;
}
</style>

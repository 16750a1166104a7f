<template>
  <p class="loading quiet" role="status">Loading…</p>
</template>

<style scoped>
.loading {
  display: grid;
  place-content: center;
  height: 100%;
  min-height: 80px;
  margin: 0;
}
</style>

<script setup lang="ts">
const again = () => window.location.reload();
</script>

<template>
  <main class="not-loaded">
    <h1>This page could not be loaded</h1>
    <p>The server did not answer, or has a newer version of Mensura. Nothing you saved is lost.</p>
    <ElButton type="primary" plain @click="again">Load again</ElButton>
  </main>
</template>

<style scoped>
.not-loaded {
  margin: 40px;
}
</style>

<script setup lang="ts">
/** An empty text is an answer in many of our lists ("none", "not held"); only nothing at all is empty. */
const EMPTY = [null, undefined];
</script>

<template>
  <ElConfigProvider :empty-values="EMPTY"><router-view /></ElConfigProvider>
</template>

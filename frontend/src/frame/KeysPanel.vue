<script setup lang="ts">
import { KEYS } from './keys';
import OverPage from './OverPage.vue';
</script>

<template>
  <OverPage title="Keys">
    <dl>
      <template v-for="[k, t] in KEYS" :key="k">
        <dt>
          <kbd>{{ k }}</kbd>
        </dt>
        <dd>{{ t }}</dd>
      </template>
    </dl>
  </OverPage>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 90px 1fr;
  gap: 8px;
}
dd {
  margin: 0;
}
</style>

<script setup lang="ts">
import { computed } from 'vue';
import { KEYS } from '../frame/keys';
import OverPage from '../frame/OverPage.vue';
import { VIEWS } from './views';

const props = defineProps<{ stage: string }>();
const view = computed(() => VIEWS[props.stage]);
const DOCS = [
  ['numerics', 'Models and formulas'],
  ['formats', 'Files read and written'],
  ['glossary', 'Words'],
] as const;
</script>

<template>
  <OverPage title="Help and keys">
    <section v-if="view" aria-label="What this view is for">
      <h3>{{ view.title }}</h3>
      <ul>
        <li v-for="line in view.lines" :key="line">{{ line }}</li>
      </ul>
      <p>
        <router-link class="link" target="_blank" :to="`/docs/${view.doc[0]}#${view.doc[1]}`">More on {{ view.title }}</router-link>
      </p>
    </section>
    <p class="docs">
      <router-link v-for="[page, title] in DOCS" :key="page" class="link" target="_blank" :to="`/docs/${page}`">{{ title }}</router-link>
    </p>
    <h3>Keys</h3>
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
ul {
  margin: 6px 0 8px;
  padding-left: 18px;
}
li {
  margin-bottom: 3px;
}
.docs {
  display: flex;
  gap: 18px;
  margin: 10px 0 14px;
}
dl {
  display: grid;
  grid-template-columns: 90px 1fr;
  gap: 8px;
  margin: 8px 0;
}
dd {
  margin: 0;
}
</style>

<script setup lang="ts">
import { marked } from 'marked';
import { computed, nextTick, onMounted, watch } from 'vue';
import { useRoute } from 'vue-router';

/** The documentation that ships with us; headings are reached by the first words of theirs. */
const pages = import.meta.glob<string>(['../../../docs/{numerics,formats,glossary}.md'], { query: '?raw', import: 'default', eager: true });
const TITLES = [
  ['numerics', 'Models and formulas'],
  ['formats', 'Files read and written'],
  ['glossary', 'Words'],
] as const;
const route = useRoute();
const page = computed(() => String(route.params.page));
const html = computed(() => marked.parse(pages[`../../../docs/${page.value}.md`] ?? '# There is no such page', { async: false }));

function named(): HTMLElement | undefined {
  const wanted = decodeURIComponent(route.hash.slice(1)).toLowerCase();
  const plain = (e: Element) => (e.textContent ?? '').toLowerCase().replace(/[^a-z0-9]+/g, '-');
  return wanted === ''
    ? undefined
    : [...document.querySelectorAll<HTMLElement>('.docs h2, .docs h3')].find((h) => plain(h).startsWith(wanted));
}
const show = () => nextTick(() => named()?.scrollIntoView());
onMounted(show);
watch(() => route.fullPath, show);
</script>

<template>
  <div class="around">
    <nav aria-label="Pages">
      <router-link to="/" class="link">Mensura</router-link>
      <router-link v-for="[key, title] in TITLES" :key="key" :to="`/docs/${key}`" class="link" :class="{ here: key === page }">{{
        title
      }}</router-link>
    </nav>
    <!-- Our own pages, built in: nothing a person wrote is rendered here. -->
    <!-- eslint-disable-next-line vue/no-v-html -->
    <main class="docs" tabindex="0" v-html="html" />
  </div>
</template>

<style scoped>
.around {
  height: 100%;
  overflow: auto;
}
nav {
  display: flex;
  gap: 18px;
  padding: 12px 24px;
  border-bottom: 1px solid var(--rule);
}
.here {
  color: var(--ink);
  font-weight: 600;
}
.docs {
  max-width: 860px;
  padding: 18px 24px 60px;
  line-height: 1.55;
}
.docs :deep(h2) {
  margin: 24px 0 6px;
}
.docs :deep(:is(p, ul, pre, table)) {
  margin: 8px 0;
}
.docs :deep(table) {
  border-collapse: collapse;
}
.docs :deep(:is(td, th)) {
  text-align: left;
  vertical-align: top;
  padding: 3px 14px 3px 0;
  border-bottom: 1px solid var(--rule);
}
.docs :deep(pre) {
  overflow: auto;
}
</style>

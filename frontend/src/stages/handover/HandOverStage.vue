<script setup lang="ts">
import { ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import PageTabs from '../../frame/PageTabs.vue';
import CadPage from './CadPage.vue';
import CataloguePage from './CataloguePage.vue';
import FilesPage from './FilesPage.vue';
import GisPage from './GisPage.vue';
import PackagesPage from './PackagesPage.vue';
import SheetsPage from './SheetsPage.vue';

const PAGES = [
  ['files', 'Files'],
  ['drawings', 'Drawings'],
  ['packages', 'Packages'],
  ['sheets', 'Sheets'],
  ['gis', 'GIS'],
  ['catalogue', 'Catalogue'],
] as const;
type Page = (typeof PAGES)[number][0];
const route = useRoute();
const router = useRouter();
const known = (page: unknown): Page => PAGES.find(([key]) => key === page)?.[0] ?? 'files';
const page = ref<Page>(known(route.query.page));

watch(page, (now) => {
  void router.replace({ query: now === 'files' ? {} : { page: now } });
});
watch(
  () => route.query.page,
  (now) => (page.value = known(now)),
);
</script>

<template>
  <component
    :is="{ files: FilesPage, drawings: CadPage, packages: PackagesPage, sheets: SheetsPage, gis: GisPage, catalogue: CataloguePage }[page]"
  >
    <PageTabs v-model="page" class="first" :tabs="PAGES" label="Pages of the stage" test="page" />
  </component>
</template>

<style scoped>
.first {
  border-top: 0;
  padding-top: 0;
}
</style>

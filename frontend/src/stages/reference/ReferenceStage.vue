<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { get } from '../../api/client';
import type { ReferenceView } from '../../api/types';
import PageTabs from '../../frame/PageTabs.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { MapSketch } from '../../sketch';
import { pointsScene, type Scene } from '../../sketch/scene';
import { useProject } from '../../state/project';
import HeightsPage from './HeightsPage.vue';
import InversePage from './InversePage.vue';
import LocalizationPage from './LocalizationPage.vue';
import OwnSystemsPage from './OwnSystemsPage.vue';
import SystemPage from './SystemPage.vue';

const PAGES = [
  ['system', 'System'],
  ['own', 'Own systems'],
  ['heights', 'Heights'],
  ['localization', 'Localization'],
  ['inverse', 'Inverse'],
] as const;

const project = useProject();
const route = useRoute();
const router = useRouter();
const view = ref<ReferenceView | null>(null);
const overlay = ref<Partial<Scene> | null>(null);
const picked = ref('');
const page = computed(() => PAGES.find(([key]) => key === route.query.page)?.[0] ?? 'system');
const scene = computed<Scene>(() => ({ ...pointsScene(project.points), ...overlay.value }));
const overview = computed(() => project.overview!);
const heights = computed(() =>
  overview.value.heights === 'geoid'
    ? `Heights above the geoid ${overview.value.geoid}`
    : overview.value.heights === 'local'
      ? 'Local heights'
      : 'Ellipsoidal heights',
);

async function load() {
  view.value = await get<ReferenceView>(project.path('/reference'));
}
onMounted(load);
watch(() => project.version, load);
watch(page, () => (overlay.value = null));
</script>

<template>
  <TwoPages>
    <template #figures>
      <div class="sheet">
        <header>
          <h1>
            {{
              overview.reference === 'plane' ? 'Coordinates lie in a plane local system' : `Coordinates are in ${overview.referenceName}`
            }}
          </h1>
          <p v-if="view" class="facts">
            {{ heights }}.
            <template v-if="view.system">{{ view.system.gnss.charAt(0).toUpperCase() + view.system.gnss.slice(1) }}.</template>
            {{ ' '
            }}<span v-if="view.localPoints > 0 && view.system" class="doubt" data-test="local-points">
              {{ view.localPoints }} of {{ view.points }} points are known only locally.</span
            >
          </p>
        </header>
        <PageTabs
          :model-value="page"
          :tabs="PAGES"
          test="page"
          label="Pages of the reference"
          @update:model-value="(key) => router.replace({ query: { page: key } })"
        />
        <template v-if="view">
          <SystemPage v-if="page === 'system'" :view="view" @scene="(s) => (overlay = s)" />
          <OwnSystemsPage v-else-if="page === 'own'" :view="view" @scene="(s) => (overlay = s)" @changed="load" />
          <HeightsPage v-else-if="page === 'heights'" :view="view" :picked="picked" @scene="(s) => (overlay = s)" @changed="load" />
          <LocalizationPage v-else-if="page === 'localization'" :view="view" @scene="(s) => (overlay = s)" @changed="load" />
          <InversePage v-else :picked="picked" @scene="(s) => (overlay = s)" @picked="(name) => (picked = name)" />
        </template>
      </div>
    </template>
    <template #sketch>
      <MapSketch :scene="scene" :selected-points="new Set(picked ? [picked] : [])" @point="(name) => (picked = name)">
        <template v-if="page === 'inverse' || page === 'heights'" #corner><span class="quiet">click a point to take it</span></template>
      </MapSketch>
    </template>
  </TwoPages>
</template>

<style scoped>
.facts {
  margin-top: 2px;
}
</style>

<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { Problem } from '../api/client';
import { STAGES } from '../router';
import { screenOf } from '../stages';
import { useProject } from '../state/project';
import Course from './Course.vue';
import EmptyPage from './EmptyPage.vue';
import FootLine from './FootLine.vue';
import JobsPanel from './JobsPanel.vue';
import HelpPanel from '../help/HelpPanel.vue';
import ArchivePanel from './ArchivePanel.vue';
import PeoplePanel from './PeoplePanel.vue';
import Loading from './Loading.vue';
import LedgerPanel from './LedgerPanel.vue';
import SearchPanel from './SearchPanel.vue';
import TopLine from './TopLine.vue';
import UnitsPanel from './UnitsPanel.vue';
import { droppedFiles } from './dropped';
import { keepFocus } from './keepFocus';
import { isTyping } from './keys';

const route = useRoute();
const router = useRouter();
const project = useProject();
const failure = ref('');
const dragging = ref(false);
let depth = 0;

const stage = computed(() => String(route.params.stage));
const component = computed(() => screenOf(stage.value));

async function open() {
  failure.value = '';
  try {
    await project.open(Number(route.params.id));
  } catch (e) {
    failure.value = e instanceof Problem ? e.message : String(e);
  }
}

watch(() => route.params.id, open);

function key(event: KeyboardEvent) {
  if (event.key === 'Escape') {
    project.panel = null;
    return;
  }
  if (isTyping(event)) return;
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') {
    event.preventDefault();
    void (event.shiftKey ? project.redo() : project.undo());
    return;
  }
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  const digit = Number(event.key);
  if (digit >= 1 && digit <= 8) {
    void router.push(`/p/${project.id}/${STAGES[digit - 1]}`);
  } else if (event.key === '/') {
    event.preventDefault();
    project.panel = 'search';
  } else if (event.key === '?') {
    project.panel = 'keys';
  } else if (event.key === 'l') {
    project.panel = project.panel === 'ledger' ? null : 'ledger';
  } else if (event.key === 'f') {
    project.full = project.full === null ? (document.activeElement?.closest('.sketch-page') ? 'sketch' : 'figures') : null;
  } else if (event.key === '\\') {
    project.full = project.full === 'figures' ? 'sketch' : project.full === 'sketch' ? 'figures' : null;
    const inSketch = document.activeElement?.closest('.sketch-page');
    document.querySelector<HTMLElement>(inSketch ? '.figures-page [tabindex="0"]' : '.sketch-page [tabindex="0"]')?.focus();
  } else if (event.key === ' ' && !(event.target as HTMLElement).closest('button, a')) {
    event.preventDefault();
    project.slipOpen = !project.slipOpen;
  }
}

function enter(event: DragEvent) {
  if (event.dataTransfer?.types.includes('Files')) {
    depth += 1;
    dragging.value = true;
  }
}

function leave() {
  depth = Math.max(0, depth - 1);
  if (depth === 0) dragging.value = false;
}

async function drop(event: DragEvent) {
  depth = 0;
  dragging.value = false;
  const files = await droppedFiles(event.dataTransfer).catch((e) => {
    project.say('bad', `What was dropped cannot be read: ${String(e)}. Nothing was brought in; drop it again, or choose the files.`);
    return [];
  });
  if (files.length > 0) {
    project.dropped = files;
    void router.push(`/p/${project.id}/intake`);
  }
}

keepFocus();
onMounted(() => {
  void open();
  window.addEventListener('keydown', key);
});
onBeforeUnmount(() => {
  window.removeEventListener('keydown', key);
  project.close();
});
</script>

<template>
  <div class="book" @dragenter.prevent="enter" @dragover.prevent @dragleave="leave" @drop.prevent="drop">
    <template v-if="project.overview">
      <TopLine />
      <Course :stages="project.overview.stages" :here="stage" />
      <component :is="component" :key="`${project.id}-${stage}`" :stage="stage" />
      <FootLine />
      <LedgerPanel v-if="project.panel === 'ledger'" />
      <SearchPanel v-if="project.panel === 'search'" />
      <UnitsPanel v-if="project.panel === 'units'" />
      <HelpPanel v-if="project.panel === 'keys'" :stage="stage" />
      <JobsPanel v-if="project.panel === 'jobs'" />
      <PeoplePanel v-if="project.panel === 'people'" />
      <ArchivePanel v-if="project.panel === 'archive'" />
    </template>
    <main v-else-if="failure" class="failure">
      <EmptyPage title="This project cannot be opened">
        <p>{{ failure }}</p>
        <router-link class="link" to="/">Back to the projects</router-link>
      </EmptyPage>
    </main>
    <main v-else class="opening"><Loading /></main>
    <div v-if="dragging" class="drop">Drop to bring the files into Intake. Nothing is stored in the project before you accept it.</div>
  </div>
</template>

<style scoped>
.book {
  height: 100%;
  display: flex;
  flex-direction: column;
  position: relative;
}
@media (max-width: 900px) {
  .book {
    height: auto;
    min-height: 100%;
  }
}
.failure {
  margin: 40px;
}
.drop {
  position: absolute;
  inset: 12px;
  z-index: 40;
  display: grid;
  place-content: center;
  font-size: 17px;
  background: color-mix(in srgb, var(--cobalt-soft) 92%, transparent);
  border: 2px dashed var(--cobalt);
  border-radius: 6px;
  pointer-events: none;
}
</style>

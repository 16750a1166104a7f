<script setup lang="ts">
import { ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { get } from '../api/client';
import type { HitView } from '../api/types';
import { useProject } from '../state/project';

const project = useProject();
const router = useRouter();
const text = ref('');
const hits = ref<HitView[]>([]);
const at = ref(0);
const asking = ref(false);
let timer = 0;

const ACTIONS: HitView[] = [
  { kind: 'action', label: 'Adjust the network', detail: '', stage: 'network', key: 'adjust' },
  { kind: 'action', label: 'Recompute what is stale', detail: '', stage: '', key: 'recompute' },
  { kind: 'action', label: 'New surface', detail: '', stage: 'terrain', key: 'new-surface' },
  { kind: 'action', label: 'Bring files in', detail: '', stage: 'intake', key: 'files' },
  { kind: 'action', label: 'Write the adjustment report', detail: '', stage: 'handover', key: 'pdf' },
  { kind: 'action', label: 'Open the ledger', detail: '', stage: '', key: 'ledger' },
  { kind: 'action', label: 'Units', detail: '', stage: '', key: 'units' },
];

watch(text, () => {
  window.clearTimeout(timer);
  asking.value = true;
  timer = window.setTimeout(async () => {
    const words = text.value.toLowerCase();
    const actions = ACTIONS.filter((a) => words !== '' && a.label.toLowerCase().includes(words));
    const found = words === '' ? [] : await get<HitView[]>(project.path(`/search?q=${encodeURIComponent(text.value)}`));
    hits.value = [...found, ...actions];
    at.value = 0;
    asking.value = false;
  }, 120);
});

function go(hit: HitView | undefined) {
  if (!hit) return;
  project.panel = null;
  if (hit.key === 'recompute') return void project.recompute();
  if (hit.kind === 'action' && (hit.key === 'ledger' || hit.key === 'units')) {
    project.panel = hit.key;
    return;
  }
  void router.push({ path: `/p/${project.id}/${hit.stage}`, query: { [hit.kind]: hit.key } });
}

function key(event: Event | KeyboardEvent) {
  if (!(event instanceof KeyboardEvent)) return;
  if (event.key === 'ArrowDown') at.value = Math.min(hits.value.length - 1, at.value + 1);
  else if (event.key === 'ArrowUp') at.value = Math.max(0, at.value - 1);
  else if (event.key === 'Enter') go(hits.value[at.value]);
  else return;
  event.preventDefault();
}
</script>

<template>
  <ElDialog :model-value="true" title="Search" width="620" top="86px" class="search" @close="project.panel = null">
    <ElInput
      v-model="text"
      size="large"
      autofocus
      placeholder="point, file, observation, surface, report or action"
      aria-label="Search"
      aria-controls="search-hits"
      :aria-activedescendant="hits.length > 0 ? `hit-${at}` : undefined"
      @keydown="key"
    />
    <div id="search-hits" role="listbox" aria-label="Found">
      <div
        v-for="(h, i) in hits"
        :id="`hit-${i}`"
        :key="h.kind + h.key"
        role="option"
        class="hit"
        :aria-selected="i === at"
        :class="{ at: i === at }"
        @click="go(h)"
      >
        <span class="quiet kind">{{ h.kind }}</span><span>{{ h.label }}</span
        ><span class="quiet">{{ h.detail }}</span>
      </div>
    </div>
    <p v-if="text !== '' && hits.length === 0 && !asking" class="quiet none" role="status">Nothing is called that.</p>
  </ElDialog>
</template>

<style scoped>
.hit {
  display: grid;
  grid-template-columns: 92px 1fr auto;
  gap: 8px;
  padding: 5px 8px;
  cursor: default;
}
.hit.at,
.hit:hover {
  background: var(--cobalt-soft);
}
.none {
  padding: 8px;
}
</style>

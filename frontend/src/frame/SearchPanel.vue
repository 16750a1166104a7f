<script setup lang="ts">
import { nextTick, onMounted, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { get } from '../api/client';
import type { HitView } from '../api/types';
import { useProject } from '../state/project';

const project = useProject();
const router = useRouter();
const text = ref('');
const hits = ref<HitView[]>([]);
const at = ref(0);
const input = ref<HTMLInputElement>();
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
  timer = window.setTimeout(async () => {
    const words = text.value.toLowerCase();
    const actions = ACTIONS.filter((a) => words !== '' && a.label.toLowerCase().includes(words));
    const found = words === '' ? [] : await get<HitView[]>(project.path(`/search?q=${encodeURIComponent(text.value)}`));
    hits.value = [...found, ...actions];
    at.value = 0;
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

function key(event: KeyboardEvent) {
  if (event.key === 'ArrowDown') at.value = Math.min(hits.value.length - 1, at.value + 1);
  else if (event.key === 'ArrowUp') at.value = Math.max(0, at.value - 1);
  else if (event.key === 'Enter') go(hits.value[at.value]);
  else return;
  event.preventDefault();
}

onMounted(() => nextTick(() => input.value?.focus()));
</script>

<template>
  <div class="veil" @click.self="project.panel = null">
    <div class="search" role="search">
      <input
        ref="input"
        v-model="text"
        class="input"
        placeholder="point, file, observation, surface, report or action"
        aria-label="Search"
        @keydown="key"
      />
      <button v-for="(h, i) in hits" :key="h.kind + h.key" class="hit" :class="{ at: i === at }" @click="go(h)">
        <span class="quiet kind">{{ h.kind }}</span><span>{{ h.label }}</span
        ><span class="quiet">{{ h.detail }}</span>
      </button>
      <p v-if="text !== '' && hits.length === 0" class="quiet none">Nothing is called that.</p>
    </div>
  </div>
</template>

<style scoped>
.veil {
  position: absolute;
  inset: 0;
  z-index: 35;
  background: color-mix(in srgb, var(--paper) 55%, transparent);
}
.search {
  width: min(620px, 80%);
  max-height: 70%;
  overflow: auto;
  margin: 88px auto 0;
  padding: 10px;
  background: var(--page);
  border: 1px solid var(--rule-strong);
  box-shadow: var(--shadow);
}
.input {
  height: 34px;
  font-size: 15px;
}
.hit {
  display: grid;
  grid-template-columns: 92px 1fr auto;
  gap: 8px;
  width: 100%;
  text-align: left;
  padding: 5px 8px;
}
.hit.at,
.hit:hover {
  background: var(--cobalt-soft);
}
.none {
  padding: 8px;
}
</style>

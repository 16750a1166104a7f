<script setup lang="ts">
import { onMounted, ref, watch } from 'vue';
import { get, post } from '../api/client';
import type { BackPreview, EntryDetail, LedgerView } from '../api/types';
import { when } from '../format/units';
import { useProject } from '../state/project';
import OverPage from './OverPage.vue';

const project = useProject();
const ledger = ref<LedgerView>({ entries: [] });
const open = ref<EntryDetail | null>(null);
const back = ref<{ seq: number; preview: BackPreview } | null>(null);

async function load() {
  ledger.value = await get<LedgerView>(project.path('/ledger'));
}

async function expand(seq: number) {
  back.value = null;
  open.value = open.value?.entry.seq === seq ? null : await get<EntryDetail>(project.path(`/ledger/${seq}`));
}

async function undo(seq: number) {
  await project.attempt(() => post(project.path(`/ledger/${seq}/undo`)), 'Undone.');
}

async function preview(seq: number) {
  back.value = { seq, preview: await get<BackPreview>(project.path(`/ledger/${seq}/back`)) };
}

async function goBack(seq: number) {
  if (await project.attempt(() => post(project.path(`/ledger/${seq}/back`)), `Back at entry ${seq}.`)) back.value = null;
}

function show(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'nothing';
  return typeof value === 'number' ? String(Math.round(value * 1e6) / 1e6) : String(value);
}

function rows(before: Record<string, unknown> | null, after: Record<string, unknown> | null): [string, string, string][] {
  return Object.keys(after ?? before ?? {})
    .filter((k) => !['project_id', 'mapping', 'inputs', 'settings', 'summary', 'definition'].includes(k))
    .slice(0, 12)
    .map((k) => [k, show(before?.[k]), show(after?.[k])]);
}

onMounted(load);
watch(() => project.version, load);
</script>

<template>
  <OverPage title="Ledger">
    <template #actions>
      <ElButton :disabled="!project.mayChange || !project.overview?.undo" @click="project.undo()"> Undo <kbd>Ctrl Z</kbd> </ElButton>
    </template>
    <ElAlert v-if="project.overview && project.overview.stale.length > 0" type="warning" :closable="false" class="stale">
      <div>
        <strong class="doubt">{{ project.overview.stale.length }} stale.</strong>
        <div v-for="s in project.overview.stale" :key="s.slot">{{ s.label }}: {{ s.reasons.join('; ') }}</div>
      </div>
      <span class="spacer" />
      <ElButton type="primary" data-test="recompute" :disabled="!project.mayChange" @click="project.recompute()">
        Recompute in order
      </ElButton>
    </ElAlert>
    <p v-if="ledger.entries.length === 0" class="quiet">
      Nothing was done yet. Every operation will be listed here, with before and after, and can be undone.
    </p>
    <ol class="entries">
      <li v-for="e in ledger.entries" :key="e.seq" :class="{ undone: e.undoneBy !== null }">
        <ElButton text class="line" :aria-expanded="open?.entry.seq === e.seq" @click="expand(e.seq)">
          <span class="mono quiet seq">{{ e.seq }}</span>
          <span class="title">{{ e.title }}</span>
          <span class="quiet who">{{ e.author }} · {{ when(e.at) }}</span>
        </ElButton>
        <div v-if="open?.entry.seq === e.seq" class="detail">
          <p v-if="e.undoneBy !== null" class="doubt">Undone by entry {{ e.undoneBy }}.</p>
          <table>
            <template v-for="(c, i) in open.changes.slice(0, 12)" :key="i">
              <tr>
                <th colspan="3">{{ c.what }}</th>
              </tr>
              <tr v-for="[k, a, b] in rows(c.before, c.after)" :key="k">
                <td class="quiet">{{ k }}</td>
                <td class="mono">{{ c.before === null ? '' : a }}</td>
                <td class="mono">{{ c.after === null ? '' : '→ ' + b }}</td>
              </tr>
            </template>
          </table>
          <p v-if="e.changes > 12" class="quiet">and {{ e.changes - 12 }} more changes</p>
          <div class="actions">
            <ElButton :disabled="!project.mayChange || e.undoneBy !== null" @click="undo(e.seq)">Undo this entry</ElButton>
            <ElButton :disabled="!project.mayChange" @click="preview(e.seq)">Back to here…</ElButton>
          </div>
          <ElAlert v-if="back?.seq === e.seq" type="warning" :closable="false">
            <div v-if="back.preview.entries.length === 0">Nothing came after this entry.</div>
            <div v-else>
              Takes back {{ back.preview.entries.length }} entries ({{ back.preview.changes }} changes):
              <div v-for="b in back.preview.entries.slice(0, 6)" :key="b.seq" class="quiet">{{ b.seq }} {{ b.title }}</div>
            </div>
            <span class="spacer" />
            <ElButton v-if="back.preview.entries.length > 0" type="primary" plain @click="goBack(e.seq)">Go back</ElButton>
          </ElAlert>
        </div>
      </li>
    </ol>
  </OverPage>
</template>

<style scoped>
.entries {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  border-bottom: 1px solid var(--rule);
}
.line {
  width: 100%;
}
.line :deep(> span) {
  display: grid;
  grid-template-columns: 30px 1fr auto;
  gap: 8px;
  width: 100%;
  text-align: left;
  padding: 6px 0;
  align-items: baseline;
  white-space: normal;
}
.who {
  font-size: 11.5px;
  white-space: nowrap;
}
.undone .title {
  text-decoration: line-through;
  color: var(--ink-soft);
}
.detail {
  padding: 2px 0 12px 38px;
  display: grid;
  gap: 8px;
}
.detail table {
  font-size: 12px;
}
.detail th {
  text-align: left;
  font-weight: 600;
  padding-top: 4px;
}
.detail td {
  padding-right: 14px;
}
.actions {
  display: flex;
  gap: 8px;
}
.stale {
  margin-bottom: 8px;
  align-items: center;
}
</style>

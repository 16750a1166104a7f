<script setup lang="ts">
import { computed } from 'vue';
import type { CorrectionView, SuspectView } from '../../api/types';
import type { Column } from '../../figures/columns';
import FiguresTable from '../../figures/FiguresTable.vue';
import EmptyPage from '../../frame/EmptyPage.vue';
import { signed, when } from '../../format/units';
import { useProject } from '../../state/project';
import { LIMIT } from './columns';
import { percent, sizeOf, type SuspectsFound } from './suspects';

/** Causes ranked by how much of the misfit each would take away, and what the chosen one touches. */
const props = defineProps<{
  found: SuspectsFound | null;
  chosen: SuspectView | null;
  corrections: CorrectionView[];
  ready: boolean;
}>();
const emit = defineEmits<{ choose: [index: number]; search: []; withdraw: [id: number] }>();
const project = useProject();

const columns = computed<Column<SuspectView>[]>(() => [
  { key: 'cause', title: 'cause', width: '230px', value: (s) => `${place(s)}  ${s.words}` },
  {
    key: 'size',
    title: 'size',
    width: '140px',
    align: 'right',
    mono: true,
    value: (s) => s.estimate,
    text: (s) => sizeOf(s, project.units),
  },
  {
    key: 'statistic',
    title: 'over its sd',
    width: '70px',
    align: 'right',
    mono: true,
    value: (s) => Math.abs(s.statistic),
    text: (s) => Math.abs(s.statistic).toFixed(1),
    hint: 'How many of its standard deviations it is large; above 4.5 is not chance',
  },
  {
    key: 'explains',
    title: 'explains',
    width: '96px',
    align: 'right',
    mono: true,
    value: (s) => s.explains,
    text: (s) => percent(s.explains),
    hint: 'Part of the misfit beyond expectation that goes away with it',
  },
]);
const place = (s: SuspectView) => (props.found?.suspects.indexOf(s) ?? 0) + 1;
const kind = (k: string) => k.replace('-', ' ');
</script>

<template>
  <section class="causes">
    <EmptyPage v-if="found === null" title="What could have gone wrong in the field?">
      <p>
        A target height written wrong, two targets exchanged, a prism constant, feet for metres, a circle that slipped: each cause is added
        to the network by itself, and they are ranked by how much of the misfit they explain. Nothing is set aside.
      </p>
      <ElButton type="primary" data-test="search-suspects" :disabled="!ready || !project.mayChange" @click="emit('search')"
        >Look for suspects</ElButton
      >
    </EmptyPage>
    <template v-else>
      <div class="list" :style="{ height: `${36 + 27.5 * Math.min(6, Math.max(1, found.suspects.length))}px` }">
        <FiguresTable
          label="suspects"
          :columns="columns"
          :rows="found.suspects"
          :row-key="(s) => String(place(s))"
          :selected="new Set(chosen ? [String(place(chosen))] : [])"
          :filterable="false"
          @select="(keys) => emit('choose', Number(keys[0] ?? 0) - 1)"
        >
          <template #cell-explains="{ row, text }">
            <span class="bar" :class="{ first: place(row) === 1 }"
              ><span>{{ text }}</span
              ><svg viewBox="0 0 100 10" preserveAspectRatio="none" aria-hidden="true">
                <rect x="0" y="1" height="8" :width="100 * row.explains" /></svg
            ></span>
          </template>
          <template #empty><p class="quiet">Nothing stands out beyond chance.</p></template>
        </FiguresTable>
      </div>
      <p class="quiet again">
        {{ found.tried.toLocaleString('en-GB').replace(',', ' ') }} causes tried, one at a time, each added to the model with nothing set
        aside.
        <ElButton text size="small" data-test="search-suspects" :disabled="!project.mayChange" @click="emit('search')">Look again</ElButton>
      </p>
      <template v-if="chosen && chosen.rows.length > 0">
        <h3>What it touches</h3>
        <div class="touches">
          <table>
            <thead>
              <tr>
                <th>kind</th>
                <th>at</th>
                <th>to</th>
                <th class="number">standardized</th>
                <th class="number">with it</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="r in chosen.rows" :key="`${r.id}${r.component ?? ''}`">
                <td>{{ kind(r.kind) }}{{ r.component ? ` ${r.component}` : '' }}</td>
                <td>{{ r.at }}</td>
                <td>{{ r.to }}</td>
                <td class="number mono" :class="{ fails: Math.abs(r.before) > LIMIT }">{{ signed(r.before.toFixed(1)) }}</td>
                <td class="number mono" :class="{ fails: Math.abs(r.after) > LIMIT, holds: Math.abs(r.after) <= LIMIT }">
                  → {{ signed(r.after.toFixed(1)) }}
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </template>
    </template>
    <template v-if="corrections.length > 0">
      <h3>Corrections made</h3>
      <ul class="made">
        <li v-for="c in corrections" :key="c.id">
          {{ c.words }}<span v-if="c.reason" class="quiet">, {{ c.reason }}</span>
          <span class="quiet"> · {{ c.author }}, {{ when(c.createdAt) }}</span>
          <ElButton text size="small" :disabled="!project.mayChange" @click="emit('withdraw', c.id)">Withdraw</ElButton>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.causes {
  display: flex;
  flex-direction: column;
  flex: 1;
  gap: 8px;
  min-height: 0;
  overflow: auto;
}
.list {
  display: flex;
  flex-direction: column;
  flex: none;
}
.bar {
  display: grid;
  grid-template-columns: 40px 1fr;
  align-items: center;
  gap: 6px;
}
.bar svg {
  height: 10px;
  width: 100%;
}
.bar rect {
  fill: var(--rule-strong);
}
.bar.first rect {
  fill: var(--vermilion);
}
.again {
  margin: 0;
}
h3 {
  margin: 6px 0 0;
  font-size: 13px;
}
.touches table {
  border-collapse: collapse;
  min-width: 70%;
}
.touches th {
  text-align: left;
  font-weight: 400;
  color: var(--quiet);
  border-bottom: 1px solid var(--ink);
  padding: 2px 14px 2px 4px;
}
.touches td {
  border-bottom: 1px solid var(--rule);
  padding: 3px 14px 3px 4px;
}
.touches .number {
  text-align: right;
}
.made {
  margin: 0;
  padding-left: 18px;
}
</style>

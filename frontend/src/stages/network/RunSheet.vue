<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue';
import { get } from '../../api/client';
import type { ChangedVerdictView, RunView, RunsComparedView, ShiftView } from '../../api/types';
import type { Column } from '../../figures/columns';
import FiguresTable from '../../figures/FiguresTable.vue';
import { signed, small, smallUnit } from '../../format/units';
import { useProject } from '../../state/project';
import { runColumns } from './columns';

/** Every adjustment that was made, newest first; one that is chosen is compared with the newest. */
const props = defineProps<{ runs: RunView[] }>();
const project = useProject();
const chosen = ref('');
const compared = shallowRef<RunsComparedView | null>(null);
const units = computed(() => project.units);

watch([chosen, () => props.runs], async () => {
  const run = props.runs.find((r) => String(r.id) === chosen.value);
  const newest = props.runs[0];
  compared.value =
    run && newest && run.run !== newest.run ? await get<RunsComparedView>(project.path(`/network/runs/${run.run}/${newest.run}`)) : null;
});

const shifts = computed<Column<ShiftView>[]>(() =>
  (
    [
      ['e', 'east'],
      ['n', 'north'],
      ['h', 'height'],
    ] as const
  ).reduce<Column<ShiftView>[]>(
    (list, [key, title]) => [
      ...list,
      {
        key,
        title,
        unit: smallUnit(units.value),
        width: '70px',
        align: 'right',
        mono: true,
        value: (s) => s[key],
        sortBy: (s) => Math.abs(s[key]),
        text: (s) => small(s[key], units.value, true),
      },
    ],
    [{ key: 'name', title: 'station', width: '70px', value: (s) => s.name }],
  ),
);
const number = (value: number | null) => (value === null ? '' : signed(value.toFixed(1)));
const changed: Column<ChangedVerdictView>[] = [
  { key: 'kind', title: 'kind', width: '90px', value: (c) => `${c.kind.replace('-', ' ')}${c.component ? ` ${c.component}` : ''}` },
  { key: 'at', title: 'at', width: '64px', value: (c) => c.at },
  { key: 'to', title: 'to', width: '54px', value: (c) => c.to },
  { key: 'before', title: 'before', width: '54px', align: 'right', mono: true, value: (c) => c.before, text: (c) => number(c.before) },
  { key: 'after', title: 'after', width: '54px', align: 'right', mono: true, value: (c) => c.after, text: (c) => number(c.after) },
  { key: 'verdict', title: 'now', width: '90px', value: (c) => c.verdict },
];
</script>

<template>
  <section class="runs">
    <FiguresTable
      label="runs"
      :columns="runColumns"
      :rows="runs"
      :row-key="(r) => String(r.id)"
      :selected="new Set(chosen ? [chosen] : [])"
      :filterable="false"
      @select="(keys) => (chosen = keys[0] ?? '')"
    >
      <template #cell-passed="{ row, text }"
        ><span :class="{ holds: row.passed === true, fails: row.passed === false }">{{ text }}</span></template
      >
    </FiguresTable>
    <p v-if="!compared && runs.length > 1" class="quiet">Choose an earlier run to compare it with the newest.</p>
    <template v-if="compared">
      <p>
        Run {{ compared.earlier }} → {{ compared.later }}: factor {{ compared.earlierFactor?.toFixed(2) ?? '—' }} →
        {{ compared.laterFactor?.toFixed(2) ?? '—' }}; {{ compared.changed.length }} verdict{{ compared.changed.length === 1 ? '' : 's' }}
        changed.
      </p>
      <div class="both">
        <FiguresTable
          label="run-shifts"
          :columns="shifts"
          :rows="compared.shifts"
          :row-key="(s) => s.name"
          :selected="new Set()"
          :filterable="false"
          @select="() => undefined"
        />
        <FiguresTable
          label="run-verdicts"
          :columns="changed"
          :rows="compared.changed"
          :row-key="(c) => `${c.id}${c.component ?? ''}`"
          :selected="new Set()"
          :filterable="false"
          @select="() => undefined"
          ><template #empty><p class="quiet">No observation is judged differently.</p></template></FiguresTable
        >
      </div>
    </template>
  </section>
</template>

<style scoped>
.runs {
  display: flex;
  flex-direction: column;
  gap: 6px;
  flex: 1;
  min-height: 0;
}
.both {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
  gap: 14px;
  flex: 2;
  min-height: 0;
}
.both > * {
  min-height: 0;
}
p {
  margin: 0;
}
</style>

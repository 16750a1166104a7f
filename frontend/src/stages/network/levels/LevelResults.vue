<script setup lang="ts">
import { computed, ref } from 'vue';
import { post } from '../../../api/client';
import type { LevelBookView, LevelHandRequest } from '../../../api/types';
import type { Column } from '../../../figures/columns';
import FiguresTable from '../../../figures/FiguresTable.vue';
import NumberInput from '../../../fields/NumberInput.vue';
import { height, length, lengthUnit, metresPer, small, smallUnit } from '../../../format/units';
import { useProject } from '../../../state/project';

/** What the whole book comes to, and what the network gets of it. */
const props = defineProps<{ book: LevelBookView }>();
const project = useProject();
type Section = LevelBookView['sections'][number];
type Height = LevelBookView['points'][number];
const units = computed(() => project.units);

const sections = computed<Column<Section>[]>(() => [
  { key: 'run', title: 'run', width: '60px', value: (s) => s.run },
  { key: 'from', title: 'from', width: '60px', value: (s) => s.from },
  { key: 'to', title: 'to', width: '60px', value: (s) => s.to },
  { key: 'passed', title: '', width: '70px', value: (s) => (s.passed === null ? '' : s.passed ? '✓ passes' : '▲ fails') },
  { key: 'setups', title: 'setups', width: '50px', align: 'right', mono: true, value: (s) => s.setups },
  {
    key: 'length',
    title: 'length',
    unit: lengthUnit(units.value),
    width: '70px',
    align: 'right',
    mono: true,
    value: (s) => s.length,
    text: (s) => (s.length === null ? '—' : s.length.toFixed(0)),
  },
  {
    key: 'difference',
    title: 'difference',
    unit: lengthUnit(units.value),
    width: '84px',
    align: 'right',
    mono: true,
    value: (s) => s.difference,
    text: (s) => length(s.difference, units.value, 1),
  },
  {
    key: 'misclosure',
    title: 'misclosure',
    unit: smallUnit(units.value),
    width: '78px',
    align: 'right',
    mono: true,
    value: (s) => s.misclosure,
    sortBy: (s) => Math.abs(s.misclosure ?? 0),
    text: (s) => small(s.misclosure, units.value, true),
  },
  {
    key: 'allowable',
    title: 'allowable',
    unit: smallUnit(units.value),
    width: '72px',
    align: 'right',
    mono: true,
    value: (s) => s.allowable,
    text: (s) => small(s.allowable, units.value),
  },
]);
const points = computed<Column<Height>[]>(() => [
  { key: 'id', title: 'point', width: '80px', value: (p) => p.id },
  {
    key: 'h',
    title: 'height',
    unit: lengthUnit(units.value),
    width: '90px',
    align: 'right',
    mono: true,
    value: (p) => p.h,
    text: (p) => height(p.h, units.value, 1),
  },
  { key: 'role', title: 'is', width: '100px', value: (p) => p.role },
  { key: 'run', title: 'run', width: '60px', value: (p) => p.run },
  { key: 'adjusted', title: 'misclosure shared', width: '110px', value: (p) => (p.adjusted ? 'yes' : '') },
  {
    key: 'again',
    title: 'again',
    unit: smallUnit(units.value),
    width: '120px',
    align: 'right',
    mono: true,
    value: (p) => p.again.length,
    text: (p) => p.again.map((a) => `${small(a.difference, units.value, true)} (${a.run})`).join(', '),
  },
]);

const as = ref<'raw' | 'adjusted'>('raw');
const hasLengths = computed(() => props.book.network.every((l) => l.length !== null));
const weight = ref<'length' | 'setups' | 'misclosure'>(props.book.network.every((l) => l.length !== null) ? 'length' : 'setups');
const sigma = ref<number | null>(0.002);
const fine = computed(() => (units.value.length === 'm' ? 0.001 : metresPer(units.value)));
const fromMisclosure = computed(() => (hasLengths.value ? props.book.perKm : props.book.perSetup));

const hand = () =>
  project.attempt(
    () =>
      post(project.path('/levels/network'), {
        as: as.value,
        weight: weight.value,
        sigma: weight.value === 'misclosure' ? null : sigma.value,
      } satisfies LevelHandRequest),
    'The network has the levelled differences. Adjust it to see their effect.',
  );
const toControl = () => project.attempt(() => post(project.path('/levels/control')), 'Levelled heights are control now.');
</script>

<template>
  <div class="results">
    <ElAlert v-if="book.fault" type="error" :closable="false">{{ book.fault }}</ElAlert>
    <template v-else>
      <div class="top" :style="{ height: `${66 + 27.5 * Math.min(6, Math.max(1, book.sections.length))}px` }">
        <FiguresTable
          label="level-sections"
          :columns="sections"
          :rows="book.sections"
          :row-key="(s) => `${s.run} ${s.from} ${s.to}`"
          :selected="new Set()"
          :filterable="false"
          @select="() => undefined"
          ><template #cell-passed="{ row, text }"
            ><span :class="{ holds: row.passed === true, fails: row.passed === false }">{{ text }}</span></template
          ></FiguresTable
        >
      </div>
      <p v-for="l in book.loops" :key="l.runs.join()" :class="l.passed === false ? 'fails' : 'quiet'">
        Loop {{ l.runs.join(', ') }}: misclosure {{ small(l.misclosure, units, true) }} {{ smallUnit(units) }}, allowable
        {{ l.allowable === null ? 'unknown' : `${small(l.allowable, units)} ${smallUnit(units)}` }}.
      </p>
      <p v-for="w in book.warnings" :key="w" class="doubt">{{ w }}</p>
      <div class="hand">
        <strong>To the network</strong>
        <ElRadioGroup v-model="as" size="small" aria-label="Differences">
          <ElRadioButton value="raw">as measured</ElRadioButton><ElRadioButton value="adjusted">adjusted</ElRadioButton>
        </ElRadioGroup>
        <span class="quiet">weights by</span>
        <ElRadioGroup v-model="weight" size="small" aria-label="Weights">
          <ElRadioButton value="length" :disabled="!hasLengths">length</ElRadioButton><ElRadioButton value="setups">setups</ElRadioButton
          ><ElRadioButton value="misclosure" :disabled="fromMisclosure === null">misclosure</ElRadioButton>
        </ElRadioGroup>
        <NumberInput
          v-if="weight !== 'misclosure'"
          v-model="sigma"
          :label="weight === 'length' ? 'sd of a kilometre' : 'sd of a setup'"
          :unit="smallUnit(units)"
          :factor="fine"
          :digits="2"
        />
        <span v-else class="mono"
          >{{ small(fromMisclosure, units) }} {{ smallUnit(units) }} {{ hasLengths ? 'a kilometre' : 'a setup' }}</span
        >
        <ElButton type="primary" data-test="hand-levels" :disabled="!project.mayChange || book.network.length === 0" @click="hand"
          >Hand {{ book.network.length }} over</ElButton
        >
        <ElButton data-test="level-control" :disabled="!project.mayChange" @click="toControl">Make heights control</ElButton>
      </div>
      <p v-if="!hasLengths" class="doubt">
        Sight lengths are missing, so a weight by length cannot be had: no one knows how long those lines are. Weights by setups or by
        misclosure do without.
      </p>
      <FiguresTable
        label="level-points"
        :columns="points"
        :rows="book.points"
        :row-key="(p) => p.id"
        :selected="new Set()"
        @select="() => undefined"
      />
    </template>
  </div>
</template>

<style scoped>
.results {
  display: flex;
  flex-direction: column;
  gap: 6px;
  flex: 1;
  min-height: 0;
  overflow: auto;
}
.top {
  display: flex;
  flex-direction: column;
  flex: none;
}
.hand {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.hand :deep(.field) {
  margin: 0;
}
p {
  margin: 0;
}
</style>

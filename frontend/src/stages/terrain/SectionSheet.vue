<script setup lang="ts">
import { computed, defineAsyncComponent, ref, watch } from 'vue';
import type { SectionView, UnitsView } from '../../api/types';
import { figures, words, type Column } from '../../figures/columns';
import FiguresTable from '../../figures/FiguresTable.vue';
import { height, length, lengthUnit, when } from '../../format/units';
import AnswerHead from '../../frame/AnswerHead.vue';
import LineageList from '../../frame/LineageList.vue';
import PageTabs from '../../frame/PageTabs.vue';
import { useProject } from '../../state/project';
import { heightAt, type SectionDrawing } from './sections';

const ProfileChart = defineAsyncComponent(() => import('./ProfileChart.vue'));

/** A section: its profile, the figures where one points, cross-sections one after the other. */
const props = defineProps<{ sections: SectionView[]; section: SectionView; drawing: SectionDrawing | null; at: number | null }>();
const emit = defineEmits<{
  choose: [number: number];
  fresh: [];
  change: [];
  write: [kind: string];
  point: [station: number | null];
  cross: [index: number | null];
}>();
const project = useProject();
const units = computed(() => project.units);
const tab = ref<'profile' | 'crosses' | 'points' | 'all'>('profile');
const index = ref(0);
const cross = computed(() => props.drawing?.crosses[index.value] ?? null);
const across = computed(() => (props.drawing?.surfaces ?? []).map((s, k) => ({ name: s.name, pieces: cross.value?.surfaces[k] ?? [] })));
const readings = computed(() =>
  (props.drawing?.surfaces ?? []).map((s) => ({ name: s.name, h: props.at === null ? null : heightAt(s.pieces, props.at) })),
);
const headline = computed(() => {
  const [x, u] = [props.section, lengthUnit(units.value)];
  const heights = x.low === null ? '' : `, ${height(x.low, units.value, -1)} to ${height(x.high, units.value, -1)} ${u}`;
  return `${x.name}: ${length(x.length, units.value, -1)} ${u}${heights}`;
});
const tabs = computed(
  () =>
    [
      ['profile', 'Profile'],
      ['crosses', `Cross-sections ${props.section.crosses}`],
      ['points', `Points ${props.section.points}`],
      ['all', `Sections ${props.sections.length}`],
    ] as const,
);
watch([tab, index, () => props.section.number], () => emit('cross', tab.value === 'crosses' ? index.value : null));
watch(
  () => props.section.number,
  () => (index.value = 0),
);

const columns = (u: UnitsView): Column<SectionView>[] => [
  { ...words<SectionView>('name', 'section', 140, (s) => s.name), width: 'minmax(140px, 1fr)' },
  figures(
    'length',
    'length',
    84,
    (s) => s.length,
    (s) => length(s.length, u, -1),
    { unit: lengthUnit(u) },
  ),
  figures(
    'low',
    'lowest',
    84,
    (s) => s.low,
    (s) => height(s.low, u, -1),
    { unit: lengthUnit(u) },
  ),
  figures(
    'high',
    'highest',
    84,
    (s) => s.high,
    (s) => height(s.high, u, -1),
    { unit: lengthUnit(u) },
  ),
  words('state', '', 64, (s) => (s.stale.length > 0 ? '◐ stale' : '✓ fresh')),
];
type Beside = SectionDrawing['points'][number];
const pointColumns = (u: UnitsView): Column<Beside>[] => [
  { ...words<Beside>('name', 'point', 110, (p) => p.name), width: 'minmax(110px, 1fr)' },
  figures(
    'station',
    'station',
    96,
    (p) => p.station,
    (p) => length((props.drawing?.start ?? 0) + p.station, u, -1),
    { unit: lengthUnit(u) },
  ),
  figures(
    'offset',
    'offset',
    84,
    (p) => p.offset,
    (p) => length(p.offset, u, -1),
    { unit: lengthUnit(u), hint: 'to the right' },
  ),
  figures(
    'h',
    'height',
    84,
    (p) => p.h,
    (p) => height(p.h, u),
    { unit: lengthUnit(u) },
  ),
];
const none = new Set<string>();
</script>

<template>
  <AnswerHead>
    <h1 data-test="section-headline">
      {{ headline }}
    </h1>
    <p v-if="section.low === null" class="doubt">The line crosses none of its surfaces.</p>
    <p v-if="section.stale.length > 0"><span class="doubt">Stale:</span> {{ section.stale.join('; ') }}.</p>
    <p class="quiet">
      {{ section.alignment ? `Along the alignment ${section.alignment}. ` : '' }}Run {{ section.run }}, {{ when(section.at) }} by
      {{ section.author }}.
    </p>
    <template #actions>
      <ElButton type="primary" data-test="new-section" :disabled="!project.mayChange" @click="emit('fresh')">New section</ElButton>
      <ElButton :disabled="!project.mayChange" @click="emit('change')">Cut anew…</ElButton>
      <span class="pair">
        <ElButton data-test="section-pdf" :disabled="!project.mayChange" @click="emit('write', 'section-pdf')">PDF</ElButton>
        <ElButton data-test="section-dxf" :disabled="!project.mayChange" @click="emit('write', 'section-dxf')">DXF</ElButton>
      </span>
    </template></AnswerHead
  >
  <PageTabs v-model="tab" :tabs="tabs" label="Pages of the section" test="section-tab" />
  <template v-if="drawing && tab === 'profile'">
    <ProfileChart
      class="chart"
      :lines="drawing.surfaces"
      :points="drawing.points"
      :start="drawing.start"
      :at="at"
      title="station"
      @point="(s) => emit('point', s)"
    />
    <p class="at mono" data-test="at">
      <template v-if="at !== null"
        >{{ length(drawing.start + at, units, -1) }}
        <span v-for="r in readings" :key="r.name" class="reading"
          ><span class="quiet">{{ r.name }}</span> {{ r.h === null ? '–' : height(r.h, units) }}</span
        ></template
      ><span v-else class="quiet">Point at the profile or at the line on the sketch to read heights.</span>
    </p>
  </template>
  <template v-else-if="drawing && tab === 'crosses'">
    <template v-if="cross">
      <p class="line">
        <ElButton size="small" :disabled="index === 0" aria-label="The one before" @click="index -= 1">←</ElButton>
        <strong class="mono" data-test="cross">{{ length(cross.station, units, -1) }}</strong>
        <ElButton size="small" :disabled="index >= drawing.crosses.length - 1" aria-label="The next" @click="index += 1">→</ElButton>
        <span class="quiet">{{ index + 1 }} of {{ drawing.crosses.length }}</span>
      </p>
      <ProfileChart v-if="across.some((a) => a.pieces.length > 0)" class="chart" :lines="across" title="offset, right positive" />
      <p v-else class="quiet">No surface is cut at this station.</p>
    </template>
    <p v-else class="quiet">No cross-sections were asked for. “Cut anew…” takes a distance between them.</p>
  </template>
  <FiguresTable
    v-else-if="drawing && tab === 'points'"
    label="points beside the line"
    :columns="pointColumns(units)"
    :rows="drawing.points"
    :row-key="(p) => p.name"
    :selected="none"
    :filterable="false"
    ><template #empty
      ><p class="quiet">No point lies within {{ length(section.offset, units, -1) }} {{ lengthUnit(units) }}.</p></template
    >
  </FiguresTable>
  <FiguresTable
    v-else
    label="sections"
    :columns="columns(units)"
    :rows="sections"
    :row-key="(s) => String(s.number)"
    :selected="new Set([String(section.number)])"
    :filterable="false"
    @select="(k) => emit('choose', Number(k[0]))"
  />
  <LineageList :place="`section:${section.number}`" />
</template>

<style scoped>
.at {
  margin: 0 0 2px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 5px;
}
.chart {
  flex: 1 1 260px;
  min-height: 220px;
  max-height: 380px;
}
.reading {
  margin-left: 16px;
}
.line {
  display: flex;
  gap: 10px;
  align-items: center;
  margin: 0;
}
</style>

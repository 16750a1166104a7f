<script setup lang="ts">
import { computed, ref } from 'vue';
import type { MaterialView, VolumeView } from '../../api/types';
import FiguresTable from '../../figures/FiguresTable.vue';
import { area, length, lengthUnit, volume as cubic, when } from '../../format/units';
import AnswerHead from '../../frame/AnswerHead.vue';
import LineageList from '../../frame/LineageList.vue';
import PageTabs from '../../frame/PageTabs.vue';
import { useProject } from '../../state/project';
import MaterialsForm from './MaterialsForm.vue';
import { haulColumns, sliceColumns, volumeColumns } from './volumeColumns';

/** A volume in words and figures, by slices, and what it is to carry. */
const props = defineProps<{ volumes: VolumeView[]; volume: VolumeView; materials: MaterialView[]; capacity: number }>();
const emit = defineEmits<{ choose: [number: number]; change: []; fresh: []; report: [] }>();
const project = useProject();
const units = computed(() => project.units);
const tab = ref<'depths' | 'elevations' | 'haul' | 'all'>('depths');
const editing = ref(false);
const none = new Set<string>();
const slices = computed(() => (tab.value === 'elevations' ? props.volume.elevations : props.volume.depths));
const headline = computed(() => {
  const v = props.volume;
  const [cut, fill] = [cubic(v.cut, units.value), cubic(v.fill, units.value)];
  return v.fill === 0 ? `${v.name}: ${cut} above` : v.cut === 0 ? `${v.name}: ${fill} below` : `${v.name}: ${cut} above, ${fill} below`;
});
const tabs = computed(
  () =>
    [
      ['depths', 'By depth'],
      ['elevations', 'By elevation'],
      ['haul', 'To carry'],
      ['all', `Volumes ${props.volumes.length}`],
    ] as const,
);
</script>

<template>
  <AnswerHead>
    <h1 data-test="volume-headline">{{ headline }}</h1>
    <p>
      {{ volume.of }} against <strong>{{ volume.comparedTo }}</strong>: cut over {{ area(volume.areaCut, units) }}, fill over
      {{ area(volume.areaFill, units) }}, net <strong class="mono">{{ cubic(volume.net, units) }}</strong>.
      <template v-if="volume.isopach"
        >At most {{ length(volume.thickest, units, -1) }} {{ lengthUnit(units) }} above and {{ length(volume.deepest, units, -1) }}
        {{ lengthUnit(units) }} below.</template
      ><template v-else> The surfaces are too large for slices and map; the figures are exact.</template>
    </p>
    <p v-if="volume.stale.length > 0"><span class="doubt">Stale:</span> {{ volume.stale.join('; ') }}.</p>
    <p class="quiet">Run {{ volume.run }}, {{ when(volume.at) }} by {{ volume.author }}.</p>
    <template #actions>
      <ElButton type="primary" data-test="new-volume" :disabled="!project.mayChange" @click="emit('fresh')">New volume</ElButton>
      <ElButton :disabled="!project.mayChange" @click="emit('change')">Compute anew…</ElButton>
      <ElButton data-test="volume-report" :disabled="!project.mayChange" @click="emit('report')">Report as PDF</ElButton>
    </template></AnswerHead
  >
  <PageTabs v-model="tab" :tabs="tabs" label="Pages of the volume" test="volume-tab" />
  <template v-if="tab === 'haul'">
    <MaterialsForm v-if="editing" :materials="materials" :capacity="capacity" @done="editing = false" />
    <template v-else>
      <FiguresTable
        label="what is to carry"
        :columns="haulColumns(units)"
        :rows="volume.haul"
        :row-key="(h) => h.material"
        :selected="none"
        :filterable="false"
      />
      <p class="line quiet">
        Cut as bank, fill as compacted; lorries of {{ capacity }} m³ loose.
        <ElButton size="small" data-test="edit-materials" :disabled="!project.mayChange" @click="editing = true">Materials…</ElButton>
      </p>
    </template>
  </template>
  <FiguresTable
    v-else-if="tab === 'all'"
    label="volumes"
    :columns="volumeColumns(units)"
    :rows="volumes"
    :row-key="(v) => String(v.number)"
    :selected="new Set([String(volume.number)])"
    :filterable="false"
    @select="(k) => emit('choose', Number(k[0]))"
  />
  <FiguresTable
    v-else
    label="slices"
    :columns="sliceColumns(units)"
    :rows="slices"
    :row-key="(s) => String(s.from)"
    :selected="none"
    :filterable="false"
  />
  <LineageList :place="`volume:${volume.number}`" />
</template>

<style scoped>
.line {
  display: flex;
  gap: 10px;
  align-items: center;
  margin: 0;
}
</style>

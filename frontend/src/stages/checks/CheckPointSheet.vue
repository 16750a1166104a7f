<script setup lang="ts">
import { computed } from 'vue';
import type { CheckPointsRequest, CheckPointsView, ChecksView } from '../../api/types';
import FiguresTable from '../../figures/FiguresTable.vue';
import AnswerHead from '../../frame/AnswerHead.vue';
import EmptyPage from '../../frame/EmptyPage.vue';
import LineageList from '../../frame/LineageList.vue';
import { useProject } from '../../state/project';
import CheckPointForm from './CheckPointForm.vue';
import { axisColumns, checkPointColumns } from './columns';
import { checkHeadline, checkSentences, type CheckRow } from './useCheckPoints';

/** Check points: how accurate what was computed is, by marks that took no part in it. */
const props = defineProps<{ checks: ChecksView; check: CheckPointsView | null; rows: CheckRow[]; place: string | null }>();
const editing = defineModel<'none' | 'new' | 'change'>('editing', { required: true });
const emit = defineEmits<{ save: [r: CheckPointsRequest]; choose: [number: number]; place: [name: string | null]; report: [] }>();
const project = useProject();
const units = computed(() => project.units);
const several = computed(() => props.checks.checks.length > 1);
</script>

<template>
  <CheckPointForm
    v-if="editing !== 'none'"
    :key="editing"
    :checks="checks"
    :check="editing === 'change' ? check : null"
    @save="(r) => emit('save', r)"
    @cancel="editing = 'none'"
  />
  <EmptyPage v-else-if="!check" title="No check yet">
    <p v-if="checks.checkPoints === 0">
      Check points are marks that are known and take part in nothing: they tell how accurate what was computed is. Bring a list of marks in
      and answer that they are check points, or make a point one under
      <router-link class="link" :to="`/p/${project.id}/network`">Network, Control</router-link>.
    </p>
    <p v-else>
      {{ checks.checkPoints }} check {{ checks.checkPoints === 1 ? 'point is' : 'points are' }} held out of every adjustment and surface.
      Compare them with what was measured of them, a surface or a point cloud.
    </p>
    <div>
      <ElButton type="primary" data-test="new-points" :disabled="!project.mayChange || checks.checkPoints === 0" @click="editing = 'new'"
        >Compare check points</ElButton
      >
    </div>
  </EmptyPage>
  <template v-else>
    <AnswerHead>
      <h1 data-test="points-headline">{{ checkHeadline(check, units) }}</h1>
      <p v-for="s in checkSentences(check)" :key="s">{{ s }}</p>
      <p>{{ checks.checkPoints }} check points are held out of every adjustment and surface.</p>
      <p v-if="check.stale.length > 0"><span class="doubt">Stale:</span> {{ check.stale.join('; ') }}.</p>
      <p class="quiet">compared {{ check.run }} {{ check.run === 1 ? 'time' : 'times' }}, last by {{ check.author }}</p>
      <ElSelect
        v-if="several"
        :model-value="check.number"
        size="small"
        class="which"
        aria-label="Which check"
        @update:model-value="(n: number) => emit('choose', n)"
        ><ElOption v-for="c in checks.checks" :key="c.number" :value="c.number" :label="c.name"
      /></ElSelect>
      <template #actions>
        <ElButton :disabled="!project.mayChange" data-test="change-points" @click="editing = 'change'">Compare anew…</ElButton>
        <ElButton type="primary" :disabled="!project.mayChange" data-test="new-points" @click="editing = 'new'">New check</ElButton>
        <ElButton :disabled="!project.mayChange" data-test="points-report" @click="emit('report')">Report as PDF</ElButton>
      </template></AnswerHead
    >
    <FiguresTable
      class="short"
      label="figures by coordinate"
      :columns="axisColumns(units)"
      :rows="check.axes"
      :row-key="(a) => a.axis"
      :selected="new Set<string>()"
      :filterable="false"
    />
    <FiguresTable
      label="check points"
      :columns="checkPointColumns(units, check.compared === 'point')"
      :rows="rows"
      :row-key="(r) => r.name"
      :selected="new Set(place === null ? [] : [place])"
      :sort="{ key: 'dh', desc: true }"
      :filterable="false"
      @select="(k) => emit('place', k[0] ?? null)"
    />
    <LineageList :place="`check:${check.number}`" />
  </template>
</template>

<style scoped>
.which {
  width: 210px;
}
.short {
  flex: none !important;
  min-height: 0 !important;
}
</style>

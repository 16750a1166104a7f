<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue';
import { post, put } from '../../api/client';
import type { ComponentView, SettingsRequest, SettingsView } from '../../api/types';
import type { Column } from '../../figures/columns';
import FiguresTable from '../../figures/FiguresTable.vue';
import NumberInput from '../../fields/NumberInput.vue';
import { small, smallUnit } from '../../format/units';
import { useProject } from '../../state/project';

/** Weights of groups as their residuals propose them: the effect first, then one button. */
interface Proposal {
  components: ComponentView[];
  before: number | null;
  after: number | null;
  largestMove: number;
  largestMoveAt: string | null;
  flaggedBefore: number;
  flaggedAfter: number;
}
const props = withDefaults(defineProps<{ settings: SettingsView; version: string; ready: boolean; groups?: string[] }>(), {
  groups: () => [],
});
const group = ref('');
const factor = ref<number | null>(null);
const project = useProject();
const by = ref<'kind' | 'setup'>('kind');
const proposal = shallowRef<Proposal | null>(null);
const factors = computed(() => Object.entries(props.settings.factors).filter(([, f]) => f !== 1));

const columns: Column<ComponentView>[] = [
  { key: 'group', title: 'group', width: '190px', value: (c) => c.group.replace('-', ' ') },
  { key: 'count', title: 'count', width: '52px', align: 'right', mono: true, value: (c) => c.count },
  {
    key: 'r',
    title: 'redundancy',
    width: '78px',
    align: 'right',
    mono: true,
    value: (c) => c.redundancy,
    text: (c) => c.redundancy.toFixed(1),
  },
  {
    key: 'present',
    title: 'sd times',
    width: '66px',
    align: 'right',
    mono: true,
    value: (c) => c.present,
    text: (c) => c.present.toFixed(2),
  },
  {
    key: 'proposed',
    title: 'proposed',
    width: '72px',
    align: 'right',
    mono: true,
    value: (c) => c.proposed,
    sortBy: (c) => Math.abs(Math.log(c.proposed / c.present)),
    text: (c) => (c.redundancy < 2 ? 'untested' : c.proposed.toFixed(2)),
  },
];

async function propose() {
  await project.attempt(async () => {
    const job = await project.job(post(project.path('/network/components'), { by: by.value }));
    proposal.value = job.outcome as unknown as Proposal;
  });
}

async function take(values: Record<string, number>) {
  const ok = await project.attempt(async () => {
    await put(project.path('/network/settings'), { ...props.settings, factors: values } satisfies SettingsRequest, props.version);
    await project.job(post(project.path('/network/adjust')));
  });
  if (ok) proposal.value = null;
}
/** One group by hand: an instrument, a session, a kind. */
async function put1() {
  if (group.value === '' || factor.value === null || factor.value <= 0) return;
  const others = Object.fromEntries(Object.entries(props.settings.factors).filter(([g]) => g !== group.value));
  await take(factor.value === 1 ? others : { ...others, [group.value]: factor.value });
}
const apply = () =>
  take({
    ...Object.fromEntries(Object.entries(props.settings.factors)),
    ...Object.fromEntries((proposal.value?.components ?? []).map((c) => [c.group, Number(c.proposed.toFixed(4))])),
  });
</script>

<template>
  <section class="components">
    <h3>Precision of groups</h3>
    <p class="quiet">
      Where residuals of a group are larger or smaller than its weights say, its standard deviations are multiplied by a factor.
      <template v-if="factors.length > 0">In force: {{ factors.map(([g, f]) => `${g} × ${f.toFixed(2)}`).join(', ') }}.</template>
    </p>
    <div class="tools">
      <ElRadioGroup v-model="by" size="small" aria-label="Groups by">
        <ElRadioButton value="kind">kinds</ElRadioButton><ElRadioButton value="setup">setups and sessions</ElRadioButton>
      </ElRadioGroup>
      <ElButton data-test="propose-weights" :disabled="!ready || !project.mayChange" @click="propose">Propose from the residuals</ElButton>
      <ElButton v-if="factors.length > 0" data-test="clear-weights" :disabled="!project.mayChange" @click="take({})"
        >Take the factors off</ElButton
      >
    </div>
    <form class="tools" @submit.prevent="put1">
      <ElSelect
        v-model="group"
        class="group"
        size="small"
        filterable
        aria-label="Group"
        placeholder="a kind, set-up or session"
        @change="factor = settings.factors[group] ?? 1"
      >
        <ElOption v-for="g in groups" :key="g" :value="g" :label="g.replace('-', ' ')" />
      </ElSelect>
      <NumberInput v-model="factor" label="sd times" :digits="3" />
      <ElButton size="small" native-type="submit" data-test="weigh-group" :disabled="!project.mayChange || group === ''"
        >Weigh it so</ElButton
      >
    </form>
    <template v-if="proposal">
      <p>
        With them the variance factor goes {{ proposal.before?.toFixed(2) }} → {{ proposal.after?.toFixed(2) }},
        {{ proposal.flaggedBefore }} → {{ proposal.flaggedAfter }} values stand out, and stations move by up to
        {{ small(proposal.largestMove, project.units) }} {{ smallUnit(project.units)
        }}{{ proposal.largestMoveAt ? ` (${proposal.largestMoveAt})` : '' }}.
      </p>
      <p v-if="proposal.flaggedBefore > 0" class="doubt">
        A blunder makes its whole group look worse than it is: find those first, then weigh.
      </p>
      <div class="list" :style="{ height: `${44 + 27.5 * Math.min(10, proposal.components.length)}px` }">
        <FiguresTable
          label="components"
          :columns="columns"
          :rows="proposal.components"
          :row-key="(c) => c.group"
          :selected="new Set()"
          :filterable="false"
          :sort="{ key: 'proposed', desc: true }"
          @select="() => undefined"
        />
      </div>
      <ElButton type="primary" data-test="take-weights" :disabled="!project.mayChange" @click="apply"
        >Take these weights and compare</ElButton
      >
    </template>
  </section>
</template>

<style scoped>
.components {
  display: flex;
  flex-direction: column;
  gap: 6px;
  align-items: flex-start;
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
.group {
  width: 220px;
}
.list {
  display: flex;
  flex-direction: column;
  align-self: stretch;
}
.tools {
  display: flex;
  gap: 8px;
  align-items: center;
}
h3,
p {
  margin: 0;
}
h3 {
  font-size: 13px;
}
</style>

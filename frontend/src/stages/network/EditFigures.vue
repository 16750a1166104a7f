<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { post } from '../../api/client';
import type { CorrectionRequest, RowView } from '../../api/types';
import NumberInput from '../../fields/NumberInput.vue';
import { isAngular, lengthUnit, metresPer } from '../../format/units';
import { useProject } from '../../state/project';
import { atName } from './columns';

/** One observed value put right by hand: the file keeps what it says, the correction stands beside it. */
const props = defineProps<{ row: RowView }>();
const emit = defineEmits<{ done: [] }>();
const project = useProject();
const value = ref<number | null>(null);
const hi = ref<number | null>(null);
const ht = ref<number | null>(null);
const to = ref('');
const reason = ref('');
const angular = computed(() => isAngular(props.row.kind));
const raised = computed(() => props.row.kind === 'zenith' || props.row.kind === 'slope-distance');
const factor = computed(() => metresPer(project.units));
watch(
  () => props.row.id,
  () => {
    value.value = props.row.observed;
    hi.value = props.row.hi;
    ht.value = props.row.ht;
    to.value = props.row.to;
    reason.value = '';
  },
  { immediate: true },
);

const FIELD: Record<string, string> = { dx: 'v1', dy: 'v2', dz: 'v3' };
const changes = computed<CorrectionRequest['changes']>(() => {
  const list: CorrectionRequest['changes'] = [];
  const add = (field: string, now: number | null, was: number) => {
    if (now !== null && Math.abs(now - was) > 1e-9) list.push({ id: props.row.id, field, add: now - was });
  };
  add(FIELD[props.row.component ?? ''] ?? 'v1', value.value, props.row.observed);
  if (raised.value) {
    add('hi', hi.value, props.row.hi);
    add('ht', ht.value, props.row.ht);
  }
  if (to.value.trim() !== '' && to.value.trim() !== props.row.to) list.push({ id: props.row.id, field: 'to', to: to.value.trim() });
  return list;
});

async function correct() {
  const words = `${props.row.kind.replace('-', ' ')} ${atName(props.row)} to ${props.row.to}`;
  const ok = await project.attempt(async () => {
    await post(project.path('/network/corrections'), {
      cause: 'typed',
      words,
      changes: changes.value,
      reason: reason.value,
    } satisfies CorrectionRequest);
    await project.job(post(project.path('/network/adjust')));
  });
  if (ok) emit('done');
}
</script>

<template>
  <form class="edit" @submit.prevent="correct">
    <NumberInput
      v-model="value"
      :label="row.kind.replace('-', ' ')"
      :unit="angular ? 'degrees' : lengthUnit(project.units)"
      :factor="angular ? 1 : factor"
      :digits="angular ? 8 : 5"
    />
    <NumberInput v-if="raised" v-model="hi" label="instrument height" :unit="lengthUnit(project.units)" :factor="factor" />
    <NumberInput v-if="raised" v-model="ht" label="target height" :unit="lengthUnit(project.units)" :factor="factor" />
    <ElFormItem class="field" label="target"><ElInput v-model="to" aria-label="Target" /></ElFormItem>
    <ElInput v-model="reason" placeholder="reason, for the report" aria-label="Reason of the correction" />
    <ElButton type="primary" native-type="submit" data-test="correct-figures" :disabled="!project.mayChange || changes.length === 0"
      >Correct and compare</ElButton
    >
  </form>
</template>

<style scoped>
.edit {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 170px));
  gap: 4px 12px;
  align-items: end;
}
</style>

<script setup lang="ts">
import { computed, ref } from 'vue';
import { post } from '../../api/client';
import type { EccentricRequest } from '../../api/types';
import NumberInput from '../../fields/NumberInput.vue';
import { lengthUnit, metresPer } from '../../format/units';
import { useProject } from '../../state/project';

/** The target stood beside its mark: where the mark lies from it, as the observer sees it. */
const props = defineProps<{ pointings: number[] }>();
const emit = defineEmits<{ done: [] }>();
const project = useProject();
const right = ref<number | null>(null);
const onwards = ref<number | null>(null);
const up = ref<number | null>(null);
const reason = ref('');
const problems = ref<Record<string, string>>({});
const factor = computed(() => metresPer(project.units));
const isReady = computed(
  () => Object.values(problems.value).every((p) => p === '') && [right, onwards, up].some((v) => v.value !== null && v.value !== 0),
);

async function save() {
  const ok = await project.attempt(
    () =>
      post(project.path('/book/eccentric'), {
        pointings: props.pointings,
        right: right.value ?? 0,
        onwards: onwards.value ?? 0,
        up: up.value ?? 0,
        reason: reason.value,
      } satisfies EccentricRequest),
    'Reduced to the mark; what was read stays beside it. Adjust again to see the effect.',
  );
  if (ok) emit('done');
}
</script>

<template>
  <form class="eccentric" @submit.prevent="save">
    <span
      >{{ pointings.length }} sight{{ pointings.length === 1 ? '' : 's' }}: the target stood beside the mark. From the target, as the
      observer sees it, the mark lies</span
    >
    <div class="row">
      <NumberInput
        v-model="right"
        label="to the right"
        :unit="lengthUnit(project.units)"
        :factor="factor"
        @problem="(t) => (problems.r = t)"
      />
      <NumberInput
        v-model="onwards"
        label="onwards"
        :unit="lengthUnit(project.units)"
        :factor="factor"
        @problem="(t) => (problems.o = t)"
      />
      <NumberInput v-model="up" label="higher" :unit="lengthUnit(project.units)" :factor="factor" @problem="(t) => (problems.u = t)" />
      <ElInput v-model="reason" placeholder="why" aria-label="Reason" />
      <ElButton type="primary" native-type="submit" data-test="centre" :disabled="!project.mayChange || !isReady"
        >Reduce to the mark</ElButton
      >
    </div>
  </form>
</template>

<style scoped>
.eccentric {
  display: flex;
  flex-direction: column;
  gap: 4px;
}
.row {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr 1.4fr auto;
  gap: 10px;
  align-items: center;
}
</style>

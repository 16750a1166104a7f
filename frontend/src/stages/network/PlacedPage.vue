<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue';
import { post } from '../../api/client';
import type { SetupPlacesRequest, SetupPlacesView } from '../../api/types';
import FiguresTable from '../../figures/FiguresTable.vue';
import { useProject } from '../../state/project';
import { heldColumns, placedColumns } from './bookColumns';

/** One set-up on its own: its station by resection or held, and the points it radiates. */
const props = defineProps<{ setup: string; version: string }>();
const project = useProject();
const placed = shallowRef<SetupPlacesView | null>(null);
const resection = ref(false);
const held = ref<string[]>([]);
const units = computed(() => project.units);

async function work() {
  const asked = { setup: props.setup, resection: resection.value, held: held.value } satisfies SetupPlacesRequest;
  await project.attempt(async () => {
    const answer = await post<SetupPlacesView>(project.path('/book/places'), asked);
    if (asked.setup === props.setup) placed.value = answer;
  });
}
watch(
  () => props.setup,
  () => {
    held.value = [];
    resection.value = false;
    placed.value = null;
    void work();
  },
  { immediate: true },
);
watch([resection, held, () => props.version], work);
</script>

<template>
  <section v-if="placed" class="placed">
    <div class="choice">
      <ElCheckbox v-model="resection" :disabled="!placed.stationKnown && !resection"
        >station {{ placed.station }} by resection{{ placed.stationKnown ? '' : ': it has no coordinates' }}</ElCheckbox
      >
      <ElSelect
        v-model="held"
        multiple
        size="small"
        class="held"
        aria-label="Marks held"
        :placeholder="`held: ${placed.held.join(', ') || 'none'}`"
      >
        <ElOption v-for="name in placed.offered" :key="name" :value="name" :label="name" />
      </ElSelect>
    </div>
    <ElAlert v-if="placed.fault" type="warning" :closable="false">{{ placed.fault }}</ElAlert>
    <template v-else>
      <p>
        <template v-if="placed.redundancy === 0">Nothing checks this: there are just enough sights. </template>
        <span v-else :class="placed.passed === false ? 'fails' : 'holds'"
          >{{ placed.passed === false ? '▲ the sights do not agree' : '✓ the sights agree' }}: variance factor
          {{ placed.varianceFactor?.toFixed(2) }}, redundancy {{ placed.redundancy }}.</span
        >
      </p>
      <div class="top" :style="{ height: `${44 + 27.5 * Math.min(4, placed.checks.length)}px` }">
        <FiguresTable
          label="held-marks"
          :columns="heldColumns(units)"
          :rows="placed.checks"
          :row-key="(c) => c.target"
          :selected="new Set()"
          :filterable="false"
          @select="() => undefined"
        />
      </div>
      <FiguresTable
        label="placed-points"
        :columns="placedColumns(units)"
        :rows="placed.places"
        :row-key="(p) => p.name"
        :selected="new Set()"
        :filterable="false"
        @select="() => undefined"
        ><template #empty><p class="quiet">Every target of this set-up is held.</p></template></FiguresTable
      >
    </template>
  </section>
</template>

<style scoped>
.placed {
  display: flex;
  flex-direction: column;
  gap: 6px;
  flex: 1;
  min-height: 0;
}
.choice {
  display: flex;
  gap: 12px;
  align-items: center;
}
.held {
  flex: 1;
}
.top {
  display: flex;
  flex-direction: column;
  flex: none;
}
p {
  margin: 0;
}
</style>

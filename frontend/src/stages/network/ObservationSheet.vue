<script setup lang="ts">
import { computed } from 'vue';
import type { RowView } from '../../api/types';
import FiguresTable from '../../figures/FiguresTable.vue';
import { signed } from '../../format/units';
import { useProject } from '../../state/project';
import { LIMIT, observationColumns, rowKey } from './columns';

/** Every observed value with its statistics. */
const props = defineProps<{ rows: RowView[]; selected: Set<string> }>();
const emit = defineEmits<{ select: [keys: string[]] }>();
const project = useProject();
const columns = computed(() => observationColumns(project.units));
const asideCount = computed(() => props.rows.filter((r) => !r.used).length);
</script>

<template>
  <FiguresTable
    label="observations"
    :columns="columns"
    :rows="rows"
    :row-key="rowKey"
    :selected="selected"
    :sort="{ key: 'standardized', desc: true }"
    :dim="(r) => !r.used"
    @select="(keys) => emit('select', keys)"
  >
    <template #tools
      ><span class="quiet">{{ asideCount > 0 ? `${asideCount} set aside ○` : '' }}</span>
      <slot />
    </template>
    <template #cell-standardized="{ row }">
      <span
        v-if="row.standardized !== null"
        class="bar"
        :class="Math.abs(row.standardized) > LIMIT ? 'beyond' : Math.abs(row.standardized) > 2.2 ? 'warm' : 'calm'"
      >
        <svg viewBox="-5 0 10 10" preserveAspectRatio="none" aria-hidden="true">
          <line x1="0" x2="0" y1="0" y2="10" class="zero" />
          <rect :x="Math.min(0, Math.max(-5, row.standardized))" y="2" :width="Math.min(5, Math.abs(row.standardized))" height="6" />
        </svg>
        <span>{{ signed((row.standardized >= 0 ? '+' : '') + row.standardized.toFixed(1)) }}</span>
      </span>
    </template>
    <template #cell-flag="{ row }"
      ><span v-if="!row.used" aria-label="set aside" role="img">○</span
      ><span v-else-if="row.flagged" class="fails" aria-label="stands out" role="img">▲</span></template
    >
  </FiguresTable>
</template>

<style scoped>
.bar {
  display: grid;
  grid-template-columns: 56px 1fr;
  align-items: center;
  gap: 4px;
}
.bar svg {
  height: 14px;
  width: 56px;
}
.zero {
  stroke: var(--rule-strong);
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
}
.calm rect {
  fill: var(--teal);
}
.warm rect {
  fill: var(--ochre);
}
.beyond rect {
  fill: var(--vermilion);
}
.beyond {
  color: var(--vermilion);
  font-weight: 600;
}
</style>

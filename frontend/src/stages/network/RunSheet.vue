<script setup lang="ts">
import type { RunView } from '../../api/types';
import FiguresTable from '../../figures/FiguresTable.vue';
import { runColumns } from './columns';

/** Every adjustment that was made, newest first. */
defineProps<{ runs: RunView[] }>();
</script>

<template>
  <FiguresTable
    label="runs"
    :columns="runColumns"
    :rows="runs"
    :row-key="(r) => String(r.id)"
    :selected="new Set()"
    :filterable="false"
    @select="() => undefined"
  >
    <template #cell-passed="{ row, text }"
      ><span :class="{ holds: row.passed === true, fails: row.passed === false }">{{ text }}</span></template
    >
  </FiguresTable>
</template>

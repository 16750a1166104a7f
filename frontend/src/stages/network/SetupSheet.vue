<script setup lang="ts">
import type { GroupView } from '../../api/types';
import FiguresTable from '../../figures/FiguresTable.vue';
import { groupColumns } from './columns';

/** How each setup and session agrees with its weights. */
defineProps<{ setups: GroupView[]; selected: Set<string> }>();
const emit = defineEmits<{ select: [names: string[]] }>();
</script>

<template>
  <FiguresTable
    label="groups"
    :columns="groupColumns"
    :rows="setups"
    :row-key="(g) => g.name"
    :selected="selected"
    :sort="{ key: 'factor', desc: true }"
    @select="(names) => emit('select', names)"
  >
    <template #cell-standing="{ row, text }"
      ><span :class="{ fails: row.standing === 'high', doubt: row.standing === 'low', quiet: row.standing === 'untested' }">{{
        text
      }}</span></template
    >
  </FiguresTable>
</template>

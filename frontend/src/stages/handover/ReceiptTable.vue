<script setup lang="ts">
import type { CheckView } from '../../api/types';

/** What was meant, and what was found in the file when it was read back. */
withDefaults(defineProps<{ checks: CheckView[]; found?: string }>(), { found: 'read back' });
</script>

<template>
  <table class="receipt" aria-label="Receipt">
    <tr v-for="c in checks" :key="c.what">
      <td>{{ c.what }}</td>
      <td class="mono">{{ c.expected }}</td>
      <td class="quiet">{{ found }}</td>
      <td class="mono">{{ c.found }}</td>
      <td :class="c.holds ? 'holds' : 'fails'">{{ c.holds ? '✓' : '✕' }}</td>
    </tr>
  </table>
</template>

<style scoped>
td {
  padding: 1px 16px 1px 0;
}
</style>

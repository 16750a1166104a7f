<script setup lang="ts">
import type { SurfaceView } from '../../api/types';
import LineageList from '../../frame/LineageList.vue';

/** What a surface rests on. */
defineProps<{ surface: SurfaceView }>();
</script>

<template>
  <dl class="lineage">
    <dt>rests on</dt>
    <dd>
      {{ surface.roles.join(', ') }} points{{ surface.codes.length > 0 ? ` coded ${surface.codes.join(', ')}` : ''
      }}{{ surface.pattern ? ` named ${surface.pattern}` : ''
      }}{{ surface.areas.length > 0 ? ` in ${surface.areas.length} ${surface.areas.length === 1 ? 'area' : 'areas'}` : ''
      }}{{ surface.include.length > 0 ? `, with ${surface.include.join(', ')}` : ''
      }}{{ surface.exclude.length > 0 ? `, without ${surface.exclude.join(', ')}` : '' }}
    </dd>
    <dt>lines</dt>
    <dd>{{ surface.lines.length === 0 ? 'none' : surface.lines.map((l) => `${l.role} ${l.name}`).join(', ') }}</dd>
  </dl>
  <LineageList v-if="surface.computed" :place="`surface:${surface.id}`" />
</template>

<style scoped>
.lineage {
  display: grid;
  grid-template-columns: 70px 1fr;
  gap: 3px 10px;
  margin: 0 0 14px;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
</style>

<script setup lang="ts">
import { computed } from 'vue';
import type { CloudFileView, DesignFileView, SurfaceView, TakenView } from '../../api/types';
import LineageList from '../../frame/LineageList.vue';

/** What a surface rests on. */
const props = defineProps<{ surface: SurfaceView; designs: DesignFileView[]; clouds: CloudFileView[] }>();
const nameOf = (t: TakenView) => props.designs.find((d) => d.id === t.file)?.name ?? 'a drawing';
const faces = computed(() => {
  const t = props.surface.design;
  if (!t) return '';
  const which = t.faces.length > 0 ? `${t.faces.length} faces` : t.layers.length > 0 ? `faces on ${t.layers.join(', ')}` : 'all faces';
  return `${which} of ${nameOf(t)}`;
});
/** What is taken of a point cloud, in words. */
const cloud = computed(() => {
  const t = props.surface.cloud;
  if (!t) return '';
  const classes = t.classes.length > 0 ? ` of class ${t.classes.join(', ')}` : '';
  const thin = t.spacing === null ? '' : `, one in ${t.spacing} m`;
  return `points${classes} of ${props.clouds.find((c) => c.id === t.file)?.name ?? 'a point cloud'}${thin}`;
});
const lines = computed(() =>
  [
    ...props.surface.lines.map((l) => `${l.role} ${l.name}`),
    ...props.surface.drawn.map((t) => `${t.role} ${t.layers.length > 0 ? t.layers.join(', ') : 'by all lines'} of ${nameOf(t)}`),
  ].join(', '),
);
</script>

<template>
  <dl class="lineage">
    <dt>rests on</dt>
    <dd v-if="surface.design">{{ faces }}</dd>
    <dd v-else-if="surface.roles.length === 0">{{ cloud }}</dd>
    <dd v-else>
      {{ surface.roles.join(', ') }} points{{ surface.codes.length > 0 ? ` coded ${surface.codes.join(', ')}` : ''
      }}{{ surface.pattern ? ` named ${surface.pattern}` : ''
      }}{{ surface.areas.length > 0 ? ` in ${surface.areas.length} ${surface.areas.length === 1 ? 'area' : 'areas'}` : ''
      }}{{ surface.include.length > 0 ? `, with ${surface.include.join(', ')}` : ''
      }}{{ surface.exclude.length > 0 ? `, without ${surface.exclude.join(', ')}` : '' }}{{ cloud ? `, and ${cloud}` : '' }}
    </dd>
    <dt>lines</dt>
    <dd>{{ lines || 'none' }}</dd>
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

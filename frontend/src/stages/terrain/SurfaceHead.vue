<script setup lang="ts">
import { computed } from 'vue';
import type { SurfaceView } from '../../api/types';
import { area, height, length, when } from '../../format/units';
import { useProject } from '../../state/project';

/** What a surface is, and whether it still holds. */
defineProps<{ surface: SurfaceView }>();
const project = useProject();
const units = computed(() => project.units);
</script>

<template>
  <header class="answer">
    <div>
      <h1>
        {{ surface.name
        }}{{
          surface.computed
            ? `: ${height(surface.hMin, units, -1)} to ${height(surface.hMax, units, -1)} ${units.length}`
            : ' is not computed yet'
        }}
      </h1>
      <p v-if="surface.computed">
        {{ surface.points }} points in {{ surface.triangles }} triangles over {{ area(surface.planArea, units) }} in plan,
        {{ area(surface.surfaceArea, units) }} on the ground; {{ surface.contourCount }}{{ surface.smooth ? ' smooth' : '' }} contours every
        {{ length(surface.interval, units, -1) }} {{ units.length }}.
      </p>
      <p v-if="surface.createdAt" class="quiet">Run {{ surface.run }}, {{ when(surface.createdAt) }} by {{ surface.author }}.</p>
    </div>
  </header>
  <ElAlert v-if="surface.stale.length > 0" data-test="surface-stale" type="warning" :closable="false">
    <span><strong class="doubt">Stale:</strong> {{ surface.stale.join('; ') }}.</span><span class="spacer" /><ElButton
      type="primary"
      plain
      :disabled="!project.mayChange"
      @click="project.recompute()"
    >
      Recompute in order
    </ElButton>
  </ElAlert>
  <ElAlert v-for="w in surface.warnings.slice(0, 3)" :key="w" type="warning" :closable="false">{{ w }}</ElAlert>
</template>

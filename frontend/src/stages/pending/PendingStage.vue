<script setup lang="ts">
import EmptyPage from '../../frame/EmptyPage.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { MapSketch } from '../../sketch';
import { pointsScene } from '../../sketch/scene';
import { useProject } from '../../state/project';

const props = defineProps<{ stage: string }>();
const project = useProject();
const TEXT: Record<string, [string, string]> = {
  baselines: [
    'Baselines',
    'GNSS observation files, occupations and baseline processing will live here. Vectors that are processed already come in through Intake and are adjusted in Network.',
  ],
  clouds: ['Clouds', 'Point clouds, images and mobile passes will live here.'],
  checks: ['Checks', 'Deviation maps, tolerances and check points will live here. Volumes against an elevation are in Terrain.'],
};
const [title, text] = TEXT[props.stage] ?? ['Nothing here', 'There is no such stage.'];
</script>

<template>
  <TwoPages>
    <template #figures>
      <div class="sheet">
        <EmptyPage :title="title">
          <p>{{ text }}</p>
          <p class="quiet">This stage is not built yet. Nothing you do elsewhere depends on it.</p>
          <router-link class="link" :to="`/p/${project.id}/intake`">Bring files in</router-link>
        </EmptyPage>
      </div>
    </template>
    <template #sketch><MapSketch :scene="pointsScene(project.points)" /></template>
  </TwoPages>
</template>

<script setup lang="ts">
import EmptyPage from '../../frame/EmptyPage.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { MapSketch } from '../../sketch';
import { pointsScene } from '../../sketch/scene';
import { useProject } from '../../state/project';

/** An address that names no stage. */
const project = useProject();
</script>

<template>
  <TwoPages>
    <template #figures>
      <div class="sheet">
        <EmptyPage title="Nothing here">
          <p>There is no such stage.</p>
          <router-link class="link" :to="`/p/${project.id}/intake`">Go to Intake</router-link>
        </EmptyPage>
      </div>
    </template>
    <template #sketch><MapSketch :scene="pointsScene(project.points)" /></template>
  </TwoPages>
</template>

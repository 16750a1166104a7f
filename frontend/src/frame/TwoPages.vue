<script setup lang="ts">
import { computed, ref } from 'vue';
import { useProject } from '../state/project';

const project = useProject();
const body = ref<HTMLElement>();
const columns = computed(() => {
  if (project.full === 'figures') return '100% 0 0';
  if (project.full === 'sketch') return '0 0 100%';
  return `calc(${project.figuresShare}% - 4px) 8px minmax(0, 1fr)`;
});

function drag(event: PointerEvent) {
  const handle = event.currentTarget as HTMLElement;
  handle.setPointerCapture(event.pointerId);
  const move = (e: PointerEvent) => {
    const box = body.value!.getBoundingClientRect();
    project.share((100 * (e.clientX - box.left)) / box.width);
  };
  handle.addEventListener('pointermove', move);
  handle.addEventListener('pointerup', () => handle.removeEventListener('pointermove', move), { once: true });
}

function nudge(event: KeyboardEvent) {
  if (event.key === 'ArrowLeft') project.share(project.figuresShare - 2);
  if (event.key === 'ArrowRight') project.share(project.figuresShare + 2);
}
</script>

<template>
  <main ref="body" class="pages" :style="{ gridTemplateColumns: columns }">
    <section class="figures-page" aria-label="Figures page"><slot name="figures" /></section>
    <div
      class="gutter"
      role="separator"
      aria-orientation="vertical"
      tabindex="0"
      aria-label="Drag to share the width"
      :aria-valuenow="Math.round(project.figuresShare)"
      @pointerdown="drag"
      @keydown="nudge"
    />
    <section class="sketch-page" aria-label="Sketch page"><slot name="sketch" /></section>
  </main>
</template>

<style scoped>
.pages {
  flex: 1;
  min-height: 0;
  display: grid;
}
.figures-page,
.sketch-page {
  min-width: 0;
  min-height: 0;
  overflow: hidden;
  position: relative;
}
.sketch-page {
  background: var(--sketch);
}
.gutter {
  cursor: col-resize;
  background: linear-gradient(90deg, var(--paper), var(--gutter) 35%, var(--gutter) 65%, var(--paper));
  touch-action: none;
}
/* Little room, as with letters twice as large: one page under the other, and the whole scrolls. */
@media (max-width: 900px) {
  .pages {
    flex: none;
    grid-template-columns: minmax(0, 1fr) !important;
    grid-template-rows: auto 420px;
  }
  .figures-page {
    min-height: 420px;
    overflow-x: auto;
  }
  .gutter {
    display: none;
  }
}
</style>

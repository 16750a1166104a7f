<script setup lang="ts">
import { useProject } from '../state/project';

/** The last line of the page: what was just done, or what went wrong and what to do about it. It has its place and covers nothing. */
const project = useProject();
</script>

<template>
  <footer class="foot" aria-live="polite">
    <ElAlert
      v-if="project.note"
      :type="project.note.tone === 'bad' ? 'error' : project.note.tone === 'good' ? 'success' : 'info'"
      :closable="false"
      class="note"
      data-test="note"
    >
      <span class="words">{{ project.note.text }}</span>
      <ElButton
        v-if="project.note.tone === 'good' && project.overview?.undo && project.mayChange"
        link
        type="primary"
        @click="project.undo()"
        >undo</ElButton
      >
      <ElButton link type="primary" @click="project.note = null">close</ElButton>
    </ElAlert>
    <span v-else class="quiet"><kbd>?</kbd> keys and help <kbd>/</kbd> search <kbd>f</kbd> full width</span>
  </footer>
</template>

<style scoped>
.foot {
  flex: none;
  min-height: 28px;
  border-top: 1px solid var(--rule);
  display: grid;
  align-items: center;
}
.foot > .quiet {
  padding: 0 18px;
  font-size: 11.5px;
}
.note {
  padding: 3px 18px;
  max-height: 92px;
  overflow: auto;
}
.words {
  flex: 1;
}
kbd {
  margin-left: 10px;
}
kbd:first-child {
  margin-left: 0;
}
</style>

<script setup lang="ts">
import { computed } from 'vue';
import { post } from '../../api/client';
import type { ReferenceView } from '../../api/types';
import { useProject } from '../../state/project';

/** Localizations of the project: to open again, to share, to apply. */
const props = defineProps<{ view: ReferenceView }>();
const emit = defineEmits<{ open: [id: number] }>();
const project = useProject();
const count = computed(() => `${props.view.localPoints} point${props.view.localPoints === 1 ? '' : 's'}`);

const apply = (id: number, title: string) =>
  project.attempt(() => post(project.path(`/reference/localizations/${id}/apply`)), `${title} is applied; undo takes it back.`);
</script>

<template>
  <section aria-label="Localizations of this project" class="kept">
    <div v-for="l in view.localizations" :key="l.id">
      <strong>{{ l.name }}</strong><span class="quiet">{{ l.pairs }} pairs to {{ l.system }}</span>
      <span class="spacer" />
      <ElButton link type="primary" :data-test="`open-${l.id}`" @click="emit('open', l.id)">open</ElButton>
      <a class="link" :href="project.path(`/reference/localizations/${l.id}.json`)">JSON</a>
      <a v-if="l.vertical === 'none'" class="link" :href="project.path(`/reference/localizations/${l.id}.wkt`)">WKT2</a>
      <ElTooltip
        :content="view.localPoints === 0 ? 'No point is known only locally' : `Brings ${count} onto the grid`"
        :show-after="400"
        :enterable="false"
        ><ElButton
          link
          type="primary"
          :data-test="`apply-${l.id}`"
          :disabled="!project.mayChange || (view.localPoints === 0 && view.system !== null)"
          @click="apply(l.id, l.name)"
        >
          apply to {{ count }}
        </ElButton></ElTooltip
      >
    </div>
  </section>
</template>

<style scoped>
.kept > div {
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 4px 0;
  border-bottom: 1px solid var(--rule);
}
</style>

<script setup lang="ts">
import type { CandidateView } from '../api/types';

/** Transformations between two datums; one may be chosen. */
defineProps<{ ways: CandidateView[]; choosable?: boolean; chosen?: string }>();
const emit = defineEmits<{ choose: [name: string] }>();

function accuracy(w: CandidateView): string {
  return w.accuracy === null ? 'not stated' : `${Number(w.accuracy.toPrecision(3))} m`;
}
</script>

<template>
  <ul class="ways">
    <li v-for="w in ways" :key="w.name" :class="{ far: !w.covers }">
      <div class="head">
        <ElRadio v-if="choosable" :value="w.name" :model-value="chosen" :disabled="!w.usable" @change="emit('choose', w.name)"
          ><strong>{{ w.name }}</strong></ElRadio
        >
        <strong v-else>{{ w.name }}</strong>
        <span class="mono">{{ accuracy(w) }}</span>
      </div>
      <div class="quiet">
        {{ w.area }}<span v-if="!w.covers" class="doubt"> · does not cover the points</span
        ><span v-if="w.missing.length > 0" class="fails"> · needs {{ w.missing.join(', ') }}, which is not installed</span
        ><span v-if="w.epoch !== null"> · moves with time, reference epoch {{ w.epoch }}</span>
      </div>
      <ElCollapse>
        <ElCollapseItem>
          <template #title
            ><span class="quiet">{{ w.steps.length }} step{{ w.steps.length === 1 ? '' : 's' }}</span></template
          >
          <div v-for="(s, i) in w.steps" :key="i" class="step">
            {{ s.method }} <span class="quiet">{{ s.source }}</span>
            <div class="mono quiet">{{ s.parameters.join(' · ') }}</div>
          </div>
        </ElCollapseItem>
      </ElCollapse>
    </li>
  </ul>
</template>

<style scoped>
.ways {
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: 12px;
}
li {
  padding: 5px 0;
  border-top: 1px solid var(--rule);
}
li.far strong {
  font-weight: 400;
}
.head {
  display: flex;
  gap: 12px;
  justify-content: space-between;
}
.step {
  padding: 2px 0 2px 14px;
  overflow-wrap: anywhere;
}
</style>

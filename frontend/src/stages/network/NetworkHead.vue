<script setup lang="ts">
import { computed } from 'vue';
import { post } from '../../api/client';
import type { NetworkView, RunView } from '../../api/types';
import { ResidualHistogram } from '../../figures';
import { small, smallUnit } from '../../format/units';
import Term from '../../help/Term.vue';
import { useProject } from '../../state/project';

/** The verdict of the newest run, what it rests on, and what can be done about it. */
const props = defineProps<{ network: NetworkView; run: RunView | null }>();
const emit = defineEmits<{ adjust: [] }>();
const project = useProject();
const units = computed(() => project.units);
const standardized = computed(() => props.network.rows.filter((r) => r.used && r.standardized !== null).map((r) => r.standardized!));
const accept = () => project.attempt(() => post(project.path('/network/accept')), 'Adjusted values are the project’s coordinates now.');
</script>

<template>
  <header class="answer">
    <div class="words">
      <h1>{{ run ? run.headline : 'The network is not adjusted yet' }}</h1>
      <p v-if="!run">{{ network.rows.length }} observed values wait. Adjusting changes nothing until you accept the coordinates.</p>
      <p v-for="s in run?.sentences" :key="s" class="sentence">{{ s }}</p>
      <p v-if="network.comparison" class="quiet compare" data-test="comparison">
        Against run {{ network.comparison.previousRun }}: factor {{ network.comparison.previousFactor?.toFixed(2) }} →
        {{ run?.varianceFactor?.toFixed(2) }}, largest move {{ small(network.comparison.largest, units) }} {{ smallUnit(units) }}.
      </p>
    </div>
    <div class="side">
      <ResidualHistogram v-if="run" :values="standardized" />
      <div class="actions">
        <ElButton
          type="primary"
          plain
          data-test="adjust"
          :class="{ main: !run || network.stale.length > 0 }"
          :disabled="!project.mayChange"
          @click="emit('adjust')"
        >
          Adjust
        </ElButton>
        <ElButton
          type="primary"
          plain
          data-test="accept-coordinates"
          :disabled="!project.mayChange || !run || network.accepted || network.stale.length > 0"
          @click="accept"
        >
          {{ network.accepted ? 'Accepted ✓' : 'Accept coordinates' }}
        </ElButton>
      </div>
    </div>
  </header>
  <ElAlert v-if="network.stale.length > 0" type="warning" :closable="false">
    <span><strong class="doubt">Stale:</strong> {{ network.stale.join('; ') }}.</span><span class="spacer" /><ElButton
      type="primary"
      plain
      :disabled="!project.mayChange"
      @click="emit('adjust')"
    >
      Adjust again
    </ElButton>
  </ElAlert>
  <ElAlert v-for="w in run?.warnings" :key="w" type="error" :closable="false">{{ w }}</ElAlert>
  <div v-if="run" class="strip">
    <ElTooltip
      v-for="g in network.kinds"
      :key="g.kind"
      :content="`${g.count} values, ${g.redundancy.toFixed(1)} redundant`"
      :show-after="400"
      :enterable="false"
      ><div>
        <span class="label">{{ g.name }}</span><span class="mono" :class="{ fails: g.standing === 'high', doubt: g.standing === 'low' }"
          >{{ g.factor?.toFixed(2) ?? '—' }}{{ g.standing === 'high' ? ' ▲' : g.standing === 'low' ? ' ▽' : '' }}</span
        >
      </div></ElTooltip
    >
    <div v-if="network.largestEllipse !== null">
      <span class="label"><Term word="error ellipse">largest ellipse</Term></span
      ><span class="mono">{{ small(network.largestEllipse, units) }} {{ smallUnit(units) }} {{ network.largestEllipseAt }}</span>
    </div>
  </div>
</template>

<style scoped>
.answer {
  display: flex;
  gap: 20px;
  align-items: flex-start;
}
.words {
  flex: 1;
}
.sentence {
  line-height: 1.45;
}
.compare {
  margin-top: 2px;
}
.strip {
  display: flex;
  gap: 4px 18px;
  flex-wrap: wrap;
}
.strip > div {
  display: grid;
}
.strip .mono {
  font-size: 12.5px;
}
.side {
  display: grid;
  gap: 6px;
  justify-items: end;
}
.actions {
  display: flex;
  gap: 8px;
  align-items: center;
}
</style>

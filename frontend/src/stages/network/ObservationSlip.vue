<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { get } from '../../api/client';
import type { RowView, RunView, SourceLine } from '../../api/types';
import Slip from '../../frame/Slip.vue';
import { isAngular, length, observed, residual, small, smallAngle, smallUnit, when } from '../../format/units';
import { useProject } from '../../state/project';
import { atName } from './columns';
import EditFigures from './EditFigures.vue';
import { wider } from './wider';

/** What is known of the chosen values, and the setting aside of them. */
const props = defineProps<{ chosen: RowView[]; rows: RowView[]; run: RunView | null }>();
const emit = defineEmits<{ toggle: []; widen: [keys: string[]] }>();
const reason = defineModel<string>('reason', { required: true });
const project = useProject();
const units = computed(() => project.units);
const first = computed(() => props.chosen[0]!);
const recorded = computed(() => {
  const r = first.value;
  return [
    ...(r.recorded === null ? [] : [observed(r.kind, r.recorded, units.value)]),
    ...(r.recordedHi === null ? [] : [`instrument height ${length(r.recordedHi, units.value)} for ${length(r.hi, units.value)}`]),
    ...(r.recordedHt === null ? [] : [`target height ${length(r.recordedHt, units.value)} for ${length(r.ht, units.value)}`]),
    ...(r.recordedTo === null ? [] : [`target ${r.recordedTo}`]),
  ];
});
const more = computed(() => (props.chosen.length === 1 ? wider(first.value, props.rows) : []));
const isEditing = ref(false);
const source = ref<SourceLine[]>([]);
watch(
  () => props.chosen,
  () => {
    source.value = [];
    isEditing.value = false;
  },
);

async function showSource() {
  const r = first.value;
  if (r.fileId && r.line) source.value = await get<SourceLine[]>(project.path(`/intake/${r.fileId}/lines/${r.line}`));
}
</script>

<template>
  <Slip :tone="first.flagged ? 'bad' : 'plain'">
    <div>
      <strong
        >{{ chosen.length > 1 ? `${chosen.length} observed values, the first: ` : '' }}{{ first.kind
        }}{{ first.component ? ` ${first.component}` : '' }} {{ atName(first) }} → {{ first.to }}</strong
      >
      <span v-if="first.file" class="quiet mono">{{ first.file }} line {{ first.line }}</span>
    </div>
    <div v-if="first.residual !== null">
      {{ first.used ? 'Off by' : 'Predicted off by' }} {{ residual(first.kind, first.residual, units)
      }}<span v-if="first.groundMm !== null && isAngular(first.kind)">, {{ Math.abs(first.groundMm).toFixed(1) }} mm at the target</span>;
      standard deviation {{ isAngular(first.kind) ? smallAngle(first.sd, units) : `${small(first.sd, units)} ${smallUnit(units)}` }}.
      <span v-if="first.external !== null">
        A bias just too small to find would move a station by {{ small(first.external, units) }} {{ smallUnit(units) }}.</span
      >
    </div>
    <div v-if="recorded.length > 0" class="doubt">Corrected; the file says {{ recorded.join(', ') }}.</div>
    <div v-if="!first.used" class="doubt">
      Set aside by {{ first.asideBy }}{{ first.asideAt ? `, ${when(first.asideAt)}` : '' }}: {{ first.reason || 'no reason given' }}
    </div>
    <div class="actions">
      <ElInput
        v-if="first.used"
        v-model="reason"
        class="reason"
        placeholder="reason, for the report"
        aria-label="Reason"
        :disabled="!project.mayChange"
        @keydown.enter="emit('toggle')"
      />
      <ElButton type="primary" data-test="toggle-use" :disabled="!project.mayChange" @click="emit('toggle')">
        {{ first.used ? 'Set aside and compare' : 'Bring back and compare' }}</ElButton><kbd>x</kbd>
      <ElDropdown v-if="more.length > 0" trigger="click" @command="(keys: string[]) => emit('widen', keys)">
        <ElButton data-test="widen">More with it</ElButton>
        <template #dropdown
          ><ElDropdownMenu
            ><ElDropdownItem v-for="w in more" :key="w.text" :command="w.keys">{{ w.text }}</ElDropdownItem></ElDropdownMenu
          ></template
        >
      </ElDropdown>
      <ElButton v-if="chosen.length === 1" data-test="edit-figures" :disabled="!project.mayChange" @click="isEditing = !isEditing"
        >Correct</ElButton
      >
      <ElButton v-if="first.fileId" data-test="source" @click="showSource">Show at source</ElButton>
      <span class="spacer" />
      <span class="quiet nowrap">{{ run ? `rests on run ${run.run}` : '' }}</span>
    </div>
    <EditFigures v-if="isEditing && chosen.length === 1" :row="first" @done="isEditing = false" />
    <div v-if="source.length > 0" class="mono source">
      <div v-for="l in source" :key="l.line" :class="{ at: l.line === first.line }">
        <span class="quiet">{{ l.line }}</span> {{ l.text }}
      </div>
    </div>
  </Slip>
</template>

<style scoped>
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 8px;
  align-items: center;
}
.source {
  overflow-x: auto;
  white-space: pre;
  font-size: 11.5px;
}
.source .at {
  background: var(--cobalt-soft);
}
.nowrap {
  white-space: nowrap;
}
.reason {
  flex: 1 0 130px;
  max-width: 190px;
}
</style>

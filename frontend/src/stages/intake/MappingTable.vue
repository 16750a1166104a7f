<script setup lang="ts">
import { computed } from 'vue';
import type { FieldView, PreviewView } from '../../api/types';
import { unitName } from '../../format/units';
import { useProject } from '../../state/project';

/** Which column means what, in which unit, and how sure that is; what means nothing here is named below. */
const props = defineProps<{ preview: PreviewView }>();
const emit = defineEmits<{ column: [field: FieldView, column: number | '']; unit: [field: FieldView, unit: string] }>();
const project = useProject();
const unused = computed(() => props.preview.columns.filter((c) => !c.used));
const headings = computed(() => props.preview.columns.map((c) => ({ value: c.index, label: c.heading })));
const LEVELS: Record<string, [string, string]> = {
  sure: ['✓', 'holds'],
  chosen: ['✓', 'quiet'],
  likely: ['~', 'quiet'],
  doubtful: ['?', 'doubt'],
};
</script>

<template>
  <div class="wide">
    <table class="mapping">
      <thead>
        <tr>
          <th>meaning</th>
          <th>column</th>
          <th>unit</th>
          <th>first cells</th>
          <th>how sure</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="f in preview.fields" :key="f.key" :class="{ missing: f.required && f.column === null }">
          <td>{{ f.label }}<span v-if="f.required" class="quiet" aria-label="needed"> *</span></td>
          <td>
            <ElSelectV2
              size="small"
              filterable
              :aria-label="`Column of ${f.label}`"
              :model-value="f.column ?? ''"
              :options="[{ value: '', label: f.required ? 'choose' : 'none' }, ...headings]"
              :disabled="!project.mayChange"
              @change="emit('column', f, $event)"
            />
          </td>
          <td>
            <ElSelectV2
              v-if="f.units.length > 0 && f.column !== null"
              size="small"
              :class="{ asked: f.unit === null }"
              :aria-label="`Unit of ${f.label}`"
              :model-value="f.unit ?? ''"
              :options="[
                ...(f.unit === null ? [{ value: '', label: 'which?' }] : []),
                ...f.units.map((u) => ({ value: u, label: unitName(u) })),
              ]"
              :disabled="!project.mayChange"
              @change="emit('unit', f, $event)"
            />
          </td>
          <td class="mono quiet cells">{{ f.column === null ? '' : preview.columns[f.column]?.samples.slice(0, 3).join('  ') }}</td>
          <td class="sure">
            <ElTooltip v-if="f.level" :content="f.why" placement="left" :enterable="false">
              <span tabindex="0" :class="LEVELS[f.level]?.[1]">{{ LEVELS[f.level]?.[0] }} {{ f.level }}</span>
            </ElTooltip>
            <div v-if="f.level === 'doubtful'" class="quiet">{{ f.why }}</div>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
  <p v-if="unused.length > 0" class="quiet unused" data-test="unused">
    Not used:
    <template v-for="(c, i) in unused" :key="c.index"
      >{{ i > 0 ? ', ' : '' }}<strong>{{ c.heading }}</strong> <span class="mono">({{ c.samples.slice(0, 2).join(', ') }})</span></template
    >. Everything else of the file is.
  </p>
</template>

<style scoped>
.wide {
  overflow-x: auto;
}
.mapping {
  border-collapse: collapse;
  table-layout: fixed;
  width: 100%;
  min-width: 560px;
}
.mapping th {
  text-align: left;
  font-weight: 400;
  font-size: 11.5px;
  color: var(--ink-soft);
}
.mapping th:nth-child(1) {
  width: 19%;
}
.mapping th:nth-child(2) {
  width: 25%;
}
.mapping th:nth-child(3) {
  width: 16%;
}
.mapping td {
  padding: 1px 10px 1px 0;
}
.missing td:first-child {
  color: var(--vermilion);
}
.cells {
  font-size: 11.5px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.sure {
  font-size: 12px;
}
.unused {
  line-height: 1.5;
}
</style>

<script setup lang="ts">
import { ref } from 'vue';
import type { SystemDetail } from '../../api/types';
import { useProject } from '../../state/project';
import WayList from '../../fields/WayList.vue';

defineProps<{ system: SystemDetail }>();
const project = useProject();
const open = ref<'' | 'ways' | 'text'>('');
const shown = ref<'wkt' | 'proj'>('wkt');

function bounds(b: number[]): string {
  const side = (v: number, plus: string, minus: string) => `${Math.abs(v).toFixed(2)}° ${v < 0 ? minus : plus}`;
  return `${side(b[0]!, 'N', 'S')} to ${side(b[2]!, 'N', 'S')}, ${side(b[1]!, 'E', 'W')} to ${side(b[3]!, 'E', 'W')}`;
}
</script>

<template>
  <div class="facts" data-test="system-facts">
    <ElAlert v-if="system.deprecated" type="warning" :closable="false">
      <span
        ><strong class="doubt">Deprecated.</strong>
        {{ system.successor ? `The registry names ${system.successor} as its successor.` : 'The registry names no successor.' }}</span
      >
    </ElAlert>
    <ElAlert v-if="!system.coversPoints" type="warning" :closable="false">
      <span><strong class="doubt">Elsewhere.</strong> The project’s points lie outside its area of use.</span>
    </ElAlert>
    <dl>
      <dt>datum</dt>
      <dd>{{ system.datum }}</dd>
      <dt>ellipsoid</dt>
      <dd>{{ system.ellipsoid }}</dd>
      <dt>projection</dt>
      <dd>{{ system.method }}</dd>
      <template v-for="p in system.parameters" :key="p.name">
        <dt class="inner">{{ p.name.toLowerCase() }}</dt>
        <dd class="mono">{{ p.value }}</dd>
      </template>
      <dt>unit, axes</dt>
      <dd>
        {{ system.unit }}; {{ system.axes.join(', ') }}
        <div v-if="system.metresPerUnit !== 1" class="quiet">
          One is {{ system.metresPerUnit.toFixed(10) }} m. Stored in metres, shown in {{ project.units.length }}
          <ElButton link type="primary" @click="project.panel = 'units'">change</ElButton>
        </div>
      </dd>
      <dt>area of use</dt>
      <dd>
        {{ system.area || 'not stated' }}
        <div v-if="system.bounds" class="quiet">{{ bounds(system.bounds) }}</div>
      </dd>
      <dt>from GNSS</dt>
      <dd>
        {{ system.gnss }}
        <ElButton v-if="system.candidates.length > 1" link type="primary" @click="open = open === 'ways' ? '' : 'ways'">
          {{ open === 'ways' ? 'hide the ways' : `all ${system.candidates.length} ways` }}
        </ElButton>
      </dd>
    </dl>
    <WayList v-if="open === 'ways'" :ways="system.candidates" />
    <p>
      <ElButton link type="primary" @click="open = open === 'text' ? '' : 'text'">
        {{ open === 'text' ? 'Hide the definition' : 'Definition as text' }}
      </ElButton>
    </p>
    <template v-if="open === 'text'">
      <ElRadioGroup v-model="shown" size="small" aria-label="Notation">
        <ElRadioButton value="wkt">WKT2</ElRadioButton>
        <ElRadioButton v-if="system.proj" value="proj">PROJ string</ElRadioButton>
      </ElRadioGroup>
      <pre class="mono">{{ shown === 'wkt' ? system.wkt : system.proj }}</pre>
    </template>
  </div>
</template>

<style scoped>
.facts {
  display: grid;
  gap: 8px;
  align-content: start;
}
dl {
  display: grid;
  grid-template-columns: 190px 1fr;
  gap: 3px 12px;
  margin: 0;
}
dt {
  color: var(--ink-soft);
}
dt.inner {
  padding-left: 12px;
}
dd {
  margin: 0;
  min-width: 0;
}
pre {
  margin: 0;
  font-size: 11px;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  background: var(--paper-deep);
  padding: 8px;
}
</style>

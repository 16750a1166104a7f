<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue';
import type { BaselineView, OccupationView, SkyView } from '../../api/types';
import { useProject } from '../../state/project';
import { rmsOf, type RunDocument } from './documents';
import type { Scatter } from './epochs';
import SideSwitch, { type Side } from './SideSwitch.vue';
import SkyStrip from './SkyStrip.vue';
import type { Zone } from './times';

const EpochPlot = defineAsyncComponent(() => import('./EpochPlot.vue'));
const ResidualPlot = defineAsyncComponent(() => import('./ResidualPlot.vue'));

/** The sketch page when it shows no map: epochs, residuals or satellites of what is chosen. */
const props = defineProps<{
  baseline: BaselineView | null;
  occupation: OccupationView | null;
  scatter: Scatter | null;
  run: RunDocument | null;
  sky: SkyView | null;
  window: [number, number] | null;
  zone: Zone;
  leap: number;
}>();
const emit = defineEmits<{ window: [part: [number, number] | null]; epochs: [] }>();
const side = defineModel<Side>('side', { required: true });
const project = useProject();
const epochs = computed(() => props.baseline?.epochs ?? null);
const shownSatellite = ref('');
const wanted = ref('L1');

const satellites = computed(() =>
  (props.run?.satellites ?? []).map((s) => ({ ...s, rms: rmsOf(props.run!, s.id) })).sort((a, b) => (b.rms ?? -1) - (a.rms ?? -1)),
);
const bands = computed(() => [...new Set((props.run?.residuals ?? []).map((r) => r.signal.split(' ')[1]!))]);
const band = computed({
  get: () => (bands.value.includes(wanted.value) ? wanted.value : (bands.value[0] ?? 'L1')),
  set: (b) => (wanted.value = b),
});
</script>

<template>
  <div class="corner">
    <SideSwitch v-model="side" />
    <strong v-if="side === 'epochs' && epochs">Epochs at {{ epochs.mark }}</strong>
    <strong v-if="side === 'residuals' && baseline">{{ baseline.fromName }} → {{ baseline.toName }}</strong>
    <ElRadioGroup v-if="side === 'residuals' && bands.length > 1" v-model="band" size="small" aria-label="Band">
      <ElRadioButton v-for="b in bands" :key="b" :value="b">{{ b }}</ElRadioButton>
    </ElRadioGroup>
  </div>
  <template v-if="side === 'epochs'">
    <EpochPlot
      v-if="epochs && scatter"
      :scatter="scatter"
      :epochs="epochs"
      :window="window"
      :zone="zone"
      :leap="leap"
      @window="(w) => emit('window', w)"
    />
    <div v-else class="hollow quiet">
      <p>Solve a baseline epoch by epoch to see whether its receiver stood still.</p>
      <ElButton v-if="baseline" type="primary" :disabled="!project.mayChange" @click="emit('epochs')"
        >Solve {{ baseline.toName }} epoch by epoch</ElButton
      >
    </div>
  </template>
  <div v-else-if="side === 'residuals'" class="plots">
    <template v-if="run">
      <ResidualPlot :document="run" :zone="zone" :leap="leap" :shown="shownSatellite" :band="band" />
      <ul class="satellites" aria-label="Satellites by residual">
        <li v-for="s in satellites" :key="s.id">
          <ElButton text size="small" :class="{ on: s.id === shownSatellite }" @click="shownSatellite = shownSatellite === s.id ? '' : s.id"
            ><span class="mono">{{ s.id }} {{ s.rms === null ? '–' : s.rms.toFixed(1) }}</span
            ><span class="quiet">&nbsp;{{ s.epochs }}{{ s.slips > 0 ? `, ${s.slips} slips` : '' }}</span></ElButton
          >
        </li>
      </ul>
      <p class="quiet">
        Worst first: root mean square in mm, epochs. Choose one to see it stand out; leave it out by “Process again with…”.
      </p>
    </template>
    <div v-else class="hollow quiet"><p>Process the baseline to see its residuals.</p></div>
  </div>
  <SkyStrip v-else-if="sky && occupation" :sky="sky" :zone="zone" :leap="leap" :marker="occupation.marker" />
  <div v-else class="hollow quiet"><p>Choose an occupation to see its satellites.</p></div>
</template>

<style scoped>
.corner {
  position: absolute;
  top: 8px;
  left: 14px;
  z-index: 2;
  display: flex;
  gap: 14px;
  align-items: center;
}
.hollow {
  position: absolute;
  inset: 0;
  display: grid;
  place-content: center;
  justify-items: center;
  gap: 8px;
}
.plots {
  position: absolute;
  inset: 44px 6px 8px;
  display: flex;
  flex-direction: column;
}
.plots p {
  margin: 2px 18px 0;
  font-size: 12px;
}
.satellites {
  list-style: none;
  margin: 0 14px;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  max-height: 120px;
  overflow: auto;
}
.satellites .el-button {
  margin: 0 10px 0 0;
  padding: 0 4px;
}
.satellites .on {
  background: var(--cobalt-soft);
}
</style>

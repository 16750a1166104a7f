<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import type { BaselineRunView, BaselineView, ProcessRequest, StopsRequest } from '../../api/types';
import NumberInput from '../../fields/NumberInput.vue';
import { length, lengthUnit, small, smallUnit, when } from '../../format/units';
import LineageList from '../../frame/LineageList.vue';
import Slip from '../../frame/Slip.vue';
import { useProject } from '../../state/project';
import { ratioText } from './columns';
import type { Stop } from './documents';
import { clock, minutes, type Zone } from './times';
import { runOf } from './verdict';

/** One baseline: how it was solved, run by run, and what can be done about it. */
const props = defineProps<{
  baseline: BaselineView;
  chosen: number;
  window: [number, number] | null;
  keep: [number, number] | null;
  trimmed: boolean;
  precise: boolean;
  satellites: string[];
  stops: Stop[];
  zone: Zone;
  leap: number;
}>();
const emit = defineEmits<{
  epochs: [];
  process: [settings: Omit<ProcessRequest, 'pairs'>];
  trim: [window: [number, number]];
  whole: [];
  accept: [];
  stops: [request: StopsRequest];
}>();
const project = useProject();
const units = computed(() => project.units);
const run = computed(() => runOf(props.baseline));
const isSetting = ref(false);
const mask = ref<number | null>(10);
const orbits = ref('broadcast');
const bands = ref('both');
const ionosphere = ref('weighted');
const leftOut = ref<string[]>([]);
/** What is used of the session, minutes after its begin. */
const span = ref<number[]>([0, 0]);
const minutesIn = computed(() => Math.max(1, Math.round((props.baseline.to - props.baseline.from) / 60)));
const instant = (m: number) => Math.min(props.baseline.to, props.baseline.from + 60 * m);
const isPart = computed(() => span.value[0]! > 0 || span.value[1]! < minutesIn.value);
const prefix = ref('');
const code = ref('');
watch(
  () => props.baseline.key,
  () => {
    isSetting.value = false;
    span.value = [0, minutesIn.value];
    [prefix.value, code.value] = [`${props.baseline.toName}-`, ''];
  },
  { immediate: true },
);

const process = () =>
  emit('process', {
    mask: mask.value ?? 10,
    orbits: orbits.value,
    bands: bands.value,
    ionosphere: ionosphere.value,
    leftOut: leftOut.value,
    from: isPart.value ? instant(span.value[0]!) : null,
    to: isPart.value ? instant(span.value[1]!) : null,
  });
const part = computed(() => props.window ?? props.keep);
const spoken = (w: [number, number]) => `${clock(w[0], props.zone, props.leap)} to ${clock(w[1], props.zone, props.leap)}`;
const tone = computed(() =>
  run.value === null || props.baseline.moves || run.value.solution === 'fixed'
    ? props.baseline.stale.length > 0
      ? 'doubt'
      : 'plain'
    : 'doubt',
);
const lessText = (r: BaselineRunView) =>
  r.less === null ? '' : r.less.map((v, i) => `${['E', 'N', 'U'][i]} ${small(v, units.value, true)}`).join('  ');
</script>

<template>
  <Slip :tone="tone">
    <div>
      <strong class="mono">{{ baseline.fromName || '?' }} → {{ baseline.toName || '?' }}</strong>
      <span class="quiet"
        >{{ baseline.session }}, {{ minutes(baseline.to - baseline.from) }} in common{{
          baseline.length === null ? '' : `, ${length(baseline.length, units, -2)} ${lengthUnit(units)}`
        }}{{ chosen > 1 ? ` · ${chosen} chosen` : '' }}</span
      >
    </div>
    <p v-if="run === null">Not processed yet.</p>
    <p v-else>
      <span :class="run.solution === 'fixed' ? 'holds' : 'doubt'">{{ run.solution === 'fixed' ? '✓' : '▲' }} {{ run.solution }}</span>
      <template v-if="run.ratio !== null">, ratio {{ ratioText(run.ratio) }}</template
      >, {{ run.epochs }} epochs, {{ run.satellites }} satellites, {{ run.slips }} slips; {{ run.settings }}; base {{ run.baseFrom }}.
    </p>
    <p v-for="w in isSetting ? [] : run?.warnings" :key="w">{{ w }}.</p>
    <p v-for="s in baseline.stale" :key="s"><span class="doubt">Stale:</span> {{ s }}.</p>
    <p v-if="baseline.moves && run && !isSetting">
      Its receiver moved: the track is on the map<template v-if="stops.length > 0"
        >, with {{ stops.length }} stops averaged (largest sd {{ small(Math.max(...stops.map((s) => s.sdPlan)), units) }}
        {{ smallUnit(units) }} in plan).</template
      ><template v-else>; it stopped nowhere long enough, or is known by codes only.</template>
    </p>
    <form
      v-if="stops.length > 0 && baseline.stale.length === 0 && !isSetting"
      class="stops"
      @submit.prevent="emit('stops', { prefix: prefix.trim(), code: code.trim() })"
    >
      <span class="quiet">Points</span>
      <ElInput v-model="prefix" size="small" class="mono" maxlength="30" aria-label="Names of the stops begin with" />
      <span class="quiet">1 to {{ stops.length }}, code</span>
      <ElInput v-model="code" size="small" maxlength="30" aria-label="Code of the stops" placeholder="none" />
      <ElButton native-type="submit" size="small" data-test="take-stops" :disabled="!project.mayChange || prefix.trim() === ''"
        >Take the stops in as points</ElButton
      >
    </form>
    <div class="actions">
      <template v-if="part">
        <ElButton type="primary" data-test="keep" :disabled="!project.mayChange" @click="emit('trim', part)"
          >Keep {{ spoken(part) }} and process</ElButton
        ><kbd>t</kbd>
      </template>
      <ElButton v-if="trimmed" data-test="whole" :disabled="!project.mayChange" @click="emit('whole')">Whole session again</ElButton>
      <ElButton
        v-if="!baseline.moves"
        :type="part || run?.solution === 'fixed' ? undefined : 'primary'"
        data-test="epochs"
        :disabled="!project.mayChange"
        @click="emit('epochs')"
        >Solve epoch by epoch</ElButton
      ><kbd v-if="!baseline.moves">e</kbd>
      <ElButton data-test="again" :disabled="!project.mayChange" @click="isSetting = !isSetting">{{
        run === null ? 'Process with…' : 'Process again with…'
      }}</ElButton>
      <ElButton
        v-if="run && run.solution !== 'code' && !baseline.moves"
        data-test="accept"
        :disabled="!project.mayChange || baseline.stale.length > 0"
        @click="emit('accept')"
        >{{ baseline.accepted ? 'Accept again' : 'Accept to the network' }}{{ run.solution === 'float' ? ', float' : '' }}</ElButton
      >
    </div>
    <form v-if="isSetting" class="settings" @submit.prevent="process">
      <NumberInput v-model="mask" label="mask" unit="°" :digits="1" />
      <ElFormItem label="orbits"
        ><ElSelect v-model="orbits" size="small" aria-label="Orbits">
          <ElOption value="broadcast" label="broadcast" /><ElOption value="precise" label="precise" :disabled="!precise" /></ElSelect
      ></ElFormItem>
      <ElFormItem label="bands"
        ><ElSelect v-model="bands" size="small" aria-label="Bands">
          <ElOption value="both" label="both" /><ElOption value="first" label="first only" /></ElSelect
      ></ElFormItem>
      <ElFormItem label="ionosphere"
        ><ElSelect v-model="ionosphere" size="small" aria-label="Ionosphere">
          <ElOption value="weighted" label="by length" /><ElOption value="free" label="free of it" /></ElSelect
      ></ElFormItem>
      <ElFormItem label="without satellites"
        ><ElSelect v-model="leftOut" size="small" multiple filterable collapse-tags aria-label="Satellites left out" placeholder="none">
          <ElOption v-for="s in satellites" :key="s" :value="s" :label="s" /></ElSelect
      ></ElFormItem>
      <ElFormItem class="used" data-test="time-used" :label="`time ${spoken([instant(span[0]!), instant(span[1]!)])}`"
        ><ElSlider
          v-model="span"
          range
          size="small"
          :min="0"
          :max="minutesIn"
          :show-tooltip="false"
          range-start-label="Begin of the time used"
          range-end-label="End of the time used"
      /></ElFormItem>
      <ElButton type="primary" size="small" native-type="submit" data-test="process-with">Process</ElButton>
    </form>
    <div v-if="baseline.runs.length > 1 && !isSetting" class="scroll">
      <table class="runs">
        <thead>
          <tr>
            <th>run</th>
            <th>solution</th>
            <th class="right">ratio</th>
            <th class="right">rms {{ smallUnit(units) }}</th>
            <th class="right">sd plan</th>
            <th>less the run before, {{ smallUnit(units) }}</th>
            <th>with</th>
            <th>when</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in baseline.runs" :key="r.run">
            <td class="mono">{{ r.run }}</td>
            <td :class="r.solution === 'fixed' ? 'holds' : 'doubt'">{{ r.solution }}</td>
            <td class="mono right">{{ ratioText(r.ratio) }}</td>
            <td class="mono right">{{ small(r.rms, units) }}</td>
            <td class="mono right">{{ small(r.sdPlan, units) }}</td>
            <td class="mono">{{ lessText(r) }}</td>
            <td class="quiet">{{ r.settings }}, {{ r.epochs }} epochs</td>
            <td class="quiet">{{ when(r.at) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <LineageList v-if="run" :place="`baseline:${baseline.key}`" />
  </Slip>
</template>

<style scoped>
:deep(.slip) {
  grid-template-columns: minmax(0, 1fr);
}
p {
  margin: 0;
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 8px;
  align-items: center;
}
.actions .el-button + .el-button {
  margin-left: 0;
}
.settings {
  display: grid;
  grid-template-columns: 70px repeat(3, 1fr) 1.4fr;
  gap: 8px;
  align-items: start;
}
.settings .used {
  grid-column: 1 / 5;
  padding: 0 8px;
}
.settings .el-button {
  align-self: center;
}
.stops {
  display: flex;
  gap: 8px;
  align-items: center;
}
.stops .el-input {
  width: 90px;
}
.scroll {
  overflow-x: auto;
  min-width: 0;
}
.runs {
  border-collapse: collapse;
  font-size: 12px;
}
.runs th {
  text-align: left;
  font-weight: 400;
  color: var(--ink-soft);
}
.runs td,
.runs th {
  padding: 1px 10px 1px 0;
  white-space: nowrap;
}
.runs .right {
  text-align: right;
}
</style>

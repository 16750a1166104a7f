<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue';
import { bytes } from '../../api/client';
import type { HeldDrawingView, HeldView } from '../../api/types';
import { angle, height, length, lengthUnit, signedLength, small, smallUnit } from '../../format/units';
import { isTyping } from '../../frame/keys';
import { MapSketch, Surface3d } from '../../sketch';
import type { ScenePoint } from '../../sketch/scene';
import { useProject } from '../../state/project';
import { readMesh } from '../terrain/mesh';
import DeviceShell from './DeviceShell.vue';
import { fieldLines, fieldScene, stakeable, walk } from './fieldScene';
import { POSITIONS, useRover } from './useRover';

/** A field controller that is not there: it opens a package and knows nothing else of the project. Small screen, large keys. */
const props = defineProps<{ result: number; held: HeldView; drawing: HeldDrawingView }>();
const emit = defineEmits<{ brought: []; close: [] }>();
const project = useProject();
const units = computed(() => project.units);
const first = props.held.surfaces[0];

/** In the middle of the first surface, or beside the first point or line. */
function beginning(): [number, number] {
  const [w, s, e, n] = first?.box ?? [];
  if (w !== undefined && s !== undefined && e !== undefined && n !== undefined) return [0.5 * (w + e), 0.5 * (s + n)];
  const p = props.drawing.points[0];
  if (p) return [p.e - 3, p.n - 2];
  const v = props.drawing.lines[0]?.vertices[0];
  return v ? [v[0]!, v[1]!] : [props.drawing.alignments[0]?.e[0] ?? 0, props.drawing.alignments[0]?.n[0] ?? 0];
}
const r = useRover(props.result, beginning());
const view = ref<'plan' | '3d'>('plan');
const sheet = ref<'' | 'surfaces' | 'layers' | 'stake' | 'shots'>('');
const hidden = ref(new Set<string>());
const meshes = shallowRef<Record<number, ArrayBuffer>>({});
const pace = ref(0.5);
const code = ref('AS-BUILT');
const prefix = ref('AB-');

const mesh = computed(() => meshes.value[r.surface.value] ?? null);
const shape = computed(() => (hidden.value.has('surface') ? null : readMesh(mesh.value)));
const scene = computed(() => fieldScene(props.held, props.drawing, shape.value, hidden.value));
const lines3d = computed(() => fieldLines(props.held, props.drawing, hidden.value));
const lines = computed(() => stakeable(props.drawing));
const target = computed(() => props.drawing.points.find((p) => p.name === r.point.value) ?? null);
const moving = computed<ScenePoint[]>(() => [
  { name: 'rover', e: r.place.value[0], n: r.place.value[1], role: 'rover' },
  ...(target.value ? [{ name: target.value.name, e: target.value.e, n: target.value.n, role: 'target' as const }] : []),
]);
const lead = computed<[[number, number], [number, number]] | null>(() => {
  const f = r.fix.value;
  if (target.value) return [r.place.value, [target.value.e, target.value.n]];
  return f?.line ? [r.place.value, [f.line.e, f.line.n]] : null;
});
const stands = computed<[number, number, number] | null>(() => (r.fix.value ? [...r.place.value, r.fix.value.h] : null));
/** The surface fills the screen when it is chosen. */
const look = computed(() => props.held.surfaces[r.surface.value]?.box ?? null);
const surfaceName = computed(() => props.held.surfaces[r.surface.value]?.name ?? 'no surface');
const layers = computed(() => [
  ...(props.held.surfaces.length > 0 ? [{ name: 'surface', colour: '#aab4dc' }] : []),
  ...props.held.layers,
  ...props.drawing.alignments.map((a) => ({ name: a.name, colour: '#1f2733' })),
  ...(props.drawing.points.length > 0 ? [{ name: 'points', colour: '#6b7280' }] : []),
  ...(props.drawing.background.length > 0 ? [{ name: 'background', colour: '#b9b2a2' }] : []),
]);
const aside = (metres: number, one: string, other: string) => `${length(Math.abs(metres), units.value)} ${metres < 0 ? other : one}`;

async function choose(k: number) {
  sheet.value = '';
  if (k >= 0 && !meshes.value[k]) {
    meshes.value = { ...meshes.value, [k]: await bytes(project.path(`/handover/${props.result}/held/surfaces/${k}`)) };
  }
  r.surface.value = k;
  // Whoever changes to another surface wants to stand on it.
  const [w, s, e, n] = props.held.surfaces[k]?.box ?? [];
  const [x, y] = r.place.value;
  if (w !== undefined && s !== undefined && e !== undefined && n !== undefined && (x < w || x > e || y < s || y > n))
    r.go(0.5 * (w + e), 0.5 * (s + n), r.heading.value);
}
/** The next surface in one touch. */
function nextSurface() {
  if (props.held.surfaces.length > 0) void choose((r.surface.value + 1) % props.held.surfaces.length);
}
function toggle(name: string) {
  const now = new Set(hidden.value);
  if (!now.delete(name)) now.add(name);
  hidden.value = now;
}
function stake(kind: 'point' | 'line', what: string) {
  [r.point.value, r.line.value] = kind === 'point' ? [what, ''] : ['', what];
  sheet.value = '';
}
function startWalk() {
  const box = props.held.surfaces[r.surface.value]?.box;
  const [e, n] = r.place.value;
  r.walkAlong(walk((box ?? [e - 20, n - 20, e + 20, n + 20]) as [number, number, number, number]));
}
function pressed(event: KeyboardEvent) {
  if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return;
  const by = pace.value * (event.shiftKey ? 0.1 : 1);
  const steps: Record<string, [number, number]> = { ArrowUp: [0, by], ArrowDown: [0, -by], ArrowLeft: [-by, 0], ArrowRight: [by, 0] };
  const to = steps[event.key];
  if (!to) return;
  event.preventDefault();
  r.step(...to);
}
async function bring() {
  if (await r.bring(prefix.value)) emit('brought');
}

watch([r.surface, r.point, r.line], () => void r.measure());
onMounted(async () => {
  window.addEventListener('keydown', pressed);
  await choose(first ? 0 : -1);
  await r.measure();
});
onBeforeUnmount(() => {
  window.removeEventListener('keydown', pressed);
  r.stop();
});
</script>

<template>
  <DeviceShell label="Simulated controller">
    <div class="head">
      <ElButton
        text
        class="which"
        data-test="next-surface"
        :disabled="held.surfaces.length < 2"
        :aria-label="`Surface ${surfaceName}; touch for the next`"
        @click="nextSurface"
      >
        <b>{{ surfaceName }}</b>
        <span v-if="held.surfaces.length > 1" class="quiet"
          >{{ r.surface.value + 1 }} of {{ held.surfaces.length }}, touch for the next</span
        >
      </ElButton>
      <span class="mono holds">{{ r.quality.value }}</span>
    </div>
    <div class="view">
      <MapSketch
        v-if="view === 'plan'"
        :scene="scene"
        :moving="moving"
        :lead="lead"
        :look="look"
        bare
        still
        @place="(e: number, n: number) => r.go(e, n, r.heading.value)"
      />
      <Surface3d v-else :mesh="hidden.has('surface') ? null : mesh" :contours="[]" :lines="lines3d" :rover="stands" bare />
      <div v-if="sheet !== ''" class="over">
        <template v-if="sheet === 'layers'">
          <ElButton v-for="l in layers" :key="l.name" class="wide" :aria-pressed="!hidden.has(l.name)" @click="toggle(l.name)">
            <i :style="{ background: l.colour }" />{{ l.name }}<span class="quiet">{{ hidden.has(l.name) ? 'off' : 'on' }}</span>
          </ElButton>
        </template>
        <template v-else-if="sheet === 'stake'">
          <ElSelect
            :model-value="r.point.value"
            filterable
            placeholder="a point of the package"
            aria-label="Point to set out"
            data-test="stake-point"
            @change="(name: string) => stake('point', name)"
          >
            <ElOption v-for="p in drawing.points" :key="p.name" :value="p.name" :label="p.name" />
          </ElSelect>
          <ElSelect
            :model-value="r.line.value"
            filterable
            placeholder="a line or alignment"
            aria-label="Line to set out"
            data-test="stake-line"
            @change="(key: string) => stake('line', key)"
          >
            <ElOption v-for="l in lines" :key="l.key" :value="l.key" :label="l.name" />
          </ElSelect>
          <ElButton class="wide" @click="stake('point', '')">nothing: height alone</ElButton>
        </template>
        <template v-else-if="sheet === 'shots'">
          <p v-if="r.shots.value.length === 0">No shot yet. Stand where it is built, and press shoot.</p>
          <table v-else class="mono">
            <tr v-for="(s, i) in r.shots.value" :key="i">
              <td>{{ prefix }}{{ i + 1 }}</td>
              <td>{{ s.count }} positions</td>
              <td>{{ s.above === null ? '' : `${small(s.above, units, true)} ${smallUnit(units)}` }}</td>
              <td class="quiet">{{ s.note }}</td>
            </tr>
          </table>
          <label>names begin with <ElInput v-model="prefix" maxlength="20" aria-label="Names begin with" /></label>
          <label>code <ElInput v-model="code" maxlength="60" aria-label="Code of shots" /></label>
          <ElButton
            type="primary"
            class="wide"
            data-test="bring-shots"
            :disabled="r.shots.value.length === 0 || !project.mayChange"
            @click="bring"
            >bring them into the project</ElButton
          >
        </template>
      </div>
    </div>
    <div class="figures">
      <div>
        <span class="quiet">height above design</span>
        <strong v-if="r.counting.value > 0" class="mono big" data-test="counting"
          >{{ Math.min(r.counting.value, POSITIONS) }} of {{ POSITIONS }}</strong
        >
        <strong v-else class="mono big" :class="{ off: r.fix.value?.above !== null }" data-test="above">{{
          r.fix.value?.above == null ? 'beside it' : signedLength(r.fix.value.above, units)
        }}</strong>
        <span v-if="r.fix.value?.above != null"
          ><b>{{ r.fix.value.above > 0 ? 'cut' : 'fill' }} {{ small(Math.abs(r.fix.value.above), units) }} {{ smallUnit(units) }}</b></span
        >
        <span class="mono"
          >{{ height(r.fix.value?.h, units)
          }}<template v-if="r.fix.value?.design != null"> − {{ height(r.fix.value.design, units) }}</template></span
        >
      </div>
      <div v-if="r.fix.value?.point" data-test="to-point">
        <span class="quiet">to {{ r.point.value }}</span>
        <strong class="mono big">{{ length(r.fix.value.point.distance, units) }}</strong>
        <span class="mono">{{ angle(r.fix.value.point.bearing, { ...units, angles: 0 }) }}</span>
        <span class="mono">{{ aside(r.fix.value.point.forward, 'ahead', 'behind') }}</span>
        <span class="mono">{{ aside(r.fix.value.point.right, 'right', 'left') }}</span>
        <span v-if="r.fix.value.point.fill !== null" class="mono">height {{ signedLength(r.fix.value.point.fill, units) }}</span>
      </div>
      <div v-else-if="r.fix.value?.line" data-test="to-line">
        <span class="quiet">along {{ lines.find((l) => l.key === r.line.value)?.name }}</span>
        <strong class="mono big">{{ length(r.fix.value.line.station, units) }}</strong>
        <span class="mono">{{ aside(r.fix.value.line.offset, 'right', 'left') }}</span>
        <span v-if="r.fix.value.line.fill !== null" class="mono">height {{ signedLength(r.fix.value.line.fill, units) }}</span>
        <span v-if="r.fix.value.line.beyond" class="doubt">beyond its end</span>
      </div>
      <div v-else><span class="quiet">nothing is set out; press stake</span></div>
    </div>

    <template #keys>
      <ElButton data-test="field-plan" :type="view === 'plan' ? 'primary' : 'default'" @click="view = 'plan'">plan</ElButton>
      <ElButton data-test="field-3d" :type="view === '3d' ? 'primary' : 'default'" :disabled="!mesh" @click="view = '3d'">3D</ElButton>
      <ElButton
        data-test="field-layers"
        :type="sheet === 'layers' ? 'primary' : 'default'"
        @click="sheet = sheet === 'layers' ? '' : 'layers'"
        >layers</ElButton
      >
      <ElButton data-test="field-stake" :type="sheet === 'stake' ? 'primary' : 'default'" @click="sheet = sheet === 'stake' ? '' : 'stake'"
        >stake</ElButton
      >
      <ElButton data-test="field-walk" :type="r.isWalking.value ? 'primary' : 'default'" @click="r.isWalking.value ? r.stop() : startWalk()"
        >walk</ElButton
      >
      <ElButton data-test="field-shoot" :disabled="r.counting.value > 0" @click="r.shoot(code)">shoot</ElButton>
      <ElButton data-test="field-shots" :type="sheet === 'shots' ? 'primary' : 'default'" @click="sheet = sheet === 'shots' ? '' : 'shots'"
        >shots {{ r.shots.value.length }}</ElButton
      >
      <ElButton data-test="field-close" @click="emit('close')">close</ElButton>
    </template>
    <template #hint>
      simulated controller: arrow keys lead the rover by
      <ElSelect v-model="pace" class="pace" size="small" aria-label="Step of the rover"
        ><ElOption v-for="p in [0.05, 0.5, 5]" :key="p" :value="p" :label="`${length(p, units)} ${lengthUnit(units)}`" /></ElSelect
      >, with Shift by a tenth; a click puts it there
    </template>
  </DeviceShell>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
  padding: 6px 12px;
  background: var(--paper-deep);
}
.which {
  height: auto;
  padding: 4px 0;
}
.which b {
  font-size: 16px;
  margin-right: 8px;
  color: var(--ink);
}
.view {
  flex: 1;
  min-height: 120px;
  position: relative;
  background: var(--sketch);
}
.over {
  position: absolute;
  inset: 0 0 auto 0;
  max-height: 100%;
  overflow: auto;
  display: grid;
  gap: 6px;
  padding: 10px 12px;
  background: color-mix(in srgb, var(--page) 94%, transparent);
  border-bottom: 1px solid var(--rule);
}
.over label {
  display: grid;
  grid-template-columns: 120px 1fr;
  align-items: center;
}
.over td {
  padding: 2px 8px 2px 0;
}
.wide {
  height: 38px;
  margin: 0;
  justify-content: flex-start;
}
.wide i {
  width: 18px;
  height: 4px;
  margin-right: 8px;
}
.wide .quiet {
  margin-left: 8px;
}
.figures {
  display: grid;
  grid-template-columns: 1fr 1fr;
  border-top: 1px solid var(--rule);
  min-height: 132px;
}
.figures > div {
  display: flex;
  flex-direction: column;
  gap: 2px;
  padding: 8px 12px;
}
.figures > div + div {
  border-left: 1px solid var(--rule);
}
.big {
  font-size: 25px;
  line-height: 1.25;
}
.big.off {
  color: var(--vermilion);
}
.pace {
  width: 92px;
}
</style>

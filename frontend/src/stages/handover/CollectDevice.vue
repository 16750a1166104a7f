<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { post, request } from '../../api/client';
import type { CollectedRequest, FixesRequest, FixView } from '../../api/types';
import FilePick from '../../fields/FilePick.vue';
import { isTyping } from '../../frame/keys';
import { MapSketch } from '../../sketch';
import { pointsScene, type ScenePath, type ScenePoint } from '../../sketch/scene';
import { useProject } from '../../state/project';
import DeviceShell from './DeviceShell.vue';
import { beginning, logged, missingIn, placesNeeded, signOf, type FeatureType } from './catalogue';

/** The form of the field, as it works there: choose a type, stand, wait until enough positions are averaged, say what is asked. */
const props = defineProps<{ name: string; version: number; result: number; types: FeatureType[] }>();
const emit = defineEmits<{ close: [] }>();
const project = useProject();
type Collected = CollectedRequest['features'][number];
const code = ref('');
const values = ref<Record<string, string>>({});
const places = ref<Collected['places']>([]);
const collected = ref<Collected[]>([]);
const counting = ref(0);
const middle = project.points.find((p) => p.e !== null && p.known === 'global');
const at = ref<[number, number]>([middle?.e ?? 0, middle?.n ?? 0]);
const SECOND = 150;
const STEP = 2;

const type = computed(() => props.types.find((t) => t.code === code.value) ?? null);
const needed = computed(() => (type.value ? placesNeeded(type.value) : 1));
const missing = computed(() => {
  if (!type.value) return '';
  const more = needed.value - places.value.length;
  return more > 0 ? `${more} more ${more === 1 ? 'place' : 'places'}` : missingIn(type.value, values.value);
});
const paths = computed<ScenePath[]>(() =>
  [...collected.value, { code: code.value, places: places.value }]
    .filter((f) => f.places.length > 1)
    .map((f) => ({
      path: f.places.flatMap((p) => [p.e, p.n]),
      kind: 'drawn' as const,
      colour: props.types.find((t) => t.code === f.code)?.colour ?? '#2a5bd7',
    })),
);
const scene = computed(() => ({ ...pointsScene(project.points), paths: paths.value }));
const moving = computed<ScenePoint[]>(() => [
  { name: 'rover', e: at.value[0], n: at.value[1], role: 'rover' },
  ...[...collected.value.flatMap((f) => f.places), ...places.value].map((p, i) => ({
    name: `${i + 1}`,
    e: p.e,
    n: p.n,
    role: 'new' as const,
  })),
]);

function choose(t: FeatureType) {
  isLogging.value = false;
  window.clearInterval(clock);
  [code.value, values.value, places.value] = [t.code, beginning(t, new Date()), []];
}
/** Where it is logged by itself, and how many metres on the next place is. */
const isLogging = ref(false);
let last: [number, number] = [0, 0];
let onward = 0;
let clock = 0;
const mayLog = computed(() => type.value !== null && type.value.kind !== 'point' && type.value.logging !== 'none');
function log() {
  const t = type.value;
  if (!t || !mayLog.value) return;
  isLogging.value = !isLogging.value;
  window.clearInterval(clock);
  if (!isLogging.value) return;
  [last, onward] = [at.value, t.every];
  void place([at.value]);
  if (t.logging === 'time') clock = window.setInterval(() => void place([at.value]), Math.max(1, t.every) * SECOND);
}
/** By distance: every place that has been passed. */
async function passed() {
  const t = type.value;
  if (!t || !isLogging.value || t.logging !== 'distance') return;
  const way = logged(last, at.value, t.every, onward);
  [last, onward] = [at.value, way.left];
  if (way.at.length > 0) await place(way.at);
}
let queue = Promise.resolve();
/** Places as they are logged, one after the other: each the mean of as many positions as the type asks for. */
function place(where: [number, number][]): Promise<void> {
  const t = type.value;
  if (!t) return queue;
  const count = Math.min(300, t.positions);
  queue = queue.then(async () => {
    for (let from = 0; from < where.length; from += Math.max(1, Math.floor(300 / count))) {
      const some = where.slice(from, from + Math.max(1, Math.floor(300 / count)));
      const body: FixesRequest = { places: some.flatMap(([e, n]) => Array.from({ length: count }, () => [e, n, 0])) };
      try {
        const fixes = await post<FixView[]>(project.path('/handover/rover/fixes'), body);
        if (type.value?.code !== t.code) return;
        places.value = [...places.value, ...some.map((_, i) => meanOf(fixes.slice(i * count, (i + 1) * count)))];
      } catch (e) {
        isLogging.value = false;
        project.say('bad', String(e instanceof Error ? e.message : e));
        return;
      }
    }
  });
  return queue;
}
function meanOf(fixes: FixView[]): Collected['places'][number] {
  const mean = (of: (f: FixView) => number) => fixes.reduce((sum, f) => sum + of(f), 0) / fixes.length;
  const sd = mean((f) => f.sd) / Math.sqrt(fixes.length);
  return { e: mean((f) => f.e), n: mean((f) => f.n), h: mean((f) => f.h), sd, positions: fixes.length };
}
watch(at, passed);

/** One second a position, as long as the type asks for; the mean is the place. */
async function measure() {
  const t = type.value;
  if (!t || counting.value > 0) return;
  counting.value = 1;
  try {
    const here = [at.value[0], at.value[1], 0];
    const body: FixesRequest = { places: Array.from({ length: Math.min(300, t.positions) }, () => here) };
    const fixes = await post<FixView[]>(project.path('/handover/rover/fixes'), body);
    for (let i = 0; i < fixes.length; i += 1) {
      counting.value = i + 1;
      await new Promise((r) => window.setTimeout(r, SECOND));
    }
    places.value = [...places.value, meanOf(fixes)];
  } catch (e) {
    project.say('bad', String(e instanceof Error ? e.message : e));
  } finally {
    counting.value = 0;
  }
}
function keep() {
  if (!type.value || missing.value !== '') return;
  const said = Object.fromEntries(Object.entries(values.value).filter(([, v]) => v.trim() !== ''));
  collected.value = [...collected.value, { code: code.value, solution: 'carrier', places: places.value, attributes: said }];
  choose(type.value);
}
/** Photos and files go to Intake first, as they are; what is collected has their names. */
const taken = new Map<string, File>();
function take(attribute: string, file: File | undefined) {
  values.value[attribute] = file?.name ?? '';
  if (file) taken.set(file.name, file);
}
async function sendFiles(): Promise<boolean> {
  const named = new Set(collected.value.flatMap((f) => Object.values(f.attributes ?? {})));
  for (const [name, file] of taken) {
    if (!named.has(name)) continue;
    const form = new FormData();
    form.append('file', file, name);
    if (!(await project.attempt(() => request('POST', project.path('/intake'), form)))) return false;
    taken.delete(name);
  }
  return true;
}
async function bring() {
  if (!(await sendFiles())) return;
  const ok = await project.attempt(
    () =>
      post(project.path(`/handover/catalogues/versions/${props.result}/collected`), {
        features: collected.value,
      } satisfies CollectedRequest),
    `${collected.value.length} ${collected.value.length === 1 ? 'feature agrees' : 'features agree'} with version ${props.version} and ${collected.value.length === 1 ? 'is' : 'are'} in the project.`,
  );
  if (ok) collected.value = [];
}
function pressed(event: KeyboardEvent) {
  const step: Record<string, [number, number]> = {
    ArrowUp: [0, STEP],
    ArrowDown: [0, -STEP],
    ArrowLeft: [-STEP, 0],
    ArrowRight: [STEP, 0],
  };
  const by = step[event.key];
  if (!by || isTyping(event) || event.ctrlKey || counting.value > 0) return;
  event.preventDefault();
  at.value = [at.value[0] + by[0], at.value[1] + by[1]];
}
onMounted(() => {
  window.addEventListener('keydown', pressed);
  if (props.types[0]) choose(props.types[0]);
});
onBeforeUnmount(() => {
  window.removeEventListener('keydown', pressed);
  window.clearInterval(clock);
});
</script>

<template>
  <DeviceShell label="Simulated controller, collecting">
    <div class="head">
      <b>{{ name }}</b><span class="quiet">version {{ version }}</span
      ><span class="spacer" /><span class="mono holds">fixed 8 mm</span>
    </div>
    <div class="codes">
      <ElButton
        v-for="t in types"
        :key="t.code"
        :type="t.code === code ? 'primary' : 'default'"
        :data-test="`collect-${t.code}`"
        @click="choose(t)"
        ><img :src="signOf(t)" alt="" />{{ t.alias || t.code }}</ElButton
      >
    </div>
    <div class="view"><MapSketch :scene="scene" :moving="moving" bare still @place="(e: number, n: number) => (at = [e, n])" /></div>
    <div v-if="type" class="form">
      <label v-for="a in type.attributes" :key="a.name"
        ><span>{{ a.unit ? `${a.name}, ${a.unit}` : a.name }}<b v-if="a.required" title="must be said"> *</b></span>
        <ElSelect v-if="a.kind === 'choice'" v-model="values[a.name]" :aria-label="a.name"
          ><ElOption v-for="o in a.options" :key="o" :value="o" :label="o"
        /></ElSelect>
        <FilePick
          v-else-if="a.kind === 'photo' || a.kind === 'file'"
          :text="values[a.name] || (a.kind === 'photo' ? 'take a photo' : 'choose a file')"
          :accept="a.kind === 'photo' ? 'image/*' : undefined"
          :test="`collect-file-${a.name}`"
          @files="([file]) => take(a.name, file)"
        />
        <ElInput v-else v-model="values[a.name]" :maxlength="a.kind === 'text' ? a.length : 40" :aria-label="a.name" />
      </label>
    </div>
    <div class="state mono">
      <span v-if="counting > 0" data-test="averaging">averaging {{ counting }} of {{ type?.positions }}</span>
      <span v-else-if="isLogging" data-test="logging">logging every {{ type?.every }} {{ type?.logging === 'time' ? 's' : 'm' }}</span>
      <span v-else-if="missing" class="doubt">{{ missing }}</span>
      <span v-else class="holds">ready to keep</span>
      <span class="spacer" /><span>{{ places.length }} {{ places.length === 1 ? 'place' : 'places' }}</span>
    </div>

    <template #keys>
      <ElButton
        data-test="collect-measure"
        :disabled="counting > 0 || !type || (type.kind === 'point' && places.length > 0)"
        @click="measure"
        >measure</ElButton
      >
      <ElButton v-if="mayLog" data-test="collect-log" :type="isLogging ? 'primary' : 'default'" :disabled="counting > 0" @click="log">{{
        isLogging ? 'stop' : 'log'
      }}</ElButton>
      <ElButton data-test="collect-keep" :disabled="isLogging || counting > 0 || !type || missing !== ''" @click="keep">keep</ElButton>
      <ElButton data-test="collect-bring" :disabled="collected.length === 0 || !project.mayChange" @click="bring"
        >bring {{ collected.length }}</ElButton
      >
      <ElButton @click="emit('close')">close</ElButton>
    </template>
    <template #hint
      >simulated controller: arrow keys or a click lead the rover; what is brought is held against version {{ version }}</template
    >
  </DeviceShell>
</template>

<style scoped>
.head,
.state {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 8px 12px;
  background: var(--paper-deep);
}
.codes {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 8px 12px;
}
.codes .el-button {
  height: 36px;
  margin: 0;
}
.codes img {
  margin-right: 7px;
  background: var(--paper);
}
.view {
  flex: 1;
  min-height: 110px;
  position: relative;
  background: var(--sketch);
}
.form {
  display: grid;
  gap: 4px;
  padding: 8px 12px;
  max-height: 210px;
  overflow: auto;
}
.form label {
  display: grid;
  grid-template-columns: 120px 1fr;
  align-items: center;
}
</style>

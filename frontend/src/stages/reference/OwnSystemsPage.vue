<script setup lang="ts">
import { computed, type Ref, ref, watch } from 'vue';
import { get, post, reasonOf } from '../../api/client';
import { latest } from '../../api/latest';
import type {
  CustomSystemRequest,
  DesignRequest,
  DesignView,
  GroundRequest,
  ReferenceView,
  SystemDetail,
  TriedView,
} from '../../api/types';
import AngleInput from '../../fields/AngleInput.vue';
import NumberInput from '../../fields/NumberInput.vue';
import { sayAngle } from '../../format/angles';
import { length, signed } from '../../format/units';
import type { Scene } from '../../sketch/scene';
import { useProject } from '../../state/project';
import ChangeSheet from './ChangeSheet.vue';
import SystemFacts from './SystemFacts.vue';

type Corner = Ref<number | null>;

const props = defineProps<{ view: ReferenceView }>();
const emit = defineEmits<{ scene: [scene: Partial<Scene> | null]; changed: [] }>();
const project = useProject();
const units = computed(() => project.units);
const how = ref<'method' | 'text' | 'low' | 'ground'>('method');
const name = ref('');
const definition = ref('');
const method = ref(9807);
const geodetic = ref(props.view.system?.geodeticReference || 'EPSG:4258');
const values = ref<Record<string, number | null>>({ '8805': 1 });
const lat = ref<number | null>(null);
const lon = ref<number | null>(null);
const tried = ref<TriedView | null>(null);
const height = ref<number | null>(props.view.meanHeight === null ? null : Math.round(props.view.meanHeight));
const design = ref<DesignView | null>(null);
const designProblem = ref('');
// The corners of a site without points.
const [south, west, north, east] = [0, 1, 2, 3].map(() => ref<number | null>(null)) as [Corner, Corner, Corner, Corner];
const point = ref('');
const opened = ref<SystemDetail | null>(null);
const picker = ref<HTMLInputElement>();
const changing = ref<{ reference: string; name: string } | null>(null);
const parameters = computed(() => props.view.methods.find((m) => m.code === method.value)?.parameters ?? []);
const marks = computed(() => project.points.filter((p) => p.known === 'global' && p.e !== null && p.h !== null && p.role !== 'surveyed'));

const request = computed<CustomSystemRequest>(() => ({
  name: name.value.trim() || 'unnamed',
  definition: how.value === 'text' ? definition.value : '',
  method: method.value,
  geodetic: geodetic.value,
  parameters: Object.fromEntries(
    parameters.value.map((p) => [String(p.code), values.value[String(p.code)]]).filter(([, v]) => v !== null && v !== undefined),
  ) as Record<string, number>,
  lat: lat.value,
  lon: lon.value,
}));

const tries = latest();
watch(
  [request, how],
  () => {
    tries.forget();
    if (how.value !== 'method' && how.value !== 'text') return;
    if (how.value === 'text' && definition.value.trim() === '') {
      tried.value = null;
      return;
    }
    void tries.ask(
      () => post<TriedView>(project.path('/reference/custom/try'), request.value),
      (result) => (tried.value = result),
      (e) => (tried.value = { problem: reasonOf(e), wkt: '' } as TriedView),
    );
  },
  { immediate: true },
);

const site = computed<DesignRequest>(() => ({
  height: height.value!,
  ...(props.view.extent ? {} : { south: south.value, west: west.value, north: north.value, east: east.value }),
  ...(props.view.system ? {} : { geodetic: geodetic.value }),
}));
const sited = computed(() => props.view.extent !== null || ![south, west, north, east].some((c) => c.value === null));
const designs = latest();
watch(
  [site, how],
  () => {
    design.value = null;
    designProblem.value = '';
    designs.forget();
    emit('scene', null);
    if (how.value !== 'low' || height.value === null || !sited.value) return;
    void designs.ask(
      () => post<DesignView>(project.path('/reference/design'), site.value),
      show,
      (e) => (designProblem.value = reasonOf(e)),
    );
  },
  { immediate: true },
);

function show(view: DesignView) {
  design.value = view;
  emit('scene', {
    notes: view.samples
      .filter((_, i) => Math.floor(i / 9) % 2 === 0 && (i % 9) % 2 === 0)
      .map((s) => ({
        e: s.e,
        n: s.n,
        text: `${signed(s.ppm.toFixed(1))} ppm`,
        tone: Math.abs(s.ppm) > 20 ? 'bad' : Math.abs(s.ppm) > 5 ? 'doubt' : 'good',
      })),
  });
}

async function keep() {
  const path = how.value === 'low' ? '/reference/design' : how.value === 'ground' ? '/reference/ground' : '/reference/custom';
  const body =
    how.value === 'low'
      ? ({ ...site.value, name: name.value.trim() } satisfies DesignRequest)
      : how.value === 'ground'
        ? ({ point: point.value, name: name.value.trim() } satisfies GroundRequest)
        : request.value;
  if (await project.attempt(() => post(project.path(path), body), `${name.value.trim()} is kept with the project.`)) {
    name.value = '';
    emit('changed');
  }
}

const ready = computed(
  () =>
    name.value.trim() !== '' &&
    (how.value === 'low'
      ? design.value !== null
      : how.value === 'ground'
        ? point.value !== ''
        : tried.value !== null && tried.value.wkt !== ''),
);

async function bring(event: Event) {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (!file) return;
  if (file.size > 20000) return project.say('bad', `${file.name} is too long to be a definition (20 kB).`);
  definition.value = (await file.text()).trim();
  if (name.value === '') name.value = file.name.replace(/\.[^.]+$/, '');
}

async function open(id: number) {
  opened.value =
    opened.value?.reference === `custom:${id}` ? null : await get<SystemDetail>(project.path(`/reference/system?reference=custom:${id}`));
}

function angleKind(label: string): 'lat' | 'lon' | 'angle' {
  return /latitude/i.test(label) ? 'lat' : /longitude/i.test(label) ? 'lon' : 'angle';
}
</script>

<template>
  <ChangeSheet
    v-if="changing"
    :target="changing.reference"
    :target-name="changing.name"
    :view="view"
    @done="changing = null"
    @back="changing = null"
    @scene="(s) => emit('scene', s)"
  />
  <div v-else class="scroll own">
    <section v-if="view.customs.length > 0" class="kept" aria-label="Systems of this project">
      <div v-for="c in view.customs" :key="c.id" class="row">
        <strong>{{ c.name }}</strong>
        <button class="link" @click="open(c.id)">{{ opened?.reference === `custom:${c.id}` ? 'close' : 'open' }}</button>
        <a class="link" :href="project.path(`/reference/custom/${c.id}.wkt`)">WKT2</a>
        <a class="link" :href="project.path(`/reference/custom/${c.id}.proj`)">PROJ</a>
        <span v-if="project.overview!.reference === `custom:${c.id}`" class="holds">✓ in use</span>
        <button v-else class="link" :disabled="!project.mayChange" @click="changing = { reference: `custom:${c.id}`, name: c.name }">
          change to it
        </button>
      </div>
      <SystemFacts v-if="opened" :system="opened" />
    </section>
    <div class="switch" role="tablist" aria-label="How the system is made">
      <button
        v-for="[key, label] in [
          ['method', 'By method'],
          ['text', 'From a text'],
          ['low', 'Low distortion'],
          ['ground', 'Scaled to the ground'],
        ] as const"
        :key="key"
        role="tab"
        class="tab"
        :data-test="`own-${key}`"
        :aria-selected="how === key"
        @click="how = key"
      >
        {{ label }}
      </button>
    </div>

    <template v-if="how === 'method'">
      <div class="grid">
        <label class="field wide"
          ><span class="label">projection method</span
          ><select v-model.number="method" class="input" data-test="own-method-code">
            <option v-for="m in view.methods" :key="m.code" :value="m.code">{{ m.name }}</option>
          </select></label
        >
        <label class="field"><span class="label">latitudes and longitudes in</span><input v-model.lazy="geodetic" class="input" /></label>
        <template v-for="p in parameters" :key="`${method} ${p.code}`">
          <AngleInput
            v-if="p.kind === 'angle'"
            :model-value="values[String(p.code)] ?? null"
            @update:model-value="(v) => (values[String(p.code)] = v)"
            :label="p.name.toLowerCase()"
            :kind="angleKind(p.name)"
          />
          <NumberInput
            v-else
            :model-value="values[String(p.code)] ?? null"
            @update:model-value="(v) => (values[String(p.code)] = v)"
            :label="p.name.toLowerCase()"
            :unit="p.kind === 'length' ? 'm' : ''"
            :digits="p.kind === 'length' ? 4 : 10"
          />
        </template>
      </div>
    </template>
    <div v-else-if="how === 'text'" class="field">
      <div class="row">
        <label for="own-definition" class="label">WKT2 or PROJ string</label>
        <span class="spacer" />
        <button class="link" @click="picker?.click()">from a file</button>
        <input ref="picker" type="file" accept=".wkt,.wkt2,.prj,.proj,.txt,text/plain" hidden data-test="own-file" @change="bring" />
      </div>
      <textarea
        id="own-definition"
        v-model="definition"
        class="input mono text"
        data-test="own-definition"
        spellcheck="false"
        placeholder="PROJCRS[…] or +proj=tmerc +lat_0=… +lon_0=… +ellps=GRS80"
      />
    </div>
    <template v-else-if="how === 'low'">
      <p class="quiet">
        Grid distances of such a system agree with those on the ground at the site’s height, so that drawings and tapes say the same.
      </p>
      <div class="grid">
        <NumberInput v-model="height" label="ellipsoidal height of the site" unit="m" :digits="1" data-test="own-height" />
      </div>
      <p v-if="designProblem" class="notice bad" role="alert">{{ designProblem }}</p>
      <template v-if="view.extent === null">
        <p class="quiet">No point is known globally yet, so give the corners of the site.</p>
        <div class="grid">
          <AngleInput v-model="south" label="south" kind="lat" data-test="own-south" />
          <AngleInput v-model="north" label="north" kind="lat" data-test="own-north" />
          <AngleInput v-model="west" label="west" kind="lon" data-test="own-west" />
          <AngleInput v-model="east" label="east" kind="lon" data-test="own-east" />
          <label v-if="view.system === null" class="field"
            ><span class="label">latitudes and longitudes in</span><input v-model.lazy="geodetic" class="input"
          /></label>
        </div>
      </template>
      <template v-if="design">
        <dl data-test="design">
          <dt>proposal</dt>
          <dd>{{ design.method }}</dd>
          <dt>datum</dt>
          <dd>{{ design.datum }}</dd>
          <dt>scale at its axis</dt>
          <dd class="mono">{{ design.scale.toFixed(8) }}</dd>
          <dt>axis</dt>
          <dd>{{ sayAngle(design.originLat, 'lat', 0) }}, {{ sayAngle(design.originLon, 'lon', 0) }}</dd>
          <dt>over the site</dt>
          <dd class="mono">
            {{ signed(design.min.toFixed(2)) }} to {{ signed(design.max.toFixed(2)) }} ppm, mean {{ signed(design.mean.toFixed(2)) }}
          </dd>
          <dt>{{ design.otherMethod }}</dt>
          <dd class="mono quiet">{{ signed(design.otherMin.toFixed(2)) }} to {{ signed(design.otherMax.toFixed(2)) }} ppm</dd>
          <template v-if="design.projectMin !== null && design.projectMax !== null">
            <dt>the project’s system</dt>
            <dd class="mono quiet">{{ signed(design.projectMin.toFixed(1)) }} to {{ signed(design.projectMax.toFixed(1)) }} ppm</dd>
          </template>
        </dl>
      </template>
    </template>
    <template v-else>
      <p class="quiet">
        The project’s projection scaled by the inverse of the combined factor at one point; that point keeps its coordinates.
      </p>
      <label class="field half"
        ><span class="label">about the point</span
        ><select v-model="point" class="input" data-test="own-point">
          <option value="">choose</option>
          <option v-for="p in marks" :key="p.name">{{ p.name }}</option>
        </select></label
      >
    </template>

    <section v-if="how === 'method' || how === 'text'" class="check" aria-label="Check with a known point">
      <h2>Check with a known point</h2>
      <div class="grid">
        <AngleInput v-model="lat" label="latitude" kind="lat" :extent="view.extent" id="own-lat" />
        <AngleInput v-model="lon" label="longitude" kind="lon" :extent="view.extent" id="own-lon" />
      </div>
      <p v-if="tried?.problem" class="notice" data-test="own-problem">{{ tried.problem }}</p>
      <p v-else-if="tried && tried.e !== null" data-test="own-tried">
        <span class="mono"
          ><strong>E {{ length(tried.e, units, 1) }} N {{ length(tried.n, units, 1) }}</strong> {{ units.length }}</span
        ><span class="quiet">
          · scale {{ tried.scale?.toFixed(8) }} · convergence {{ sayAngle(tried.convergence ?? 0, 'angle', 1) }} · on
          {{ tried.datum }}</span
        >
      </p>
      <p v-else-if="tried" class="quiet">Read: {{ tried.name }}, on {{ tried.datum }}. Type a latitude and longitude to see the grid.</p>
    </section>
    <div class="keep">
      <label class="field half"
        ><span class="label">name</span><input v-model="name" class="input" maxlength="160" data-test="own-name"
      /></label>
      <button class="button main" data-test="own-keep" :disabled="!project.mayChange || !ready" @click="keep">Keep with the project</button>
    </div>
  </div>
</template>

<style scoped>
.own {
  display: grid;
  gap: 10px;
  align-content: start;
  padding: 0 8px 14px 0;
  flex: 1;
}
div.field > .row {
  display: flex;
}
.kept .row {
  display: flex;
  gap: 14px;
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
}
.kept .row strong {
  flex: 1;
}
.switch {
  display: flex;
  gap: 16px;
}
.tab {
  padding: 2px 0 3px;
  color: var(--ink-soft);
  border-bottom: 2px solid transparent;
}
.tab[aria-selected='true'] {
  color: var(--ink);
  font-weight: 600;
  border-bottom-color: var(--rule-strong);
}
.grid {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 8px 12px;
}
.wide {
  grid-column: span 2;
}
.half {
  width: 260px;
}
.text {
  height: 120px;
  padding: 6px 8px;
  text-align: left;
  resize: vertical;
  font-size: 12px;
}
dl {
  display: grid;
  grid-template-columns: 170px 1fr;
  gap: 3px 12px;
  margin: 0;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
.check {
  display: grid;
  gap: 6px;
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
.keep {
  display: flex;
  gap: 12px;
  align-items: flex-end;
}
</style>

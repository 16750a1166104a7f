<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { bytes, get, post, put } from '../../api/client';
import type { Conflict, ConflictField } from '../../api/conflict';
import type { LineView, SurfaceRequest, SurfaceView, TerrainView, VolumeRequest } from '../../api/types';
import type { Column } from '../../figures/columns';
import FiguresTable from '../../figures/FiguresTable.vue';
import ConflictSheet from '../../frame/ConflictSheet.vue';
import LineageList from '../../frame/LineageList.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { area, fromDisplayLength, length, volume, when } from '../../format/units';
import { MapSketch, Surface3d } from '../../sketch';
import { pointsScene, type Scene, type ScenePath } from '../../sketch/scene';
import type { Contour3d } from '../../sketch/Surface3d.vue';
import { useProject } from '../../state/project';
import SurfaceForm from './SurfaceForm.vue';

// The 3D library is large and comes only when it is asked for.

const project = useProject();
const route = useRoute();
const terrain = ref<TerrainView | null>(null);
const chosen = ref(0);
const editing = ref<'none' | 'new' | 'change'>('none');
const view = ref<'map' | '3d'>('map');
const mesh = ref<ArrayBuffer | null>(null);
const contours = ref<Contour3d[]>([]);
const elevation = ref('');
const drawing = ref(false);
const drawn = ref<[number, number][] | null>(null);
const showTriangles = ref(false);

const surface = computed<SurfaceView | null>(
  () => terrain.value?.surfaces.find((s) => s.id === chosen.value) ?? terrain.value?.surfaces[0] ?? null,
);
const units = computed(() => project.units);

const columns = computed<Column<SurfaceView>[]>(() => [
  { key: 'name', title: 'surface', width: 'minmax(120px, 1fr)', value: (s) => s.name },
  { key: 'points', title: 'points', width: '60px', align: 'right', mono: true, value: (s) => s.points },
  { key: 'triangles', title: 'triangles', width: '70px', align: 'right', mono: true, value: (s) => s.triangles },
  {
    key: 'area',
    title: 'plan area',
    width: '104px',
    align: 'right',
    mono: true,
    value: (s) => s.planArea,
    text: (s) => area(s.planArea, units.value),
  },
  {
    key: 'low',
    title: 'lowest',
    unit: units.value.length,
    width: '74px',
    align: 'right',
    mono: true,
    value: (s) => s.hMin,
    text: (s) => length(s.hMin, units.value, -1),
  },
  {
    key: 'high',
    title: 'highest',
    unit: units.value.length,
    width: '78px',
    align: 'right',
    mono: true,
    value: (s) => s.hMax,
    text: (s) => length(s.hMax, units.value, -1),
  },
  { key: 'state', title: '', width: '64px', value: (s) => (!s.computed ? 'not made' : s.stale.length > 0 ? 'stale' : 'fresh') },
]);

function meshEdges(buffer: ArrayBuffer): ScenePath[] {
  const head = new DataView(buffer);
  const n = head.getUint32(0, true);
  const t = head.getUint32(4, true);
  const v = new Float64Array(buffer.slice(8, 8 + 24 * n));
  const f = new Uint32Array(buffer.slice(8 + 24 * n, 8 + 24 * n + 12 * t));
  const paths: ScenePath[] = [];
  for (let i = 0; i < f.length; i += 3) {
    const path: number[] = [];
    for (const k of [0, 1, 2, 0]) path.push(v[3 * f[i + k]!]!, v[3 * f[i + k]! + 1]!);
    paths.push({ path, kind: 'edge' });
  }
  return paths;
}

const scene = computed<Scene>(() => {
  const base = pointsScene(project.points);
  const s = surface.value;
  const paths: ScenePath[] = [];
  if (s) {
    if (showTriangles.value && mesh.value) paths.push(...meshEdges(mesh.value));
    for (const level of contours.value) {
      const isIndex = Math.round(level.h / s.interval) % 5 === 0;
      for (const line of level.lines)
        paths.push({ path: line, kind: isIndex ? 'index' : 'contour', label: isIndex ? level.h.toFixed(1) : undefined });
    }
    const place = new Map(project.points.map((p) => [p.name, p]));
    for (const line of s.lines) {
      const path: number[] = [];
      for (const name of line.points) {
        const p = place.get(name);
        if (p?.e != null && p.n != null) path.push(p.e, p.n);
      }
      for (const v of line.vertices) path.push(v[0]!, v[1]!);
      if (line.role !== 'breakline') path.push(path[0]!, path[1]!);
      paths.push({ path, kind: line.role as ScenePath['kind'] });
    }
  }
  if (drawn.value) paths.push({ path: [...drawn.value, drawn.value[0]!].flat(), kind: 'boundary' });
  return { ...base, paths };
});

async function load() {
  terrain.value = await get<TerrainView>(project.path('/terrain'));
  await loadShape();
}

async function loadShape() {
  const s = surface.value;
  if (!s?.computed) {
    mesh.value = null;
    contours.value = [];
    return;
  }
  [mesh.value, contours.value] = await Promise.all([
    bytes(project.path(`/terrain/surfaces/${s.id}/mesh`)),
    get<Contour3d[]>(project.path(`/terrain/surfaces/${s.id}/contours`)),
  ]);
}

const conflict = ref<Conflict | null>(null);
const mine = ref<SurfaceRequest | null>(null);
/** The version of the surface that is edited, as it was when the form was opened. */
let seen = 0;

const list = (v: unknown) => (Array.isArray(v) ? v.join(', ') : '');
const FIELDS: ConflictField[] = [
  { key: 'name', label: 'name', text: (v) => String(v) },
  { key: 'roles', label: 'points', text: list },
  { key: 'codes', label: 'codes', text: (v) => list(v) || 'all' },
  { key: 'exclude', label: 'without', text: list },
  {
    key: 'lines',
    label: 'lines',
    text: (v) => (v as LineView[]).map((l) => `${l.name || l.role} (${l.points.length + l.vertices.length})`).join(', '),
  },
  { key: 'maxEdge', label: 'longest edge', text: (v) => (typeof v === 'number' ? length(v, units.value) : 'any') },
  { key: 'interval', label: 'contours every', text: (v) => length(v as number, units.value) },
];

function change() {
  seen = surface.value?.version ?? 0;
  editing.value = 'change';
}

async function save(request: SurfaceRequest, version: number | string = seen) {
  const changing = editing.value === 'change' && surface.value ? surface.value.id : null;
  mine.value = request;
  conflict.value = null;
  const ok = await project.attempt(
    async () => {
      const path = project.path(changing === null ? '/terrain/surfaces' : `/terrain/surfaces/${changing}`);
      const started = await (changing === null
        ? post<{ job: string; surface: number }>(path, request)
        : put<{ job: string; surface: number }>(path, request, version));
      chosen.value = started.surface;
      await project.job(Promise.resolve(started));
    },
    '',
    (theirs) => (conflict.value = theirs),
  );
  drawing.value = false;
  if (ok) leave();
  await load();
}

function leave() {
  editing.value = 'none';
  conflict.value = null;
  drawing.value = false;
  drawn.value = null;
}

async function compare() {
  const value = Number(elevation.value.replace(',', '.'));
  if (elevation.value.trim() === '' || !Number.isFinite(value)) {
    project.say('bad', 'Type an elevation, such as 225.0.');
    return;
  }
  await project.attempt(() =>
    post(project.path(`/terrain/surfaces/${surface.value!.id}/volume`), {
      elevation: fromDisplayLength(value, units.value),
    } satisfies VolumeRequest),
  );
}

onMounted(async () => {
  if (typeof route.query.surface === 'string') chosen.value = Number(route.query.surface);
  if (route.query.action === 'new-surface') editing.value = 'new';
  await load();
});
watch(() => project.version, load);
watch(chosen, loadShape);
</script>

<template>
  <TwoPages>
    <template #figures>
      <div v-if="terrain" class="sheet">
        <ConflictSheet
          v-if="conflict && mine"
          :what="`Surface ${mine.name}`"
          :conflict="conflict"
          :fields="FIELDS"
          :mine="{ ...mine }"
          @theirs="(leave(), load())"
          @save="(values, version) => save(values as unknown as SurfaceRequest, version)"
        />
        <SurfaceForm
          v-else-if="editing !== 'none'"
          :key="editing"
          :surface="editing === 'change' ? surface : null"
          :codes="terrain.codes"
          :drawn="drawn"
          :drawing="drawing"
          @draw="(on) => (drawing = on)"
          @save="(r) => save(r)"
          @cancel="leave"
        />
        <div v-else-if="!surface" class="empty">
          <h1>No surface yet</h1>
          <p>A surface is made of points you select by role and code, held in shape by breaklines and cut by a boundary.</p>
          <p v-if="project.points.length < 3" class="quiet">
            There are no points to make one of. <router-link class="link" :to="`/p/${project.id}/intake`">Bring files in</router-link>
          </p>
          <div>
            <button
              class="button main"
              data-test="new-surface"
              :disabled="!project.mayChange || project.points.length < 3"
              @click="editing = 'new'"
            >
              Make a surface
            </button>
          </div>
        </div>
        <template v-else>
          <header class="answer">
            <div>
              <h1>
                {{ surface.name
                }}{{
                  surface.computed
                    ? `: ${length(surface.hMin, units, -1)} to ${length(surface.hMax, units, -1)} ${units.length}`
                    : ' is not computed yet'
                }}
              </h1>
              <p v-if="surface.computed">
                {{ surface.points }} points in {{ surface.triangles }} triangles over {{ area(surface.planArea, units) }} in plan,
                {{ area(surface.surfaceArea, units) }} on the ground; {{ surface.contourCount }} contours every
                {{ length(surface.interval, units, -1) }} {{ units.length }}.
              </p>
              <p v-if="surface.createdAt" class="quiet">Run {{ surface.run }}, {{ when(surface.createdAt) }} by {{ surface.author }}.</p>
            </div>
          </header>
          <div v-if="surface.stale.length > 0" class="notice" data-test="surface-stale">
            <span><strong class="doubt">Stale:</strong> {{ surface.stale.join('; ') }}.</span><span class="spacer" /><button
              class="button"
              :disabled="!project.mayChange"
              @click="project.recompute()"
            >
              Recompute in order
            </button>
          </div>
          <p v-for="w in surface.warnings.slice(0, 3)" :key="w" class="notice">{{ w }}</p>
          <section class="volume" aria-label="Volume against an elevation">
            <label class="field"
              ><span class="label">volume against elevation {{ units.length }}</span
              ><input
                v-model="elevation"
                class="input mono"
                inputmode="decimal"
                data-test="elevation"
                :placeholder="surface.volume ? length(surface.volume.elevation, units) : 'such as 225.0'"
                @keydown.enter="compare"
            /></label>
            <button class="button" data-test="volume" :disabled="!project.mayChange || !surface.computed" @click="compare">Compute</button>
            <template v-if="surface.volume">
              <div class="fact">
                <span class="label">above {{ length(surface.volume.elevation, units) }}, cut</span
                ><strong class="mono">{{ volume(surface.volume.cut, units) }}</strong
                ><span class="quiet">over {{ area(surface.volume.areaCut, units) }}</span>
              </div>
              <div class="fact">
                <span class="label">below, fill</span><strong class="mono">{{ volume(surface.volume.fill, units) }}</strong
                ><span class="quiet">over {{ area(surface.volume.areaFill, units) }}</span>
              </div>
              <div class="fact">
                <span class="label">net</span><strong class="mono">{{ volume(surface.volume.net, units) }}</strong
                ><span v-if="surface.volume.stale.length > 0" class="doubt">◐ stale</span>
              </div>
            </template>
          </section>
          <div class="tabs">
            <h2>Surfaces</h2>
            <span class="spacer" />
            <button class="button plain" :disabled="!project.mayChange" @click="change">Change {{ surface.name }}</button>
            <button class="button main" data-test="new-surface" :disabled="!project.mayChange" @click="editing = 'new'">New surface</button>
          </div>
          <FiguresTable
            label="surfaces"
            :columns="columns"
            :rows="terrain.surfaces"
            :row-key="(s) => String(s.id)"
            :selected="new Set([String(surface.id)])"
            :filterable="false"
            :style="{ flex: `0 1 ${Math.min(8, terrain.surfaces.length) * 27 + 30}px` }"
            @select="(k) => (chosen = Number(k[0]))"
          >
            <template #cell-state="{ row }"
              ><span :class="{ doubt: row.stale.length > 0, holds: row.computed && row.stale.length === 0 }">{{
                !row.computed ? 'not made' : row.stale.length > 0 ? '◐ stale' : '✓ fresh'
              }}</span></template
            >
          </FiguresTable>
          <dl class="lineage">
            <dt>rests on</dt>
            <dd>
              {{ surface.roles.join(', ') }} points{{ surface.codes.length > 0 ? ` coded ${surface.codes.join(', ')}` : ''
              }}{{ surface.exclude.length > 0 ? `, without ${surface.exclude.join(', ')}` : '' }}
            </dd>
            <dt>lines</dt>
            <dd>{{ surface.lines.length === 0 ? 'none' : surface.lines.map((l) => `${l.role} ${l.name}`).join(', ') }}</dd>
          </dl>
          <LineageList v-if="surface.computed" :place="surface.volume ? `volume:${surface.id}` : `surface:${surface.id}`" />
        </template>
      </div>
    </template>
    <template #sketch>
      <MapSketch v-if="view === 'map'" :scene="scene" :drawing="drawing" @drawn="(v) => ((drawn = v), (drawing = false))">
        <template #corner>
          <strong>Map</strong><button class="quiet" data-test="view-3d" @click="view = '3d'">3D</button>
          <label class="quiet"><input v-model="showTriangles" type="checkbox" /> triangles</label>
          <span v-if="drawing" class="doubt">Click the boundary’s corners, double-click to close it</span>
        </template>
      </MapSketch>
      <template v-else>
        <Surface3d :mesh="mesh" :contours="contours" />
        <div class="switch"><button class="quiet" @click="view = 'map'">Map</button><strong>3D</strong></div>
      </template>
    </template>
  </TwoPages>
</template>

<style scoped>
.volume {
  display: flex;
  gap: 10px 16px;
  align-items: flex-end;
  flex-wrap: wrap;
}
.volume .field {
  width: 168px;
}
.fact {
  display: grid;
}
.fact .quiet,
.fact .doubt {
  font-size: 11.5px;
}
.lineage {
  display: grid;
  grid-template-columns: 70px 1fr;
  gap: 3px 10px;
  margin: 0 0 14px;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
.switch {
  position: absolute;
  top: 10px;
  left: 14px;
  display: flex;
  gap: 14px;
}
</style>

<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import { bytes, get, post, put } from '../../api/client';
import type { Conflict } from '../../api/conflict';
import type { SectionRequest, SurfaceRequest, SurfaceView, TerrainView, VolumeRequest } from '../../api/types';
import FiguresTable from '../../figures/FiguresTable.vue';
import { height, length, lengthUnit } from '../../format/units';
import ConflictSheet from '../../frame/ConflictSheet.vue';
import EmptyPage from '../../frame/EmptyPage.vue';
import PageTabs from '../../frame/PageTabs.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { MapSketch, Surface3d } from '../../sketch';
import type { ScenePath } from '../../sketch/scene';
import type { Contour3d } from '../../sketch/Surface3d.vue';
import { writeAndOpen } from '../../state/handover';
import { useProject } from '../../state/project';
import { surfaceColumns } from './columns';
import { surfaceFields } from './conflictFields';
import { readAt, readMesh } from './mesh';
import { toggled } from './selection';
import { shaded, type Shading } from './shading';
import SurfaceForm from './SurfaceForm.vue';
import SurfaceHead from './SurfaceHead.vue';
import { contourPaths, isopachPaths, linePaths, meshEdges, ring, terrainScene } from './surfaceScene';
import SectionForm from './SectionForm.vue';
import SectionSheet from './SectionSheet.vue';
import SurfaceSource from './SurfaceSource.vue';
import DesignPage from './DesignPage.vue';
import { DRAWS, useDraft } from './useDraft';
import { useSections } from './useSections';
import ViewSwitch from './ViewSwitch.vue';
import VolumeForm from './VolumeForm.vue';
import VolumeSheet from './VolumeSheet.vue';

/** Triangles whose edges are drawn one by one on the map. */
const MOST_EDGES = 40_000;

const project = useProject();
const route = useRoute();
const units = computed(() => project.units);
const terrain = ref<TerrainView | null>(null);
const page = ref<'surfaces' | 'volumes' | 'sections' | 'designs'>('surfaces');
const chosen = ref(0);
const chosenVolume = ref(0);
const editing = ref<'none' | 'new' | 'change'>('none');
const editingVolume = ref<'none' | 'new' | 'change'>('none');
const view = ref<'map' | '3d'>('map');
const shading = ref<Shading>('none');
const showTriangles = ref(false);
/** A second surface that is looked at beside the first. */
const beside = ref(0);
const bytesOf = shallowRef<{ mesh: ArrayBuffer | null; contours: Contour3d[] }>({ mesh: null, contours: [] });
const bytesBeside = shallowRef<{ mesh: ArrayBuffer | null; contours: Contour3d[] }>({ mesh: null, contours: [] });
const reading = ref<[number, number] | null>(null);
const picked = ref<string | null>(null);
/** What is drawn for a volume or a section. */
const drawingFor = ref<'boundary' | 'line' | null>(null);
const drawn = ref<[number, number][] | null>(null);
const making = useDraft();
const cutting = useSections(terrain);

const surface = computed<SurfaceView | null>(
  () => terrain.value?.surfaces.find((s) => s.id === chosen.value) ?? terrain.value?.surfaces[0] ?? null,
);
const volume = computed(() => terrain.value?.volumes.find((v) => v.number === chosenVolume.value) ?? terrain.value?.volumes[0] ?? null);
const onVolumes = computed(() => page.value === 'volumes');
const onSections = computed(() => page.value === 'sections');
const cutSurface = computed(() => terrain.value?.surfaces.find((s) => s.id === cutting.section.value?.surfaces[0]) ?? null);
const columns = computed(() => surfaceColumns(units.value));
const tabs = computed(
  () =>
    [
      ['surfaces', `Surfaces ${terrain.value?.surfaces.length ?? 0}`],
      ['volumes', `Volumes ${terrain.value?.volumes.length ?? 0}`],
      ['sections', `Sections ${terrain.value?.sections.length ?? 0}`],
      ['designs', `Designs ${terrain.value?.designs.length ?? 0}`],
    ] as const,
);
const mesh = computed(() => (editing.value === 'none' ? readMesh(bytesOf.value.mesh) : making.mesh.value));
const at = computed(() => (mesh.value && reading.value ? readAt(mesh.value, ...reading.value) : null));
const labelled = (h: number) => height(h, units.value, -2);

const scene = computed(() => {
  const paths: ScenePath[] = [];
  const m = mesh.value;
  const isMaking = editing.value !== 'none';
  const edges = m && (showTriangles.value || isMaking) && m.corners.length < 3 * MOST_EDGES ? meshEdges(m) : [];
  paths.push(...edges);
  if (isMaking) {
    const d = making.draft.value!;
    const lines = making.request.value?.lines ?? [];
    paths.push(...contourPaths(making.preview.value?.contours ?? [], d.interval ?? 1, d.index ?? 5, labelled));
    paths.push(...linePaths(project.points, lines), ...(d.areas ?? []).map((a) => ring(a, 'area')));
    paths.push(...linePaths(project.points, [{ role: 'breakline', name: '', points: making.picked.value, vertices: [] }]));
    return terrainScene(project.points, paths, undefined, new Set(making.taken.value.map((p) => p.name)));
  }
  if (onSections.value) {
    const isDrawn = cutting.editing.value !== 'none';
    if (isDrawn && drawn.value) paths.push({ path: drawn.value.flat(), kind: 'section' });
    const s = cutSurface.value ?? surface.value;
    // What is cut is seen under the line.
    if (s) paths.push(...contourPaths(bytesOf.value.contours, s.interval, s.index, labelled));
    for (const id of cutting.section.value?.surfaces ?? []) {
      const other = terrain.value?.surfaces.find((x) => x.id === id);
      if (other) paths.push(...linePaths(project.points, other.lines));
    }
    if (!isDrawn) paths.push(...cutting.paths.value);
    const scene = terrainScene(isDrawn ? project.points : [], paths);
    return isDrawn ? scene : { ...scene, notes: cutting.notes.value };
  }
  if (onVolumes.value) {
    const v = volume.value;
    if (v?.isopach) paths.push(...isopachPaths(bytesOf.value.contours, (h) => (h > 0 ? '+' : '') + length(h, units.value, -1)));
    const corners = editingVolume.value !== 'none' ? (drawn.value ?? []) : (v?.boundary ?? []);
    if (corners.length > 2) paths.push(ring(corners, 'boundary'));
    return {
      ...terrainScene([], paths, shaded(m, 'difference', units.value)),
      caption: m ? `${lengthUnit(units.value)}, above less below` : undefined,
    };
  }
  const s = surface.value;
  if (s) {
    paths.push(...contourPaths(bytesOf.value.contours, s.interval, s.index, labelled), ...linePaths(project.points, s.lines));
    paths.push(...s.areas.map((a) => ring(a, 'area')));
  }
  return terrainScene(project.points, paths, shaded(m, shading.value, units.value));
});

async function load() {
  terrain.value = await get<TerrainView>(project.path('/terrain'));
  await Promise.all([loadShape(), cutting.load()]);
}

async function shapeOf(path: string) {
  const [m, contours] = await Promise.all([bytes(project.path(`${path}/mesh`)), get<Contour3d[]>(project.path(`${path}/contours`))]);
  return { mesh: m, contours };
}
const nothing = { mesh: null, contours: [] };
let loaded = '';
async function loadShape() {
  // Under a section lie the contours of what it cuts first.
  const s = onSections.value ? (cutSurface.value ?? surface.value) : surface.value;
  const v = volume.value;
  const [key, path] = onVolumes.value
    ? [v?.isopach ? `v${v.number} ${v.isopach}` : '', `/terrain/volumes/${v?.number}`]
    : [s?.computed ? `s${s.id} ${s.mesh} ${s.contours}` : '', `/terrain/surfaces/${s?.id}`];
  if (key !== loaded) {
    const shape = key === '' ? nothing : await shapeOf(path);
    [loaded, bytesOf.value] = [key, shape];
  }
}

const conflict = ref<Conflict | null>(null);
const mine = ref<SurfaceRequest | null>(null);
/** The version of the surface that is edited, as it was when the form was opened. */
let seen = 0;
const fields = computed(() => surfaceFields(units.value));
const codes = computed(() => Object.keys(terrain.value?.codes ?? {}));

function begin(what: 'new' | 'change', changed: Partial<SurfaceRequest> = {}) {
  seen = surface.value?.version ?? 0;
  making.open(what === 'change' || changed.name ? surface.value : null, codes.value, changed);
  [editing.value, view.value, picked.value] = [what, 'map', null];
}
/** The same surface under another name, to change one thing and look at both. */
function copy() {
  const s = surface.value!;
  beside.value = s.id;
  begin('new', { name: `${s.name}, again` });
}

async function save(request: SurfaceRequest, version: number | string = seen, changing = editing.value === 'change') {
  const id = changing && surface.value ? surface.value.id : null;
  mine.value = request;
  conflict.value = null;
  const ok = await project.attempt(
    async () => {
      const path = project.path(id === null ? '/terrain/surfaces' : `/terrain/surfaces/${id}`);
      const started = await (id === null
        ? post<{ job: string; surface: number }>(path, request)
        : put<{ job: string; surface: number }>(path, request, version));
      chosen.value = started.surface;
      await project.job(Promise.resolve(started));
    },
    '',
    (theirs) => (conflict.value = theirs),
  );
  if (ok) leave();
  await load();
}

function leave() {
  editing.value = 'none';
  conflict.value = null;
  making.close();
}

/** A point of the surface that is shown goes out of it, or comes back, and the surface is made again at once. */
async function turn(name: string) {
  const s = surface.value;
  const p = project.points.find((x) => x.name === name);
  if (!s || !p) return;
  const { roles, codes: of, pattern, areas, include, exclude, lines, maxEdge, interval, index, smooth, crossing } = s;
  const now = toggled({ roles, codes: of, pattern, areas, include, exclude }, p, project.points);
  picked.value = null;
  await save({ name: s.name, ...now, lines, maxEdge, interval, index, smooth, crossing }, s.version, true);
}

function point(name: string) {
  if (editing.value !== 'none') making.point(name);
  else if (page.value === 'surfaces') picked.value = picked.value === name ? null : name;
}
function place(e: number, n: number) {
  if (editing.value !== 'none') {
    if (making.tool.value === 'swap') making.swap(e, n);
  } else [reading.value, picked.value] = [[e, n], null];
}
function drew(vertices: [number, number][]) {
  if (editing.value !== 'none') making.drew(vertices);
  else [drawn.value, drawingFor.value] = [vertices, null];
}

function beginVolume(what: 'new' | 'change') {
  editingVolume.value = what;
  drawn.value = what === 'change' ? ((volume.value?.boundary ?? []) as [number, number][]) : null;
  view.value = 'map';
}
async function compute(request: VolumeRequest) {
  const ok = await project.attempt(async () => {
    const job = await project.job(post(project.path('/terrain/volumes'), request));
    chosenVolume.value = Number(job.outcome?.number ?? 0);
  });
  if (ok) editingVolume.value = 'none';
  await load();
}
function beginSection(what: 'new' | 'change') {
  cutting.editing.value = what;
  drawn.value = what === 'change' && cutting.section.value?.line.length ? (cutting.section.value.line as [number, number][]) : null;
  view.value = 'map';
}
async function cutAlong(request: SectionRequest) {
  await cutting.cut(request);
  drawingFor.value = null;
  await load();
}

/** Nothing is being made or changed: the pages are there. */
const isIdle = computed(
  () => !(conflict.value && mine.value) && editing.value === 'none' && editingVolume.value === 'none' && cutting.editing.value === 'none',
);
const pickedPoint = computed(() => project.points.find((p) => p.name === picked.value) ?? null);
const isTaken = computed(() => {
  const [s, p] = [surface.value, pickedPoint.value];
  return s !== null && p !== null && toggled(s, p, project.points).include.length <= s.include.length && !s.exclude.includes(p.name);
});
/** Whoever clicks and draws looks where they chose to look; before that the sketch goes to what is chosen. */
const isPlacing = computed(() => {
  const d = making.draft.value;
  const touched = (d?.include?.length ?? 0) + (d?.exclude?.length ?? 0) + (d?.areas?.length ?? 0) > 0;
  return editing.value !== 'none' && (making.tool.value !== 'points' || touched);
});
const hint = computed(
  () =>
    ({
      points: 'Click a point to take it in or out',
      box: 'Click two corners of the box',
      lasso: 'Draw round the points with the button held',
      breakline: 'Click the points of the breakline in order',
      boundary: 'Click the boundary’s corners, double-click to close it',
      void: 'Click the void’s corners, double-click to close it',
      swap: 'Click near an edge',
    })[making.tool.value],
);

onMounted(async () => {
  if (typeof route.query.surface === 'string') chosen.value = Number(route.query.surface);
  if (typeof route.query.section === 'string') [page.value, cutting.chosen.value] = ['sections', Number(route.query.section)];
  if (typeof route.query.volume === 'string') [page.value, chosenVolume.value] = ['volumes', Number(route.query.volume)];
  await load();
  if (route.query.action === 'new-surface') begin('new');
});
watch(() => project.version, load);
watch(cutting.chosen, () => Promise.all([cutting.load(), loadShape()]));
watch([chosen, chosenVolume, page], () => {
  reading.value = null;
  picked.value = null;
  void loadShape();
});
watch([beside, () => terrain.value], async () => {
  const other = terrain.value?.surfaces.find((s) => s.id === beside.value && s.computed);
  bytesBeside.value = other ? await shapeOf(`/terrain/surfaces/${other.id}`) : nothing;
});
</script>

<template>
  <DesignPage v-if="page === 'designs'" @made="(s) => ([page, chosen] = ['surfaces', s])">
    <PageTabs v-model="page" :tabs="tabs" label="Pages of Terrain" test="terrain-tab" />
  </DesignPage>
  <TwoPages v-else>
    <template #figures>
      <div v-if="terrain" class="sheet">
        <ConflictSheet
          v-if="conflict && mine"
          :what="`Surface ${mine.name}`"
          :conflict="conflict"
          :fields="fields"
          :mine="{ ...mine }"
          @theirs="(leave(), load())"
          @save="(values, version) => save(values as unknown as SurfaceRequest, version, true)"
        />
        <SurfaceForm
          v-else-if="editing !== 'none' && making.draft.value"
          :making="making"
          :codes="terrain.codes"
          :designs="terrain.designs"
          :clouds="terrain.clouds"
          :title="editing === 'change' ? `Change ${surface?.name}` : 'Make a surface'"
          :button="editing === 'change' ? 'Change and compute' : 'Make it'"
          @save="save(making.request.value!)"
          @cancel="leave"
        />
        <VolumeForm
          v-else-if="editingVolume !== 'none'"
          :surfaces="terrain.surfaces"
          :volume="editingVolume === 'change' ? volume : null"
          :drawn="drawn"
          :drawing="drawingFor === 'boundary'"
          @draw="(on) => (drawingFor = on ? 'boundary' : null)"
          @save="compute"
          @cancel="((editingVolume = 'none'), (drawingFor = null))"
        />
        <SectionForm
          v-else-if="cutting.editing.value !== 'none'"
          :surfaces="terrain.surfaces"
          :alignments="terrain.alignments"
          :section="cutting.editing.value === 'change' ? cutting.section.value : null"
          :drawn="drawn"
          :drawing="drawingFor === 'line'"
          @draw="(on) => (drawingFor = on ? 'line' : null)"
          @save="cutAlong"
          @cancel="((cutting.editing.value = 'none'), (drawingFor = null))"
        />
        <PageTabs v-else v-model="page" :tabs="tabs" label="Pages of Terrain" test="terrain-tab" />
        <EmptyPage v-if="isIdle && !surface" title="No surface yet">
          <p>A surface is made of points you select by name, code, role or area, held in shape by breaklines and cut by a boundary.</p>
          <p v-if="project.points.length < 3" class="quiet">
            There are no points to make one of. <router-link class="link" :to="`/p/${project.id}/intake`">Bring files in</router-link>
          </p>
          <div>
            <ElButton
              type="primary"
              data-test="new-surface"
              :disabled="!project.mayChange || project.points.length < 3"
              @click="begin('new')"
            >
              Make a surface
            </ElButton>
          </div>
        </EmptyPage>
        <template v-else-if="isIdle && surface">
          <template v-if="page === 'surfaces'">
            <SurfaceHead :key="surface.id" :surface="surface" />
            <p v-if="pickedPoint" class="line" data-test="picked">
              <strong class="mono">{{ pickedPoint.name }}</strong>
              <span class="mono">{{ height(pickedPoint.h, units) }} {{ lengthUnit(units) }}</span>
              <span class="quiet">{{ pickedPoint.code }}, {{ isTaken ? 'in the surface' : 'not in the surface' }}</span>
              <ElButton
                size="small"
                data-test="turn"
                :disabled="!project.mayChange || pickedPoint.h === null"
                @click="turn(pickedPoint.name)"
              >
                {{ isTaken ? 'Take it out' : 'Take it in' }}
              </ElButton>
            </p>
            <div class="part">
              <h2>Surfaces</h2>
              <span class="spacer" />
              <ElButton :disabled="!project.mayChange" data-test="change-surface" @click="begin('change')"
                >Change {{ surface.name }}</ElButton
              >
              <ElButton :disabled="!project.mayChange" data-test="copy-surface" @click="copy">Copy…</ElButton>
              <ElButton type="primary" data-test="new-surface" :disabled="!project.mayChange" @click="begin('new')">New surface</ElButton>
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
              <template #cell-state="{ row, text }"
                ><span :class="{ doubt: row.stale.length > 0, holds: row.computed && row.stale.length === 0 }">{{ text }}</span></template
              >
            </FiguresTable>
            <SurfaceSource :surface="surface" :designs="terrain.designs" :clouds="terrain.clouds" />
          </template>
          <SectionSheet
            v-else-if="onSections && cutting.section.value"
            :sections="terrain.sections"
            :section="cutting.section.value"
            :drawing="cutting.drawing.value"
            :at="cutting.at.value"
            @choose="(n) => (cutting.chosen.value = n)"
            @fresh="beginSection('new')"
            @change="beginSection('change')"
            @write="(kind) => writeAndOpen(project, kind, cutting.section.value!.number)"
            @point="(s) => (cutting.at.value = s)"
            @cross="(i) => (cutting.cross.value = i)"
          />
          <EmptyPage v-else-if="onSections" title="No section yet">
            <p>
              Surfaces are cut along a line you draw or along an alignment of a LandXML file, with cross-sections where they are wanted.
            </p>
            <div>
              <ElButton
                type="primary"
                data-test="new-section"
                :disabled="!project.mayChange || !terrain.surfaces.some((s) => s.computed)"
                @click="beginSection('new')"
                >Cut a section</ElButton
              >
            </div>
          </EmptyPage>
          <VolumeSheet
            v-else-if="volume"
            :volumes="terrain.volumes"
            :volume="volume"
            :materials="terrain.materials"
            :capacity="terrain.capacity"
            @choose="(n) => (chosenVolume = n)"
            @fresh="beginVolume('new')"
            @change="beginVolume('change')"
            @report="writeAndOpen(project, 'volume-pdf', volume.number)"
          />
          <EmptyPage v-else title="No volume yet">
            <p>A volume lies between a surface and an elevation, another surface, or the surface through its own edge.</p>
            <div>
              <ElButton
                type="primary"
                data-test="new-volume"
                :disabled="!project.mayChange || !terrain.surfaces.some((s) => s.computed)"
                @click="beginVolume('new')"
                >Compute a volume</ElButton
              >
            </div>
          </EmptyPage>
        </template>
      </div>
    </template>
    <template #sketch>
      <MapSketch
        v-if="view === 'map'"
        :scene="scene"
        :drawing="
          editing !== 'none' ? DRAWS[making.tool.value] : drawingFor === 'boundary' ? 'polygon' : drawingFor === 'line' ? 'line' : false
        "
        :still="isPlacing"
        :selected-points="new Set(picked ? [picked] : making.picked.value)"
        @drawn="drew"
        @point="point"
        @place="place"
        @over="(e, n, r) => onSections && cutting.over(e, n, r)"
      >
        <template #corner>
          <span v-if="editing !== 'none'" class="doubt" data-test="hint">{{ hint }}</span>
          <template v-else>
            <ViewSwitch v-model="view" />
            <template v-if="page === 'surfaces'">
              <ElCheckbox v-model="showTriangles" class="quiet">triangles</ElCheckbox>
              <ElSelect v-model="shading" size="small" class="shade" aria-label="Colour by" data-test="shading">
                <ElOption value="none" label="no colour" /><ElOption value="elevation" label="elevation" /><ElOption
                  value="slope"
                  label="slope"
                />
              </ElSelect>
            </template>
            <span v-if="drawingFor" class="doubt">{{
              drawingFor === 'line'
                ? 'Click along the line, double-click to end it'
                : 'Click the boundary’s corners, double-click to close it'
            }}</span>
            <span v-if="at && reading" class="mono" data-test="reading"
              >{{ onVolumes ? (at.h >= 0 ? '+' : '') + length(at.h, units) : height(at.h, units) }} {{ lengthUnit(units) }}
              <span v-if="!onVolumes" class="quiet">slope {{ (100 * at.slope).toFixed(1) }} %</span></span
            >
          </template>
        </template>
      </MapSketch>
      <template v-else>
        <div class="spaces" :class="{ two: bytesBeside.mesh && !onVolumes }">
          <Surface3d
            :mesh="bytesOf.mesh"
            :contours="bytesOf.contours"
            :tint="onVolumes ? 'difference' : shading === 'slope' ? 'slope' : 'elevation'"
            @read="(e, n) => (reading = [e, n])"
          />
          <Surface3d
            v-if="bytesBeside.mesh && !onVolumes"
            :mesh="bytesBeside.mesh"
            :contours="bytesBeside.contours"
            :tint="shading === 'slope' ? 'slope' : 'elevation'"
          />
        </div>
        <div class="switch">
          <ViewSwitch v-model="view" />
          <ElSelect v-if="!onVolumes" v-model="beside" size="small" class="beside" aria-label="Beside it" data-test="beside">
            <ElOption :value="0" label="nothing beside it" />
            <ElOption
              v-for="s in terrain?.surfaces.filter((x) => x.computed && x.id !== surface?.id) ?? []"
              :key="s.id"
              :value="s.id"
              :label="`beside: ${s.name}`"
            />
          </ElSelect>
          <span v-if="at && reading" class="mono" data-test="reading"
            >{{ reading[0].toFixed(2) }} E {{ reading[1].toFixed(2) }} N {{ onVolumes ? length(at.h, units) : height(at.h, units) }}
            {{ lengthUnit(units) }}</span
          >
        </div>
      </template>
    </template>
  </TwoPages>
</template>

<style scoped>
.switch {
  position: absolute;
  top: 10px;
  left: 14px;
  display: flex;
  gap: 14px;
  align-items: center;
}
.shade {
  width: 108px;
}
.beside {
  width: 200px;
}
.spaces {
  height: 100%;
  display: grid;
  grid-template-rows: 1fr;
}
.spaces.two {
  grid-template-rows: 1fr 1fr;
}
.spaces > * {
  min-height: 0;
  border-bottom: 1px solid var(--rule);
}
.line {
  display: flex;
  gap: 10px;
  align-items: center;
  margin: 0;
}
</style>

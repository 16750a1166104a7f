<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { bytes, get, post, put } from '../../api/client';
import type { Conflict } from '../../api/conflict';
import type { SurfaceRequest, SurfaceView, TerrainView } from '../../api/types';
import FiguresTable from '../../figures/FiguresTable.vue';
import ConflictSheet from '../../frame/ConflictSheet.vue';
import ViewSwitch from './ViewSwitch.vue';
import EmptyPage from '../../frame/EmptyPage.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { MapSketch, Surface3d } from '../../sketch';
import type { Contour3d } from '../../sketch/Surface3d.vue';
import { useProject } from '../../state/project';
import { surfaceColumns } from './columns';
import { surfaceFields } from './conflictFields';
import SurfaceForm from './SurfaceForm.vue';
import SurfaceHead from './SurfaceHead.vue';
import { surfaceScene } from './surfaceScene';
import SurfaceSource from './SurfaceSource.vue';

const project = useProject();
const route = useRoute();
const terrain = ref<TerrainView | null>(null);
const chosen = ref(0);
const editing = ref<'none' | 'new' | 'change'>('none');
const view = ref<'map' | '3d'>('map');
const mesh = ref<ArrayBuffer | null>(null);
const contours = ref<Contour3d[]>([]);
const drawing = ref(false);
const drawn = ref<[number, number][] | null>(null);
const showTriangles = ref(false);

const surface = computed<SurfaceView | null>(
  () => terrain.value?.surfaces.find((s) => s.id === chosen.value) ?? terrain.value?.surfaces[0] ?? null,
);

const columns = computed(() => surfaceColumns(project.units));

const scene = computed(() =>
  surfaceScene(project.points, surface.value, contours.value, showTriangles.value ? mesh.value : null, drawn.value),
);

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

const fields = computed(() => surfaceFields(project.units));

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
          :fields="fields"
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
        <EmptyPage v-else-if="!surface" title="No surface yet">
          <p>A surface is made of points you select by role and code, held in shape by breaklines and cut by a boundary.</p>
          <p v-if="project.points.length < 3" class="quiet">
            There are no points to make one of. <router-link class="link" :to="`/p/${project.id}/intake`">Bring files in</router-link>
          </p>
          <div>
            <ElButton
              type="primary"
              data-test="new-surface"
              :disabled="!project.mayChange || project.points.length < 3"
              @click="editing = 'new'"
            >
              Make a surface
            </ElButton>
          </div>
        </EmptyPage>
        <template v-else>
          <SurfaceHead :key="surface.id" :surface="surface" />
          <div class="part">
            <h2>Surfaces</h2>
            <span class="spacer" />
            <ElButton :disabled="!project.mayChange" @click="change">Change {{ surface.name }}</ElButton>
            <ElButton type="primary" data-test="new-surface" :disabled="!project.mayChange" @click="editing = 'new'">New surface</ElButton>
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
          <SurfaceSource :surface="surface" />
        </template>
      </div>
    </template>
    <template #sketch>
      <MapSketch v-if="view === 'map'" :scene="scene" :drawing="drawing" @drawn="(v) => ((drawn = v), (drawing = false))">
        <template #corner>
          <ViewSwitch v-model="view" />
          <ElCheckbox class="quiet" v-model="showTriangles">triangles</ElCheckbox>
          <span v-if="drawing" class="doubt">Click the boundary’s corners, double-click to close it</span>
        </template>
      </MapSketch>
      <template v-else>
        <Surface3d :mesh="mesh" :contours="contours" />
        <div class="switch"><ViewSwitch v-model="view" /></div>
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
}
</style>

<script setup lang="ts">
import { computed, ref } from 'vue';
import { request } from '../../api/client';
import type { ExtractView, GridFileView, ReferenceView } from '../../api/types';
import type { Column } from '../../figures/columns';
import FilePick from '../../fields/FilePick.vue';
import FiguresTable from '../../figures/FiguresTable.vue';
import { fileSize } from '../../format/units';
import type { Scene } from '../../sketch/scene';
import { useProject } from '../../state/project';
import ChangeSheet from './ChangeSheet.vue';
import GeoidAtPoint from './GeoidAtPoint.vue';
import GeoidExtract from './GeoidExtract.vue';

const props = defineProps<{ view: ReferenceView; picked: string }>();
const emit = defineEmits<{ scene: [scene: Partial<Scene> | null]; changed: [] }>();
const project = useProject();
const changing = ref(false);
const geoids = computed(() => props.view.grids.filter((g) => g.kind === 'geoid'));
const chosen = ref(props.view.geoid || (geoids.value[0]?.reference ?? ''));
const grid = computed(() => props.view.grids.find((g) => g.reference === chosen.value) ?? null);

const columns: Column<GridFileView>[] = [
  { key: 'name', title: 'grid', width: 'minmax(150px, 1fr)', value: (g) => g.name },
  { key: 'kind', title: 'kind', width: '48px', value: (g) => g.kind },
  { key: 'origin', title: 'origin', width: '62px', value: (g) => g.origin },
  { key: 'ellipsoid', title: 'above', width: '84px', value: (g) => g.ellipsoid },
  {
    key: 'step',
    title: 'step',
    unit: '′',
    width: '48px',
    align: 'right',
    mono: true,
    value: (g) => g.step,
    text: (g) => (g.step === null ? '' : String(Number((g.step * 60).toFixed(3)))),
  },
  { key: 'size', title: 'size', width: '66px', align: 'right', mono: true, value: (g) => g.size, text: (g) => fileSize(g.size) },
  { key: 'covers', title: 'covers', width: '52px', value: (g) => (g.bounds === null ? '' : g.coversPoints ? 'yes' : 'no') },
];

// The place asked about, and the middle of an extract by radius.
const lat = ref<number | null>(props.view.extent ? Number(((props.view.extent[0]! + props.view.extent[2]!) / 2).toFixed(6)) : null);
const lon = ref<number | null>(props.view.extent ? Number(((props.view.extent[1]! + props.view.extent[3]!) / 2).toFixed(6)) : null);
const made = ref<ExtractView | null>(null);

function take(piece: ExtractView) {
  made.value = piece;
  chosen.value = `grid:${piece.id}`;
  emit('changed');
}

async function bring(file: File) {
  const form = new FormData();
  form.append('file', file);
  await project.attempt(async () => {
    const { id } = await request<{ id: number }>('POST', project.path('/reference/grids'), form);
    chosen.value = `grid:${id}`;
  }, `Imported ${file.name}.`);
  emit('changed');
}

const mm = (v: number | null) => (v === null ? '' : `${(1000 * v).toFixed(1)} mm`);
</script>

<template>
  <ChangeSheet
    v-if="changing"
    :target="project.overview!.reference"
    :target-name="project.overview!.referenceName"
    :view="{ ...view, geoid: grid?.kind === 'geoid' ? chosen : view.geoid, heights: 'geoid' }"
    @done="changing = false"
    @back="changing = false"
    @scene="(s) => emit('scene', s)"
  />
  <div v-else class="scroll heights">
    <div class="row">
      <h2>Geoids and shift grids</h2>
      <span class="spacer" />
      <ElButton v-if="view.system" data-test="change-heights-open" :disabled="!project.mayChange" @click="changing = true">
        Change the project’s heights
      </ElButton>
      <FilePick text="Import a grid" test="grid-file" :disabled="!project.mayChange" @files="([file]) => file && bring(file)" />
    </div>
    <FiguresTable
      label="grids"
      :columns="columns"
      :rows="view.grids"
      :row-key="(g) => g.reference"
      :selected="new Set([chosen])"
      :filterable="false"
      :style="{
        flex: `0 0 ${Math.max(1, Math.min(6, view.grids.length)) * 27 + 30}px`,
        height: `${Math.max(1, Math.min(6, view.grids.length)) * 27 + 30}px`,
      }"
      @select="(k) => (chosen = k[0] ?? '')"
    >
      <template #cell-covers="{ row }"
        ><span :class="row.coversPoints ? 'holds' : 'doubt'">{{
          row.bounds === null ? '' : row.coversPoints ? '✓ yes' : 'no'
        }}</span></template
      >
      <template #empty
        ><div class="empty"><p>No geoid is here. Import one: GTX, ISG text or GeoTIFF; NTv2 for datum shifts.</p></div></template
      >
    </FiguresTable>
    <p v-for="n in grid?.notes ?? []" :key="n" class="quiet">{{ n }}</p>
    <p v-if="grid && grid.id !== null && grid.kind === 'geoid'" class="row" data-test="grid-downloads">
      <span class="quiet">Take it along as</span>
      <a class="link" :href="project.path(`/reference/grids/${grid.id}.gtx`)">GTX</a>
      <a class="link" :href="project.path(`/reference/grids/${grid.id}.isg`)">ISG text</a>
    </p>
    <ElAlert v-if="made" data-test="extract-made" type="success" :closable="false">
      <span
        ><strong>{{ made.name }}</strong> is made and checked at {{ made.checked }} random places against its source: largest difference
        {{ mm(made.largest) }}, rms {{ mm(made.rms) }}.</span
      >
    </ElAlert>

    <template v-if="grid?.kind === 'geoid'">
      <GeoidAtPoint v-model:lat="lat" v-model:lon="lon" :view="view" :picked="picked" :grid="grid" />
      <GeoidExtract :view="view" :grid="grid" :lat="lat" :lon="lon" @scene="(s) => emit('scene', s)" @begun="made = null" @made="take" />
    </template>
  </div>
</template>

<style scoped>
.heights {
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 0 8px 14px 0;
  flex: 1;
}
.row {
  display: flex;
  gap: 12px;
  align-items: center;
}
</style>

<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import { get, post } from '../../api/client';
import type { CloudRequest, CloudsView, PickRequest } from '../../api/types';
import FiguresTable from '../../figures/FiguresTable.vue';
import { fileSize, height, lengthUnit } from '../../format/units';
import AnswerHead from '../../frame/AnswerHead.vue';
import EmptyPage from '../../frame/EmptyPage.vue';
import LineageList from '../../frame/LineageList.vue';
import PageTabs from '../../frame/PageTabs.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { Cloud3d, MapSketch } from '../../sketch';
import { classOf, type ColourBy, css, ramp, usual } from '../../sketch/cloudColours';
import { type Plan, planCells, planOf } from '../../sketch/cloudPlan';
import type { Met } from '../../sketch/cloudSpace';
import { emptyScene, type Scene } from '../../sketch/scene';
import { writeAndOpen } from '../../state/handover';
import { useProject } from '../../state/project';
import CloudForm from './CloudForm.vue';
import CloudStrip from './CloudStrip.vue';
import FlightPages from './FlightPages.vue';
import GroupPages from './GroupPages.vue';
import PassesPages from './PassesPages.vue';
import { classColumns, classRows, cloudColumns, fileColumns } from './columns';
import { between, cloudWords, fitWords, paintedEnds, paintedRamp, shortHeight, targetFitWords } from './words';

/** What a cloud is handed over as. */
const KINDS = [
  ['cloud-site', 'Publish as a folder'],
  ['cloud-las', 'LAS'],
  ['cloud-e57', 'E57'],
  ['cloud-ply', 'PLY'],
  ['cloud-xyz', 'Lines of coordinates'],
] as const;

const project = useProject();
const route = useRoute();
const units = computed(() => project.units);
const asked = route.query.page;
const page = ref<'clouds' | 'passes' | 'flights' | 'images'>(
  asked === 'passes' || asked === 'flights' || asked === 'images' ? asked : 'clouds',
);
const tabs = [
  ['clouds', 'Clouds'],
  ['passes', 'Passes'],
  ['flights', 'Photo flights'],
  ['images', 'Rover images'],
] as const;
const stage = ref<CloudsView | null>(null);
const chosen = ref(0);
const editing = ref<'none' | 'new' | 'change'>('none');
const from = ref<{ files: number[]; clouds: number[] }>({ files: [], clouds: [] });
const view = ref<'map' | '3d' | 'section'>('3d');
const by = ref<ColourBy>('elevation');
const drawing = ref<false | 'polygon' | 'line'>(false);
/** Along which the cloud is cut. */
const line = shallowRef<[number, number][] | null>(null);
const drawn = ref<[number, number][] | null>(null);
const crop = ref<number[][]>([]);
const plan = shallowRef<Plan | null>(null);
const picked = shallowRef<Met[]>([]);
const pointName = ref('');
const pointCode = ref('');

const cloud = computed(() => stage.value?.clouds.find((c) => c.number === chosen.value) ?? stage.value?.clouds[0] ?? null);
const url = computed(() => (cloud.value ? project.path(`/clouds/${cloud.value.number}/tiles/${cloud.value.tiles}/tileset.json`) : ''));
const columns = computed(() => cloudColumns(units.value));
const classes = computed(() => (cloud.value ? classRows(cloud.value) : []));
/** Received, and no cloud is made of them yet. */
const waiting = computed(() => {
  const used = new Set(stage.value?.clouds.flatMap((c) => c.files) ?? []);
  return stage.value?.files.filter((f) => !used.has(f.id)) ?? [];
});
const heights = computed(() => (plan.value && plan.value.h.length > 0 ? usual(plan.value.h) : { from: 0, to: 1 }));
const last = computed(() => picked.value[picked.value.length - 1] ?? null);
const distance = computed(() => (picked.value.length > 1 ? between(picked.value[0]!, picked.value[1]!, units.value) : ''));
const ways = computed(
  () =>
    [
      ['elevation', 'elevation', true],
      ['class', 'class', true],
      ['intensity', 'intensity', cloud.value?.hasIntensities ?? false],
      ['colour', 'its colours', cloud.value?.hasColours ?? false],
    ] as const,
);
const scene = computed<Scene>(() => ({
  ...emptyScene,
  ...(plan.value ? { cells: planCells(plan.value, heights.value, (h) => shortHeight(h, units.value)) } : {}),
  points: picked.value.map((p, i) => ({ name: `picked ${i + 1}`, e: p.e, n: p.n, role: 'surveyed' as const })),
  paths:
    editing.value !== 'none' && crop.value.length > 2
      ? [{ path: [...crop.value, crop.value[0]!].flat(), kind: 'boundary' as const, label: 'crop' }]
      : [],
  caption: plan.value ? `height, ${lengthUnit(units.value)} · some of the points` : undefined,
}));

async function load() {
  stage.value = await get<CloudsView>(project.path('/clouds'));
}
async function loadPlan() {
  const asked = url.value;
  plan.value = null;
  [picked.value, line.value] = [[], null];
  if (view.value === 'section') view.value = '3d';
  if (cloud.value?.painted) by.value = 'colour';
  else if (cloud.value && !ways.value.some(([key, , has]) => key === by.value && has)) by.value = 'elevation';
  if (asked === '') return;
  const answer = await planOf(asked);
  if (url.value === asked) plan.value = answer;
}

function begin(what: 'new' | 'change', of: { files: number[]; clouds: number[] } = { files: [], clouds: [] }) {
  [editing.value, from.value, drawn.value, drawing.value] = [what, of, null, false];
}
function draw(on: boolean) {
  drawing.value = on && 'polygon';
  if (on) view.value = 'map';
}
function drew(vertices: [number, number][]) {
  if (drawing.value === 'line') [line.value, view.value] = [vertices, 'section'];
  else drawn.value = vertices;
  drawing.value = false;
}
/** A line for a section is drawn on the map. */
function askLine() {
  [view.value, drawing.value] = ['map', 'line'];
}
function leave() {
  [editing.value, drawing.value] = ['none', false];
}
async function make(request: CloudRequest) {
  const ok = await project.attempt(async () => {
    const job = await project.job(post(project.path('/clouds'), request));
    chosen.value = Number(job.outcome?.number ?? 0);
  });
  if (ok) {
    leave();
    view.value = '3d';
  }
  await load();
}

/** A cloud that another page made. */
function show(number: number) {
  [chosen.value, page.value, view.value] = [number, 'clouds', '3d'];
  void load();
}

function pick(met: Met) {
  picked.value = [...picked.value.slice(-1), met];
}
async function keep() {
  const p = last.value;
  if (!p || !cloud.value) return;
  const { e, n, h } = p;
  const request: PickRequest = { name: pointName.value.trim(), code: pointCode.value.trim(), e, n, h };
  const ok = await project.attempt(
    () => post(project.path(`/clouds/${cloud.value!.number}/points`), request),
    `${request.name} is a point.`,
  );
  if (!ok) return;
  // The next one is named after it: T7 is followed by T8.
  pointName.value = request.name.replace(/\d+$/, (d) => String(Number(d) + 1).padStart(d.length, '0'));
  picked.value = [];
}

onMounted(async () => {
  if (typeof route.query.cloud === 'string') chosen.value = Number(route.query.cloud);
  await load();
});
watch(() => project.version, load);
watch(url, loadPlan);
</script>

<template>
  <PassesPages v-if="page === 'passes'">
    <template #tabs><PageTabs v-model="page" :tabs="tabs" label="Pages of Clouds" test="clouds" class="first" /></template>
  </PassesPages>
  <FlightPages v-else-if="page === 'flights'" @cloud="show">
    <template #tabs><PageTabs v-model="page" :tabs="tabs" label="Pages of Clouds" test="clouds" class="first" /></template>
  </FlightPages>
  <GroupPages v-else-if="page === 'images'" @cloud="show">
    <template #tabs><PageTabs v-model="page" :tabs="tabs" label="Pages of Clouds" test="clouds" class="first" /></template>
  </GroupPages>
  <TwoPages v-else>
    <template #figures>
      <div v-if="stage" class="sheet">
        <PageTabs v-if="editing === 'none'" v-model="page" :tabs="tabs" label="Pages of Clouds" test="clouds" class="first" />
        <CloudForm
          v-if="editing !== 'none'"
          :key="`${editing} ${from.files.join()} ${from.clouds.join()}`"
          :stage="stage"
          :cloud="editing === 'change' ? cloud : null"
          :from="from"
          :picked="last"
          :drawn="drawn"
          :drawing="drawing === 'polygon'"
          @draw="draw"
          @crop="(corners) => (crop = corners)"
          @save="make"
          @cancel="leave"
        />
        <EmptyPage v-else-if="!cloud" title="No cloud yet">
          <p>
            A point cloud is looked at in space, cropped, thinned, cleaned of noise, and its ground is found. What you do makes a cloud of
            its own: what came in stays as it was received.
          </p>
          <p v-if="stage.files.length === 0" class="quiet">
            LAS, LAZ, E57, PLY and lines of coordinates serve.
            <router-link class="link" :to="`/p/${project.id}/intake`">Bring a cloud in</router-link>
          </p>
          <p v-else class="quiet">{{ stage.files.length === 1 ? 'One cloud' : `${stage.files.length} clouds` }} came in.</p>
          <div>
            <ElButton
              type="primary"
              data-test="new-cloud"
              :disabled="!project.mayChange || stage.files.length === 0"
              @click="begin('new', { files: stage.files.slice(0, 1).map((f) => f.id), clouds: [] })"
              >Make a cloud</ElButton
            >
          </div>
        </EmptyPage>
        <template v-else>
          <AnswerHead>
            <h1>{{ cloud.name }}</h1>
            <p data-test="cloud-words">{{ cloudWords(cloud, units) }}</p>
            <p class="quiet">
              of {{ cloud.of
              }}<template v-if="cloud.steps.length > 0">
                · {{ cloud.steps.join(', ') }}<template v-if="cloud.painted?.against"> from {{ cloud.painted.against }}</template></template
              >
              · heights
              <span class="mono">{{ height(cloud.extent[2], units, -1) }} to {{ height(cloud.extent[5], units, -1) }}</span>
              {{ lengthUnit(units) }} · {{ fileSize(cloud.bytes) }}
            </p>
            <p v-if="cloud.fit" :class="{ doubt: cloud.fit.overlap < 0.3 }" data-test="cloud-fit">{{ fitWords(cloud.fit, units) }}</p>
            <p v-if="cloud.byTargets" data-test="cloud-by-targets">{{ targetFitWords(cloud.byTargets, units) }}</p>
            <p v-if="cloud.stale.length > 0" class="doubt">◐ Stale: {{ cloud.stale.join(', ') }}</p>
            <LineageList :place="`cloud:${cloud.number}`" />
            <template #actions>
              <ElDropdown trigger="click" @command="(kind: string) => writeAndOpen(project, kind, cloud!.number)">
                <ElButton :disabled="!project.mayChange || cloud.stale.length > 0" data-test="hand-over">Hand over ▾</ElButton>
                <template #dropdown>
                  <ElDropdownMenu>
                    <ElDropdownItem v-for="[kind, label] in KINDS" :key="kind" :command="kind" :data-test="kind">{{
                      label
                    }}</ElDropdownItem>
                  </ElDropdownMenu>
                </template>
              </ElDropdown>
            </template>
          </AnswerHead>
          <p v-if="last" class="line picked" data-test="picked">
            <span class="mono">{{ height(last.e, units) }} E {{ height(last.n, units) }} N {{ height(last.h, units) }}</span>
            <span v-if="last.classOf !== null" class="quiet">{{ classOf(last.classOf).name }}</span>
            <ElInput
              v-model="pointName"
              size="small"
              class="short"
              placeholder="name"
              aria-label="Name of the point"
              data-test="pick-name"
            />
            <ElInput v-model="pointCode" size="small" class="short" placeholder="code" aria-label="Code of the point" />
            <ElButton size="small" data-test="keep-pick" :disabled="!project.mayChange || pointName.trim() === ''" @click="keep"
              >Keep as a point</ElButton
            >
            <span v-if="distance" class="quiet">{{ distance }}</span>
          </p>
          <div class="part">
            <h2>Clouds</h2>
            <span class="spacer" />
            <ElButton :disabled="!project.mayChange" data-test="change-cloud" @click="begin('change')">Change {{ cloud.name }}</ElButton>
            <ElButton
              type="primary"
              data-test="new-cloud"
              :disabled="!project.mayChange"
              @click="begin('new', { files: [], clouds: [cloud.number] })"
              >New cloud</ElButton
            >
          </div>
          <FiguresTable
            label="clouds"
            :columns="columns"
            :rows="stage.clouds"
            :row-key="(c) => String(c.number)"
            :selected="new Set([String(cloud.number)])"
            :filterable="false"
            :style="{ flex: `0 1 ${Math.min(8, stage.clouds.length) * 27 + 30}px` }"
            @select="(k) => (chosen = Number(k[0]))"
          >
            <template #cell-state="{ row, text }"
              ><span :class="{ doubt: row.stale.length > 0, holds: row.stale.length === 0 }">{{ text }}</span></template
            >
          </FiguresTable>
          <div class="part"><h2>Classes</h2></div>
          <FiguresTable
            label="classes"
            :columns="classColumns"
            :rows="classes"
            :row-key="(r) => String(r.number)"
            :selected="new Set()"
            :filterable="false"
            :style="{ flex: `0 1 ${Math.min(10, classes.length) * 27 + 30}px` }"
          >
            <template #cell-name="{ row, text }"
              ><span class="chip" :style="{ background: css(classOf(row.number).colour) }" />{{ text }}</template
            >
          </FiguresTable>
          <template v-if="waiting.length > 0">
            <div class="part"><h2>Came in, not looked at yet</h2></div>
            <FiguresTable
              label="files"
              :columns="fileColumns"
              :rows="waiting"
              :row-key="(f) => String(f.id)"
              :selected="new Set()"
              :filterable="false"
              :style="{ flex: `0 1 ${Math.min(8, waiting.length) * 27 + 30}px` }"
            >
              <template #cell-make="{ row }"
                ><ElButton
                  link
                  type="primary"
                  :disabled="!project.mayChange"
                  :data-test="`make-of-${row.id}`"
                  @click="begin('new', { files: [row.id], clouds: [] })"
                  >Make a cloud of it</ElButton
                ></template
              >
            </FiguresTable>
          </template>
        </template>
      </div>
    </template>
    <template #sketch>
      <MapSketch v-if="view === 'map' || !cloud" :scene="scene" :drawing="drawing" :selected-points="new Set()" @drawn="drew">
        <template #corner>
          <ElRadioGroup v-model="view" size="small" aria-label="View">
            <ElRadioButton value="map">Map</ElRadioButton>
            <ElRadioButton value="3d" data-test="view-3d" :disabled="!cloud">3D</ElRadioButton>
            <ElRadioButton value="section" :disabled="!line">Section</ElRadioButton>
          </ElRadioGroup>
          <ElButton v-if="cloud && editing === 'none' && !drawing" size="small" data-test="cut-cloud" @click="askLine"
            >Cut along a line</ElButton
          >
          <span v-if="drawing === 'line'" class="doubt">Click along the line, double-click to end it</span>
          <span v-else-if="drawing" class="doubt"
            >Click the corners of what is cropped, double-click to close it; with Shift held, drag around it</span
          >
        </template>
      </MapSketch>
      <template v-else>
        <CloudStrip v-if="view === 'section' && line" :url="url" :name="cloud.name" :line="line" />
        <Cloud3d
          v-else-if="plan"
          :url="url"
          :by="by"
          :heights="heights"
          :extent="cloud.extent"
          :picked="picked.map((p) => [p.e, p.n, p.h])"
          @pick="pick"
        />
        <div class="corner">
          <ElRadioGroup v-model="view" size="small" aria-label="View">
            <ElRadioButton value="map" data-test="view-map">Map</ElRadioButton>
            <ElRadioButton value="3d">3D</ElRadioButton>
            <ElRadioButton value="section" :disabled="!line">Section</ElRadioButton>
          </ElRadioGroup>
          <ElButton v-if="view === 'section'" size="small" @click="askLine">Another line</ElButton>
          <ElSelect v-else v-model="by" size="small" class="by" aria-label="Colour by" data-test="colour-by">
            <ElOption v-for="[key, label, has] in ways" :key="key" :value="key" :label="label" :disabled="!has" />
          </ElSelect>
          <span v-if="view === '3d' && by === 'colour' && cloud.painted" class="legend mono" data-test="painted">
            {{ paintedEnds(cloud.painted, units)[0] }}<span class="ramp" :style="{ background: paintedRamp(cloud.painted.by) }" />{{
              paintedEnds(cloud.painted, units)[1]
            }}
          </span>
          <span v-if="view === '3d' && (by === 'elevation' || by === 'intensity')" class="legend mono">
            {{ by === 'elevation' ? shortHeight(heights.from, units) : 'low' }}<span class="ramp" :style="{ background: ramp(by) }" />{{
              by === 'elevation' ? `${shortHeight(heights.to, units)} ${lengthUnit(units)}` : 'high'
            }}
          </span>
        </div>
        <p v-if="view === '3d'" class="quiet foot">
          Turn with a drag, closer with the wheel · click a point to read it, a second one to measure
        </p>
      </template>
    </template>
  </TwoPages>
</template>

<style scoped>
.first {
  border: 0;
  padding: 0;
}
.corner > * {
  flex-shrink: 0;
}
.corner {
  position: absolute;
  top: 10px;
  left: 14px;
  display: flex;
  gap: 14px;
  align-items: center;
}
.by {
  width: 120px;
}
.foot {
  position: absolute;
  bottom: 8px;
  left: 14px;
  margin: 0;
  padding: 1px 6px;
  background: var(--sketch);
  pointer-events: none;
}
.legend {
  display: flex;
  gap: 6px;
  align-items: center;
  padding: 1px 6px;
  background: var(--sketch);
  font-size: 12px;
}
.ramp {
  width: 90px;
  height: 10px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
  margin: 0;
}
.short {
  width: 84px;
}
.chip {
  display: inline-block;
  width: 10px;
  height: 10px;
  margin-right: 8px;
}
</style>

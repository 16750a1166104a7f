<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue';
import { get, post } from '../../api/client';
import type { CloudRequest, CloudsView, MarkRequest, PassesView, PassRequest } from '../../api/types';
import FiguresTable from '../../figures/FiguresTable.vue';
import { length, lengthUnit, when } from '../../format/units';
import AnswerHead from '../../frame/AnswerHead.vue';
import EmptyPage from '../../frame/EmptyPage.vue';
import LineageList from '../../frame/LineageList.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { MapSketch } from '../../sketch';
import { writeAndOpen } from '../../state/handover';
import { useProject } from '../../state/project';
import AroundPlot from './AroundPlot.vue';
import PassForm from './PassForm.vue';
import {
  again,
  type Around,
  beside,
  givenIn,
  headline,
  nearestOf,
  pairShift,
  passColumns,
  type PassDrawing,
  passScene,
  type Section,
  sentences,
  stationColumns,
  stationRows,
  type Target,
  targetColumns,
  targetWords,
  withMark,
} from './passes';
import SectionPlot from './SectionPlot.vue';
import StationPlot from './StationPlot.vue';

const project = useProject();
const units = computed(() => project.units);
const stage = ref<PassesView | null>(null);
const chosen = ref(0);
const editing = ref<'none' | 'new' | 'change'>('none');
const view = ref<'section' | 'map'>('section');
const table = ref<'stations' | 'points'>('stations');
const drawing = shallowRef<PassDrawing | null>(null);
const section = shallowRef<Section | null>(null);
/** Metres along the pass, where the section is cut. */
const at = ref(0);

/** A control or check point that is marked next, and the marks that were made since the pass was last aligned. */
const marking = ref('');
const marks = ref<Target[]>([]);
const known = computed(() => (drawing.value && stage.value ? beside(stage.value.points, drawing.value.path) : []));
const given = computed(() => givenIn(section.value, known.value));

/** Places of the pair that moves the pass first, while it is picked; the first of them in the scan that is moved. */
const pair = ref<[number, number][] | null>(null);

const pass = computed(() => stage.value?.passes.find((p) => p.number === chosen.value) ?? stage.value?.passes.at(-1) ?? null);
const rows = computed(() => stationRows(drawing.value));
const columns = computed(() => stationColumns(units.value));
const passes = computed(() => passColumns(units.value));
const verdict = computed(() => (pass.value ? headline(pass.value, units.value) : null));
const scene = computed(() => passScene(drawing.value, rows.value, section.value, known.value));
const nearest = computed(() => {
  const best = rows.value.reduce((a, s) => (Math.abs(s.along - at.value) < Math.abs(a - at.value) ? s.along : a), Infinity);
  return new Set(rows.value.filter((s) => s.along === best).map((s) => String(s.i)));
});

async function load() {
  stage.value = await get<PassesView>(project.path('/clouds/passes'));
}
async function loadDrawing() {
  const p = pass.value;
  [drawing.value, pair.value, marking.value, marks.value] = [null, null, '', []];
  if (!p) return;
  const answer = await get<PassDrawing>(project.path(`/clouds/passes/${p.number}`));
  if (pass.value?.output !== p.output) return;
  drawing.value = answer;
  at.value = 0.5 * p.length;
  await cut();
}
let asked = 0;
/** The section where the slider stands; an answer that comes late is passed over. */
async function cut() {
  const p = pass.value;
  if (!p) return;
  const mine = ++asked;
  const answer = await get<Section>(project.path(`/clouds/passes/${p.number}/section/${at.value.toFixed(2)}`));
  if (mine === asked) section.value = answer;
}

/** The scan around the point that is marked next; empty until it is there. */
const around = shallowRef<Around | null>(null);
async function mark(name: string) {
  [marking.value, pair.value, around.value] = [name, null, null];
  at.value = Math.min(known.value.find((k) => k.name === name)?.along ?? at.value, pass.value!.length);
  await cut();
  await project.attempt(async () => {
    around.value = await post<Around>(project.path(`/clouds/passes/${pass.value!.number}/around`), { target: name } satisfies MarkRequest);
  });
}
async function markAt([east, north]: [number, number]) {
  await project.attempt(async () => {
    const request: MarkRequest = { target: marking.value, east, north };
    const seen = await post<Target>(project.path(`/clouds/passes/${pass.value!.number}/seen`), request);
    marks.value = withMark(marks.value, seen);
    marking.value = '';
  });
}
const alignWithMarks = () => align(again(pass.value!, { targets: marks.value.reduce(withMark, pass.value!.targets) }), false);

function pickAt(place: [number, number]) {
  if (!pair.value || !section.value || pair.value.length > 1) return;
  const met = nearestOf(pair.value.length === 0 ? section.value.pass : section.value.reference, place);
  if (met) pair.value = [...pair.value, met];
}
const shift = computed(() => (pair.value?.length === 2 && section.value ? pairShift(section.value, pair.value[0]!, pair.value[1]!) : null));
async function alignWithPair() {
  await align(again(pass.value!, { preShift: shift.value! }), false);
  pair.value = null;
}
async function align(request: PassRequest, scanToo: boolean) {
  const ok = await project.attempt(async () => {
    const job = await project.job(post(project.path('/clouds/passes'), request));
    chosen.value = Number(job.outcome?.number ?? 0);
  });
  if (ok) editing.value = 'none';
  await load();
  if (ok && scanToo && pass.value?.status === 'corrected') await scan();
}

/** Its scan as it is corrected becomes a cloud, or the one that was made of it is made anew. */
async function scan() {
  const p = pass.value!;
  const { clouds } = await get<CloudsView>(project.path('/clouds'));
  const known = clouds.find((c) => c.passes.length === 1 && c.passes[0] === p.number);
  const request: CloudRequest = {
    name: known?.name ?? p.name,
    number: known?.number ?? null,
    files: [],
    clouds: [],
    passes: [p.number],
    crop: known?.crop ?? [],
    outside: known?.outside ?? false,
    thin: known?.thin ?? null,
    noise: known?.noise ?? false,
    ground: known?.ground ?? false,
    classes: known?.keeps ?? [],
    onto: known?.onto ?? 0,
    within: known?.within ?? 1,
    dense: known?.dense ?? [],
    targets: known?.targets ?? [],
    paint: known?.paint ?? '',
    against: known?.paintAgainst ?? '',
    range: known?.range ?? 0.05,
  };
  await project.attempt(
    () => project.job(post(project.path('/clouds'), request)),
    `The scan by version ${p.run} is the cloud ${request.name}.`,
  );
}

onMounted(load);
watch(() => project.version, load);
watch(() => pass.value?.output, loadDrawing);
</script>

<template>
  <TwoPages>
    <template #figures>
      <div v-if="stage" class="sheet">
        <slot name="tabs" />
        <PassForm
          v-if="editing !== 'none'"
          :key="editing"
          :stage="stage"
          :pass="editing === 'change' ? pass : null"
          @save="align"
          @cancel="editing = 'none'"
        />
        <EmptyPage v-else-if="!pass" title="No pass yet">
          <p>
            A drive is registered to control points that its scan shows, or laid onto another drive along the same street by what both
            scanned: every 20 m or 2 s the scans are compared, without picking anything.
          </p>
          <p v-if="stage.trajectories.length === 0" class="quiet">
            A drive is a trajectory (CSV with time, e, n, h, roll, pitch, heading), and a LAS or LAZ with times.
            <router-link class="link" :to="`/p/${project.id}/intake`">Bring them in</router-link>
          </p>
          <div>
            <ElButton
              type="primary"
              data-test="new-pass"
              :disabled="!project.mayChange || stage.trajectories.length === 0"
              @click="editing = 'new'"
              >Align a pass</ElButton
            >
          </div>
        </EmptyPage>
        <template v-else-if="verdict">
          <AnswerHead>
            <h1 :class="verdict.tone" data-test="pass-verdict">{{ verdict.words }}</h1>
            <p data-test="pass-words">{{ sentences(pass, units) }}</p>
            <p class="quiet">
              {{
                pass.status === 'corrected'
                  ? `Version ${pass.run} of its trajectory is in use`
                  : 'Its trajectory is in use as it was driven'
              }}, {{ when(pass.at) }} by {{ pass.author }}
            </p>
            <p v-if="targetWords(pass, units)" data-test="target-words">{{ targetWords(pass, units) }}</p>
            <p v-if="pass.stale.length > 0" class="doubt">◐ Stale: {{ pass.stale.join(', ') }}</p>
            <LineageList :place="`pass:${pass.number}`" />
            <template #actions>
              <ElButton
                :disabled="!project.mayChange || pass.status !== 'corrected' || pass.stale.length > 0"
                data-test="write-trajectory"
                @click="writeAndOpen(project, 'trajectory-csv', pass.number)"
                >Trajectory</ElButton
              >
              <ElButton
                v-if="pass.status === 'needs-pre-shift'"
                type="primary"
                data-test="pick-pair"
                :disabled="!project.mayChange"
                @click="[pair, view] = [[], 'section']"
                >Pick a pair</ElButton
              >
              <ElButton
                :disabled="!project.mayChange || pass.stale.length > 0"
                data-test="pass-report"
                @click="writeAndOpen(project, 'pass-pdf', pass.number)"
                >Report</ElButton
              >
              <ElButton
                :disabled="!project.mayChange || pass.status !== 'corrected' || pass.stale.length > 0"
                data-test="scan-again"
                @click="scan"
                >Scan again</ElButton
              >
            </template>
          </AnswerHead>
          <div class="part">
            <h2>Passes</h2>
            <span class="spacer" />
            <ElButton :disabled="!project.mayChange" data-test="change-pass" @click="editing = 'change'">Align anew…</ElButton>
            <ElButton type="primary" data-test="new-pass" :disabled="!project.mayChange" @click="editing = 'new'">Align a pass</ElButton>
          </div>
          <FiguresTable
            label="passes"
            :columns="passes"
            :rows="stage.passes"
            :row-key="(p) => String(p.number)"
            :selected="new Set([String(pass.number)])"
            :filterable="false"
            :style="{ flex: `0 0 ${Math.min(5, stage.passes.length) * 27 + 32}px` }"
            @select="(k) => (chosen = Number(k[0]))"
          />
          <StationPlot v-if="rows.length > 0 && pass.status === 'corrected'" :rows="rows" :at="at" />
          <ElRadioGroup v-if="rows.length > 0 && drawing?.targets?.length" v-model="table" size="small" aria-label="Figures of the pass">
            <ElRadioButton value="stations">Stations</ElRadioButton>
            <ElRadioButton value="points" data-test="pass-points">Control and check points</ElRadioButton>
          </ElRadioGroup>
          <FiguresTable
            v-if="drawing?.targets?.length && (rows.length === 0 || table === 'points')"
            label="targets"
            :columns="targetColumns(units)"
            :rows="drawing.targets"
            :row-key="(t) => `${t.target} ${t.time}`"
            :selected="new Set()"
            :filterable="false"
            class="stations"
          />
          <FiguresTable
            v-else-if="rows.length > 0"
            label="stations"
            :columns="columns"
            :rows="rows"
            :row-key="(s) => String(s.i)"
            :selected="nearest"
            :filterable="false"
            class="stations"
            @select="
              (k) => {
                at = rows[Number(k[0])]?.along ?? at;
                void cut();
              }
            "
          >
            <template #cell-reason="{ row, text }"
              ><span :class="{ holds: row.used, doubt: !row.used }">{{ text }}</span></template
            >
          </FiguresTable>
        </template>
      </div>
    </template>
    <template #sketch>
      <MapSketch v-if="view === 'map' || !pass" :scene="scene" :drawing="false" :selected-points="new Set()">
        <template #corner>
          <ElRadioGroup v-model="view" size="small" aria-label="View">
            <ElRadioButton value="section" :disabled="!pass">Section</ElRadioButton>
            <ElRadioButton value="map">Map</ElRadioButton>
          </ElRadioGroup>
        </template>
      </MapSketch>
      <div v-else class="across">
        <div class="top">
          <ElRadioGroup v-model="view" size="small" aria-label="View">
            <ElRadioButton value="section">Section</ElRadioButton>
            <ElRadioButton value="map" data-test="view-map">Map</ElRadioButton>
          </ElRadioGroup>
          <ElSelect
            v-if="known.length > 0 && project.mayChange"
            :model-value="marking || undefined"
            class="mark"
            size="small"
            placeholder="Mark a point…"
            aria-label="Mark a point in the scan"
            data-test="mark-point"
            @change="mark"
          >
            <ElOption
              v-for="k in known"
              :key="k.name"
              :value="k.name"
              :label="`${k.name}, ${k.role}, at ${length(k.along, units, -2)}${[...pass.targets, ...marks].some((t) => t.target === k.name) ? ' ✓' : ''}`"
            />
          </ElSelect>
          <span class="mono" data-test="section-at">{{ length(at, units, -1) }} {{ lengthUnit(units) }} along, 1 m thick</span>
        </div>
        <p v-if="marking !== '' || marks.length > 0" class="pair" data-test="marks">
          <template v-if="marking !== ''"
            >Click the middle of {{ marking }} as the scan shows it: bright is teal, the diamond its given place.</template
          >
          <template v-else
            >Marked {{ marks.map((m) => m.target).join(', ') }}.
            <ElButton size="small" type="primary" data-test="align-marks" @click="alignWithMarks">{{
              pass.onto === '' ? 'Register anew' : 'Align anew'
            }}</ElButton></template
          >
          <ElButton size="small" @click="marking !== '' ? (marking = '') : (marks = [])">Leave it</ElButton>
        </p>
        <p v-else-if="pair" class="pair" data-test="pair">
          <template v-if="!shift">{{
            pair.length === 0 ? `Click a place of ${pass.of}.` : `Now the same place of ${pass.onto}.`
          }}</template>
          <template v-else
            >It moves by <span class="mono">{{ shift.map((v) => length(v, units)).join(', ') }}</span> {{ lengthUnit(units) }} east, north,
            up; along the way a section says nothing.
            <ElButton size="small" type="primary" data-test="align-pair" @click="alignWithPair">Align with it</ElButton></template
          >
          <ElButton size="small" @click="pair = pair.length > 0 ? [] : null">{{ pair.length > 0 ? 'Pick again' : 'Leave it' }}</ElButton>
        </p>
        <AroundPlot v-if="marking !== ''" :around="around" :name="marking" @at="markAt" />
        <SectionPlot v-else :section="section" :pass="pass.of" :reference="pass.onto" :picked="pair ?? []" :given="given" @at="pickAt" />
        <div class="slide">
          <span class="mono quiet">0</span>
          <ElSlider
            v-model="at"
            :min="0"
            :max="Math.floor(pass.length)"
            :step="1"
            :show-tooltip="false"
            aria-label="Place along the pass"
            data-test="section-slider"
            @change="cut"
          />
          <span class="mono quiet">{{ length(pass.length, units, -3) }} {{ lengthUnit(units) }}</span>
        </div>
      </div>
    </template>
  </TwoPages>
</template>

<style scoped>
.across {
  position: absolute;
  inset: 0;
  display: grid;
  grid-template-rows: auto auto 1fr auto;
  padding: 10px 14px;
}
.top,
.slide {
  display: flex;
  gap: 14px;
  align-items: center;
}
.mark {
  flex: 0 0 200px;
}
.top .el-radio-group {
  flex: none;
}
.pair {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin: 6px 0 0;
}
.across .plot {
  grid-row: 3;
}
.slide {
  grid-row: 4;
}
.slide .el-slider {
  flex: 1;
}
.stations {
  flex: 1 0 160px;
}
</style>

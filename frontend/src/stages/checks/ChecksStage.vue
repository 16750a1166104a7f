<script setup lang="ts">
import { computed, defineAsyncComponent, onMounted, ref, shallowRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import { get, post, put } from '../../api/client';
import type { ChecksView, DeviationRequest } from '../../api/types';
import FiguresTable from '../../figures/FiguresTable.vue';
import AnswerHead from '../../frame/AnswerHead.vue';
import EmptyPage from '../../frame/EmptyPage.vue';
import LineageList from '../../frame/LineageList.vue';
import PageTabs from '../../frame/PageTabs.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { small, smallUnit } from '../../format/units';
import { MapSketch } from '../../sketch';
import { writeAndOpen } from '../../state/handover';
import { useProject } from '../../state/project';
import BandTable from './BandTable.vue';
import CheckPointSheet from './CheckPointSheet.vue';
import { counts, nameOf, nearest, sameBands, USUAL, worst, type BandSet, type Deviations } from './bands';
import { checksScene } from './checksScene';
import { checkColumns, placeColumns } from './columns';
import DeviationForm from './DeviationForm.vue';
import { checkScene, useCheckPoints } from './useCheckPoints';
import { changeText, verdict } from './verdict';

const DeviationHistogram = defineAsyncComponent(() => import('./DeviationHistogram.vue'));
const WORST = 40;

const project = useProject();
const route = useRoute();
const units = computed(() => project.units);
const checks = ref<ChecksView | null>(null);
const chosen = ref(0);
const points = shallowRef<Deviations | null>(null);
const editing = ref<'none' | 'new' | 'change'>('none');
const side = ref<'map' | 'histogram'>('map');
const tab = ref<'bands' | 'worst' | 'left' | 'all'>('bands');
const set = ref<BandSet>(USUAL);
const place = ref<number | null>(null);
/** An earlier comparison of the same thing: what is shown then is what changed since. */
const since = ref(0);

const page = ref<'deviations' | 'points'>('deviations');
const pages = computed(
  () =>
    [
      ['deviations', `Deviations ${checks.value?.deviations.length ?? 0}`],
      ['points', `Check points ${checks.value?.checkPoints ?? 0}`],
    ] as const,
);
const marks = useCheckPoints(checks, load);
const mark = ref<string | null>(null);

const check = computed(() => checks.value?.deviations.find((d) => d.number === chosen.value) ?? checks.value?.deviations[0] ?? null);
const earlier = computed(() => checks.value?.deviations.find((d) => d.number === since.value && d.number !== check.value?.number) ?? null);
/** What changed, in words. */
const changed = computed(() => changeText(check.value, earlier.value, points.value, units.value));
const words = computed(() => (check.value && points.value ? verdict(check.value, points.value, set.value, units.value) : null));
const worstPlaces = computed(() => (points.value ? worst(points.value, check.value?.ignore ?? null, WORST).map((i) => ({ i })) : []));
const leftOut = computed(() => (points.value?.d ?? []).flatMap((d, i) => (counts(d, check.value?.ignore ?? null) ? [] : [{ i }])));
const map = computed(() => checksScene(points.value, check.value?.ignore ?? null, set.value, units.value, worstPlaces.value));
/** The map with the point that is read. */
const scene = computed(() => {
  if (page.value === 'points') return checkScene(marks.rows.value, units.value);
  const [p, i] = [points.value, place.value];
  return p && i !== null
    ? { ...map.value, points: [{ name: nameOf(p, i), e: p.e[i]!, n: p.n[i]!, role: 'surveyed' as const }] }
    : map.value;
});
const selected = computed(() => {
  if (page.value === 'points') return new Set(mark.value === null ? [] : [mark.value]);
  return new Set(place.value !== null && points.value ? [nameOf(points.value, place.value)] : []);
});
const tabs = computed(
  () =>
    [
      ['bands', 'Bands'],
      ['worst', 'Worst places'],
      ['left', `Left out ${leftOut.value.length}`],
      ['all', `Comparisons ${checks.value?.deviations.length ?? 0}`],
    ] as const,
);

async function load() {
  checks.value = await get<ChecksView>(project.path('/checks'));
  await Promise.all([loadPoints(), marks.loadRows()]);
}
let loaded = '';
async function loadPoints() {
  const c = check.value;
  if (!c) {
    points.value = null;
    return;
  }
  const earlier = checks.value?.deviations.find((d) => d.number === since.value && d.number !== c.number);
  const key = `${c.number} ${c.output} ${earlier?.output ?? ''}`;
  if (loaded === key) return;
  const isOther = !loaded.startsWith(`${c.number} `);
  // Asked for once, however often the page looks again while the answer is on its way.
  const before = loaded;
  loaded = key;
  try {
    const answer = await get<Deviations>(project.path(`/checks/deviations/${c.number}/${earlier ? `since/${earlier.number}` : 'points'}`));
    if (loaded !== key) return;
    points.value = answer;
  } catch (e) {
    if (loaded === key) loaded = before;
    throw e;
  }
  place.value = null;
  if (isOther) set.value = sameBands(c, USUAL) ? USUAL : { name: 'of this comparison', limits: c.limits, colours: c.colours };
}

async function compare(request: DeviationRequest) {
  const ok = await project.attempt(async () => {
    const job = await project.job(post(project.path('/checks/deviations'), request));
    chosen.value = Number(job.outcome?.number ?? 0);
  });
  if (ok) editing.value = 'none';
  await load();
}

/** The report is written in the bands that are shown, read back, kept in the archive, and opened. */
async function report() {
  const c = check.value!;
  const isKept =
    sameBands(c, set.value) ||
    (await project.attempt(() =>
      put(project.path(`/checks/deviations/${c.number}/bands`), { limits: set.value.limits, colours: set.value.colours }),
    ));
  if (isKept) await writeAndOpen(project, 'deviation-pdf', c.number);
}

function pick(e: number, n: number) {
  if (page.value === 'points') return;
  place.value = points.value ? nearest(points.value, e, n) : null;
}

function pointed(name: string) {
  if (page.value === 'points') mark.value = name;
  else if (points.value && points.value.names.includes(name)) place.value = points.value.names.indexOf(name);
}

onMounted(async () => {
  if (typeof route.query.comparison === 'string') chosen.value = Number(route.query.comparison);
  await load();
});
watch(() => project.version, load);
watch([chosen, since], loadPoints);
watch(marks.chosen, marks.loadRows);
</script>

<template>
  <TwoPages>
    <template #figures>
      <div v-if="checks" class="sheet">
        <PageTabs v-model="page" :tabs="pages" label="Kinds of checks" test="page" class="first" />
        <CheckPointSheet
          v-if="page === 'points'"
          v-model:editing="marks.editing.value"
          :checks="checks"
          :check="marks.check.value"
          :rows="marks.rows.value"
          :place="mark"
          @save="marks.compare"
          @choose="(n) => (marks.chosen.value = n)"
          @place="(name) => (mark = name)"
          @report="writeAndOpen(project, 'check-pdf', marks.check.value!.number)"
        />
        <DeviationForm
          v-else-if="editing !== 'none'"
          :key="editing"
          :checks="checks"
          :check="editing === 'change' ? check : null"
          @save="compare"
          @cancel="editing = 'none'"
        />
        <EmptyPage v-else-if="!check" title="Nothing compared yet">
          <p>
            Measured points are held against a design, a surface, a plane or an elevation: a map of what lies above and below, in bands.
          </p>
          <p class="quiet">
            A design is a DXF with faces, a LandXML surface or a PLY mesh.
            <router-link class="link" :to="`/p/${project.id}/intake`">Bring files in</router-link>
          </p>
          <div>
            <ElButton
              type="primary"
              data-test="new-check"
              :disabled="!project.mayChange || (project.points.length === 0 && checks.clouds.length === 0)"
              @click="editing = 'new'"
              >Compare</ElButton
            >
          </div>
        </EmptyPage>
        <template v-else>
          <AnswerHead>
            <h1 data-test="headline">{{ earlier ? changed : (words?.headline ?? check.name) }}</h1>
            <template v-if="!earlier"
              ><p v-for="s in words?.sentences" :key="s">{{ s }}</p></template
            >
            <p v-if="check.stale.length > 0"><span class="doubt">Stale:</span> {{ check.stale.join('; ') }}.</p>
            <p class="quiet">
              against <strong>{{ check.against }}</strong>{{ check.measuredOn ? ` · measured on ${check.measuredOn}` : '' }} · compared
              {{ check.run }} {{ check.run === 1 ? 'time' : 'times' }}, last by {{ check.author }}
            </p>
            <template #actions>
              <ElButton :disabled="!project.mayChange" data-test="change-check" @click="editing = 'change'">Compare anew…</ElButton>
              <ElButton type="primary" data-test="new-check" :disabled="!project.mayChange" @click="editing = 'new'"
                >New comparison</ElButton
              >
              <ElButton data-test="check-report" :disabled="!project.mayChange || earlier !== null" @click="report">Report as PDF</ElButton>
            </template></AnswerHead
          >
          <PageTabs v-model="tab" :tabs="tabs" label="Pages of the comparison"
            ><ElSelect
              v-if="checks.deviations.length > 1"
              v-model="since"
              size="small"
              class="since"
              aria-label="Change since"
              data-test="since"
            >
              <ElOption :value="0" label="as measured" />
              <ElOption
                v-for="d in checks.deviations.filter((x) => x.number !== check?.number)"
                :key="d.number"
                :value="d.number"
                :label="`change since ${d.name}${d.measuredOn ? `, ${d.measuredOn}` : ''}`" /></ElSelect
          ></PageTabs>
          <template v-if="points">
            <template v-if="tab === 'bands'">
              <BandTable v-model="set" :points="points" :ignore="check.ignore" />
              <h2>Worst places</h2>
            </template>
            <FiguresTable
              v-if="tab !== 'all'"
              :label="tab === 'left' ? 'places left out' : 'worst places'"
              :columns="placeColumns(units, points)"
              :rows="tab === 'left' ? leftOut : worstPlaces"
              :row-key="(p) => String(p.i)"
              :selected="new Set(place === null ? [] : [String(place)])"
              :sort="{ key: 'd', desc: true }"
              :filterable="false"
              @select="(k) => (place = k[0] === undefined ? null : Number(k[0]))"
            >
              <template #empty><p class="quiet">Nothing was left out.</p></template>
            </FiguresTable>
            <FiguresTable
              v-else
              label="comparisons"
              :columns="checkColumns(units)"
              :rows="checks.deviations"
              :row-key="(c) => String(c.number)"
              :selected="new Set([String(check.number)])"
              :filterable="false"
              @select="(k) => (chosen = Number(k[0]))"
            />
            <p v-if="place !== null" class="at" data-test="place">
              <strong class="mono">{{ nameOf(points, place) }}</strong>
              <template v-if="points.d[place] === null || points.d[place] === undefined"> lies beside the reference.</template>
              <template v-else>
                lies {{ small(Math.abs(points.d[place]!), units) }} {{ smallUnit(units) }}
                {{ points.d[place]! < 0 ? 'below' : 'above' }} the reference.</template
              >
            </p>
            <LineageList :place="`deviation:${check.number}`" />
          </template>
        </template>
      </div>
    </template>
    <template #sketch>
      <MapSketch
        v-if="side === 'map' || !points || !check || page === 'points'"
        :scene="scene"
        :selected-points="selected"
        @place="pick"
        @point="pointed"
      >
        <template #corner>
          <ElRadioGroup v-if="page === 'deviations'" v-model="side" size="small" aria-label="Sketch page">
            <ElRadioButton value="map">Map</ElRadioButton
            ><ElRadioButton value="histogram" data-test="view-histogram">Histogram</ElRadioButton>
          </ElRadioGroup>
        </template>
      </MapSketch>
      <template v-else>
        <div class="corner">
          <ElRadioGroup v-model="side" size="small" aria-label="Sketch page">
            <ElRadioButton value="map">Map</ElRadioButton><ElRadioButton value="histogram">Histogram</ElRadioButton>
          </ElRadioGroup>
        </div>
        <DeviationHistogram :points="points" :ignore="check.ignore" :set="set" />
      </template>
    </template>
  </TwoPages>
</template>

<style scoped>
.at,
h2 {
  margin: 0 0 2px;
}
.first {
  border-top: 0;
  padding-top: 0;
}
.since {
  width: 210px;
}
.sheet > :deep(.figures) {
  flex: 1 1 80px;
  min-height: 80px;
}
.corner {
  position: absolute;
  top: 8px;
  left: 14px;
  z-index: 2;
}
</style>

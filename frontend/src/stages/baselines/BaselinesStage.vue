<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import { get, post, put } from '../../api/client';
import type {
  BaselinesView,
  EpochsRequest,
  OccupationView,
  ProcessRequest,
  ReferenceStationView,
  SkyView,
  StopsRequest,
  VectorsRequest,
} from '../../api/types';
import NumberInput from '../../fields/NumberInput.vue';
import FiguresTable from '../../figures/FiguresTable.vue';
import EmptyPage from '../../frame/EmptyPage.vue';
import { isTyping } from '../../frame/keys';
import PageTabs from '../../frame/PageTabs.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { MapSketch } from '../../sketch';
import { pointsScene, type Scene, type SceneShift } from '../../sketch/scene';
import { useProject } from '../../state/project';
import { useSession } from '../../state/session';
import BaseSheet from './BaseSheet.vue';
import BaselineSide from './BaselineSide.vue';
import BaselineSlip from './BaselineSlip.vue';
import { baselinesScene, featured, stationsScene } from './baselinesScene';
import { baselineColumns, closureColumns, occupationColumns } from './columns';
import type { RunDocument } from './documents';
import type { Scatter } from './epochs';
import FeatureSheet from './FeatureSheet.vue';
import OccupationSlip from './OccupationSlip.vue';
import SideSwitch, { type Side } from './SideSwitch.vue';
import StationSheet from './StationSheet.vue';
import TimeStrip from './TimeStrip.vue';
import { ahead, day, localZone, type Zone } from './times';
import { runOf, verdict } from './verdict';

const project = useProject();
const session = useSession();
const route = useRoute();
const view = shallowRef<BaselinesView | null>(null);
const tab = ref<'baselines' | 'occupations' | 'closures' | 'base' | 'stations' | 'features'>('baselines');
const side = ref<Side>('map');
const chosen = ref(new Set<string>());
const occupied = ref(new Set<number>());
const closureKey = ref('');
const scatter = shallowRef<Scatter | null>(null);
const runDocument = shallowRef<RunDocument | null>(null);
const sky = shallowRef<SkyView | null>(null);
const window_ = ref<[number, number] | null>(null);

const zone = computed<Zone>(() => (session.preferences['baselines.zone'] as Zone | undefined) ?? localZone());
/** What loops may miss by, millimetres and millionths; each surveyor keeps his own. */
const allowance = computed(() => ({ constant: 10, ppm: 1, ...(session.preferences['baselines.allowance'] as object | undefined) }));
let typing: ReturnType<typeof setTimeout> | undefined;
function allow(change: { constant?: number | null; ppm?: number | null }) {
  const asked = { ...allowance.value, ...change };
  clearTimeout(typing);
  typing = setTimeout(async () => {
    if (asked.constant === null || asked.ppm === null || asked.constant < 0.1 || asked.constant > 1000 || asked.ppm < 0 || asked.ppm > 100)
      return;
    await session.prefer('baselines.allowance', asked);
    await load();
  }, 300);
}
const leap = computed(() => view.value?.leap ?? 18);
const zones = computed(() => [...new Set([localZone(), 'utc', 'gps'])]);
const zoneName = (z: Zone) => ({ utc: 'UTC', gps: 'GPS time' })[z] ?? z;

/** The pages about baselines share a verdict; the others have their own. */
const isOfBaselines = computed(() => ['baselines', 'occupations', 'closures'].includes(tab.value));
const baselines = computed(() => view.value?.baselines ?? []);
const occupations = computed(() => view.value?.occupations ?? []);
const baseline = computed(() => baselines.value.find((b) => chosen.value.has(b.key)) ?? null);
const closure = computed(() => view.value?.closures.find((c) => c.key === closureKey.value) ?? null);
const occupation = computed<OccupationView | null>(() => {
  const asked = occupations.value.find((o) => o.question !== '') ?? occupations.value[0];
  const id = [...occupied.value][0] ?? (tab.value === 'occupations' ? asked?.id : baseline.value?.rover);
  return occupations.value.find((o) => o.id === id) ?? null;
});
const rover = computed(() => occupations.value.find((o) => o.id === baseline.value?.rover) ?? null);
const words = computed(() => (view.value ? verdict(view.value, zone.value) : null));
const shifts = shallowRef<SceneShift[]>([]);
const stations = shallowRef<ReferenceStationView[]>([]);
const features = shallowRef<Pick<Scene, 'points' | 'paths' | 'shifts'>>({ points: [], paths: [], shifts: [] });
const scene = computed(() =>
  tab.value === 'features'
    ? { ...pointsScene(project.points.filter((p) => p.role !== 'surveyed')), ...featured(project.points, features.value) }
    : tab.value === 'stations'
      ? stationsScene(project.points, stations.value)
      : tab.value === 'base'
        ? { ...pointsScene(project.points), shifts: shifts.value }
        : baselinesScene(
            project.points,
            view.value,
            tab.value === 'closures' ? closure.value : null,
            baseline.value?.moves ? runDocument.value : null,
          ),
);
const epochs = computed(() => baseline.value?.epochs ?? null);
const questions = computed(() => occupations.value.filter((o) => o.question !== '').length + unwritten.value.length);
const tabs = computed(
  () =>
    [
      ['baselines', `Baselines ${baselines.value.length}`],
      [
        'occupations',
        questions.value > 0
          ? `Occupations ${occupations.value.length} · ${questions.value} asked`
          : `Occupations ${occupations.value.length}`,
      ],
      ['closures', `Loops ${view.value?.closures.length ?? 0}`],
      ['base', 'Base correction'],
      ['features', 'Features'],
      ['stations', 'Stations'],
    ] as const,
);
/** What is proposed to be kept, in instants. */
const keep = computed<[number, number] | null>(() => {
  const e = epochs.value;
  const stand = e?.keep === null || e?.keep === undefined ? null : e.stands[e.keep];
  if (!e || !stand || isKept.value) return null;
  return [e.first + stand.from, e.first + stand.to];
});
const isKept = computed(() => rover.value !== null && (rover.value.trimFrom !== null || rover.value.trimTo !== null));
const shownWindow = computed<[number, number] | null>(() => {
  const first = epochs.value?.first ?? 0;
  if (window_.value) return window_.value;
  if (keep.value) return [keep.value[0] - first, keep.value[1] - first];
  if (isKept.value && rover.value)
    return [(rover.value.trimFrom ?? rover.value.from) - first, (rover.value.trimTo ?? rover.value.to) - first];
  return null;
});

async function load() {
  const { constant, ppm } = allowance.value;
  view.value = await get<BaselinesView>(project.path(`/baselines?constant=${constant}&ppm=${ppm}`));
  if (baseline.value === null && baselines.value.length > 0 && tab.value === 'baselines') chosen.value = new Set([worst()]);
}

function worst(): string {
  const open = baselines.value.find((b) => b.runs.length > 0 && !b.moves && runOf(b)?.solution !== 'fixed');
  return (open ?? baselines.value[0]!).key;
}

/** What the sketch page needs of the chosen baseline or occupation. */
async function loadSide() {
  const b = baseline.value;
  const wanted = side.value;
  if (wanted === 'epochs') scatter.value = b?.epochs ? await get<Scatter>(project.path(`/baselines/scatter/${b.key}`)) : null;
  if (wanted === 'residuals' || b?.moves) {
    runDocument.value = b && b.runs.length > 0 ? await get<RunDocument>(project.path(`/baselines/runs/${b.key}`)) : null;
  }
  const o = occupation.value;
  if (o && (sky.value === null || skyOf !== o.id)) {
    sky.value = await get<SkyView>(project.path(`/baselines/occupations/${o.id}/sky`));
    skyOf = o.id;
  }
}
let skyOf = 0;

const unwritten = computed(() => (view.value?.recordings ?? []).filter((r) => !r.written));
const writeRinex = (id: number) =>
  project.attempt(() => post(project.path(`/baselines/recordings/${id}/rinex`)), 'Written as RINEX, read back, and taken in.');

const process = (keys: string[], settings: Omit<ProcessRequest, 'pairs'> = {}) => {
  const pairs = baselines.value.filter((b) => keys.includes(b.key)).map((b) => [b.base, b.rover]);
  return project.attempt(async () => {
    const job = await project.job(post(project.path('/baselines/process'), { pairs, ...settings } satisfies ProcessRequest));
    const failed = Object.entries((job.outcome?.failed ?? {}) as Record<string, string>);
    if (failed.length > 0) throw new Error(failed.map(([which, why]) => `${which}: ${why}`).join('; '));
  });
};
const independent = computed(() => baselines.value.filter((b) => b.independent).map((b) => b.key));
const all = computed(() => baselines.value.map((b) => b.key));

async function solveEpochs() {
  const b = baseline.value;
  if (!b || !project.mayChange) return;
  const ok = await project.attempt(() =>
    project.job(post(project.path('/baselines/epochs'), { base: b.base, rover: b.rover } satisfies EpochsRequest)),
  );
  if (ok) side.value = 'epochs';
}

async function trim(part: [number, number] | null) {
  const b = baseline.value;
  const o = rover.value;
  if (!b || !o || !project.mayChange) return;
  await project.attempt(async () => {
    const { marker, heightKind, heightValue, heightRadius, heightAbove, antenna } = o;
    await put(
      project.path(`/baselines/occupations/${o.id}`),
      {
        marker,
        heightKind,
        heightValue,
        heightRadius,
        heightAbove,
        antenna,
        trimFrom: part?.[0] ?? null,
        trimTo: part?.[1] ?? null,
        reason: part && (epochs.value?.moves.length ?? 0) > 0 ? 'the receiver left its mark' : '',
      },
      o.version,
    );
    // All that rests on this occupation follows.
    const pairs = baselines.value.filter((x) => x.runs.length > 0 && (x.base === o.id || x.rover === o.id)).map((x) => [x.base, x.rover]);
    await project.job(post(project.path('/baselines/process'), { pairs } satisfies ProcessRequest));
  });
  window_.value = null;
}

const accept = (keys: string[]) =>
  project.attempt(
    () => post(project.path('/baselines/accept'), { baselines: keys } satisfies VectorsRequest),
    keys.length === 1 ? 'Its vector is in the network.' : `${keys.length} vectors are in the network.`,
  );
const takeStops = (request: StopsRequest) =>
  project.attempt(
    () => post(project.path(`/baselines/stops/${baseline.value!.key}`), request),
    `The stops are points ${request.prefix}1 and following.`,
  );
/** Fixed, fresh, independent and not in the network yet: what is accepted without a further look. */
const acceptable = computed(() =>
  baselines.value
    .filter((b) => runOf(b)?.solution === 'fixed' && b.stale.length === 0 && b.independent && !b.accepted && !b.moves)
    .map((b) => b.key),
);

function chooseOccupation(id: number) {
  occupied.value = new Set([id]);
  if (tab.value === 'baselines') {
    const own = baselines.value.filter((b) => b.rover === id || b.base === id);
    if (own.length > 0) chosen.value = new Set(own.map((b) => b.key));
  }
}

function selectBaselines(keys: string[]) {
  chosen.value = new Set(keys);
  occupied.value = new Set();
  window_.value = null;
}

function fromSketch(key: string) {
  tab.value = 'baselines';
  selectBaselines([key]);
}

function pointFromSketch(name: string) {
  const own = occupations.value.filter((o) => o.marker === name);
  if (own.length > 0) chooseOccupation(own[own.length - 1]!.id);
}

function key(event: KeyboardEvent) {
  if (isTyping(event) || event.ctrlKey || event.metaKey || tab.value !== 'baselines') return;
  const part =
    window_.value && epochs.value
      ? ([epochs.value.first + window_.value[0], epochs.value.first + window_.value[1]] as [number, number])
      : keep.value;
  if (event.key === 'e') {
    event.preventDefault();
    void solveEpochs();
  }
  if (event.key === 't' && part) {
    event.preventDefault();
    void trim(part);
  }
}

onMounted(async () => {
  window.addEventListener('keydown', key);
  await load();
  if (typeof route.query.occupation === 'string') {
    tab.value = 'occupations';
    occupied.value = new Set([Number(route.query.occupation)]);
  }
  await loadSide();
});
onBeforeUnmount(() => window.removeEventListener('keydown', key));
watch(
  () => project.version,
  async () => {
    await load();
    await loadSide();
  },
);
watch([side, baseline, occupation], loadSide);
</script>

<template>
  <TwoPages>
    <template #figures>
      <div class="sheet">
        <EmptyPage v-if="view && occupations.length === 0 && isOfBaselines" title="No GNSS sessions yet">
          <p>
            Baselines are processed from what receivers recorded: RINEX observations (2.11 or 3), the navigation file of one of them,
            precise orbits as SP3.
          </p>
          <p v-if="view.broadcast" class="quiet">Ephemerides are there already.</p>
          <router-link class="link" :to="`/p/${project.id}/intake`">Bring files in</router-link>
          <ElButton v-if="project.points.length > 0" data-test="open-base" @click="tab = 'base'">Correct a base of rover shots</ElButton>
        </EmptyPage>
        <template v-else-if="view && words">
          <header v-if="isOfBaselines && occupations[0]" class="answer">
            <div class="words">
              <h1 data-test="headline">{{ words.headline }}</h1>
              <p v-for="s in words.sentences" :key="s">{{ s }}</p>
              <p class="quiet line">
                <ElSelect
                  size="small"
                  class="zone"
                  aria-label="Time shown"
                  :model-value="zone"
                  @update:model-value="(z: Zone) => session.prefer('baselines.zone', z)"
                >
                  <ElOption v-for="z in zones" :key="z" :value="z" :label="zoneName(z)" />
                </ElSelect>
                <span
                  >{{ ahead(occupations[0].from, zone, leap) }}, {{ day(occupations[0].from, zone, leap) }} · GPS − UTC = {{ leap }} s</span
                >
              </p>
            </div>
            <div class="actions">
              <ElButton
                type="primary"
                data-test="process-all"
                :disabled="!project.mayChange || all.length === 0 || (!view.broadcast && !view.precise)"
                @click="process(all)"
              >
                Process all {{ all.length }}
              </ElButton>
              <ElButton
                v-if="independent.length < all.length"
                data-test="process-independent"
                :disabled="!project.mayChange"
                @click="process(independent)"
              >
                Independent ones {{ independent.length }}
              </ElButton>
              <ElButton data-test="accept-all" :disabled="!project.mayChange || acceptable.length === 0" @click="accept(acceptable)">
                Accept {{ acceptable.length }} fixed
              </ElButton>
            </div>
          </header>
          <ElAlert v-for="r in tab === 'occupations' ? unwritten : []" :key="r.id" type="info" :closable="false" data-test="recording">
            <span class="mono">{{ r.name }}</span>: {{ r.kind === 'rtcm' ? 'an RTCM stream' : 'a receiver log' }} of
            {{ r.marker || 'no named mark' }}, {{ r.epochs }} epochs, {{ r.satellites }} satellites, {{ r.ephemerides }} ephemerides.
            <ElButton size="small" type="primary" plain data-test="write-rinex" :disabled="!project.mayChange" @click="writeRinex(r.id)"
              >Write RINEX and take it in</ElButton
            >
            <a v-if="r.epochs > 0" class="link" :href="project.path(`/baselines/recordings/${r.id}/observations`)">observations</a>
            <a v-if="r.ephemerides > 0" class="link" :href="project.path(`/baselines/recordings/${r.id}/navigation`)">navigation</a>
          </ElAlert>
          <ElAlert v-if="!view.broadcast && !view.precise" type="warning" :closable="false">
            There are no ephemerides: bring in the navigation file of one of the receivers, or precise orbits.
          </ElAlert>
          <PageTabs v-model="tab" :tabs="tabs" label="Pages of the baselines" />
          <template v-if="tab === 'baselines'">
            <FiguresTable
              label="baselines"
              :columns="baselineColumns(project.units)"
              :rows="baselines"
              :row-key="(b) => b.key"
              :selected="chosen"
              :sort="{ key: 'solution', desc: true }"
              :filterable="baselines.length > 30"
              @select="selectBaselines"
            >
              <template #cell-solution="{ row, text }"
                ><strong
                  :class="{
                    holds: text === 'fixed' || text === 'track, fixed',
                    doubt: text.includes('stale'),
                    fails: runOf(row) !== null && !row.moves && runOf(row)?.solution !== 'fixed',
                  }"
                  >{{ text }}</strong
                ></template
              >
            </FiguresTable>
          </template>
          <template v-else-if="tab === 'occupations'">
            <FiguresTable
              label="occupations"
              :columns="occupationColumns(project.units, zone, leap)"
              :rows="occupations"
              :row-key="(o) => String(o.id)"
              :selected="new Set(occupation ? [String(occupation.id)] : [])"
              :filterable="occupations.length > 12"
              @select="(k) => (occupied = new Set(k.map(Number)))"
            >
              <template #cell-marker="{ row, text }"
                ><span :class="{ doubt: row.question !== '' }" class="mono">{{ row.question ? '▲ ' : '' }}{{ text }}</span></template
              >
            </FiguresTable>
          </template>
          <FeatureSheet
            v-else-if="tab === 'features'"
            :occupations="occupations"
            :zone="zone"
            :leap="leap"
            @drawn="(d) => ((features = d), (side = 'map'))"
          />
          <StationSheet
            v-else-if="tab === 'stations'"
            :occupations="occupations"
            :zone="zone"
            :leap="leap"
            @stations="(list) => ((stations = list), (side = 'map'))"
          />
          <BaseSheet v-else-if="tab === 'base'" @shifts="(list) => ((shifts = list), (side = 'map'))" />
          <template v-else>
            <FiguresTable
              label="loops"
              :columns="closureColumns(project.units)"
              :rows="view.closures"
              :row-key="(c) => c.key"
              :selected="new Set([closureKey])"
              :filterable="view.closures.length > 12"
              @select="(k) => ((closureKey = k[0] ?? ''), (side = 'map'))"
            >
              <template #cell-check="{ text }"
                ><span :class="{ fails: text.startsWith('▲'), holds: text.startsWith('✓') }">{{ text }}</span></template
              >
              <template #empty
                ><p class="quiet">Process baselines that close a loop, or that were measured twice, to see what they miss by.</p></template
              >
            </FiguresTable>
            <div class="allowed">
              <NumberInput
                :model-value="allowance.constant"
                label="allowed"
                unit="mm"
                :digits="1"
                data-test="allowed-constant"
                @update:model-value="(constant) => allow({ constant })"
              />
              <NumberInput
                :model-value="allowance.ppm"
                label="and of the length"
                unit="ppm"
                :digits="1"
                data-test="allowed-ppm"
                @update:model-value="(ppm) => allow({ ppm })"
              />
              <p class="quiet">Worst first; all loops are found by themselves. What is allowed changes no result.</p>
            </div>
          </template>
          <TimeStrip
            v-if="tab === 'baselines' || tab === 'occupations'"
            :occupations="occupations"
            :chosen="new Set(occupation ? [occupation.id] : [])"
            :sky="sky"
            :zone="zone"
            :leap="leap"
            @choose="chooseOccupation"
          />
          <BaselineSlip
            v-if="tab === 'baselines' && baseline"
            :baseline="baseline"
            :chosen="chosen.size"
            :window="window_ && epochs ? [epochs.first + window_[0], epochs.first + window_[1]] : null"
            :keep="keep"
            :trimmed="isKept"
            :precise="view.precise"
            :satellites="(sky?.rows ?? []).map((r) => r.id)"
            :stops="baseline.moves ? (runDocument?.stops ?? []) : []"
            :zone="zone"
            :leap="leap"
            @epochs="solveEpochs"
            @process="(settings) => process([...chosen], settings)"
            @trim="(part) => trim(part)"
            @whole="trim(null)"
            @accept="accept([...chosen])"
            @stops="takeStops"
          />
          <OccupationSlip v-if="tab === 'occupations' && occupation" :occupation="occupation" :zone="zone" :leap="leap" />
        </template>
      </div>
    </template>
    <template #sketch>
      <MapSketch
        v-if="side === 'map'"
        :scene="scene"
        :selected="tab === 'closures' && closure ? new Set(closure.baselines) : chosen"
        :selected-points="new Set(occupation ? [occupation.marker] : [])"
        @select="fromSketch"
        @point="pointFromSketch"
      >
        <template #corner>
          <SideSwitch v-model="side" />
        </template>
      </MapSketch>
      <BaselineSide
        v-else
        v-model:side="side"
        :baseline="baseline"
        :occupation="occupation"
        :scatter="scatter"
        :run="runDocument"
        :sky="sky"
        :window="shownWindow"
        :zone="zone"
        :leap="leap"
        @window="(w) => (window_ = w)"
        @epochs="solveEpochs"
      />
    </template>
  </TwoPages>
</template>

<style scoped>
.sheet {
  overflow-y: auto;
}
.answer {
  display: flex;
  gap: 14px;
  align-items: flex-start;
}
.answer .words {
  flex: 1;
  min-width: 0;
}
.answer p {
  margin: 0 0 2px;
}
.answer .line {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 12px;
}
.zone {
  width: 140px;
  flex: none;
}
.actions {
  display: grid;
  gap: 5px;
  flex: none;
}
.actions .el-button {
  margin: 0;
}
.allowed {
  display: grid;
  grid-template-columns: 110px 130px 1fr;
  gap: 12px;
  align-items: center;
}
.sheet > :deep(.figures) {
  flex: 1 1 110px;
  min-height: 110px;
}
</style>

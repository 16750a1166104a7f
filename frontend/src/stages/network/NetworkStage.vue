<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import { get, post, remove } from '../../api/client';
import type { NetworkView, RunView, ScreenRequest, ScreenedView, SetUseRequest, ShiftView } from '../../api/types';
import { correctionOf, type SuspectsFound } from './suspects';
import { sideView } from './side';
import SideView from './SideView.vue';
import SuspectSheet from './SuspectSheet.vue';
import SuspectSlip from './SuspectSlip.vue';
import FiguresTable from '../../figures/FiguresTable.vue';
import LineageList from '../../frame/LineageList.vue';
import PageTabs from '../../frame/PageTabs.vue';
import EmptyPage from '../../frame/EmptyPage.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { isTyping } from '../../frame/keys';
import { MapSketch } from '../../sketch';
import { small, smallUnit } from '../../format/units';
import { useProject } from '../../state/project';
import { atName, groupKey, LIMIT, rowKey, stationColumns } from './columns';
import BookSheet from './BookSheet.vue';
import ComponentsSheet from './ComponentsSheet.vue';
import ControlSheet from './ControlSheet.vue';
import FailureNotice from './FailureNotice.vue';
import NetworkHead from './NetworkHead.vue';
import { lineKey, networkScene, sightKey, type Shows } from './networkScene';
import LevelSheet from './levels/LevelSheet.vue';
import ObservationSheet from './ObservationSheet.vue';
import ObservationSlip from './ObservationSlip.vue';
import PlotSheet from './PlotSheet.vue';
import RunSheet from './RunSheet.vue';
import ReorientSheet from './ReorientSheet.vue';
import ScreeningSlip from './ScreeningSlip.vue';
import SettingsSheet from './SettingsSheet.vue';
import PlanSheet from './PlanSheet.vue';
import SetupSheet from './SetupSheet.vue';
import TraverseSheet from './TraverseSheet.vue';
import { usePlan } from './usePlan';

const project = useProject();
const route = useRoute();
const network = shallowRef<NetworkView | null>(null);
const tab = ref<'observations' | 'suspects' | 'levels' | 'stations' | 'control' | 'setups' | 'runs' | 'settings' | 'plan'>('observations');
const tabs = computed(
  () =>
    [
      ['observations', 'Observations'],
      ['suspects', suspects.value ? `Suspects ${suspects.value.suspects.length}` : 'Suspects'],
      ['stations', 'Stations'],
      ['levels', 'Levels'],
      ['control', 'Control'],
      ['setups', 'Setups'],
      ['runs', `Runs ${network.value?.runs.length ?? 0}`],
      ['settings', 'Weights'],
      ['plan', 'Plan'],
    ] as const,
);
const selected = ref(new Set<string>());
const selectedPoints = ref(new Set<string>());
const groups = ref(new Set<string>());
const reason = ref('');
const setupPage = ref<'weights' | 'plots' | 'book' | 'traverse'>('weights');
const trace = ref<string[]>([]);
const plan = usePlan(() => network.value);
const isPlanning = computed(() => tab.value === 'plan' && plan.plan.value !== null);
/** Pages that need the whole height. */
const isPaper = computed(() => tab.value === 'plan' || (tab.value === 'setups' && ['book', 'traverse'].includes(setupPage.value)));
const showMoves = ref(false);
const shows = ref<Shows>('ellipses');
const SHOWN = computed<[Shows, string][]>(() => [
  ['ellipses', 'ellipses'],
  ['relative', 'relative ellipses'],
  ['redundancy', 'redundancy numbers'],
  ['external', `external effect ${smallUnit(project.units)}`],
]);
const isReorienting = ref(false);
const reorientMoves = shallowRef<ShiftView[] | null>(null);
const proposals = ref<ScreenedView[] | null>(null);
const screened = ref<{ limit: number; most: number | null }>({ limit: LIMIT, most: null });
const suspects = shallowRef<SuspectsFound | null>(null);
const suspectIndex = ref(0);
const suspect = computed(() => (tab.value === 'suspects' ? (suspects.value?.suspects[suspectIndex.value] ?? null) : null));

const run = computed<RunView | null>(() => network.value?.runs[0] ?? null);
const rows = computed(() => network.value?.rows ?? []);
const chosen = computed(() => rows.value.filter((r) => selected.value.has(rowKey(r))));

const stations = computed(() => stationColumns(project.units));
const scene = computed(() =>
  isPlanning.value
    ? plan.scene.value
    : networkScene(
        project.points,
        network.value,
        showMoves.value || reorientMoves.value !== null,
        reorientMoves.value ?? suspect.value?.moves ?? null,
        shows.value,
        (metres) => small(metres, project.units),
      ),
);

const touched = computed(() => rows.value.filter((r) => suspect.value?.touched.includes(r.id)));
const side = computed(() => sideView(suspect.value, touched.value, network.value?.stations ?? []));
const selectedLines = computed(() =>
  tab.value === 'setups' && setupPage.value === 'traverse'
    ? new Set(trace.value.slice(1).map((name, i) => sightKey(trace.value[i]!, name)))
    : new Set((suspect.value ? touched.value : chosen.value).map(lineKey)),
);
const sourceOfSuspect = computed(() => {
  const lines = [...new Set(touched.value.map((r) => r.line))].filter((l) => l !== null);
  return touched.value[0]?.file ? `${touched.value[0].file} line${lines.length > 1 ? 's' : ''} ${lines.slice(0, 6).join(', ')}` : '';
});

function select(keys: string[]) {
  selected.value = new Set(keys);
  groups.value = new Set();
  reason.value = '';
}

/** A whole setup or session: its rows are selected, so that one key sets all of them aside. */
function selectGroups(names: string[]) {
  const setups = (network.value?.setups ?? []).filter((g) => names.includes(g.name));
  select(rows.value.filter((r) => setups.some((g) => g.kind === r.kind && (g.setup === atName(r) || g.setup === r.set))).map(rowKey));
  groups.value = new Set(names);
}

function fromSketch(key: string) {
  if (isPlanning.value) return;
  tab.value = 'observations';
  const hits = rows.value.filter((r) => lineKey(r) === key).sort((a, b) => Math.abs(b.standardized ?? 0) - Math.abs(a.standardized ?? 0));
  select(hits.map(rowKey));
}

function pointFromSketch(name: string) {
  if (isPlanning.value) {
    plan.point(name);
    return;
  }
  selectedPoints.value = new Set([name]);
  if (tab.value === 'stations' || tab.value === 'control') return;
  select(rows.value.filter((r) => r.at === name || r.to === name).map(rowKey));
}

async function load() {
  network.value = await get<NetworkView>(project.path('/network'));
}

const adjust = () =>
  project.attempt(
    () => project.job(post(project.path('/network/adjust'))),
    '',
    undefined,
    () => undefined, // shown in place, with its remedy
  );
const seenFailure = ref('');
const failure = computed(() => {
  const newest = project.overview?.jobs.find((j) => j.kind === 'adjust');
  return newest?.state === 'failed' && newest.id !== seenFailure.value ? newest : null;
});

/** Sets the chosen rows aside or brings them back, adjusts again at once, and shows what it changed. */
async function toggleUse() {
  if (chosen.value.length === 0 || !project.mayChange) return;
  const aside = chosen.value.some((r) => r.used);
  const list = chosen.value.map((r) => ({ id: r.id, component: r.component }));
  await project.attempt(async () => {
    await post(project.path('/network/use'), { rows: list, aside, reason: reason.value } satisfies SetUseRequest);
    await project.job(post(project.path('/network/adjust')));
  });
}

async function search() {
  await project.attempt(async () => {
    const job = await project.job(post(project.path('/network/suspects')));
    suspects.value = job.outcome as unknown as SuspectsFound;
    suspectIndex.value = 0;
  });
}

async function acceptSuspect(reason: string) {
  const s = suspect.value;
  if (!s || s.changes.length === 0 || !project.mayChange) return;
  await project.attempt(async () => {
    await post(project.path('/network/corrections'), correctionOf(s, reason));
    await project.job(post(project.path('/network/adjust')));
    suspects.value = null;
  });
}

async function setSuspectAside(reason: string) {
  const s = suspect.value;
  if (!s || !project.mayChange) return;
  const list = touched.value.map((r) => ({ id: r.id, component: r.component }));
  await project.attempt(async () => {
    await post(project.path('/network/use'), { rows: list, aside: true, reason: reason || s.words } satisfies SetUseRequest);
    await project.job(post(project.path('/network/adjust')));
    suspects.value = null;
  });
}

async function withdraw(id: number) {
  await project.attempt(async () => {
    await remove(project.path(`/network/corrections/${id}`));
    await project.job(post(project.path('/network/adjust')));
    suspects.value = null;
  });
}

function showMark(name: string) {
  tab.value = 'control';
  selectedPoints.value = new Set([name]);
}

async function screen(limit = LIMIT, most: number | null = null) {
  await project.attempt(async () => {
    const job = await project.job(post(project.path('/network/screen'), { limit, most } satisfies ScreenRequest));
    screened.value = { limit, most };
    proposals.value = (job.outcome?.proposals ?? []) as ScreenedView[];
  });
}

async function acceptProposals() {
  const list = (proposals.value ?? []).map((p) => ({ id: p.id, component: p.component }));
  await project.attempt(async () => {
    await post(project.path('/network/use'), {
      rows: list,
      aside: true,
      reason: `screened above ${screened.value.limit}`,
    } satisfies SetUseRequest);
    await project.job(post(project.path('/network/adjust')));
  });
  proposals.value = null;
}

function key(event: KeyboardEvent) {
  if (event.key === 'x' && !isTyping(event) && !event.ctrlKey && !event.metaKey) {
    event.preventDefault();
    void (suspect.value ? setSuspectAside('') : toggleUse());
  }
  if (event.key === 'c' && suspect.value && !isTyping(event) && !event.ctrlKey && !event.metaKey) {
    event.preventDefault();
    void acceptSuspect('');
  }
}

onMounted(async () => {
  window.addEventListener('keydown', key);
  await load();
  apply();
});
onBeforeUnmount(() => window.removeEventListener('keydown', key));

function apply() {
  const q = route.query;
  if (typeof q.point === 'string') pointFromSketch(q.point);
  if (typeof q.observation === 'string') select(rows.value.filter((r) => String(r.id) === q.observation).map(rowKey));
  if (q.action === 'adjust') void adjust();
}
watch(() => route.query, apply);
watch(() => project.version, load);
</script>

<template>
  <TwoPages>
    <template #figures>
      <div class="sheet">
        <EmptyPage v-if="network && rows.length === 0 && tab !== 'levels' && tab !== 'plan'" title="No observations yet">
          <p>
            The network is made of directions, zenith angles, distances and vectors. Bring in a control list and a total-station or vector
            file.
          </p>
          <router-link class="link" :to="`/p/${project.id}/intake`">Bring files in</router-link>
          <ElButton data-test="write-levels" @click="tab = 'levels'">Write levels by hand</ElButton>
          <ElButton data-test="plan" @click="tab = 'plan'">Plan a network</ElButton>
        </EmptyPage>
        <template v-else-if="network">
          <NetworkHead
            v-if="tab !== 'levels' && !isPaper && !(tab === 'control' && isReorienting)"
            :network="network"
            :run="run"
            @adjust="adjust"
          />
          <FailureNotice v-if="failure" :job="failure" :network="network" @adjust="adjust" @close="seenFailure = failure.id" />
          <LineageList v-if="run && tab === 'runs'" place="network" />
          <PageTabs v-model="tab" :tabs="tabs" label="Pages of the network" />
          <ObservationSheet v-if="tab === 'observations'" :rows="rows" :selected="selected" @select="select">
            <ElTooltip content="Proposes what to set aside; you decide" :show-after="400">
              <ElButton size="small" :disabled="!project.mayChange || !run" @click="screen()">Screening</ElButton>
            </ElTooltip>
          </ObservationSheet>
          <LevelSheet v-else-if="tab === 'levels'" />
          <SuspectSheet
            v-else-if="tab === 'suspects'"
            :found="suspects"
            :chosen="suspect"
            :corrections="network.corrections"
            :ready="run !== null"
            @choose="(i) => (suspectIndex = i)"
            @search="search"
            @withdraw="withdraw"
          />
          <FiguresTable
            v-else-if="tab === 'stations'"
            label="stations"
            :columns="stations"
            :rows="network.stations"
            :row-key="(s) => s.name"
            :selected="selectedPoints"
            :sort="{ key: 'major', desc: true }"
            @select="(k) => (selectedPoints = new Set(k))"
          >
            <template #empty><p class="quiet">Adjust the network to see its stations.</p></template>
          </FiguresTable>
          <template v-else-if="tab === 'control'">
            <ReorientSheet v-if="isReorienting" @moves="(m) => (reorientMoves = m)" @close="isReorienting = false" />
            <template v-else>
              <div>
                <ElButton size="small" data-test="reorient" :disabled="!project.mayChange || !run" @click="isReorienting = true"
                  >Re-orientation …</ElButton
                >
              </div>
              <ControlSheet :selected="selectedPoints" @select="(k) => (selectedPoints = new Set(k))" />
            </template>
          </template>
          <div v-else-if="tab === 'setups'" class="setups">
            <ElRadioGroup v-model="setupPage" size="small" aria-label="Shown of the setups">
              <ElRadioButton value="weights">Against their weights</ElRadioButton><ElRadioButton value="plots">Plots</ElRadioButton
              ><ElRadioButton value="book">Book, reduced</ElRadioButton><ElRadioButton value="traverse">Traverse</ElRadioButton>
            </ElRadioGroup>
            <SetupSheet v-if="setupPage === 'weights'" :setups="network.setups" :selected="groups" @select="selectGroups" />
            <PlotSheet
              v-else-if="setupPage === 'plots'"
              :rows="rows"
              :stations="network.stations"
              @select="
                (k) => {
                  tab = 'observations';
                  select([k]);
                }
              "
            />
            <TraverseSheet v-else-if="setupPage === 'traverse'" @trace="(names) => (trace = names)" @point="pointFromSketch" />
            <BookSheet v-else />
          </div>
          <PlanSheet v-else-if="tab === 'plan'" :state="plan" />
          <RunSheet v-else-if="tab === 'runs'" :runs="network.runs" />
          <div v-else class="weights">
            <SettingsSheet :settings="network.settings" :version="network.settingsVersion" />
            <ComponentsSheet
              :settings="network.settings"
              :version="network.settingsVersion"
              :ready="run !== null"
              :groups="[...network.kinds, ...network.setups].map(groupKey).filter((k) => k !== '')"
            />
          </div>
          <ScreeningSlip
            v-if="proposals !== null"
            :proposals="proposals"
            :limit="screened.limit"
            :most="screened.most"
            :disabled="!project.mayChange"
            @accept="acceptProposals"
            @again="screen"
            @leave="proposals = null"
          />
          <SuspectSlip
            v-else-if="suspect"
            :suspect="suspect"
            :source="sourceOfSuspect"
            :touched="touched"
            @accept="acceptSuspect"
            @aside="setSuspectAside"
            @mark="showMark"
          />
          <ObservationSlip
            v-else-if="chosen.length > 0 && (tab === 'observations' || tab === 'setups')"
            v-model:reason="reason"
            :chosen="chosen"
            :rows="rows"
            :run="run"
            @widen="select"
            @toggle="toggleUse"
          />
        </template>
      </div>
    </template>
    <template #sketch>
      <MapSketch
        :scene="scene"
        :still="isPlanning"
        :selected="isPlanning ? new Set() : selectedLines"
        :selected-points="isPlanning ? plan.marked.value : selectedPoints"
        @select="fromSketch"
        @point="pointFromSketch"
        @place="(e, n) => isPlanning && plan.place(e, n)"
      >
        <template #corner>
          <strong>Map</strong>
          <ElSelect v-if="run && !isPlanning" v-model="shows" class="shows" size="small" aria-label="Shown on the map">
            <ElOption v-for="[what, label] in SHOWN" :key="what" :value="what" :label="label" />
          </ElSelect>
          <ElCheckbox v-if="suspect && suspect.moves.length > 0" class="quiet" v-model="showMoves"
            >moves with the correction ({{ small(suspect.largestMove, project.units) }} {{ smallUnit(project.units) }} at
            {{ suspect.largestMoveAt }})</ElCheckbox
          >
          <ElCheckbox v-else-if="network?.comparison && !isPlanning" class="quiet" v-model="showMoves"
            >moves since run {{ network.comparison.previousRun }}</ElCheckbox
          >
        </template>
      </MapSketch>
      <SideView v-if="side" class="side" :view="side" />
    </template>
  </TwoPages>
</template>

<style scoped>
.side {
  position: absolute;
  left: 14px;
  bottom: 52px;
  width: min(460px, calc(100% - 28px));
  padding: 4px 8px;
  background: var(--sketch);
  border: 1px solid var(--rule-strong);
}
.shows {
  width: 172px;
}
.setups {
  display: flex;
  flex-direction: column;
  align-items: stretch;
  gap: 8px;
  flex: 1;
  min-height: 0;
}
.weights {
  display: flex;
  flex-direction: column;
  gap: 8px;
  flex: 1;
  min-height: 0;
  overflow: auto;
}
.weights :deep(.settings) {
  flex: none;
}
</style>

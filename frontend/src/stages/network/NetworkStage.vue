<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import { get, post } from '../../api/client';
import type { NetworkView, RunView, ScreenRequest, ScreenedView, SetUseRequest, SourceLine } from '../../api/types';
import FiguresTable from '../../figures/FiguresTable.vue';
import { ResidualHistogram } from '../../figures';
import LineageList from '../../frame/LineageList.vue';
import Slip from '../../frame/Slip.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { isTyping } from '../../frame/keys';
import { isAngular, residual, signed, small, smallAngle, smallUnit, when } from '../../format/units';
import { MapSketch } from '../../sketch';
import { useProject } from '../../state/project';
import { atName, groupColumns, observationColumns, rowKey, runColumns, stationColumns as columnsOfStations } from './columns';
import ControlSheet from './ControlSheet.vue';
import { lineKey, networkScene } from './networkScene';
import SettingsSheet from './SettingsSheet.vue';

const LIMIT = 3.29;

const project = useProject();
const route = useRoute();
const network = shallowRef<NetworkView | null>(null);
const tab = ref<'observations' | 'stations' | 'control' | 'setups' | 'runs' | 'settings'>('observations');
const selected = ref(new Set<string>());
const selectedPoints = ref(new Set<string>());
const groups = ref(new Set<string>());
const reason = ref('');
const showMoves = ref(false);
const source = ref<SourceLine[]>([]);
const proposals = ref<ScreenedView[] | null>(null);

const units = computed(() => project.units);
const run = computed<RunView | null>(() => network.value?.runs[0] ?? null);
const rows = computed(() => network.value?.rows ?? []);
const chosen = computed(() => rows.value.filter((r) => selected.value.has(rowKey(r))));
const first = computed(() => chosen.value[0] ?? null);
const asideCount = computed(() => rows.value.filter((r) => !r.used).length);
const standardized = computed(() => rows.value.filter((r) => r.used && r.standardized !== null).map((r) => r.standardized!));

const columns = computed(() => observationColumns(units.value));
const stationColumns = computed(() => columnsOfStations(units.value));
const scene = computed(() => networkScene(project.points, network.value, showMoves.value));

const selectedLines = computed(() => new Set(chosen.value.map(lineKey)));

function select(keys: string[]) {
  selected.value = new Set(keys);
  groups.value = new Set();
  reason.value = '';
  source.value = [];
}

/** A whole setup or session: its rows are selected, so that one key sets all of them aside. */
function selectGroups(names: string[]) {
  const setups = (network.value?.setups ?? []).filter((g) => names.includes(g.name));
  select(rows.value.filter((r) => setups.some((g) => g.kind === r.kind && (g.setup === atName(r) || g.setup === r.set))).map(rowKey));
  groups.value = new Set(names);
}

function fromSketch(key: string) {
  tab.value = 'observations';
  const hits = rows.value.filter((r) => lineKey(r) === key).sort((a, b) => Math.abs(b.standardized ?? 0) - Math.abs(a.standardized ?? 0));
  select(hits.map(rowKey));
}

function pointFromSketch(name: string) {
  selectedPoints.value = new Set([name]);
  if (tab.value === 'stations' || tab.value === 'control') return;
  select(rows.value.filter((r) => r.at === name || r.to === name).map(rowKey));
}

async function load() {
  network.value = await get<NetworkView>(project.path('/network'));
}

const adjust = () => project.attempt(() => project.job(post(project.path('/network/adjust'))));
const accept = () => project.attempt(() => post(project.path('/network/accept')), 'Adjusted values are the project’s coordinates now.');

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

async function showSource() {
  const r = first.value;
  if (r?.fileId && r.line) source.value = await get<SourceLine[]>(project.path(`/intake/${r.fileId}/lines/${r.line}`));
}

async function screen() {
  await project.attempt(async () => {
    const job = await project.job(post(project.path('/network/screen'), { limit: LIMIT } satisfies ScreenRequest));
    proposals.value = (job.outcome?.proposals ?? []) as ScreenedView[];
  });
}

async function acceptProposals() {
  const list = (proposals.value ?? []).map((p) => ({ id: p.id, component: p.component }));
  await project.attempt(async () => {
    await post(project.path('/network/use'), { rows: list, aside: true, reason: 'screened above 3.29' } satisfies SetUseRequest);
    await project.job(post(project.path('/network/adjust')));
  });
  proposals.value = null;
}

function key(event: KeyboardEvent) {
  if (event.key === 'x' && !isTyping(event) && !event.ctrlKey && !event.metaKey) {
    event.preventDefault();
    void toggleUse();
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
        <div v-if="network && rows.length === 0" class="empty">
          <h1>No observations yet</h1>
          <p>
            The network is made of directions, zenith angles, distances and vectors. Bring in a control list and a total-station or vector
            file.
          </p>
          <router-link class="link" :to="`/p/${project.id}/intake`">Bring files in</router-link>
        </div>
        <template v-else-if="network">
          <header class="answer">
            <div class="words">
              <h1>{{ run ? run.headline : 'The network is not adjusted yet' }}</h1>
              <p v-if="!run">{{ rows.length }} observed values wait. Adjusting changes nothing until you accept the coordinates.</p>
              <p v-for="s in run?.sentences" :key="s" class="sentence">{{ s }}</p>
              <p v-if="network.comparison" class="quiet compare" data-test="comparison">
                Against run {{ network.comparison.previousRun }}: factor {{ network.comparison.previousFactor?.toFixed(2) }} →
                {{ run?.varianceFactor?.toFixed(2) }}, largest move {{ small(network.comparison.largest, units) }} {{ smallUnit(units) }}.
              </p>
            </div>
            <div class="side">
              <ResidualHistogram v-if="run" :values="standardized" />
              <div class="actions">
                <button
                  class="button"
                  data-test="adjust"
                  :class="{ main: !run || network.stale.length > 0 }"
                  :disabled="!project.mayChange"
                  @click="adjust"
                >
                  Adjust
                </button>
                <button
                  class="button"
                  data-test="accept-coordinates"
                  :disabled="!project.mayChange || !run || network.accepted || network.stale.length > 0"
                  @click="accept"
                >
                  {{ network.accepted ? 'Accepted ✓' : 'Accept coordinates' }}
                </button>
              </div>
            </div>
          </header>
          <div v-if="network.stale.length > 0" class="notice">
            <span><strong class="doubt">Stale:</strong> {{ network.stale.join('; ') }}.</span><span class="spacer" /><button
              class="button"
              :disabled="!project.mayChange"
              @click="adjust"
            >
              Adjust again
            </button>
          </div>
          <LineageList v-if="run && tab === 'runs'" place="network" />
          <p v-for="w in run?.warnings" :key="w" class="notice bad">{{ w }}</p>
          <div v-if="run" class="strip">
            <div v-for="g in network.kinds" :key="g.kind" :title="`${g.count} values, ${g.redundancy.toFixed(1)} redundant`">
              <span class="label">{{ g.name }}</span><span
                class="mono"
                :class="{ fails: g.standing === 'high', doubt: g.standing === 'low' }"
                >{{ g.factor?.toFixed(2) ?? '—' }}{{ g.standing === 'high' ? ' ▲' : g.standing === 'low' ? ' ▽' : '' }}</span
              >
            </div>
            <div v-if="network.largestEllipse !== null">
              <span class="label">largest ellipse</span
              ><span class="mono">{{ small(network.largestEllipse, units) }} {{ smallUnit(units) }} {{ network.largestEllipseAt }}</span>
            </div>
          </div>
          <div class="tabs" role="tablist">
            <button
              v-for="[k, t] in [
                ['observations', 'Observations'],
                ['stations', 'Stations'],
                ['control', 'Control'],
                ['setups', 'Setups'],
                ['runs', `Runs ${network.runs.length}`],
                ['settings', 'Weights'],
              ] as const"
              :key="k"
              class="tab"
              role="tab"
              :aria-selected="tab === k"
              @click="tab = k"
            >
              {{ t }}
            </button>
            <span class="spacer" />
            <button
              class="button plain"
              :disabled="!project.mayChange || !run"
              title="Proposes what to set aside; you decide"
              @click="screen"
            >
              Screening
            </button>
          </div>
          <FiguresTable
            v-if="tab === 'observations'"
            label="observations"
            :columns="columns"
            :rows="rows"
            :row-key="rowKey"
            :selected="selected"
            :sort="{ key: 'standardized', desc: true }"
            :dim="(r) => !r.used"
            @select="select"
          >
            <template #tools
              ><span class="quiet">{{ asideCount > 0 ? `${asideCount} set aside ○` : '' }}</span></template
            >
            <template #cell-standardized="{ row }">
              <span
                v-if="row.standardized !== null"
                class="bar"
                :class="Math.abs(row.standardized) > LIMIT ? 'beyond' : Math.abs(row.standardized) > 2.2 ? 'warm' : 'calm'"
              >
                <svg viewBox="-5 0 10 10" preserveAspectRatio="none" aria-hidden="true">
                  <line x1="0" x2="0" y1="0" y2="10" class="zero" />
                  <rect
                    :x="Math.min(0, Math.max(-5, row.standardized))"
                    y="2"
                    :width="Math.min(5, Math.abs(row.standardized))"
                    height="6"
                  />
                </svg>
                <span>{{ signed((row.standardized >= 0 ? '+' : '') + row.standardized.toFixed(1)) }}</span>
              </span>
            </template>
            <template #cell-flag="{ row }"
              ><span v-if="!row.used" title="set aside">○</span
              ><span v-else-if="row.flagged" class="fails" title="stands out">▲</span></template
            >
          </FiguresTable>
          <FiguresTable
            v-else-if="tab === 'stations'"
            label="stations"
            :columns="stationColumns"
            :rows="network.stations"
            :row-key="(s) => s.name"
            :selected="selectedPoints"
            :sort="{ key: 'major', desc: true }"
            @select="(k) => (selectedPoints = new Set(k))"
          >
            <template #empty><p class="quiet">Adjust the network to see its stations.</p></template>
          </FiguresTable>
          <ControlSheet v-else-if="tab === 'control'" :selected="selectedPoints" @select="(k) => (selectedPoints = new Set(k))" />
          <FiguresTable
            v-else-if="tab === 'setups'"
            label="groups"
            :columns="groupColumns"
            :rows="network.setups"
            :row-key="(g) => g.name"
            :selected="groups"
            :sort="{ key: 'factor', desc: true }"
            @select="selectGroups"
          >
            <template #cell-standing="{ row }"
              ><span :class="{ fails: row.standing === 'high', doubt: row.standing === 'low', quiet: row.standing === 'untested' }">{{
                { high: '▲ worse than weighted', low: '▽ better than weighted', fits: 'fits', untested: 'untested' }[row.standing]
              }}</span></template
            >
          </FiguresTable>
          <FiguresTable
            v-else-if="tab === 'runs'"
            label="runs"
            :columns="runColumns"
            :rows="network.runs"
            :row-key="(r) => String(r.id)"
            :selected="new Set()"
            :filterable="false"
            @select="() => undefined"
          >
            <template #cell-passed="{ row }"
              ><span :class="{ holds: row.passed === true, fails: row.passed === false }">{{
                row.passed === null ? 'untested' : row.passed ? '✓ passes' : '▲ fails'
              }}</span></template
            >
          </FiguresTable>
          <SettingsSheet v-else :settings="network.settings" :version="network.settingsVersion" />
          <Slip v-if="proposals !== null" tone="doubt">
            <strong>{{
              proposals.length === 0
                ? 'Screening proposes nothing: no standardized residual exceeds 3.29.'
                : `Screening proposes to set aside ${proposals.length}, one pass after another:`
            }}</strong>
            <div v-for="p in proposals" :key="p.pass" class="mono">{{ p.pass }}. {{ p.text }} {{ signed(p.standardized.toFixed(1)) }}</div>
            <div class="actions">
              <button v-if="proposals.length > 0" class="button main" @click="acceptProposals">Set them aside and compare</button
              ><button class="button plain" @click="proposals = null">Leave it</button>
            </div>
          </Slip>
          <Slip v-else-if="first && (tab === 'observations' || tab === 'setups')" :tone="first.flagged ? 'bad' : 'plain'">
            <div>
              <strong
                >{{ chosen.length > 1 ? `${chosen.length} observed values, the first: ` : '' }}{{ first.kind
                }}{{ first.component ? ` ${first.component}` : '' }} {{ atName(first) }} → {{ first.to }}</strong
              >
              <span v-if="first.file" class="quiet mono">{{ first.file }} line {{ first.line }}</span>
            </div>
            <div v-if="first.residual !== null">
              {{ first.used ? 'Off by' : 'Predicted off by' }} {{ residual(first.kind, first.residual, units)
              }}<span v-if="first.groundMm !== null && isAngular(first.kind)"
                >, {{ Math.abs(first.groundMm).toFixed(1) }} mm at the target</span
              >; standard deviation
              {{ isAngular(first.kind) ? smallAngle(first.sd, units) : `${small(first.sd, units)} ${smallUnit(units)}` }}.
              <span v-if="first.external !== null">
                A bias just too small to find would move a station by {{ small(first.external, units) }} {{ smallUnit(units) }}.</span
              >
            </div>
            <div v-if="!first.used" class="doubt">
              Set aside by {{ first.asideBy }}{{ first.asideAt ? `, ${when(first.asideAt)}` : '' }}: {{ first.reason || 'no reason given' }}
            </div>
            <div class="actions">
              <input
                v-if="first.used"
                v-model="reason"
                class="input reason"
                placeholder="reason, for the report"
                aria-label="Reason"
                :disabled="!project.mayChange"
                @keydown.enter="toggleUse"
              />
              <button class="button main" data-test="toggle-use" :disabled="!project.mayChange" @click="toggleUse">
                {{ first.used ? 'Set aside and compare' : 'Bring back and compare' }}</button><kbd>x</kbd>
              <button v-if="first.fileId" class="button plain" data-test="source" @click="showSource">Show at source</button>
              <span class="spacer" />
              <span class="quiet nowrap">{{ run ? `rests on run ${run.run}` : '' }}</span>
            </div>
            <div v-if="source.length > 0" class="mono source">
              <div v-for="l in source" :key="l.line" :class="{ at: l.line === first.line }">
                <span class="quiet">{{ l.line }}</span> {{ l.text }}
              </div>
            </div>
          </Slip>
        </template>
      </div>
    </template>
    <template #sketch>
      <MapSketch :scene="scene" :selected="selectedLines" :selected-points="selectedPoints" @select="fromSketch" @point="pointFromSketch">
        <template #corner>
          <strong>Map</strong>
          <label v-if="network?.comparison" class="quiet"
            ><input v-model="showMoves" type="checkbox" /> moves since run {{ network.comparison.previousRun }}</label
          >
        </template>
      </MapSketch>
    </template>
  </TwoPages>
</template>

<style scoped>
.answer {
  display: flex;
  gap: 20px;
  align-items: flex-start;
}
.words {
  flex: 1;
}
.sentence {
  line-height: 1.45;
}
.compare {
  margin-top: 2px;
}
.strip {
  display: flex;
  gap: 4px 18px;
  flex-wrap: wrap;
}
.strip > div {
  display: grid;
}
.strip .mono {
  font-size: 12.5px;
}
.bar {
  display: grid;
  grid-template-columns: 56px 1fr;
  align-items: center;
  gap: 4px;
}
.bar svg {
  height: 14px;
  width: 56px;
}
.zero {
  stroke: var(--rule-strong);
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
}
.calm rect {
  fill: var(--teal);
}
.warm rect {
  fill: var(--ochre);
}
.beyond rect {
  fill: var(--vermilion);
}
.beyond {
  color: var(--vermilion);
  font-weight: 600;
}
.side {
  display: grid;
  gap: 6px;
  justify-items: end;
}
.actions {
  display: flex;
  gap: 8px;
  align-items: center;
}
.source {
  overflow-x: auto;
  white-space: pre;
  font-size: 11.5px;
}
.source .at {
  background: var(--cobalt-soft);
}
.nowrap {
  white-space: nowrap;
}
.reason {
  max-width: 190px;
}
</style>

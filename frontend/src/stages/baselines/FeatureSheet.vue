<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue';
import { get, post, reasonOf } from '../../api/client';
import type { FeatureFileView, FeaturesPreview, FeaturesRequest, FeaturesView, OccupationView } from '../../api/types';
import NumberInput from '../../fields/NumberInput.vue';
import { figures, words, type Column } from '../../figures/columns';
import FiguresTable from '../../figures/FiguresTable.vue';
import { length, lengthUnit, signedLength } from '../../format/units';
import type { ScenePath, ScenePoint, SceneShift } from '../../sketch/scene';
import { useProject } from '../../state/project';
import { bandNames, coverage, drawn, type FeatureRow } from './features';
import { clock, type Zone } from './times';

/** Features of a mapping rover, corrected against reference files; what each was and is worth. */
const props = defineProps<{ occupations: OccupationView[]; zone: Zone; leap: number }>();
const emit = defineEmits<{ drawn: [scene: { points: ScenePoint[]; paths: ScenePath[]; shifts: SceneShift[] }] }>();
const project = useProject();
const units = computed(() => project.units);
const page = shallowRef<FeaturesView | null>(null);
const rows = shallowRef<FeatureRow[]>([]);
const file = ref<number | null>(null);
const references = ref<number[]>([]);
const position = ref<'header' | 'mark' | 'typed'>('mark');
const mark = ref('');
const typed = ref<(number | null)[]>([null, null, null]);
const preview = shallowRef<FeaturesPreview | null>(null);
const fault = ref('');
const chosen = ref(new Set<string>());

const chosenFile = computed<FeatureFileView | null>(() => page.value?.files.find((f) => f.id === file.value) ?? null);
/** The rover's own recording is no reference for itself. */
const candidates = computed(() => props.occupations.filter((o) => o.file !== chosenFile.value?.rinex && overlaps(o)));
function overlaps(o: OccupationView): boolean {
  const t = chosenFile.value?.times ?? [];
  return t.length > 0 && o.from < t[t.length - 1]! && o.to > t[0]!;
}
const covered = computed(() =>
  coverage(
    chosenFile.value?.times ?? [],
    props.occupations.filter((o) => references.value.includes(o.id)),
  ),
);
const marks = computed(() => project.points.filter((p) => p.role !== 'surveyed' && p.e !== null && p.h !== null).map((p) => p.name));

async function load() {
  page.value = await get<FeaturesView>(project.path('/baselines/features'));
  file.value ??= page.value.files[0]?.id ?? null;
  await loadRows();
}
async function loadRows() {
  const f = chosenFile.value;
  rows.value = f?.isCorrected ? (await get<{ rows: FeatureRow[] }>(project.path(`/baselines/features/${f.id}`))).rows : [];
  emit('drawn', drawn(rows.value));
}
onMounted(load);
watch(() => project.version, load);
watch(
  candidates,
  (list) => {
    if (references.value.length > 0 || list.length === 0) return;
    // The nearest in time and place is what people take: a known mark first.
    const best = list.find((o) => o.placeFrom === 'project' && coverage(chosenFile.value!.times, [o]) === 1) ?? list[0]!;
    references.value = [best.id];
    if (best.placeFrom === 'project') mark.value = best.marker;
    else position.value = 'header';
  },
  { immediate: true },
);

const request = computed<FeaturesRequest | null>(() => {
  if (file.value === null || references.value.length === 0) return null;
  const common = { file: file.value, references: references.value, position: position.value };
  if (position.value === 'mark') return mark.value === '' ? null : { ...common, mark: mark.value };
  if (position.value === 'typed')
    return typed.value.some((v) => v === null) ? null : { ...common, e: typed.value[0], n: typed.value[1], h: typed.value[2] };
  return common;
});
let asked = 0;
watch(
  request,
  async (r) => {
    const mine = ++asked;
    preview.value = null;
    fault.value = '';
    if (!r) return;
    try {
      const answer = await post<FeaturesPreview>(project.path('/baselines/features/preview'), r);
      if (mine === asked) preview.value = answer;
    } catch (e) {
      if (mine === asked) fault.value = reasonOf(e);
    }
  },
  { immediate: true },
);

const correct = () => project.attempt(() => project.job(post(project.path('/baselines/features'), request.value)));

const columns = computed<Column<FeatureRow>[]>(() => {
  const u = units.value;
  return [
    words('id', 'feature', 62, (r) => r.id),
    words('kind', 'kind', 52, (r) => ({ Point: 'point', LineString: 'line', Polygon: 'area' })[r.kind] ?? r.kind),
    words('code', 'code', 70, (r) => r.code),
    figures(
      'used',
      'positions',
      62,
      (r) => r.used,
      (r) => `${r.used}/${r.positions}`,
      { hint: 'Corrected, of those collected' },
    ),
    words('solution', 'by', 48, (r) => r.solution || '—'),
    figures(
      'before',
      'sd before',
      60,
      (r) => r.before,
      (r) => length(r.before, u, -1),
      { unit: lengthUnit(u), hint: 'Of the plan, as the rover said' },
    ),
    figures(
      'sdPlan',
      'sd plan',
      56,
      (r) => r.sdPlan,
      (r) => length(r.sdPlan, u, -1),
      { unit: lengthUnit(u) },
    ),
    figures(
      'sdUp',
      'sd up',
      52,
      (r) => r.sdUp,
      (r) => length(r.sdUp, u, -1),
      { unit: lengthUnit(u) },
    ),
    figures(
      'moved',
      'moved',
      56,
      (r) => r.moved,
      (r) => length(r.moved, u, -1),
      { unit: lengthUnit(u), hint: 'From where the rover had it, in space' },
    ),
  ];
});
const most = computed(() => Math.max(1, ...(chosenFile.value?.before ?? []), ...(chosenFile.value?.after ?? [])));
</script>

<template>
  <section v-if="page" class="features">
    <p v-if="page.files.length === 0" class="quiet">
      There are no rover features yet. Bring in a feature file of a mapping rover (GeoJSON with its positions), the rover’s RINEX file where
      it names one, and files of a reference station for the same time.
    </p>
    <template v-else>
      <div class="grid">
        <ElFormItem label="features"
          ><ElSelect v-model="file" aria-label="Features" @change="loadRows">
            <ElOption v-for="f in page.files" :key="f.id" :value="f.id" :label="`${f.title || f.name}, ${f.features} features`" /></ElSelect
        ></ElFormItem>
        <ElFormItem label="references, one or many files"
          ><ElSelect v-model="references" multiple aria-label="References" placeholder="choose">
            <ElOption
              v-for="o in candidates"
              :key="o.id"
              :value="o.id"
              :label="`${o.marker || o.file} ${clock(o.from, zone, leap)} to ${clock(o.to, zone, leap)}, every ${o.interval} s`" /></ElSelect
        ></ElFormItem>
      </div>
      <div class="cover" data-test="coverage">
        <span class="quiet">Covered in time</span>
        <span class="bar" :class="{ all: covered === 1 }"><span :style="{ width: `${100 * covered}%` }" /></span>
        <strong :class="covered === 1 ? 'holds' : covered > 0 ? 'doubt' : 'fails'">{{ Math.floor(100 * covered) }} %</strong>
        <span v-if="covered < 1" class="quiet">{{
          covered === 0 ? 'no reference recorded then; order one under Stations' : 'the rest stays as it was'
        }}</span>
      </div>
      <div class="line">
        <span class="quiet">The reference is</span>
        <ElRadioGroup v-model="position" size="small" aria-label="Position of the reference">
          <ElRadioButton value="header">where its file says</ElRadioButton><ElRadioButton value="mark">on a mark</ElRadioButton
          ><ElRadioButton value="typed">typed</ElRadioButton>
        </ElRadioGroup>
        <ElSelect v-if="position === 'mark'" v-model="mark" filterable size="small" class="mark" aria-label="Mark of the reference">
          <ElOption v-for="m in marks" :key="m" :value="m" :label="m" />
        </ElSelect>
      </div>
      <div v-if="position === 'typed'" class="grid three">
        <NumberInput v-for="(n, i) in ['easting', 'northing', 'height']" :key="n" v-model="typed[i]!" :label="n" unit="m" :digits="4" />
      </div>
      <p v-if="fault" class="doubt">{{ fault }}</p>
      <p v-else-if="position === 'header'" class="doubt">
        What a file says of its position is often only estimated, good to some metres. Whatever it misses goes into every feature.
      </p>
      <p v-else-if="preview?.less" data-test="less">
        It lies east {{ signedLength(preview.less[0], units) }}, north {{ signedLength(preview.less[1], units) }}, up
        {{ signedLength(preview.less[2], units) }} {{ lengthUnit(units) }} of where its file says: every feature moves by as much against
        the header.
      </p>
      <div class="line">
        <ElButton
          type="primary"
          data-test="correct-features"
          :disabled="!project.mayChange || request === null || covered === 0"
          @click="correct"
          >Correct {{ chosenFile?.features }} features</ElButton
        >
        <a
          v-if="chosenFile?.isCorrected"
          class="link"
          :href="project.path(`/baselines/features/${chosenFile.id}/geojson`)"
          data-test="features-geojson"
          >Keep as GeoJSON</a
        >
        <span v-if="chosenFile && chosenFile.stale.length > 0" class="doubt">Stale: {{ chosenFile.stale.join('; ') }}.</span>
      </div>
      <template v-if="chosenFile?.isCorrected">
        <p data-test="features-verdict">
          <strong>{{ chosenFile.corrected }} of {{ chosenFile.features }} features are corrected</strong>, {{ chosenFile.covered }} of
          {{ chosenFile.positions }} positions.
        </p>
        <table class="bands">
          <thead>
            <tr>
              <th>sd of the plan</th>
              <th class="right">before</th>
              <th />
              <th class="right">after</th>
              <th />
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="(name, i) in bandNames(chosenFile.bands)"
              v-show="(chosenFile.before[i] ?? 0) + (chosenFile.after[i] ?? 0) > 0"
              :key="name"
            >
              <td class="mono">{{ name }}</td>
              <td class="mono right">{{ chosenFile.before[i] }}</td>
              <td class="cell"><span class="was" :style="{ width: `${(100 * (chosenFile.before[i] ?? 0)) / most}%` }" /></td>
              <td class="mono right">{{ chosenFile.after[i] }}</td>
              <td class="cell"><span class="is" :style="{ width: `${(100 * (chosenFile.after[i] ?? 0)) / most}%` }" /></td>
            </tr>
          </tbody>
        </table>
        <FiguresTable
          label="rover features"
          :columns="columns"
          :rows="rows"
          :row-key="(r) => r.id"
          :selected="chosen"
          :sort="{ key: 'sdPlan', desc: true }"
          :filterable="false"
          @select="(k) => (chosen = new Set(k))"
        />
      </template>
    </template>
  </section>
</template>

<style scoped>
.features {
  display: flex;
  flex-direction: column;
  gap: 7px;
  flex: 1;
  min-height: 0;
  overflow-y: auto;
}
.grid {
  display: grid;
  grid-template-columns: 1fr 1.4fr;
  gap: 4px 12px;
}
.grid.three {
  grid-template-columns: repeat(3, 1fr);
}
.line,
.cover {
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
}
.bar {
  flex: 0 1 260px;
  height: 10px;
  border: 1px solid var(--ochre);
}
.bar.all {
  border-color: var(--teal);
}
.bar span {
  display: block;
  height: 100%;
  background: var(--ochre);
}
.bar.all span {
  background: var(--teal);
}
.mark {
  width: 150px;
}
.bands {
  border-collapse: collapse;
  font-size: 12px;
}
.bands th {
  font-weight: 400;
  color: var(--ink-soft);
  text-align: left;
}
.bands .right {
  text-align: right;
  width: 60px;
}
.bands .cell {
  width: 130px;
  padding: 0 12px 0 8px;
}
.cell span {
  display: block;
  height: 8px;
}
.was {
  background: var(--slate);
}
.is {
  background: var(--teal);
}
p {
  margin: 0;
}
.features > :deep(.figures) {
  min-height: 170px;
}
</style>

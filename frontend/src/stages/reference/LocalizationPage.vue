<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { get, post, Problem, reasonOf, request as send } from '../../api/client';
import { latest } from '../../api/latest';
import type { FitView, LocalizationRequest, ReferenceView } from '../../api/types';
import NumberInput from '../../fields/NumberInput.vue';
import FilePick from '../../fields/FilePick.vue';
import SystemPicker from '../../fields/SystemPicker.vue';
import type { Column } from '../../figures/columns';
import FiguresTable from '../../figures/FiguresTable.vue';
import { length, metresPer, small, smallUnit } from '../../format/units';
import { pointsScene, type Scene } from '../../sketch/scene';
import { useProject } from '../../state/project';
import { asked, choicesOf, everythingFitted, heightsOf, type LocalizationFile, pairsOf } from './choices';
import FitParameters from './FitParameters.vue';
import KeptLocalizations from './KeptLocalizations.vue';
import { merged, type Pair, pastePairs, type Side } from './pairs';
import { suspicion } from './suspicion';

interface Row extends Pair {
  fit: FitView['rows'][number] | null;
}

const COORDINATES = [
  ['localE', 'local E'],
  ['localN', 'local N'],
  ['localH', 'local height'],
  ['gridE', 'grid E'],
  ['gridN', 'grid N'],
  ['gridH', 'grid height'],
] as const;

const props = defineProps<{ view: ReferenceView }>();
const emit = defineEmits<{ scene: [scene: Partial<Scene> | null]; changed: [] }>();
const project = useProject();
const units = computed(() => project.units);
const isPlane = computed(() => props.view.system === null);
const side = computed<Side>(() => (isPlane.value ? 'grid' : 'local'));
const geoids = computed(() => props.view.grids.filter((g) => g.kind === 'geoid'));

const pairs = ref<Pair[]>([]);
const target = ref(isPlane.value ? '' : project.overview!.reference);
const heights = ref(isPlane.value ? 'ellipsoidal' : props.view.heights);
const geoid = ref(props.view.geoid || (geoids.value[0]?.reference ?? ''));
const choices = ref(everythingFitted());
const name = ref('');
const pasting = ref(false);
const pasted = ref('');
const problems = ref<string[]>([]);
const selected = ref(new Set<string>());
const fit = ref<FitView | null>(null);
const problem = ref('');
const editor = computed(() => pairs.value.find((p) => selected.value.has(p.name)) ?? null);

const body = computed<LocalizationRequest>(() => ({
  pairs: pairs.value,
  system: target.value,
  heights: heights.value === 'geoid' ? 'geoid' : 'ellipsoidal',
  geoid: heights.value === 'geoid' ? geoid.value : '',
  ...asked(choices.value),
  name: name.value.trim(),
}));

const rows = computed<Row[]>(() => pairs.value.map((p, i) => ({ ...p, fit: fit.value?.rows[i] ?? null })));
const mm = (v: number | null | undefined) => small(v, units.value, true);
const bad = (r: Row) => fit.value?.suspect?.name === r.name;
const without = (r: Row) => (r.fit?.withoutE == null ? null : Math.hypot(r.fit.withoutE, r.fit.withoutN ?? 0));
const columns = computed<Column<Row>[]>(() => {
  const figure = (key: string, title: string, value: (r: Row) => number | null | undefined, hint: string): Column<Row> => ({
    key,
    title,
    unit: smallUnit(units.value),
    width: '66px',
    align: 'right',
    mono: true,
    value: (r) => value(r) ?? null,
    text: (r) => mm(value(r)),
    hint,
  });
  return [
    { key: 'name', title: 'pair', width: 'minmax(46px, 1fr)', value: (r) => r.name },
    { key: 'use', title: 'fits', width: '108px', value: (r) => (r.horizontal ? 'plan' : '') },
    figure('e', 'v east', (r) => r.fit?.e, 'Fitted less given easting'),
    figure('n', 'v north', (r) => r.fit?.n, 'Fitted less given northing'),
    figure('h', 'v height', (r) => r.fit?.h, 'Fitted less given height'),
    {
      key: 'w',
      title: 'standardized',
      width: '76px',
      align: 'right',
      mono: true,
      value: (r) => r.fit?.standardized ?? null,
      text: (r) => r.fit?.standardized?.toFixed(1) ?? '',
      hint: 'Residual over its standard deviation',
    },
    {
      ...figure('without', 'left out', without, 'How far the others’ fit misses this pair in plan when it is left out'),
      text: (r: Row) => small(without(r), units.value),
    },
  ];
});

const scene = computed<Partial<Scene> | null>(() => {
  if (fit.value === null) return null;
  const f = fit.value;
  // In a plane project the sketch shows the grid side only while pairs are fitted.
  return {
    points: [
      ...(isPlane.value ? [] : pointsScene(project.points).points.filter((p) => p.role !== 'surveyed')),
      ...pairs.value.map((p) => ({ name: p.name, e: p.gridE, n: p.gridN, role: 'control' as const })),
    ].filter((p, i, all) => all.findIndex((q) => q.name === p.name) === i),
    shifts: f.rows.filter((r) => r.e !== null && r.n !== null).map((r) => ({ e: r.gridE, n: r.gridN, de: r.e!, dn: r.n! })),
    paths: f.hull.length > 2 ? [{ path: [...f.hull, f.hull[0]!].flat(), kind: 'hull' }] : [],
  };
});
watch(scene, (s) => emit('scene', s));

const fits = latest();
watch(
  body,
  (b) => {
    fits.forget();
    problem.value = '';
    if (b.pairs.length === 0) {
      fit.value = null;
      return;
    }
    void fits.ask(
      () => post<FitView>(project.path('/reference/localizations/fit'), b),
      (result) => (fit.value = result),
      (e) => {
        fit.value = null;
        problem.value = reasonOf(e);
      },
    );
  },
  { deep: true },
);

function take() {
  const result = pastePairs(pasted.value, side.value, project.points, metresPer(units.value));
  pairs.value = merged(pairs.value, result.pairs);
  problems.value = result.problems;
  pasted.value = result.left.join('\n');
  if (result.problems.length === 0) {
    pasting.value = false;
  }
}

function change(values: Partial<Pair>) {
  const target = editor.value;
  if (target) pairs.value = pairs.value.map((p) => (p === target ? { ...p, ...values } : p));
}

function use(row: Row, part: 'horizontal' | 'vertical', on: boolean) {
  pairs.value = pairs.value.map((p) => (p.name === row.name ? { ...p, [part]: on } : p));
}

async function keep() {
  if (
    await project.attempt(() => post(project.path('/reference/localizations'), body.value), `${body.value.name} is kept with the project.`)
  )
    emit('changed');
}

async function open(id: number) {
  const file = await get<LocalizationFile>(project.path(`/reference/localizations/${id}.json`));
  pairs.value = pairsOf(file);
  choices.value = choicesOf(file);
  target.value = file.grid.system;
  const above = heightsOf(file);
  heights.value = above.heights;
  if (above.geoid !== '') geoid.value = above.geoid;
}

async function bring(file: File) {
  await project.attempt(async () => {
    let data: unknown;
    try {
      data = JSON.parse(await file.text());
    } catch {
      throw new Problem(422, 'This cannot be used.', `${file.name} is not JSON; choose a localization file.`);
    }
    await send('POST', project.path('/reference/localizations/import'), data);
  }, `Imported ${file.name}.`);
  emit('changed');
}
</script>

<template>
  <div class="localization">
    <KeptLocalizations v-if="view.localizations.length > 0" :view="view" @open="open" />
    <div class="row">
      <h2>{{ pairs.length === 0 ? 'Fit a site to the grid' : `${pairs.length} pairs` }}</h2>
      <span v-if="fit?.sigma != null" class="mono" data-test="fit-sigma">σ {{ small(fit.sigma, units) }} {{ smallUnit(units) }}</span>
      <span v-if="fit?.sigmaH != null" class="mono quiet">heights {{ small(fit.sigmaH, units) }} {{ smallUnit(units) }}</span>
      <span class="spacer" />
      <FilePick
        text="Import a file"
        test="localization-file"
        accept=".json,application/json"
        :disabled="!project.mayChange"
        @files="([file]) => file && bring(file)"
      />
      <ElButton type="primary" plain data-test="paste-open" @click="pasting = !pasting">Add pairs</ElButton>
    </div>
    <p v-if="pairs.length === 0 && !pasting" class="quiet">
      A pair is one mark known on both sides: in site coordinates and on the grid. Two fit shift, rotation and scale; more let you judge the
      fit. Add the {{ side === 'local' ? 'site' : 'grid' }} coordinates of marks the project knows, as lines of name, easting, northing,
      height.
    </p>
    <div v-if="pasting" class="paste">
      <ElInput
        type="textarea"
        :rows="6"
        v-model="pasted"
        class="mono"
        data-test="paste"
        :aria-label="`${side} coordinates`"
        :placeholder="`name, ${side} easting, northing, height, all in ${units.length}\nKT01, 1000.000, 2000.000, 50.000\nor both sides: name, local e, n, h, grid e, n, h`"
      />
      <div class="row">
        <ElButton type="primary" data-test="paste-take" :disabled="pasted.trim() === ''" @click="take">Pair them by name</ElButton>
        <ElButton @click="pasting = false">Cancel</ElButton>
      </div>
      <ElAlert v-for="p in problems" :key="p" type="warning" :closable="false">{{ p }}</ElAlert>
    </div>
    <template v-if="pairs.length > 0">
      <ElAlert v-if="problem" data-test="fit-problem" type="error" :closable="false">{{ problem }}</ElAlert>
      <ElAlert v-if="fit?.suspect" data-test="suspect" type="error" :closable="false">
        <span
          ><strong class="fails">✕ {{ fit.suspect.name }}</strong> does not fit the others: {{ suspicion(fit.suspect, units) }}.</span
        >
      </ElAlert>
      <ElAlert v-if="fit && fit.outside.length > 0" data-test="outside" type="warning" :closable="false">
        <span
          ><strong class="doubt">?</strong> {{ fit.outside.length }} point{{ fit.outside.length === 1 ? ' lies' : 's lie' }} beyond the
          pairs’ hull, {{ fit.outside[0]!.name }} farthest with {{ length(fit.outside[0]!.distance, units, -2) }} {{ units.length }}; there
          the fit is a guess.</span
        >
      </ElAlert>
      <FiguresTable
        label="pairs"
        class="table"
        :columns="columns"
        :rows="rows"
        :row-key="(r) => r.name"
        :selected="selected"
        :filterable="pairs.length > 12"
        :dim="(r) => !r.horizontal && !r.vertical"
        @select="(k) => (selected = new Set(k))"
      >
        <template #cell-name="{ row }"
          ><span :class="{ fails: bad(row) }">{{ bad(row) ? '✕ ' : '' }}{{ row.name }}</span></template
        >
        <template #cell-use="{ row }"
          ><span class="use" @click.stop
            ><ElCheckbox
              :model-value="row.horizontal"
              :aria-label="`${row.name} fits in plan`"
              @change="use(row, 'horizontal', $event as boolean)"
              >EN</ElCheckbox
            ><ElCheckbox
              :model-value="row.vertical"
              :aria-label="`${row.name} fits in height`"
              @change="use(row, 'vertical', $event as boolean)"
              >H</ElCheckbox
            ></span
          ></template
        >
      </FiguresTable>
      <div class="scroll rest">
        <section v-if="editor" class="grid six" :aria-label="`Coordinates of ${editor.name}`">
          <NumberInput
            v-for="[key, label] in COORDINATES"
            :key="key"
            :model-value="editor[key]"
            :label="label"
            :unit="units.length"
            :factor="metresPer(units)"
            @update:model-value="(v) => (v !== null || key.endsWith('H')) && change({ [key]: v })"
          />
        </section>
        <FitParameters v-model="choices" :fit="fit" />
        <div class="grid">
          <SystemPicker
            v-if="isPlane"
            id="localization-system"
            v-model="target"
            label="the grid is"
            :path="project.path('/reference/systems')"
          />
          <ElFormItem v-if="isPlane" class="field" label="its heights"
            ><ElSelect v-model="heights">
              <ElOption value="ellipsoidal" label="ellipsoidal" />
              <ElOption value="geoid" :disabled="geoids.length === 0" label="above a geoid" /> </ElSelect
          ></ElFormItem>
          <ElFormItem v-if="isPlane && heights === 'geoid'" class="field" label="geoid"
            ><ElSelect v-model="geoid"> <ElOption v-for="g in geoids" :key="g.reference" :value="g.reference" :label="g.name" /> </ElSelect
          ></ElFormItem>
          <ElFormItem class="field" label="name"><ElInput v-model="name" maxlength="160" data-test="localization-name" /></ElFormItem>
          <div class="bottom">
            <ElButton
              type="primary"
              data-test="localization-keep"
              :disabled="!project.mayChange || fit === null || name.trim() === '' || target === ''"
              @click="keep"
            >
              Keep with the project
            </ElButton>
          </div>
        </div>
      </div>
    </template>
  </div>
</template>

<style scoped>
.localization {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.row {
  display: flex;
  gap: 12px;
  align-items: center;
}
.paste {
  display: grid;
  gap: 8px;
}
.table {
  flex: 1 1 180px;
  min-height: 120px;
}
.use {
  display: flex;
}
.use .el-checkbox {
  margin-right: 8px;
}
.rest {
  flex: 0 1 auto;
  max-height: 300px;
  display: grid;
  gap: 8px;
  padding: 4px 8px 10px 0;
  border-top: 1px solid var(--rule);
}
.grid {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 8px 12px;
}
.six {
  gap: 4px 12px;
}
.bottom {
  display: flex;
  align-items: flex-end;
}
</style>

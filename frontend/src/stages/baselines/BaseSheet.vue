<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue';
import { get, post, reasonOf } from '../../api/client';
import type { BaseMoveView, BasePreview, BaseRequest, BaseView, ReportView } from '../../api/types';
import FilePick from '../../fields/FilePick.vue';
import NumberInput from '../../fields/NumberInput.vue';
import { figures, words, type Column } from '../../figures/columns';
import FiguresTable from '../../figures/FiguresTable.vue';
import { height, length, lengthUnit, signedLength, small, smallUnit } from '../../format/units';
import type { SceneShift } from '../../sketch/scene';
import { useProject } from '../../state/project';

/** A base that had a wrong position, or a wrong antenna height: all that was measured from it moves. */
const emit = defineEmits<{ shifts: [shifts: SceneShift[]] }>();
const project = useProject();
const units = computed(() => project.units);
const page = shallowRef<BaseView | null>(null);
const preview = shallowRef<BasePreview | null>(null);
const fault = ref('');
const file = ref<number | null>(null);
const base = ref('');
const what = ref<'position' | 'antenna'>('position');
const used = ref<(number | null)[]>([null, null, null]);
const source = ref<'mark' | 'session' | 'report' | 'typed'>('mark');
const mark = ref('');
const session = ref<number | null>(null);
const form = ref('grid');
const frame = ref('project');
const given = ref<(number | null)[]>([null, null, null]);
const heights = ref('ellipsoidal');
const epoch = ref<number | null>(null);
const antenna = ref<(number | null)[]>([null, null]);
const reason = ref('');
const report = shallowRef<ReportView | null>(null);

const chosenFile = computed(() => page.value?.files.find((f) => f.id === file.value) ?? null);
const marks = computed(() => project.points.filter((p) => p.role !== 'surveyed' && p.e !== null && p.h !== null).map((p) => p.name));
const names = computed(() =>
  form.value === 'grid'
    ? ['easting', 'northing', 'height']
    : form.value === 'geographic'
      ? ['latitude', 'longitude', 'height']
      : ['X', 'Y', 'Z'],
);

async function load() {
  page.value = await get<BaseView>(project.path('/baselines/base'));
  epoch.value ??= page.value.epoch;
  file.value ??= (page.value.files.find((f) => f.bases.length > 0) ?? page.value.files[0])?.id ?? null;
}
onMounted(load);
watch(() => project.version, load);
watch(chosenFile, (f) => {
  base.value = f?.bases[0] ?? '';
  takeBase();
});

/** The position the survey used, from the point of that name. */
function takeBase() {
  const p = project.points.find((x) => x.name === base.value);
  if (p && p.e !== null && p.n !== null && p.h !== null) used.value = [p.e, p.n, p.h];
}
function takeMark() {
  const p = project.points.find((x) => x.name === mark.value);
  if (!p) return;
  [form.value, frame.value, heights.value] = ['grid', 'project', project.overview?.heights === 'ellipsoidal' ? 'ellipsoidal' : 'geoid'];
  given.value = [p.e, p.n, p.h];
}
function takeSession() {
  const s = page.value?.sessions[session.value ?? -1];
  if (!s) return;
  [form.value, frame.value, heights.value] = ['grid', 'project', project.overview?.heights === 'ellipsoidal' ? 'ellipsoidal' : 'geoid'];
  given.value = [s.e, s.n, s.h];
}
async function takeReport(files: File[]) {
  fault.value = '';
  try {
    report.value = await post<ReportView>(project.path('/baselines/base/report'), { text: await files[0]!.text() });
    [form.value, frame.value, heights.value] = ['geocentric', report.value.frame, 'ellipsoidal'];
    given.value = [...report.value.place];
    epoch.value = report.value.epoch;
  } catch (e) {
    fault.value = reasonOf(e);
  }
}

const request = computed<BaseRequest | null>(() => {
  if (file.value === null || used.value.some((v) => v === null)) return null;
  const common = {
    files: [file.value],
    what: what.value,
    usedE: used.value[0]!,
    usedN: used.value[1]!,
    usedH: used.value[2]!,
    reason: reason.value,
  };
  if (what.value === 'antenna') {
    return antenna.value.some((v) => v === null) ? null : { ...common, antennaUsed: antenna.value[0], antennaRight: antenna.value[1] };
  }
  return given.value.some((v) => v === null)
    ? null
    : {
        ...common,
        form: form.value,
        frame: frame.value.trim(),
        first: given.value[0],
        second: given.value[1],
        third: given.value[2],
        heights: heights.value,
        epoch: epoch.value,
      };
});
let asked = 0;
watch(request, async (r) => {
  const mine = ++asked;
  if (!r) {
    preview.value = null;
    emit('shifts', []);
    return;
  }
  try {
    const answer = await post<BasePreview>(project.path('/baselines/base/preview'), r);
    if (mine !== asked) return;
    preview.value = answer;
    fault.value = '';
    emit(
      'shifts',
      answer.rows.map((m) => ({ e: m.e, n: m.n, de: m.newE - m.e, dn: m.newN - m.n })),
    );
  } catch (e) {
    if (mine !== asked) return;
    preview.value = null;
    fault.value = reasonOf(e);
    emit('shifts', []);
  }
});

async function correct() {
  if (!request.value) return;
  const ok = await project.attempt(
    () => post(project.path('/baselines/base'), request.value),
    'Every point of the file has moved; Ctrl+Z takes it back.',
  );
  if (ok) {
    preview.value = null;
    [used.value, given.value] = [
      [null, null, null],
      [null, null, null],
    ];
    emit('shifts', []);
  }
}

const columns = computed<Column<BaseMoveView>[]>(() => {
  const u = units.value;
  const place = (key: 'e' | 'n', title: string) =>
    figures<BaseMoveView>(
      key,
      title,
      84,
      (m) => m[key],
      (m) => length(m[key], u),
      { unit: lengthUnit(u) },
    );
  const move = (key: string, of: (m: BaseMoveView) => number | null) =>
    figures<BaseMoveView>(key, key, 62, of, (m) => signedLength(of(m), u), { unit: lengthUnit(u) });
  return [
    words('name', 'point', 60, (m) => m.name),
    words('code', 'code', 56, (m) => m.code),
    place('e', 'easting'),
    place('n', 'northing'),
    figures(
      'h',
      'height',
      64,
      (m) => m.h,
      (m) => height(m.h, u),
      { unit: lengthUnit(u) },
    ),
    move('dE', (m) => m.newE - m.e),
    move('dN', (m) => m.newN - m.n),
    move('dH', (m) => (m.newH === null || m.h === null ? null : m.newH - m.h)),
  ];
});
const chosen = ref(new Set<string>());
</script>

<template>
  <section v-if="page" class="base">
    <p v-if="page.files.length === 0" class="quiet">
      There are no surveyed points yet. Bring in the rover’s points; a base correction moves all that was measured from one base.
    </p>
    <template v-else>
      <div class="grid">
        <ElFormItem label="measured from this base"
          ><ElSelect v-model="file" aria-label="File of the shots">
            <ElOption v-for="f in page.files" :key="f.id" :value="f.id" :label="`${f.name}, ${f.records} points`" /></ElSelect
        ></ElFormItem>
        <ElFormItem label="what was wrong"
          ><ElRadioGroup v-model="what" size="small">
            <ElRadioButton value="position">Position</ElRadioButton
            ><ElRadioButton value="antenna" data-test="what-antenna">Antenna height</ElRadioButton>
          </ElRadioGroup></ElFormItem
        >
      </div>
      <p v-if="chosenFile?.corrected" class="doubt">Its base was corrected already: {{ chosenFile.corrected }}.</p>
      <h2>The base as the survey had it</h2>
      <div class="grid four">
        <ElFormItem label="its point"
          ><ElSelect
            v-model="base"
            filterable
            clearable
            placeholder="or typed"
            aria-label="Point of the base"
            :value-on-clear="''"
            @change="takeBase"
          >
            <ElOption v-for="b in chosenFile?.bases ?? []" :key="b" :value="b" :label="b" /></ElSelect
        ></ElFormItem>
        <NumberInput v-for="(n, i) in ['easting', 'northing', 'height']" :key="n" v-model="used[i]!" :label="n" unit="m" :digits="4" />
      </div>
      <template v-if="what === 'position'">
        <h2>As it really is</h2>
        <div class="line">
          <ElRadioGroup v-model="source" size="small" aria-label="Where the right position is from">
            <ElRadioButton value="mark">A mark of the network</ElRadioButton
            ><ElRadioButton value="session">A processed session</ElRadioButton
            ><ElRadioButton value="report" data-test="source-report">A report</ElRadioButton
            ><ElRadioButton value="typed">Typed</ElRadioButton>
          </ElRadioGroup>
          <ElSelect
            v-if="source === 'mark'"
            v-model="mark"
            filterable
            size="small"
            placeholder="mark"
            aria-label="Mark"
            data-test="right-mark"
            @change="takeMark"
          >
            <ElOption v-for="m in marks" :key="m" :value="m" :label="m" />
          </ElSelect>
          <ElSelect
            v-else-if="source === 'session'"
            v-model="session"
            size="small"
            placeholder="session"
            aria-label="Session"
            @change="takeSession"
          >
            <ElOption v-for="(s, i) in page.sessions" :key="i" :value="i" :label="s.label" />
          </ElSelect>
          <FilePick v-else-if="source === 'report'" text="Choose the report" test="pick-report" @files="takeReport" />
        </div>
        <p v-if="source === 'report' && report" class="quiet">
          {{ report.marker }}, {{ report.frame }} at epoch {{ report.epoch.toFixed(2) }}, sd
          {{ report.sd.map((v) => small(v, units)).join(' / ') }} {{ smallUnit(units) }}; {{ report.method }}
        </p>
        <div class="grid four">
          <ElFormItem label="given as"
            ><ElSelect v-model="form" aria-label="Given as">
              <ElOption value="grid" label="easting, northing" /><ElOption value="geographic" label="latitude, longitude" /><ElOption
                value="geocentric"
                label="X, Y, Z" /></ElSelect
          ></ElFormItem>
          <NumberInput
            v-for="(n, i) in names"
            :key="n"
            v-model="given[i]!"
            :label="n"
            :unit="form === 'geographic' && i < 2 ? '°' : 'm'"
            :digits="form === 'geographic' && i < 2 ? 10 : 4"
          />
          <ElFormItem label="frame"
            ><ElInput v-model="frame" class="mono" aria-label="Frame" /><span class="read quiet">project, or EPSG:n</span></ElFormItem
          >
          <NumberInput v-model="epoch" label="epoch" unit="year" :digits="2" />
          <ElFormItem label="height is"
            ><ElSelect v-model="heights" aria-label="Height is" :disabled="form === 'geocentric'">
              <ElOption value="ellipsoidal" label="ellipsoidal" /><ElOption
                value="geoid"
                label="above the geoid"
                :disabled="!page.hasGeoid" /></ElSelect
          ></ElFormItem>
        </div>
      </template>
      <div v-else class="grid four">
        <NumberInput v-model="antenna[0]!" label="antenna height used" unit="m" :digits="4" />
        <NumberInput v-model="antenna[1]!" label="right antenna height" unit="m" :digits="4" />
      </div>
      <ElAlert v-if="fault" type="warning" :closable="false">{{ fault }}</ElAlert>
      <template v-if="preview">
        <div class="line">
          <strong data-test="base-shift"
            >{{ preview.count }} points move: east {{ signedLength(preview.shift[0], units) }}, north
            {{ signedLength(preview.shift[1], units) }}, up {{ signedLength(preview.shift[2], units) }} {{ lengthUnit(units) }}</strong
          >
          <span class="quiet">{{ preview.words }}</span>
        </div>
        <div class="line">
          <ElInput v-model="reason" placeholder="reason, for the ledger" aria-label="Reason" maxlength="200" />
          <ElButton type="primary" data-test="correct-base" :disabled="!project.mayChange" @click="correct"
            >Move {{ preview.count }} points</ElButton
          >
        </div>
        <FiguresTable
          label="base moves"
          :columns="columns"
          :rows="preview.rows"
          :row-key="(m) => m.name"
          :selected="chosen"
          :filterable="false"
          @select="(k) => (chosen = new Set(k))"
        />
      </template>
      <p v-else-if="!fault" class="quiet">
        Give the base as the survey had it and as it is: every point’s move is shown before anything is moved.
      </p>
    </template>
  </section>
</template>

<style scoped>
.base {
  display: flex;
  flex-direction: column;
  gap: 6px;
  flex: 1;
  min-height: 0;
  overflow-y: auto;
}
.grid {
  display: grid;
  grid-template-columns: 1.4fr 1fr;
  gap: 4px 12px;
}
.grid.four {
  grid-template-columns: repeat(4, 1fr);
}
.line {
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
}
.line .el-select {
  width: 200px;
}
.line .el-input {
  flex: 1;
}
.read {
  font-size: 11px;
}
h2,
p {
  margin: 0;
}
.base > :deep(.figures) {
  min-height: 180px;
}
</style>

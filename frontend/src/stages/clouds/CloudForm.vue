<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import type { CloudRequest, CloudsView, CloudView } from '../../api/types';
import NumberInput from '../../fields/NumberInput.vue';
import { group, lengthUnit, metresPer } from '../../format/units';
import { classOf } from '../../sketch/cloudColours';
import { useProject } from '../../state/project';
import { seenLines, seenOf } from './words';

/** What a cloud is made of, and what is done to it. */
const props = defineProps<{
  stage: CloudsView;
  /** That is made anew; null for a new one. */
  cloud: CloudView | null;
  /** A new one begins with these. */
  from: { files: number[]; clouds: number[] };
  drawn: [number, number][] | null;
  drawing: boolean;
  /** The place that was picked in the cloud last. */
  picked?: { e: number; n: number; h: number } | null;
}>();
const emit = defineEmits<{ save: [request: CloudRequest]; cancel: []; draw: [on: boolean]; crop: [corners: number[][]] }>();
const project = useProject();
const units = computed(() => project.units);
const c = props.cloud;
const sources = ref<string[]>([
  ...(c?.files ?? props.from.files).map((id) => `file ${id}`),
  ...(c?.clouds ?? props.from.clouds).map((number) => `cloud ${number}`),
  ...(c?.passes ?? []).map((number) => `pass ${number}`),
  ...(c?.dense ?? []).map((number) => `dense ${number}`),
]);
const name = ref(c?.name ?? '');
const crop = ref<number[][]>(c?.crop ?? []);
const outside = ref(c?.outside ?? false);
const thin = ref<number | null>(c?.thin ?? null);
const noise = ref(c?.noise ?? false);
const ground = ref(c?.ground ?? false);
const keeps = ref<number[]>(c?.keeps ?? []);
const onto = ref(c?.onto ?? 0);
const within = ref<number | null>(c?.within ?? 1);
const moving = ref<'none' | 'cloud' | 'targets'>(c?.onto ? 'cloud' : (c?.targets.length ?? 0) > 0 ? 'targets' : 'none');
const paint = ref(c?.paint ?? '');
const against = ref(c?.paintAgainst ?? '');
const range = ref<number | null>(c?.range ?? 0.05);
const products = computed(() => Object.entries(props.stage.products).filter(([slot]) => slot !== `cloud:${c?.number}`));
const seenText = ref(seenLines(c?.targets ?? []));
const pickedAs = ref('');
/** The picked place as a line of what is seen; one that was there of the same point gives way. */
function takePicked() {
  const { e, n, h } = props.picked!;
  const others = seenText.value.split('\n').filter((l) => l.trim() !== '' && l.trim().split(/[\s,;]+/)[0] !== pickedAs.value);
  seenText.value = [...others, `${pickedAs.value} ${e.toFixed(3)} ${n.toFixed(3)} ${h.toFixed(3)}`].join('\n');
  pickedAs.value = '';
}
const seen = computed(() =>
  seenOf(
    seenText.value,
    props.stage.points.map((p) => p.name),
  ),
);
watch(
  () => props.drawn,
  (ring) => ring && (crop.value = ring),
);
watch(crop, (corners) => emit('crop', corners), { immediate: true });
const numbers = (kind: string) => sources.value.filter((s) => s.startsWith(`${kind} `)).map((s) => Number(s.split(' ')[1]));
const clouds = computed(() => props.stage.clouds.filter((x) => x.number !== c?.number));
/** Classes to choose of: those there are, and those that are about to be. */
const classes = computed(() => {
  const known = clouds.value.filter((x) => numbers('cloud').includes(x.number)).flatMap((x) => Object.keys(x.classes).map(Number));
  return [...new Set([...known, ...keeps.value, 1, ...(ground.value ? [2] : []), ...(noise.value ? [7] : []), 2])].sort((a, b) => a - b);
});
const taken = computed(() => props.stage.clouds.find((x) => x.name === name.value.trim() && x.number !== c?.number));
const missing = computed(() =>
  sources.value.length === 0
    ? 'Choose what it is made of.'
    : name.value.trim() === ''
      ? 'It needs a name.'
      : taken.value
        ? 'There is a cloud of that name already.'
        : paint.value === 'deviation' && against.value === ''
          ? 'Choose what its points deviate from.'
          : moving.value === 'cloud' && !onto.value
            ? 'Choose the cloud it is laid onto.'
            : moving.value === 'cloud' && numbers('cloud').includes(onto.value)
              ? 'A cloud is not laid onto itself.'
              : moving.value === 'targets'
                ? seen.value.fault || (seen.value.targets.length === 0 ? 'Say where it shows a control point.' : '')
                : '',
);

function save() {
  emit('save', {
    name: name.value.trim(),
    number: c?.number ?? null,
    files: numbers('file'),
    clouds: numbers('cloud'),
    passes: numbers('pass'),
    dense: numbers('dense'),
    crop: crop.value,
    outside: outside.value && crop.value.length > 0,
    thin: thin.value,
    noise: noise.value,
    ground: ground.value,
    classes: keeps.value,
    onto: moving.value === 'cloud' ? onto.value : 0,
    within: within.value ?? 1,
    targets: moving.value === 'targets' ? seen.value.targets : [],
    paint: paint.value,
    against: paint.value === 'deviation' ? against.value : '',
    range: range.value ?? 0.05,
  });
}
</script>

<template>
  <ElForm label-position="top" class="form" @submit.prevent="save">
    <h1>{{ c ? `Make ${c.name} anew` : 'A cloud of what?' }}</h1>
    <div class="grid">
      <ElFormItem label="made of"
        ><ElSelect
          v-model="sources"
          multiple
          aria-label="Made of"
          data-test="cloud-sources"
          placeholder="clouds that came in, or made here"
        >
          <ElOption v-for="f in stage.files" :key="f.id" :value="`file ${f.id}`" :label="`${f.name} · ${group(String(f.points))}`" />
          <ElOption v-for="k in c?.passes ?? []" :key="`pass ${k}`" :value="`pass ${k}`" :label="`scan of pass ${k}, as it is corrected`" />
          <ElOption v-for="k in c?.dense ?? []" :key="`dense ${k}`" :value="`dense ${k}`" :label="`dense points ${k} of images`" />
          <ElOption v-for="x in clouds" :key="x.number" :value="`cloud ${x.number}`" :label="`${x.name} · ${group(String(x.points))}`" />
        </ElSelect>
      </ElFormItem>
      <ElFormItem label="name"><ElInput v-model="name" maxlength="80" aria-label="Name" data-test="cloud-name" /></ElFormItem>
    </div>
    <p class="line">
      <ElButton size="small" data-test="cloud-crop" :type="drawing ? 'primary' : ''" @click="emit('draw', !drawing)">
        {{ drawing ? 'Stop drawing' : 'Crop on the map…' }}
      </ElButton>
      <template v-if="crop.length > 0">
        <ElTag closable @close="crop = []">{{ crop.length }} corners</ElTag>
        <ElRadioGroup v-model="outside" size="small" aria-label="What is kept">
          <ElRadioButton :value="false">keep inside</ElRadioButton><ElRadioButton :value="true">keep outside</ElRadioButton>
        </ElRadioGroup>
      </template>
      <span v-else class="quiet">all of it</span>
    </p>
    <div class="grid">
      <NumberInput
        id="cloud-thin"
        v-model="thin"
        label="thin to one point each"
        :unit="lengthUnit(units)"
        :factor="metresPer(units)"
        placeholder="all points"
      />
      <ElFormItem label="keep classes"
        ><ElSelect v-model="keeps" multiple aria-label="Classes that are kept" data-test="cloud-classes" placeholder="all classes">
          <ElOption v-for="k in classes" :key="k" :value="k" :label="`${k} ${classOf(k).name}`" />
        </ElSelect>
      </ElFormItem>
    </div>
    <div class="grid">
      <ElFormItem label="where it belongs"
        ><ElSelect v-model="moving" aria-label="Where it belongs" data-test="cloud-moving">
          <ElOption value="none" label="it lies there" />
          <ElOption value="cloud" label="onto another cloud" />
          <ElOption value="targets" label="by targets it shows" />
        </ElSelect>
      </ElFormItem>
      <ElFormItem v-if="moving === 'cloud'" label="lay it onto"
        ><ElSelect v-model="onto" aria-label="Lay it onto" data-test="cloud-onto" placeholder="a cloud" :empty-values="[0]">
          <ElOption v-for="x in clouds" :key="x.number" :value="x.number" :label="x.name" />
        </ElSelect>
      </ElFormItem>
      <NumberInput
        v-if="moving === 'cloud'"
        id="cloud-within"
        v-model="within"
        label="it is off by less than"
        :unit="lengthUnit(units)"
        :factor="metresPer(units)"
      />
    </div>
    <ElFormItem v-if="moving === 'targets'" label="where it shows control and check points, a line each"
      ><ElInput
        v-model="seenText"
        type="textarea"
        class="mono"
        :rows="3"
        aria-label="Targets"
        data-test="cloud-targets"
        placeholder="point  easting  northing  height"
    /></ElFormItem>
    <p v-if="moving === 'targets'" class="line">
      <template v-if="picked">
        <span class="quiet">The picked place is</span>
        <ElSelect v-model="pickedAs" class="point" filterable aria-label="Point that was picked" data-test="picked-as" placeholder="point">
          <ElOption v-for="k in stage.points" :key="k.name" :value="k.name" :label="`${k.name} · ${k.role}`" />
        </ElSelect>
        <ElButton size="small" data-test="take-picked" :disabled="pickedAs === ''" @click="takePicked">Add it</ElButton>
      </template>
      <span v-else class="quiet">A place clicked in the cloud can be taken too.</span>
    </p>
    <div class="grid">
      <ElFormItem label="colours of its points"
        ><ElSelect v-model="paint" aria-label="Colours of its points" data-test="cloud-paint">
          <ElOption value="" label="as they came" />
          <ElOption value="time" label="by the time they were measured" />
          <ElOption value="deviation" label="by how far they lie over another" />
        </ElSelect>
      </ElFormItem>
      <ElFormItem v-if="paint === 'deviation'" label="over"
        ><ElSelect v-model="against" aria-label="Over" data-test="cloud-against" placeholder="a cloud, or heights of a flight">
          <ElOption v-for="[slot, label] in products" :key="slot" :value="slot" :label="label" />
        </ElSelect>
      </ElFormItem>
      <NumberInput
        v-if="paint === 'deviation'"
        id="cloud-range"
        v-model="range"
        label="colours end at"
        :unit="lengthUnit(units)"
        :factor="metresPer(units)"
      />
    </div>
    <p class="line">
      <ElCheckbox v-model="noise" data-test="cloud-noise">find noise</ElCheckbox>
      <ElCheckbox v-model="ground" data-test="cloud-ground">find ground</ElCheckbox>
    </p>
    <p class="quiet">
      In this order: moved by its targets or laid onto another by what both have in common, crop, thin, noise (points that stand alone,
      class 7), ground (class 2, the rest 1), classes. What it is made of stays as it is.
    </p>
    <p class="line">
      <ElButton type="primary" native-type="submit" data-test="make-cloud" :disabled="!project.mayChange || missing !== ''"
        >Make it</ElButton
      >
      <ElButton @click="emit('cancel')">Leave it</ElButton><span class="doubt">{{ missing }}</span>
    </p>
  </ElForm>
</template>

<style scoped>
.form {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.grid {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 16px;
  align-items: start;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
}
.point {
  width: 170px;
}
.line .el-button + .el-button {
  margin: 0;
}
p {
  margin: 0;
}
</style>

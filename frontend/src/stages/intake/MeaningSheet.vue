<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue';
import { get, put } from '../../api/client';
import { inOrder } from '../../api/inOrder';
import type { MeaningRequest, MeaningView, PreviewView, ReferenceView } from '../../api/types';
import WayList from '../../fields/WayList.vue';
import SystemPicker from '../../fields/SystemPicker.vue';
import { usableFirst } from '../../fields/ways';
import { metresPer, small, smallUnit } from '../../format/units';
import { useProject } from '../../state/project';
import { settled } from './previews';

/** What the coordinates and heights of a waiting file mean: asked where the file does not say. */
const props = defineProps<{ file: number; meaning: MeaningView; plan?: string[]; saidBy?: string }>();
const emit = defineEmits<{ preview: [p: PreviewView]; order: [exchange: boolean] }>();
const project = useProject();
const reference = ref<ReferenceView | null>(null);
const other = ref(/^(EPSG|custom):/.test(props.meaning.frame));
const geoids = computed(() => reference.value?.grids.filter((g) => g.kind === 'geoid') ?? []);
const asks = computed(() => new Map(props.meaning.asks.map((a) => [a.key, a.text])));
const heights = computed(() => props.meaning.heights || props.meaning.said);
const frame = computed(() =>
  other.value && !props.meaning.frame.startsWith('localization:') && props.meaning.frame !== 'local' ? 'other' : props.meaning.frame,
);

const sigma = ref<number | null>(0.01);
const smallMetres = computed(() => (smallUnit(project.units) === 'mm' ? 0.001 : metresPer(project.units)));
const CONTROL: Record<string, string> = {
  hold: 'The marks are held.',
  weight: `The marks are weighted by ${small(props.meaning.sigma ?? 0, project.units)} ${smallUnit(project.units)}.`,
  check: 'The marks are check points: compared with, never held.',
  information: 'The marks are for information only: not control.',
};
const UNASKED = { swap: null, far: false, sign: '', operation: '', control: '' as const };
const SIGNS: Record<string, string> = {
  latitude: 'The sign of latitude is changed.',
  longitude: 'The sign of longitude is changed.',
  both: 'The signs of latitude and longitude are changed.',
};
const openWays = ref(props.meaning.operation === '' ? ['ways'] : []);
const ways = computed(() => usableFirst(props.meaning.ways));
const answered = computed(() =>
  [
    props.meaning.swap ? `${props.meaning.geographic ? 'Latitude and longitude' : 'Eastings and northings'} are exchanged.` : '',
    SIGNS[props.meaning.sign] ?? '',
    props.meaning.far ? 'Far away on purpose.' : '',
    CONTROL[props.meaning.control] ?? '',
  ]
    .filter((text) => text !== '')
    .join(' '),
);

const changes = inOrder();
// Answers given before the last one came back are kept.
let answers: MeaningRequest = {};
watch(
  () => props.meaning,
  ({ frame, heights, geoid, swap, far, sign, operation, control, sigma }) => {
    if (!changes.busy()) answers = { frame, heights, geoid, swap, far, sign, operation, control, sigma };
  },
  { immediate: true },
);

async function answer(change: MeaningRequest) {
  answers = { ...answers, ...change };
  const path = project.path(`/intake/${props.file}/meaning`);
  const sent = answers;
  await project.attempt(() =>
    changes.send(
      () => settled(project, put(path, sent)),
      (p) => emit('preview', p),
    ),
  );
}

function choose(value: string) {
  other.value = value === 'other';
  if (value !== 'other') void answer({ frame: value, ...UNASKED });
}

onMounted(async () => (reference.value = await get<ReferenceView>(project.path('/reference')).catch(() => null)));
</script>

<template>
  <section class="meaning" aria-label="What coordinates and heights mean">
    <ElAlert v-if="asks.has('order')" data-test="ask-order" type="warning" :closable="false">
      <strong class="doubt">?</strong> <span class="words">{{ asks.get('order') }}</span>
      <ElButton size="small" type="primary" plain data-test="order-keep" @click="emit('order', false)">{{ plan?.[0] }} is</ElButton>
      <ElButton size="small" type="primary" plain data-test="order-exchange" @click="emit('order', true)">{{ plan?.[1] }} is</ElButton>
    </ElAlert>
    <ElAlert v-if="asks.has('control')" data-test="ask-control" type="warning" :closable="false">
      <strong class="doubt">?</strong> <span class="words whole">{{ asks.get('control') }}</span>
      <ElButton size="small" type="primary" plain data-test="control-hold" @click="answer({ control: 'hold' })">Hold them</ElButton>
      <ElButton size="small" data-test="control-weight" :disabled="!sigma || sigma <= 0" @click="answer({ control: 'weight', sigma })"
        >Weight them by</ElButton
      >
      <span class="weigh"
        ><ElInputNumber
          size="small"
          :controls="false"
          :min="0"
          :model-value="sigma === null ? null : Number((sigma / smallMetres).toFixed(4))"
          :aria-label="`Standard deviation, ${smallUnit(project.units)}`"
          @update:model-value="(v: number | null | undefined) => (sigma = v ? v * smallMetres : null)"
        />
        {{ smallUnit(project.units) }}</span
      >
      <ElButton size="small" data-test="control-check" @click="answer({ control: 'check' })">Check points</ElButton>
      <ElButton size="small" data-test="control-information" @click="answer({ control: 'information' })">For information only</ElButton>
    </ElAlert>
    <div v-if="!meaning.plane" class="row">
      <ElFormItem class="field" :label="meaning.geographic ? 'latitudes and longitudes are' : 'coordinates are'"
        ><ElSelect data-test="frame" :model-value="frame" @change="choose($event)">
          <ElOption value="project" :label="meaning.geographic ? 'on the datum of the project' : 'in the project’s system'" />
          <ElOption value="other" :label="meaning.geographic ? 'on another datum' : 'in another system'" />
          <ElOption v-if="!meaning.geographic" value="local" label="known only locally" />
          <ElOption
            v-for="l in meaning.geographic ? [] : (reference?.localizations ?? [])"
            :key="l.id"
            :value="`localization:${l.id}`"
            :label="`local, by ${l.name}`"
          /> </ElSelect
      ></ElFormItem>
      <SystemPicker
        v-if="frame === 'other'"
        id="file-system"
        label="which"
        :model-value="meaning.frame === 'project' ? '' : meaning.frame"
        :path="project.path('/reference/systems')"
        @update:model-value="(v) => answer({ frame: v, ...UNASKED })"
      />
      <template v-if="meaning.hasHeights && (frame === 'project' || frame === 'other')">
        <ElFormItem class="field" :label="`heights are${meaning.said && !meaning.heights ? `, as the ${saidBy ?? 'heading'} says,` : ''}`"
          ><ElSelect
            :class="{ asked: asks.has('heights') }"
            data-test="heights"
            :model-value="heights"
            @change="answer({ heights: $event })"
          >
            <ElOption v-if="heights === ''" value="" label="which?" />
            <ElOption value="ellipsoidal" label="ellipsoidal" />
            <ElOption value="geoid" label="above a geoid" /> </ElSelect
        ></ElFormItem>
        <ElFormItem v-if="heights === 'geoid'" class="field" label="the geoid"
          ><ElSelect
            :class="{ asked: asks.has('geoid') }"
            data-test="heights-geoid"
            :model-value="meaning.geoid"
            @change="answer({ geoid: $event })"
          >
            <ElOption v-if="meaning.geoid === ''" value="" label="which?" />
            <ElOption v-for="g in geoids" :key="g.reference" :value="g.reference" :label="g.name" /> </ElSelect
        ></ElFormItem>
      </template>
    </div>
    <p v-if="meaning.geographic && frame === 'project' && reference?.system" class="quiet">
      The project is on {{ reference.system.datum }}.
    </p>
    <ElAlert v-if="asks.has('heights')" data-test="ask-heights" type="warning" :closable="false">
      <strong class="doubt">?</strong> <span class="words">{{ asks.get('heights') }}</span>
      <ElButton size="small" type="primary" plain data-test="heights-ellipsoidal" @click="answer({ heights: 'ellipsoidal' })"
        >Ellipsoidal</ElButton
      >
      <ElButton size="small" type="primary" plain data-test="heights-geoid-yes" @click="answer({ heights: 'geoid' })"
        >Above a geoid</ElButton
      >
    </ElAlert>
    <ElAlert v-if="asks.has('geoid')" type="warning" :closable="false"><strong class="doubt">?</strong> {{ asks.get('geoid') }}</ElAlert>
    <ElAlert v-if="asks.has('swap')" data-test="ask-swap" type="warning" :closable="false">
      <strong class="doubt">?</strong> <span>{{ asks.get('swap') }}</span><ElButton
        type="primary"
        plain
        data-test="swap-yes"
        @click="answer({ swap: true })"
      >
        Exchange</ElButton
      ><ElButton @click="answer({ swap: false })">Keep</ElButton>
    </ElAlert>
    <ElAlert
      v-for="a in meaning.asks.filter((ask) => ask.key === 'sign')"
      :key="a.key"
      data-test="ask-sign"
      type="warning"
      :closable="false"
    >
      <strong class="doubt">?</strong> <span>{{ a.text }}</span><ElButton
        type="primary"
        plain
        data-test="sign-yes"
        @click="answer({ sign: a.offer })"
      >
        Change the sign</ElButton
      ><ElButton @click="answer({ sign: 'none' })">Keep</ElButton>
    </ElAlert>
    <ElAlert v-if="asks.has('far')" data-test="ask-far" type="warning" :closable="false">
      <strong class="doubt">?</strong> <span>{{ asks.get('far') }}</span><ElButton data-test="far-yes" @click="answer({ far: true })">
        It is meant
      </ElButton>
    </ElAlert>
    <ElCollapse v-if="meaning.ways.length > 0" v-model="openWays" data-test="ways">
      <ElCollapseItem name="ways" :title="meaning.operation === '' ? 'Choose a transformation' : `By ${meaning.operation}`">
        <WayList :ways="ways" choosable :chosen="meaning.operation" @choose="(name) => answer({ operation: name })" />
      </ElCollapseItem>
    </ElCollapse>
    <p v-if="answered" class="quiet">
      {{ answered }}
      <ElButton link type="primary" @click="answer(UNASKED)">ask again</ElButton>
    </p>
  </section>
</template>

<style scoped>
.meaning {
  display: grid;
  gap: 6px;
}
.words {
  flex: 1 1 240px;
}
.whole {
  flex-basis: calc(100% - 24px);
}
.weigh .el-input-number {
  width: 64px;
}
.row {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
}
.row .field {
  min-width: 150px;
}
</style>

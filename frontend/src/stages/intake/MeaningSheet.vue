<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue';
import { get, put } from '../../api/client';
import { inOrder } from '../../api/inOrder';
import type { MeaningRequest, MeaningView, PreviewView, ReferenceView } from '../../api/types';
import WayList from '../../fields/WayList.vue';
import SystemPicker from '../../fields/SystemPicker.vue';
import { usableFirst } from '../../fields/ways';
import { useProject } from '../../state/project';
import { settled } from './previews';

/** What the coordinates and heights of a waiting file mean: asked where the file does not say. */
const props = defineProps<{ file: number; meaning: MeaningView }>();
const emit = defineEmits<{ preview: [p: PreviewView] }>();
const project = useProject();
const reference = ref<ReferenceView | null>(null);
const other = ref(/^(EPSG|custom):/.test(props.meaning.frame));
const geoids = computed(() => reference.value?.grids.filter((g) => g.kind === 'geoid') ?? []);
const asks = computed(() => new Map(props.meaning.asks.map((a) => [a.key, a.text])));
const heights = computed(() => props.meaning.heights || props.meaning.said);
const frame = computed(() =>
  other.value && !props.meaning.frame.startsWith('localization:') && props.meaning.frame !== 'local' ? 'other' : props.meaning.frame,
);

const UNASKED = { swap: null, far: false, sign: '', operation: '' };
const SIGNS: Record<string, string> = {
  latitude: 'The sign of latitude is changed.',
  longitude: 'The sign of longitude is changed.',
  both: 'The signs of latitude and longitude are changed.',
};
const ways = computed(() => usableFirst(props.meaning.ways));
const answered = computed(() =>
  [
    props.meaning.swap ? `${props.meaning.geographic ? 'Latitude and longitude' : 'Eastings and northings'} are exchanged.` : '',
    SIGNS[props.meaning.sign] ?? '',
    props.meaning.far ? 'Far away on purpose.' : '',
  ]
    .filter((text) => text !== '')
    .join(' '),
);

const changes = inOrder();
// Answers given before the last one came back are kept.
let answers: MeaningRequest = {};
watch(
  () => props.meaning,
  ({ frame, heights, geoid, swap, far, sign, operation }) => {
    if (!changes.busy()) answers = { frame, heights, geoid, swap, far, sign, operation };
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
    <div class="row">
      <label class="field"
        ><span class="label">{{ meaning.geographic ? 'latitudes and longitudes are' : 'coordinates are' }}</span
        ><select class="input" data-test="frame" :value="frame" @change="choose(($event.target as HTMLSelectElement).value)">
          <option value="project">{{ meaning.geographic ? 'on the datum of the project' : 'in the project’s system' }}</option>
          <option value="other">{{ meaning.geographic ? 'on another datum' : 'in another system' }}</option>
          <option v-if="!meaning.geographic" value="local">known only locally</option>
          <option v-for="l in meaning.geographic ? [] : (reference?.localizations ?? [])" :key="l.id" :value="`localization:${l.id}`">
            local, by {{ l.name }}
          </option>
        </select></label
      >
      <SystemPicker
        v-if="frame === 'other'"
        id="file-system"
        label="which"
        :model-value="meaning.frame === 'project' ? '' : meaning.frame"
        :path="project.path('/reference/systems')"
        @update:model-value="(v) => answer({ frame: v, ...UNASKED })"
      />
      <template v-if="meaning.hasHeights && (frame === 'project' || frame === 'other')">
        <label class="field"
          ><span class="label">heights are{{ meaning.said && !meaning.heights ? ', as the heading says,' : '' }}</span
          ><select
            class="input"
            :class="{ asked: asks.has('heights') }"
            data-test="heights"
            :value="heights"
            @change="answer({ heights: ($event.target as HTMLSelectElement).value })"
          >
            <option v-if="heights === ''" value="">which?</option>
            <option value="ellipsoidal">ellipsoidal</option>
            <option value="geoid">above a geoid</option>
          </select></label
        >
        <label v-if="heights === 'geoid'" class="field"
          ><span class="label">the geoid</span
          ><select
            class="input"
            :class="{ asked: asks.has('geoid') }"
            data-test="heights-geoid"
            :value="meaning.geoid"
            @change="answer({ geoid: ($event.target as HTMLSelectElement).value })"
          >
            <option v-if="meaning.geoid === ''" value="">which?</option>
            <option v-for="g in geoids" :key="g.reference" :value="g.reference">{{ g.name }}</option>
          </select></label
        >
      </template>
    </div>
    <p v-if="meaning.geographic && frame === 'project' && reference?.system" class="quiet">
      The project is on {{ reference.system.datum }}.
    </p>
    <p v-if="asks.has('heights')" class="notice"><strong class="doubt">?</strong> {{ asks.get('heights') }}</p>
    <p v-if="asks.has('geoid')" class="notice"><strong class="doubt">?</strong> {{ asks.get('geoid') }}</p>
    <p v-if="asks.has('swap')" class="notice" data-test="ask-swap">
      <strong class="doubt">?</strong> <span>{{ asks.get('swap') }}</span><button
        class="button"
        data-test="swap-yes"
        @click="answer({ swap: true })"
      >
        Exchange</button
      ><button class="button plain" @click="answer({ swap: false })">Keep</button>
    </p>
    <p v-for="a in meaning.asks.filter((ask) => ask.key === 'sign')" :key="a.key" class="notice" data-test="ask-sign">
      <strong class="doubt">?</strong> <span>{{ a.text }}</span><button
        class="button"
        data-test="sign-yes"
        @click="answer({ sign: a.offer })"
      >
        Change the sign</button
      ><button class="button plain" @click="answer({ sign: 'none' })">Keep</button>
    </p>
    <p v-if="asks.has('far')" class="notice" data-test="ask-far">
      <strong class="doubt">?</strong> <span>{{ asks.get('far') }}</span><button
        class="button plain"
        data-test="far-yes"
        @click="answer({ far: true })"
      >
        It is meant
      </button>
    </p>
    <details v-if="meaning.ways.length > 0" :open="meaning.operation === ''" data-test="ways">
      <summary>{{ meaning.operation === '' ? 'Choose a transformation' : `By ${meaning.operation}` }}</summary>
      <WayList :ways="ways" choosable :chosen="meaning.operation" @choose="(name) => answer({ operation: name })" />
    </details>
    <p v-if="answered" class="quiet">
      {{ answered }}
      <button class="link" @click="answer(UNASKED)">ask again</button>
    </p>
  </section>
</template>

<style scoped>
.meaning {
  display: grid;
  gap: 6px;
}
.row {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
}
.row .field {
  min-width: 150px;
}
.asked {
  border-color: var(--ochre);
  background: var(--ochre-soft);
}
.notice {
  margin: 0;
  align-items: center;
}
.input {
  height: 26px;
  padding: 0 4px;
}
</style>

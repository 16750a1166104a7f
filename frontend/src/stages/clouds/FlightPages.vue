<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue';
import { get, post } from '../../api/client';
import type { DenseRequest, FlightRequest, FlightsView, MissionView, OrthoRequest } from '../../api/types';
import FiguresTable from '../../figures/FiguresTable.vue';
import { when } from '../../format/units';
import AnswerHead from '../../frame/AnswerHead.vue';
import EmptyPage from '../../frame/EmptyPage.vue';
import LineageList from '../../frame/LineageList.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { MapSketch } from '../../sketch';
import { writeAndOpen } from '../../state/handover';
import { useProject } from '../../state/project';
import {
  coverSentences,
  flightHeadline,
  flightScene,
  flightSentences,
  imageColumns,
  knownColumns,
  orthoColumns,
  type FlightFigures,
  type Mark,
} from './flights';
import ImageMarks from './ImageMarks.vue';

/** Photo flights: what the images show, their orientation with and without control, and what is made of them. */
const emit = defineEmits<{ cloud: [number: number] }>();
const project = useProject();
const units = computed(() => project.units);
const stage = ref<FlightsView | null>(null);
const missionId = ref(0);
const mission = shallowRef<MissionView | null>(null);
const figures = shallowRef<FlightFigures | null>(null);
const view = ref<'map' | 'images' | 'ortho'>('map');
const marks = ref<Mark[]>([]);
const selected = ref(new Set<string>());

/** Groups of images of a rover have a page of their own. */
const missions = computed(() => stage.value?.missions.filter((m) => !m.isGroup) ?? []);
const flight = computed(() => stage.value?.flights.find((f) => f.mission === missionId.value) ?? null);
const ortho = computed(() => stage.value?.orthos.find((o) => o.flight === flight.value?.number) ?? null);
const verdict = computed(() => (flight.value ? flightHeadline(flight.value, units.value) : null));
const scene = computed(() => flightScene(mission.value, stage.value?.points ?? [], selected.value));
/** With how far the heights that were made of the images are off. */
const known = computed(() => {
  const heights = new Map(ortho.value?.known.map((k) => [k.id, k.off]) ?? []);
  return (figures.value?.known ?? []).map((k) => ({ ...k, surface: heights.get(k.id) ?? null }));
});
const isMarked = computed(() => JSON.stringify(marks.value) !== JSON.stringify(flight.value?.marks ?? []));
const markedPoints = computed(() => new Set(marks.value.map((m) => m.point)).size);

async function load() {
  const now = await get<FlightsView>(project.path('/clouds/flights'));
  stage.value = now;
  if (!missions.value.some((m) => m.id === missionId.value)) missionId.value = missions.value[0]?.id ?? 0;
  await loadMission();
}
async function loadMission() {
  const id = missionId.value;
  if (id === 0) return;
  const [m, f] = await Promise.all([
    get<MissionView>(project.path(`/clouds/missions/${id}`)),
    flight.value ? get<FlightFigures>(project.path(`/clouds/flights/${flight.value.number}`)) : null,
  ]);
  if (missionId.value !== id) return;
  [mission.value, figures.value] = [m, f];
}
async function adjust() {
  const m = mission.value!;
  const request: FlightRequest = {
    name: flight.value?.name ?? m.name,
    number: flight.value?.number ?? null,
    mission: m.id,
    marks: marks.value,
  };
  await project.attempt(() => project.job(post(project.path('/clouds/flights'), request)));
  await load();
}
async function makeOrtho() {
  const f = flight.value!;
  const request: OrthoRequest = {
    name: ortho.value?.name ?? f.name,
    number: ortho.value?.number ?? null,
    flight: f.number,
    cell: ortho.value?.cell ?? null,
    pixel: ortho.value?.pixel ?? null,
  };
  const ok = await project.attempt(() => project.job(post(project.path('/clouds/orthos'), request)));
  await load();
  if (ok) view.value = 'ortho';
}
async function makeDense() {
  const f = flight.value!;
  const request: DenseRequest = { name: f.name, flights: [f.number], number: null, spacing: null };
  let cloud = 0;
  const ok = await project.attempt(async () => {
    const job = await project.job(post(project.path('/clouds/dense'), request));
    cloud = Number(job.outcome?.number ?? 0);
  });
  if (ok) emit('cloud', cloud);
}
onMounted(load);
watch(() => project.version, load);
watch(missionId, loadMission);
watch(
  () => flight.value?.output,
  () => (marks.value = [...(flight.value?.marks ?? [])]),
  { immediate: true },
);
</script>

<template>
  <TwoPages>
    <template #figures>
      <div v-if="stage" class="sheet scroll">
        <slot name="tabs" />
        <EmptyPage v-if="missions.length === 0" title="No photo flight yet">
          <p>
            A flight is a mission file (mensura-flight/1: the camera and where each image was taken) and its JPEG images. Bring the folder
            in and accept what is ready.
          </p>
          <p><router-link class="link" :to="`/p/${project.id}/intake`">To Intake</router-link></p>
        </EmptyPage>
        <template v-else-if="mission">
          <AnswerHead>
            <h1 :class="verdict?.tone" data-test="flight-verdict">
              {{ verdict?.words ?? `${mission.name}: ${mission.images.length} images, not adjusted yet` }}
            </h1>
            <p v-if="flight" data-test="flight-words">{{ flightSentences(flight, units) }}</p>
            <p data-test="cover-words">{{ coverSentences(mission, units) }}</p>
            <p v-if="flight && flight.alone.length > 0" class="fails">Not joined: {{ flight.alone.join(', ') }}.</p>
            <p v-for="pair in flight?.swapped.slice(1) ?? []" :key="`${pair[0]} ${pair[1]}`" class="fails">
              So are those of {{ pair[0] }} and {{ pair[1] }}.
            </p>
            <p v-if="flight" class="quiet">Version {{ flight.run }}, {{ when(flight.at) }} by {{ flight.author }}</p>
            <p v-if="flight && flight.stale.length > 0" class="doubt">◐ Stale: {{ flight.stale.join(', ') }}</p>
            <LineageList v-if="flight" :place="`flight:${flight.number}`" />
            <template #actions>
              <ElButton
                :type="!flight || isMarked ? 'primary' : ''"
                data-test="adjust-flight"
                :disabled="!project.mayChange || mission.missing > 0"
                @click="adjust"
                >{{ flight ? 'Adjust anew' : 'Adjust' }}</ElButton
              >
              <ElButton
                data-test="make-ortho"
                :disabled="!project.mayChange || !flight?.isHeld || flight.stale.length > 0 || isMarked"
                @click="makeOrtho"
                >{{ ortho ? 'Orthoimage anew' : 'Orthoimage' }}</ElButton
              >
              <ElButton
                data-test="make-dense"
                :disabled="!project.mayChange || !flight?.isHeld || flight.stale.length > 0 || isMarked"
                @click="makeDense"
                >Dense points</ElButton
              >
            </template>
          </AnswerHead>
          <ElSelect v-if="missions.length > 1" v-model="missionId" aria-label="Flight" class="which"
            ><ElOption v-for="m in missions" :key="m.id" :value="m.id" :label="m.name"
          /></ElSelect>
          <p v-if="isMarked" class="doubt">
            {{ marks.length }} marks of {{ markedPoints }} points; they count when the flight is adjusted anew.
          </p>
          <template v-if="figures && flight">
            <section v-if="figures.known.length > 0">
              <h2>Control and check points, as the images see them less given</h2>
              <FiguresTable
                label="known"
                :columns="knownColumns(units)"
                :rows="known"
                :row-key="(k) => k.id"
                :selected="new Set()"
                :filterable="false"
                :style="{ height: `${Math.min(9, figures.known.length) * 27 + 34}px` }"
              />
            </section>
            <section v-if="ortho">
              <div class="part">
                <h2>Made of it</h2>
                <span class="spacer" />
                <ElButton
                  size="small"
                  data-test="write-ortho"
                  :disabled="!project.mayChange || ortho.stale.length > 0"
                  @click="writeAndOpen(project, 'ortho', ortho.number)"
                  >Write as GeoTIFF</ElButton
                >
              </div>
              <FiguresTable
                label="orthos"
                :columns="orthoColumns(units)"
                :rows="[ortho]"
                :row-key="(o) => String(o.number)"
                :selected="new Set()"
                :filterable="false"
                :style="{ height: '62px' }"
              />
            </section>
            <section>
              <h2>Images</h2>
              <FiguresTable
                label="images"
                :columns="imageColumns(units)"
                :rows="figures.images"
                :row-key="(i) => i.file"
                :selected="selected"
                :filterable="figures.images.length > 20"
                :style="{ height: `${Math.min(15, figures.images.length) * 27 + 34}px` }"
                @select="(k) => (selected = new Set(k))"
              />
            </section>
          </template>
          <p v-else class="quiet">
            Tie points are found in the images by themselves. Adjusted without control, they agree among themselves; mark control and check
            points in the images to have them where the ground is.
          </p>
        </template>
      </div>
    </template>
    <template #sketch>
      <MapSketch v-if="view === 'map' || !mission" :scene="scene">
        <template #corner>
          <ElRadioGroup v-model="view" size="small" aria-label="View">
            <ElRadioButton value="map">Map</ElRadioButton>
            <ElRadioButton value="images" :disabled="!mission || stage?.points.length === 0" data-test="view-images">Images</ElRadioButton>
            <ElRadioButton value="ortho" :disabled="!ortho" data-test="view-ortho">Orthoimage</ElRadioButton>
          </ElRadioGroup>
        </template>
      </MapSketch>
      <div v-else class="beside">
        <ElRadioGroup v-model="view" size="small" aria-label="View" class="switch">
          <ElRadioButton value="map" data-test="view-map">Map</ElRadioButton>
          <ElRadioButton value="images" :disabled="stage?.points.length === 0">Images</ElRadioButton>
          <ElRadioButton value="ortho" :disabled="!ortho" data-test="view-ortho">Orthoimage</ElRadioButton>
        </ElRadioGroup>
        <ImageMarks v-if="view === 'images' && stage" v-model="marks" :mission="mission" :points="stage.points" />
        <img
          v-else-if="ortho"
          class="picture"
          data-test="ortho-picture"
          :src="`${project.path(`/clouds/orthos/${ortho.number}/picture`)}?${ortho.output.slice(0, 12)}`"
          :alt="`Orthoimage ${ortho.name}`"
        />
      </div>
    </template>
  </TwoPages>
</template>

<style scoped>
.which {
  width: 220px;
}
.beside {
  position: absolute;
  inset: 0;
}
.switch {
  position: absolute;
  top: 12px;
  left: 14px;
}
.picture {
  position: absolute;
  inset: 48px 14px 14px;
  width: calc(100% - 28px);
  height: calc(100% - 62px);
  object-fit: contain;
}
.part {
  display: flex;
  align-items: center;
}
section {
  display: flex;
  flex-direction: column;
}
</style>

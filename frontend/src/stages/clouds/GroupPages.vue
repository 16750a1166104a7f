<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue';
import { get, post } from '../../api/client';
import type { DenseRequest, FlightRequest, FlightsView, MissionView, RaysPointRequest, RaysRequest, RaysView } from '../../api/types';
import FiguresTable from '../../figures/FiguresTable.vue';
import { height, lengthUnit, when } from '../../format/units';
import AnswerHead from '../../frame/AnswerHead.vue';
import EmptyPage from '../../frame/EmptyPage.vue';
import LineageList from '../../frame/LineageList.vue';
import TwoPages from '../../frame/TwoPages.vue';
import { MapSketch } from '../../sketch';
import { useProject } from '../../state/project';
import { groupColumns, groupHeadline, groupRows, groupScene, groupSentences, placeWords, rayColumns, withRay, type Ray } from './groups';
import ImageRays from './ImageRays.vue';

/** Groups of images of a rover: oriented, a place picked in one and found in the others, kept as a point; dense points as a cloud. */
const emit = defineEmits<{ cloud: [number: number] }>();
const project = useProject();
const units = computed(() => project.units);
const stage = ref<FlightsView | null>(null);
const groupId = ref(0);
const mission = shallowRef<MissionView | null>(null);
const rays = shallowRef<RaysView | null>(null);
const view = ref<'map' | 'images'>('images');
const active = ref('');
const isLooking = ref(false);
const pointName = ref('');
const pointCode = ref('');

const rows = computed(() => (stage.value ? groupRows(stage.value) : []));
const flight = computed(() => rows.value.find((g) => g.id === groupId.value)?.flight ?? null);
const isOriented = computed(() => !!flight.value && flight.value.stale.length === 0 && flight.value.converged);
const verdict = computed(() => (mission.value ? groupHeadline(flight.value, mission.value) : null));
const words = computed(() => placeWords(rays.value, units.value));
const scene = computed(() => groupScene(mission.value, stage.value?.points ?? [], rays.value?.place ?? null, active.value));
const oriented = computed(() => rows.value.filter((g) => g.flight && g.flight.stale.length === 0));

async function load() {
  stage.value = await get<FlightsView>(project.path('/clouds/flights'));
  if (!rows.value.some((g) => g.id === groupId.value)) groupId.value = rows.value[0]?.id ?? 0;
  await loadMission();
}
async function loadMission() {
  const id = groupId.value;
  if (id === 0) return;
  const answer = await get<MissionView>(project.path(`/clouds/missions/${id}`));
  if (groupId.value === id) mission.value = answer;
}
async function orient() {
  const m = mission.value!;
  const request: FlightRequest = { name: flight.value?.name ?? m.name, number: flight.value?.number ?? null, mission: m.id, marks: [] };
  await project.attempt(() => project.job(post(project.path('/clouds/flights'), request)));
  rays.value = null;
  await load();
}
async function look(given: Ray[], find: boolean) {
  if (!flight.value || given.length === 0) {
    rays.value = null;
    return;
  }
  const request: RaysRequest = { rays: given, find };
  isLooking.value = true;
  await project.attempt(async () => {
    rays.value = await post<RaysView>(project.path(`/clouds/flights/${flight.value!.number}/rays`), request);
  });
  isLooking.value = false;
}
const now = (): Ray[] => (rays.value?.rays ?? []).map((r) => ({ image: r.image, x: r.x, y: r.y }));
function pick(image: string, at: { x: number; y: number }) {
  const first = rays.value?.rays[0]?.image;
  const isNew = !first || first === image;
  void look(isNew ? withRay([], image, at) : withRay(now(), image, at), isNew);
}
const remove = (image: string) => look(withRay(now(), image, null), false);
async function keep() {
  const request: RaysPointRequest = { name: pointName.value.trim(), code: pointCode.value.trim(), rays: now() };
  const ok = await project.attempt(
    () => post(project.path(`/clouds/flights/${flight.value!.number}/points`), request),
    `${request.name} is a point.`,
  );
  if (!ok) return;
  // The next one is named after it: T7 is followed by T8.
  pointName.value = request.name.replace(/\d+$/, (d) => String(Number(d) + 1).padStart(d.length, '0'));
  rays.value = null;
}
async function dense(flights: number[]) {
  const names = oriented.value.filter((g) => flights.includes(g.flight!.number)).map((g) => g.name);
  const request: DenseRequest = { name: names.join(' and '), flights, number: null, spacing: null };
  let cloud = 0;
  const ok = await project.attempt(async () => {
    const job = await project.job(post(project.path('/clouds/dense'), request));
    cloud = Number(job.outcome?.number ?? 0);
  });
  if (ok) emit('cloud', cloud);
}
onMounted(load);
watch(() => project.version, load);
watch(groupId, () => {
  rays.value = null;
  void loadMission();
});
</script>

<template>
  <TwoPages>
    <template #figures>
      <div v-if="stage" class="sheet scroll">
        <slot name="tabs" />
        <EmptyPage v-if="rows.length === 0" title="No images of a rover yet">
          <p>
            A group is a file that says where each image was taken and how the camera was held (mensura-flight/1 with a distance), and its
            JPEG images. Bring the folder in and accept what is ready.
          </p>
          <p><router-link class="link" :to="`/p/${project.id}/intake`">To Intake</router-link></p>
        </EmptyPage>
        <template v-else-if="mission && verdict">
          <AnswerHead>
            <h1 :class="verdict.tone" data-test="group-verdict">{{ verdict.words }}</h1>
            <p data-test="group-words">{{ groupSentences(flight, mission, units) }}</p>
            <p v-if="flight && flight.alone.length > 0" class="fails">Not joined: {{ flight.alone.join(', ') }}.</p>
            <p v-if="flight" class="quiet">Version {{ flight.run }}, {{ when(flight.at) }} by {{ flight.author }}</p>
            <p v-if="flight && flight.stale.length > 0" class="doubt">◐ Stale: {{ flight.stale.join(', ') }}</p>
            <LineageList v-if="flight" :place="`flight:${flight.number}`" />
            <template #actions>
              <ElButton
                :type="isOriented ? '' : 'primary'"
                data-test="orient"
                :disabled="!project.mayChange || mission.missing > 0"
                @click="orient"
                >{{ flight ? 'Orient anew' : 'Orient' }}</ElButton
              >
              <ElDropdown trigger="click" @command="dense">
                <ElButton data-test="dense" :disabled="!project.mayChange || !isOriented">Dense points ▾</ElButton>
                <template #dropdown>
                  <ElDropdownMenu>
                    <ElDropdownItem v-if="flight" :command="[flight.number]" data-test="dense-one">Of {{ mission.name }}</ElDropdownItem>
                    <ElDropdownItem v-if="oriented.length > 1" :command="oriented.map((g) => g.flight!.number)" data-test="dense-all"
                      >Of all {{ oriented.length }} oriented groups</ElDropdownItem
                    >
                  </ElDropdownMenu>
                </template>
              </ElDropdown>
            </template>
          </AnswerHead>
          <section v-if="isOriented">
            <h2>Picked place</h2>
            <p :class="words.tone" data-test="place-words">{{ isLooking ? 'Looking in the other images …' : words.words }}</p>
            <template v-if="rays">
              <p v-if="rays.place" class="mono" data-test="place">
                {{ height(rays.place[0]!, units) }} E &nbsp;{{ height(rays.place[1]!, units) }} N &nbsp;{{ height(rays.place[2]!, units) }}
                {{ lengthUnit(units) }}
              </p>
              <FiguresTable
                label="rays"
                :columns="rayColumns"
                :rows="rays.rays"
                :row-key="(r) => r.image"
                :selected="new Set([active])"
                :filterable="false"
                :style="{ height: `${Math.min(10, rays.rays.length) * 27 + 34}px` }"
                @select="(k) => (active = k[0] ?? active)"
              >
                <template #cell-off="{ row, text }"
                  ><span :class="{ doubt: row.image === rays.mistaken }">{{ text }}</span></template
                >
                <template #cell-remove="{ row }"
                  ><ElButton
                    link
                    :disabled="rays.rays.length < 2"
                    :data-test="`remove-${row.image}`"
                    :aria-label="`Take the ray of ${row.image} away`"
                    @click.stop="remove(row.image)"
                    >remove</ElButton
                  ></template
                >
              </FiguresTable>
              <p class="line">
                <ElInput
                  v-model="pointName"
                  size="small"
                  class="short"
                  placeholder="name"
                  aria-label="Name of the point"
                  data-test="ray-name"
                />
                <ElInput
                  v-model="pointCode"
                  size="small"
                  class="short"
                  placeholder="code"
                  aria-label="Code of the point"
                  data-test="ray-code"
                />
                <ElButton
                  type="primary"
                  size="small"
                  data-test="keep-rays"
                  :disabled="!project.mayChange || !rays.place || pointName.trim() === ''"
                  @click="keep"
                  >Keep as a point</ElButton
                >
                <ElButton size="small" data-test="leave-rays" @click="rays = null">Leave it</ElButton>
              </p>
            </template>
          </section>
          <p v-else class="quiet">
            Tie points are found in the images by themselves; places and angles of the file hold them. Then a place that is picked in one
            image is found in the others.
          </p>
          <section v-if="rows.length > 0">
            <h2>Groups</h2>
            <FiguresTable
              label="groups"
              :columns="groupColumns"
              :rows="rows"
              :row-key="(g) => String(g.id)"
              :selected="new Set([String(groupId)])"
              :filterable="false"
              :style="{ height: `${Math.min(8, rows.length) * 27 + 34}px` }"
              @select="(k) => (groupId = Number(k[0] ?? groupId))"
            />
          </section>
        </template>
      </div>
    </template>
    <template #sketch>
      <MapSketch v-if="view === 'map' || !mission" :scene="scene">
        <template #corner>
          <ElRadioGroup v-model="view" size="small" aria-label="View">
            <ElRadioButton value="images" :disabled="!mission" data-test="view-images">Images</ElRadioButton>
            <ElRadioButton value="map">Map</ElRadioButton>
          </ElRadioGroup>
        </template>
      </MapSketch>
      <div v-else class="beside">
        <ElRadioGroup v-model="view" size="small" aria-label="View" class="switch">
          <ElRadioButton value="images">Images</ElRadioButton>
          <ElRadioButton value="map" data-test="view-map">Map</ElRadioButton>
        </ElRadioGroup>
        <ImageRays v-model:active="active" :mission="mission" :rays="rays" :may-pick="isOriented && !isLooking" @pick="pick" />
      </div>
    </template>
  </TwoPages>
</template>

<style scoped>
.beside {
  position: absolute;
  inset: 0;
}
.switch {
  position: absolute;
  top: 12px;
  left: 14px;
}
section {
  display: flex;
  flex-direction: column;
  gap: 6px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
  margin: 0;
}
.line .el-button + .el-button {
  margin: 0;
}
.short {
  width: 100px;
}
</style>

<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue';
import { get, post } from '../../api/client';
import type { OccupationView, ReferenceStationView, StationOrderRequest, StationsView } from '../../api/types';
import { figures, words, type Column } from '../../figures/columns';
import FiguresTable from '../../figures/FiguresTable.vue';
import { useProject } from '../../state/project';
import { ahead, clock, day, hours, isoHour, localZone, type Zone } from './times';

/** Reference stations near the project, ordered for the hours the receivers recorded; and a position for a static file. */
const props = defineProps<{ occupations: OccupationView[]; zone: Zone; leap: number }>();
const emit = defineEmits<{ stations: [list: ReferenceStationView[]] }>();
const project = useProject();
const page = shallowRef<StationsView | null>(null);
const chosen = ref('');
const from = ref<number | null>(null);
const to = ref<number | null>(null);
const interval = ref(30);
const format = ref('rinex-3');
const occupation = ref<number | null>(null);
const report = ref('');

async function load() {
  page.value = await get<StationsView>(project.path('/baselines/stations'));
  emit('stations', page.value.stations);
  if (chosen.value === '') chosen.value = page.value.stations[0]?.id ?? '';
  if (from.value === null && page.value.from !== null && page.value.to !== null) {
    [from.value, to.value] = hours(page.value.from, page.value.to, props.leap);
  }
}
onMounted(load);
watch(() => props.occupations.length, load);

const local = computed(() => (props.zone === 'gps' || props.zone === 'utc' ? localZone() : props.zone));
const columns = computed<Column<ReferenceStationView>[]>(() => [
  words('id', 'station', 70, (s) => s.id),
  figures(
    'distance',
    'distance',
    80,
    (s) => s.distance,
    (s) => (s.distance / 1000).toFixed(1),
    { unit: 'km' },
  ),
  figures(
    'h',
    'height',
    70,
    (s) => s.h,
    (s) => s.h.toFixed(1),
    { unit: 'm', hint: 'Above the ellipsoid' },
  ),
  words('intervals', 'every, s', 110, (s) => s.intervals.join(', ')),
  words('formats', 'formats', 130, (s) => s.formats.map(nameOf).join(', ')),
]);
const nameOf = (f: string) => ({ 'rinex-3': 'RINEX 3.04', 'rinex-2': 'RINEX 2.11' })[f] ?? f;
const options = computed(() => {
  if (page.value?.from == null || page.value.to == null) return [];
  const [a, b] = hours(page.value.from, page.value.to, props.leap);
  const list: number[] = [];
  for (let t = a - 3 * 3600; t <= b + 3 * 3600; t += 3600) list.push(t);
  return list;
});
const label = (t: number) =>
  `${clock(t, 'utc', props.leap)} UTC · ${clock(t, local.value, props.leap)} ${ahead(t, local.value, props.leap)}`;
const count = computed(() => (from.value === null || to.value === null ? 0 : Math.round((to.value - from.value) / 3600)));
/** Hours in which no receiver of the project recorded would be ordered in vain, and the other way round. */
const misses = computed(() => {
  const p = page.value;
  if (!p || p.from === null || p.to === null || from.value === null || to.value === null) return '';
  return from.value > p.from || to.value < p.to ? 'A part of what the receivers recorded lies outside these hours.' : '';
});

const order = () =>
  project.attempt(
    async () => {
      await project.job(
        post(project.path('/baselines/stations/order'), {
          station: chosen.value,
          from: isoHour(from.value!, props.leap),
          to: isoHour(to.value!, props.leap),
          interval: interval.value,
          format: format.value,
        } satisfies StationOrderRequest),
      );
    },
    `${chosen.value} is here: ${count.value} hour${count.value === 1 ? '' : 's'}, with ephemerides.`,
  );

async function send() {
  if (occupation.value === null) return;
  await project.attempt(async () => {
    report.value = (await post<{ text: string }>(project.path(`/baselines/occupations/${occupation.value}/position`))).text;
  });
}
const href = computed(() => URL.createObjectURL(new Blob([report.value], { type: 'text/plain' })));
</script>

<template>
  <section v-if="page" class="stations">
    <ElAlert v-if="page.why" type="warning" :closable="false">{{ page.why }}</ElAlert>
    <template v-else>
      <p class="quiet">{{ page.service }}: nearest to the project first. Choose one, and the hours.</p>
      <FiguresTable
        label="reference stations"
        :columns="columns"
        :rows="page.stations"
        :row-key="(s) => s.id"
        :selected="new Set([chosen])"
        :filterable="false"
        @select="(k) => (chosen = k[0] ?? '')"
      />
      <form class="order" @submit.prevent="order">
        <ElFormItem label="from"
          ><ElSelect v-model="from" aria-label="From"><ElOption v-for="t in options" :key="t" :value="t" :label="label(t)" /></ElSelect
        ></ElFormItem>
        <ElFormItem label="to"
          ><ElSelect v-model="to" aria-label="To"><ElOption v-for="t in options" :key="t" :value="t" :label="label(t)" /></ElSelect
        ></ElFormItem>
        <ElFormItem label="every"
          ><ElSelect v-model="interval" aria-label="Interval"
            ><ElOption v-for="i in [1, 5, 10, 15, 30]" :key="i" :value="i" :label="`${i} s`" /></ElSelect
        ></ElFormItem>
        <ElFormItem label="format"
          ><ElSelect v-model="format" aria-label="Format"
            ><ElOption value="rinex-3" label="RINEX 3.04" /><ElOption value="rinex-2" label="RINEX 2.11" /></ElSelect
        ></ElFormItem>
        <ElButton type="primary" native-type="submit" data-test="order" :disabled="!project.mayChange || chosen === '' || count < 1"
          >Order {{ count }} h</ElButton
        >
      </form>
      <p v-if="from !== null && to !== null" class="quiet" data-test="window">
        {{ day(from, 'utc', leap) }}, {{ clock(from, 'utc', leap) }} to {{ clock(to, 'utc', leap) }} UTC = {{ clock(from, local, leap) }} to
        {{ clock(to, local, leap) }} {{ local }} ({{ ahead(from, local, leap) }}, daylight saving counted) =
        {{ clock(from, 'gps', leap, true) }} to {{ clock(to, 'gps', leap, true) }} GPS. The receivers recorded
        {{ page.from === null ? '' : clock(page.from, 'utc', leap) }} to {{ page.to === null ? '' : clock(page.to, 'utc', leap) }} UTC; the
        window is rounded outward to the hour. 5 s is enough for code work, 30 s for static.
      </p>
      <p v-if="misses" class="doubt">{{ misses }}</p>
      <h2>A position for a static file</h2>
      <form class="order two" @submit.prevent="send">
        <ElFormItem label="occupation"
          ><ElSelect v-model="occupation" aria-label="Occupation" placeholder="choose">
            <ElOption
              v-for="o in occupations"
              :key="o.id"
              :value="o.id"
              :label="`${o.marker || o.file}, ${clock(o.from, zone, leap)}`" /></ElSelect
        ></ElFormItem>
        <ElButton native-type="submit" data-test="send-position" :disabled="!project.mayChange || occupation === null"
          >Send it, get a report</ElButton
        >
      </form>
      <template v-if="report">
        <pre class="mono" data-test="report">{{ report }}</pre>
        <p class="quiet">
          <a class="link" :href="href" download="position-report.txt">Keep the report</a>; Base correction reads it in, with its frame and
          epoch.
        </p>
      </template>
    </template>
  </section>
</template>

<style scoped>
.stations {
  display: flex;
  flex-direction: column;
  gap: 6px;
  flex: 1;
  min-height: 0;
  overflow-y: auto;
}
.stations > :deep(.figures) {
  flex: 0 0 170px;
}
.order {
  display: grid;
  grid-template-columns: 1.6fr 1.6fr 0.7fr 1fr auto;
  gap: 8px;
  align-items: end;
}
.order.two {
  grid-template-columns: 240px auto;
  justify-content: start;
}
p,
h2,
pre {
  margin: 0;
}
pre {
  font-size: 12px;
  padding: 6px 10px;
  border: 1px solid var(--rule);
  background: var(--page);
  overflow-x: auto;
}
</style>

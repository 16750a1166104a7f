<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { post, put, reasonOf } from '../../api/client';
import { latest } from '../../api/latest';
import type { MovedRow, MovePreview, ReferenceRequest, ReferenceView } from '../../api/types';
import type { Column } from '../../figures/columns';
import FiguresTable from '../../figures/FiguresTable.vue';
import NumberInput from '../../fields/NumberInput.vue';
import { height, length } from '../../format/units';
import type { Scene } from '../../sketch/scene';
import { useProject } from '../../state/project';
import WayList from '../../fields/WayList.vue';
import { usableFirst } from '../../fields/ways';

/** What a change of system or heights would move, before it is done. */
const props = defineProps<{ target: string; targetName: string; view: ReferenceView }>();
const emit = defineEmits<{ done: []; back: []; scene: [scene: Partial<Scene> | null] }>();
const project = useProject();
const units = computed(() => project.units);
const isPlane = computed(() => props.target === 'plane');
const geoids = computed(() => props.view.grids.filter((g) => g.kind === 'geoid'));
const heights = ref(isPlane.value ? 'local' : props.view.heights === 'geoid' ? 'geoid' : 'ellipsoidal');
const geoid = ref(props.view.geoid || (geoids.value[0]?.reference ?? ''));
const operation = ref<string | null>(null);
const epoch = ref<number | null>(null);
const preview = ref<MovePreview | null>(null);
const showWays = ref(false);
const selected = ref(new Set<string>());
const request = computed<ReferenceRequest>(() => ({
  reference: props.target,
  heights: heights.value,
  geoid: heights.value === 'geoid' ? geoid.value : '',
  operation: operation.value,
  epoch: epoch.value,
}));
const ways = computed(() => usableFirst(preview.value?.candidates ?? []));
/** How heights move, least and most. */
const lift = computed(() => {
  const d = (preview.value?.rows ?? []).filter((r) => r.h !== null && r.newH !== null).map((r) => r.newH! - r.h!);
  if (d.length === 0 || Math.max(...d.map(Math.abs)) < 5e-5) return '';
  return `${length(Math.min(...d), units.value)} to ${length(Math.max(...d), units.value)} ${units.value.length}`;
});
const timed = computed(() => preview.value?.candidates.some((c) => c.epoch !== null) ?? false);

const cell = (key: keyof MovedRow, title: string, width: string): Column<MovedRow> => ({
  key,
  title,
  unit: units.value.length,
  width,
  align: 'right',
  mono: true,
  value: (r) => r[key] as number | null,
  text: (r) => (key.toLowerCase().endsWith('h') ? height : length)(r[key] as number | null, units.value),
});
const columns = computed<Column<MovedRow>[]>(() => [
  { key: 'name', title: 'point', width: 'minmax(52px, 1fr)', value: (r) => r.name },
  cell('e', 'E before', '82px'),
  cell('n', 'N before', '90px'),
  cell('h', 'h before', '62px'),
  { ...cell('newE', 'E after', '82px'), hint: 'after the change' },
  cell('newN', 'N after', '90px'),
  cell('newH', 'h after', '66px'),
]);

const failed = ref('');
const previews = latest();
watch(
  request,
  (r) => {
    preview.value = null;
    failed.value = '';
    void previews.ask(
      () => post<MovePreview>(project.path('/reference/preview'), r),
      (result) => {
        preview.value = result;
        if (result.problem !== '' && result.candidates.some((c) => c.usable)) showWays.value = true;
      },
      (e) => (failed.value = reasonOf(e)),
    );
  },
  { immediate: true },
);

async function change() {
  if (await project.attempt(() => put(project.path('/reference'), request.value), `The project is in ${props.targetName} now.`))
    emit('done');
}
</script>

<template>
  <div class="part">
    <h2>Change to {{ targetName }}</h2>
    <span class="spacer" />
    <ElButton @click="emit('back')">Back</ElButton>
    <ElButton
      type="primary"
      data-test="confirm-change"
      :disabled="!project.mayChange || preview === null || preview.problem !== ''"
      @click="change"
    >
      Change
    </ElButton>
  </div>
  <div v-if="!isPlane" class="choices">
    <ElFormItem class="field" label="heights"
      ><ElSelect v-model="heights" data-test="change-heights">
        <ElOption value="ellipsoidal" label="ellipsoidal" />
        <ElOption value="geoid" :disabled="geoids.length === 0" label="above a geoid" /> </ElSelect
    ></ElFormItem>
    <ElFormItem v-if="heights === 'geoid'" class="field" label="geoid"
      ><ElSelect v-model="geoid">
        <ElOption
          v-for="g in geoids"
          :key="g.reference"
          :value="g.reference"
          :label="`${g.name}${g.coversPoints ? '' : ' (does not cover)'}`"
        /> </ElSelect
    ></ElFormItem>
    <NumberInput v-if="timed" v-model="epoch" label="epoch of the coordinates" unit="year" placeholder="such as 2031.34" />
  </div>
  <ElAlert v-if="failed" type="error" :closable="false">{{ failed }}</ElAlert>
  <p v-else-if="preview === null" class="quiet">Working it out…</p>
  <template v-else>
    <ElAlert v-if="preview.problem" data-test="change-problem" type="error" :closable="false">{{ preview.problem }}</ElAlert>
    <template v-else>
      <p data-test="change-says">
        <strong>{{ preview.moved }} point{{ preview.moved === 1 ? '' : 's' }} follow{{ preview.moved === 1 ? 's' : '' }}</strong
        ><template v-if="preview.localOnly > 0">; {{ preview.localOnly }} known only locally keep their numbers</template>.
        <template v-if="target === project.overview!.reference">Eastings and northings stay.</template>
        <template v-else
          >Way: {{ preview.operation }}{{ preview.accuracy === null ? '' : `, ${Number(preview.accuracy.toPrecision(3))} m` }}.</template
        >
        <template v-if="lift !== ''"> Heights move by {{ lift }}.</template>
      </p>
      <ElAlert v-for="w in preview.warnings" :key="w" type="warning" :closable="false">{{ w }}</ElAlert>
    </template>
    <p v-if="view.system === null && preview.rows.length > 0" class="quiet">
      Nothing says where on the earth a plane project lies, so its points keep their numbers and are marked as known only locally. To bring
      them onto the grid, fit a localization instead.
    </p>
    <p v-if="preview.candidates.length > 1">
      <ElButton link type="primary" @click="showWays = !showWays">
        {{ showWays ? 'Hide the transformations' : `Choose among ${preview.candidates.length} transformations` }}
      </ElButton>
    </p>
    <div v-if="showWays" class="scroll ways">
      <WayList :ways="ways" choosable :chosen="operation ?? preview.operation" @choose="(n) => (operation = n)" />
    </div>
    <FiguresTable
      v-if="preview.rows.length > 0"
      label="points before and after"
      :columns="columns"
      :rows="preview.rows"
      :row-key="(r) => r.name"
      :selected="selected"
      :dim="(r) => r.known === 'local'"
      @select="(k) => (selected = new Set(k))"
    />
    <p v-else-if="!preview.problem" class="quiet">The project has no points; only the statement changes.</p>
  </template>
</template>

<style scoped>
.choices {
  display: flex;
  gap: 12px;
  align-items: flex-start;
}
.choices .field {
  width: 190px;
}
.ways {
  flex: 0 1 220px;
  min-height: 80px;
}
</style>

<script setup lang="ts">
import { computed, type Ref, ref, watch } from 'vue';
import { post, reasonOf } from '../../api/client';
import { latest } from '../../api/latest';
import type { DesignRequest, DesignView, ReferenceView } from '../../api/types';
import AngleInput from '../../fields/AngleInput.vue';
import NumberInput from '../../fields/NumberInput.vue';
import { sayAngle } from '../../format/angles';
import { signed } from '../../format/units';
import type { Scene } from '../../sketch/scene';
import { useProject } from '../../state/project';
import type { Offer } from './ownSystem';

type Corner = Ref<number | null>;

/** A projection laid to the height of the site, proposed by the server and drawn over it in parts per million. */
const props = defineProps<{ view: ReferenceView }>();
const emit = defineEmits<{ offer: [offer: Offer | null]; scene: [scene: Partial<Scene> | null] }>();
const project = useProject();
const geodetic = ref(props.view.system?.geodeticReference || 'EPSG:4258');
const height = ref<number | null>(props.view.meanHeight === null ? null : Math.round(props.view.meanHeight));
const design = ref<DesignView | null>(null);
const designProblem = ref('');
// The corners of a site without points.
const [south, west, north, east] = [0, 1, 2, 3].map(() => ref<number | null>(null)) as [Corner, Corner, Corner, Corner];

const site = computed<DesignRequest>(() => ({
  height: height.value!,
  ...(props.view.extent ? {} : { south: south.value, west: west.value, north: north.value, east: east.value }),
  ...(props.view.system ? {} : { geodetic: geodetic.value }),
}));
const sited = computed(() => props.view.extent !== null || ![south, west, north, east].some((c) => c.value === null));
const designs = latest();
watch(
  site,
  () => {
    design.value = null;
    designProblem.value = '';
    designs.forget();
    emit('scene', null);
    emit('offer', null);
    if (height.value === null || !sited.value) return;
    void designs.ask(
      () => post<DesignView>(project.path('/reference/design'), site.value),
      show,
      (e) => (designProblem.value = reasonOf(e)),
    );
  },
  { immediate: true },
);

function show(view: DesignView) {
  design.value = view;
  emit('offer', { path: '/reference/design', body: { ...site.value } });
  emit('scene', {
    notes: view.samples
      .filter((_, i) => Math.floor(i / 9) % 2 === 0 && (i % 9) % 2 === 0)
      .map((s) => ({
        e: s.e,
        n: s.n,
        text: `${signed(s.ppm.toFixed(1))} ppm`,
        tone: Math.abs(s.ppm) > 20 ? 'bad' : Math.abs(s.ppm) > 5 ? 'doubt' : 'good',
      })),
  });
}
</script>

<template>
  <p class="quiet">
    Grid distances of such a system agree with those on the ground at the site’s height, so that drawings and tapes say the same.
  </p>
  <div class="grid">
    <NumberInput v-model="height" label="ellipsoidal height of the site" unit="m" :digits="1" data-test="own-height" />
  </div>
  <ElAlert v-if="designProblem" type="error" :closable="false">{{ designProblem }}</ElAlert>
  <template v-if="view.extent === null">
    <p class="quiet">No point is known globally yet, so give the corners of the site.</p>
    <div class="grid">
      <AngleInput v-model="south" label="south" kind="lat" data-test="own-south" />
      <AngleInput v-model="north" label="north" kind="lat" data-test="own-north" />
      <AngleInput v-model="west" label="west" kind="lon" data-test="own-west" />
      <AngleInput v-model="east" label="east" kind="lon" data-test="own-east" />
      <ElFormItem v-if="view.system === null" class="field" label="latitudes and longitudes in"
        ><ElInput v-model.lazy="geodetic"
      /></ElFormItem>
    </div>
  </template>
  <template v-if="design">
    <dl data-test="design">
      <dt>proposal</dt>
      <dd>{{ design.method }}</dd>
      <dt>datum</dt>
      <dd>{{ design.datum }}</dd>
      <dt>scale at its axis</dt>
      <dd class="mono">{{ design.scale.toFixed(8) }}</dd>
      <dt>axis</dt>
      <dd>{{ sayAngle(design.originLat, 'lat', 0) }}, {{ sayAngle(design.originLon, 'lon', 0) }}</dd>
      <dt>over the site</dt>
      <dd class="mono">
        {{ signed(design.min.toFixed(2)) }} to {{ signed(design.max.toFixed(2)) }} ppm, mean {{ signed(design.mean.toFixed(2)) }}
      </dd>
      <dt>{{ design.otherMethod }}</dt>
      <dd class="mono quiet">{{ signed(design.otherMin.toFixed(2)) }} to {{ signed(design.otherMax.toFixed(2)) }} ppm</dd>
      <template v-if="design.projectMin !== null && design.projectMax !== null">
        <dt>the project’s system</dt>
        <dd class="mono quiet">{{ signed(design.projectMin.toFixed(1)) }} to {{ signed(design.projectMax.toFixed(1)) }} ppm</dd>
      </template>
    </dl>
  </template>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 8px 12px;
}
dl {
  display: grid;
  grid-template-columns: 170px 1fr;
  gap: 3px 12px;
  margin: 0;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
</style>

<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { post, reasonOf } from '../../api/client';
import { latest } from '../../api/latest';
import type { CustomSystemRequest, ReferenceView, TriedView } from '../../api/types';
import AngleInput from '../../fields/AngleInput.vue';
import FilePick from '../../fields/FilePick.vue';
import NumberInput from '../../fields/NumberInput.vue';
import { angle, length } from '../../format/units';
import { useProject } from '../../state/project';
import type { Offer } from './ownSystem';

/** A system by its method and parameters or from a text, tried with a point one knows before it is kept. */
const props = defineProps<{ view: ReferenceView; how: 'method' | 'text'; name: string }>();
const emit = defineEmits<{ offer: [offer: Offer | null]; named: [name: string] }>();
const project = useProject();
const units = computed(() => project.units);
const definition = ref('');
const method = ref(9807);
const geodetic = ref(props.view.system?.geodeticReference || 'EPSG:4258');
const values = ref<Record<string, number | null>>({ '8805': 1 });
const lat = ref<number | null>(null);
const lon = ref<number | null>(null);
const tried = ref<TriedView | null>(null);
const parameters = computed(() => props.view.methods.find((m) => m.code === method.value)?.parameters ?? []);

const request = computed<CustomSystemRequest>(() => ({
  name: props.name.trim() || 'unnamed',
  definition: props.how === 'text' ? definition.value : '',
  method: method.value,
  geodetic: geodetic.value,
  parameters: Object.fromEntries(
    parameters.value.map((p) => [String(p.code), values.value[String(p.code)]]).filter(([, v]) => v !== null && v !== undefined),
  ) as Record<string, number>,
  lat: lat.value,
  lon: lon.value,
}));

const tries = latest();
watch(
  [request, () => props.how],
  () => {
    tries.forget();
    if (props.how === 'text' && definition.value.trim() === '') {
      tried.value = null;
      return;
    }
    void tries.ask(
      () => post<TriedView>(project.path('/reference/custom/try'), request.value),
      (result) => (tried.value = result),
      (e) => (tried.value = { problem: reasonOf(e), wkt: '' } as TriedView),
    );
  },
  { immediate: true },
);
watch(
  [tried, request],
  () => emit('offer', tried.value !== null && tried.value.wkt !== '' ? { path: '/reference/custom', body: { ...request.value } } : null),
  { immediate: true },
);

async function bring(file: File) {
  if (file.size > 20000) return project.say('bad', `${file.name} is too long to be a definition (20 kB).`);
  definition.value = (await file.text()).trim();
  emit('named', file.name.replace(/\.[^.]+$/, ''));
}

function angleKind(label: string): 'lat' | 'lon' | 'angle' {
  return /latitude/i.test(label) ? 'lat' : /longitude/i.test(label) ? 'lon' : 'angle';
}
</script>

<template>
  <div v-if="how === 'method'" class="grid">
    <ElFormItem class="field wide" label="projection method"
      ><ElSelect v-model="method" data-test="own-method-code">
        <ElOption v-for="m in view.methods" :key="m.code" :value="m.code" :label="m.name" /> </ElSelect
    ></ElFormItem>
    <ElFormItem class="field" label="latitudes and longitudes in"><ElInput v-model.lazy="geodetic" /></ElFormItem>
    <template v-for="p in parameters" :key="`${method} ${p.code}`">
      <AngleInput
        v-if="p.kind === 'angle'"
        :model-value="values[String(p.code)] ?? null"
        @update:model-value="(v) => (values[String(p.code)] = v)"
        :label="p.name.toLowerCase()"
        :kind="angleKind(p.name)"
      />
      <NumberInput
        v-else
        :model-value="values[String(p.code)] ?? null"
        @update:model-value="(v) => (values[String(p.code)] = v)"
        :label="p.name.toLowerCase()"
        :unit="p.kind === 'length' ? 'm' : ''"
        :digits="p.kind === 'length' ? 4 : 10"
      />
    </template>
  </div>
  <div v-else class="field">
    <div class="row">
      <label for="own-definition" class="label">WKT2 or PROJ string</label>
      <span class="spacer" />
      <FilePick
        text="From a file"
        test="own-file"
        accept=".wkt,.wkt2,.prj,.proj,.txt,text/plain"
        @files="([file]) => file && bring(file)"
      />
    </div>
    <ElInput
      id="own-definition"
      v-model="definition"
      type="textarea"
      :rows="7"
      class="mono"
      data-test="own-definition"
      spellcheck="false"
      placeholder="PROJCRS[…] or +proj=tmerc +lat_0=… +lon_0=… +ellps=GRS80"
    />
  </div>
  <section class="check" aria-label="Check with a known point">
    <h2>Check with a known point</h2>
    <div class="grid">
      <AngleInput v-model="lat" label="latitude" kind="lat" :extent="view.extent" id="own-lat" />
      <AngleInput v-model="lon" label="longitude" kind="lon" :extent="view.extent" id="own-lon" />
    </div>
    <ElAlert v-if="tried?.problem" data-test="own-problem" type="warning" :closable="false">{{ tried.problem }}</ElAlert>
    <p v-else-if="tried && tried.e !== null" data-test="own-tried">
      <span class="mono"
        ><strong>E {{ length(tried.e, units, 1) }} N {{ length(tried.n, units, 1) }}</strong> {{ units.length }}</span
      ><span class="quiet">
        · scale {{ tried.scale?.toFixed(8) }} · convergence {{ angle(tried.convergence ?? 0, units) }} · on {{ tried.datum }}</span
      >
    </p>
    <p v-else-if="tried" class="quiet">Read: {{ tried.name }}, on {{ tried.datum }}. Type a latitude and longitude to see the grid.</p>
  </section>
</template>

<style scoped>
div.field > .row {
  display: flex;
}
.grid {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 8px 12px;
}
.wide {
  grid-column: span 2;
}
.text {
  height: 120px;
  padding: 6px 8px;
  text-align: left;
  resize: vertical;
  font-size: 12px;
}
.check {
  display: grid;
  gap: 6px;
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
</style>

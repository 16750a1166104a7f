<script setup lang="ts">
import { ref } from 'vue';
import { put } from '../../api/client';
import type { MaterialView, MaterialsRequest } from '../../api/types';
import { useProject } from '../../state/project';

/** The materials of the project, edited in place. */
const props = defineProps<{ materials: MaterialView[]; capacity: number }>();
const emit = defineEmits<{ done: [] }>();
const project = useProject();
const rows = ref(props.materials.map((m) => ({ ...m })));
const capacity = ref(props.capacity);

function add() {
  rows.value = [...rows.value, { name: '', isNative: true, swell: 1.2, shrink: 0.9, density: 1.8 }];
}
async function save() {
  const request: MaterialsRequest = { materials: rows.value, capacity: capacity.value };
  if (await project.attempt(() => put(project.path('/terrain/materials'), request), 'The materials are kept.')) emit('done');
}
</script>

<template>
  <section class="materials" aria-label="Materials">
    <div class="row head quiet">
      <span>material</span><span>from</span><span>swell</span><span>shrink</span><span>t/m³ bank</span><span />
    </div>
    <div v-for="(m, i) in rows" :key="i" class="row">
      <ElInput v-model="m.name" size="small" :aria-label="`Material ${i + 1}`" />
      <ElSelect v-model="m.isNative" size="small" aria-label="From"
        ><ElOption :value="true" label="the site" /><ElOption :value="false" label="brought in"
      /></ElSelect>
      <ElInputNumber v-model="m.swell" size="small" :controls="false" :min="1" :max="3" :step="0.01" aria-label="Swell" />
      <ElInputNumber v-model="m.shrink" size="small" :controls="false" :min="0.3" :max="1.5" :step="0.01" aria-label="Shrink" />
      <ElInputNumber v-model="m.density" size="small" :controls="false" :min="0.1" :max="10" :step="0.1" aria-label="Density" />
      <ElButton link :disabled="rows.length < 2" @click="rows = rows.filter((_m, k) => k !== i)">take out</ElButton>
    </div>
    <p class="line">
      <ElButton size="small" @click="add">One more</ElButton>
      <span class="quiet">a lorry takes</span>
      <ElInputNumber v-model="capacity" size="small" :controls="false" :min="0.5" :max="200" aria-label="A lorry takes" />
      <span class="quiet">m³ loose</span>
      <span class="spacer" />
      <ElButton type="primary" size="small" data-test="keep-materials" :disabled="!project.mayChange" @click="save">Keep</ElButton>
      <ElButton size="small" @click="emit('done')">Leave it</ElButton>
    </p>
    <p class="quiet">Swell: loose for one in the bank. Shrink: compacted for one in the bank. The sample is invented; put in your own.</p>
  </section>
</template>

<style scoped>
.materials {
  display: grid;
  gap: 5px;
}
.row {
  display: grid;
  grid-template-columns: 1fr 104px 66px 66px 76px 60px;
  gap: 6px;
  align-items: center;
}
.row .el-input-number {
  width: 100%;
}
.line {
  display: flex;
  gap: 8px;
  align-items: center;
}
.line .el-input-number {
  width: 70px;
}
.line .el-button + .el-button,
p {
  margin: 0;
}
</style>

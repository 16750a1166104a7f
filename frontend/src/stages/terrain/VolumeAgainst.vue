<script setup lang="ts">
import { computed, ref } from 'vue';
import { post } from '../../api/client';
import type { SurfaceView, VolumeRequest } from '../../api/types';
import { area, fromDisplayLength, length, volume } from '../../format/units';
import { useProject } from '../../state/project';

const props = defineProps<{ surface: SurfaceView }>();
const project = useProject();
const units = computed(() => project.units);
const elevation = ref('');

async function compare() {
  const value = Number(elevation.value.replace(',', '.'));
  if (elevation.value.trim() === '' || !Number.isFinite(value)) {
    project.say('bad', 'Type an elevation, such as 225.0.');
    return;
  }
  await project.attempt(() =>
    post(project.path(`/terrain/surfaces/${props.surface.id}/volume`), {
      elevation: fromDisplayLength(value, units.value),
    } satisfies VolumeRequest),
  );
}
</script>

<template>
  <section class="volume" aria-label="Volume against an elevation">
    <ElFormItem class="field" :label="`volume against elevation ${units.length}`"
      ><ElInput
        v-model="elevation"
        class="mono"
        inputmode="decimal"
        data-test="elevation"
        :placeholder="surface.volume ? length(surface.volume.elevation, units) : 'such as 225.0'"
        @keydown.enter="compare"
    /></ElFormItem>
    <ElButton type="primary" plain data-test="volume" :disabled="!project.mayChange || !surface.computed" @click="compare"
      >Compute</ElButton
    >
    <template v-if="surface.volume">
      <div class="fact">
        <span class="label">above {{ length(surface.volume.elevation, units) }}, cut</span
        ><strong class="mono">{{ volume(surface.volume.cut, units) }}</strong
        ><span class="quiet">over {{ area(surface.volume.areaCut, units) }}</span>
      </div>
      <div class="fact">
        <span class="label">below, fill</span><strong class="mono">{{ volume(surface.volume.fill, units) }}</strong
        ><span class="quiet">over {{ area(surface.volume.areaFill, units) }}</span>
      </div>
      <div class="fact">
        <span class="label">net</span><strong class="mono">{{ volume(surface.volume.net, units) }}</strong
        ><span v-if="surface.volume.stale.length > 0" class="doubt">◐ stale</span>
      </div>
    </template>
  </section>
</template>

<style scoped>
.volume {
  display: flex;
  gap: 10px 16px;
  align-items: flex-end;
  flex-wrap: wrap;
}
.volume .field {
  width: 168px;
}
.fact {
  display: grid;
}
.fact .quiet,
.fact .doubt {
  font-size: 11.5px;
}
</style>

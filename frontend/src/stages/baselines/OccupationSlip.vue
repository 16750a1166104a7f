<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { put } from '../../api/client';
import type { Conflict } from '../../api/conflict';
import type { OccupationRequest, OccupationView } from '../../api/types';
import NumberInput from '../../fields/NumberInput.vue';
import { length, lengthUnit, metresPer } from '../../format/units';
import ConflictSheet from '../../frame/ConflictSheet.vue';
import Slip from '../../frame/Slip.vue';
import { useProject } from '../../state/project';
import { clock, clocks, type Zone } from './times';

/** One occupation: its marker, antenna and height, and how the height is reduced. */
const props = defineProps<{ occupation: OccupationView; zone: Zone; leap: number }>();
const project = useProject();
const units = computed(() => project.units);
const marker = ref('');
const antenna = ref('');
const kind = ref('vertical');
const value = ref<number | null>(0);
const radius = ref<number | null>(0);
const above = ref<number | null>(0);
const moves = ref(false);
const conflict = ref<Conflict | null>(null);

watch(
  () => [props.occupation.id, props.occupation.version],
  () => {
    const o = props.occupation;
    [marker.value, antenna.value, kind.value] = [o.marker, o.antenna, o.heightKind];
    moves.value = o.moves;
    [value.value, radius.value, above.value] = [o.heightValue, o.heightRadius, o.heightAbove];
    conflict.value = null;
  },
  { immediate: true },
);

/** The height as it is being typed, reduced. */
const reduced = computed(() => {
  const up = kind.value === 'slant' ? Math.sqrt((value.value ?? NaN) ** 2 - (radius.value ?? 0) ** 2) : (value.value ?? NaN);
  return up - (above.value ?? 0);
});
const words = computed(() =>
  Number.isFinite(reduced.value)
    ? kind.value === 'slant'
      ? `√(slant² − radius²)${above.value ? ' − offset' : ''} = ${length(reduced.value, units.value, 1)} ${lengthUnit(units.value)} to the reference point`
      : `${length(reduced.value, units.value, 1)} ${lengthUnit(units.value)} to the reference point`
    : 'A slant height is longer than the radius.',
);

function request(): OccupationRequest {
  return {
    marker: marker.value,
    heightKind: kind.value,
    heightValue: value.value ?? 0,
    heightRadius: radius.value ?? 0,
    heightAbove: above.value ?? 0,
    antenna: antenna.value,
    trimFrom: props.occupation.trimFrom,
    trimTo: props.occupation.trimTo,
    moves: moves.value,
  };
}

async function save(body: OccupationRequest = request(), version: number | string = props.occupation.version) {
  await project.attempt(
    () => put(project.path(`/baselines/occupations/${props.occupation.id}`), body, version),
    '',
    (theirs) => (conflict.value = theirs),
  );
}
const mean = (name: string) => save({ ...request(), marker: name });
const fields = {
  marker: 'marker',
  antenna: 'antenna',
  heightKind: 'height is',
  heightValue: 'height m',
  heightRadius: 'radius m',
  heightAbove: 'above m',
};
const shownFields = computed(() => Object.entries(fields).map(([key, label]) => ({ key, label, text: (v: unknown) => String(v ?? '') })));
</script>

<template>
  <Slip :tone="occupation.question ? 'doubt' : 'plain'">
    <div>
      <strong class="mono">{{ occupation.marker || 'no marker' }}</strong>
      <span class="quiet">{{ occupation.file }}, {{ occupation.receiver || 'receiver not named' }}</span>
    </div>
    <p class="quiet">{{ clocks(occupation.from, zone, leap) }}, {{ occupation.epochs }} epochs to {{ clock(occupation.to, zone, leap) }}</p>
    <p v-if="occupation.question" class="doubt">
      {{ occupation.question }}
      <ElButton
        v-if="occupation.suggested"
        size="small"
        data-test="take-marker"
        :disabled="!project.mayChange"
        @click="mean(occupation.suggested)"
        >It is {{ occupation.suggested }}</ElButton
      >
    </p>
    <ConflictSheet
      v-if="conflict"
      :what="`Occupation ${occupation.marker}`"
      :conflict="conflict"
      :fields="shownFields"
      :mine="{ ...request() }"
      @theirs="conflict = null"
      @save="(values, version) => save({ ...request(), ...(values as Partial<OccupationRequest>) }, version)"
    />
    <form v-else class="fields" @submit.prevent="save()">
      <ElFormItem label="marker"><ElInput v-model="marker" class="mono" maxlength="60" aria-label="Marker" /></ElFormItem>
      <ElFormItem label="antenna"><ElInput v-model="antenna" maxlength="60" aria-label="Antenna" /></ElFormItem>
      <ElFormItem label="height was measured"
        ><ElSelect v-model="kind" aria-label="Height was measured">
          <ElOption value="vertical" label="vertical" /><ElOption value="slant" label="slant, to an edge" /></ElSelect
      ></ElFormItem>
      <NumberInput
        v-model="value"
        :label="kind === 'slant' ? 'slant' : 'height'"
        :unit="lengthUnit(units)"
        :factor="metresPer(units)"
        :digits="4"
      />
      <NumberInput
        v-if="kind === 'slant'"
        v-model="radius"
        label="radius of the edge"
        :unit="lengthUnit(units)"
        :factor="metresPer(units)"
        :digits="4"
      />
      <NumberInput v-model="above" label="edge above reference point" :unit="lengthUnit(units)" :factor="metresPer(units)" :digits="4" />
    </form>
    <div v-if="!conflict" class="line">
      <ElCheckbox v-model="moves" data-test="moves">the receiver moved</ElCheckbox>
      <span class="mono">{{ words }}</span><span class="spacer" />
      <ElButton type="primary" data-test="save-occupation" :disabled="!project.mayChange || marker.trim() === ''" @click="save()"
        >Keep</ElButton
      >
    </div>
  </Slip>
</template>

<style scoped>
p {
  margin: 0;
}
.fields {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 4px 12px;
}
.line {
  display: flex;
  align-items: center;
  gap: 8px;
}
</style>

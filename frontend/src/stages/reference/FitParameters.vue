<script setup lang="ts">
import { computed } from 'vue';
import type { FitView } from '../../api/types';
import AngleInput from '../../fields/AngleInput.vue';
import NumberInput from '../../fields/NumberInput.vue';
import { angle, length, metresPer, signed, small, smallAngle, smallUnit } from '../../format/units';
import { useProject } from '../../state/project';
import type { FitChoices } from './choices';

/** The parameters of a localization: fitted values with their precision, and what is held instead. */
const props = defineProps<{ fit: FitView | null }>();
const choices = defineModel<FitChoices>({ required: true });
const project = useProject();
const units = computed(() => project.units);

const sd = (key: string, text: (v: number) => string) => {
  const v = props.fit?.sd[key];
  return v === null || v === undefined ? '' : `± ${text(v)}`;
};
</script>

<template>
  <table data-test="parameters">
    <thead>
      <tr>
        <th>parameter</th>
        <th>fitted</th>
        <th>sd</th>
        <th>hold</th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="[key, label] in [
          ['shiftE', 'shift east at the centre'],
          ['shiftN', 'shift north at the centre'],
        ] as const"
        :key="key"
      >
        <td>{{ label }}</td>
        <td class="mono">{{ length(fit?.values[key], units, 1) }}</td>
        <td class="mono quiet">{{ sd(key, (v) => `${small(v, units)} ${smallUnit(units)}`) }}</td>
        <td>
          <ElCheckbox v-model="choices.hold[key]" :aria-label="`Hold the ${label}`">at</ElCheckbox
          ><NumberInput v-if="choices.hold[key]" v-model="choices.held[key]" label="" :unit="units.length" :factor="metresPer(units)" />
        </td>
      </tr>
      <tr>
        <td>rotation</td>
        <td class="mono">{{ fit ? angle(fit.values.rotation, units) : '' }}</td>
        <td class="mono quiet">{{ sd('rotation', (v) => smallAngle(v, units)) }}</td>
        <td>
          <ElCheckbox v-model="choices.hold.rotation" aria-label="Hold the rotation">at</ElCheckbox
          ><AngleInput v-if="choices.hold.rotation" v-model="choices.held.rotation" label="" kind="angle" />
        </td>
      </tr>
      <tr>
        <td>scale</td>
        <td class="mono">
          {{ fit?.values.scale.toFixed(8) }}
          <span v-if="fit" class="quiet">({{ signed((1e6 * (fit.values.scale - 1)).toFixed(1)) }} ppm)</span>
        </td>
        <td class="mono quiet">{{ sd('scale', (v) => `${(1e6 * v).toFixed(1)} ppm`) }}</td>
        <td>
          <ElCheckbox v-model="choices.hold.scale" data-test="hold-scale" aria-label="Hold the scale">at</ElCheckbox
          ><NumberInput v-if="choices.hold.scale" v-model="choices.held.scale" label="" :digits="10" />
        </td>
      </tr>
      <tr>
        <td>heights</td>
        <td class="mono" colspan="2">
          <template v-if="fit && choices.vertical !== 'none'"
            >{{ length(fit.values.a, units, 1) }} {{ units.length
            }}<span v-if="choices.vertical === 'plane'">
              · tilt {{ signed((1e6 * fit.values.b).toFixed(1)) }} E, {{ signed((1e6 * fit.values.c).toFixed(1)) }} N ppm</span
            ></template
          >
        </td>
        <td>
          <ElSelect v-model="choices.vertical" class="inline" data-test="vertical" aria-label="Vertical part">
            <ElOption value="none" label="left alone" />
            <ElOption value="shift" label="shift" />
            <ElOption value="plane" label="tilted plane" />
          </ElSelect>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 400;
  font-size: 11.5px;
  color: var(--ink-soft);
}
td {
  padding: 2px 12px 2px 0;
  border-top: 1px solid var(--rule);
  vertical-align: top;
}
.inline {
  width: 150px;
}
</style>

<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue';
import NumberInput from '../../fields/NumberInput.vue';
import { group, height, length, lengthUnit, metresPer } from '../../format/units';
import { type Strip, stripOf } from '../../sketch/cloudStrip';
import { useProject } from '../../state/project';
import { nearestOf } from './passes';
import SectionPlot from './SectionPlot.vue';

/** A strip of a cloud along a line that was drawn on the map, seen from the side. */
const props = defineProps<{ url: string; name: string; line: [number, number][] }>();
const project = useProject();
const units = computed(() => project.units);
const width = ref<number | null>(1);
const strip = shallowRef<Strip | null>(null);
const at = shallowRef<[number, number] | null>(null);
const section = computed(() =>
  strip.value
    ? {
        ends: [0, 0, 1, 0] as [number, number, number, number],
        pass: [strip.value.along, strip.value.h] as [number[], number[]],
        reference: [[], []] as [number[], number[]],
      }
    : null,
);
let asked = 0;
async function cut() {
  const mine = ++asked;
  [strip.value, at.value] = [null, null];
  const answer = await stripOf(props.url, props.line, 0.5 * (width.value ?? 1));
  if (mine === asked) strip.value = answer;
}
watch([() => props.url, () => props.line, width], cut, { immediate: true });
</script>

<template>
  <div class="strip">
    <div class="top">
      <NumberInput
        id="strip-width"
        v-model="width"
        label="width of the strip"
        :unit="lengthUnit(units)"
        :factor="metresPer(units)"
        class="width"
      />
      <p data-test="strip-words" :class="{ doubt: strip?.h.length === 0 }">
        {{
          !strip
            ? 'Reading the points along the line …'
            : strip.h.length === 0
              ? 'No point lies along this line.'
              : `${group(String(strip.h.length))} points${strip.isSome ? ', some of those there are' : ''}; looked at from the right of the line as it was drawn.`
        }}
        <span v-if="at" class="mono" data-test="strip-at">
          {{ length(at[0], units) }} along, height {{ height(at[1], units) }} {{ lengthUnit(units) }}</span
        >
      </p>
    </div>
    <SectionPlot
      :section="section"
      :pass="name"
      reference=""
      :picked="at ? [at] : []"
      across="along the line"
      @at="(p) => (at = section ? nearestOf(section.pass, p) : null)"
    />
  </div>
</template>

<style scoped>
.strip {
  position: absolute;
  inset: 48px 14px 12px;
  display: grid;
  grid-template-rows: auto 1fr;
  gap: 6px;
}
.top {
  display: flex;
  gap: 18px;
  align-items: end;
}
.width {
  width: 150px;
}
p {
  margin: 0 0 8px;
}
</style>

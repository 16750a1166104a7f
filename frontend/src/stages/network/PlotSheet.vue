<script setup lang="ts">
import { computed, ref } from 'vue';
import type { RowView, StationView } from '../../api/types';
import { ScatterPlot } from '../../figures';
import { dots, type Against } from './plots';

/** Standardized residuals against what could be behind them. */
const props = defineProps<{ rows: RowView[]; stations: StationView[] }>();
const emit = defineEmits<{ select: [key: string] }>();
const against = ref<Against>('normal');
const kind = ref('');
const kinds = computed(() => [...new Set(props.rows.map((r) => r.kind))]);
const shown = computed(() => dots(props.rows, props.stations, against.value, kind.value));
const NAMES: Record<Against, string> = {
  normal: 'expected of a normal distribution',
  length: 'length of the sight, m',
  zenith: 'zenith angle, degrees',
  time: 'time',
};
</script>

<template>
  <section class="plots">
    <div class="tools">
      <ElRadioGroup v-model="against" size="small" aria-label="Plotted against">
        <ElRadioButton value="normal">normal</ElRadioButton><ElRadioButton value="length">length</ElRadioButton
        ><ElRadioButton value="zenith">zenith angle</ElRadioButton><ElRadioButton value="time">time</ElRadioButton>
      </ElRadioGroup>
      <ElSelect v-model="kind" size="small" class="kind" aria-label="Kind of observation">
        <ElOption value="" label="every kind" /><ElOption v-for="k in kinds" :key="k" :value="k" :label="k.replace('-', ' ')" />
      </ElSelect>
    </div>
    <ScatterPlot
      v-if="shown.length > 0"
      :key="against"
      :dots="shown"
      :x-name="NAMES[against]"
      y-name="standardized residual"
      :time="against === 'time'"
      :diagonal="against === 'normal'"
      @select="(k) => emit('select', k)"
    />
    <p v-else class="quiet">
      {{ against === 'time' ? 'The files of this project do not say when these were measured.' : 'None of these has that quantity.' }}
    </p>
    <p class="quiet">
      {{
        against === 'normal'
          ? 'On the line, residuals are as chance makes them; ends that bend away are blunders, a steeper line is too small a precision.'
          : 'A drift or a fan here is a cause that the model does not hold: refraction, scale, a precision that depends on length.'
      }}
    </p>
  </section>
</template>

<style scoped>
.plots {
  display: flex;
  flex-direction: column;
  gap: 8px;
  flex: 1;
  min-height: 0;
}
.tools {
  display: flex;
  gap: 8px;
}
.kind {
  width: 150px;
}
p {
  margin: 0;
}
</style>

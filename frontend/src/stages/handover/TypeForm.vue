<script setup lang="ts">
import { computed } from 'vue';
import FixedInput from '../../fields/FixedInput.vue';
import NumberInput from '../../fields/NumberInput.vue';
import { correctedCode, newAttribute, type FeatureType } from './catalogue';

/** A type of feature: its code, how it is drawn and collected, and what is asked of it. */
const type = defineModel<FeatureType>({ required: true });
const offered = computed(() => {
  const corrected = correctedCode(type.value.code);
  return corrected !== type.value.code && corrected !== '' ? corrected : '';
});
const KINDS = ['choice', 'number', 'text', 'date', 'time', 'photo', 'file'];
</script>

<template>
  <div class="type">
    <div class="line">
      <ElFormItem label="Code"
        ><ElInput v-model="type.code" maxlength="40" aria-label="Code of the type" data-test="type-code"
      /></ElFormItem>
      <ElFormItem label="called, for people"
        ><ElInput v-model="type.alias" maxlength="80" aria-label="Alias" data-test="type-alias"
      /></ElFormItem>
      <ElFormItem label="is a"
        ><ElRadioGroup v-model="type.kind" aria-label="Kind of the type"
          ><ElRadioButton v-for="k in ['point', 'line', 'area']" :key="k" :value="k">{{ k }}</ElRadioButton></ElRadioGroup
        ></ElFormItem
      >
    </div>
    <p v-if="offered" class="doubt">
      Blanks and signs get lost elsewhere.
      <ElButton size="small" data-test="take-code" @click="type.code = offered">Take {{ offered }}</ElButton>
    </p>
    <div class="line">
      <ElFormItem v-if="type.kind === 'point'" label="symbol"
        ><ElSelect v-model="type.symbol" aria-label="Symbol"
          ><ElOption v-for="s in ['dot', 'circle', 'square', 'triangle', 'cross']" :key="s" :value="s" :label="s" /></ElSelect
      ></ElFormItem>
      <ElFormItem v-else label="line"
        ><ElSelect v-model="type.style" aria-label="Line style"
          ><ElOption v-for="s in ['solid', 'dashed', 'dotted']" :key="s" :value="s" :label="s" /></ElSelect
      ></ElFormItem>
      <ElFormItem label="colour"><ElColorPicker v-model="type.colour" size="small" aria-label="Colour" /></ElFormItem>
      <FixedInput v-model="type.positions" label="positions at least" :digits="0" data-test="type-positions" />
      <ElFormItem label="solution"
        ><ElSelect v-model="type.solution" aria-label="Solution"
          ><ElOption v-for="s in ['any', 'code', 'carrier']" :key="s" :value="s" :label="s" /></ElSelect
      ></ElFormItem>
      <FixedInput v-model="type.accuracy" label="known to" unit="m" :digits="3" />
      <template v-if="type.kind !== 'point'">
        <ElFormItem label="logged by"
          ><ElSelect v-model="type.logging" aria-label="Logged by"
            ><ElOption value="none" label="hand" /><ElOption value="time" label="time" /><ElOption
              value="distance"
              label="distance" /></ElSelect
        ></ElFormItem>
        <FixedInput v-if="type.logging !== 'none'" v-model="type.every" label="every" :unit="type.logging === 'time' ? 's' : 'm'" />
      </template>
    </div>
    <fieldset v-for="(a, i) in type.attributes" :key="i">
      <div class="line">
        <ElFormItem label="Attribute"><ElInput v-model="a.name" maxlength="60" :aria-label="`Name of attribute ${i + 1}`" /></ElFormItem>
        <ElFormItem label="is a"
          ><ElSelect v-model="a.kind" :aria-label="`Kind of attribute ${i + 1}`"
            ><ElOption v-for="k in KINDS" :key="k" :value="k" :label="k" /></ElSelect
        ></ElFormItem>
        <ElCheckbox v-model="a.required">must be said</ElCheckbox>
        <span class="spacer" />
        <ElButton size="small" text @click="type.attributes.splice(i, 1)">take it away</ElButton>
      </div>
      <div v-if="a.kind === 'choice'" class="line wide">
        <ElFormItem label="of"
          ><ElSelect
            v-model="a.options"
            multiple
            filterable
            allow-create
            default-first-option
            placeholder="type each, then Enter"
            :aria-label="`Choices of attribute ${i + 1}`"
        /></ElFormItem>
        <ElFormItem label="usually"
          ><ElSelect v-model="a.default" clearable placeholder="nothing" :aria-label="`Default of attribute ${i + 1}`"
            ><ElOption v-for="o in a.options" :key="o" :value="o" :label="o" /></ElSelect
        ></ElFormItem>
      </div>
      <div v-else-if="a.kind === 'number'" class="line">
        <NumberInput v-model="a.least" label="from" /><NumberInput v-model="a.most" label="to" /><NumberInput
          v-model="a.number"
          label="usually"
        />
        <FixedInput v-model="a.decimals" label="decimals" :digits="0" />
        <ElFormItem label="unit"><ElInput v-model="a.unit" maxlength="20" :aria-label="`Unit of attribute ${i + 1}`" /></ElFormItem>
      </div>
      <div v-else-if="a.kind === 'text'" class="line">
        <FixedInput v-model="a.length" label="letters at most" :digits="0" />
        <ElFormItem label="usually"><ElInput v-model="a.default" :aria-label="`Usual text of attribute ${i + 1}`" /></ElFormItem>
      </div>
      <ElCheckbox v-else-if="a.kind === 'date' || a.kind === 'time'" v-model="a.isFilled">filled by itself</ElCheckbox>
    </fieldset>
    <div><ElButton size="small" data-test="add-attribute" @click="type.attributes.push(newAttribute())">Another attribute</ElButton></div>
  </div>
</template>

<style scoped>
.type {
  display: grid;
  gap: 6px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: flex-end;
}
.line > :deep(.el-form-item) {
  margin-bottom: 0;
  min-width: 90px;
}
.line > :deep(.field) {
  width: 100px;
}
.wide > :deep(.el-form-item) {
  flex: 1;
}
fieldset {
  border: 1px solid var(--rule);
  margin: 0;
  padding: 4px 10px 6px;
}
</style>

<script setup lang="ts">
import { computed, ref } from 'vue';
import type { SavedViewView, SheetsView, ViewRequest } from '../../api/types';
import AskForm from '../../fields/AskForm.vue';
import NumberInput from '../../fields/NumberInput.vue';

/** What a view of a drawing shows, and what of it does not print. */
const props = defineProps<{ choices: SheetsView; kept: SavedViewView | null }>();
const emit = defineEmits<{ save: [request: ViewRequest]; cancel: [] }>();
const k = props.kept;
const layerKey = (l: { file: number; layer: string }) => `${l.file} ${l.layer}`;
const name = ref(k?.name ?? '');
const roles = ref<string[]>(k?.roles ?? props.choices.roles.filter((r) => r.role !== 'surveyed').map((r) => r.role));
const codes = ref<string[]>(k?.codes ?? []);
const names = ref(k?.names ?? true);
const heights = ref(k?.heights ?? false);
const text = ref<number | null>(k?.text ?? 1.8);
const shown = ref<Record<number, string[]>>(
  Object.fromEntries(
    props.choices.surfaces.map((s) => {
      const of = k?.surfaces.find((x) => x.id === s.id);
      return [s.id, k ? [...(of?.contours ? ['contours'] : []), ...(of?.lines ? ['lines'] : [])] : ['contours', 'lines']];
    }),
  ),
);
const colours = ref<Record<string, string>>(
  Object.fromEntries(
    props.choices.layers.map((l, i) => [
      layerKey(l),
      k ? (k.layers.find((x) => layerKey(x) === layerKey(l))?.colour ?? '') : props.choices.colours[i % props.choices.colours.length]!.name,
    ]),
  ),
);
const silent = ref(new Set(k?.screenOnly ?? []));
const css = computed(() => Object.fromEntries(props.choices.colours.map((c) => [c.name, c.css])));
const missing = computed(() =>
  name.value.trim() === ''
    ? 'It needs a name.'
    : roles.value.length + Object.values(shown.value).flat().length + Object.values(colours.value).filter(Boolean).length === 0
      ? 'Nothing is chosen yet.'
      : '',
);

function prints(layer: string, on: boolean) {
  const now = new Set(silent.value);
  if (on) now.delete(layer);
  else now.add(layer);
  silent.value = now;
}
function save() {
  emit('save', {
    name: name.value.trim(),
    roles: roles.value,
    codes: codes.value,
    names: names.value,
    heights: heights.value,
    surfaces: props.choices.surfaces
      .map((s) => ({ id: s.id, contours: shown.value[s.id]!.includes('contours'), lines: shown.value[s.id]!.includes('lines') }))
      .filter((s) => s.contours || s.lines),
    layers: props.choices.layers
      .filter((l) => colours.value[layerKey(l)] !== '')
      .map((l) => ({ file: l.file, layer: l.layer, colour: colours.value[layerKey(l)]!, width: 0.25 })),
    screenOnly: [...silent.value],
    text: text.value ?? 1.8,
  });
}
</script>

<template>
  <AskForm
    :title="k ? `View ${k.name}` : 'A new view'"
    button="Keep the view"
    :missing="missing"
    test="save-view"
    @save="save"
    @cancel="emit('cancel')"
  >
    <ElFormItem label="Name"><ElInput v-model="name" maxlength="80" data-test="view-name" aria-label="Name of the view" /></ElFormItem>
    <ElFormItem label="Points">
      <ElCheckboxGroup v-model="roles" aria-label="Points">
        <ElCheckbox v-for="r in choices.roles" :key="r.role" :value="r.role"
          >{{ r.role }} <span class="quiet">{{ r.points }}</span></ElCheckbox
        >
      </ElCheckboxGroup>
    </ElFormItem>
    <div class="grid">
      <ElFormItem v-if="roles.length > 0" label="of these, with a code">
        <ElSelect v-model="codes" multiple collapse-tags :max-collapse-tags="3" placeholder="all codes" aria-label="Codes">
          <ElOption v-for="c in choices.codes" :key="c" :value="c" :label="c === '' ? 'no code' : c" />
        </ElSelect>
      </ElFormItem>
      <NumberInput v-model="text" label="Height of words" unit="mm" :digits="1" />
    </div>
    <div>
      <ElCheckbox v-model="names">names</ElCheckbox><ElCheckbox v-model="heights">heights</ElCheckbox>
      <ElCheckbox :model-value="!silent.has('names')" @change="(on) => prints('names', !!on)">names print</ElCheckbox>
    </div>
    <ElFormItem v-if="choices.surfaces.length > 0" label="Surfaces">
      <div class="rows">
        <template v-for="s in choices.surfaces" :key="s.id">
          <b>{{ s.name }}</b>
          <ElCheckboxGroup v-model="shown[s.id]" :aria-label="s.name">
            <ElCheckbox value="contours">contours</ElCheckbox><ElCheckbox value="lines">lines</ElCheckbox>
          </ElCheckboxGroup>
          <span />
        </template>
      </div>
    </ElFormItem>
    <ElFormItem v-if="choices.layers.length > 0" label="Lines of drawings, by layer">
      <div class="rows">
        <template v-for="l in choices.layers" :key="layerKey(l)">
          <span
            ><b>{{ l.layer }}</b> <span class="quiet">{{ l.fileName }}</span></span
          >
          <ElSelect v-model="colours[layerKey(l)]" size="small" :aria-label="`Colour of ${l.layer}`">
            <template #prefix><i class="swatch" :style="{ background: css[colours[layerKey(l)] ?? ''] ?? 'transparent' }" /></template>
            <ElOption value="" label="left out" />
            <ElOption v-for="c in choices.colours" :key="c.name" :value="c.name" :label="c.name"
              ><i class="swatch" :style="{ background: c.css }" />{{ c.name }}</ElOption
            >
          </ElSelect>
          <ElCheckbox :model-value="!silent.has(l.layer)" :disabled="!colours[layerKey(l)]" @change="(on) => prints(l.layer, !!on)"
            >prints</ElCheckbox
          >
        </template>
      </div>
    </ElFormItem>
  </AskForm>
</template>

<style scoped>
.rows {
  width: 100%;
  display: grid;
  grid-template-columns: 1fr 170px 80px;
  gap: 2px 12px;
  align-items: center;
}
.swatch {
  display: inline-block;
  width: 16px;
  height: 4px;
  margin-right: 8px;
}
</style>

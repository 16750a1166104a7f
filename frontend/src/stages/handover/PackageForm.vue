<script setup lang="ts">
import { computed, ref } from 'vue';
import type { PackageRequest, PackagesView, PackageView } from '../../api/types';
import AskForm from '../../fields/AskForm.vue';
import { length, lengthUnit } from '../../format/units';
import { useProject } from '../../state/project';

/** What is chosen for a package. */
const props = defineProps<{ choices: PackagesView; kept: PackageView | null }>();
const emit = defineEmits<{ save: [request: PackageRequest]; cancel: [] }>();
const project = useProject();
const units = computed(() => project.units);
const k = props.kept;
const layerKey = (l: { file: number; layer: string }) => `${l.file} ${l.layer}`;
const alignmentKey = (a: { file: number; name: string }) => `${a.file} ${a.name}`;
const name = ref(k?.name ?? '');
const surfaces = ref<number[]>(k?.surfaces ?? props.choices.surfaces.map((s) => s.id));
const roles = ref<string[]>(k?.roles ?? props.choices.roles.filter((r) => r.role !== 'surveyed').map((r) => r.role));
const codes = ref<string[]>(k?.codes ?? []);
const alignments = ref<string[]>(k ? k.alignments.map(alignmentKey) : props.choices.alignments.map(alignmentKey));
const localization = ref(k?.localization ?? 0);
const geoid = ref(k?.geoid ?? 0);
/** Colour of each layer; empty where it is left out. */
const colours = ref<Record<string, string>>(
  Object.fromEntries(
    props.choices.layers.map((l, i) => [
      layerKey(l),
      k ? (k.layers.find((x) => layerKey(x) === layerKey(l))?.colour ?? '') : props.choices.colours[i % props.choices.colours.length]!.name,
    ]),
  ),
);
const css = computed(() => Object.fromEntries(props.choices.colours.map((c) => [c.name, c.css])));

const missing = computed(() => {
  if (name.value.trim() === '') return 'It needs a name.';
  const lines = Object.values(colours.value).some((c) => c !== '' && c !== 'background');
  return surfaces.value.length + roles.value.length + alignments.value.length > 0 || lines ? '' : 'Nothing is chosen yet.';
});

function save() {
  emit('save', {
    name: name.value.trim(),
    surfaces: surfaces.value,
    roles: roles.value,
    codes: codes.value,
    layers: props.choices.layers
      .filter((l) => colours.value[layerKey(l)] !== '')
      .map((l) => ({ file: l.file, layer: l.layer, colour: colours.value[layerKey(l)]! })),
    alignments: props.choices.alignments
      .filter((a) => alignments.value.includes(alignmentKey(a)))
      .map((a) => ({ file: a.file, name: a.name })),
    localization: localization.value,
    geoid: geoid.value,
  });
}
</script>

<template>
  <AskForm
    :title="k ? `Package ${k.name}` : 'A new package'"
    button="Keep and write it"
    :missing="missing"
    test="save-package"
    @save="save"
    @cancel="emit('cancel')"
  >
    <ElFormItem label="Name"
      ><ElInput v-model="name" maxlength="80" data-test="package-name" aria-label="Name of the package"
    /></ElFormItem>
    <ElFormItem label="Surfaces, that the controller changes between">
      <ElCheckboxGroup v-if="choices.surfaces.length > 0" v-model="surfaces" aria-label="Surfaces">
        <ElCheckbox v-for="s in choices.surfaces" :key="s.id" :value="s.id">{{ s.name }}</ElCheckbox>
      </ElCheckboxGroup>
      <span v-else class="quiet">No surface is computed yet; Terrain makes them, of points or of a design.</span>
    </ElFormItem>
    <ElFormItem label="Points">
      <ElCheckboxGroup v-model="roles" aria-label="Points">
        <ElCheckbox v-for="r in choices.roles" :key="r.role" :value="r.role"
          >{{ r.role }} <span class="quiet">{{ r.points }}</span></ElCheckbox
        >
      </ElCheckboxGroup>
    </ElFormItem>
    <ElFormItem v-if="roles.length > 0" label="of these, with a code">
      <ElSelect v-model="codes" multiple collapse-tags :max-collapse-tags="6" placeholder="all codes" aria-label="Codes">
        <ElOption v-for="c in choices.codes" :key="c" :value="c" :label="c === '' ? 'no code' : c" />
      </ElSelect>
    </ElFormItem>
    <ElFormItem label="Lines of drawings, by layer">
      <div v-if="choices.layers.length > 0" class="layers">
        <template v-for="l in choices.layers" :key="layerKey(l)">
          <span
            ><b>{{ l.layer }}</b> <span class="quiet">{{ l.lines }} {{ l.lines === 1 ? 'line' : 'lines' }} of {{ l.fileName }}</span></span
          >
          <ElSelect v-model="colours[layerKey(l)]" size="small" :aria-label="`Colour of ${l.layer}`">
            <template #prefix><i class="swatch" :style="{ background: css[colours[layerKey(l)] ?? ''] ?? 'transparent' }" /></template>
            <ElOption value="" label="left out" />
            <ElOption v-for="c in choices.colours" :key="c.name" :value="c.name" :label="c.name"
              ><i class="swatch" :style="{ background: c.css }" />{{ c.name }}</ElOption
            >
            <ElOption value="background" label="background" />
          </ElSelect>
        </template>
      </div>
      <span v-else class="quiet">No drawing with lines yet; bring a DXF in.</span>
    </ElFormItem>
    <ElFormItem v-if="choices.alignments.length > 0" label="Alignments">
      <ElCheckboxGroup v-model="alignments" aria-label="Alignments">
        <ElCheckbox v-for="a in choices.alignments" :key="alignmentKey(a)" :value="alignmentKey(a)"
          >{{ a.name }} <span class="quiet">{{ length(a.length, units) }} {{ lengthUnit(units) }}</span></ElCheckbox
        >
      </ElCheckboxGroup>
    </ElFormItem>
    <div class="grid">
      <ElFormItem label="Localization to a site grid">
        <ElSelect v-model="localization" aria-label="Localization">
          <ElOption :value="0" label="none" /><ElOption v-for="l in choices.localizations" :key="l.id" :value="l.id" :label="l.name" />
        </ElSelect>
      </ElFormItem>
      <ElFormItem label="Geoid about the site">
        <ElSelect v-model="geoid" aria-label="Geoid">
          <ElOption :value="0" label="none" /><ElOption v-for="g in choices.geoids" :key="g.id" :value="g.id" :label="g.name" />
        </ElSelect>
      </ElFormItem>
    </div>
  </AskForm>
</template>

<style scoped>
.layers {
  width: 100%;
  display: grid;
  grid-template-columns: 1fr 150px;
  gap: 3px 12px;
  align-items: center;
}
.swatch {
  display: inline-block;
  width: 16px;
  height: 4px;
  margin-right: 8px;
}
</style>

<script setup lang="ts">
import { computed, ref } from 'vue';
import type { ChecksView, DeviationRequest, DeviationView } from '../../api/types';
import AskForm from '../../fields/AskForm.vue';
import NumberInput from '../../fields/NumberInput.vue';
import { namePattern } from '../../format/pattern';
import { lengthUnit, metresPer } from '../../format/units';
import { useProject } from '../../state/project';
import CloudRadius from './CloudRadius.vue';

/** What is compared with what. */
const props = defineProps<{ checks: ChecksView; check: DeviationView | null }>();
const emit = defineEmits<{ save: [request: DeviationRequest]; cancel: [] }>();
const project = useProject();
const units = computed(() => project.units);
const c = props.check;
const firstDesign = props.checks.designs[0];
const firstSurface = props.checks.surfaces[0];
const name = ref(c?.name ?? '');
const measuredOn = ref(c?.measuredOn ?? '');
const codes = ref<string[]>(c?.codes ?? []);
const pattern = ref(c?.pattern ?? '');
const reference = ref(c?.reference ?? (firstDesign ? 'design' : firstSurface ? 'surface' : 'plane'));
const surface = ref(c?.surface || firstSurface?.id || 0);
const design = ref(c?.design || firstDesign?.id || 0);
const layers = ref<string[]>(c?.layers ?? []);
const planeCodes = ref<string[]>(c?.planeCodes ?? []);
const elevation = ref<number | null>(c?.elevation ?? 0);
const along = ref(c?.along ?? 'normal');
const ignore = ref<number | null>(c?.ignore ?? null);
const unit = ref(c?.unit ?? '');
const measured = ref(c?.measuredKind ?? 'points');
const measuredSurface = ref(c?.measuredSurface || firstSurface?.id || 0);
const measuredCloud = ref(c?.measuredCloud || props.checks.clouds[0]?.id || 0);
const cloud = ref(c?.cloud || props.checks.clouds[0]?.id || 0);
const radius = ref<number | null>(c?.radius ?? null);
const NO_CLOUD = 'Bring a point cloud in first: LAS, LAZ, PLY or lines of coordinates.';
const NO_SURFACE = 'No surface is computed yet; make one in Terrain.';

const glob = computed(() => (pattern.value.trim() === '' ? null : namePattern(pattern.value.trim())));
/** Numbers known only locally lie somewhere else altogether, unless all are. */
const hasGlobal = computed(() => project.points.some((p) => p.known === 'global' && p.e !== null));
/** Points that are chosen now. */
const chosen = computed(
  () =>
    project.points.filter(
      (p) =>
        p.e !== null &&
        p.h !== null &&
        p.role !== 'check' &&
        (p.known === 'global' || !hasGlobal.value) &&
        (codes.value.length === 0 || codes.value.includes(p.code)) &&
        (!glob.value || glob.value.test(p.name)),
    ).length,
);
const layersOf = computed(() => Object.entries(props.checks.designs.find((d) => d.id === design.value)?.layers ?? {}));
const missing = computed(() =>
  name.value.trim() === ''
    ? 'It needs a name.'
    : measured.value === 'points' && chosen.value === 0
      ? 'No point is chosen.'
      : measured.value === 'surface' && !measuredSurface.value
        ? NO_SURFACE
        : (measured.value === 'cloud' && !measuredCloud.value) || (reference.value === 'cloud' && !cloud.value)
          ? NO_CLOUD
          : reference.value === 'design' && !design.value
            ? 'Bring the design in first: DXF with faces, LandXML or PLY.'
            : reference.value === 'surface' && !surface.value
              ? NO_SURFACE
              : '',
);

function save() {
  emit('save', {
    name: name.value.trim(),
    reference: reference.value,
    along: along.value,
    number: c?.number ?? null,
    measuredOn: measuredOn.value ?? '',
    codes: codes.value,
    pattern: pattern.value.trim(),
    surface: surface.value,
    design: design.value,
    layers: layers.value,
    planeCodes: planeCodes.value,
    elevation: elevation.value ?? 0,
    ignore: ignore.value,
    unit: reference.value === 'design' ? unit.value : '',
    measured: measured.value,
    measuredSurface: measuredSurface.value,
    measuredCloud: measuredCloud.value,
    cloud: cloud.value,
    radius: radius.value,
  });
}
</script>

<template>
  <AskForm
    :title="check ? `Compare ${check.name} anew` : 'What is compared with what?'"
    button="Compare"
    :missing="missing"
    test="compare"
    @save="save"
    @cancel="emit('cancel')"
  >
    <div class="grid">
      <ElFormItem label="name"><ElInput v-model="name" maxlength="80" aria-label="Name" data-test="check-name" /></ElFormItem>
      <ElFormItem label="measured on"
        ><ElDatePicker v-model="measuredOn" value-format="YYYY-MM-DD" placeholder="not said" aria-label="Measured on"
      /></ElFormItem>
    </div>
    <h2>Measured</h2>
    <ElRadioGroup v-model="measured" aria-label="Measured">
      <ElRadioButton value="points">points</ElRadioButton><ElRadioButton value="surface">surface</ElRadioButton
      ><ElRadioButton value="cloud">point cloud</ElRadioButton>
    </ElRadioGroup>
    <ElFormItem v-if="measured === 'surface'" label="its vertices are compared"
      ><ElSelect v-model="measuredSurface" aria-label="Measured surface" placeholder="none is computed"
        ><ElOption v-for="s in checks.surfaces" :key="s.id" :value="s.id" :label="s.name" /></ElSelect
    ></ElFormItem>
    <ElFormItem v-else-if="measured === 'cloud'" label="all its points are compared"
      ><ElSelect v-model="measuredCloud" aria-label="Measured cloud" placeholder="none is here"
        ><ElOption v-for="k in checks.clouds" :key="k.id" :value="k.id" :label="`${k.name}, ${k.points} points`" /></ElSelect
    ></ElFormItem>
    <div v-else class="grid">
      <ElFormItem label="codes"
        ><ElSelect v-model="codes" multiple filterable aria-label="Codes" placeholder="all">
          <ElOption v-for="(n, code) in checks.codes" :key="code" :value="String(code)" :label="`${code || '(none)'} · ${n}`" /></ElSelect
      ></ElFormItem>
      <ElFormItem label="names like, with * and ?"
        ><ElInput v-model="pattern" class="mono" maxlength="80" aria-label="Names like" placeholder="all"
      /></ElFormItem>
    </div>
    <p v-if="measured === 'points'" class="quiet" data-test="chosen">{{ chosen }} points with a height.</p>
    <h2>Reference</h2>
    <ElRadioGroup v-model="reference" aria-label="Reference">
      <ElRadioButton value="design">design</ElRadioButton><ElRadioButton value="surface">surface</ElRadioButton
      ><ElRadioButton value="cloud">point cloud</ElRadioButton><ElRadioButton value="plane">plane</ElRadioButton
      ><ElRadioButton value="elevation">elevation</ElRadioButton>
    </ElRadioGroup>
    <div v-if="reference === 'design'" class="grid">
      <ElFormItem label="file"
        ><ElSelect v-model="design" aria-label="Design" placeholder="none is here" @change="layers = []">
          <ElOption v-for="d in checks.designs" :key="d.id" :value="d.id" :label="`${d.name}, ${d.faces} faces`" /></ElSelect
      ></ElFormItem>
      <ElFormItem v-if="layersOf.length > 0" label="layers"
        ><ElSelect v-model="layers" multiple aria-label="Layers" placeholder="all">
          <ElOption v-for="[layer, n] in layersOf" :key="layer" :value="layer" :label="`${layer} · ${n}`" /></ElSelect
      ></ElFormItem>
      <ElFormItem label="drawn in"
        ><ElSelect v-model="unit" aria-label="Drawn in" data-test="drawn-in">
          <ElOption value="" label="metres, unless that is doubtful" /><ElOption value="m" label="metres" /><ElOption
            value="ft"
            label="feet" /><ElOption value="ftUS" label="US survey feet" /><ElOption value="mm" label="millimetres" /></ElSelect
      ></ElFormItem>
    </div>

    <CloudRadius v-else-if="reference === 'cloud'" v-model:cloud="cloud" v-model:radius="radius" :clouds="checks.clouds" />
    <ElFormItem v-else-if="reference === 'surface'" label="surface"
      ><ElSelect v-model="surface" aria-label="Surface">
        <ElOption v-for="s in checks.surfaces" :key="s.id" :value="s.id" :label="s.name" /></ElSelect
    ></ElFormItem>
    <ElFormItem v-else-if="reference === 'plane'" label="through points coded"
      ><ElSelect v-model="planeCodes" multiple filterable aria-label="Codes of the plane" placeholder="the measured points themselves">
        <ElOption v-for="(n, code) in checks.codes" :key="code" :value="String(code)" :label="`${code || '(none)'} · ${n}`" /></ElSelect
    ></ElFormItem>
    <NumberInput v-else v-model="elevation" label="elevation" :unit="lengthUnit(units)" :factor="metresPer(units)" :digits="4" />
    <div class="grid">
      <ElFormItem label="compared"
        ><ElRadioGroup v-model="along" aria-label="Compared">
          <ElRadioButton value="normal">along the normal</ElRadioButton><ElRadioButton value="vertical">vertically</ElRadioButton>
        </ElRadioGroup></ElFormItem
      >
      <NumberInput
        v-model="ignore"
        label="leave out beyond"
        :unit="lengthUnit(units)"
        :factor="metresPer(units)"
        :digits="4"
        placeholder="nothing"
      />
    </div>
  </AskForm>
</template>

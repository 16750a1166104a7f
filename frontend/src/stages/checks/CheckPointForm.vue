<script setup lang="ts">
import { computed, ref } from 'vue';
import type { CheckPointsRequest, CheckPointsView, ChecksView } from '../../api/types';
import AskForm from '../../fields/AskForm.vue';
import NumberInput from '../../fields/NumberInput.vue';
import { namePattern } from '../../format/pattern';
import { lengthUnit, metresPer } from '../../format/units';
import { useProject } from '../../state/project';
import CloudRadius from './CloudRadius.vue';

/** Which check points are compared with what. */
const props = defineProps<{ checks: ChecksView; check: CheckPointsView | null }>();
const emit = defineEmits<{ save: [request: CheckPointsRequest]; cancel: [] }>();
const project = useProject();
const units = computed(() => project.units);
const c = props.check;
const name = ref(c?.name ?? '');
const against = ref(c?.compared ?? (props.checks.surfaces.length > 0 ? 'surface' : 'point'));
const pattern = ref(c?.pattern ?? '');
const surface = ref(c?.surface || props.checks.surfaces[0]?.id || 0);
const cloud = ref(c?.cloud || props.checks.clouds[0]?.id || 0);
const made = ref(c?.made || Object.keys(props.checks.made)[0] || '');
const within = ref<number | null>(c?.within ?? 0.1);
const radius = ref<number | null>(c?.radius ?? null);
const glob = computed(() => (pattern.value.trim() === '' ? null : namePattern(pattern.value.trim())));
const chosen = computed(() => project.points.filter((p) => p.role === 'check' && (!glob.value || glob.value.test(p.name))).length);
const missing = computed(() => {
  if (name.value.trim() === '') return 'It needs a name.';
  if (chosen.value === 0) return 'No check point is chosen.';
  if (against.value === 'surface' && !surface.value) return 'No surface is computed yet; make one in Terrain.';
  if (against.value === 'made' && !made.value) return 'Nothing is made yet; make a cloud or an orthoimage in Clouds.';
  return against.value === 'cloud' && !cloud.value ? 'Bring a point cloud in first: LAS, LAZ, PLY or lines of coordinates.' : '';
});

function save() {
  emit('save', {
    name: name.value.trim(),
    against: against.value,
    number: c?.number ?? null,
    pattern: pattern.value.trim(),
    surface: surface.value,
    cloud: cloud.value,
    within: within.value ?? 0.1,
    radius: radius.value,
    made: made.value,
  });
}
</script>

<template>
  <AskForm
    :title="check ? `Check ${check.name} anew` : 'Which check points, against what?'"
    button="Compare"
    :missing="missing"
    test="points-compare"
    @save="save"
    @cancel="emit('cancel')"
  >
    <div class="grid">
      <ElFormItem label="name"><ElInput v-model="name" maxlength="80" aria-label="Name" data-test="points-name" /></ElFormItem>
      <ElFormItem label="names like, with * and ?"
        ><ElInput v-model="pattern" class="mono" maxlength="80" aria-label="Names like" placeholder="all check points"
      /></ElFormItem>
    </div>
    <p class="quiet" data-test="points-chosen">{{ chosen }} check points, held out of every adjustment and surface.</p>
    <h2>Compared with</h2>
    <ElRadioGroup v-model="against" aria-label="Compared with">
      <ElRadioButton value="point">what was measured of them</ElRadioButton><ElRadioButton value="surface">a surface</ElRadioButton
      ><ElRadioButton value="cloud">a cloud that came in</ElRadioButton
      ><ElRadioButton value="made" data-test="against-made">one made here</ElRadioButton>
    </ElRadioGroup>
    <template v-if="against === 'point'">
      <p class="quiet">Their own adjusted or surveyed place, else the nearest point within a distance.</p>
      <NumberInput v-model="within" label="nearest within" :unit="lengthUnit(units)" :factor="metresPer(units)" :digits="3" />
    </template>
    <ElFormItem v-else-if="against === 'surface'" label="surface"
      ><ElSelect v-model="surface" aria-label="Surface"
        ><ElOption v-for="s in checks.surfaces" :key="s.id" :value="s.id" :label="s.name" /></ElSelect
    ></ElFormItem>
    <ElFormItem v-else-if="against === 'made'" label="cloud, or heights of a flight"
      ><ElSelect v-model="made" aria-label="Made here" data-test="check-made"
        ><ElOption v-for="(label, slot) in checks.made" :key="slot" :value="slot" :label="label" /></ElSelect
    ></ElFormItem>
    <CloudRadius v-else v-model:cloud="cloud" v-model:radius="radius" :clouds="checks.clouds" />
  </AskForm>
</template>

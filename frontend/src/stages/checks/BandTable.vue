<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { metresPerSmall, small, smallUnit } from '../../format/units';
import { useProject } from '../../state/project';
import { useSession } from '../../state/session';
import { bandsOf, readLimits, setOf, USUAL, type BandSet, type Deviations } from './bands';

/** Tolerance bands with what lies in them; limits, count and colours are changed here, and kept as a named set. */
const props = defineProps<{ points: Deviations; ignore: number | null }>();
const set = defineModel<BandSet>({ required: true });
const project = useProject();
const session = useSession();
const units = computed(() => project.units);
const bands = computed(() => bandsOf(props.points, props.ignore, set.value));
const most = computed(() => Math.max(1, ...bands.value.map((b) => b.count)));
const kept = computed<BandSet[]>(() => (session.preferences['checks.bands'] as BandSet[] | undefined) ?? []);
const sets = computed(() => [USUAL, ...kept.value.filter((s) => s.name !== USUAL.name)]);
const isKept = computed(() => sets.value.some((s) => JSON.stringify(s) === JSON.stringify(set.value)));
const name = ref('');

const metres = computed(() => metresPerSmall(units.value));
const written = (limits: number[]) => limits.map((l) => small(l, units.value, true).replace(/\.0$/, '')).join(' ');
const text = ref('');
watch(
  [set, units],
  () => {
    if (JSON.stringify(readLimits(text.value, metres.value)) !== JSON.stringify(set.value.limits)) text.value = written(set.value.limits);
  },
  { immediate: true },
);
const read = computed(() => readLimits(text.value, metres.value));

function typed() {
  if (read.value && JSON.stringify(read.value) !== JSON.stringify(set.value.limits)) set.value = setOf(set.value.name, read.value);
}
function recolour(index: number, colour: string | null) {
  if (colour) set.value = { ...set.value, colours: set.value.colours.map((c, i) => (i === index ? colour : c)) };
}
function choose(which: string) {
  set.value = sets.value.find((s) => s.name === which) ?? set.value;
}
async function keep() {
  const named = { ...set.value, name: name.value.trim() };
  await session.prefer('checks.bands', [...kept.value.filter((s) => s.name !== named.name), named]);
  set.value = named;
  name.value = '';
}
const range = (from: number | null, to: number | null) => {
  const t = (v: number) => small(v, units.value, true).replace(/\.0$/, '');
  return from === null ? `below ${t(to!)}` : to === null ? `above ${t(from)}` : `${t(from)} to ${t(to)}`;
};
</script>

<template>
  <section>
    <div class="sets">
      <span class="quiet">limits {{ smallUnit(units) }}</span>
      <ElInput
        v-model="text"
        size="small"
        class="mono limits"
        aria-label="Limits between bands"
        :aria-invalid="read === null"
        data-test="limits"
        @input="typed"
      />
      <ElSelect :model-value="set.name" size="small" class="pick" aria-label="Set of bands" @update:model-value="choose">
        <ElOption v-for="s in sets" :key="s.name" :value="s.name" :label="s.name" />
      </ElSelect>
      <template v-if="!isKept">
        <ElInput v-model="name" size="small" class="pick" maxlength="40" placeholder="name" aria-label="Name of the set" />
        <ElButton size="small" data-test="keep-bands" :disabled="name.trim() === '' || name.trim() === USUAL.name" @click="keep"
          >Keep set</ElButton
        >
      </template>
    </div>
    <p v-if="read === null" class="doubt" data-test="limits-fault">Limits are numbers that grow, as in −12 −6 +6 +12.</p>
    <table class="bands" data-test="bands">
      <thead>
        <tr>
          <th />
          <th>{{ smallUnit(units) }}</th>
          <th class="right">points</th>
          <th class="right">share</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="(b, k) in bands" :key="k" :class="{ within: b.isTolerance }">
          <td>
            <ElColorPicker
              :model-value="b.colour"
              size="small"
              :aria-label="`Colour of ${range(b.from, b.to)}`"
              @update:model-value="(c: string | null) => recolour(bands.length - 1 - k, c)"
            />
          </td>
          <td class="mono">{{ range(b.from, b.to) }}</td>
          <td class="mono right">{{ b.count }}</td>
          <td class="mono right">{{ b.percent.toFixed(1) }} %</td>
          <td class="bar"><span :style="{ width: `${(100 * b.count) / most}%`, background: b.colour }" /></td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.sets {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-bottom: 4px;
}
.limits {
  flex: 1;
}
.pick {
  width: 110px;
}
.bands {
  border-collapse: collapse;
  width: 100%;
}
.bands th {
  font-weight: 400;
  font-size: 12px;
  color: var(--ink-soft);
  text-align: left;
  border-bottom: 1px solid var(--ink);
}
.bands td {
  border-bottom: 1px solid var(--rule);
  padding: 1px 8px 1px 0;
}
.bands .right {
  text-align: right;
}
.within {
  background: var(--cobalt-soft);
}
.bar {
  width: 45%;
  padding-left: 12px !important;
}
.bar span {
  display: block;
  height: 9px;
  border: 1px solid var(--rule-strong);
  box-sizing: border-box;
  min-width: 1px;
}
p {
  margin: 0 0 4px;
}
</style>

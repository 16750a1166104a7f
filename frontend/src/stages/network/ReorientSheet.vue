<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue';
import { post } from '../../api/client';
import type { PointView, ReorientRequest, SetupTurnView, ShiftView } from '../../api/types';
import type { Column } from '../../figures/columns';
import FiguresTable from '../../figures/FiguresTable.vue';
import { fromDisplayLength, length, lengthUnit, small, smallAngle, smallUnit, toDisplayLength } from '../../format/units';
import { useProject } from '../../state/project';
import { readCell } from './levels/grid';

/** Other values for control: where every set-up and every point that hangs on it goes, before anything is changed. */
const emit = defineEmits<{ moves: [moves: ShiftView[] | null]; close: [] }>();
const project = useProject();
const units = computed(() => project.units);
const marks = computed<PointView[]>(() => project.points.filter((p) => p.role === 'control' && p.givenE !== null));
const typed = ref<Record<string, string>>({});
const found = shallowRef<{ turns: SetupTurnView[]; moves: ShiftView[] } | null>(null);
const reason = ref('');
const PARTS = [
  ['e', 'givenE'],
  ['n', 'givenN'],
  ['h', 'givenH'],
] as const;

const present = (p: PointView, part: (typeof PARTS)[number]) => {
  const value = p[part[1]];
  return value === null ? '' : toDisplayLength(value, units.value).toFixed(4);
};
const cell = (p: PointView, part: (typeof PARTS)[number]) => typed.value[`${p.name} ${part[0]}`] ?? present(p, part);
const isChanged = (p: PointView, part: (typeof PARTS)[number]) => cell(p, part) !== present(p, part);

/** What is typed and is no number. */
const problem = computed(() => {
  for (const p of marks.value)
    for (const part of PARTS)
      if (isChanged(p, part) && isWrong(cell(p, part))) return `${p.name}, ${part[0]}: "${cell(p, part)}" is not a number`;
  return '';
});
const isWrong = (text: string) => {
  const read = readCell(text);
  return read === null || Number.isNaN(read);
};

function control(): ReorientRequest['control'] {
  return marks.value
    .filter((p) => PARTS.some((part) => isChanged(p, part)))
    .map((p) => {
      const value = (part: (typeof PARTS)[number]) => {
        const read = isChanged(p, part) ? readCell(cell(p, part)) : null;
        return read === null || Number.isNaN(read) ? null : fromDisplayLength(read, units.value);
      };
      return { point: p.name, e: value(PARTS[0]), n: value(PARTS[1]), h: value(PARTS[2]) };
    });
}

async function work(apply: boolean) {
  const asked = control();
  const ok = await project.attempt(
    async () => {
      const job = await project.job(
        post(project.path('/network/reorient'), { control: asked, apply, reason: reason.value } satisfies ReorientRequest),
      );
      found.value = job.outcome as unknown as { turns: SetupTurnView[]; moves: ShiftView[] };
      emit('moves', found.value.moves);
    },
    apply ? 'Re-oriented. Undo in the ledger brings everything back.' : '',
  );
  if (ok && apply) {
    typed.value = {};
    emit('moves', null);
    emit('close');
  }
}

const fine = (key: 'e' | 'n' | 'h', title: string): Column<SetupTurnView> & Column<ShiftView> => ({
  key,
  title,
  unit: smallUnit(units.value),
  width: '66px',
  align: 'right',
  mono: true,
  value: (s) => s[key],
  sortBy: (s) => Math.abs(s[key]),
  text: (s) => small(s[key], units.value, true),
});
const turns = computed<Column<SetupTurnView>[]>(() => [
  { key: 'station', title: 'set-up', width: '64px', value: (t) => t.station },
  fine('e', 'east'),
  fine('n', 'north'),
  fine('h', 'height'),
  {
    key: 'rotation',
    title: 'rotation',
    width: '66px',
    align: 'right',
    mono: true,
    value: (t) => t.rotation,
    text: (t) => smallAngle(t.rotation, units.value, true),
  },
  { key: 'scale', title: 'scale ppm', width: '66px', align: 'right', mono: true, value: (t) => t.scale, text: (t) => t.scale.toFixed(1) },
]);
const moves = computed<Column<ShiftView>[]>(() => [
  { key: 'name', title: 'point', width: '64px', value: (m) => m.name },
  fine('e', 'east'),
  fine('n', 'north'),
  fine('h', 'height'),
]);
</script>

<template>
  <section class="reorient">
    <p class="quiet">Give control marks other values; every set-up that stands on them, and what hangs on those, follows in one step.</p>
    <div class="marks">
      <div class="line head">
        <span>mark</span><span>easting {{ lengthUnit(units) }}</span
        ><span>northing {{ lengthUnit(units) }}</span
        ><span>height {{ lengthUnit(units) }}</span>
      </div>
      <div v-for="p in marks" :key="p.name" class="line">
        <span>{{ p.name }}</span>
        <ElInput
          v-for="part in PARTS"
          :key="part[0]"
          :model-value="cell(p, part)"
          size="small"
          class="mono"
          :class="{ changed: isChanged(p, part) }"
          inputmode="decimal"
          :aria-label="`New ${part[0]} of ${p.name}`"
          :aria-invalid="isChanged(p, part) && isWrong(cell(p, part))"
          :disabled="!project.mayChange"
          @update:model-value="(v: string) => (typed = { ...typed, [`${p.name} ${part[0]}`]: v })"
        />
      </div>
    </div>
    <div class="tools">
      <ElButton
        type="primary"
        data-test="reorient-preview"
        :disabled="!project.mayChange || problem !== '' || control().length === 0"
        @click="work(false)"
        >Show where it goes</ElButton
      >
      <template v-if="found">
        <ElInput v-model="reason" class="reason" placeholder="reason, for the ledger" aria-label="Reason" />
        <ElButton data-test="reorient-apply" :disabled="!project.mayChange || problem !== '' || control().length === 0" @click="work(true)"
          >Re-orient {{ found.moves.length }} points</ElButton
        >
      </template>
      <span class="spacer" />
      <ElButton text @click="(emit('moves', null), emit('close'))">Back to control</ElButton>
    </div>
    <p v-if="problem" class="fails">{{ problem }}</p>
    <template v-if="found">
      <p>
        {{ found.moves.length }} points move, the farthest
        {{
          found.moves[0]
            ? `${found.moves[0].name} by ${length(Math.hypot(found.moves[0].e, found.moves[0].n, found.moves[0].h), units)} ${lengthUnit(units)}`
            : ''
        }}.
      </p>
      <div class="both">
        <FiguresTable
          label="setup-turns"
          :columns="turns"
          :rows="found.turns"
          :row-key="(t) => t.station"
          :selected="new Set()"
          :filterable="false"
          @select="() => undefined"
        />
        <FiguresTable
          label="reorient-moves"
          :columns="moves"
          :rows="found.moves"
          :row-key="(m) => m.name"
          :selected="new Set()"
          :filterable="false"
          @select="() => undefined"
        />
      </div>
    </template>
  </section>
</template>

<style scoped>
.reorient {
  display: flex;
  flex-direction: column;
  gap: 8px;
  flex: 1;
  min-height: 0;
  overflow: auto;
}
.marks {
  max-height: 40%;
  overflow: auto;
  flex: none;
}
.line {
  display: grid;
  grid-template-columns: 90px repeat(3, minmax(100px, 150px));
  gap: 6px;
  align-items: center;
  padding: 2px 0;
}
.head {
  color: var(--quiet);
}
.changed :deep(input) {
  color: var(--cobalt);
  font-weight: 600;
}
.tools {
  display: flex;
  gap: 8px;
  align-items: center;
}
.reason {
  max-width: 200px;
}
.both {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 14px;
  flex: 1;
  min-height: 120px;
}
p {
  margin: 0;
}
</style>

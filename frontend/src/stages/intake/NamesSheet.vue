<script setup lang="ts">
import { computed, ref } from 'vue';
import { put } from '../../api/client';
import type { NameQuestionView, NamesRequest } from '../../api/types';
import { length, small, smallUnit } from '../../format/units';
import { useProject } from '../../state/project';

/** Names of the waiting files that may be another mark's: one list, an answer each, undone in the ledger. */
const props = defineProps<{ names: NameQuestionView[] }>();
const emit = defineEmits<{ changed: [file: number] }>();
const project = useProject();
const open = ref(['names']);
const renaming = ref('');
const typed = ref('');
const key = (n: NameQuestionView) => `${n.file} ${n.name}`;
const waiting = computed(() => props.names.filter((n) => n.answer === null).length);
const units = computed(() => project.units);

const isSame = (n: NameQuestionView) => n.name === n.other;

function relation(n: NameQuestionView): string {
  if (isSame(n)) return 'is also';
  return n.alike ? 'looks like' : 'lies where';
}

function answered(n: NameQuestionView): string {
  if (n.answer !== n.name) return `is ${n.answer}`;
  return isSame(n) ? 'one mark' : 'kept apart';
}

function apart(n: NameQuestionView): string {
  if (n.plan === null) return 'no place of its own';
  const far =
    n.plan < 1 ? `${small(n.plan, units.value)} ${smallUnit(units.value)}` : `${length(n.plan, units.value)} ${units.value.length}`;
  return n.height === null ? `${far} apart` : `${far} apart, ${small(Math.abs(n.height), units.value)} ${smallUnit(units.value)} in height`;
}

async function say(n: NameQuestionView, to: string) {
  const names = [{ from: n.name, to: to.trim() }];
  renaming.value = '';
  if (await project.attempt(() => put(project.path(`/intake/${n.file}/names`), { names } satisfies NamesRequest))) emit('changed', n.file);
}

function begin(n: NameQuestionView) {
  renaming.value = key(n);
  typed.value = n.answer ?? n.name;
}
</script>

<template>
  <ElCollapse v-model="open" class="names" data-test="names">
    <ElCollapseItem name="names">
      <template #title
        ><strong :class="{ doubt: waiting > 0 }">{{
          waiting > 0 ? `? ${waiting} name${waiting === 1 ? '' : 's'} may be another mark’s` : 'Names that were answered'
        }}</strong></template
      >
      <ul>
        <li v-for="n in names" :key="key(n)">
          <span
            ><strong class="mono">{{ n.name }}</strong> <span class="quiet">{{ n.fileName }}</span></span
          >
          <span class="quiet"
            >{{ relation(n) }} <strong class="mono ink">{{ n.other }}</strong>{{ n.alike ? '' : ' lies' }} in {{ n.where }},
            {{ apart(n) }}</span
          >
          <form v-if="renaming === key(n)" class="acts" @submit.prevent="say(n, typed)">
            <ElInput v-model="typed" size="small" maxlength="60" :aria-label="`New name of ${n.name}`" />
            <ElButton size="small" type="primary" native-type="submit" :disabled="typed.trim() === ''">Rename</ElButton>
          </form>
          <span v-else-if="n.answer === null" class="acts">
            <ElButton size="small" type="primary" plain data-test="one-mark" :disabled="!project.mayChange" @click="say(n, n.other)"
              >One mark: {{ n.other }}</ElButton
            >
            <ElButton v-if="!isSame(n)" size="small" data-test="two-marks" :disabled="!project.mayChange" @click="say(n, n.name)"
              >Two marks</ElButton
            >
            <ElButton size="small" :disabled="!project.mayChange" @click="begin(n)">Rename…</ElButton>
          </span>
          <span v-else class="acts quiet"
            >{{ answered(n) }}
            <ElButton v-if="isSame(n)" link type="primary" :disabled="!project.mayChange" @click="begin(n)">rename</ElButton>
            <ElButton v-else link type="primary" :disabled="!project.mayChange" @click="say(n, n.answer === n.name ? n.other : n.name)">{{
              n.answer === n.name ? 'make it one' : 'keep it apart'
            }}</ElButton></span
          >
        </li>
      </ul>
    </ElCollapseItem>
  </ElCollapse>
</template>

<style scoped>
.names {
  flex: none;
  max-height: 34%;
  overflow: auto;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(110px, 1fr) 2fr auto;
  gap: 4px 12px;
  align-items: center;
  padding: 3px 0;
  border-top: 1px solid var(--rule);
}
.ink {
  color: var(--ink);
}
.acts {
  display: flex;
  gap: 6px;
  align-items: center;
}
</style>

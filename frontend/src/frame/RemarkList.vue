<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { get, post } from '../api/client';
import type { RemarkRequest, RemarkView } from '../api/types';
import { when } from '../format/units';
import { useProject } from '../state/project';

/** What was said about a thing, answers beneath, and whether it stands as checked. Every member may say something. */
const props = defineProps<{ about: string }>();
const project = useProject();
const remarks = ref<RemarkView[]>([]);
const isOpen = ref(false);
const text = ref('');
const answering = ref(0);

const check = computed(() => [...remarks.value].reverse().find((r) => r.checks) ?? null);
const told = computed(() => remarks.value.filter((r) => r.answers === 0));
const answers = (id: number) => remarks.value.filter((r) => r.answers === id);
const count = computed(() => remarks.value.filter((r) => !r.checks || r.text !== '').length);

const isMissing = ref(false);
let turn = 0;
async function load() {
  const mine = (turn += 1);
  const list = await get<RemarkView[]>(project.path(`/remarks/${encodeURIComponent(props.about)}`)).catch(() => null);
  if (mine !== turn) return;
  [remarks.value, isMissing.value] = [list ?? [], list === null];
}
async function say(checks: boolean) {
  const body: RemarkRequest = { about: props.about, text: text.value.trim(), answers: checks ? 0 : answering.value, checks };
  if (await project.attempt(() => post(project.path('/remarks'), body))) [text.value, answering.value] = ['', 0];
  await load();
}
watch([() => props.about, () => project.version], load, { immediate: true });
</script>

<template>
  <div class="remarks">
    <span v-if="isMissing" class="doubt">What was said about it could not be loaded.</span>
    <div v-else class="line">
      <ElButton link type="primary" data-test="remarks" :aria-expanded="isOpen" @click="isOpen = !isOpen">{{
        isOpen ? 'Hide remarks' : count > 0 ? `${count} ${count === 1 ? 'remark' : 'remarks'}` : 'Say something about it'
      }}</ElButton>
      <span v-if="check?.stands" class="holds">✓ checked by {{ check.author }}, {{ when(check.at) }}</span>
      <span v-else-if="check" class="doubt">checked by {{ check.author }}, but no more: {{ check.why }}</span>
      <ElButton v-if="!check?.stands" link type="primary" data-test="mark-checked" @click="say(true)">Mark it checked</ElButton>
    </div>
    <template v-if="isOpen">
      <div v-for="r in told" :key="r.id" class="told">
        <strong>{{ r.author }}</strong> <span class="quiet">{{ when(r.at) }}{{ r.checks ? ', checked' : '' }}</span>
        <div v-if="r.text">{{ r.text }}</div>
        <div v-for="a in answers(r.id)" :key="a.id" class="answer">
          <strong>{{ a.author }}</strong> <span class="quiet">{{ when(a.at) }}</span>
          <div>{{ a.text }}</div>
        </div>
        <ElButton link size="small" @click="answering = answering === r.id ? 0 : r.id">{{
          answering === r.id ? 'not an answer' : 'answer'
        }}</ElButton>
      </div>
      <form class="line" @submit.prevent="say(false)">
        <ElInput
          v-model="text"
          size="small"
          maxlength="4000"
          :placeholder="answering ? 'the answer' : 'a remark'"
          aria-label="Remark"
          data-test="remark-text"
        />
        <ElButton size="small" native-type="submit" data-test="say" :disabled="text.trim() === ''">{{
          answering ? 'Answer' : 'Say it'
        }}</ElButton>
      </form>
    </template>
  </div>
</template>

<style scoped>
.line {
  display: flex;
  gap: 10px;
  align-items: center;
}
.line .el-button {
  margin: 0;
}
.told {
  padding: 4px 0;
  border-top: 1px solid var(--rule);
  font-size: 12.5px;
}
.answer {
  padding: 2px 0 2px 14px;
}
</style>

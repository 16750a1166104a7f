<script setup lang="ts">
import { onMounted, reactive, ref } from 'vue';
import { get, Problem, put, remove } from '../api/client';
import type { PasswordRequest, SignedInView } from '../api/types';
import { when } from '../format/units';

const sessions = ref<SignedInView[]>([]);
const form = reactive({ current: '', new: '' });
const problems = ref<Record<string, string>>({});
const done = ref('');

onMounted(async () => (sessions.value = await get<SignedInView[]>('/api/account/sessions').catch(() => [])));

async function change() {
  problems.value = {};
  done.value = '';
  try {
    sessions.value = await put<SignedInView[]>('/api/account/password', { ...form } satisfies PasswordRequest);
    form.current = form.new = '';
    done.value = 'Your password is changed; you are signed out everywhere else.';
  } catch (e) {
    if (!(e instanceof Problem)) throw e;
    for (const x of e.errors) problems.value[x.pointer.slice(1)] = x.detail;
    if (e.errors.length === 0) problems.value.current = e.detail;
  }
}

async function end(session: SignedInView) {
  sessions.value = await remove<SignedInView[]>(`/api/account/sessions/${session.id}`);
}

/** The program and system of a browser's own description, as far as they can be told. */
function device(agent: string): string {
  const system = /(Windows|Android|iPhone|iPad|Mac OS X|Linux)/.exec(agent)?.[1]?.replace('Mac OS X', 'Mac') ?? 'a device';
  const program = /(Firefox|Edg|Chrome|Safari)\//.exec(agent)?.[1]?.replace('Edg', 'Edge') ?? 'a program';
  return agent === '' ? 'unknown' : `${program} on ${system}`;
}
</script>

<template>
  <section aria-label="Your account">
    <h2>Your account</h2>
    <ElForm label-position="top" class="password" @submit.prevent="change">
      <ElFormItem label="password now" :error="problems.current">
        <ElInput v-model="form.current" type="password" autocomplete="current-password" show-password data-test="password-now" />
      </ElFormItem>
      <ElFormItem label="new password" :error="problems.new">
        <ElInput v-model="form.new" type="password" autocomplete="new-password" show-password data-test="password-new" />
      </ElFormItem>
      <ElButton native-type="submit" :disabled="form.current === '' || form.new === ''" data-test="password-change">Change it</ElButton>
    </ElForm>
    <p v-if="done" class="holds" role="status">{{ done }}</p>
    <h3>Signed in</h3>
    <ul>
      <li v-for="s in sessions" :key="s.id">
        <span>{{ device(s.agent) }}</span><span class="quiet mono">{{ s.address }}</span
        ><span class="quiet">used {{ when(s.usedAt) }}</span>
        <strong v-if="s.current">here</strong>
        <ElButton v-else size="small" :aria-label="`Sign out ${device(s.agent)} at ${s.address}`" @click="end(s)">Sign out</ElButton>
      </li>
    </ul>
  </section>
</template>

<style scoped>
h2,
h3 {
  font-size: 13px;
  margin: 14px 0 6px;
}
.password {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 12px;
  align-items: start;
}
.password > .el-button {
  margin-top: 19px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 1fr 110px 130px 80px;
  gap: 12px;
  align-items: center;
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
}
</style>

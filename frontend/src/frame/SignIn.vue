<script setup lang="ts">
import { ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { Problem } from '../api/client';
import { useSession } from '../state/session';

const session = useSession();
const router = useRouter();
const route = useRoute();
const username = ref('');
const password = ref('');
const error = ref('');
const busy = ref(false);

async function signIn() {
  busy.value = true;
  error.value = '';
  try {
    await session.signIn(username.value, password.value);
    await router.push(String(route.query.to ?? '/'));
  } catch (e) {
    error.value = e instanceof Problem ? e.message : String(e);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <main class="cover">
    <svg class="line" viewBox="0 0 600 120" aria-hidden="true">
      <polyline points="10,90 140,40 280,70 420,25 590,60" fill="none" stroke="var(--rule-strong)" stroke-width="1.5" />
      <circle
        v-for="[x, y] in [
          [10, 90],
          [140, 40],
          [280, 70],
          [420, 25],
          [590, 60],
        ]"
        :key="x"
        :cx="x"
        :cy="y"
        r="5"
        fill="var(--paper)"
        stroke="var(--ink)"
        stroke-width="1.5"
      />
    </svg>
    <ElForm label-position="top" class="card" @submit.prevent="signIn">
      <h1>Mensura</h1>
      <p class="quiet">Sign in to open your projects.</p>
      <ElFormItem label="name"><ElInput id="username" v-model="username" autocomplete="username" autofocus required /></ElFormItem>
      <ElFormItem label="password">
        <ElInput id="password" v-model="password" type="password" autocomplete="current-password" show-password required />
      </ElFormItem>
      <ElAlert v-if="error" type="error" :closable="false">{{ error }}</ElAlert>
      <ElButton type="primary" native-type="submit" :disabled="busy">Sign in</ElButton>
    </ElForm>
  </main>
</template>

<style scoped>
.cover {
  height: 100%;
  display: grid;
  place-content: center;
  gap: 18px;
}
.line {
  width: 420px;
}
.card {
  width: 420px;
  display: grid;
  gap: 12px;
}
.card > .el-button {
  height: 32px;
}
</style>

<script setup lang="ts">
import { onMounted, ref } from 'vue';
import { useRouter } from 'vue-router';
import { get, put } from '../api/client';
import type { MemberRequest, MemberView } from '../api/types';
import { useProject } from '../state/project';
import { useSession } from '../state/session';
import AccountSection from './AccountSection.vue';
import OverPage from './OverPage.vue';

const project = useProject();
const session = useSession();
const router = useRouter();
const members = ref<MemberView[]>([]);
const username = ref('');
const role = ref('editor');
const isOwner = () => project.overview?.role === 'owner';

onMounted(async () => (members.value = await get<MemberView[]>(project.path('/members'))));

async function give(name: string, as: string) {
  const ok = await project.attempt(async () => {
    members.value = await put<MemberView[]>(project.path('/members'), { username: name, role: as } satisfies MemberRequest);
  });
  if (ok) username.value = '';
}

async function leave() {
  await session.signOut();
  await router.push('/sign-in');
}
</script>

<template>
  <OverPage title="People">
    <template #actions>
      <span class="quiet">{{ session.user?.name }}</span>
      <button class="link" @click="leave">sign out</button>
    </template>
    <p class="quiet">Owners manage people, owners and editors change the project, reviewers read it.</p>
    <div v-for="m in members" :key="m.username" class="line">
      <strong>{{ m.name }}</strong><span class="quiet">{{ m.username }}</span>
      <select
        class="input"
        :aria-label="`Role of ${m.username}`"
        :value="m.role"
        :disabled="!isOwner()"
        @change="give(m.username, ($event.target as HTMLSelectElement).value)"
      >
        <option value="owner">owner</option>
        <option value="editor">editor</option>
        <option value="reviewer">reviewer</option>
        <option value="none">take out</option>
      </select>
    </div>
    <form v-if="isOwner()" class="line" @submit.prevent="give(username, role)">
      <input v-model="username" class="input" placeholder="account name" aria-label="Account name" required />
      <select v-model="role" class="input" aria-label="Role">
        <option value="editor">editor</option>
        <option value="reviewer">reviewer</option>
        <option value="owner">owner</option>
      </select>
      <button class="button" type="submit">Let in</button>
    </form>
    <AccountSection />
  </OverPage>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: 1fr 130px 110px;
  gap: 12px;
  align-items: center;
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
}
</style>

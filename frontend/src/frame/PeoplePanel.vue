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
      <ElButton link type="primary" @click="leave">sign out</ElButton>
    </template>
    <p class="quiet">Owners manage people, owners and editors change the project, reviewers read it.</p>
    <div v-for="m in members" :key="m.username" class="line">
      <strong>{{ m.name }}</strong><span class="quiet">{{ m.username }}</span>
      <ElSelect :aria-label="`Role of ${m.username}`" :model-value="m.role" :disabled="!isOwner()" @change="give(m.username, $event)">
        <ElOption value="owner" label="owner" />
        <ElOption value="editor" label="editor" />
        <ElOption value="reviewer" label="reviewer" />
        <ElOption value="none" label="take out" />
      </ElSelect>
    </div>
    <form v-if="isOwner()" class="line" @submit.prevent="give(username, role)">
      <ElInput v-model="username" placeholder="account name" aria-label="Account name" required />
      <ElSelect v-model="role" aria-label="Role">
        <ElOption value="editor" label="editor" />
        <ElOption value="reviewer" label="reviewer" />
        <ElOption value="owner" label="owner" />
      </ElSelect>
      <ElButton type="primary" plain native-type="submit">Let in</ElButton>
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

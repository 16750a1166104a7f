<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import { useRouter } from 'vue-router';
import { get, post, Problem, reasonOf } from '../api/client';
import type { CreateRequest, ProjectCard } from '../api/types';
import SystemPicker from '../fields/SystemPicker.vue';
import { useProject } from '../state/project';
import { useSession } from '../state/session';

const router = useRouter();
const session = useSession();
const projects = ref<ProjectCard[] | null>(null);
const name = ref('');
const reference = ref('EPSG:25830');
const error = ref('');
const failure = ref('');
const heights = computed(() => (reference.value === 'plane' ? 'local' : 'ellipsoidal'));

onMounted(async () => {
  useProject().close();
  await load();
});

async function load() {
  failure.value = '';
  try {
    projects.value = await get<ProjectCard[]>('/api/projects');
  } catch (e) {
    failure.value = reasonOf(e);
  }
}

async function create() {
  error.value = '';
  try {
    const project = await post<ProjectCard>('/api/projects', {
      name: name.value,
      reference: reference.value,
      heights: heights.value,
    } satisfies CreateRequest);
    await router.push(`/p/${project.id}/intake`);
  } catch (e) {
    error.value = e instanceof Problem ? e.message : String(e);
  }
}

async function leave() {
  await session.signOut();
  await router.push('/sign-in');
}
</script>

<template>
  <div class="desk">
    <header>
      <h1>Mensura</h1>
      <span class="spacer" />
      <ElButton text @click="session.toggleTheme()">{{ session.theme === 'paper' ? 'night page' : 'light page' }}</ElButton>
      <span class="quiet">{{ session.user?.name }}</span>
      <ElButton link type="primary" @click="leave">sign out</ElButton>
    </header>
    <main>
      <section>
        <h2>Projects</h2>
        <ElAlert v-if="failure" type="error" :closable="false"
          ><span>{{ failure }}</span
          ><ElButton link type="primary" @click="load">Load again</ElButton></ElAlert
        >
        <ElSkeleton v-else-if="projects === null" :rows="4" animated aria-label="Loading the projects" />
        <p v-else-if="projects.length === 0" class="quiet">No project yet. Open one on the right; then drop your field files into it.</p>
        <router-link v-for="p in projects ?? []" :key="p.id" class="row" :to="`/p/${p.id}/network`">
          <strong>{{ p.name }}</strong>
          <span class="mono">{{ p.reference === 'plane' ? 'plane' : p.reference }}</span>
          <span class="quiet">{{ p.heights }} heights</span>
          <span class="quiet">{{ p.role }}</span>
        </router-link>
      </section>
      <ElForm label-position="top" @submit.prevent="create">
        <h2>New project</h2>
        <ElFormItem label="name"><ElInput id="project-name" v-model="name" required maxlength="200" /></ElFormItem>
        <SystemPicker
          id="project-reference"
          v-model="reference"
          label="coordinates are in"
          path="/api/systems"
          :also="[{ value: 'plane', label: 'plane local system' }]"
        />
        <p class="quiet">
          Heights: {{ heights }}.
          {{
            heights === 'local'
              ? 'Flat and right-angled, no earth curvature.'
              : 'Above the ellipsoid; a geoid is chosen on the Reference stage.'
          }}
        </p>
        <ElAlert v-if="error" type="error" :closable="false">{{ error }}</ElAlert>
        <ElButton type="primary" native-type="submit">Open the project</ElButton>
      </ElForm>
    </main>
  </div>
</template>

<style scoped>
.desk {
  height: 100%;
  overflow: auto;
}
header {
  display: flex;
  gap: 18px;
  align-items: center;
  height: 44px;
  padding: 0 24px;
  border-bottom: 1px solid var(--rule);
}
header h1 {
  font-size: 15px;
}
main {
  display: grid;
  grid-template-columns: 1fr 360px;
  gap: 48px;
  max-width: 1080px;
  margin: 32px auto;
  padding: 0 24px;
}
h2 {
  margin-bottom: 8px;
}
.row {
  display: grid;
  grid-template-columns: 1fr 110px 140px 70px;
  gap: 12px;
  padding: 10px 4px;
  border-top: 1px solid var(--rule);
  color: inherit;
  text-decoration: none;
}
.row:hover {
  background: var(--cobalt-soft);
}
.el-form {
  display: grid;
  gap: 10px;
  align-content: start;
}
.el-form > .el-button {
  justify-self: start;
}
@media (max-width: 900px) {
  main {
    grid-template-columns: 1fr;
  }
}
</style>

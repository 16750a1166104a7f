<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import { useRouter } from 'vue-router';
import { get, post, Problem, reasonOf } from '../api/client';
import type { BroughtProject, CreateRequest, ProjectCard } from '../api/types';
import FilePick from '../fields/FilePick.vue';
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

/** An archive of a project, from here or from another office: a project of its own beside the others. */
const bringing = ref(false);
async function bring(files: File[]) {
  if (!files[0]) return;
  error.value = '';
  bringing.value = true;
  try {
    const form = new FormData();
    form.append('file', files[0]);
    const brought = await post<BroughtProject>('/api/archives', form);
    await router.push(`/p/${brought.project}/network`);
  } catch (e) {
    error.value = e instanceof Problem ? e.message : String(e);
  } finally {
    bringing.value = false;
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
        <h2 class="second">Or from an archive</h2>
        <p class="quiet">A project that was written as an archive, here or in another office, comes back as it was.</p>
        <FilePick
          :text="bringing ? 'Comparing it with its hashes…' : 'Choose the archive…'"
          accept=".zip"
          :disabled="bringing"
          test="bring-archive"
          @files="bring"
        />
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
h2.second {
  margin-top: 22px;
  padding-top: 14px;
  border-top: 1px solid var(--rule);
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

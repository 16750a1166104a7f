<script setup lang="ts">
import { onMounted, ref } from 'vue';
import { get, post, reasonOf } from '../api/client';
import type { CopyRequest, WrittenArchive } from '../api/types';
import { fileSize, when } from '../format/units';
import { useProject } from '../state/project';
import OverPage from './OverPage.vue';

/** The whole project out as one file, and a copy of it for trying things. */
const project = useProject();
const archives = ref<WrittenArchive[]>([]);
const called = ref(`${project.overview?.name ?? ''}, copy`);

const failure = ref('');

async function load() {
  failure.value = '';
  try {
    archives.value = await get<WrittenArchive[]>(project.path('/archives'));
  } catch (e) {
    failure.value = reasonOf(e);
  }
}
onMounted(load);

async function write() {
  await project.attempt(() => project.job(post(project.path('/archives'))), 'Written and read back: every entry is what it was.');
  await load();
}

async function copy() {
  await project.attempt(
    () => project.job(post(project.path('/copy'), { called: called.value } satisfies CopyRequest)),
    `${called.value} is among your projects.`,
  );
}
</script>

<template>
  <OverPage title="Archive and copy">
    <section>
      <h3>Project archive</h3>
      <p class="quiet">
        One zip of open files: the files as received, all tables, every result, the ledger with what each entry changed. Brought in again,
        here or in another office, it is the same project, entry by entry; people and their rights stay here.
      </p>
      <ElButton v-if="project.mayChange" type="primary" plain data-test="write-archive" @click="write">Write the archive</ElButton>
      <ElAlert v-if="failure" type="error" :closable="false"
        ><span>{{ failure }}</span
        ><ElButton link type="primary" @click="load">Load again</ElButton></ElAlert
      >
      <p v-else-if="archives.length === 0" class="quiet">None is written yet.</p>
      <ul v-else>
        <li v-for="a in archives" :key="a.job" class="line">
          <span
            ><strong>{{ when(a.at) }}</strong> <span class="quiet">{{ a.author }}</span><br /><span
              class="mono quiet"
              title="One hash of all it holds: two archives with the same are the same project"
              >{{ a.fingerprint.slice(0, 16) }}</span
            ></span
          >
          <span class="mono">{{ fileSize(a.bytes) }}</span>
          <ElButton tag="a" size="small" :href="project.path(`/archives/${a.job}`)">Download</ElButton>
        </li>
      </ul>
    </section>
    <form v-if="project.mayChange" @submit.prevent="copy">
      <h3>Copy</h3>
      <p class="quiet">A project of its own with all that is in this one, for trying things. What is done there changes nothing here.</p>
      <label><span class="label">called</span><ElInput v-model="called" aria-label="Name of the copy" required maxlength="200" /></label>
      <ElButton type="primary" plain native-type="submit" data-test="copy-project" :disabled="called.trim() === ''"
        >Copy the project</ElButton
      >
    </form>
  </OverPage>
</template>

<style scoped>
section,
form {
  display: grid;
  gap: 10px;
  justify-items: start;
  padding-bottom: 18px;
}
form {
  padding-top: 14px;
  border-top: 1px solid var(--rule);
}
label,
ul {
  width: 100%;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
.line {
  display: grid;
  grid-template-columns: 1fr 80px auto;
  gap: 12px;
  align-items: center;
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
}
</style>

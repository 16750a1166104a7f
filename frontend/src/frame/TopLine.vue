<script setup lang="ts">
import { computed } from 'vue';
import { angleName } from '../format/units';
import { useProject } from '../state/project';
import { useSession } from '../state/session';

const project = useProject();
const session = useSession();
const overview = computed(() => project.overview!);
const running = computed(() => project.busyJobs[0] ?? null);
</script>

<template>
  <header class="top">
    <router-link to="/" class="home" title="All projects">Mensura</router-link>
    <router-link to="/" class="name" title="Change project">{{ overview.name }}</router-link>
    <ElTooltip :content="overview.referenceName" :show-after="400" :enterable="false"
      ><router-link class="fact" :to="`/p/${overview.id}/reference`">
        <span class="quiet">frame</span> <span class="mono">{{ overview.reference }}</span>
      </router-link></ElTooltip
    >
    <router-link class="fact" :to="`/p/${overview.id}/reference`">
      <span class="quiet">heights</span>{{ ' ' }}
      <span class="mono">{{ overview.heights === 'geoid' ? `above ${overview.geoid}` : overview.heights }}</span>
    </router-link>
    <ElButton text class="fact" data-test="units" @click="project.panel = project.panel === 'units' ? null : 'units'">
      <span class="quiet">units</span> <span class="mono">{{ overview.units.length }} · {{ angleName(overview.units) }}</span>
    </ElButton>
    <span class="spacer" />
    <ElButton v-if="running" text class="fact job" data-test="job" @click="project.panel = 'jobs'">
      <ElProgress :percentage="100 * running.progress" :show-text="false" :stroke-width="6" :aria-label="running.title" />
      {{ running.stage || running.title }}
    </ElButton>
    <ElButton v-if="overview.stale.length > 0" text class="fact stale" data-test="stale" @click="project.panel = 'ledger'">
      <span aria-hidden="true">◐</span> {{ overview.stale.length }} stale
    </ElButton>
    <ElButton text class="fact" data-test="ledger" @click="project.panel = project.panel === 'ledger' ? null : 'ledger'">Ledger</ElButton>
    <ElButton text class="fact" @click="project.panel = 'search'">/ search</ElButton>
    <ElButton
      text
      class="fact"
      data-test="help"
      aria-label="Help and keys"
      @click="project.panel = project.panel === 'keys' ? null : 'keys'"
      >?</ElButton
    >
    <ElButton
      text
      class="fact"
      :aria-label="session.theme === 'paper' ? 'Change to the night page' : 'Change to the light page'"
      @click="session.toggleTheme()"
    >
      {{ session.theme === 'paper' ? '☾' : '☀' }}
    </ElButton>
    <ElTooltip :content="`${session.user?.name}, ${overview.role}`" :show-after="400" :enterable="false"
      ><ElButton text class="fact" data-test="people" @click="project.panel = project.panel === 'people' ? null : 'people'">
        {{ session.user?.username }}
      </ElButton></ElTooltip
    >
  </header>
</template>

<style scoped>
.top {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 2px 16px;
  min-height: 42px;
  flex: none;
  padding: 6px 16px;
  border-bottom: 1px solid var(--rule);
  white-space: nowrap;
}
.home,
.name {
  color: inherit;
  text-decoration: none;
  font-weight: 600;
  font-size: 14.5px;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
}
.fact {
  color: inherit;
  text-decoration: none;
  font-size: 12px;
}
.fact:hover {
  color: var(--cobalt);
}
.stale {
  color: var(--ochre);
  font-weight: 600;
}
.job {
  display: flex;
  gap: 8px;
  align-items: center;
  max-width: 240px;
  overflow: hidden;
}
.job .el-progress {
  width: 60px;
}
</style>

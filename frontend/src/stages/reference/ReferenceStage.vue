<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import { get, put } from '../../api/client';
import type { ReferenceRequest, SystemView } from '../../api/types';
import TwoPages from '../../frame/TwoPages.vue';
import { angleName } from '../../format/units';
import MapSketch from '../../sketch/MapSketch.vue';
import { pointsScene } from '../../sketch/scene';
import { useProject } from '../../state/project';

const project = useProject();
const text = ref('');
const systems = ref<SystemView[]>([]);
const overview = computed(() => project.overview!);
const isPlane = computed(() => overview.value.reference === 'plane');
const scene = computed(() => pointsScene(project.points));
let timer = 0;

function search() {
  window.clearTimeout(timer);
  timer = window.setTimeout(async () => (systems.value = await get<SystemView[]>(`/api/systems?q=${encodeURIComponent(text.value)}`)), 120);
}

const state = (reference: string) =>
  project.attempt(
    () =>
      put(project.path('/reference'), { reference, heights: reference === 'plane' ? 'local' : 'ellipsoidal' } satisfies ReferenceRequest),
    'The reference is stated.',
  );
onMounted(search);
</script>

<template>
  <TwoPages>
    <template #figures>
      <div class="sheet">
        <div>
          <h1>{{ isPlane ? 'Coordinates lie in a plane local system' : `Coordinates are in ${overview.referenceName}` }}</h1>
          <p>
            {{
              isPlane
                ? 'Eastings, northings and heights are right-angled; no earth curvature, no refraction, no projection.'
                : 'The network is solved in three dimensions on the ellipsoid; eastings and northings are grid coordinates of the projection.'
            }}
          </p>
        </div>
        <dl>
          <dt>frame</dt>
          <dd class="mono">{{ overview.reference }}</dd>
          <dt>heights</dt>
          <dd>
            {{ overview.heights === 'local' ? 'local heights above the plane' : 'ellipsoidal, metres above the ellipsoid of the datum' }}
          </dd>
          <dt>stored in</dt>
          <dd>metres and degrees, always</dd>
          <dt>shown in</dt>
          <dd>
            {{ overview.units.length }} and {{ angleName(overview.units) }}, {{ overview.units.decimals }} decimals
            <button class="link" @click="project.panel = 'units'">change</button>
          </dd>
        </dl>
        <div class="tabs">
          <h2>State another system</h2>
          <span class="spacer" />
        </div>
        <div class="finder">
          <input
            v-model="text"
            class="input"
            placeholder="a code or words, such as utm 30"
            aria-label="Search a coordinate system"
            @input="search"
          />
          <button class="button plain" :disabled="!project.mayChange || isPlane" @click="state('plane')">Plane local system</button>
        </div>
        <div class="scroll list">
          <div v-for="s in systems" :key="s.code" class="system">
            <span class="mono">{{ s.code }}</span><span>{{ s.name }}</span>
            <span v-if="s.code === overview.reference" class="holds">✓ in use</span>
            <button v-else class="link" :disabled="!project.mayChange" @click="state(s.code)">use</button>
          </div>
          <p v-if="systems.length === 0" class="quiet">No system is called that. UTM zones on ETRS89, WGS 84 and NAD83 are known so far.</p>
        </div>
        <p class="quiet foot">
          Moving points from one system into another is not built yet, so a project that holds points keeps its projected system. Geoid
          heights are not built yet either.
        </p>
      </div>
    </template>
    <template #sketch><MapSketch :scene="scene" /></template>
  </TwoPages>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 90px 1fr;
  gap: 5px 12px;
  margin: 4px 0;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
.finder {
  display: flex;
  gap: 10px;
}
.list {
  flex: 1;
}
.system {
  display: grid;
  grid-template-columns: 110px 1fr 70px;
  gap: 10px;
  padding: 5px 4px;
  border-bottom: 1px solid var(--rule);
}
.foot {
  padding-bottom: 12px;
}
</style>

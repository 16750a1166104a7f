<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue';
import { get, reasonOf } from '../../api/client';
import { latest } from '../../api/latest';
import type { ReferenceView, SystemDetail, SystemHit } from '../../api/types';
import type { Scene } from '../../sketch/scene';
import { useProject } from '../../state/project';
import ChangeSheet from './ChangeSheet.vue';
import SystemFacts from './SystemFacts.vue';

const props = defineProps<{ view: ReferenceView }>();
const emit = defineEmits<{ scene: [scene: Partial<Scene> | null] }>();
const project = useProject();
const text = ref('');
const hits = ref<SystemHit[]>([]);
const problem = ref('');
const chosen = ref('');
const detail = ref<SystemDetail | null>(null);
const changing = ref(false);
const own = computed(() => project.overview!.reference);
const shown = computed(() => (chosen.value !== '' && chosen.value !== own.value ? detail.value : props.view.system));
let timer = 0;
const searches = latest();
const details = latest();

function search() {
  window.clearTimeout(timer);
  timer = window.setTimeout(find, 140);
}

function find() {
  return searches.ask(
    () => get<SystemHit[]>(project.path(`/reference/systems?q=${encodeURIComponent(text.value)}`)),
    show,
    (e) => {
      hits.value = [];
      problem.value = reasonOf(e);
    },
  );
}

function show(found: SystemHit[]) {
  hits.value = found;
  problem.value =
    found.length > 0
      ? ''
      : text.value.trim() === ''
        ? 'Type a code or words, such as utm 30.'
        : `No system is called “${text.value}”. Try a code, a zone such as utm 30, or the word here.`;
}

function choose(reference: string) {
  chosen.value = reference;
  detail.value = null;
  details.forget();
  if (reference === 'plane') return;
  void details.ask(
    () => get<SystemDetail>(project.path(`/reference/system?reference=${encodeURIComponent(reference)}`)),
    (system) => (detail.value = system),
    (e) => (problem.value = reasonOf(e)),
  );
}

async function changed() {
  changing.value = false;
  chosen.value = '';
  await find();
}

onMounted(find);
watch(changing, (on) => !on && emit('scene', null));
</script>

<template>
  <ChangeSheet
    v-if="changing"
    :target="chosen === '' ? own : chosen"
    :target-name="chosen === 'plane' ? 'a plane local system' : (shown?.name ?? '')"
    :view="view"
    @done="changed"
    @back="changing = false"
    @scene="(s) => emit('scene', s)"
  />
  <template v-else>
    <div class="finder">
      <ElInput
        v-model="text"
        data-test="system-search"
        placeholder="a code, words such as utm 30, or: here"
        aria-label="Search a coordinate system"
        @input="search"
      />
      <ElTooltip content="Systems whose area covers the project’s points" :show-after="400"
        ><ElButton :disabled="view.extent === null" @click="((text = 'here'), find())"> here </ElButton></ElTooltip
      >
      <ElButton @click="choose('plane')">plane local system</ElButton>
    </div>
    <div class="scroll list" data-test="system-hits">
      <ElButton
        v-for="s in hits"
        :key="s.reference"
        text
        class="hit"
        :class="{ on: s.reference === (chosen || own) }"
        @click="choose(s.reference)"
      >
        <span class="mono">{{ s.reference }}</span>
        <span class="name"
          >{{ s.name }}<span v-if="s.deprecated" class="doubt"> deprecated</span
          ><span class="quiet area"> {{ s.area.split(/[:;.]/)[0] }}</span></span
        >
        <span class="quiet why">{{ s.reference === own ? '✓ in use' : s.recent && !s.why ? 'used lately' : s.why }}</span>
      </ElButton>
      <p v-if="problem" class="quiet none" role="status">{{ problem }}</p>
    </div>
    <div class="part">
      <h2>{{ chosen === 'plane' ? 'Plane local system' : (shown?.name ?? 'Plane local system') }}</h2>
      <span v-if="chosen === '' || chosen === own" class="holds">✓ in use</span>
      <span class="spacer" />
      <ElButton
        v-if="chosen !== '' && chosen !== own"
        type="primary"
        data-test="change"
        :disabled="!project.mayChange"
        @click="changing = true"
      >
        Change to this system
      </ElButton>
    </div>
    <div class="scroll facts">
      <SystemFacts v-if="shown && chosen !== 'plane'" :system="shown" />
      <p v-else>Eastings, northings and heights are right-angled: no earth curvature, no refraction, no projection.</p>
      <p class="quiet foot">Registry: EPSG data set {{ view.registry }}.</p>
    </div>
  </template>
</template>

<style scoped>
.finder {
  display: flex;
  gap: 8px;
}
.list {
  flex: 0 1 216px;
  min-height: 96px;
  border-bottom: 1px solid var(--rule);
}
.list > .hit {
  width: 100%;
  border-bottom: 1px solid var(--rule);
  border-radius: 0;
}
.hit :deep(> span) {
  display: grid;
  grid-template-columns: 88px minmax(0, 1fr) auto;
  gap: 10px;
  width: 100%;
  text-align: left;
  padding: 4px 6px;
}
.list > .hit:hover {
  background: var(--paper-deep);
}
.list > .hit.on {
  background: var(--cobalt-soft);
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.area {
  font-size: 11.5px;
  margin-left: 8px;
}
.why {
  font-size: 11.5px;
  white-space: nowrap;
}
.none {
  padding: 10px 6px;
}
.facts {
  flex: 1 1 200px;
  padding-right: 8px;
}
.foot {
  padding: 8px 0 12px;
  font-size: 11.5px;
}
</style>

<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { get, post } from '../../api/client';
import type { ReferenceView, SystemDetail } from '../../api/types';
import type { Scene } from '../../sketch/scene';
import PageTabs from '../../frame/PageTabs.vue';
import { useProject } from '../../state/project';
import ChangeSheet from './ChangeSheet.vue';
import OwnDefinition from './OwnDefinition.vue';
import OwnGround from './OwnGround.vue';
import OwnLowDistortion from './OwnLowDistortion.vue';
import type { Offer } from './ownSystem';
import SystemFacts from './SystemFacts.vue';

defineProps<{ view: ReferenceView }>();
const emit = defineEmits<{ scene: [scene: Partial<Scene> | null]; changed: [] }>();
const WAYS = [
  ['method', 'By method'],
  ['text', 'From a text'],
  ['low', 'Low distortion'],
  ['ground', 'Scaled to the ground'],
] as const;

const project = useProject();
const how = ref<'method' | 'text' | 'low' | 'ground'>('method');
const name = ref('');
const offer = ref<Offer | null>(null);
const opened = ref<SystemDetail | null>(null);
const changing = ref<{ reference: string; name: string } | null>(null);
const ready = computed(() => name.value.trim() !== '' && offer.value !== null);
watch(how, () => emit('scene', null));

async function keep() {
  const { path, body } = offer.value!;
  const kept = { ...body, name: name.value.trim() };
  if (await project.attempt(() => post(project.path(path), kept), `${kept.name} is kept with the project.`)) {
    name.value = '';
    emit('changed');
  }
}

async function open(id: number) {
  opened.value =
    opened.value?.reference === `custom:${id}` ? null : await get<SystemDetail>(project.path(`/reference/system?reference=custom:${id}`));
}
</script>

<template>
  <ChangeSheet
    v-if="changing"
    :target="changing.reference"
    :target-name="changing.name"
    :view="view"
    @done="changing = null"
    @back="changing = null"
    @scene="(s) => emit('scene', s)"
  />
  <div v-else class="scroll own">
    <section v-if="view.customs.length > 0" class="kept" aria-label="Systems of this project">
      <div v-for="c in view.customs" :key="c.id" class="row">
        <strong>{{ c.name }}</strong>
        <ElButton link type="primary" @click="open(c.id)">{{ opened?.reference === `custom:${c.id}` ? 'close' : 'open' }}</ElButton>
        <a class="link" :href="project.path(`/reference/custom/${c.id}.wkt`)">WKT2</a>
        <a class="link" :href="project.path(`/reference/custom/${c.id}.proj`)">PROJ</a>
        <span v-if="project.overview!.reference === `custom:${c.id}`" class="holds">✓ in use</span>
        <ElButton
          v-else
          link
          type="primary"
          :disabled="!project.mayChange"
          @click="changing = { reference: `custom:${c.id}`, name: c.name }"
        >
          change to it
        </ElButton>
      </div>
      <SystemFacts v-if="opened" :system="opened" />
    </section>
    <PageTabs v-model="how" :tabs="WAYS" test="own" label="How the system is made" />

    <OwnDefinition
      v-if="how === 'method' || how === 'text'"
      :view="view"
      :how="how"
      :name="name"
      @offer="(o) => (offer = o)"
      @named="(n) => (name ||= n)"
    />
    <OwnLowDistortion v-else-if="how === 'low'" :view="view" @offer="(o) => (offer = o)" @scene="(s) => emit('scene', s)" />
    <OwnGround v-else @offer="(o) => (offer = o)" />
    <div class="keep">
      <ElFormItem class="field half" label="name"><ElInput v-model="name" maxlength="160" data-test="own-name" /></ElFormItem>
      <ElButton type="primary" data-test="own-keep" :disabled="!project.mayChange || !ready" @click="keep">Keep with the project</ElButton>
    </div>
  </div>
</template>

<style scoped>
.own {
  display: grid;
  gap: 10px;
  align-content: start;
  padding: 0 8px 14px 0;
  flex: 1;
}
.kept .row {
  display: flex;
  gap: 14px;
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
}
.kept .row strong {
  flex: 1;
}
.half {
  width: 260px;
}
.keep {
  display: flex;
  gap: 12px;
  align-items: flex-end;
}
</style>

<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { isTyping } from '../frame/keys';
import { useSession } from '../state/session';
import type { ColourBy, Range } from './cloudColours';
import { CloudSpace, type Met } from './cloudSpace';

/** A cloud in space, and places picked in it. */
const props = defineProps<{ url: string; by: ColourBy; heights: Range; extent: number[]; picked: [number, number, number][] }>();
const emit = defineEmits<{ pick: [met: Met] }>();
const session = useSession();
const host = ref<HTMLElement>();
const failure = ref('');
let space: CloudSpace | null = null;
let pressedAt: [number, number] = [0, 0];
let watcher: ResizeObserver | null = null;

const ink = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
const marked = () => space?.mark(props.picked, ink('--cobalt'));
function show() {
  space?.show(props.url, props.by, props.heights, props.extent);
  marked();
}

/** A click, not the end of a turn, picks. */
function released(event: PointerEvent) {
  if (event.button !== 0 || Math.hypot(event.clientX - pressedAt[0], event.clientY - pressedAt[1]) > 4) return;
  const met = space?.meet(event.clientX, event.clientY);
  if (met) emit('pick', met);
}

const TURNS: Record<string, [number, number, number]> = {
  ArrowLeft: [-0.08, 0, 1],
  ArrowRight: [0.08, 0, 1],
  ArrowUp: [0, 0.08, 1],
  ArrowDown: [0, -0.08, 1],
  '+': [0, 0, 1.15],
  '-': [0, 0, 1 / 1.15],
};
function turned(event: KeyboardEvent) {
  const turn = TURNS[event.key];
  if (!turn || event.ctrlKey || event.metaKey) return;
  event.preventDefault();
  space?.turn(...turn);
}
function key(event: KeyboardEvent) {
  if (!isTyping(event) && event.key === 'z' && !event.ctrlKey) space?.home();
}

onMounted(() => {
  try {
    space = new CloudSpace(host.value!);
  } catch {
    failure.value = 'This browser cannot draw in three dimensions (no WebGL). The map shows the same cloud.';
    return;
  }
  space.background(ink('--sketch'));
  watcher = new ResizeObserver(() => space?.resize());
  watcher.observe(host.value!);
  space.resize();
  show();
  window.addEventListener('keydown', key);
});
onBeforeUnmount(() => {
  window.removeEventListener('keydown', key);
  watcher?.disconnect();
  space?.dispose();
});
watch(() => props.url, show);
watch(
  () => props.by,
  (by) => space?.colourBy(by),
);
watch(() => props.picked, marked);
watch(
  () => session.theme,
  () => space?.background(ink('--sketch')),
);
defineExpose({ shown: () => space?.shown() ?? 0 });
</script>

<template>
  <div
    ref="host"
    class="space"
    role="img"
    tabindex="0"
    aria-label="The cloud in space: arrows turn it, plus and minus come closer and go away, z shows all of it"
    data-test="cloud-space"
    @keydown="turned"
    @pointerdown="(e: PointerEvent) => (pressedAt = [e.clientX, e.clientY])"
    @pointerup="released"
  >
    <p v-if="failure" class="failure">{{ failure }}</p>
  </div>
</template>

<style scoped>
.space {
  position: absolute;
  inset: 0;
}
.space:focus-visible {
  outline: 2px solid var(--cobalt);
  outline-offset: -2px;
}
.failure {
  padding: 60px 20px;
}
</style>

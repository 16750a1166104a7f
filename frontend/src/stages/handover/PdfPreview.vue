<script setup lang="ts">
import type { PDFDocumentProxy } from 'pdfjs-dist';
import { nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue';

/** A PDF as it will be printed, page under page. */
const props = defineProps<{ bytes: ArrayBuffer | null; label: string }>();

const host = ref<HTMLElement>();
const pages = ref<{ width: number; height: number }[]>([]);
const actual = ref(false);
const failure = ref('');
const drawn = ref(0);
/** Screen units to a millimetre of paper, as browsers take them. */
const PER_MM = 96 / 25.4;
let pdf: PDFDocumentProxy | null = null;
let turn = 0;

async function open() {
  const mine = (turn += 1);
  drawn.value = 0;
  failure.value = '';
  await pdf?.loadingTask.destroy();
  pdf = null;
  if (!props.bytes) {
    pages.value = [];
    return;
  }
  try {
    // Loaded when the first sheet is shown; the build for browsers that are not the newest.
    const [pdfjs, worker] = await Promise.all([
      import('pdfjs-dist/legacy/build/pdf.mjs'),
      import('pdfjs-dist/legacy/build/pdf.worker.min.mjs?worker'),
    ]);
    pdfjs.GlobalWorkerOptions.workerPort ??= new worker.default();
    const opened = await pdfjs.getDocument({ data: new Uint8Array(props.bytes.slice(0)) }).promise;
    if (mine !== turn) return;
    pdf = opened;
    const sizes = [];
    for (let k = 1; k <= opened.numPages; k += 1) {
      const { width, height } = (await opened.getPage(k)).getViewport({ scale: 1 });
      sizes.push({ width, height });
    }
    pages.value = sizes;
    await nextTick();
    await draw(mine);
  } catch (e) {
    if (mine === turn) failure.value = `This PDF cannot be shown: ${String(e instanceof Error ? e.message : e)}`;
  }
}

async function draw(mine: number) {
  const canvases = [...(host.value?.querySelectorAll('canvas') ?? [])];
  for (const [k, canvas] of canvases.entries()) {
    if (!pdf || mine !== turn) return;
    const page = await pdf.getPage(k + 1);
    const room = (host.value?.clientWidth ?? 600) - 28;
    const scale = actual.value ? (PER_MM * 25.4) / 72 : room / page.getViewport({ scale: 1 }).width;
    const sharp = window.devicePixelRatio || 1;
    const viewport = page.getViewport({ scale: scale * sharp });
    [canvas.width, canvas.height] = [viewport.width, viewport.height];
    canvas.style.width = `${viewport.width / sharp}px`;
    await page.render({ canvas, viewport }).promise;
    drawn.value = k + 1;
  }
}

onMounted(open);
onBeforeUnmount(() => {
  turn += 1;
  void pdf?.loadingTask.destroy();
});
watch(() => props.bytes, open);
watch(actual, () => void draw((turn += 1)));
</script>

<template>
  <div class="preview">
    <div class="head">
      <strong>{{ label }}</strong>
      <span v-if="pages.length > 0" class="quiet mono"
        >{{ Math.round((pages[0]!.width * 25.4) / 72) }} × {{ Math.round((pages[0]!.height * 25.4) / 72) }} mm</span
      >
      <span class="spacer" />
      <ElRadioGroup v-model="actual" size="small" aria-label="Size on the screen">
        <ElRadioButton :value="false">whole</ElRadioButton><ElRadioButton :value="true">true size</ElRadioButton>
      </ElRadioGroup>
    </div>
    <div ref="host" class="pages" tabindex="0" :data-drawn="drawn" role="img" :aria-label="`${label}, as a PDF`">
      <ElAlert v-if="failure" type="error" :closable="false">{{ failure }}</ElAlert>
      <p v-else-if="pages.length === 0" class="quiet"><slot /></p>
      <canvas v-for="(_p, k) in pages" :key="k" />
    </div>
  </div>
</template>

<style scoped>
.preview {
  height: 100%;
  display: flex;
  flex-direction: column;
}
.head {
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 8px 14px;
}
.pages {
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 4px 14px 14px;
  background: var(--paper-deep);
}
canvas {
  display: block;
  margin: 8px 0;
  background: #fff;
  box-shadow: var(--shadow);
}
</style>

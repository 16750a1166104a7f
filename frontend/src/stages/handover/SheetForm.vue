<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { post } from '../../api/client';
import { copyOf } from '../../api/copyOf';
import type { ScaleFitRequest, ScaleFitView, SheetRequest, SheetsView, SheetView } from '../../api/types';
import AskForm from '../../fields/AskForm.vue';
import FixedInput from '../../fields/FixedInput.vue';
import { useProject } from '../../state/project';
import { arranged, beyond, newWindow, paper, scaleText, type Window } from './sheets';

/** How a sheet is laid out; every change shows in the preview. */
const props = defineProps<{ choices: SheetsView; kept: SheetView | null }>();
const emit = defineEmits<{ save: [request: SheetRequest]; cancel: []; change: [request: SheetRequest] }>();
const project = useProject();
const k = props.kept;
const name = ref(k?.name ?? '');
const size = ref(k?.size ?? 'A3');
const landscape = ref(k?.landscape ?? true);
const plain = ref(k?.plain ?? false);
const windows = ref<Window[]>(k ? copyOf(k.windows) : []);
const tables = ref(k ? copyOf(k.tables) : []);
const fields = ref({ title: '', number: '', drawn: '', checked: '', date: '', company: '', ...k?.fields });
const revisions = ref(k ? copyOf(k.revisions) : []);
/** Scales at which each window shows all. */
const fitting = ref<Record<number, number[]>>({});
const page = computed(() => paper(props.choices.sizes, size.value, landscape.value));
const FIELDS = [
  ['title', 'Title'],
  ['number', 'Number'],
  ['drawn', 'Drawn by'],
  ['checked', 'Checked by'],
  ['date', 'Date'],
] as const;
const SHOWS = [
  ['grid', 'grid'],
  ['coordinates', 'coordinates'],
  ['north', 'north'],
  ['bar', 'scale bar'],
  ['legend', 'legend'],
] as const;

const request = computed<SheetRequest>(() => ({
  name: name.value.trim(),
  size: size.value,
  landscape: landscape.value,
  plain: plain.value,
  windows: windows.value,
  tables: tables.value,
  fields: fields.value,
  revisions: revisions.value,
}));
const missing = computed(() =>
  name.value.trim() === '' ? 'It needs a name.' : windows.value.length === 0 ? 'It shows nothing yet.' : beyond(windows.value, page.value),
);

async function fit(i: number, choose: boolean) {
  const w = windows.value[i];
  if (!w) return;
  const body: ScaleFitRequest = { view: w.view, width: w.width, height: w.height, rotation: w.rotation };
  try {
    const found = await post<ScaleFitView>(project.path('/handover/sheets/fit'), body);
    fitting.value = { ...fitting.value, [i]: found.scales };
    if (choose && found.scales[0]) w.scale = found.scales[0];
  } catch (e) {
    project.say('bad', String(e instanceof Error ? e.message : e));
  }
}
function arrange() {
  windows.value = arranged(windows.value, page.value, plain.value);
  windows.value.forEach((_w, i) => void fit(i, true));
}
function add() {
  const view = props.choices.views[0];
  if (!view) return;
  windows.value = [...windows.value, newWindow(view.id)];
  arrange();
}
function addTable(key: string) {
  const y = 20 + 60 * tables.value.length;
  tables.value = [...tables.value, { key, x: Math.max(15, page.value.width - 120), y, width: 105 }];
}

watch(request, (now) => emit('change', now), { deep: true, immediate: true });
windows.value.forEach((_w, i) => void fit(i, false));
if (!k) add();
</script>

<template>
  <AskForm
    :title="k ? `Sheet ${k.name}` : 'A new sheet'"
    button="Keep the sheet"
    :missing="missing"
    test="save-sheet"
    @save="emit('save', request)"
    @cancel="emit('cancel')"
  >
    <div class="line">
      <ElFormItem label="Name"><ElInput v-model="name" maxlength="80" data-test="sheet-name" aria-label="Name of the sheet" /></ElFormItem>
      <ElFormItem label="Paper">
        <ElSelect v-model="size" aria-label="Paper" @change="arrange"
          ><ElOption v-for="s in choices.sizes" :key="s.name" :value="s.name" :label="s.name"
        /></ElSelect>
      </ElFormItem>
      <ElFormItem label="lying">
        <ElRadioGroup v-model="landscape" aria-label="Lying" @change="arrange"
          ><ElRadioButton :value="true">across</ElRadioButton><ElRadioButton :value="false">upright</ElRadioButton></ElRadioGroup
        >
      </ElFormItem>
      <ElCheckbox v-model="plain" @change="arrange">drawing alone</ElCheckbox>
    </div>
    <fieldset v-for="(w, i) in windows" :key="i" class="window">
      <legend>Window {{ i + 1 }}</legend>
      <div class="line">
        <ElFormItem label="View"
          ><ElSelect v-model="w.view" :aria-label="`View of window ${i + 1}`" @change="fit(i, true)"
            ><ElOption v-for="v in choices.views" :key="v.id" :value="v.id" :label="v.name" /></ElSelect
        ></ElFormItem>
        <FixedInput v-model="w.scale" label="Scale 1 :" :digits="2" :data-test="`scale-${i}`" />
        <ElFormItem v-if="(fitting[i] ?? []).length > 0" label="shows all at"
          ><span class="fits"
            ><ElButton v-for="s in fitting[i]" :key="s" size="small" link type="primary" @click="w.scale = s">{{
              scaleText(s)
            }}</ElButton></span
          ></ElFormItem
        >
      </div>
      <div class="line">
        <FixedInput v-model="w.x" label="left" unit="mm" :digits="1" /><FixedInput v-model="w.y" label="top" unit="mm" :digits="1" />
        <FixedInput v-model="w.width" label="width" unit="mm" :digits="1" /><FixedInput
          v-model="w.height"
          label="height"
          unit="mm"
          :digits="1"
        />
        <FixedInput v-model="w.rotation" label="turned" unit="°" :digits="2" />
        <ElFormItem label="frame"
          ><ElSelect v-model="w.frame" :aria-label="`Frame of window ${i + 1}`"
            ><ElOption value="print" label="prints" /><ElOption value="screen" label="on the screen" /><ElOption
              value="none"
              label="none" /></ElSelect
        ></ElFormItem>
      </div>
      <div class="line">
        <ElCheckbox v-for="[key, text] in SHOWS" :key="key" v-model="w[key]">{{ text }}</ElCheckbox>
        <span class="spacer" />
        <ElButton size="small" text @click="windows.splice(i, 1)">take it away</ElButton>
      </div>
    </fieldset>
    <div class="line">
      <ElButton size="small" data-test="add-window" @click="add">Another window</ElButton>
      <ElButton size="small" :disabled="windows.length === 0" @click="arrange">Arrange side by side</ElButton>
      <ElButton v-for="t in choices.tables" :key="t.key" size="small" :disabled="plain" @click="addTable(t.key)"
        >Table: {{ t.title }}</ElButton
      >
    </div>
    <div v-for="(t, i) in tables" :key="i" class="line">
      <b>{{ choices.tables.find((x) => x.key === t.key)?.title ?? t.key }}</b>
      <FixedInput v-model="t.x" label="left" unit="mm" :digits="1" /><FixedInput v-model="t.y" label="top" unit="mm" :digits="1" />
      <FixedInput v-model="t.width" label="width" unit="mm" :digits="1" />
      <ElButton size="small" text @click="tables.splice(i, 1)">take it away</ElButton>
    </div>
    <template v-if="!plain">
      <h2>Title block</h2>
      <div class="line">
        <ElFormItem v-for="[key, text] in FIELDS" :key="key" :label="text"
          ><ElInput v-model="fields[key]" maxlength="120" :aria-label="text"
        /></ElFormItem>
      </div>
      <ElFormItem label="Company, as it heads the block"
        ><ElInput v-model="fields.company" type="textarea" :rows="2" maxlength="400" aria-label="Company"
      /></ElFormItem>
      <div v-for="(r, i) in revisions" :key="i" class="line">
        <ElInput v-model="r.mark" class="short" maxlength="10" :aria-label="`Mark of revision ${i + 1}`" />
        <ElInput v-model="r.date" class="short" maxlength="20" :aria-label="`Date of revision ${i + 1}`" />
        <ElInput v-model="r.text" maxlength="120" :aria-label="`Text of revision ${i + 1}`" />
        <ElButton size="small" text @click="revisions.splice(i, 1)">take it away</ElButton>
      </div>
      <div>
        <ElButton size="small" @click="revisions.push({ mark: String.fromCharCode(65 + (revisions.length % 26)), date: '', text: '' })"
          >Another revision</ElButton
        >
      </div>
    </template>
  </AskForm>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: flex-end;
}
.line > :deep(.el-form-item) {
  margin-bottom: 0;
  min-width: 92px;
}
.line > :deep(.field) {
  width: 92px;
}
.fits {
  display: flex;
  gap: 2px 12px;
  flex-wrap: wrap;
}
.window {
  border: 1px solid var(--rule);
  padding: 4px 10px 8px;
  margin: 0;
  display: grid;
  gap: 4px;
}
.short {
  width: 90px;
}
</style>

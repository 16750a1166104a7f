<script setup lang="ts" generic="Row">
import { safeCell } from './clipboard';
import {
  createTable,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  type SortingState,
  type Updater,
} from '@tanstack/table-core';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, nextTick, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue';
import { useSession } from '../state/session';
import { GLOSSARY } from '../help/glossary';
import type { Column } from './columns';
import { arrange, AS_MADE, layoutOf, needed, textOf } from './layout';

const props = withDefaults(
  defineProps<{
    columns: Column<Row>[];
    rows: Row[];
    rowKey: (row: Row) => string;
    selected: Set<string>;
    sort?: { key: string; desc: boolean };
    label: string;
    filterable?: boolean;
    dim?: (row: Row) => boolean;
  }>(),
  { sort: undefined, filterable: true, dim: undefined },
);
const emit = defineEmits<{ select: [keys: string[]]; open: [row: Row] }>();

const ROW_HEIGHT = 27;
const scroller = ref<HTMLElement>();
const filter = ref('');
const sorting = ref<SortingState>(props.sort ? [{ id: props.sort.key, desc: props.sort.desc }] : []);
const anchor = ref(-1);
const cursor = ref(-1);

/** What a column means: said with it, or known to the glossary. */
function hintOf(c: Column<Row>): string {
  return c.hint ?? GLOSSARY.get(c.title.toLowerCase()) ?? '';
}

function isNumeric(c: Column<Row>): boolean {
  return c.align === 'right';
}

/** Words must all occur; "key>3" and "key<3" compare the named column's magnitude. */
function matches(row: Row, words: string[]): boolean {
  return words.every((word) => {
    const compare = /^([a-z ]+)([<>])(-?[\d.]+)$/.exec(word);
    if (compare) {
      const column = props.columns.find(
        (c) => c.title.toLowerCase().startsWith(compare[1]!) || c.key.toLowerCase().startsWith(compare[1]!),
      );
      const value = column?.value(row);
      if (typeof value !== 'number') return false;
      return compare[2] === '>' ? Math.abs(value) > Number(compare[3]) : Math.abs(value) < Number(compare[3]);
    }
    return props.columns.some((c) => textOf(c, row).toLowerCase().includes(word));
  });
}

const table = shallowRef(make());

function make() {
  const definitions = props.columns.map((c) => ({
    id: c.key,
    accessorFn: (row: Row) => c.value(row),
    sortUndefined: 'last' as const,
    sortingFn: (a: { original: Row }, b: { original: Row }) => {
      const x = c.sortBy ? c.sortBy(a.original) : c.value(a.original);
      const y = c.sortBy ? c.sortBy(b.original) : c.value(b.original);
      if (typeof x === 'number' && typeof y === 'number') return x - y;
      if (x === null || x === undefined) return -1;
      if (y === null || y === undefined) return 1;
      return String(x).localeCompare(String(y), 'en', { numeric: true });
    },
  }));
  return createTable<Row>({
    data: props.rows,
    columns: definitions,
    state: { sorting: sorting.value, globalFilter: filter.value, columnPinning: { left: [], right: [] } },
    onStateChange: () => undefined,
    onSortingChange: (u: Updater<SortingState>) => {
      sorting.value = typeof u === 'function' ? u(sorting.value) : u;
    },
    globalFilterFn: (row, _id, value: string) => matches(row.original, value.toLowerCase().split(/\s+/).filter(Boolean)),
    getColumnCanGlobalFilter: () => true,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
    renderFallbackValue: null,
  });
}

watch([() => props.rows, () => props.columns, sorting, filter], () => (table.value = make()), { deep: false });

const shown = computed(() => table.value.getRowModel().rows);

const session = useSession();
const place = computed(() => `table.${props.label.toLowerCase().replace(/[^a-z0-9-]+/g, '-')}`);
const layout = computed(() => layoutOf(session.preferences[place.value]));
const visible = computed(() => {
  const left = props.columns.filter((c) => !layout.value.hidden.includes(c.key));
  return left.length > 0 ? left : props.columns;
});
/** While an edge is dragged, its width is not kept yet. */
const dragged = ref<Record<string, number>>({});
const arranged = computed(() =>
  arrange(visible.value, props.rows, { ...layout.value, widths: { ...layout.value.widths, ...dragged.value } }),
);
const lines = computed(() => ({ gridTemplateColumns: arranged.value.template, minWidth: `${arranged.value.least}px` }));
const more = ref(false);

/** Whether columns lie beyond the right edge. */
function look() {
  const s = scroller.value;
  more.value = !!s && s.scrollWidth - s.clientWidth - s.scrollLeft > 4;
}

function keepHidden(shownKeys: string[]) {
  void session.prefer(place.value, { ...layout.value, hidden: props.columns.map((c) => c.key).filter((k) => !shownKeys.includes(k)) });
}

function widen(c: Column<Row>, to: number) {
  void session.prefer(place.value, { ...layout.value, widths: { ...layout.value.widths, [c.key]: Math.round(Math.max(28, to)) } });
}

function drag(c: Column<Row>, event: PointerEvent) {
  const handle = event.currentTarget as HTMLElement;
  const [from, at] = [handle.parentElement!.getBoundingClientRect().width, event.clientX];
  handle.setPointerCapture(event.pointerId);
  const move = (e: PointerEvent) => (dragged.value = { [c.key]: Math.max(28, from + e.clientX - at) });
  const end = () => {
    handle.removeEventListener('pointermove', move);
    if (dragged.value[c.key] !== undefined) widen(c, dragged.value[c.key]!);
    dragged.value = {};
  };
  handle.addEventListener('pointermove', move);
  handle.addEventListener('pointerup', end, { once: true });
}

const watcher = typeof ResizeObserver === 'undefined' ? null : new ResizeObserver(look);
onMounted(() => scroller.value && watcher?.observe(scroller.value));
onBeforeUnmount(() => watcher?.disconnect());
watch(arranged, () => nextTick(look), { immediate: true });

const virtualizer = useVirtualizer(
  computed(() => ({
    count: shown.value.length,
    getScrollElement: () => scroller.value ?? null,
    estimateSize: () => ROW_HEIGHT,
    overscan: 12,
    initialRect: { width: 600, height: 600 },
  })),
);

function toggleSort(key: string, add: boolean) {
  const now = sorting.value.find((s) => s.id === key);
  const column = props.columns.find((c) => c.key === key)!;
  const next = now === undefined ? { id: key, desc: isNumeric(column) } : { id: key, desc: !now.desc };
  sorting.value = add ? [...sorting.value.filter((s) => s.id !== key), next] : [next];
}

function direction(key: string): string {
  const s = sorting.value.find((x) => x.id === key);
  return s === undefined ? '' : s.desc ? '▾' : '▴';
}

/** What is chosen here must not come back as if the other page had chosen it. */
let own = false;
function choose(keys: string[]) {
  own = true;
  emit('select', keys);
}

function pick(index: number, event: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) {
  const row = shown.value[index];
  if (!row) return;
  cursor.value = index;
  const key = props.rowKey(row.original);
  if (event.shiftKey && anchor.value >= 0) {
    const [a, b] = [Math.min(anchor.value, index), Math.max(anchor.value, index)];
    choose(shown.value.slice(a, b + 1).map((r) => props.rowKey(r.original)));
    return;
  }
  anchor.value = index;
  if (event.ctrlKey || event.metaKey) {
    const next = new Set(props.selected);
    if (!next.delete(key)) next.add(key);
    choose([...next]);
  } else {
    choose([key]);
  }
}

async function copy() {
  const chosen = shown.value.filter((r) => props.selected.has(props.rowKey(r.original)));
  const lines = chosen.map((r) => visible.value.map((c) => safeCell(textOf(c, r.original))).join('\t'));
  await navigator.clipboard
    ?.writeText([visible.value.map((c) => (c.unit ? `${c.title} ${c.unit}` : c.title)).join('\t'), ...lines].join('\n'))
    .catch(() => undefined);
}

function key(event: KeyboardEvent) {
  const page = Math.max(1, Math.floor((scroller.value?.clientHeight ?? 300) / ROW_HEIGHT) - 2);
  const steps: Record<string, number> = { ArrowDown: 1, ArrowUp: -1, PageDown: page, PageUp: -page, Home: -1e9, End: 1e9 };
  if (event.key in steps) {
    const to = Math.min(shown.value.length - 1, Math.max(0, cursor.value + steps[event.key]!));
    pick(to, event);
    virtualizer.value.scrollToIndex(to);
  } else if ((event.ctrlKey || event.metaKey) && event.key === 'a') {
    choose(shown.value.map((r) => props.rowKey(r.original)));
  } else if ((event.ctrlKey || event.metaKey) && event.key === 'c') {
    void copy();
  } else if (event.key === 'Enter' && shown.value[cursor.value]) {
    emit('open', shown.value[cursor.value]!.original);
  } else {
    return;
  }
  event.preventDefault();
}

// A selection made on the other page comes into view.
watch(
  () => props.selected,
  async (selected) => {
    if (own) {
      own = false;
      return;
    }
    const first = [...selected][0];
    if (first === undefined) return;
    const index = shown.value.findIndex((r) => props.rowKey(r.original) === first);
    if (index < 0 || index === cursor.value) return;
    cursor.value = index;
    anchor.value = index;
    await nextTick();
    virtualizer.value.scrollToIndex(index, { align: 'auto' });
  },
);
</script>

<template>
  <div class="figures">
    <div v-if="filterable" class="tools">
      <ElTooltip
        content="Words that must occur; or a column and a limit, such as standardized>3"
        placement="right"
        :show-after="700"
        :enterable="false"
        :trigger-keys="[]"
      >
        <ElInput
          v-model="filter"
          size="small"
          class="filter"
          clearable
          :placeholder="`filter ${rows.length} rows`"
          :aria-label="`Filter ${label}`"
        />
      </ElTooltip>
      <span class="quiet" role="status"
        >{{ shown.length === rows.length ? '' : `${shown.length} of ${rows.length}`
        }}{{ selected.size > 1 ? ` · ${selected.size} selected` : '' }}</span
      >
      <span class="spacer" />
      <slot name="tools" />
      <ElPopover trigger="click" placement="bottom-end" :width="230">
        <template #reference
          ><ElButton text class="columns" :aria-label="`Columns of ${label}`"
            >columns{{ layout.hidden.length > 0 ? ` ${visible.length} of ${columns.length}` : '' }}</ElButton
          ></template
        >
        <ElCheckboxGroup
          :model-value="visible.map((c) => c.key)"
          :min="1"
          class="choice"
          :aria-label="`Columns of ${label}`"
          @update:model-value="keepHidden($event as string[])"
        >
          <ElCheckbox v-for="c in columns" :key="c.key" :value="c.key">{{ c.title }}</ElCheckbox>
        </ElCheckboxGroup>
        <ElButton size="small" @click="session.prefer(place, AS_MADE)">As made</ElButton>
      </ElPopover>
    </div>
    <div class="around" :class="{ more }">
      <div
        ref="scroller"
        class="scroller"
        role="grid"
        tabindex="0"
        :aria-label="label"
        :aria-rowcount="shown.length + 1"
        :aria-colcount="visible.length"
        aria-multiselectable="true"
        @keydown="key"
        @scroll.passive="look"
      >
        <div class="head" role="row" :style="lines">
          <div
            v-for="c in visible"
            :key="c.key"
            role="columnheader"
            :class="c.align"
            :aria-sort="{ '▾': 'descending', '▴': 'ascending', '': 'none' }[direction(c.key)] as 'none'"
            @click="toggleSort(c.key, $event.shiftKey)"
            @keydown.enter.prevent.stop="toggleSort(c.key, $event.shiftKey)"
          >
            <ElTooltip
              :content="hintOf(c)"
              :disabled="hintOf(c) === ''"
              placement="top"
              :show-after="400"
              :enterable="false"
              :trigger="['hover', 'focus']"
              ><span class="words" tabindex="0"
                >{{ c.title }}<span v-if="c.unit" class="unit">{{ ' ' + c.unit }}</span
                ><span class="arrow" aria-hidden="true">{{ direction(c.key) }}</span></span
              ></ElTooltip
            >
            <span
              class="edge"
              aria-hidden="true"
              @click.stop
              @dblclick.stop="widen(c, needed(c, rows))"
              @pointerdown.stop="drag(c, $event)"
            />
          </div>
        </div>
        <div class="body" role="rowgroup" :style="{ height: `${virtualizer.getTotalSize()}px`, minWidth: lines.minWidth }">
          <div
            v-for="item in virtualizer.getVirtualItems()"
            :key="rowKey(shown[item.index]!.original)"
            class="row"
            role="row"
            :aria-rowindex="item.index + 2"
            :class="{ selected: selected.has(rowKey(shown[item.index]!.original)), dim: dim?.(shown[item.index]!.original) }"
            :aria-selected="selected.has(rowKey(shown[item.index]!.original))"
            :style="{ ...lines, transform: `translateY(${item.start}px)` }"
            @click="pick(item.index, $event)"
            @dblclick="emit('open', shown[item.index]!.original)"
          >
            <div v-for="c in visible" :key="c.key" role="gridcell" :class="[c.align, { mono: c.mono }]">
              <slot :name="`cell-${c.key}`" :row="shown[item.index]!.original" :text="textOf(c, shown[item.index]!.original)">{{
                textOf(c, shown[item.index]!.original)
              }}</slot>
            </div>
          </div>
        </div>
      </div>
      <div v-if="rows.length > 0 && shown.length === 0" class="quiet none">
        No row holds “{{ filter }}”. <ElButton link type="primary" @click="filter = ''">Show all</ElButton>
      </div>
      <div v-if="rows.length === 0" class="none"><slot name="empty" /></div>
    </div>
  </div>
</template>

<style scoped>
.figures {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.tools {
  display: flex;
  gap: 10px;
  align-items: center;
  padding-bottom: 4px;
}
.filter {
  width: 190px;
}
.columns {
  font-size: 12px;
  color: var(--ink-soft);
}
.choice {
  display: grid;
}
.around {
  flex: 1;
  min-height: 0;
  position: relative;
  display: flex;
  flex-direction: column;
}
/* Columns beyond the edge: the page fades out there, and the table scrolls sideways. */
.around.more::after {
  content: '→';
  position: absolute;
  z-index: 3;
  top: 0;
  right: 0;
  bottom: 0;
  width: 22px;
  padding-top: 4px;
  text-align: right;
  color: var(--cobalt);
  background: linear-gradient(90deg, transparent, var(--paper) 80%);
  pointer-events: none;
}
.scroller {
  flex: 1;
  min-height: 0;
  overflow: auto;
  position: relative;
}
.scroller:focus-visible {
  outline-offset: -2px;
}
.head,
.row {
  display: grid;
  column-gap: 8px;
  align-items: center;
  padding: 0 8px;
  min-width: 100%;
}
.head {
  position: sticky;
  top: 0;
  z-index: 2;
  min-height: 26px;
  align-items: end;
  background: var(--paper);
  border-bottom: 1.5px solid var(--ink);
}
.head > div {
  position: relative;
  padding: 3px 0;
  color: var(--ink-soft);
  font-size: 12px;
  line-height: 1.2;
  cursor: pointer;
}
.edge {
  position: absolute;
  top: 0;
  right: -6px;
  width: 9px;
  height: 100%;
  cursor: col-resize;
  touch-action: none;
}
.edge:hover {
  border-right: 2px solid var(--cobalt);
}
.head .unit {
  font-size: 11px;
}
.head .right {
  text-align: right;
}
.arrow {
  color: var(--cobalt);
  margin-left: 2px;
}
.body {
  position: relative;
}
.row {
  position: absolute;
  left: 0;
  right: 0;
  height: 27px;
  border-bottom: 1px solid var(--rule);
  cursor: default;
}
.row > div {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.row .right {
  text-align: right;
}
.mono {
  font-size: 12.5px;
}
.row:hover {
  background: var(--paper-deep);
}
.row.selected {
  background: var(--cobalt-soft);
}
.row.dim {
  color: var(--ink-soft);
}
.none {
  padding: 18px 8px;
}
</style>

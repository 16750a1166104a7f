import { enableAutoUnmount, flushPromises, mount, type VueWrapper } from '@vue/test-utils';
import { createPinia, getActivePinia, setActivePinia } from 'pinia';
import { afterEach, vi } from 'vitest';
import { ElCheckbox, ElOption, ElSelect, ElSelectV2, ElUpload } from 'element-plus';
import { type Component, reactive } from 'vue';
import type { Overview, PointView } from '../src/api/types';
import { useProject } from '../src/state/project';

/** What the server would answer, by method and path without the project's prefix; a function sees the body and the query. */
export type Answers = Record<string, unknown | ((body: never, query: URLSearchParams) => unknown)>;

export interface Call {
  route: string;
  body: unknown;
  query: URLSearchParams;
  headers: Record<string, string>;
}

/** A refusal as the server words it. */
export class Refusal {
  constructor(
    readonly status: number,
    readonly detail: string,
    readonly errors: { pointer: string; detail: string }[] = [],
    readonly more: Record<string, unknown> = {},
  ) {}
}

// Stages listen to keys on the window; one test's must not hear another's.
enableAutoUnmount(afterEach);

export const route = reactive({
  query: {} as Record<string, string>,
  params: { id: '1', stage: 'reference' },
  fullPath: '/p/1/reference',
  hash: '',
});
export const pushed: unknown[] = [];
vi.mock('vue-router', async (original) => ({
  ...(await original<object>()),
  useRoute: () => route,
  useRouter: () => ({
    push: (to: unknown) => {
      pushed.push(to);
      return Promise.resolve();
    },
    replace: (to: { query: Record<string, string> }) => {
      route.query = to.query;
      return Promise.resolve();
    },
  }),
}));

// A page of this size, so that tables made for it show their rows.
for (const [name, size] of [
  ['offsetHeight', 600],
  ['clientHeight', 600],
  ['offsetWidth', 640],
  ['clientWidth', 640],
] as const) {
  Object.defineProperty(HTMLElement.prototype, name, { configurable: true, get: () => size });
}

export const overview: Overview = {
  id: 1,
  name: 'Tarn',
  role: 'owner',
  mayChange: true,
  reference: 'EPSG:25830',
  referenceName: 'ETRS89 / UTM zone 30N',
  heights: 'ellipsoidal',
  geoid: '',
  revision: 3,
  units: { length: 'm', angle: 'dms', decimals: 3, heights: 3, angles: 1, small: 1, areas: 1 },
  stages: [],
  stale: [],
  jobs: [],
  undo: null,
  redo: null,
  ledgerCount: 0,
};

export function point(name: string, e: number | null, n: number | null, h: number | null, over: Partial<PointView> = {}): PointView {
  return {
    id: 1,
    name,
    role: 'control',
    source: 'file',
    code: '',
    e,
    n,
    h,
    givenE: e,
    givenN: n,
    givenH: h,
    held: '',
    sdE: null,
    sdN: null,
    sdH: null,
    file: 'control.csv',
    line: 2,
    known: 'global',
    version: 1,
    ...over,
  };
}

/** An open project without a server behind it. */
export function office(answers: Answers = {}, over: Partial<Overview> = {}, points: PointView[] = []) {
  setActivePinia(createPinia());
  route.query = {};
  pushed.length = 0;
  const calls: Call[] = [];
  vi.stubGlobal(
    'fetch',
    vi.fn(async (path: string, init: RequestInit = {}) => {
      const url = new URL(path, 'http://office');
      const name = `${init.method ?? 'GET'} ${url.pathname.replace(/^\/api\/projects\/1/, '') || '/'}`;
      const body: unknown = typeof init.body === 'string' ? JSON.parse(init.body) : init.body;
      calls.push({ route: name, body, query: url.searchParams, headers: (init.headers ?? {}) as Record<string, string> });
      const usual: Answers = { 'GET /': { ...overview, ...over }, 'GET /points': { seq: 1, whole: true, gone: [], points } };
      const found = name in answers ? answers[name] : usual[name];
      const data = typeof found === 'function' ? (found as (b: unknown, q: URLSearchParams) => unknown)(body, url.searchParams) : found;
      if (data instanceof Refusal)
        return new Response(JSON.stringify({ title: 'This cannot be used.', detail: data.detail, errors: data.errors, ...data.more }), {
          status: data.status,
        });
      if (data === undefined) return new Response(JSON.stringify({ title: 'Not found.', detail: name }), { status: 404 });
      return data instanceof ArrayBuffer ? new Response(data) : new Response(JSON.stringify(data), { status: 200 });
    }),
  );
  const project = useProject();
  project.id = 1;
  project.overview = { ...overview, ...over };
  project.points = points;
  return { project, calls, bodies: (name: string) => calls.filter((c) => c.route === name).map((c) => c.body) as unknown[] };
}

export async function show<T extends Component>(component: T, props: Record<string, unknown> = {}): Promise<VueWrapper> {
  const wrapper = mount(component as never, {
    props: props as never,
    attachTo: document.body,
    global: {
      // What an earlier test left running makes its own store the active one when it ends.
      plugins: [getActivePinia()!],
      stubs: {
        RouterLink: { template: '<a><slot /></a>' },
        SystemPicker: { template: '<i />' },
        MapSketch: { template: '<i class="map" />' },
        ResidualHistogram: { template: '<i />' },
      },
    },
  });
  await flushPromises();
  return wrapper;
}

export async function type(wrapper: VueWrapper, css: string, text: string) {
  await wrapper.get(css).setValue(text);
  await flushPromises();
}

export async function press(wrapper: VueWrapper, text: string) {
  const button = wrapper.findAll('button, [role=tab], .el-button').find((b) => b.text().includes(text));
  if (!button) throw new Error(`No button says "${text}": ${wrapper.text()}`);
  await button.trigger('click');
  await flushPromises();
}

/** Takes an entry of the list that stands at, or around, what the selector finds. */
export async function choose(wrapper: VueWrapper, css: string, value: unknown) {
  const list = selects(wrapper, css);
  list.vm.$emit('update:modelValue', value);
  list.vm.$emit('change', value);
  await flushPromises();
}

/** The list that stands at, or around, what the selector finds. */
export function selects(wrapper: VueWrapper, css: string): VueWrapper {
  const lists: VueWrapper[] = [...wrapper.findAllComponents(ElSelect), ...wrapper.findAllComponents(ElSelectV2)];
  const list = lists.find((s) => s.element.matches(css) || s.find(css).exists());
  if (!list) throw new Error(`No list is ${css}: ${wrapper.text()}`);
  return list as VueWrapper;
}

/** What the list is given: its value, whether it can be changed. */
export function given(wrapper: VueWrapper, css: string): Record<string, unknown> {
  return selects(wrapper, css).props() as Record<string, unknown>;
}

/** What a list offers, in its order. */
export function entries(wrapper: VueWrapper, css: string): string[] {
  return selects(wrapper, css)
    .findAllComponents(ElOption)
    .map((o) => String(o.props('label')));
}

/** Ticks or unticks a box. */
export async function tick(wrapper: VueWrapper, css: string, on = true) {
  const box = wrapper.findAllComponents(ElCheckbox).find((c) => c.element.matches(css) || c.find(css).exists());
  if (!box) throw new Error(`No box is ${css}: ${wrapper.text()}`);
  await box.get('input').setValue(on);
  await flushPromises();
}

/** Gives files to the button that asks for them. */
export async function give(wrapper: VueWrapper, css: string, ...files: File[]) {
  const upload = wrapper.findAllComponents(ElUpload).find((u) => u.element.matches(css) || u.element.closest(css) !== null);
  if (!upload) throw new Error(`No button asks for files at ${css}: ${wrapper.text()}`);
  const input = upload.get('input[type=file]');
  Object.defineProperty(input.element, 'files', { configurable: true, value: files });
  await input.trigger('change');
  await flushPromises();
}

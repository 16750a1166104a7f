import { computed, ref, watch, type Ref } from 'vue';
import { post } from '../../api/client';
import type { LineView, PointView, SurfacePreviewView, SurfaceRequest, SurfaceView } from '../../api/types';
import type { Drawing } from '../../sketch/scene';
import { useProject } from '../../state/project';
import { fromBase64, readMesh, swapAt, type MeshShape } from './mesh';
import { chosen, toggled } from './selection';
import { codeLine, readLines } from './surfaceLines';

/** What a click or a stroke on the sketch does while a surface is chosen. */
export type Tool = 'points' | 'box' | 'lasso' | 'breakline' | 'boundary' | 'void' | 'swap';
export const DRAWS: Record<Tool, Drawing> = {
  points: false,
  box: 'box',
  lasso: 'lasso',
  breakline: false,
  boundary: 'polygon',
  void: 'polygon',
  swap: false,
};
type LineRole = 'breakline' | 'boundary' | 'void';
/** Waited after the last change before the surface is made anew, milliseconds. */
const PAUSE = 250;

const empty = (): SurfaceRequest => ({
  name: '',
  roles: ['adjusted', 'surveyed'],
  codes: [],
  exclude: [],
  lines: [],
  maxEdge: null,
  interval: 1,
  pattern: '',
  areas: [],
  include: [],
  index: 5,
  smooth: false,
  crossing: 'refuse',
  design: null,
  drawn: [],
  cloud: null,
});

const asRequest = (s: SurfaceView): SurfaceRequest => ({
  name: s.name,
  roles: s.roles,
  codes: s.codes,
  exclude: s.exclude,
  lines: s.lines,
  maxEdge: s.maxEdge,
  interval: s.interval,
  pattern: s.pattern,
  areas: s.areas,
  include: s.include,
  index: s.index,
  smooth: s.smooth,
  crossing: s.crossing,
  design: s.design,
  drawn: s.drawn,
  cloud: s.cloud,
});

/** A surface while it is chosen: what is said of it, and how it would be. */
export function useDraft() {
  const project = useProject();
  const draft = ref<SurfaceRequest | null>(null);
  const tool = ref<Tool>('points');
  /** Points picked so far for a breakline. */
  const picked = ref<string[]>([]);
  const preview = ref<SurfacePreviewView | null>(null);
  const mesh: Ref<MeshShape | null> = ref(null);
  const said = ref('');
  const lineCodes = ref<string[]>([]);
  const closed = ref(true);
  let begun = 0;

  const selection = computed(() => ({
    roles: draft.value?.roles ?? [],
    codes: draft.value?.codes ?? [],
    pattern: draft.value?.pattern ?? '',
    areas: draft.value?.areas ?? [],
    include: draft.value?.include ?? [],
    exclude: draft.value?.exclude ?? [],
  }));
  const taken = computed<PointView[]>(() => (draft.value ? chosen(project.points, selection.value) : []));
  const request = computed<SurfaceRequest | null>(
    () =>
      draft.value && {
        ...draft.value,
        lines: [...(draft.value.lines ?? []), ...lineCodes.value.map((code) => codeLine(code, closed.value, project.points))],
      },
  );

  function open(surface: SurfaceView | null, codes: string[], changed: Partial<SurfaceRequest> = {}) {
    const start = { ...(surface ? asRequest(surface) : empty()), ...changed };
    const lines = readLines((start.lines ?? []) as LineView[], codes);
    draft.value = { ...start, lines: lines.others };
    lineCodes.value = lines.codes;
    closed.value = lines.closed;
    [tool.value, picked.value, said.value, preview.value, mesh.value] = ['points', [], '', null, null];
  }

  function close() {
    draft.value = null;
    preview.value = null;
    mesh.value = null;
  }

  function addLine(line: LineView) {
    if (draft.value) draft.value = { ...draft.value, lines: [...(draft.value.lines ?? []), line] };
  }

  /** A shape was drawn with the tool at hand. */
  function drew(vertices: [number, number][]) {
    const d = draft.value;
    if (!d || vertices.length < 3) return;
    if (tool.value === 'box' || tool.value === 'lasso') draft.value = { ...d, areas: [...(d.areas ?? []), vertices] };
    else if (tool.value === 'boundary' || tool.value === 'void') addLine({ role: tool.value, name: tool.value, points: [], vertices });
    tool.value = 'points';
  }

  /** Layers of drawings whose lines are taken in a role, "file layer"; the drawing's own number for all of them. */
  const drawnAs = (role: LineRole) =>
    computed<string[]>({
      get: () =>
        (draft.value?.drawn ?? [])
          .filter((d) => (d.role ?? 'breakline') === role)
          .flatMap((d) => ((d.layers ?? []).length === 0 ? [`${d.file} `] : d.layers!.map((l) => `${d.file} ${l}`))),
      set: (keys) => {
        const by = new Map<number, string[]>();
        for (const key of keys) {
          const at = key.indexOf(' ');
          const file = Number(key.slice(0, at));
          by.set(file, [...(by.get(file) ?? []), key.slice(at + 1)]);
        }
        if (!draft.value) return;
        const others = (draft.value.drawn ?? []).filter((d) => (d.role ?? 'breakline') !== role);
        const said = role === 'breakline' ? {} : { role };
        const mine = [...by].map(([file, layers]) => ({ file, layers: layers.filter(Boolean), ...said }));
        draft.value = { ...draft.value, drawn: [...others, ...mine] };
      },
    });
  const drawnLayers = drawnAs('breakline');
  const drawnBoundaries = drawnAs('boundary');
  const drawnVoids = drawnAs('void');

  /** A point was clicked. */
  function point(name: string) {
    const p = project.points.find((x) => x.name === name);
    if (!p || !draft.value) return;
    if (tool.value === 'breakline') {
      if (p.h === null) said.value = `${name} has no height.`;
      else if (picked.value[picked.value.length - 1] !== name) picked.value = [...picked.value, name];
    } else if (tool.value === 'swap') swap(p.e!, p.n!);
    else draft.value = toggled({ ...draft.value, ...selection.value }, p, project.points);
  }

  function endBreakline() {
    if (picked.value.length > 1) addLine({ role: 'breakline', name: `breakline ${picked.value[0]!}`, points: picked.value, vertices: [] });
    picked.value = [];
    tool.value = 'points';
  }

  /** The edge nearest to the place runs between the other two corners of its triangles: they are held together by a breakline. */
  function swap(e: number, n: number) {
    const found = mesh.value && swapAt(mesh.value, e, n);
    if (!found) {
      said.value = 'No edge there can be swapped: it is on the border, or its two triangles do not make a convex quadrangle.';
      return;
    }
    const names = found.to.map(([x, y]) => taken.value.find((p) => Math.hypot(p.e! - x, p.n! - y) < 1e-3)?.name);
    if (names[0] === undefined || names[1] === undefined) {
      said.value = 'That edge ends where two lines cross or on a drawn line; it stays.';
      return;
    }
    said.value = `The edge runs between ${names[0]} and ${names[1]} now.`;
    addLine({ role: 'breakline', name: `edge ${names[0]}–${names[1]}`, points: names as string[], vertices: [] });
  }

  let waiting = 0;
  async function refresh() {
    const wanted = request.value;
    if (!wanted) return;
    begun += 1;
    const mine = begun;
    try {
      const view = await post<SurfacePreviewView>(project.path('/terrain/preview'), { ...wanted, name: wanted.name || 'as it would be' });
      if (mine !== begun || !draft.value) return;
      preview.value = view;
      mesh.value = view.mesh === null ? null : readMesh(fromBase64(view.mesh));
    } catch (e) {
      if (mine === begun)
        preview.value = { points: 0, triangles: 0, mesh: null, contours: [], warnings: [], refusal: (e as Error).message };
    }
  }
  watch(request, (now, before) => {
    window.clearTimeout(waiting);
    // A name is no other surface.
    const shape = (r: SurfaceRequest | null) => JSON.stringify({ ...r, name: '' });
    if (now && (preview.value === null || shape(now) !== shape(before ?? null))) waiting = window.setTimeout(refresh, PAUSE);
  });

  return {
    draft,
    drawnLayers,
    drawnBoundaries,
    drawnVoids,
    tool,
    picked,
    preview,
    mesh,
    said,
    lineCodes,
    closed,
    taken,
    request,
    open,
    close,
    drew,
    point,
    endBreakline,
    swap,
  };
}

export type SurfaceDraft = ReturnType<typeof useDraft>;

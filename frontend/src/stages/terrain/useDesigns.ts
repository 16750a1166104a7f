import { computed, ref, shallowRef, watch } from 'vue';
import { get, post } from '../../api/client';
import type { DesignFileView, DrawingView, SurfaceRequest, TakePointsRequest } from '../../api/types';
import { useProject } from '../../state/project';
import { chained, cornerAt, edgesAt, faceAt, nothingPicked, samePlace, seenOf, toggledPick, type Pick, type Picked } from './drawing';

/** Screen units within which a click is at an edge or a corner. */
const NEAR = 12;

/** The drawings of the project, the one that is looked at, and what is picked of it. */
export function useDesigns() {
  const project = useProject();
  const designs = ref<DesignFileView[]>([]);
  const chosen = ref(0);
  const drawing = shallowRef<DrawingView | null>(null);
  const hidden = ref(new Set<string>());
  const what = ref<Pick>('faces');
  const picked = ref<Picked>(nothingPicked());
  const unit = ref('');
  const isLoading = ref(true);
  /** Metres of a screen unit on the map. */
  let resolution = 1;

  const design = computed(() => designs.value.find((d) => d.id === chosen.value) ?? designs.value[0] ?? null);
  const seen = computed(() => (drawing.value ? seenOf(drawing.value, hidden.value) : null));
  /** What becomes points: the corners as they were picked, or the edges end to end. */
  const lines = computed(() => (drawing.value ? chained(drawing.value, picked.value.edges) : []));
  const corners = computed(() => {
    if (what.value === 'corners') return picked.value.corners;
    if (what.value === 'edges') return lines.value.flat();
    const [d, same] = [drawing.value, drawing.value ? samePlace(drawing.value) : []];
    const faces = new Set(picked.value.faces);
    return [
      ...new Set(
        (d?.faceOf ?? []).flatMap((face, t) => (faces.has(face) ? d!.triangles.slice(3 * t, 3 * t + 3) : [])).map((c) => same[c]!),
      ),
    ];
  });

  async function load() {
    designs.value = await get<DesignFileView[]>(project.path('/designs'));
    const d = design.value;
    if (d && drawing.value?.id !== d.id) {
      drawing.value = await get<DrawingView>(project.path(`/designs/${d.id}`));
      [hidden.value, picked.value, what.value] = [new Set(), nothingPicked(), d.faces > 0 ? 'faces' : 'edges'];
    }
    isLoading.value = false;
  }
  watch(chosen, load);
  watch(() => project.version, load);

  function show(layers: string[]) {
    hidden.value = new Set((drawing.value?.layers ?? []).filter((l) => !layers.includes(l)));
  }

  /** A place on the map, or in space with the face that was met. */
  function pick(at: number[], face: number | null, within = NEAR * resolution) {
    const [d, s] = [drawing.value, seen.value];
    if (!d || !s) return;
    const found =
      what.value === 'faces'
        ? (face ?? (at.length === 2 ? faceAt(d, s, at[0]!, at[1]!) : null))
        : what.value === 'edges'
          ? edgesAt(d, s, at, within)
          : cornerAt(d, s, at, within);
    picked.value = toggledPick(picked.value, what.value, found);
  }
  function pickCorner(corner: number) {
    if (what.value === 'corners') picked.value = toggledPick(picked.value, 'corners', corner);
    else pick([drawing.value!.x[corner]!, drawing.value!.y[corner]!], null);
  }
  function all() {
    if (seen.value) picked.value = { ...picked.value, faces: [...seen.value.faces] };
  }

  async function takePoints(prefix: string, code: string): Promise<boolean> {
    const request: TakePointsRequest = { corners: corners.value, prefix, code, unit: unit.value };
    const count = request.corners.length;
    const said = `${count} ${count === 1 ? 'point' : 'points'} made: ${prefix}1${count > 1 ? ` to ${prefix}${count}` : ''}.`;
    const ok = await project.attempt(() => post(project.path(`/designs/${design.value!.id}/points`), request), said);
    if (ok) picked.value = nothingPicked();
    return ok;
  }
  /** Number of the surface that was made; null where it was not. */
  async function makeSurface(name: string, interval: number): Promise<number | null> {
    const taken = { file: design.value!.id, faces: picked.value.faces, unit: unit.value };
    const request: SurfaceRequest = { name, interval, design: taken };
    let number: number | null = null;
    const ok = await project.attempt(async () => {
      const started = await post<{ job: string; surface: number }>(project.path('/terrain/surfaces'), request);
      number = started.surface;
      await project.job(Promise.resolve(started));
    });
    return ok ? number : null;
  }

  return {
    designs,
    chosen,
    design,
    drawing,
    hidden,
    what,
    picked,
    unit,
    isLoading,
    seen,
    lines,
    corners,
    load,
    show,
    pick,
    pickCorner,
    all,
    takePoints,
    makeSurface,
    over: (_e: number, _n: number, r: number) => (resolution = r),
  };
}

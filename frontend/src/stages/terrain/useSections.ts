import { computed, ref, shallowRef, type Ref } from 'vue';
import { get, post } from '../../api/client';
import type { SectionRequest, SectionView, TerrainView } from '../../api/types';
import { length } from '../../format/units';
import type { ScenePath } from '../../sketch/scene';
import { useProject } from '../../state/project';
import { markEvery, placeAt, stationAt, type SectionDrawing } from './sections';

/** Screen units within which pointing at a line is pointing at it. */
const NEAR = 14;

/** The sections of the project, the one that is looked at, and where on it one points. */
export function useSections(terrain: Ref<TerrainView | null>) {
  const project = useProject();
  const chosen = ref(0);
  const editing = ref<'none' | 'new' | 'change'>('none');
  const drawing = shallowRef<SectionDrawing | null>(null);
  /** Station that is pointed at, from the begin of the line. */
  const at = ref<number | null>(null);
  const cross = ref<number | null>(null);
  const section = computed<SectionView | null>(
    () => terrain.value?.sections.find((s) => s.number === chosen.value) ?? terrain.value?.sections[0] ?? null,
  );

  let loaded = '';
  async function load() {
    const s = section.value;
    const key = s ? `${s.number} ${s.output}` : '';
    if (key === loaded) return;
    drawing.value = s ? await get<SectionDrawing>(project.path(`/terrain/sections/${s.number}`)) : null;
    [loaded, at.value, cross.value] = [key, null, null];
  }

  async function cut(request: SectionRequest): Promise<boolean> {
    const ok = await project.attempt(async () => {
      const job = await project.job(post(project.path('/terrain/sections'), request));
      chosen.value = Number(job.outcome?.number ?? 0);
    });
    if (ok) editing.value = 'none';
    return ok;
  }

  /** The line with its stations, and the place that is pointed at. */
  const paths = computed<ScenePath[]>(() => {
    const d = drawing.value;
    if (!d) return [];
    const line: ScenePath = { path: d.e.flatMap((e, i) => [e, d.n[i]!]), kind: 'section' };
    const c = cross.value === null ? null : d.crosses[cross.value];
    return c ? [line, { path: [c.e[0], c.n[0], c.e[1], c.n[1]], kind: 'across' }] : [line];
  });
  const notes = computed(() => {
    const d = drawing.value;
    if (!d) return [];
    const total = d.stations[d.stations.length - 1] ?? 0;
    const every = markEvery(total);
    const marks: number[] = [];
    for (let s = Math.ceil(d.start / every) * every; s - d.start <= total; s += every) marks.push(s - d.start);
    const text = (s: number) => length(d.start + s, project.units, -3);
    const noted = marks.map((s) => {
      const [e, n] = placeAt(d, s);
      return { e, n, text: text(s), tone: 'plain' as const };
    });
    if (at.value === null) return noted;
    const [e, n] = placeAt(d, at.value);
    return [...noted, { e, n, text: '◆', tone: 'bad' as const }];
  });

  function over(e: number, n: number, resolution: number) {
    const d = drawing.value;
    if (!d) return;
    const found = stationAt(d, e, n);
    at.value = found.away < NEAR * resolution ? found.station : null;
  }

  return { chosen, editing, drawing, at, cross, section, load, cut, paths, notes, over };
}

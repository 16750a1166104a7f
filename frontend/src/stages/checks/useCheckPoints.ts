import { computed, ref, shallowRef, type Ref } from 'vue';
import { get, post } from '../../api/client';
import type { CheckPointsRequest, CheckPointsView, ChecksView, UnitsView } from '../../api/types';
import { small, smallUnit } from '../../format/units';
import { emptyScene, type Scene } from '../../sketch/scene';
import { useProject } from '../../state/project';

/** A check point and what was computed there less what is known of it; null where nothing was. Metres. */
export interface CheckRow {
  name: string;
  e: number | null;
  n: number | null;
  h: number | null;
  by: string;
  de: number | null;
  dn: number | null;
  dh: number | null;
}

/** The accuracy first, as one says it. */
export function checkHeadline(c: CheckPointsView, units: UnitsView): string {
  const mm = smallUnit(units);
  const parts = [
    ...(c.horizontal === null ? [] : [`${small(c.horizontal, units)} ${mm} in plan`]),
    ...(c.vertical === null ? [] : [`${small(c.vertical, units)} ${mm} in height`]),
  ];
  return parts.length === 0 ? `Nothing of ${c.name} could be compared` : `${c.name}: accurate to ${parts.join(' and ')} at 95 %`;
}

export function checkSentences(c: CheckPointsView): string[] {
  const all = [`${c.used} of ${c.count} check points compared with ${c.against}; differences are computed minus known.`];
  if (c.used < c.enough) all.push(`The standard for such figures asks for ${c.enough} points or more.`);
  if (c.radial !== null && c.horizontal === null)
    all.push('Easting and northing differ too much in accuracy for one figure in plan; look at each.');
  return all;
}

/** The check points on the map, each with its difference in height, or in plan where there is none. */
export function checkScene(rows: CheckRow[], units: UnitsView): Scene {
  const placed = rows.filter((r) => r.e !== null && r.n !== null);
  const off = (r: CheckRow) => {
    if (r.dh !== null) return small(r.dh, units, true);
    return r.de !== null && r.dn !== null ? small(Math.hypot(r.de, r.dn), units) : '–';
  };
  return {
    ...emptyScene,
    points: placed.map((r) => ({ name: r.name, e: r.e!, n: r.n!, role: 'check' as const })),
    notes: placed.map((r) => ({
      e: r.e!,
      n: r.n!,
      text: off(r),
      tone: r.dh === null && r.de === null ? ('doubt' as const) : ('plain' as const),
      below: true,
    })),
    caption: `${smallUnit(units)}, computed minus known`,
  };
}

/** The check points of the page: which check is shown, its rows, and how one is made. */
export function useCheckPoints(checks: Ref<ChecksView | null>, load: () => Promise<void>) {
  const project = useProject();
  const chosen = ref(0);
  const rows = shallowRef<CheckRow[]>([]);
  const editing = ref<'none' | 'new' | 'change'>('none');
  const check = computed(() => checks.value?.checks.find((c) => c.number === chosen.value) ?? checks.value?.checks[0] ?? null);
  let loaded = '';

  async function loadRows() {
    const c = check.value;
    if (!c) {
      rows.value = [];
      loaded = '';
      return;
    }
    const key = `${c.number} ${c.output}`;
    if (key === loaded) return;
    rows.value = (await get<{ points: CheckRow[] }>(project.path(`/checks/points/${c.number}`))).points;
    loaded = key;
  }

  async function compare(request: CheckPointsRequest) {
    const ok = await project.attempt(async () => {
      const job = await project.job(post(project.path('/checks/points'), request));
      chosen.value = Number(job.outcome?.number ?? 0);
    });
    if (ok) editing.value = 'none';
    await load();
  }

  return { chosen, rows, editing, check, loadRows, compare };
}

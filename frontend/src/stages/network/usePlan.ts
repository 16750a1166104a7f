import { computed, ref, shallowRef } from 'vue';
import { get, post, put } from '../../api/client';
import type { NetworkView, PlanView } from '../../api/types';
import { useProject } from '../../state/project';
import { freeName, heightNear, planScene, requestOf, toggled, type Plan, type SightKind } from './plan';

/** The plan as it is edited, its worth as the server works it out, and what a click on the sketch means. */
export function usePlan(network: () => NetworkView | null) {
  const project = useProject();
  const plan = shallowRef<Plan | null>(null);
  const view = shallowRef<PlanView | null>(null);
  const version = ref('');
  const isEdited = ref(false);
  const mode = ref<'marks' | 'sights'>('marks');
  const kind = ref<SightKind>('pointing');
  const rounds = ref(2);
  /** Where the next sight starts. */
  const from = ref('');
  const chosen = ref('');
  let asked = 0;

  async function load() {
    const kept = await get<PlanView>(project.path('/plan'));
    view.value = kept;
    version.value = kept.version;
    plan.value = { marks: kept.marks, sights: kept.sights, settings: kept.settings };
    isEdited.value = false;
  }

  async function change(next: Plan) {
    plan.value = next;
    isEdited.value = true;
    asked += 1;
    const mine = asked;
    await project.attempt(async () => {
      const answer = await post<PlanView>(project.path('/plan/draft'), requestOf(next));
      if (mine === asked) view.value = answer;
    });
  }

  async function keep() {
    const ok = await project.attempt(() => put(project.path('/plan'), requestOf(plan.value!), version.value), 'The plan is kept.');
    if (ok) await load();
  }

  const known = computed(() => [
    ...project.points.flatMap((p) =>
      p.e === null || p.n === null || p.known !== 'global' ? [] : [{ name: p.name, e: p.e, n: p.n, h: p.h }],
    ),
    ...(plan.value?.marks ?? []),
  ]);

  /** A click on empty ground. */
  function place(e: number, n: number) {
    if (!plan.value || mode.value !== 'marks' || !project.mayChange) return;
    const name = freeName(known.value.map((k) => k.name));
    const mark = { name, e: Math.round(e * 10) / 10, n: Math.round(n * 10) / 10, h: heightNear(e, n, known.value), held: false };
    chosen.value = name;
    void change({ ...plan.value, marks: [...plan.value.marks, mark] });
  }

  /** A click on a mark: the sight leads from the first to every next one; the first again ends it. */
  function point(name: string) {
    chosen.value = name;
    if (!plan.value || mode.value !== 'sights' || !project.mayChange) return;
    if (from.value === '' || from.value === name) {
      from.value = from.value === name ? '' : name;
      return;
    }
    void change({
      ...plan.value,
      sights: toggled(plan.value.sights, { from: from.value, to: name, kind: kind.value, rounds: rounds.value }),
    });
  }

  const scene = computed(() => planScene(plan.value!, view.value, project.points, network()));
  const marked = computed(() => new Set([from.value, chosen.value].filter((n) => n !== '')));

  return { plan, view, isEdited, mode, kind, rounds, from, chosen, load, change, keep, place, point, scene, marked };
}

export type PlanState = ReturnType<typeof usePlan>;

import type { NetworkView, PlanRequest, PlanView, PointView } from '../../api/types';
import type { Scene, SceneLine } from '../../sketch/scene';
import { networkScene, sightKey } from './networkScene';

export type PlanMark = PlanRequest['marks'][number];
export type PlanSight = PlanRequest['sights'][number];
export type SightKind = 'pointing' | 'vector' | 'levelled';

export const KINDS: [SightKind, string][] = [
  ['pointing', 'total station'],
  ['vector', 'GNSS vector'],
  ['levelled', 'levelled'],
];

/** What is planned, as it is edited before it is kept. */
export interface Plan {
  marks: PlanMark[];
  sights: PlanSight[];
  settings: PlanView['settings'];
}

export const requestOf = (p: Plan): PlanRequest => ({ marks: p.marks, sights: p.sights, ...p.settings });

/** The first of P1, P2, ... that no mark has. */
export function freeName(taken: Iterable<string>): string {
  const names = new Set(taken);
  for (let i = 1; ; i += 1) if (!names.has(`P${i}`)) return `P${i}`;
}

/** A new mark lies as high as the nearest that is known, until someone says better. */
export function heightNear(e: number, n: number, known: { e: number; n: number; h: number | null }[]): number {
  let best = 0;
  let least = Infinity;
  for (const k of known) {
    const d = Math.hypot(k.e - e, k.n - n);
    if (k.h !== null && d < least) [least, best] = [d, k.h];
  }
  return Math.round(best * 10) / 10;
}

/** A sight again takes itself back; a level line and a vector are the same from either end. */
export function toggled(sights: PlanSight[], sight: PlanSight): PlanSight[] {
  const same = (s: PlanSight) =>
    s.kind === sight.kind &&
    ((s.from === sight.from && s.to === sight.to) || (s.kind !== 'pointing' && s.from === sight.to && s.to === sight.from));
  const left = sights.filter((s) => !same(s));
  return left.length < sights.length ? left : [...sights, sight];
}

export function without(plan: Plan, name: string): Plan {
  return {
    ...plan,
    marks: plan.marks.filter((m) => m.name !== name),
    sights: plan.sights.filter((s) => s.from !== name && s.to !== name),
  };
}

export function renamed(plan: Plan, from: string, mark: PlanMark): Plan {
  const name = (n: string) => (n === from ? mark.name : n);
  return {
    ...plan,
    marks: plan.marks.map((m) => (m.name === from ? mark : m)),
    sights: plan.sights.map((s) => ({ ...s, from: name(s.from), to: name(s.to) })),
  };
}

/** Marks of the project, planned marks with the ellipses they will have, and the sights. */
export function planScene(plan: Plan, view: PlanView | null, points: PointView[], network: NetworkView | null): Scene {
  const base = networkScene(points, network, false);
  const place = new Map<string, [number, number]>(base.points.map((p) => [p.name, [p.e, p.n]]));
  for (const m of plan.marks) {
    base.points = base.points.filter((p) => p.name !== m.name);
    base.points.push({ name: m.name, e: m.e, n: m.n, role: m.held ? 'held' : 'planned' });
    place.set(m.name, [m.e, m.n]);
  }
  const lines = plan.sights.flatMap((s, i): SceneLine[] => {
    const [from, to] = [place.get(s.from), place.get(s.to)];
    if (!from || !to) return [];
    const style = s.kind === 'vector' ? 'vector' : s.kind === 'levelled' ? 'levelled' : 'sight';
    const worth = view?.worth[i];
    return [{ key: `${i} ${sightKey(s.from, s.to)}`, from, to, style, tone: worth && worth.redundancy < 0.1 ? 'bad' : 'planned' }];
  });
  const ellipses = (view?.stations ?? []).filter((s) => s.planned || s.semiMajor > 0);
  return {
    ...base,
    lines: [...(plan.settings.withMeasured ? base.lines.map((l): SceneLine => ({ ...l, tone: 'plain' })) : []), ...lines],
    ellipses,
    confidence: view?.confidence ?? 0.95,
    caption: lines.some((l) => l.tone === 'bad') ? 'red: hardly checked by other sights, redundancy number below 0.1' : '',
  };
}

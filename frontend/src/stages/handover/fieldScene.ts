import type { HeldDrawingView, HeldView } from '../../api/types';
import type { Line3d } from '../../sketch/Surface3d.vue';
import { emptyScene, type Scene, type ScenePath } from '../../sketch/scene';
import type { MeshShape } from '../terrain/mesh';

const ALIGNMENT = '#1f2733';
const BACKGROUND = '#b9b2a2';
const SURFACE = '#e3e7f4';

/** Lines of a package that can be set out: "line 3" or "alignment 0". */
export interface Stakeable {
  key: string;
  name: string;
}

export function stakeable(d: HeldDrawingView): Stakeable[] {
  const seen: Record<string, number> = {};
  return [
    ...d.alignments.map((a, i) => ({ key: `alignment ${i}`, name: a.name })),
    ...d.lines.map((l, i) => {
      seen[l.layer] = (seen[l.layer] ?? 0) + 1;
      return { key: `line ${i}`, name: `${l.layer} ${seen[l.layer]}` };
    }),
  ];
}

const colours = (held: HeldView) => Object.fromEntries(held.layers.map((l) => [l.name, l.colour]));

/** What a package holds, in plan: the chosen surface, lines in the colours of their layers, background beneath, points. */
export function fieldScene(held: HeldView, d: HeldDrawingView, mesh: MeshShape | null, hidden: Set<string>): Scene {
  const of = colours(held);
  const path = (vertices: number[][], colour: string): ScenePath => ({
    path: vertices.flatMap((v) => [v[0]!, v[1]!]),
    kind: 'drawn',
    colour,
  });
  const beneath = hidden.has('background') ? [] : d.background;
  const paths = [
    ...beneath.map((l) => path(l.vertices, BACKGROUND)),
    ...d.alignments
      .filter((a) => !hidden.has(a.name))
      .map((a) =>
        path(
          a.e.map((e, i) => [e, a.n[i]!]),
          ALIGNMENT,
        ),
      ),
    ...d.lines.filter((l) => !hidden.has(l.layer)).map((l) => path(l.vertices, of[l.layer] ?? BACKGROUND)),
    ...(mesh ? outline(mesh).map((edge): ScenePath => ({ path: edge, kind: 'boundary' })) : []),
  ];
  return {
    ...emptyScene,
    paths,
    points: hidden.has('points') ? [] : d.points.map((p) => ({ name: p.name, e: p.e, n: p.n, role: 'surveyed' })),
    ...(mesh
      ? {
          faces: {
            xyz: mesh.xyz,
            corners: mesh.corners,
            band: new Uint8Array(mesh.corners.length / 3),
            limits: [],
            colours: [SURFACE],
            labels: [],
          },
        }
      : {}),
  };
}

/** Edges that belong to one triangle only. */
export function outline(m: MeshShape): number[][] {
  const count = m.xyz.length / 3;
  const once = new Map<number, [number, number]>();
  for (let t = 0; t < m.corners.length; t += 3) {
    for (let k = 0; k < 3; k += 1) {
      const [a, b] = [m.corners[t + k]!, m.corners[t + ((k + 1) % 3)]!];
      const key = Math.min(a, b) * count + Math.max(a, b);
      if (!once.delete(key)) once.set(key, [a, b]);
    }
  }
  return [...once.values()].map((edge) => edge.flatMap((v) => [m.xyz[3 * v]!, m.xyz[3 * v + 1]!]));
}

/** Lines beside the surface, in space. */
export function fieldLines(held: HeldView, d: HeldDrawingView, hidden: Set<string>): Line3d[] {
  const of = colours(held);
  return d.lines
    .filter((l) => !hidden.has(l.layer))
    .map((l) => ({ colour: of[l.layer] ?? BACKGROUND, vertices: l.vertices as [number, number, number][] }));
}

/** A walk over a box, to and fro, in steps of about a walker's second; easting, northing, bearing in degrees. */
export function walk([w, s, e, n]: [number, number, number, number], steps = 120): [number, number, number][] {
  const turns = 3;
  const at = (i: number): [number, number] => {
    const t = i / steps;
    const sway = 0.5 - 0.42 * Math.cos(2 * Math.PI * turns * t);
    return [w + (0.06 + 0.88 * sway) * (e - w), s + (0.06 + 0.88 * t) * (n - s)];
  };
  return Array.from({ length: steps }, (_x, i) => {
    const [[x, y], [u, v]] = [at(i), at(i + 1)];
    return [x, y, ((Math.atan2(u - x, v - y) * 180) / Math.PI + 360) % 360];
  });
}

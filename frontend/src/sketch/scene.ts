import type { PointView } from '../api/types';

export type PointRole = 'held' | 'control' | 'check' | 'adjusted' | 'surveyed' | 'new' | 'planned' | 'out' | 'rover' | 'target';

export interface ScenePoint {
  name: string;
  e: number;
  n: number;
  role: PointRole;
}

/** A line between two places, keyed by what it stands for. Tone says how it stands. */
export interface SceneLine {
  key: string;
  from: [number, number];
  to: [number, number];
  style: 'sight' | 'vector' | 'levelled';
  tone: 'plain' | 'bad' | 'aside' | 'planned';
}

export interface SceneEllipse {
  name: string;
  e: number;
  n: number;
  semiMajor: number;
  semiMinor: number;
  bearing: number;
}

export interface SceneShift {
  e: number;
  n: number;
  de: number;
  dn: number;
}

export interface ScenePath {
  path: number[];
  kind:
    | 'contour'
    | 'index'
    | 'breakline'
    | 'boundary'
    | 'void'
    | 'edge'
    | 'zero'
    | 'area'
    | 'section'
    | 'across'
    | 'hull'
    | 'limits'
    | 'track'
    | 'feature'
    | 'drawn';
  label?: string;
  /** Of a drawn line: its own. */
  colour?: string;
}

/** What is drawn by hand on the sketch; nothing where it is false. */
export type Drawing = false | 'polygon' | 'box' | 'lasso' | 'line';

/** A figure written at a place. */
export interface SceneNote {
  e: number;
  n: number;
  text: string;
  tone: 'plain' | 'good' | 'doubt' | 'bad';
  /** Beneath a point that stands there, not over it. */
  below?: boolean;
}

/** Squares about places, filled by band; a band of -1 is drawn hollow. */
export interface SceneCells {
  e: number[];
  n: number[];
  band: number[];
  colours: string[];
  /** Written where one colour meets the next: one fewer than there are colours. */
  labels: string[];
  /** Side, metres. */
  size: number;
}

/** Triangles filled by what each is, or by what is between limits of the third coordinate; one colour more than limits. */
export interface SceneFaces {
  xyz: Float64Array;
  corners: Uint32Array;
  /** Of each triangle; where it is missing they are cut at the limits. */
  band?: Uint8Array;
  limits: number[];
  colours: string[];
  /** Written where one colour meets the next. */
  labels: string[];
}

export interface Scene {
  points: ScenePoint[];
  lines: SceneLine[];
  ellipses: SceneEllipse[];
  shifts: SceneShift[];
  paths: ScenePath[];
  notes: SceneNote[];
  confidence: number;
  cells?: SceneCells;
  faces?: SceneFaces;
  /** What the notes say. */
  caption?: string;
}

export const emptyScene: Scene = { points: [], lines: [], ellipses: [], shifts: [], paths: [], notes: [], confidence: 0.95 };

export function roleOf(p: PointView): PointRole {
  if (p.role === 'control') return p.held === '' ? 'control' : 'held';
  return p.role === 'surveyed' || p.role === 'check' ? p.role : 'adjusted';
}

export function pointsScene(points: PointView[]): Scene {
  // Numbers known only locally lie somewhere else altogether; they are drawn when there is nothing else.
  const hasGlobal = points.some((p) => p.known === 'global' && p.e !== null);
  return {
    ...emptyScene,
    points: points
      .filter((p) => !hasGlobal || p.known === 'global')
      .filter((p) => p.e !== null && p.n !== null)
      .map((p) => ({ name: p.name, e: p.e!, n: p.n!, role: roleOf(p) })),
  };
}

/** 1, 2 or 5 times a power of ten, not above the value. */
export function roundNumber(value: number): number {
  const power = 10 ** Math.floor(Math.log10(value));
  for (const step of [5, 2, 1]) if (value >= step * power * 0.999999) return step * power;
  return power;
}

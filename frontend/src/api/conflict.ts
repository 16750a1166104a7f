import { Problem } from './client';

/** What someone else made of the thing one was editing. */
export interface Conflict {
  author: string | null;
  at: string | null;
  change: string | null;
  theirs: Record<string, unknown>;
  version: string;
}

export function conflictOf(e: unknown): Conflict | null {
  if (!(e instanceof Problem) || e.status !== 409 || typeof e.more.theirs !== 'object') return null;
  return e.more as unknown as Conflict;
}

/** One field as it is compared: its label, and how its value is said. */
export interface ConflictField {
  key: string;
  label: string;
  text: (value: unknown) => string;
}

/** The fields in which the two differ. */
export function differing(fields: ConflictField[], theirs: Record<string, unknown>, mine: Record<string, unknown>): ConflictField[] {
  return fields.filter((f) => JSON.stringify(theirs[f.key] ?? null) !== JSON.stringify(mine[f.key] ?? null));
}

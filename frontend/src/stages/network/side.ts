import type { RowView, StationView, SuspectView } from '../../api/types';

/** A sight seen from the side: metres above the mark that stands below, before and with the suspect. */
export interface SideView {
  at: string;
  to: string;
  distance: number;
  hi: number;
  ht: number;
  /** What was changed, and what it becomes. */
  changed: 'hi' | 'ht';
  becomes: number;
  /** Where the line of sight passes over the target's mark. */
  seen: number;
}

const EARTH = 6371000;
const REFRACTION = 0.13;

/** Of a suspect that lies in one height: the first zenith angle it touches, with both marks where they are adjusted. */
export function sideView(s: SuspectView | null, touched: RowView[], stations: StationView[]): SideView | null {
  if (s === null || !['target-height', 'instrument-height'].includes(s.cause)) return null;
  const row = touched.find((r) => r.kind === 'zenith');
  const a = stations.find((x) => x.name === row?.at);
  const b = stations.find((x) => x.name === row?.to);
  const changed = s.cause === 'target-height' ? 'ht' : 'hi';
  const add = s.changes.find((c) => c.field === changed)?.add;
  if (!row || !a || !b || add === undefined) return null;
  const distance = Math.hypot(b.e - a.e, b.n - a.n);
  const becomes = row[changed] + add;
  const eye = changed === 'hi' ? becomes : row.hi;
  const rise = distance / Math.tan((row.observed * Math.PI) / 180) + ((1 - REFRACTION) * distance * distance) / (2 * EARTH);
  return { at: row.at, to: row.to, distance, hi: row.hi, ht: row.ht, changed, becomes, seen: eye + rise + a.h - b.h };
}

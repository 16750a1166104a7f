/** What a run is opened for: its satellites, and residuals in millimetres against seconds after the first epoch. */
export interface RunDocument {
  first: number;
  satellites: { id: string; epochs: number; slips: number; used: boolean }[];
  residuals: { signal: string; seconds: number[]; mm: number[] }[];
}

/** Root mean square of a satellite's residuals over all its signals, millimetres; null where it has none. */
export function rmsOf(document: RunDocument, satellite: string): number | null {
  const all = document.residuals.filter((r) => r.signal.startsWith(`${satellite} `)).flatMap((r) => r.mm);
  return all.length === 0 ? null : Math.sqrt(all.reduce((sum, v) => sum + v * v, 0) / all.length);
}

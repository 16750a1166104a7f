/** What a run is opened for: its satellites, and residuals in millimetres against seconds after the first epoch. */
export interface RunDocument {
  first: number;
  satellites: { id: string; epochs: number; slips: number; used: boolean }[];
  residuals: { signal: string; seconds: number[]; mm: number[] }[];
  /** Of a rover that moved: its places in the project, and where it stopped. */
  track?: { seconds: number[]; e: number[]; n: number[]; h: number[]; sd: number[]; solution: string[] };
  stops?: Stop[];
}

/** A place at which a rover stopped, as the mean of its epochs. Seconds after the first epoch; metres. */
export interface Stop {
  from: number;
  to: number;
  count: number;
  e: number;
  n: number;
  h: number;
  sdPlan: number;
  sdUp: number;
  solution: string;
}

/** Root mean square of a satellite's residuals over all its signals, millimetres; null where it has none. */
export function rmsOf(document: RunDocument, satellite: string): number | null {
  const all = document.residuals.filter((r) => r.signal.startsWith(`${satellite} `)).flatMap((r) => r.mm);
  return all.length === 0 ? null : Math.sqrt(all.reduce((sum, v) => sum + v * v, 0) / all.length);
}

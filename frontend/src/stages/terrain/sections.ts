import { roundStep } from './shading';

/** A section as the server cut it. Metres; stations count from the begin of the line, "start" is what that is called. */
export interface SectionDrawing {
  start: number;
  e: number[];
  n: number[];
  stations: number[];
  surfaces: { name: string; pieces: [number, number][][] }[];
  points: { name: string; station: number; offset: number; h: number }[];
  crosses: { station: number; e: [number, number]; n: [number, number]; surfaces: [number, number][][][] }[];
}

/** Colours of the surfaces of a section, told apart by lightness too. */
export const LINES = ['#a8602a', '#2a5bd7', '#1f6f6b', '#7d3c8c', '#5a5a5a', '#c8412b'];

/** Where on the line a station lies. */
export function placeAt(d: Pick<SectionDrawing, 'e' | 'n' | 'stations'>, station: number): [number, number] {
  let i = 1;
  while (i + 1 < d.stations.length && d.stations[i]! < station) i += 1;
  const span = d.stations[i]! - d.stations[i - 1]!;
  const f = Math.min(1, Math.max(0, span > 0 ? (station - d.stations[i - 1]!) / span : 0));
  return [d.e[i - 1]! + f * (d.e[i]! - d.e[i - 1]!), d.n[i - 1]! + f * (d.n[i]! - d.n[i - 1]!)];
}

/** The station nearest to a place, and how far the line is from it. */
export function stationAt(d: Pick<SectionDrawing, 'e' | 'n' | 'stations'>, e: number, n: number): { station: number; away: number } {
  let best = { station: 0, away: Infinity };
  for (let i = 1; i < d.e.length; i += 1) {
    const [dx, dy] = [d.e[i]! - d.e[i - 1]!, d.n[i]! - d.n[i - 1]!];
    const f = Math.min(1, Math.max(0, ((e - d.e[i - 1]!) * dx + (n - d.n[i - 1]!) * dy) / (dx * dx + dy * dy || 1)));
    const away = Math.hypot(e - d.e[i - 1]! - f * dx, n - d.n[i - 1]! - f * dy);
    if (away < best.away) best = { station: d.stations[i - 1]! + f * (d.stations[i]! - d.stations[i - 1]!), away };
  }
  return best;
}

/** Height of a cut surface at a station; null where it does not reach. */
export function heightAt(pieces: [number, number][][], station: number): number | null {
  for (const piece of pieces)
    for (let i = 1; i < piece.length; i += 1) {
      const [s0, h0] = piece[i - 1]!;
      const [s1, h1] = piece[i]!;
      if (station >= s0 && station <= s1) return s1 > s0 ? h0 + ((station - s0) / (s1 - s0)) * (h1 - h0) : h0;
    }
  return null;
}

/** A round distance between marks on a line of this length. */
export const markEvery = (length: number): number => roundStep(length, 8);

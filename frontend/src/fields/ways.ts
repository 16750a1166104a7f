import type { CandidateView } from '../api/types';

/** Transformations in the order they came, those first that can be chosen for the points. */
export function usableFirst(ways: CandidateView[]): CandidateView[] {
  return [...ways].sort((a, b) => Number(b.usable && b.covers) - Number(a.usable && a.covers));
}

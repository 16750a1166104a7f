import type { RowView } from '../src/api/types';

/** An observation of a network as the server tells it. */
export function observationRow(over: Partial<RowView> = {}): RowView {
  return {
    id: 1,
    component: null,
    kind: 'direction',
    set: '1',
    at: 'KT03',
    to: 'KT07',
    observed: 45,
    residual: 0.001,
    groundMm: 2,
    sd: 0.0004,
    standardized: 1.5,
    redundancy: 0.5,
    detectable: 0.003,
    external: 0.001,
    flagged: false,
    used: true,
    reason: '',
    asideBy: null,
    asideAt: null,
    fileId: 1,
    file: 'rounds.csv',
    line: 2,
    hi: 0,
    ht: 0,
    recorded: null,
    recordedHi: null,
    recordedHt: null,
    recordedTo: null,
    face: null,
    round: null,
    observedAt: null,
    ...over,
  };
}

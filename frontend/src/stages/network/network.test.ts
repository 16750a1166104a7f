import { describe, expect, it } from 'vitest';
import type { NetworkView, PointView, RowView, StationView } from '../../api/types';
import { observationRow } from '../../../tests/network';
import { atName, observationColumns, rowKey, stationColumns } from './columns';
import { lineKey, networkScene } from './networkScene';

const metric = { length: 'm', angle: 'dms', decimals: 3, heights: 3, angles: 1, small: 1, areas: 1 };

const row = (over: Partial<RowView>) => observationRow({ at: 'A', to: 'B', file: 'f.csv', ...over });

function point(name: string, e: number, n: number, over: Partial<PointView> = {}): PointView {
  return {
    id: 1,
    name,
    role: 'adjusted',
    known: 'global',
    version: 1,
    source: 'file',
    code: '',
    e,
    n,
    h: 0,
    givenE: null,
    givenN: null,
    givenH: null,
    held: '',
    sdE: null,
    sdN: null,
    sdH: null,
    file: null,
    line: null,
    ...over,
  };
}

function network(rows: RowView[], stations: Partial<StationView>[] = []): NetworkView {
  return {
    rows,
    stations,
    runs: [{ confidence: 0.99 }],
    kinds: [],
    setups: [],
    stale: [],
    comparison: null,
    accepted: false,
  } as unknown as NetworkView;
}

describe('observation columns', () => {
  const column = (key: string) => observationColumns(metric).find((c) => c.key === key)!;

  it('names rows so that components of one vector differ', () => {
    expect(rowKey(row({ id: 7, component: 'dy' }))).toBe('7dy');
    expect(atName(row({ set: '2' }))).toBe('A/2');
    expect(atName(row({ kind: 'vector', set: 'S1' }))).toBe('A');
  });

  it('shows angles and lengths in their own units, zero without a sign', () => {
    expect(column('observed').text!(row({}))).toBe('45 00 00.0');
    expect(column('observed').text!(row({ kind: 'slope-distance', observed: 123.45678 }))).toBe('123.4568');
    expect(column('residual').text!(row({ residual: -1 / 3600 }))).toBe('\u22121.0"');
    expect(column('residual').text!(row({ kind: 'vector', residual: 0.0042 }))).toBe('+4.2 mm');
    expect(column('standardized').text!(row({ standardized: -0.001 }))).not.toBe('\u22120.0');
  });

  it('sorts the worst first and what is set aside last', () => {
    const by = column('standardized').sortBy!;
    const order = [row({ id: 1, standardized: -4 }), row({ id: 2, standardized: 9, used: false }), row({ id: 3, standardized: 2 })].sort(
      (a, b) => Number(by(b)) - Number(by(a)),
    );
    expect(order.map((r) => r.id)).toEqual([1, 3, 2]);
  });

  it('says held instead of an ellipse of nothing', () => {
    const ellipse = stationColumns(metric).find((c) => c.key === 'major')!;
    expect(ellipse.text!({ semiMajor: 0, semiMinor: 0 } as StationView)).toBe('held');
    expect(ellipse.text!({ semiMajor: 0.0041, semiMinor: 0.0029 } as StationView)).toBe('4.1 × 2.9');
  });
});

describe('network scene', () => {
  const points = [point('A', 0, 0, { role: 'control', held: 'enh' }), point('B', 10, 0), point('T', 5, 5, { role: 'surveyed' })];

  it('draws one line for all sights between two stations, whoever sighted', () => {
    expect(lineKey(row({ at: 'B', to: 'A', kind: 'zenith' }))).toBe(lineKey(row({})));
    expect(lineKey(row({ kind: 'vector' }))).not.toBe(lineKey(row({})));
    const scene = networkScene(
      points,
      network([row({}), row({ id: 2, at: 'B', to: 'A', kind: 'zenith' }), row({ id: 3, kind: 'vector', component: 'dx' })]),
      false,
    );
    expect(scene.lines.map((l) => l.style)).toEqual(['sight', 'vector']);
  });

  it('leaves surveyed points out and keeps roles', () => {
    const scene = networkScene(points, network([]), false);
    expect(scene.points.map((p) => [p.name, p.role])).toEqual([
      ['A', 'held'],
      ['B', 'adjusted'],
    ]);
  });

  it('marks a line bad when one of its observations stands out, aside when one is set aside', () => {
    const tone = (rows: RowView[]) => networkScene(points, network(rows), false).lines[0]!.tone;
    expect(tone([row({}), row({ id: 2, flagged: true })])).toBe('bad');
    expect(tone([row({}), row({ id: 2, used: false, flagged: true })])).toBe('aside');
    expect(tone([row({ id: 2, used: false }), row({ flagged: true })])).toBe('bad');
    expect(tone([row({})])).toBe('plain');
  });

  it('places stations that only the adjustment knows, and shows moves instead of ellipses when asked', () => {
    const stations = [{ name: 'N', e: 3, n: 4, semiMajor: 0.01, semiMinor: 0.01, bearing: 0, moveE: 0.002, moveN: 0 }];
    const still = networkScene(points, network([row({ to: 'N' })], stations), false);
    expect(still.points.map((p) => p.name)).toContain('N');
    expect(still.lines).toHaveLength(1);
    expect(still.ellipses).toHaveLength(1);
    expect(still.confidence).toBe(0.99);
    const moves = networkScene(points, network([], stations), true);
    expect(moves.ellipses).toHaveLength(0);
    expect(moves.shifts).toEqual([{ e: 3, n: 4, de: 0.002, dn: 0 }]);
  });

  it('draws nothing for an end nobody knows', () => {
    expect(networkScene(points, network([row({ to: 'Z' })]), false).lines).toHaveLength(0);
    expect(networkScene([], null, false).points).toHaveLength(0);
  });

  it('writes on every line the least redundancy number, or the largest external effect', () => {
    const rows = [
      row({ id: 1, redundancy: 0.7, external: 0.001 }),
      row({ id: 2, kind: 'zenith', redundancy: 0.05, external: 0.004 }),
      row({ id: 3, redundancy: 0.01, external: 0.9, used: false }),
    ];
    const scene = networkScene(points, network(rows), false, null, 'redundancy');
    expect(scene.notes).toEqual([{ e: 5, n: 0, text: '0.05', tone: 'bad' }]);
    expect(scene.ellipses).toHaveLength(0);
    expect(scene.caption).toContain('least redundancy');
    const external = networkScene(points, network(rows), false, null, 'external', (m) => `${1000 * m}`);
    expect(external.notes.map((n) => n.text)).toEqual(['4']);
  });

  it('draws relative ellipses half way between two stations', () => {
    const relative = [{ from: 'A', to: 'B', semiMajor: 0.004, semiMinor: 0.002, bearing: 30, sdH: 0.003 }];
    const scene = networkScene(points, { ...network([]), relative }, false, null, 'relative');
    expect(scene.ellipses.map((x) => [x.e, x.n, x.semiMajor])).toEqual([[5, 0, 0.004]]);
  });
});

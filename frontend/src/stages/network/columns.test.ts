import { describe, expect, it } from 'vitest';
import type { GroupView, RowView, RunView, StationView } from '../../api/types';
import type { Column } from '../../figures/columns';
import { observationRow } from '../../../tests/network';
import { atName, groupColumns, observationColumns, rowKey, runColumns, stationColumns } from './columns';

const metric = { length: 'm', angle: 'dms', decimals: 3, heights: 3, angles: 1, small: 1, areas: 1 };
const feet = { length: 'ft', angle: 'gon', decimals: 2, heights: 3, angles: 1, small: 1, areas: 1 };

const row = (over: Partial<RowView> = {}) =>
  observationRow({
    id: 4,
    set: '2',
    observed: 63.15394,
    residual: 9.8 / 3600,
    groundMm: 10,
    standardized: -4.26,
    redundancy: 0.523,
    detectable: 5.4 / 3600,
    flagged: true,
    file: 'f.csv',
    ...over,
  });

/** What the cells of a row say. */
function cells<T>(columns: Column<T>[], value: T): Record<string, string> {
  return Object.fromEntries(columns.map((c) => [c.key, c.text ? c.text(value) : String(c.value(value) ?? '')]));
}

describe('the observation table', () => {
  it('says angles in the angle unit and their small parts in seconds', () => {
    expect(cells(observationColumns(metric), row())).toMatchObject({
      kind: 'dir',
      at: 'KT03/2',
      to: 'KT07',
      observed: '63 09 14.2',
      residual: '+9.8"',
      standardized: '\u22124.3',
      redundancy: '0.52',
      mdb: '5.4"',
      flag: '▲',
    });
  });

  it('says lengths in the length unit and their small parts in thousandths', () => {
    const vector = row({
      kind: 'vector',
      component: 'dx',
      set: 'S3',
      observed: -123.4567,
      residual: 0.0088,
      detectable: 0.012,
      flagged: false,
    });
    expect(cells(observationColumns(metric), vector)).toMatchObject({
      kind: 'vec dx',
      at: 'KT03',
      observed: '\u2212123.4567',
      residual: '+8.8 mm',
      mdb: '12.0',
      flag: '',
    });
    expect(cells(observationColumns(feet), vector)).toMatchObject({ observed: '\u2212405.042', residual: '+0.0289 ft' });
  });

  it('leaves empty what is not known, and marks what is set aside', () => {
    const aside = row({ used: false, residual: null, standardized: null, redundancy: null, detectable: null });
    expect(cells(observationColumns(metric), aside)).toMatchObject({ residual: '', standardized: '', redundancy: '', mdb: '', flag: '○' });
  });

  it('sorts what is set aside below everything that counts', () => {
    const by = observationColumns(metric).find((c) => c.key === 'standardized')!.sortBy!;
    expect(by(row({ standardized: 9, used: false }))).toBeLessThan(by(row({ standardized: 0.1 })) as number);
    expect(by(row({ standardized: -4 }))).toBeGreaterThan(by(row({ standardized: 3 })) as number);
  });

  it('knows a component of a vector from the whole', () => {
    expect(rowKey(row({ component: 'dz' }))).toBe('4dz');
    expect(rowKey(row())).toBe('4');
    expect(atName(row({ set: '' }))).toBe('KT03');
  });
});

describe('the station table', () => {
  const station: StationView = {
    name: 'KT06',
    e: 493379.86612,
    n: 6028466.05234,
    h: 238.9534,
    sdE: 0.001,
    sdN: 0.001,
    sdH: 0.0021,
    semiMajor: 0.0042,
    semiMinor: 0.0031,
    bearing: 30,
    held: '',
    control: false,
    moveE: 0.003,
    moveN: 0.004,
    moveH: 0,
  };

  it('gives one decimal more than coordinates are shown with elsewhere', () => {
    expect(cells(stationColumns(metric), station)).toMatchObject({
      e: '493379.8661',
      n: '6028466.0523',
      h: '238.9534',
      major: '4.2 × 3.1',
      sdh: '2.1',
      move: '5.0',
    });
    expect(cells(stationColumns(feet), station).e).toBe('1618700.348');
  });

  it('says held instead of an ellipse without size, and nothing of a first run', () => {
    expect(cells(stationColumns(metric), { ...station, semiMajor: 0, semiMinor: 0, moveE: null, moveN: null, moveH: null })).toMatchObject({
      major: 'held',
      move: '',
    });
  });
});

describe('groups and runs', () => {
  it('say how they stand', () => {
    const group: GroupView = {
      name: 'directions at KT03',
      kind: 'direction',
      setup: 'KT03/1',
      count: 5,
      redundancy: 2.44,
      factor: null,
      standing: 'untested',
    };
    expect(cells(groupColumns, group)).toEqual({
      name: 'directions at KT03',
      count: '5',
      redundancy: '2.4',
      factor: '',
      standing: 'untested',
    });
    const run = {
      run: 3,
      passed: null,
      varianceFactor: 1.9412,
      redundancy: 120,
      asideCount: 2,
      free: true,
      createdAt: '2031-05-04T09:00:00Z',
      author: 'Demo',
    } as RunView;
    expect(cells(runColumns, run)).toMatchObject({ run: '3', passed: 'untested', factor: '1.941', free: 'free', aside: '2' });
    expect(cells(runColumns, { ...run, passed: false, free: false })).toMatchObject({ passed: '▲ fails', free: 'control' });
  });
});

// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { FixView, HeldDrawingView, HeldView } from '../../api/types';
import { office, show } from '../../../tests/office';
import { fieldLines, fieldScene, outline, stakeable, walk } from './fieldScene';
import PackagesPage from './PackagesPage.vue';
import { POSITIONS, useRover } from './useRover';

afterEach(() => (document.body.innerHTML = ''));

const held: HeldView = {
  name: 'heap',
  project: 'Tarn',
  made: '2031-05-04T09:00:00+00:00',
  system: 'ETRS89 / UTM zone 30N',
  heights: 'ellipsoidal',
  checked: '',
  leftOut: [],
  items: [
    { kind: 'lines', name: 'KERB', count: 2, file: 'lines.dxf', from: 'site.dxf', why: '' },
    { kind: 'geoid', name: 'egm', count: 0, file: 'geoid.gtx', from: 'egm', why: 'geoid.gtx is missing' },
  ],
  layers: [{ name: 'KERB', colour: '#b8860b', lines: 2 }],
  surfaces: [],
};
const drawing: HeldDrawingView = {
  points: [{ name: 'P1', e: 5, n: 5, h: 100, code: '' }],
  lines: [
    {
      layer: 'KERB',
      vertices: [
        [0, 0, 1],
        [10, 0, 2],
      ],
    },
    {
      layer: 'KERB',
      vertices: [
        [0, 3, 1],
        [10, 3, 2],
      ],
    },
  ],
  background: [
    {
      layer: 'FENCE',
      vertices: [
        [0, 9, 0],
        [9, 9, 0],
      ],
    },
  ],
  alignments: [{ name: 'road', start: 100, length: 50, e: [0, 50], n: [0, 0], stations: [100, 150] }],
};

describe('what a package holds on the sketch', () => {
  it('draws lines in the colours of their layers, and leaves out what is off', () => {
    const all = fieldScene(held, drawing, null, new Set());
    expect(all.paths.map((p) => p.colour)).toEqual(['#b9b2a2', '#1f2733', '#b8860b', '#b8860b']);
    expect(all.points.map((p) => p.name)).toEqual(['P1']);
    const few = fieldScene(held, drawing, null, new Set(['KERB', 'points', 'background']));
    expect([few.paths.length, few.points.length]).toEqual([1, 0]);
    expect(fieldLines(held, drawing, new Set()).map((l) => l.colour)).toEqual(['#b8860b', '#b8860b']);
  });

  it('names lines that can be set out apart', () => {
    expect(stakeable(drawing)).toEqual([
      { key: 'alignment 0', name: 'road' },
      { key: 'line 0', name: 'KERB 1' },
      { key: 'line 1', name: 'KERB 2' },
    ]);
  });

  it('outlines a surface by the edges of one triangle only', () => {
    const xyz = Float64Array.from([0, 0, 0, 1, 0, 0, 1, 1, 0, 0, 1, 0]);
    const edges = outline({ xyz, corners: Uint32Array.from([0, 1, 2, 0, 2, 3]) });
    expect(edges.length).toBe(4);
    expect(edges).not.toContainEqual([0, 0, 1, 1]);
  });

  it('walks inside the box, each step looking where the next goes', () => {
    const path = walk([0, 0, 100, 50], 60);
    expect(path.length).toBe(60);
    for (const [i, [e, n, bearing]] of path.entries()) {
      expect(e > 0 && e < 100 && n > 0 && n < 50).toBe(true);
      const next = path[i + 1];
      if (next) expect(bearing).toBeCloseTo(((Math.atan2(next[0] - e, next[1] - n) * 180) / Math.PI + 360) % 360, 6);
    }
  });
});

describe('the packages page', () => {
  it('says what differs between the zip and its manifest', async () => {
    const file = {
      id: 9,
      slot: 'export:package:1',
      kind: 'package',
      label: 'Package',
      name: 'tarn-heap.zip',
      size: 4000,
      run: 2,
      createdAt: '2031-05-04T09:00:00Z',
      author: 'Demo',
      holds: true,
      checks: [],
      leftOut: [],
      stale: [],
    };
    const kept = {
      id: 1,
      version: 3,
      name: 'heap',
      surfaces: [],
      roles: [],
      codes: [],
      layers: [],
      alignments: [],
      localization: 0,
      geoid: 0,
      files: [file],
    };
    office({
      'GET /handover/packages': {
        packages: [kept],
        surfaces: [],
        roles: [],
        codes: [],
        layers: [],
        alignments: [],
        localizations: [],
        geoids: [],
        colours: [],
      },
      'GET /handover/9/held': held,
      'GET /handover/9/held/drawing': drawing,
    });
    const page = await show(PackagesPage);
    await flushPromises();
    expect(page.get('h1').text()).toBe('Package heap holds 2 lines');
    expect(page.findAll('.body .row').map((r) => r.text().includes('✕ differs'))).toEqual([false, true]);
    expect(page.text()).toContain('version 2');
  });
});

describe('the simulated rover', () => {
  it('averages a shot, and brings it back', async () => {
    vi.useFakeTimers();
    let n = 0;
    const fix = (): FixView => ({ e: 1, n: 2, h: 10 + (n++ % 2) * 0.02, sd: 0.008, design: 10, above: 0, point: null, line: null });
    const o = office({
      'POST /handover/9/held/fixes': (body: { places: number[][] }) => body.places.map(fix),
      'POST /handover/9/held/shots': { file: 4, names: ['AB-1'] },
    });
    const r = useRover(9, [1, 2]);
    const shot = r.shoot('KERB');
    await vi.runAllTimersAsync();
    await shot;
    expect(r.shots.value).toHaveLength(1);
    const [s] = r.shots.value;
    expect(s).toMatchObject({ count: POSITIONS, code: 'KERB' });
    expect(s!.above).toBeCloseTo(0.01, 9);
    expect(s!.sd).toBeCloseTo(0.008 / Math.sqrt(POSITIONS), 9);
    vi.useRealTimers();
    await r.bring('AB-');
    expect(o.bodies('POST /handover/9/held/shots')).toMatchObject([{ prefix: 'AB-', shots: [{ count: POSITIONS, code: 'KERB' }] }]);
    expect(r.shots.value).toEqual([]);
  });
});

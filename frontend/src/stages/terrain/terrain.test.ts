// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { MaterialsRequest, SectionView, SurfaceRequest, SurfaceView, VolumeRequest, VolumeView } from '../../api/types';
import { office, point, press, route, show, type } from '../../../tests/office';
import { readAt, swapAt } from './mesh';
import { chosen, toggled } from './selection';
import { shaded } from './shading';
import TerrainStage from './TerrainStage.vue';
import { useDraft } from './useDraft';

afterEach(() => (document.body.innerHTML = ''));

const feet = { length: 'ft', angle: 'dms', decimals: 2, heights: 3, angles: 1, small: 1, areas: 1 };
const units = { ...feet, length: 'm', decimals: 3 };

const points = [
  point('P1', 0, 0, 1, { role: 'surveyed', code: 'TOE' }),
  point('P2', 10, 0, 1, { role: 'surveyed', code: 'TOE' }),
  point('P3', 10, 10, 1, { role: 'surveyed', code: 'CREST' }),
  point('P4', 0, 10, 1, { role: 'surveyed', code: 'GROUND' }),
  point('KT01', 5, 5, null),
];

const surface = (over: Partial<SurfaceView> = {}): SurfaceView => ({
  id: 2,
  version: 3,
  name: 'Borrow pit',
  roles: ['surveyed'],
  codes: [],
  exclude: ['PILLAR'],
  pattern: '',
  areas: [],
  include: [],
  index: 5,
  smooth: false,
  crossing: 'refuse',
  design: null,
  drawn: [],
  cloud: null,
  lines: [{ role: 'breakline', name: 'crest', points: ['P3'], vertices: [] }],
  maxEdge: null,
  interval: 0.5,
  computed: true,
  run: 1,
  points: 4,
  triangles: 2,
  planArea: 100,
  surfaceArea: 101.5,
  hMin: 219.04,
  hMax: 231.5,
  contourCount: 12,
  mesh: 'x',
  contours: 'x',
  stale: [],
  warnings: ['2 points lie twice'],
  createdAt: '2031-05-04T09:00:00Z',
  author: 'Demo',
  ...over,
});

async function open(stage: Awaited<ReturnType<typeof show>>, tab: string, test = 'terrain-tab') {
  await stage.get(`[data-test=${test}-${tab}]`).trigger('click');
  await flushPromises();
}

/** Two triangles as the server packs them. */
function mesh(): ArrayBuffer {
  const buffer = new ArrayBuffer(8 + 24 * 4 + 12 * 2);
  const view = new DataView(buffer);
  view.setUint32(0, 4, true);
  view.setUint32(4, 2, true);
  return buffer;
}

const volume = (over: Partial<VolumeView> = {}): VolumeView => ({
  number: 1,
  name: 'pit to 225',
  of: 'surface Borrow pit',
  comparedTo: 'the elevation 225.000 m',
  surface: 2,
  against: 'elevation',
  other: 0,
  elevation: 225,
  boundary: [],
  slice: 1,
  cut: 100,
  fill: 21353.3,
  net: -21253.3,
  areaCut: 10,
  areaFill: 90,
  planArea: 100,
  thickest: 1.25,
  deepest: 6.5,
  depths: [
    { from: 0, to: 1, cut: 80, fill: 9000 },
    { from: 1, to: 2, cut: 20, fill: 12353.3 },
  ],
  elevations: [{ from: 224, to: 225, cut: 0, fill: 21353.3 }],
  haul: [
    {
      material: 'clay',
      isNative: true,
      looseCut: 125,
      makes: 90,
      bankForFill: 23725.9,
      looseOver: -29532.4,
      massOver: -42526.6,
      loads: 2462,
    },
  ],
  isopach: 'y',
  contours: 'z',
  run: 1,
  at: '2031-05-04T09:00:00Z',
  author: 'Demo',
  stale: [],
  ...over,
});

const preview = { points: 4, triangles: 2, mesh: null, contours: [], warnings: ['crest crosses toe'], refusal: null };

describe('the terrain stage', () => {
  const materials = [{ name: 'clay', isNative: true, swell: 1.25, shrink: 0.9, density: 1.8 }];
  const answers = (s: SurfaceView[], volumes: VolumeView[] = [], sections: SectionView[] = []) => ({
    'GET /terrain': {
      surfaces: s,
      codes: { TOE: 2, CREST: 1 },
      volumes,
      materials,
      capacity: 12,
      sections,
      alignments: [],
      designs: [],
      clouds: [],
    },
    'POST /terrain/preview': preview,
    'GET /terrain/volumes/1/contours': [{ h: 0, lines: [[0, 0, 1, 1]] }],
    'GET /terrain/volumes/1/mesh': mesh(),
    'GET /terrain/surfaces/2/contours': [{ h: 220, lines: [[0, 0, 1, 1]] }],
    'GET /terrain/surfaces/2/mesh': mesh(),
  });

  it('says that there is nothing to make one of', async () => {
    office(answers([]), {}, []);
    const stage = await show(TerrainStage);
    expect(stage.text()).toContain('There are no points to make one of.');
    expect(stage.get<HTMLButtonElement>('[data-test=new-surface]').element.disabled).toBe(true);
  });

  it('says a surface in numbers, with what it rests on and what is odd', async () => {
    office(answers([surface()]), {}, points);
    const stage = await show(TerrainStage);
    expect(stage.get('h1').text()).toBe('Borrow pit: 219.04 to 231.50 m');
    expect(stage.text()).toContain('4 points in 2 triangles over 100.0 m² in plan, 101.5 m² on the ground');
    expect(stage.text()).toContain('surveyed points, without PILLAR');
    expect(stage.text()).toContain('2 points lie twice');
  });

  it('asks for an elevation, and computes a volume in the units shown', async () => {
    const o = office(
      {
        ...answers([surface()], [volume()]),
        'POST /terrain/volumes': { job: 'v' },
        'GET /jobs/v': { id: 'v', title: 'v', state: 'done', outcome: { number: 1 } },
      },
      { units: feet },
      points,
    );
    const stage = await show(TerrainStage);
    await open(stage, 'volumes');
    await stage.get('[data-test=new-volume]').trigger('click');
    await type(stage, '[data-test=volume-name]', 'pit');
    expect(stage.get<HTMLButtonElement>('[data-test=compute-volume]').element.disabled).toBe(true);
    expect(stage.text()).toContain('Type an elevation, such as 225.0.');
    await type(stage, '#volume-elevation', '1000');
    await stage.get('form').trigger('submit');
    await flushPromises();
    const sent = o.bodies('POST /terrain/volumes')[0] as VolumeRequest;
    expect(sent).toMatchObject({ name: 'pit', surface: 2, against: 'elevation', number: null });
    expect(sent.elevation).toBeCloseTo(304.8, 9);
  });

  it('says a volume in words, in slices, and what it is to carry', async () => {
    const o = office(
      { ...answers([surface()], [volume({ stale: ['surface changed'] })]), 'PUT /terrain/materials': { seq: 4 } },
      {},
      points,
    );
    const stage = await show(TerrainStage);
    await open(stage, 'volumes');
    expect(stage.get('[data-test=volume-headline]').text()).toBe('pit to 225: 100.0 m³ above, 21\u2009353.3 m³ below');
    expect(stage.text()).toContain('−21\u2009253.3 m³');
    expect(stage.text()).toContain('Stale: surface changed.');
    expect(stage.text()).toContain('12\u2009353.3');
    await open(stage, 'haul', 'volume-tab');
    expect(stage.text()).toContain('−42527');
    await stage.get('[data-test=edit-materials]').trigger('click');
    await stage.get('[data-test=keep-materials]').trigger('click');
    await flushPromises();
    expect(o.bodies('PUT /terrain/materials')[0] as MaterialsRequest).toEqual({ materials, capacity: 12 });
  });

  it('says stale and offers one action', async () => {
    const o = office(
      {
        ...answers([surface({ stale: ['points changed'] })]),
        'POST /recompute': { job: 'r' },
        'GET /jobs/r': { id: 'r', title: 'r', state: 'done', outcome: null },
      },
      {},
      points,
    );
    const stage = await show(TerrainStage);
    expect(stage.get('[data-test=surface-stale]').text()).toContain('Stale: points changed.');
    await press(stage, 'Recompute in order');
    expect(o.calls.some((c) => c.route === 'POST /recompute')).toBe(true);
  });

  const made = {
    'POST /terrain/surfaces': { job: 's', surface: 2 },
    'PUT /terrain/surfaces/2': { job: 's', surface: 2 },
    'GET /jobs/s': { id: 's', title: 's', state: 'done', outcome: null },
  };

  it('makes a new one through a job, with what was chosen, in metres', async () => {
    const o = office({ ...answers([surface()]), ...made }, { units: feet }, points);
    route.query = { action: 'new-surface' };
    const stage = await show(TerrainStage);
    await type(stage, '#surface-name', 'Second');
    expect(stage.get('[data-test=chosen]').text()).toBe('4');
    await stage.get('[aria-label="Names like"]').setValue('P*');
    await type(stage, '#surface-interval', '1');
    await type(stage, '#surface-edge', '100');
    await stage.get('[aria-label="Names like"]').setValue('P1 P2');
    expect(stage.get('[data-test=chosen]').text()).toBe('2');
    expect(stage.get<HTMLButtonElement>('[data-test=save-surface]').element.disabled).toBe(true);
    await stage.get('[aria-label="Names like"]').setValue('P?');
    await stage.get('form').trigger('submit');
    await flushPromises();
    expect(o.bodies('POST /terrain/surfaces')[0] as SurfaceRequest).toMatchObject({
      name: 'Second',
      pattern: 'P?',
      interval: 0.3048,
      maxEdge: 30.48,
      crossing: 'refuse',
    });
    expect(stage.get('h1').text()).toContain('Borrow pit');
  });

  it('shows the surface as it would be, a moment after the last change', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    const o = office(answers([surface()]), {}, points);
    route.query = { action: 'new-surface' };
    const stage = await show(TerrainStage);
    await stage.get('[aria-label="Names like"]').setValue('P*');
    await stage.get('[aria-label="Names like"]').setValue('P?');
    vi.advanceTimersByTime(400);
    vi.useRealTimers();
    await flushPromises();
    expect(o.bodies('POST /terrain/preview').map((b) => (b as SurfaceRequest).pattern)).toEqual(['P?']);
    expect(stage.text()).toContain('4 points: drawn when it is made.');
  });
});

describe('selections', () => {
  const all = { roles: ['surveyed'], codes: [], pattern: '', areas: [], include: [], exclude: [] };
  const names = (s: Partial<typeof all>) => chosen(points, { ...all, ...s }).map((p) => p.name);

  it('takes points by name, code, area and list', () => {
    expect(names({})).toEqual(['P1', 'P2', 'P3', 'P4']);
    expect(names({ pattern: 'P1 *3' } as never)).toEqual(['P1', 'P3']);
    expect(names({ codes: ['TOE'] } as never)).toEqual(['P1', 'P2']);
    const box = [
      [5, -1],
      [11, -1],
      [11, 11],
      [5, 11],
    ] as never;
    expect(names({ areas: [box] as never })).toEqual(['P2', 'P3']);
    expect(names({ areas: [box] as never, include: ['P1'] as never, exclude: ['P3'] as never })).toEqual(['P1', 'P2']);
  });

  it('turns a point out and in again, and is as it was', () => {
    const out = toggled(all as never, points[0]!, points);
    expect(out).toMatchObject({ include: [], exclude: ['P1'] });
    expect(toggled(out, points[0]!, points)).toEqual(all);
    const crest = { ...all, codes: ['CREST'] };
    const taken = toggled(crest as never, points[0]!, points);
    expect(taken).toMatchObject({ include: ['P1'], exclude: [] });
    expect(toggled(taken, points[0]!, points)).toEqual(crest);
  });
});

describe('a mesh', () => {
  /** Two triangles over a square of 10 m, 1 in 10 up to the east. */
  const square = {
    xyz: new Float64Array([0, 0, 5, 10, 0, 6, 10, 10, 6, 0, 10, 5]),
    corners: new Uint32Array([0, 1, 2, 0, 2, 3]),
  };

  it('is read where one looks', () => {
    expect(readAt(square, 4, 1)).toMatchObject({ first: 0 });
    expect(readAt(square, 4, 1)!.h).toBeCloseTo(5.4, 12);
    expect(readAt(square, 4, 1)!.slope).toBeCloseTo(0.1, 12);
    expect(readAt(square, 11, 1)).toBeNull();
  });

  it('knows the other diagonal, and where there is none', () => {
    expect(swapAt(square, 5, 4.9)!.to.flat().sort()).toEqual([0, 0, 10, 10]);
    expect(swapAt(square, 5, 0.1), 'an edge of the border').toBeNull();
    const dart = { ...square, xyz: new Float64Array([0, 0, 5, 10, 0, 6, 10, 10, 6, -5, -4, 5]) };
    expect(swapAt(dart, 5.1, 4.4), 'two triangles that do not make a convex quadrangle').toBeNull();
  });

  it('is coloured by steps one can read', () => {
    expect(shaded(square, 'slope', units)!.band).toEqual(new Uint8Array([3, 3]));
    const heights = shaded(square, 'elevation', units)!;
    expect(heights.labels).toEqual(['5.00', '5.20', '5.40', '5.60', '5.80']);
    expect(heights.limits[0]).toBe(5);
    const about = { ...square, xyz: square.xyz.map((v, k) => (k % 3 === 2 ? v - 5.5 : v)) };
    expect(shaded(about, 'difference', units)!.labels).toEqual(['−0.40', '−0.20', '−0.01', '+0.01', '+0.20', '+0.40']);
  });
});

describe('designs', () => {
  const drawing = {
    id: 5,
    name: 'slab.dxf',
    x: [0, 10, 10, 0],
    y: [0, 0, 10, 10],
    z: [1, 1, 1, 1],
    triangles: [0, 1, 2, 0, 2, 3],
    faceOf: [0, 0],
    layers: ['TOP', 'KERB'],
    faceLayer: [0],
    lines: [[0, 1]],
    lineLayer: [1],
    points: [],
    pointLayer: [],
  };
  const file = { id: 5, name: 'slab.dxf', faces: 1, layers: { TOP: 1 }, lines: 1, points: 0, lineLayers: { KERB: 1 } };
  const answers = {
    'GET /terrain': {
      surfaces: [],
      codes: {},
      volumes: [],
      materials: [],
      capacity: 12,
      sections: [],
      alignments: [],
      designs: [file],
      clouds: [],
    },
    'GET /designs': [file],
    'GET /designs/5': drawing,
  };

  it('are taken apart into a surface and into points', async () => {
    const { bodies } = office({
      ...answers,
      'POST /terrain/surfaces': { job: 'j', surface: 9 },
      'POST /designs/5/points': { seq: 4 },
      'GET /jobs/j': { id: 'j', state: 'done', title: 'x', outcome: {} },
    });
    const stage = await show(TerrainStage);
    await open(stage, 'designs');
    expect(stage.get('[data-test=design-headline]').text()).toBe('slab.dxf: 1 face, 1 line');
    await stage.get('[data-test=pick-all]').trigger('click');
    expect(stage.get('[data-test=picked-of]').text()).toBe('1 of 1 faces picked');
    expect(stage.get('[data-test=take-points]').text()).toBe('Make 4 points');
    await stage.findAll('form')[1]!.trigger('submit');
    await flushPromises();
    expect(bodies('POST /designs/5/points')).toEqual([{ corners: [0, 1, 2, 3], prefix: 'D-', code: '', unit: '' }]);
    await stage.get('[data-test=pick-all]').trigger('click');
    await stage.get('[data-test=design-surface-name] input, input[data-test=design-surface-name]').setValue('slab');
    await stage.findAll('form')[0]!.trigger('submit');
    await flushPromises();
    expect(bodies('POST /terrain/surfaces')).toEqual([{ name: 'slab', interval: 0.5, design: { file: 5, faces: [0], unit: '' } }]);
  });

  it('lend a surface their lines', async () => {
    office(answers);
    const draft = useDraft();
    draft.open(surface(), []);
    draft.drawnLayers.value = ['5 KERB', '5 AXIS', '7 '];
    expect(draft.request.value?.drawn).toEqual([
      { file: 5, layers: ['KERB', 'AXIS'] },
      { file: 7, layers: [] },
    ]);
    expect(draft.drawnLayers.value).toEqual(['5 KERB', '5 AXIS', '7 ']);
  });
});

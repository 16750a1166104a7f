// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it } from 'vitest';
import type { SurfaceRequest, SurfaceView } from '../../api/types';
import { office, point, press, route, show, tick, type } from '../../../tests/office';
import SurfaceForm from './SurfaceForm.vue';
import TerrainStage from './TerrainStage.vue';

afterEach(() => (document.body.innerHTML = ''));

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
  volume: null,
  createdAt: '2031-05-04T09:00:00Z',
  author: 'Demo',
  ...over,
});

/** Two triangles as the server packs them. */
function mesh(): ArrayBuffer {
  const buffer = new ArrayBuffer(8 + 24 * 4 + 12 * 2);
  const view = new DataView(buffer);
  view.setUint32(0, 4, true);
  view.setUint32(4, 2, true);
  return buffer;
}

describe('making a surface', () => {
  const props = { surface: null, codes: { TOE: 2, CREST: 1, GROUND: 1 }, drawn: null, drawing: false };

  it('counts the points it would take and refuses fewer than three', async () => {
    office({}, {}, points);
    const form = await show(SurfaceForm, props);
    expect(form.get('legend').text()).toBe('points 4');
    const codes = form.findAll<HTMLInputElement>('fieldset')[0]!.findAll('input');
    await codes.at(-1)!.setValue(true);
    expect(form.get('legend').text()).toBe('points 1');
    expect(form.get<HTMLButtonElement>('[data-test=save-surface]').element.disabled).toBe(true);
  });

  it('saves selection, lines, boundary and limits in metres', async () => {
    office({}, { units: { length: 'ft', angle: 'dms', decimals: 2, heights: 3, angles: 1, small: 1, areas: 1 } }, points);
    const ring: [number, number][] = [
      [0, 0],
      [9, 0],
      [9, 9],
    ];
    const form = await show(SurfaceForm, { ...props, drawn: ring });
    await type(form, '#surface-name', 'Pit');
    await tick(form, '[data-test=break-TOE]');
    await form.get('[aria-label="Breakline by names"]').setValue('P3, P4 P1');
    await form.get('#surface-exclude').setValue('P9 P8');
    await form.get('#surface-interval').setValue('1');
    await form.get('#surface-edge').setValue('100');
    await form.get('form').trigger('submit');
    const saved = form.emitted('save')!.at(-1)![0] as SurfaceRequest;
    expect(saved).toMatchObject({ name: 'Pit', exclude: ['P9', 'P8'], interval: 0.3048, maxEdge: 30.48 });
    expect(saved.lines).toEqual([
      { role: 'breakline', name: 'toe', points: ['P1', 'P2'], vertices: [] },
      { role: 'breakline', name: 'by names', points: ['P3', 'P4', 'P1'], vertices: [] },
      { role: 'boundary', name: 'boundary', points: [], vertices: ring },
    ]);
  });

  it('asks for drawing on the sketch, and for leaving', async () => {
    office({}, {}, points);
    const form = await show(SurfaceForm, props);
    await press(form, 'Draw on the sketch');
    expect(form.emitted('draw')!.at(-1)).toEqual([true]);
    await press(form, 'Leave it');
    expect(form.emitted('cancel')).toHaveLength(1);
  });
});

describe('the terrain stage', () => {
  const answers = (s: SurfaceView[]) => ({
    'GET /terrain': { surfaces: s, codes: { TOE: 2 } },
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

  it('computes a volume against an elevation in the units shown', async () => {
    const o = office(
      { ...answers([surface()]), 'POST /terrain/surfaces/2/volume': { seq: 3 } },
      { units: { length: 'ft', angle: 'dms', decimals: 2, heights: 3, angles: 1, small: 1, areas: 1 } },
      points,
    );
    const stage = await show(TerrainStage);
    await stage.get('[data-test=elevation]').setValue('1000');
    await stage.get('[data-test=volume]').trigger('click');
    await flushPromises();
    expect((o.bodies('POST /terrain/surfaces/2/volume')[0] as { elevation: number }).elevation).toBeCloseTo(304.8, 9);
  });

  it('asks for an elevation instead of taking none for zero', async () => {
    const o = office(answers([surface()]), {}, points);
    const stage = await show(TerrainStage);
    await stage.get('[data-test=volume]').trigger('click');
    await flushPromises();
    expect(o.project.note?.text).toBe('Type an elevation, such as 225.0.');
  });

  it('says stale and offers one action', async () => {
    const volume = {
      elevation: 225,
      cut: 100,
      fill: 21353.3,
      net: -21253.3,
      areaCut: 10,
      areaFill: 90,
      planArea: 100,
      stale: ['surface changed'],
      createdAt: '2031-05-04T09:00:00Z',
    };
    const o = office(
      {
        ...answers([surface({ stale: ['points changed'], volume })]),
        'POST /recompute': { job: 'r' },
        'GET /jobs/r': { id: 'r', title: 'r', state: 'done', outcome: null },
      },
      {},
      points,
    );
    const stage = await show(TerrainStage);
    expect(stage.get('[data-test=surface-stale]').text()).toContain('Stale: points changed.');
    expect(stage.text()).toContain('−21\u2009253.3 m³');
    await press(stage, 'Recompute in order');
    expect(o.calls.some((c) => c.route === 'POST /recompute')).toBe(true);
  });

  it('makes a new one through a job', async () => {
    const o = office(
      {
        ...answers([surface()]),
        'POST /terrain/surfaces': { job: 's', surface: 2 },
        'GET /jobs/s': { id: 's', title: 's', state: 'done', outcome: null },
      },
      {},
      points,
    );
    route.query = { action: 'new-surface' };
    const stage = await show(TerrainStage);
    await type(stage, '#surface-name', 'Second');
    await stage.get('form').trigger('submit');
    await flushPromises();
    expect((o.bodies('POST /terrain/surfaces')[0] as SurfaceRequest).name).toBe('Second');
    expect(stage.get('h1').text()).toContain('Borrow pit');
  });
});

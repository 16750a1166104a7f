// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { SectionRequest, SectionView } from '../../api/types';
import { office, point, show, type } from '../../../tests/office';
import { heightAt, markEvery, placeAt, stationAt, type SectionDrawing } from './sections';
import TerrainStage from './TerrainStage.vue';

vi.mock('./ProfileChart.vue', () => ({ __esModule: true, default: { template: '<div />' } }));
afterEach(() => (document.body.innerHTML = ''));

const drawing: SectionDrawing = {
  start: 100,
  e: [0, 10, 10],
  n: [0, 0, 20],
  stations: [0, 10, 30],
  surfaces: [
    {
      name: 'Pit',
      pieces: [
        [
          [0, 5],
          [10, 6],
        ],
        [
          [20, 8],
          [30, 6],
        ],
      ],
    },
  ],
  points: [{ name: 'P1', station: 4, offset: -0.5, h: 5.4 }],
  crosses: [
    {
      station: 110,
      e: [8, 12],
      n: [0, 0],
      surfaces: [
        [
          [
            [-2, 6],
            [2, 6.5],
          ],
        ],
      ],
    },
  ],
};

describe('a section', () => {
  it('knows places by stations and stations by places', () => {
    expect(placeAt(drawing, 5)).toEqual([5, 0]);
    expect(placeAt(drawing, 20)).toEqual([10, 10]);
    expect(placeAt(drawing, 99)).toEqual([10, 20]);
    expect(stationAt(drawing, 12, 15)).toEqual({ station: 25, away: 2 });
    expect(stationAt(drawing, -3, 4)).toEqual({ station: 0, away: 5 });
  });

  it('reads heights where the surface reaches', () => {
    expect(heightAt(drawing.surfaces[0]!.pieces, 2.5)).toBe(5.25);
    expect(heightAt(drawing.surfaces[0]!.pieces, 15)).toBeNull();
    expect(heightAt(drawing.surfaces[0]!.pieces, 25)).toBe(7);
    expect([markEvery(43), markEvery(205), markEvery(1600)]).toEqual([10, 50, 200]);
  });
});

const section: SectionView = {
  number: 1,
  name: 'along the road',
  surfaces: [2],
  line: [],
  file: 7,
  alignment: 'road',
  offset: 1,
  every: 20,
  half: 8,
  length: 30,
  start: 100,
  low: 5,
  high: 8,
  points: 1,
  crosses: 1,
  output: 'x',
  run: 1,
  at: '2031-05-04T09:00:00Z',
  author: 'Demo',
  stale: [],
};
const surfaces = [
  {
    id: 2,
    version: 1,
    name: 'Pit',
    computed: true,
    lines: [],
    areas: [],
    roles: [],
    codes: [],
    exclude: [],
    include: [],
    design: null,
    drawn: [],
    cloud: null,
    stale: [],
    warnings: [],
  },
];
const answers = (sections: SectionView[]) => ({
  'GET /terrain': {
    surfaces,
    codes: {},
    volumes: [],
    materials: [],
    capacity: 12,
    sections,
    alignments: [{ file: 7, fileName: 'road.xml', name: 'road', length: 205 }],
    designs: [],
    clouds: [],
  },
  'GET /terrain/surfaces/2/contours': [],
  'GET /terrain/surfaces/2/mesh': new ArrayBuffer(8),
  'GET /terrain/sections/1': drawing,
  'POST /terrain/sections': { job: 'c' },
  'GET /jobs/c': { id: 'c', title: 'c', state: 'done', outcome: { number: 1 } },
});
const points = [point('P1', 4, 0.5, 5.4), point('P2', 1, 1, 1), point('P3', 2, 1, 1)];

describe('sections on the page', () => {
  it('says what was cut, with points and cross-sections', async () => {
    office(answers([section]), {}, points);
    const stage = await show(TerrainStage);
    await stage.get('[data-test=terrain-tab-sections]').trigger('click');
    await flushPromises();
    expect(stage.get('[data-test=section-headline]').text()).toBe('along the road: 30.00 m, 5.00 to 8.00 m');
    expect(stage.text()).toContain('Along the alignment road.');
    await stage.get('[data-test=section-tab-points]').trigger('click');
    expect(stage.text()).toContain('104.00');
    await stage.get('[data-test=section-tab-crosses]').trigger('click');
    expect(stage.get('[data-test=cross]').text()).toBe('110.00');
  });

  it('is cut along an alignment, or along nothing before a line is drawn', async () => {
    const o = office(answers([]), {}, points);
    const stage = await show(TerrainStage);
    await stage.get('[data-test=terrain-tab-sections]').trigger('click');
    await stage.get('[data-test=new-section]').trigger('click');
    await flushPromises();
    await type(stage, '[data-test=section-name]', 'axis');
    expect(stage.text()).toContain('Draw the line on the sketch, or choose an alignment.');
    const along = stage
      .findAllComponents({ name: 'ElSelect' })
      .find((s) => s.attributes('aria-label') === 'Along' || s.props('modelValue') === '');
    along!.vm.$emit('update:modelValue', '7 road');
    await flushPromises();
    await stage.get('form').trigger('submit');
    await flushPromises();
    expect(o.bodies('POST /terrain/sections')[0] as SectionRequest).toMatchObject({
      name: 'axis',
      surfaces: [2],
      file: 7,
      alignment: 'road',
      line: [],
      offset: 1,
    });
  });
});

// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { createPinia, setActivePinia } from 'pinia';
import { beforeEach, describe, expect, it } from 'vitest';
import type { FlightsView, FlightView, MissionView, RaysView } from '../../api/types';
import { overview } from '../../../tests/office';
import { groupHeadline, groupRows, groupScene, groupSentences, placeWords, rayColumns, withRay } from './groups';
import ImageRays from './ImageRays.vue';

const units = overview.units;
const flight = {
  number: 4,
  name: 'barn, front',
  mission: 9,
  images: 8,
  joined: 8,
  alone: [] as string[],
  points: 850,
  rays: 3100,
  left: 76,
  pixel: 0.0192,
  converged: true,
  stale: [] as string[],
} as unknown as FlightView;
const image = (file: string, e: number) => ({
  file,
  photo: 3,
  e,
  n: 100,
  h: 2,
  footprint: [
    [e, 100],
    [e - 6, 110],
    [e + 6, 110],
  ] as [number, number][],
});
const mission = {
  id: 9,
  name: 'barn, front',
  isGroup: true,
  width: 640,
  height: 480,
  above: 10,
  missing: 1,
  pixel: 0.0192,
  images: [image('a.jpg', 0), image('b.jpg', 1)],
} as unknown as MissionView;
const ray = (file: string, dx: number | null, alike: number | null) => ({
  image: file,
  x: 320.04,
  y: 240,
  dx,
  dy: dx === null ? null : 0,
  alike,
});
const rays = (over: Partial<RaysView> = {}): RaysView => ({
  rays: [ray('a.jpg', 0.2, null), ray('b.jpg', 0.4, 0.96), ray('c.jpg', -0.1, 0.91)],
  place: [1, 110, 3],
  sd: [0.006, 0.008, 0.004],
  mistaken: null,
  lines: [
    {
      image: 'b.jpg',
      line: [
        [10, 20],
        [300, 220],
      ],
    },
  ],
  shows: [],
  ...over,
});

describe('groups of images', () => {
  beforeEach(() => setActivePinia(createPinia()));

  it('says what to do next', () => {
    expect(groupHeadline(null, mission)).toEqual({ words: 'barn, front: 2 images, not oriented yet', tone: 'doubt' });
    expect(groupSentences(null, mission, units)).toContain('1 of its images have not come in');
    expect(groupHeadline(flight, mission).tone).toBe('holds');
    expect(groupSentences(flight, mission, units)).toContain('76 that contradicted the others');
    expect(groupHeadline({ ...flight, alone: ['a.jpg'] }, mission)).toEqual({
      words: '1 of 8 images do not join the others',
      tone: 'fails',
    });
    expect(groupHeadline({ ...flight, converged: false }, mission).tone).toBe('fails');
  });

  it('says how well a place is known, and which ray is mistaken', () => {
    expect(placeWords(null, units).tone).toBe('quiet');
    expect(placeWords(rays(), units)).toEqual({
      words: '3 rays meet; the place is known to 10.0 mm in plan, 4.0 in height',
      tone: 'holds',
    });
    expect(placeWords(rays({ mistaken: 'b.jpg' }), units).words).toContain('The ray of b.jpg speaks against the others');
    expect(placeWords(rays({ place: null, sd: null, rays: [ray('a.jpg', null, null)] }), units).words).toContain('Found in no other image');
    expect(placeWords(rays({ place: null, sd: null }), units).words).toContain('do not meet');
    const text = (key: string, r: RaysView['rays'][number]) => rayColumns.find((c) => c.key === key)!.text!(r);
    expect([text('off', rays().rays[1]!), text('alike', rays().rays[0]!), text('alike', rays().rays[1]!)]).toEqual([
      '0.40',
      'clicked',
      '96',
    ]);
  });

  it('sets, moves and takes away rays', () => {
    const one = withRay([], 'a.jpg', { x: 1.234, y: 5 });
    expect(one).toEqual([{ image: 'a.jpg', x: 1.23, y: 5 }]);
    const two = withRay(one, 'b.jpg', { x: 2, y: 2 });
    expect(withRay(two, 'a.jpg', { x: 9, y: 9 })[0]).toEqual({ image: 'a.jpg', x: 9, y: 9 });
    expect(withRay(two, 'a.jpg', null)).toEqual([{ image: 'b.jpg', x: 2, y: 2 }]);
  });

  it('keeps groups apart from flights, and draws what they look at', () => {
    const stage = {
      flights: [flight],
      missions: [
        { id: 9, name: 'barn, front', images: 8, isGroup: true },
        { id: 10, name: 'field', images: 15, isGroup: false },
      ],
    } as unknown as FlightsView;
    expect(groupRows(stage).map((g) => [g.name, g.flight?.number])).toEqual([['barn, front', 4]]);
    const scene = groupScene(mission, [], [1, 110, 3], 'b.jpg');
    expect(scene.paths.map((p) => p.kind)).toEqual(['track', 'boundary']);
    expect(scene.points.map((p) => p.name)).toEqual(['picked']);
    expect(groupScene(null, [], null, '').points).toEqual([]);
  });

  it('shows lines and rays in the images, and picks where it is clicked', async () => {
    const page = mount(ImageRays, { props: { mission, rays: rays(), mayPick: true, active: 'b.jpg' } });
    expect(page.findAll('.strip button')).toHaveLength(2);
    expect(page.find('.large .line').attributes('points')).toBe('10.0,20.0 300.0,220.0');
    expect(page.findAll('.strip .found')).toHaveLength(2);
    expect(page.text()).toContain('Click to move its ray');
    await page.find('[data-test="image-a.jpg"]').trigger('click');
    expect(page.emitted('update:active')).toEqual([['a.jpg']]);
    await page.setProps({ rays: null, active: 'a.jpg' });
    expect(page.text()).toContain('Click a place in it');
    await page.setProps({ mayPick: false });
    expect(page.text()).toContain('Orient the images first');
  });
});

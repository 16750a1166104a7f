// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { office, overview, press, show } from '../../../tests/office';
import type { CloudRequest, CloudsView, CloudView } from '../../api/types';
import { between as shade, colours, usual } from '../../sketch/cloudColours';
import { places, planCells, planOf } from '../../sketch/cloudPlan';
import CloudForm from './CloudForm.vue';
import CloudsStage from './CloudsStage.vue';
import { classRows } from './columns';
import { between, cloudWords, fitWords, paintedEnds, paintedRamp, seenLines, seenOf, targetFitWords } from './words';

afterEach(() => (document.body.innerHTML = ''));

const units = overview.units;
const cloud = (over: Partial<CloudView> = {}): CloudView => ({
  number: 1,
  name: 'yard',
  of: 'yard.las',
  steps: ['ground found'],
  files: [3],
  clouds: [],
  passes: [],
  dense: [],
  targets: [],
  byTargets: null,
  paint: '',
  paintAgainst: '',
  range: 0.05,
  painted: null,
  crop: [],
  outside: false,
  thin: null,
  noise: false,
  ground: true,
  keeps: [],
  onto: 0,
  within: 1,
  fit: null,
  points: 25000,
  classes: { 1: 5000, 2: 20000 },
  extent: [0, 0, 10, 50, 40, 16],
  density: 12.5,
  spacing: 0.18,
  hasColours: false,
  hasIntensities: true,
  bytes: 500000,
  tiles: 'abc',
  run: 1,
  at: '2031-06-07T09:00:00Z',
  author: 'Demo',
  stale: [],
  ...over,
});
const stage = (over: Partial<CloudsView> = {}): CloudsView => ({
  clouds: [cloud()],
  files: [
    { id: 3, name: 'yard.las', points: 25000 },
    { id: 4, name: 'gate.las', points: 9000 },
  ],
  points: [],
  products: {},
  ...over,
});

/** A .pnts tile as OGC 22-025r4, section 10.3, lays it out. */
function tile(middle: number[], at: number[][]): ArrayBuffer {
  let json = JSON.stringify({ POINTS_LENGTH: at.length, RTC_CENTER: middle, POSITION: { byteOffset: 0 } });
  json = json.padEnd(json.length + ((8 - ((28 + json.length) % 8)) % 8));
  const bytes = new ArrayBuffer(28 + json.length + 12 * at.length);
  const view = new DataView(bytes);
  [0x73746e70, 1, bytes.byteLength, json.length, 12 * at.length, 0, 0].forEach((v, i) => view.setUint32(4 * i, v, true));
  new Uint8Array(bytes).set(new TextEncoder().encode(json), 28);
  at.flat().forEach((v, i) => view.setFloat32(28 + json.length + 4 * i, v, true));
  return bytes;
}

describe('words', () => {
  it('say how much there is, and how well one lies on another', () => {
    expect(cloudWords(cloud(), units)).toBe('25\u2009000 points over 2000 m²: 12.5 to a square metre, 0.180 m apart.');
    expect(cloudWords(cloud({ points: 500000, spacing: null }), units)).toContain('over 4.00 ha');
    const fit = { onto: 'yard', overlap: 0.724, rms: 0.0063, shift: [0.3, -0.4, 0], turn: 0.5 };
    const by = {
      off: [
        { target: 'T1', role: 'control', off: [0, 0, 0] },
        { target: 'K1', role: 'check', off: [0.003, 0, 0.004] },
      ],
      rms: 0.002,
      shift: [3, 4, 0],
      turn: 90,
      isTilted: false,
    };
    expect(targetFitWords(by, units)).toBe('By 1 target moved by 5.000 m and turned by 90.000°. Held out: K1 is off by 5.0 mm.');
    expect(targetFitWords({ ...by, off: [by.off[0]!, { ...by.off[0]!, target: 'T2' }] }, units)).toBe(
      'By 2 targets moved by 5.000 m and turned by 90.000°, level as it was; rms 2.0 mm.',
    );
    expect(seenOf('T1 1 2 3\n\nT2,4,5,6', ['T1', 'T2']).targets.map((t) => t.h)).toEqual([3, 6]);
    expect(seenOf(seenLines(seenOf('T1 1 2 3', ['T1']).targets), ['T1']).targets).toEqual([{ target: 'T1', e: 1, n: 2, h: 3 }]);
    expect(paintedEnds({ by: 'time', against: '', from: 10, to: 72.5 }, units)).toEqual(['first', '62.5 s later']);
    expect(paintedEnds({ by: 'deviation', against: 'cloud May', from: -0.05, to: 0.05 }, units)).toEqual(['−50.0', '+50.0 mm']);
    expect(paintedRamp('deviation')).toContain('rgb(225 222 214)');
    expect(seenOf('T1 1 2', ['T1']).fault).toContain('Line 1');
    expect(seenOf('T9 1 2 3', ['T1']).fault).toContain('T9 is no control');
    expect(fitWords(fit, units)).toBe('Laid onto yard: 72 % of its points lie on yard, rms 6.3 mm; moved by 0.500 m and turned by 0.500°.');
  });

  it('measure from one place to the next, up and down', () => {
    const at = (e: number, n: number, h: number) => ({ e, n, h, classOf: null });
    expect(between(at(0, 0, 10), at(3, 4, 10), units)).toBe('5.000 m from the one before: 5.000 in plan, +0.000 in height');
    expect(between(at(0, 0, 10), at(0, 0, 8), units)).toContain('0.000 in plan, −2.000 in height');
  });

  it('share the points out among classes', () => {
    expect(classRows(cloud()).map((r) => [r.number, r.name, r.part])).toEqual([
      [1, 'unclassified', 0.2],
      [2, 'ground', 0.8],
    ]);
  });
});

describe('colours', () => {
  const of = { heights: (i: number) => 10 + i, classes: [2, 7, 99], intensities: [0, 50, 100], colours: [1, 2, 3, 4, 5, 6, 7, 8, 9] };
  it('are by height, class, intensity, or those that came', () => {
    const by = (way: 'elevation' | 'class' | 'intensity' | 'colour') => [
      ...colours(3, way, of, { from: 10, to: 12 }, { from: 0, to: 100 }),
    ];
    expect(by('colour')).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9]);
    expect(by('elevation').slice(0, 3)).toEqual([...shade(0)]);
    expect(by('elevation').slice(6)).toEqual([...shade(1)]);
    expect(by('class').slice(0, 3)).toEqual([150, 110, 62]);
    expect(by('intensity')[0]).toBeLessThan(by('intensity')[6]!);
  });

  it('leave what is far off out of the range', () => {
    const heights = Array.from({ length: 1000 }, (_v, i) => (i < 5 ? 900 : i / 100));
    expect(usual(heights).to).toBeLessThan(11);
  });
});

describe('the map', () => {
  it('is drawn of the upper tiles, the higher over the lower', async () => {
    expect(places(tile([1000, 2000, 5], [[0.5, -1, 2]]))).toEqual([[1000.5, 1999, 7]]);
    const files: Record<string, unknown> = {
      '/t/tileset.json': {
        root: {
          boundingVolume: { box: [0, 0, 0, 48, 0, 0, 0, 48, 0, 0, 0, 48] },
          content: { uri: '0.pnts' },
          children: [{ boundingVolume: { box: [] }, content: { uri: '1.pnts' } }],
        },
      },
      '/t/0.pnts': tile([0, 0, 0], [[1, 1, 9]]),
      '/t/1.pnts': tile(
        [0, 0, 0],
        [
          [2, 2, 3],
          [3, 3, 6],
        ],
      ),
    };
    vi.stubGlobal('fetch', (url: string) =>
      Promise.resolve({ json: () => Promise.resolve(files[url]), arrayBuffer: () => Promise.resolve(files[url]) }),
    );
    const plan = await planOf('/t/tileset.json');
    vi.unstubAllGlobals();
    expect([plan.e, plan.h, plan.size]).toEqual([[1, 2, 3], [9, 3, 6], 1]);
    const cells = planCells(plan, { from: 0, to: 12 }, String);
    expect(cells.e).toEqual([2, 3, 1]);
    expect(cells.band).toEqual([3, 6, 9]);
    expect(cells.labels.filter((l) => l !== '')).toEqual(['3', '6', '9']);
  });
});

describe('the form', () => {
  const form = (over: object = {}) =>
    show(CloudForm, { stage: stage(), cloud: null, from: { files: [4], clouds: [] }, drawn: null, drawing: false, ...over });

  it('asks for a name that is not taken, and sends what is to be done', async () => {
    office();
    const wrapper = await form({ from: { files: [4], clouds: [1] } });
    expect(wrapper.text()).toContain('It needs a name.');
    const name = wrapper.get('[data-test=cloud-name]');
    const input = name.element.tagName === 'INPUT' ? name : name.get('input');
    await input.setValue('yard');
    expect(wrapper.text()).toContain('There is a cloud of that name already.');
    await input.setValue('both');
    await wrapper.setProps({
      drawn: [
        [0, 0],
        [9, 0],
        [9, 9],
      ],
    });
    expect(wrapper.text()).toContain('3 corners');
    await wrapper.get('form').trigger('submit');
    const [request] = wrapper.emitted('save')![0] as [CloudRequest];
    expect(request).toMatchObject({ name: 'both', number: null, files: [4], clouds: [1], outside: false, thin: null, onto: 0 });
    expect(request.crop).toHaveLength(3);
  });

  it('takes a picked place as a target, and sends targets only where they move it', async () => {
    office();
    const seen = cloud({ targets: [{ target: 'T1', e: 1, n: 2, h: 3 }] });
    const points = ['T1', 'T2'].map((name) => ({ name, role: 'control', e: 0, n: 0, h: 0 }));
    const wrapper = await form({ cloud: seen, stage: stage({ points }), picked: { e: 4, n: 5, h: 6.0004 } });
    const select = wrapper.findAllComponents({ name: 'ElSelect' }).find((s) => s.attributes('data-test') === 'picked-as')!;
    select.vm.$emit('update:modelValue', 'T2');
    await flushPromises();
    await wrapper.get('[data-test=take-picked]').trigger('click');
    await wrapper.get('form').trigger('submit');
    const [request] = wrapper.emitted('save')![0] as [CloudRequest];
    expect(request.targets).toEqual([
      { target: 'T1', e: 1, n: 2, h: 3 },
      { target: 'T2', e: 4, n: 5, h: 6 },
    ]);
    expect([request.onto, request.paint, request.against]).toEqual([0, '', '']);
  });

  it('begins with what a cloud was made by', async () => {
    office();
    const wrapper = await form({ cloud: cloud({ noise: true, keeps: [2] }) });
    await wrapper.get('form').trigger('submit');
    const [request] = wrapper.emitted('save')![0] as [CloudRequest];
    expect(request).toMatchObject({ name: 'yard', number: 1, files: [3], noise: true, ground: true, classes: [2] });
  });
});

describe('the stage', () => {
  it('says what serves where there is nothing', async () => {
    office({ 'GET /clouds': stage({ clouds: [], files: [] }) });
    const wrapper = await show(CloudsStage);
    await flushPromises();
    expect(wrapper.text()).toContain('No cloud yet');
    expect(wrapper.text()).toContain('LAS, LAZ, E57, PLY and lines of coordinates serve.');
  });

  it('shows the clouds, what came in besides, and why one is stale', async () => {
    office({
      'GET /clouds': stage({ clouds: [cloud({ stale: ['reference changed'] })] }),
      'GET /clouds/1/tiles/abc/tileset.json': { root: { boundingVolume: { box: [0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1] } } },
    });
    const wrapper = await show(CloudsStage);
    await flushPromises();
    expect(wrapper.text()).toContain('Stale: reference changed');
    expect(wrapper.text()).toContain('gate.las');
    await press(wrapper, 'Make a cloud of it');
    expect(wrapper.text()).toContain('A cloud of what?');
  });
});

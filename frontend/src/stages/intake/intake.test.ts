// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { ElPopconfirm } from 'element-plus';
import { afterEach, describe, expect, it } from 'vitest';
import type { FileView, MeaningView, PreviewView } from '../../api/types';
import { choose, entries, given, office, press, Refusal, show, tick } from '../../../tests/office';
import { egm, reference } from '../../../tests/reference';
import IntakeStage from './IntakeStage.vue';
import MeaningSheet from './MeaningSheet.vue';
import NamesSheet from './NamesSheet.vue';
import PreviewSheet from './PreviewSheet.vue';

afterEach(() => (document.body.innerHTML = ''));

const meaning: MeaningView = {
  frame: 'project',
  heights: '',
  said: '',
  geoid: '',
  swap: null,
  far: false,
  sign: '',
  operation: '',
  geographic: false,
  hasHeights: true,
  control: '',
  sigma: null,
  plane: false,
  asks: [{ key: 'heights', text: 'Are these heights ellipsoidal, or above the geoid?', offer: '' }],
  ways: [],
};
const preview: PreviewView = {
  id: 7,
  name: 'control.csv',
  size: 120,
  sha256: 'ab',
  kind: 'control',
  kinds: [
    { key: 'control', label: 'control list' },
    { key: 'points', label: 'surveyed points' },
  ],
  columns: [
    { index: 0, heading: 'pt', samples: ['KT01', 'KT02'], used: true },
    { index: 1, heading: 'easting', samples: ['493120.4', '493212.1'], used: true },
    { index: 2, heading: 'northing', samples: ['6028061.2'], used: true },
  ],
  fields: [
    {
      key: 'name',
      label: 'point',
      quantity: 'text',
      required: true,
      column: 0,
      unit: null,
      units: [],
      level: 'sure',
      why: 'so its heading says',
    },
    {
      key: 'e',
      label: 'easting',
      quantity: 'length',
      required: true,
      column: 1,
      unit: null,
      units: ['m', 'ft'],
      level: 'sure',
      why: 'so its heading says',
    },
    {
      key: 'n',
      label: 'northing',
      quantity: 'length',
      required: true,
      column: 2,
      unit: null,
      units: ['m', 'ft'],
      level: 'sure',
      why: 'so its heading says',
    },
    {
      key: 'code',
      label: 'code',
      quantity: 'text',
      required: false,
      column: null,
      unit: null,
      units: [],
      level: 'sure',
      why: 'so its heading says',
    },
  ],
  counts: { points: 2, held: 1 },
  leftOut: 0,
  findings: [],
  findingCount: 0,
  questions: [
    {
      text: 'In which unit are the lengths (easting, northing)?',
      fields: ['e', 'n'],
      units: ['m', 'ft'],
      offer: 'm',
      why: 'the project uses it',
    },
  ],
  extent: [0, 0, 120.4, 80.2],
  points: [],
  pointCount: 0,
  rays: [],
  unreadable: null,
  acceptable: false,
  meaning: null,
  memory: null,
  twin: '',
};

describe('the preview of a file', () => {
  it('counts, sizes and asks units, and does not accept meanwhile', async () => {
    office();
    const sheet = await show(PreviewSheet, { preview });
    expect(sheet.text()).toContain('2 points, 1 held, over 120 × 80 m');
    expect(sheet.text()).toContain('In which unit are the lengths (easting, northing)? Likely m: the project uses it.');
    expect(sheet.get<HTMLButtonElement>('[data-test=accept]').element.disabled).toBe(true);
    expect(sheet.get('.cells').text()).toBe('KT01  KT02');
  });

  it('takes one answer for all lengths that are silent', async () => {
    const o = office({ 'PUT /intake/7/mapping': { ...preview, questions: [], acceptable: true } });
    const sheet = await show(PreviewSheet, { preview });
    await sheet.get('[data-test=take-unit]').trigger('click');
    await flushPromises();
    expect(o.bodies('PUT /intake/7/mapping')).toEqual([{ kind: 'control', columns: { name: 0, e: 1, n: 2 }, units: { e: 'm', n: 'm' } }]);
    expect((sheet.emitted('preview')!.at(-1)![0] as PreviewView).acceptable).toBe(true);
  });

  it('corrects a column, takes one away, and reads the file as another kind', async () => {
    const o = office({ 'PUT /intake/7/mapping': preview });
    const sheet = await show(PreviewSheet, { preview });
    await choose(sheet, '[aria-label="Column of easting"]', 2);
    await choose(sheet, '[aria-label="Column of northing"]', '');
    await choose(sheet, '[aria-label="Kind of file"]', 'points');
    await flushPromises();
    const [first, second, third] = o.bodies('PUT /intake/7/mapping') as { columns?: Record<string, number>; kind: string }[];
    expect(first!.columns).toMatchObject({ e: 2, n: 2 });
    expect(second!.columns, 'the first choice is kept though its answer is still out').toEqual({ name: 0, e: 2 });
    expect(third).toEqual({ kind: 'points' });
  });

  it('lets go of easting and northing when a latitude is chosen', async () => {
    const o = office({ 'PUT /intake/7/mapping': preview });
    const angle = { quantity: 'angle', required: false, column: null, unit: null, units: ['deg', 'dms'] };
    const fields = [...preview.fields, { ...angle, key: 'lat', label: 'latitude' }, { ...angle, key: 'lon', label: 'longitude' }];
    const sheet = await show(PreviewSheet, { preview: { ...preview, fields } });
    await choose(sheet, '[aria-label="Column of latitude"]', 2);
    await flushPromises();
    expect(o.bodies('PUT /intake/7/mapping').at(-1)).toMatchObject({ columns: { name: 0, lat: 2 } });
    expect(Object.keys((o.bodies('PUT /intake/7/mapping').at(-1) as { columns: object }).columns)).toEqual(['name', 'lat']);
  });

  it('accepts without the lines that cannot be used only when told to', async () => {
    const o = office({ 'POST /intake/7/accept': { seq: 1 } });
    const bad = {
      ...preview,
      acceptable: true,
      questions: [],
      leftOut: 1,
      findingCount: 1,
      findings: [{ severity: 'error', line: 3, message: 'e: "ten" is not a number' }],
    };
    const sheet = await show(PreviewSheet, { preview: bad });
    expect(sheet.text()).toContain('line 3e: "ten" is not a number');
    const accept = sheet.get<HTMLButtonElement>('[data-test=accept]');
    expect(accept.element.disabled).toBe(true);
    await tick(sheet, '[data-test=leave-out]');
    await accept.trigger('click');
    await flushPromises();
    expect(o.bodies('POST /intake/7/accept')).toEqual([{ leaveOutBad: true }]);
    expect(sheet.emitted('changed')).toHaveLength(1);
    expect(o.project.note?.text).toBe('Accepted control.csv: 2 points, 1 held.');
  });

  it('says why a file cannot be read, and discards it', async () => {
    const o = office({ 'DELETE /intake/7': { seq: 1 } });
    const sheet = await show(PreviewSheet, { preview: { ...preview, unreadable: 'control.csv, line 1: this is a binary file' } });
    expect(sheet.get('[role=alert]').text()).toBe('control.csv, line 1: this is a binary file');
    expect(sheet.find('table').exists()).toBe(false);
    sheet.getComponent(ElPopconfirm).vm.$emit('confirm');
    await flushPromises();
    expect(o.calls.some((c) => c.route === 'DELETE /intake/7')).toBe(true);
  });

  it('stays open when accepting is refused', async () => {
    const o = office({ 'POST /intake/7/accept': new Refusal(422, 'control.csv: is accepted already') });
    const sheet = await show(PreviewSheet, { preview: { ...preview, acceptable: true, questions: [] } });
    await press(sheet, 'Accept');
    expect(o.project.note).toEqual({ tone: 'bad', text: 'This cannot be used. control.csv: is accepted already' });
    expect(sheet.emitted('changed')).toBeUndefined();
  });
});

describe('what a file means', () => {
  const answers = {
    'GET /reference': reference({ localizations: [{ id: 3, name: 'Site grid', pairs: 8, system: 'EPSG:25830', vertical: 'shift' }] }),
    'PUT /intake/7/meaning': preview,
  };

  it('asks what heights are above, and which geoid', async () => {
    const o = office(answers);
    const sheet = await show(MeaningSheet, { file: 7, meaning });
    expect(sheet.text()).toContain('Are these heights ellipsoidal, or above the geoid?');
    await choose(sheet, '[data-test=heights]', 'geoid');
    await flushPromises();
    expect(o.bodies('PUT /intake/7/meaning')).toEqual([
      { frame: 'project', heights: 'geoid', geoid: '', swap: null, far: false, sign: '', operation: '', control: '', sigma: null },
    ]);
    await sheet.setProps({
      meaning: { ...meaning, heights: 'geoid', asks: [{ key: 'geoid', text: 'Above which geoid?', offer: '' }] },
    } as never);
    await choose(sheet, '[data-test=heights-geoid]', egm.reference);
    await flushPromises();
    expect(o.bodies('PUT /intake/7/meaning').at(-1)).toMatchObject({ heights: 'geoid', geoid: egm.reference });
  });

  it('takes the word of the heading', async () => {
    office(answers);
    const sheet = await show(MeaningSheet, { file: 7, meaning: { ...meaning, said: 'ellipsoidal', asks: [] } });
    expect(sheet.text()).toContain('heights are, as the heading says,');
    expect(given(sheet, '[data-test=heights]').modelValue).toBe('ellipsoidal');
  });

  it('keeps an answer given before the last one came back', async () => {
    const o = office(answers);
    const sheet = await show(MeaningSheet, {
      file: 7,
      meaning: { ...meaning, asks: [{ key: 'swap', text: 'Exchange them?', offer: '' }, ...meaning.asks] },
    });
    await sheet.get('[data-test=swap-yes]').trigger('click');
    await choose(sheet, '[data-test=heights]', 'ellipsoidal');
    await flushPromises();
    expect(o.bodies('PUT /intake/7/meaning').at(-1)).toEqual({
      frame: 'project',
      heights: 'ellipsoidal',
      geoid: '',
      swap: true,
      far: false,
      sign: '',
      operation: '',
      control: '',
      sigma: null,
    });
  });

  it('offers the site’s localization, and asks nothing of local numbers', async () => {
    const o = office(answers);
    const sheet = await show(MeaningSheet, { file: 7, meaning });
    expect(entries(sheet, '[data-test=frame]')).toEqual([
      'in the project’s system',
      'in another system',
      'known only locally',
      'local, by Site grid',
    ]);
    await choose(sheet, '[data-test=frame]', 'localization:3');
    await flushPromises();
    expect(o.bodies('PUT /intake/7/meaning').at(-1)).toMatchObject({ frame: 'localization:3', swap: null, far: false });
    await sheet.setProps({ meaning: { ...meaning, frame: 'local', asks: [] } } as never);
    expect(sheet.find('[data-test=heights]').exists()).toBe(false);
  });

  it('offers the other transformations when the best lacks its grid', async () => {
    const o = office(answers);
    const way = { accuracy: 2, area: 'everywhere', bounds: null, covers: true, usable: true, missing: [], steps: [], epoch: null };
    const ways = [
      { ...way, name: 'By grid', usable: false, missing: ['old.gsb'] },
      { ...way, name: 'Seven parameters' },
    ];
    const sheet = await show(MeaningSheet, { file: 7, meaning: { ...meaning, frame: 'EPSG:27700', asks: [], ways } });
    expect(sheet.findAll('[data-test=ways] input').map((x) => (x.element as HTMLInputElement).value)).toEqual([
      'Seven parameters',
      'By grid',
    ]);
    await sheet.get('[data-test=ways] input').setValue(true);
    await flushPromises();
    expect(o.bodies('PUT /intake/7/meaning').at(-1)).toMatchObject({ frame: 'EPSG:27700', operation: 'Seven parameters' });
  });

  it('offers the sign that brings latitudes and longitudes near', async () => {
    const o = office(answers);
    const geographic = { ...meaning, geographic: true, asks: [{ key: 'sign', text: 'Has a minus sign been lost?', offer: 'longitude' }] };
    const sheet = await show(MeaningSheet, { file: 7, meaning: geographic });
    expect(sheet.text()).toContain('latitudes and longitudes are');
    expect(entries(sheet, '[data-test=frame]')).toEqual(['on the datum of the project', 'on another datum']);
    expect(sheet.text()).toContain('The project is on ETRS89.');
    await sheet.get('[data-test=sign-yes]').trigger('click');
    await flushPromises();
    expect(o.bodies('PUT /intake/7/meaning').at(-1)).toMatchObject({ sign: 'longitude', frame: 'project' });
    await sheet.setProps({ meaning: { ...geographic, sign: 'longitude', asks: [] } } as never);
    expect(sheet.text()).toContain('The sign of longitude is changed.');
    await press(sheet, 'ask again');
    expect(o.bodies('PUT /intake/7/meaning').at(-1)).toMatchObject({ sign: '', swap: null });
  });

  it('lets far points in when that is meant, and asks again on request', async () => {
    const o = office(answers);
    const sheet = await show(MeaningSheet, {
      file: 7,
      meaning: { ...meaning, asks: [{ key: 'far', text: 'B would lie 6 000 km from the project. Is that meant?', offer: '' }] },
    });
    await sheet.get('[data-test=far-yes]').trigger('click');
    await flushPromises();
    expect(o.bodies('PUT /intake/7/meaning').at(-1)).toMatchObject({ far: true });
    await sheet.setProps({ meaning: { ...meaning, far: true, asks: [] } } as never);
    expect(sheet.text()).toContain('Far away on purpose.');
    await press(sheet, 'ask again');
    expect(o.bodies('PUT /intake/7/meaning').at(-1)).toMatchObject({ far: false, swap: null });
  });
});

describe('the intake stage', () => {
  const file = (over: Partial<FileView>): FileView => ({
    id: 1,
    name: 'rounds.csv',
    size: 3400,
    sha256: 'cd',
    kind: 'total-station',
    kindLabel: 'total-station pointings',
    state: 'accepted',
    records: 58,
    leftOut: 0,
    author: 'Demo',
    receivedAt: '2031-05-04T09:00:00Z',
    acceptedAt: '2031-05-04T09:01:00Z',
    ...over,
  });

  it('says what it takes when nothing is there', async () => {
    office({ 'GET /intake': { files: [] } });
    const stage = await show(IntakeStage);
    expect(stage.text()).toContain('Bring in the field files');
    expect(stage.text()).toContain('Four kinds of delimited text are recognised');
  });

  it('opens the file that waits, and shows an accepted one with its origin', async () => {
    office({
      'GET /intake': { files: [file({}), file({ id: 7, name: 'control.csv', state: 'waiting', acceptedAt: null })] },
      'GET /intake/7': preview,
      'GET /intake/names': [],
      'GET /reference': reference(),
    });
    const stage = await show(IntakeStage);
    expect(stage.text()).toContain('1 file waits to be accepted');
    expect(stage.text()).toContain('control.csvis read as');
    await stage.findAll('.body .row')[0]!.trigger('click');
    await flushPromises();
    expect(stage.text()).toContain('58 records taken, 0 lines left out.');
    expect(stage.get('a.link').attributes('href')).toBe('/api/projects/1/intake/1/source');
  });

  it('brings in dropped files one by one, and names one that is refused', async () => {
    let count = 0;
    const o = office({
      'GET /intake': { files: [file({ id: 7, name: 'control.csv', state: 'waiting', acceptedAt: null })] },
      'GET /intake/7': preview,
      'GET /intake/names': [],
      'POST /intake': () => (++count === 2 ? new Refusal(413, 'Files up to 64 MB can be read.') : preview),
    });
    await show(IntakeStage);
    o.project.dropped = [new File(['a'], 'a.csv'), new File(['b'], 'b.csv')];
    await flushPromises();
    expect(count).toBe(2);
    expect(o.project.note?.text).toBe('b.csv: This cannot be used. Files up to 64 MB can be read.');
    expect(o.project.dropped).toEqual([]);
  });

  it('is a queue with one summary, and takes what is ready in turn', async () => {
    const open = new Set([7, 8, 9]);
    const ready = { ...preview, questions: [], acceptable: true };
    const o = office({
      'GET /intake': () => ({
        files: [7, 8, 9].filter((id) => open.has(id)).map((id) => file({ id, name: `f${id}.csv`, state: 'waiting', acceptedAt: null })),
      }),
      'GET /intake/7': { ...ready, id: 7, kind: 'total-station' },
      'GET /intake/8': { ...ready, id: 8 },
      'GET /intake/9': { ...preview, id: 9 },
      'GET /intake/names': [],
      'POST /intake/7/accept': () => (open.delete(7), { seq: 2 }),
      'POST /intake/8/accept': () => (open.delete(8), { seq: 1 }),
    });
    const stage = await show(IntakeStage);
    expect(stage.get('[data-test=summary]').text()).toBe('2 ready, 1 with questions.');
    expect(stage.get('.preview h2').text(), 'what asks is shown first').toBe('control.csv');
    await press(stage, 'Accept the 2 ready');
    const accepted = o.calls.filter((c) => c.route.endsWith('/accept')).map((c) => c.route);
    expect(accepted, 'control before what observes it').toEqual(['POST /intake/8/accept', 'POST /intake/7/accept']);
    expect(o.project.note?.text).toBe('Accepted 2 files; 1 with questions.');
  });

  it('lists the names that may be one mark, and sends what is said of them', async () => {
    const question = {
      file: 7,
      fileName: 'control.csv',
      name: 'kt-1',
      other: 'KT01',
      where: 'the project',
      alike: true,
      plan: 0.05,
      height: -0.02,
      answer: null,
    };
    const o = office({
      'GET /intake': { files: [file({ id: 7, name: 'control.csv', state: 'waiting', acceptedAt: null })] },
      'GET /intake/7': preview,
      'GET /intake/names': [question],
      'PUT /intake/7/names': preview,
    });
    const stage = await show(IntakeStage);
    expect(stage.get('[data-test=names]').text()).toContain('looks like KT01 in the project, 50.0 mm apart, 20.0 mm in height');
    await press(stage, 'One mark: KT01');
    await press(stage, 'Two marks');
    expect(o.bodies('PUT /intake/7/names')).toEqual([{ names: [{ from: 'kt-1', to: 'KT01' }] }, { names: [{ from: 'kt-1', to: 'kt-1' }] }]);
    question.name = 'KT01';
    const same = await show(NamesSheet, { names: [question] });
    expect(same.text()).toContain('is also KT01 in the project, 50.0 mm apart');
    expect(same.find('[data-test=two-marks]').exists()).toBe(false);
  });
});

describe('what is asked once', () => {
  it('is which of two columns is the easting', async () => {
    const o = office({ 'PUT /intake/7/mapping': preview, 'GET /reference': reference() });
    const asking = { ...preview, meaning: { ...meaning, asks: [{ key: 'order', text: 'Which of the two is the easting?', offer: '' }] } };
    const sheet = await show(PreviewSheet, { preview: asking });
    await press(sheet, 'northing is');
    expect(o.bodies('PUT /intake/7/mapping').at(-1)).toMatchObject({ columns: { name: 0, e: 2, n: 1 } });
  });

  it('is what a silent control list is', async () => {
    const o = office({ 'PUT /intake/7/meaning': preview, 'GET /reference': reference() });
    const sheet = await show(MeaningSheet, {
      file: 7,
      meaning: { ...meaning, asks: [{ key: 'control', text: 'What are they?', offer: '' }] },
    });
    await press(sheet, 'Hold them');
    await press(sheet, 'Weight them by');
    await press(sheet, 'For information only');
    expect((o.bodies('PUT /intake/7/meaning') as { control: string; sigma: number | null }[]).map((b) => [b.control, b.sigma])).toEqual([
      ['hold', null],
      ['weight', 0.01],
      ['information', 0.01],
    ]);
  });

  it('is nothing where a mapping is remembered, which can be renamed and forgotten', async () => {
    const o = office({ 'PUT /intake/memories/3': {}, 'DELETE /intake/memories/3': {} });
    const sheet = await show(PreviewSheet, {
      preview: { ...preview, questions: [], memory: { id: 3, label: 'our logger', author: 'Demo' } },
    });
    expect(sheet.get('[data-test=memory]').text()).toContain('Read as remembered: our logger');
    await press(sheet, 'rename');
    await sheet.get('[aria-label="Name of the mapping"]').setValue('the logger');
    await sheet.get('[data-test=memory]').trigger('submit');
    await flushPromises();
    expect(o.bodies('PUT /intake/memories/3')).toEqual([{ label: 'the logger' }]);
    await press(sheet, 'forget');
    expect(o.calls.some((c) => c.route === 'DELETE /intake/memories/3')).toBe(true);
    expect(sheet.emitted('reload')).toHaveLength(2);
  });

  it('lists the columns that mean nothing here', async () => {
    office();
    const columns = [...preview.columns, { index: 3, heading: 'weather', samples: ['sun', 'rain'], used: false }];
    const sheet = await show(PreviewSheet, { preview: { ...preview, columns } });
    expect(sheet.get('[data-test=unused]').text()).toContain('Not used: weather (sun, rain).');
  });
});

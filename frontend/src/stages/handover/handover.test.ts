// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it } from 'vitest';
import type { ExportView } from '../../api/types';
import { office, press, route, show } from '../../../tests/office';
import HandOverStage from './HandOverStage.vue';

afterEach(() => (document.body.innerHTML = ''));

const file = (id: number, over: Partial<ExportView> = {}): ExportView => ({
  id,
  slot: `export:csv:${id}`,
  kind: 'csv',
  label: 'Coordinates as CSV',
  name: `tarn-${id}.csv`,
  size: 31200,
  run: 1,
  createdAt: '2031-05-04T09:00:00Z',
  author: 'Demo',
  holds: true,
  checks: [{ what: 'points', expected: '500', found: '500', holds: true }],
  leftOut: [],
  stale: [],
  sha256: 'ab'.repeat(32),
  inputs: ['coordinates of points 0123456789'],
  ...over,
});
const offers = [
  { kind: 'csv', title: 'Coordinates', format: 'CSV', holds: 'every point', takes: 0, choices: [] },
  { kind: 'dxf', title: 'Drawing', format: 'DXF', holds: 'points and lines', takes: 100, choices: [{ id: 2, name: 'Pit' }] },
  { kind: 'pdf', title: 'Adjustment report', format: 'PDF', holds: 'verdict', takes: 0, choices: [] },
  { kind: 'volume-pdf', title: 'Volume report', format: 'PDF', holds: 'cut and fill', takes: 1, choices: [] },
];
const terrain = {
  'GET /terrain/surfaces/2/contours': [],
};
const job = { 'GET /jobs/e': { id: 'e', title: 'Write', state: 'done', outcome: null }, 'POST /handover': { job: 'e' } };

describe('the hand-over stage', () => {
  it('is empty at first and says what to do', async () => {
    office({ ...terrain, 'GET /handover': { offers, exports: [], archive: [], geoids: [] } });
    const stage = await show(HandOverStage);
    expect(stage.text()).toContain('Nothing is handed over yet');
    expect(stage.text()).toContain('Write a file above; it appears here with its receipt.');
  });

  it('shows the receipt and offers the file when it holds', async () => {
    office({
      ...terrain,
      'GET /handover': { offers, exports: [file(4, { leftOut: ['14 points known only locally'] })], archive: [], geoids: [] },
    });
    const stage = await show(HandOverStage);
    expect(stage.get('[aria-label=Receipt]').text()).toBe('points500read back500✓');
    expect(stage.text()).toContain('Left out: 14 points known only locally.');
    expect(stage.get('[data-test=download]').attributes('href')).toBe('/api/projects/1/handover/4/file');
  });

  it('says what it was made of, and what differs from the version before', async () => {
    const compared = {
      from: 1,
      to: 2,
      same: false,
      because: ['coordinates of points changed'],
      gone: 1,
      new: 2,
      before: ['old line'],
      now: ['new line'],
    };
    office({
      ...terrain,
      'GET /handover': {
        letterhead: '',
        offers,
        exports: [file(4, { slot: 'export:csv', run: 2 })],
        archive: [file(3, { slot: 'export:csv' })],
        geoids: [],
      },
      'GET /handover/4/against/3': compared,
    });
    const stage = await show(HandOverStage);
    expect(stage.get('[data-test=inputs]').text()).toBe('SHA-256 abababababababab…; of coordinates of points 0123456789');
    await stage.get('[data-test=compare]').trigger('click');
    await flushPromises();
    const text = stage.get('[data-test=compared]').text();
    for (const part of ['Against version 1:', 'coordinates of points changed.', '1 lines gone, 2 new.', '− old line', '+ new line'])
      expect(text).toContain(part);
  });

  it('does not offer a file whose receipt fails', async () => {
    office({ ...terrain, 'GET /handover': { offers, exports: [file(4, { holds: false })], archive: [], geoids: [] } });
    const stage = await show(HandOverStage);
    expect(stage.find('[data-test=download]').exists()).toBe(false);
    expect(stage.text()).toContain('Not offered: the receipt does not hold.');
  });

  it('writes a drawing with the surfaces that are ticked', async () => {
    const o = office({ ...terrain, ...job, 'GET /handover': { offers, exports: [file(4)], archive: [], geoids: [] } });
    const stage = await show(HandOverStage);
    await stage.get('[data-test=write-dxf]').trigger('click');
    await flushPromises();
    await stage.get('[data-test=write-csv]').trigger('click');
    await flushPromises();
    expect(o.bodies('POST /handover')).toEqual([
      { kind: 'dxf', surfaces: [2] },
      { kind: 'csv', surfaces: [] },
    ]);
    expect(o.project.note?.text).toBe('Written and read back.');
  });

  it('says how many are stale, and keeps the archive apart', async () => {
    office({
      ...terrain,
      'GET /handover': {
        offers,
        exports: [file(4, { stale: ['points changed'] }), file(5)],
        archive: [file(3, { name: 'old.csv' })],
        geoids: [],
      },
    });
    const stage = await show(HandOverStage);
    expect(stage.get('h1').text()).toBe('1 of 2 files are stale');
    await press(stage, 'Archive 1');
    expect(stage.findAll('.body .row').map((r) => r.text())).toEqual([expect.stringContaining('old.csv')]);
  });

  it('lists geoid extracts beside the files', async () => {
    office({
      ...terrain,
      'GET /handover': {
        offers,
        exports: [],
        archive: [],
        geoids: [{ id: 7, name: 'egm96_tarn.gtx', size: 72, notes: ['checked at 200 places'] }],
      },
    });
    const stage = await show(HandOverStage);
    expect(stage.get('[aria-label="Geoid extracts"]').text()).toContain('egm96_tarn.gtx, 72 B; checked at 200 places');
    expect(stage.findAll('[aria-label="Geoid extracts"] a').map((a) => a.attributes('href'))).toEqual([
      '/api/projects/1/reference/grids/7.gtx',
      '/api/projects/1/reference/grids/7.isg',
    ]);
  });

  it('writes the report at once when asked for from the search', async () => {
    const o = office({ ...terrain, ...job, 'GET /handover': { offers, exports: [file(4, { kind: 'pdf' })], archive: [], geoids: [] } });
    route.query = { action: 'pdf' };
    await show(HandOverStage);
    await flushPromises();
    expect(o.bodies('POST /handover')).toEqual([{ kind: 'pdf', surfaces: [] }]);
  });
});

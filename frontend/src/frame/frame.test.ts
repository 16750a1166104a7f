// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { give, given, office, point, press, pushed, Refusal, route, show, type } from '../../tests/office';
import ArchivePanel from './ArchivePanel.vue';
import Course from './Course.vue';
import JobsPanel from './JobsPanel.vue';
import { isTyping } from './keys';
import LedgerPanel from './LedgerPanel.vue';
import LineageList from './LineageList.vue';
import PeoplePanel from './PeoplePanel.vue';
import ProjectFrame from './ProjectFrame.vue';
import ProjectList from './ProjectList.vue';
import SearchPanel from './SearchPanel.vue';
import SignIn from './SignIn.vue';
import TopLine from './TopLine.vue';
import TwoPages from './TwoPages.vue';
import UnitsPanel from './UnitsPanel.vue';

afterEach(() => {
  vi.useRealTimers();
  document.body.innerHTML = '';
});

const entry = (seq: number, over = {}) => ({
  seq,
  operation: 'accept-file',
  title: `Entry ${seq}`,
  author: 'Demo',
  at: '2031-05-04T09:00:00Z',
  changes: 3,
  undoneBy: null,
  undoes: null,
  ...over,
});

describe('the ledger', () => {
  const answers = {
    'GET /ledger': { entries: [entry(3, { undoneBy: 4 }), entry(2), entry(1)] },
    'GET /ledger/2': {
      entry: entry(2),
      detail: {},
      changes: [{ what: 'point KT01', before: { e: 1.23456789, n: null }, after: { e: 2, n: 5 } }],
    },
    'GET /ledger/2/back': { entries: [entry(3)], changes: 7 },
    'POST /ledger/2/undo': { seq: 5 },
    'POST /ledger/2/back': { seq: 5 },
  };

  it('opens an entry with before and after', async () => {
    office(answers);
    const panel = await show(LedgerPanel);
    await press(panel, 'Entry 2');
    expect(panel.get('.detail').text()).toContain('point KT01e1.234568→ 2nnothing→ 5');
    await press(panel, 'Entry 2');
    expect(panel.find('.detail').exists()).toBe(false);
  });

  it('undoes one, or goes back after saying what that takes away', async () => {
    const o = office(answers);
    const panel = await show(LedgerPanel);
    await press(panel, 'Entry 2');
    await press(panel, 'Undo this entry');
    expect(o.project.note?.text).toBe('Undone.');
    await press(panel, 'Back to here…');
    expect(panel.text()).toContain('Takes back 1 entries (7 changes)');
    await press(panel, 'Go back');
    expect(o.calls.some((c) => c.route === 'POST /ledger/2/back')).toBe(true);
  });

  it('says what is stale and why, and recomputes in order', async () => {
    const o = office(
      { ...answers, 'POST /recompute': { job: 'r' }, 'GET /jobs/r': { id: 'r', title: 'Recompute', state: 'done', outcome: null } },
      { stale: [{ slot: 'surface:1', label: 'Surface Pit', reasons: ['points changed'] }] },
    );
    const panel = await show(LedgerPanel);
    expect(panel.text()).toContain('Surface Pit: points changed');
    await panel.get('[data-test=recompute]').trigger('click');
    await flushPromises();
    expect(o.project.note?.text).toBe('Everything is fresh again.');
  });

  it('is empty at first', async () => {
    office({ 'GET /ledger': { entries: [] } });
    expect((await show(LedgerPanel)).text()).toContain('Nothing was done yet');
  });
});

describe('the search', () => {
  it('finds things and actions, and goes there with the keyboard', async () => {
    vi.useFakeTimers();
    const o = office({ 'GET /search': [{ kind: 'point', label: 'KT04', detail: 'control point', stage: 'network', key: 'KT04' }] });
    const panel = await show(SearchPanel);
    await type(panel, 'input', 'adjust the');
    await vi.advanceTimersByTimeAsync(200);
    expect(panel.findAll('.hit').map((h) => h.text())).toEqual(['pointKT04control point', 'actionAdjust the network']);
    await panel.get('input').trigger('keydown', { key: 'ArrowDown' });
    await panel.get('input').trigger('keydown', { key: 'Enter' });
    expect(pushed.at(-1)).toEqual({ path: '/p/1/network', query: { action: 'adjust' } });
    expect(o.project.panel).toBeNull();
  });

  it('opens panels, and says when nothing is called that', async () => {
    vi.useFakeTimers();
    const o = office({ 'GET /search': [] });
    const panel = await show(SearchPanel);
    await type(panel, 'input', 'units');
    await vi.advanceTimersByTimeAsync(200);
    await panel.get('.hit').trigger('click');
    expect(o.project.panel).toBe('units');
    await type(panel, 'input', 'qqq');
    await vi.advanceTimersByTimeAsync(200);
    expect(panel.text()).toContain('Nothing is called that.');
  });
});

describe('units', () => {
  it('change what is shown', async () => {
    const o = office({ 'PUT /units': { seq: 1 } });
    const panel = await show(UnitsPanel);
    expect(panel.text()).toContain('1234.5678 m shows as 1234.568, 12.3 mm as 12.3 mm, 45.5125° as 45 30 45.0');
    await panel.get('input[value=ftUS]').setValue(true);
    await flushPromises();
    expect(o.bodies('PUT /units')).toEqual([{ length: 'ftUS', angle: 'dms', decimals: 3, heights: 3, angles: 1, small: 1, areas: 1 }]);
  });
});

describe('people', () => {
  const members = [{ username: 'owner', name: 'Owner', role: 'owner' }];

  it('are let in by an owner', async () => {
    const o = office({ 'GET /members': members, 'PUT /members': [...members, { username: 'helper', name: 'Helper', role: 'editor' }] });
    const panel = await show(PeoplePanel);
    await type(panel, '[aria-label="Account name"]', 'helper');
    await panel.get('form').trigger('submit');
    await flushPromises();
    expect(o.bodies('PUT /members')).toEqual([{ username: 'helper', role: 'editor' }]);
    expect(panel.text()).toContain('Helper');
  });

  it('are only listed for others', async () => {
    office({ 'GET /members': members }, { role: 'reviewer' });
    const panel = await show(PeoplePanel);
    expect(panel.find('form.line').exists()).toBe(false);
    expect(given(panel, '.el-select').disabled).toBe(true);
  });
});

describe('jobs and lineage', () => {
  it('show progress and can be cancelled', async () => {
    const job = {
      id: 'j',
      kind: 'adjust',
      title: 'Adjust the network',
      state: 'running',
      stage: 'iteration 2',
      progress: 0.42,
      error: null,
      secondsLeft: 2.2,
      outcome: null,
    };
    const o = office({ 'POST /jobs/j/cancel': {} }, { jobs: [job, { ...job, id: 'k', state: 'failed', error: 'P9 is undetermined' }] });
    const panel = await show(JobsPanel);
    expect(panel.text()).toContain('iteration 2, 42 %, about 3 s left');
    expect(panel.text()).toContain('P9 is undetermined');
    await press(panel, 'cancel');
    expect(o.calls.some((c) => c.route === 'POST /jobs/j/cancel')).toBe(true);
  });

  it('go down to the files, and close again', async () => {
    office({
      'GET /lineage/surface%3A1': [
        { depth: 0, text: 'Surface, run 2', stale: true },
        { depth: 1, text: '488 points of pit.csv', stale: false },
      ],
    });
    const list = await show(LineageList, { place: 'surface:1' });
    await press(list, 'What it rests on');
    expect(list.findAll('li').map((l) => l.text())).toEqual(['◐ stale Surface, run 2', '488 points of pit.csv']);
    await press(list, 'Hide what it rests on');
    expect(list.findAll('li')).toHaveLength(0);
  });
});

describe('the frame', () => {
  it('names the project, its frame and heights, and what is stale', async () => {
    office({}, { heights: 'geoid', geoid: 'egm96_15.gtx', stale: [{ slot: 'x', label: 'x', reasons: [] }] });
    const line = await show(TopLine);
    for (const part of ['Tarn', 'EPSG:25830', 'above egm96_15.gtx', '1 stale']) expect(line.text()).toContain(part);
  });

  it('draws a leg only between stages that were walked', async () => {
    office();
    const stages = [
      ['intake', 'done'],
      ['reference', 'attention'],
      ['baselines', 'empty'],
    ].map(([key, state]) => ({ key, label: key, state, caption: `${key} caption` }));
    const course = await show(Course, { stages, here: 'reference' });
    expect(course.findAll('line').map((l) => l.classes())).toEqual([['walked'], ['open']]);
    expect(course.text()).toContain('reference caption');
  });

  it('goes to stages by digit, opens panels by letter, and leaves typing alone', async () => {
    const o = office();
    route.params = { id: '1', stage: 'baselines' };
    await show(ProjectFrame);
    const press = (key: string, over = {}) => document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, ...over }));
    press('4');
    expect(pushed.at(-1)).toBe('/p/1/network');
    press('l');
    expect(o.project.panel).toBe('ledger');
    press('Escape');
    expect(o.project.panel).toBeNull();
    press('/');
    expect(o.project.panel).toBe('search');
    press('Escape');
    press('f');
    expect(o.project.full).toBe('figures');
    const input = document.createElement('input');
    document.body.append(input);
    input.dispatchEvent(new KeyboardEvent('keydown', { key: '2', bubbles: true }));
    expect(pushed).toHaveLength(1);
  });

  it('undoes with the keyboard', async () => {
    const o = office({ 'POST /ledger/7/undo': {} }, { undo: 7 });
    route.params = { id: '1', stage: 'baselines' };
    await show(ProjectFrame);
    document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'z', ctrlKey: true, bubbles: true }));
    await flushPromises();
    expect(o.calls.some((c) => c.route === 'POST /ledger/7/undo')).toBe(true);
  });

  it('says when a project cannot be opened', async () => {
    const o = office({ 'GET /': new Refusal(404, 'There is no such project.') });
    o.project.overview = null;
    route.params = { id: '1', stage: 'network' };
    expect((await show(ProjectFrame)).text()).toContain('There is no such project.');
  });

  it('shares the width by keyboard', async () => {
    const o = office();
    const pages = await show(TwoPages);
    await pages.get('[role=separator]').trigger('keydown', { key: 'ArrowLeft' });
    expect(o.project.figuresShare).toBe(50);
    o.project.full = 'sketch';
    await flushPromises();
    expect(pages.attributes('style')).toContain('0 0 100%');
  });

  it('knows where letters are typed', () => {
    const area = document.createElement('textarea');
    document.body.append(area);
    const seen: boolean[] = [];
    document.body.addEventListener('keydown', (e) => seen.push(isTyping(e)));
    area.dispatchEvent(new KeyboardEvent('keydown', { key: 'x', bubbles: true }));
    document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'x' }));
    expect(seen).toEqual([true, false]);
  });
});

describe('coming in', () => {
  it('signs in and goes where one was going', async () => {
    const o = office({ 'GET /api/session': { user: { username: 'demo', name: 'Demo' }, token: 't' }, 'POST /api/login': {} });
    route.query = { to: '/p/1/terrain' };
    const page = await show(SignIn);
    await type(page, '#username', 'demo');
    await type(page, '#password', 'secret');
    await page.get('form').trigger('submit');
    await flushPromises();
    expect(o.bodies('POST /api/login')).toEqual([{ username: 'demo', password: 'secret' }]);
    expect(pushed.at(-1)).toBe('/p/1/terrain');
  });

  it('says that name and password do not agree', async () => {
    office({ 'GET /api/session': { user: null, token: 't' }, 'POST /api/login': new Refusal(401, 'Name and password do not agree.') });
    const page = await show(SignIn);
    await type(page, '#username', 'demo');
    await type(page, '#password', 'x');
    await page.get('form').trigger('submit');
    await flushPromises();
    expect(page.get('[role=alert]').text()).toContain('Name and password do not agree.');
  });

  it('lists projects and opens a new one', async () => {
    const o = office(
      {
        'GET /api/projects': [{ id: 1, name: 'Tarn', role: 'owner', reference: 'EPSG:25830', heights: 'ellipsoidal' }],
        'POST /api/projects': { id: 9 },
      },
      {},
      [point('A', 1, 2, 3)],
    );
    const page = await show(ProjectList);
    expect(page.text()).toContain('TarnEPSG:25830ellipsoidal heightsowner');
    await type(page, '#project-name', 'North field');
    await page.get('form').trigger('submit');
    await flushPromises();
    expect(o.bodies('POST /api/projects')).toEqual([{ name: 'North field', reference: 'EPSG:25830', heights: 'ellipsoidal' }]);
    expect(pushed.at(-1)).toBe('/p/9/intake');
  });

  it('keeps the form when a project cannot be made', async () => {
    office({ 'GET /api/projects': [], 'POST /api/projects': new Refusal(422, '/reference: EPSG:1 is not in the registry') });
    const page = await show(ProjectList);
    expect(page.text()).toContain('No project yet.');
    await type(page, '#project-name', 'X');
    await page.get('form').trigger('submit');
    await flushPromises();
    expect(page.get('[role=alert]').text()).toBe('This cannot be used. EPSG:1 is not in the registry');
  });

  it('makes a project of an archive, or says why it cannot', async () => {
    const o = office({ 'GET /api/projects': [], 'POST /api/archives': { project: 12, name: 'North', job: 'b' } });
    const page = await show(ProjectList);
    await give(page, '[data-test=bring-archive]', new File(['PK'], 'north-archive.zip'));
    expect(o.calls.some((c) => c.route === 'POST /api/archives')).toBe(true);
    expect(pushed.at(-1)).toBe('/p/12/network');
    office({ 'GET /api/projects': [], 'POST /api/archives': new Refusal(422, 'tables/point.jsonl: is missing; the archive is not whole') });
    const again = await show(ProjectList);
    await give(again, '[data-test=bring-archive]', new File(['PK'], 'north-archive.zip'));
    expect(again.get('[role=alert]').text()).toContain('the archive is not whole');
  });
});

describe('archive and copy', () => {
  it('writes the project, offers what was written, and copies it', async () => {
    const written: unknown[] = [];
    const done = { id: 'a', title: 'Write', state: 'done', outcome: null };
    const o = office({
      'GET /archives': () => written,
      'POST /archives': () => {
        written.push({ job: 'a', at: '2031-06-04T09:00:00Z', bytes: 2_544_524, fingerprint: 'ab12'.repeat(16), files: 40, author: 'Demo' });
        return { job: 'a' };
      },
      'GET /jobs/a': done,
      'POST /copy': { job: 'a' },
    });
    const panel = await show(ArchivePanel);
    expect(panel.text()).toContain('None is written yet.');
    await press(panel, 'Write the archive');
    expect(panel.get('li').text()).toContain('ab12ab12ab12ab12');
    expect(panel.get('li a').attributes('href')).toContain('/archives/a');
    await type(panel, '[aria-label="Name of the copy"]', 'What if');
    await panel.get('form').trigger('submit');
    await flushPromises();
    expect(o.bodies('POST /copy')).toEqual([{ called: 'What if' }]);
    expect(o.project.note?.text).toBe('What if is among your projects.');
  });

  it('says why the archives are not there, and asks again', async () => {
    const o = office({ 'GET /archives': new Refusal(500, 'It is in the log.') });
    const panel = await show(ArchivePanel);
    expect(panel.get('[role=alert]').text()).toContain('It is in the log.');
    await press(panel, 'Load again');
    expect(o.calls.filter((c) => c.route === 'GET /archives')).toHaveLength(2);
  });

  it('lets a reviewer take what was written, and no more', async () => {
    office({ 'GET /archives': [] }, { mayChange: false, role: 'reviewer' });
    const panel = await show(ArchivePanel);
    expect(panel.findAll('button').map((b) => b.text())).toEqual(['close']);
  });
});

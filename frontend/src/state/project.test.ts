// @vitest-environment happy-dom
import { describe, expect, it, vi } from 'vitest';
import { office, overview, point, Refusal } from '../../tests/office';

describe('the open project', () => {
  it('loads points when the revision is new, and not on a quiet look', async () => {
    const { project, calls } = office({}, {}, [point('A', 1, 2, 3)]);
    await project.refresh(true);
    expect(calls.map((c) => c.route)).toEqual(['GET /']);
    await project.refresh();
    expect(calls.map((c) => c.route)).toEqual(['GET /', 'GET /', 'GET /points']);
    expect(project.version).toBe(1);
    await project.refresh();
    expect(project.version).toBe(1);
  });

  it('asks for all points once, then for what changed since', async () => {
    const named = (id: number, name: string) => point(name, 1, 2, 3, { id });
    let seq = 4;
    let revision = 3;
    const { project, calls } = office({
      'GET /': () => ({ ...overview, revision }),
      'GET /points': (_: unknown, query: URLSearchParams) => {
        if (query.get('since') === null) return { seq, whole: true, gone: [], points: [named(1, 'A'), named(3, 'B'), named(4, 'C')] };
        if (query.get('since') === '4') return { seq, whole: false, gone: [4], points: [named(2, 'back again'), named(3, 'renamed')] };
        return { seq, whole: true, gone: [], points: [named(9, 'new')] };
      },
    });
    await project.refresh();
    [seq, revision] = [5, 4];
    await project.refresh();
    expect(project.points.map((p) => p.name)).toEqual(['A', 'back again', 'renamed']);
    [seq, revision] = [90, 80];
    await project.refresh();
    expect(project.points.map((p) => p.name)).toEqual(['new']);
    expect(calls.filter((c) => c.route === 'GET /points').map((c) => c.query.get('since'))).toEqual([null, '4', '5']);
  });

  it('does not take points that come late and know less', async () => {
    const waiting: (() => void)[] = [];
    const { project } = office({});
    vi.stubGlobal(
      'fetch',
      vi.fn(async (path: string) => {
        const seq = waiting.length === 0 ? 7 : 8;
        await new Promise<void>((r) => waiting.push(r));
        return new Response(JSON.stringify({ seq, whole: true, gone: [], points: [point(`seq ${seq}`, 1, 2, 3)] }), {
          status: path ? 200 : 500,
        });
      }),
    );
    const early = project.loadPoints();
    const late = project.loadPoints();
    waiting[1]!();
    await late;
    waiting[0]!();
    await early;
    expect(project.points.map((p) => p.name)).toEqual(['seq 8']);
  });

  it('says what went wrong in place, and what went well', async () => {
    const { project } = office();
    expect(await project.attempt(() => Promise.reject(new Error('x')), 'Done.')).toBe(false);
    expect(project.note).toEqual({ tone: 'bad', text: 'This failed in the page itself: Error: x' });
    expect(await project.attempt(() => Promise.resolve(), 'Done.')).toBe(true);
    expect(project.note).toEqual({ tone: 'good', text: 'Done.' });
  });

  it('lets good news go by itself, and keeps bad news', () => {
    vi.useFakeTimers();
    const { project } = office();
    project.say('good', 'Done.');
    vi.advanceTimersByTime(9000);
    expect(project.note).toBeNull();
    project.say('bad', 'Not done.');
    vi.advanceTimersByTime(60000);
    expect(project.note?.text).toBe('Not done.');
    vi.useRealTimers();
  });

  it('waits for a job and tells its failure', async () => {
    let looks = 0;
    const job = (state: string) => ({
      id: 'j',
      title: 'Adjust the network',
      state,
      progress: 0,
      stage: '',
      error: state === 'failed' ? 'P9 is undetermined' : null,
      secondsLeft: null,
    });
    const { project } = office({ 'GET /jobs/j': () => job(looks++ < 2 ? 'running' : 'failed') });
    await expect(project.job(Promise.resolve({ job: 'j' }))).rejects.toThrow('Adjust the network failed. P9 is undetermined');
    expect(looks).toBe(3);
    const done = office({ 'GET /jobs/j': job('done') });
    expect((await done.project.job(Promise.resolve({ job: 'j' }))).state).toBe('done');
    const cancelled = office({ 'GET /jobs/j': job('cancelled') });
    await expect(cancelled.project.job(Promise.resolve({ job: 'j' }))).rejects.toThrow('was cancelled');
  });

  it('undoes and does again through the ledger', async () => {
    const { project, calls } = office({ 'POST /ledger/7/undo': {}, 'POST /ledger/8/undo': {} }, { undo: 7, redo: 8 });
    await project.undo();
    await project.redo();
    expect(calls.filter((c) => c.route.startsWith('POST')).map((c) => c.route)).toEqual(['POST /ledger/7/undo', 'POST /ledger/8/undo']);
    const nothing = office();
    await nothing.project.undo();
    expect(nothing.calls).toEqual([]);
  });

  it('says a later change in the way of an undo', async () => {
    const { project } = office({ 'POST /ledger/7/undo': new Refusal(409, 'A later entry changed the same thing.') }, { undo: 7 });
    await project.undo();
    expect(project.note).toEqual({ tone: 'bad', text: 'This cannot be used. A later entry changed the same thing.' });
  });

  it('keeps the share of the pages within sight', () => {
    const { project } = office();
    project.share(5);
    expect(project.figuresShare).toBe(25);
    project.share(95);
    expect(project.figuresShare).toBe(80);
    expect(localStorage.getItem('figuresShare')).toBe('80');
  });

  it('starts anew when another project is opened', async () => {
    const { project } = office();
    project.panel = 'ledger';
    vi.stubGlobal(
      'fetch',
      async (path: string) =>
        new Response(JSON.stringify(path.endsWith('/points') ? { seq: 0, whole: true, gone: [], points: [] } : { ...overview, id: 2 })),
    );
    await project.open(2);
    expect([project.id, project.panel]).toEqual([2, null]);
    project.close();
    expect([project.id, project.overview]).toEqual([0, null]);
  });
});

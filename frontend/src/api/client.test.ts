import { afterEach, describe, expect, it, vi } from 'vitest';
import { bytes, get, post, Problem, put, remove, request, session } from './client';

function answer(status: number, body: unknown, calls: RequestInit[] = []) {
  vi.stubGlobal(
    'fetch',
    vi.fn(async (_path: string, init: RequestInit) => {
      calls.push(init);
      return new Response(typeof body === 'string' ? body : JSON.stringify(body), { status });
    }),
  );
  return calls;
}
afterEach(() => vi.unstubAllGlobals());

const refused = async (promise: Promise<unknown>): Promise<Problem> => {
  try {
    await promise;
  } catch (e) {
    expect(e).toBeInstanceOf(Problem);
    return e as Problem;
  }
  throw new Error('It was not refused.');
};

describe('requests', () => {
  it('carry the token of the session when they change something', async () => {
    answer(200, { token: 'abc', user: null });
    await session();
    const calls = answer(200, { seq: 4 });
    expect(await post<{ seq: number }>('/api/x', { a: 1 })).toEqual({ seq: 4 });
    await put('/api/x', {});
    await remove('/api/x');
    await get('/api/x');
    expect(calls.map((c) => [c.method, (c.headers as Record<string, string>)['X-Mensura-Token']])).toEqual([
      ['POST', 'abc'],
      ['PUT', 'abc'],
      ['DELETE', 'abc'],
      ['GET', undefined],
    ]);
    expect(calls[0]!.body).toBe('{"a":1}');
  });

  it('send files as forms and leave their type to the browser', async () => {
    const calls = answer(201, {});
    const form = new FormData();
    await request('POST', '/api/files', form);
    expect(calls[0]!.body).toBe(form);
    expect((calls[0]!.headers as Record<string, string>)['Content-Type']).toBeUndefined();
  });
});

describe('a busy server', () => {
  const headers = (c: RequestInit) => c.headers as Record<string, string>;

  it('is asked again under the same name, so that nothing is done twice', async () => {
    vi.useFakeTimers();
    const calls: RequestInit[] = [];
    vi.stubGlobal(
      'fetch',
      vi.fn(async (_path: string, init: RequestInit) => {
        calls.push(init);
        if (calls.length === 1) throw new TypeError('connection lost');
        return new Response(calls.length === 2 ? '{"title":"busy"}' : '{"seq":5}', { status: calls.length === 2 ? 503 : 200 });
      }),
    );
    const done = put('/api/x', {}, 3);
    await vi.runAllTimersAsync();
    expect(await done).toEqual({ seq: 5 });
    vi.useRealTimers();
    expect(calls).toHaveLength(3);
    expect(new Set(calls.map((c) => headers(c)['Idempotency-Key'])).size).toBe(1);
    expect(headers(calls[0]!)['Idempotency-Key']).toMatch(/^[0-9a-f]{24}$/);
    expect(headers(calls[0]!)['If-Match']).toBe('"3"');
  });

  it('is not asked for ever', async () => {
    vi.useFakeTimers();
    const calls = answer(503, { title: 'The office is busy.', detail: 'Try again in a moment.' });
    const problem = refused(post('/api/x'));
    await vi.runAllTimersAsync();
    expect((await problem).status).toBe(503);
    vi.useRealTimers();
    expect(calls).toHaveLength(3);
  });

  it('names every change anew', async () => {
    const calls = answer(200, {});
    await post('/api/x');
    await post('/api/x');
    await get('/api/x');
    expect(headers(calls[0]!)['Idempotency-Key']).not.toBe(headers(calls[1]!)['Idempotency-Key']);
    expect(headers(calls[2]!)['Idempotency-Key']).toBeUndefined();
  });
});

describe('refusals', () => {
  it('say the reason to people and the place to forms', async () => {
    answer(422, {
      title: 'This cannot be used.',
      detail: '/heights: a plane has none',
      errors: [{ pointer: '/heights', detail: 'a plane has none' }],
    });
    const problem = await refused(get('/api/x'));
    expect(problem.message).toBe('This cannot be used. a plane has none');
    expect(problem.errors).toEqual([{ pointer: '/heights', detail: 'a plane has none' }]);
    expect(problem.status).toBe(422);
  });

  it('keep file names and lines, which are for people', async () => {
    answer(422, { title: 'No.', detail: 'rounds.csv line 7: e is not a number' });
    expect((await refused(get('/api/x'))).message).toBe('No. rounds.csv line 7: e is not a number');
  });

  it('have words of their own when the server has none', async () => {
    answer(500, '<html>');
    expect((await refused(get('/api/x'))).message).toContain('Something went wrong on the server. It is in the log');
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('offline')));
    expect((await refused(get('/api/x'))).message).toContain('The server does not answer.');
  });
});

describe('bytes', () => {
  it('come as they are, or not at all', async () => {
    vi.stubGlobal('fetch', async () => new Response(new Uint8Array([1, 2, 3])));
    expect(new Uint8Array(await bytes('/api/mesh'))).toEqual(new Uint8Array([1, 2, 3]));
    answer(404, {});
    expect((await refused(bytes('/api/mesh'))).status).toBe(404);
  });
});

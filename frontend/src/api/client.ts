import { PACKED, unpack } from './packed';
import type { SessionView } from './types';

/** Problem details of a refused request; `detail` says what happened and what to do. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly errors: { pointer: string; detail: string }[] = [],
    /** Everything the answer said; a change by someone else brings theirs with it. */
    readonly more: Record<string, unknown> = {},
  ) {
    // People need the reason; where it belongs in the request is for forms.
    super(`${title} ${detail.replace(/^\/\S*: /, '')}`.trim());
  }
}

/** Why something failed, as short as a form can say it. */
export function reasonOf(error: unknown): string {
  return error instanceof Problem ? (error.errors[0]?.detail ?? error.message) : String(error);
}

let token = '';

export async function session(): Promise<SessionView> {
  const view = await request<SessionView>('GET', '/api/session');
  token = view.token;
  return view;
}

/** How often a request is sent again that the server was too busy for, or whose answer was lost. */
const REPEATS = 2;

/** A name of its own for every change, so that sent again it is done once. */
function requestKey(): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(12)), (b) => b.toString(16).padStart(2, '0')).join('');
}

/** What the page asks by itself does not keep a session alive that no one uses. */
export const news = <T>(path: string): Promise<T> => request<T>('GET', path, undefined, undefined, { 'X-Mensura-News': '1' });

/** @param seen version of what is edited: the change is refused when someone else was faster */
export async function request<T>(
  method: string,
  path: string,
  body?: unknown,
  seen?: string | number,
  more: Record<string, string> = {},
): Promise<T> {
  const headers: Record<string, string> = { Accept: 'application/json', ...more };
  if (method !== 'GET') {
    headers['X-Mensura-Token'] = token;
    headers['Idempotency-Key'] = requestKey();
  }
  if (seen !== undefined) headers['If-Match'] = `"${seen}"`;
  let payload: BodyInit | undefined;
  if (body instanceof FormData) {
    payload = body;
  } else if (body !== undefined) {
    headers['Content-Type'] = 'application/json';
    payload = JSON.stringify(body);
  }
  const response = await sent(path, { method, headers, body: payload, credentials: 'same-origin' });
  if (response.headers.get('Content-Type') === PACKED) return (await unpack(await response.blob())) as T;
  if (response.headers.get('Content-Type') === 'application/pdf') return (await response.arrayBuffer()) as T;
  const text = await response.text();
  let data: unknown = null;
  try {
    data = text === '' ? null : JSON.parse(text);
  } catch {
    // Not JSON: a defect of the server, or an answer that was cut short.
    if (response.ok) throw new Problem(0, 'The answer did not arrive whole.', 'Load the page again.');
  }
  if (!response.ok) {
    const p = (data ?? {}) as { title?: string; detail?: string; errors?: { pointer: string; detail: string }[] };
    throw new Problem(
      response.status,
      p.title ?? 'Something went wrong on the server.',
      p.detail ?? 'It is in the log; nothing was changed.',
      p.errors ?? [],
      (data ?? {}) as Record<string, unknown>,
    );
  }
  return data as T;
}

async function sent(path: string, init: RequestInit): Promise<Response> {
  for (let i = 0; ; i++) {
    try {
      const response = await fetch(path, init);
      if (response.status !== 503 || i >= REPEATS) return response;
    } catch {
      if (i >= REPEATS) throw new Problem(0, 'The server does not answer.', 'Check that Mensura is running, then try again.');
    }
    await new Promise((r) => setTimeout(r, 400 * (i + 1)));
  }
}

export async function bytes(path: string): Promise<ArrayBuffer> {
  const response = await fetch(path, { credentials: 'same-origin' });
  if (!response.ok) throw new Problem(response.status, 'The data could not be loaded.', 'Try again.');
  return response.arrayBuffer();
}

export const get = <T>(path: string): Promise<T> => request<T>('GET', path);
export const post = <T>(path: string, body: unknown = {}): Promise<T> => request<T>('POST', path, body);
export const put = <T>(path: string, body: unknown, seen?: string | number): Promise<T> => request<T>('PUT', path, body, seen);
export const remove = <T>(path: string): Promise<T> => request<T>('DELETE', path);

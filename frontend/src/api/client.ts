import type { SessionView } from './types';

/** Problem details of a refused request; `detail` says what happened and what to do. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly errors: { pointer: string; detail: string }[] = [],
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

export async function request<T>(method: string, path: string, body?: unknown): Promise<T> {
  const headers: Record<string, string> = { Accept: 'application/json' };
  if (method !== 'GET') headers['X-Mensura-Token'] = token;
  let payload: BodyInit | undefined;
  if (body instanceof FormData) {
    payload = body;
  } else if (body !== undefined) {
    headers['Content-Type'] = 'application/json';
    payload = JSON.stringify(body);
  }
  let response: Response;
  try {
    response = await fetch(path, { method, headers, body: payload, credentials: 'same-origin' });
  } catch {
    throw new Problem(0, 'The server does not answer.', 'Check that Mensura is running, then try again.');
  }
  const text = await response.text();
  let data: unknown = null;
  try {
    data = text === '' ? null : JSON.parse(text);
  } catch {
    // Not JSON: only a defect of the server answers so.
  }
  if (!response.ok) {
    const p = (data ?? {}) as { title?: string; detail?: string; errors?: { pointer: string; detail: string }[] };
    throw new Problem(
      response.status,
      p.title ?? 'Something went wrong on the server.',
      p.detail ?? 'It is in the log; nothing was changed.',
      p.errors ?? [],
    );
  }
  return data as T;
}

export async function bytes(path: string): Promise<ArrayBuffer> {
  const response = await fetch(path, { credentials: 'same-origin' });
  if (!response.ok) throw new Problem(response.status, 'The data could not be loaded.', 'Try again.');
  return response.arrayBuffer();
}

export const get = <T>(path: string): Promise<T> => request<T>('GET', path);
export const post = <T>(path: string, body: unknown = {}): Promise<T> => request<T>('POST', path, body);
export const put = <T>(path: string, body: unknown): Promise<T> => request<T>('PUT', path, body);
export const remove = <T>(path: string): Promise<T> => request<T>('DELETE', path);

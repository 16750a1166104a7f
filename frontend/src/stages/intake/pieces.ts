import { request } from '../../api/client';

/** Bytes of a piece of a file that is too large for one request. */
export const PIECE = 32 * 1024 * 1024;

export function formOf(file: Blob, name: string, more: Record<string, string> = {}): FormData {
  const form = new FormData();
  form.append('file', file, name);
  for (const [key, value] of Object.entries(more)) form.append(key, value);
  return form;
}

/** Sends a file piece by piece; the answer to the last is that of the file. */
export async function inPieces<T>(path: string, file: File, progress: (of: number) => void, size = PIECE): Promise<T> {
  const key = [...crypto.getRandomValues(new Uint8Array(16))].map((b) => b.toString(16).padStart(2, '0')).join('');
  let answer: T | null = null;
  for (let at = 0; at < file.size; at += size) {
    progress(at / file.size);
    const form = formOf(file.slice(at, at + size), file.name, { key, at: String(at), size: String(file.size) });
    answer = await request<T>('POST', path, form);
  }
  return answer as T;
}

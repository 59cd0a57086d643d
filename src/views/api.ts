/** Talking to the server: every answer is a value or refusals with sentences. */

export interface Refusal {
  code: string;
  message: string;
  field?: string;
  params?: Record<string, string | number>;
}

export type Answer<T> = { ok: true; value: T } | { ok: false; status: number; failures: Refusal[] };

/** Status 0 where the server could not be reached at all. */
export const ask = <T>(
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE',
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<Answer<T>> =>
  answerOf(path, {
    method,
    keepalive: method === 'PUT',
    headers: { ...headers, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });

/** Sends a file as it is. */
export const send = <T>(path: string, file: File): Promise<Answer<T>> =>
  answerOf(path, { method: 'POST', headers: { 'content-type': 'application/octet-stream' }, body: file });

async function answerOf<T>(path: string, request: RequestInit): Promise<Answer<T>> {
  let response: Response;
  try {
    response = await fetch(path, request);
  } catch {
    return { ok: false, status: 0, failures: [] };
  }
  const given: unknown = await response.json().catch(() => null);
  if (response.ok) return { ok: true, value: given as T };
  const failures = (given as { failures?: Refusal[] } | null)?.failures ?? [];
  return { ok: false, status: response.status, failures };
}

/** The sentences of a refusal as one text; `other` where the server gave none. */
export const sentences = (failures: readonly Refusal[], other: string): string =>
  failures.length > 0 ? failures.map((each) => each.message).join(' ') : other;

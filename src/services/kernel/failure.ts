/**
 * What a user can cause: a code, the details of its sentence, and where it belongs. The sentence is in the
 * locale files.
 */
export interface Failure {
  code: string;
  params?: Record<string, string | number>;
  /** The field or cell it is about, as a path. */
  field?: string;
  /** Seconds after which it may be tried again. */
  retryAfter?: number;
}

/** What a use case came to: a value, or what is in the way. */
export type Result<T> = { ok: true; value: T } | { ok: false; status: Status; failures: Failure[] };

/** invalid: 422. signedOut: 401. forbidden: 403. missing: 404. conflict: 409. tooMany: 429. */
export type Status = 'invalid' | 'signedOut' | 'forbidden' | 'missing' | 'conflict' | 'tooMany';

/** It went well. */
export const done = <T>(value: T): Result<T> => ({ ok: true, value });
/** It did not, and why. */
export const fail = (status: Status, ...failures: Failure[]): Result<never> => ({
  ok: false,
  status,
  failures,
});

/** What goes back to who asked: values, files, and refusals with their sentences. */
import type { FileAnswer } from '../../contract';
import { sentence } from '../../i18n/sentence';
import type { Failure, Result, Status } from '../../services/kernel/failure';

const codes: Record<Status, number> = {
  invalid: 422,
  signedOut: 401,
  forbidden: 403,
  missing: 404,
  conflict: 409,
  tooMany: 429,
};

/** A value as JSON, which is kept nowhere. */
export function json(value: unknown, status = 200, headers: Record<string, string> = {}): Response {
  return new Response(JSON.stringify(value), {
    status,
    headers: { 'content-type': 'application/json; charset=utf-8', 'cache-control': 'no-store', ...headers },
  });
}

/** A refusal with its sentences in the person's language. */
export function refused(status: number, failures: readonly Failure[], language: string): Response {
  const wait = failures.find(({ retryAfter }) => retryAfter !== undefined)?.retryAfter;
  return json(
    {
      failures: failures.map(({ retryAfter: _retryAfter, ...failure }) => ({
        ...failure,
        message: sentence(language, failure.code, failure.params),
      })),
    },
    status,
    wait === undefined ? {} : { 'retry-after': String(wait) },
  );
}

/** What a service said, as it is answered. */
export function answer<T>(result: Result<T>, language: string): Response {
  return result.ok ? json(result.value ?? null) : refused(codes[result.status], result.failures, language);
}

/** A file, to be saved under its name. */
export const fileAnswer = ({ name, type, bytes, headers = {} }: FileAnswer): Response =>
  new Response(typeof bytes === 'string' ? bytes : new Uint8Array(bytes), {
    headers: {
      'content-type': type,
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'no-store',
      ...headers,
    },
  });

/** Before anyone is signed in, the language the browser asks for. */
export const browserLanguage = (request: Request): 'en' | 'de' =>
  request.headers.get('accept-language')?.trim().toLowerCase().startsWith('de') ? 'de' : 'en';

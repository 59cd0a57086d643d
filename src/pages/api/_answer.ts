/** The shape of every endpoint: read, check with Yup, call one service, answer. */
import type { APIContext, APIRoute } from 'astro';
import { ValidationError, type Schema } from 'yup';
import { sentence } from '../../i18n/sentence';
import { log } from '../../services/log';
import type { Actor } from '../../services/actor';
import type { Failure, Result, Status } from '../../services/failure';

const codes: Record<Status, number> = { invalid: 422, signedOut: 401, forbidden: 403, missing: 404, conflict: 409, tooMany: 429 };
const largestBody = 512 * 1024;

export function json(value: unknown, status = 200): Response {
  return new Response(JSON.stringify(value), { status, headers: { 'content-type': 'application/json; charset=utf-8', 'cache-control': 'no-store' } });
}

/** A refusal with its sentences in the person's language. */
export function refused(status: number, failures: Failure[], language: string): Response {
  return json({ failures: failures.map((failure) => ({ ...failure, message: sentence(language, failure.code, failure.params) })) }, status);
}

export function answer<T>(result: Result<T>, language: string): Response {
  return result.ok ? json(result.value ?? null) : refused(codes[result.status], result.failures, language);
}

/** A bug is written to the log whole; the person gets a sentence that tells nothing of the inside. */
async function guarded(actor: Actor, work: () => Promise<Response>): Promise<Response> {
  try {
    return await work();
  } catch (bug) {
    log.error({ bug, actor: actor.id });
    return refused(500, [{ code: 'request.failed' }], actor.language);
  }
}

type Run<I> = (actor: Actor, input: I, context: APIContext) => Promise<Result<unknown>>;

/** An endpoint without input besides its address. */
export function reading(run: (actor: Actor, context: APIContext) => Promise<Result<unknown>>): APIRoute {
  return async (context) => {
    const { actor } = context.locals;
    if (!actor) return refused(401, [{ code: 'signIn.needed' }], browserLanguage(context.request));
    return guarded(actor, async () => answer(await run(actor, context), actor.language));
  };
}

/** An endpoint that takes a JSON body. */
export function changing<I>(schema: Schema<I>, run: Run<I>): APIRoute {
  return async (context) => {
    const { actor } = context.locals;
    if (!actor) return refused(401, [{ code: 'signIn.needed' }], browserLanguage(context.request));
    const read = await readBody(context.request, schema);
    if (!read.ok) return refused(read.status, read.failures, actor.language);
    return guarded(actor, async () => answer(await run(actor, read.value, context), actor.language));
  };
}

type Read<I> = { ok: true; value: I } | { ok: false; status: number; failures: Failure[] };

export async function readBody<I>(request: Request, schema: Schema<I>): Promise<Read<I>> {
  const text = await request.text();
  if (text.length > largestBody) return { ok: false, status: 413, failures: [{ code: 'request.tooLarge' }] };
  let given: unknown;
  try {
    given = JSON.parse(text);
  } catch {
    return { ok: false, status: 400, failures: [{ code: 'request.malformed' }] };
  }
  try {
    return { ok: true, value: await schema.validate(given, { abortEarly: false }) };
  } catch (failure) {
    if (!(failure instanceof ValidationError)) throw failure;
    const errors = failure.inner.length > 0 ? failure.inner : [failure];
    return { ok: false, status: 422, failures: errors.map(failureOf) };
  }
}

function failureOf({ message, path, params }: ValidationError): Failure {
  const code = /^[a-zA-Z]+\.[a-zA-Z]+$/.test(message) ? message : 'input.invalid';
  const unknown = (params as { properties?: string; unknown?: string } | undefined)?.properties ?? (params as { unknown?: string } | undefined)?.unknown;
  return { code, ...(path ? { field: path } : {}), params: { field: unknown ?? path ?? '' } };
}

/** Before anyone is signed in, the language the browser asks for. */
export const browserLanguage = (request: Request): 'en' | 'de' => (request.headers.get('accept-language')?.trim().toLowerCase().startsWith('de') ? 'de' : 'en');

export const param = (context: APIContext, name: string): string => context.params[name] ?? '';

/** The revision of a quote that an address asks for (`?revision=2`); none where it asks for the newest. */
export function revisionOf(url: URL): number | undefined {
  const text = url.searchParams.get('revision');
  return text === null ? undefined : /^\d{1,3}$/.test(text) ? Number(text) : 0;
}

/** The shape of every endpoint: one way in, one service, one answer. */
import { createHash } from 'node:crypto';
import type { APIContext, APIRoute } from 'astro';
import type { Schema } from 'yup';
import type { QuoteView } from '../../core/quoting';
import { sentence } from '../../i18n/sentence';
import type { Actor } from '../../services/actor';
import { done, type Failure, type Result, type Status } from '../../services/failure';
import { answerTo } from '../../services/quote-stands';
import { once, type Repeatable } from '../../services/work';
import { checked, mostBytes, readBody, readBytes } from './_body';

const codes: Record<Status, number> = {
  invalid: 422,
  signedOut: 401,
  forbidden: 403,
  missing: 404,
  conflict: 409,
  tooMany: 429,
};

export function json(value: unknown, status = 200, headers: Record<string, string> = {}): Response {
  return new Response(JSON.stringify(value), {
    status,
    headers: { 'content-type': 'application/json; charset=utf-8', 'cache-control': 'no-store', ...headers },
  });
}

/** A refusal with its sentences in the person's language. */
export function refused(status: number, failures: Failure[], language: string): Response {
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

export function answer<T>(result: Result<T>, language: string): Response {
  return result.ok ? json(result.value ?? null) : refused(codes[result.status], result.failures, language);
}

/** A file as an endpoint gives it. */
export interface FileAnswer {
  name: string;
  type: string;
  bytes: Uint8Array | string;
  headers?: Record<string, string>;
}

const file = ({ name, type, bytes, headers = {} }: FileAnswer): Response =>
  new Response(typeof bytes === 'string' ? bytes : new Uint8Array(bytes), {
    headers: {
      'content-type': type,
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'no-store',
      ...headers,
    },
  });

/**
 * The one way in: nobody gets further without having signed in. What goes wrong on the way is answered by the
 * middleware.
 */
const entered =
  (run: (actor: Actor, context: APIContext) => Promise<Response>): APIRoute =>
  async (context) => {
    const { actor } = context.locals;
    return actor
      ? run(actor, context)
      : refused(401, [{ code: 'signIn.needed' }], browserLanguage(context.request));
  };

/** A page of a list, as its address asks for it. */
export const listing = <I>(schema: Schema<I>, run: (actor: Actor, query: I) => Promise<unknown>): APIRoute =>
  entered(async (actor, { url }) => {
    const read = await checked(Object.fromEntries(url.searchParams), schema);
    return read.ok ? json(await run(actor, read.value)) : refused(read.status, read.failures, actor.language);
  });

type Run<I> = (actor: Actor, input: I, context: APIContext) => Promise<Result<unknown>>;

/** An endpoint without input besides its address. */
export const reading = (run: (actor: Actor, context: APIContext) => Promise<Result<unknown>>): APIRoute =>
  entered(async (actor, context) => answer(await run(actor, context), actor.language));

/** An endpoint without a body that changes something. */
export const removing = (run: (actor: Actor, context: APIContext) => Promise<Result<unknown>>): APIRoute =>
  entered(async (actor, context) => {
    const repeat = repeatOf(actor, context, '');
    if (repeat === null) return refused(400, [{ code: 'request.badKey' }], actor.language);
    return answer(
      await (repeat ? once(repeat, () => run(actor, context)) : run(actor, context)),
      actor.language,
    );
  });

/** An endpoint that takes a JSON body, of so many bytes at most. */
export const changing = <I>(schema: Schema<I>, run: Run<I>, most = mostBytes): APIRoute =>
  entered(async (actor, context) => {
    const read = await readBody(context.request, schema, most);
    if (!read.ok) return refused(read.status, read.failures, actor.language);
    const repeat = repeatOf(actor, context, JSON.stringify(read.value));
    if (repeat === null) return refused(400, [{ code: 'request.badKey' }], actor.language);
    return answer(
      await (repeat ? once(repeat, () => run(actor, read.value, context)) : run(actor, read.value, context)),
      actor.language,
    );
  });

/** The same for a quote: whoever names the view that they have is told only what is otherwise by now. */
export const changingQuote = <I>(
  schema: Schema<I>,
  run: (actor: Actor, input: I, context: APIContext) => Promise<Result<QuoteView>>,
  most?: number,
): APIRoute =>
  changing(
    schema,
    async (actor, input, context) => {
      const result = await run(actor, input, context);
      return result.ok ? done(answerTo(context.request.headers.get('quote-stand'), result.value)) : result;
    },
    most,
  );

/** An endpoint that takes the bytes of a file. */
export const taking = (
  most: number,
  run: (actor: Actor, bytes: Uint8Array<ArrayBuffer>) => Promise<Result<unknown>>,
): APIRoute =>
  entered(async (actor, { request }) => {
    const read = await readBytes(request, most);
    return read.ok
      ? answer(await run(actor, read.value), actor.language)
      : refused(read.status, read.failures, actor.language);
  });

/** An endpoint that gives a file. */
export const giving = (run: (actor: Actor, context: APIContext) => Promise<Result<FileAnswer>>): APIRoute =>
  entered(async (actor, context) => {
    const result = await run(actor, context);
    return result.ok ? file(result.value) : answer(result, actor.language);
  });

/**
 * By its Idempotency-Key, a request that may come again; undefined where it has none, null where that is no
 * key.
 */
function repeatOf(actor: Actor, { request, url }: APIContext, body: string): Repeatable | undefined | null {
  const key = request.headers.get('idempotency-key');
  if (key === null) return undefined;
  if (!/^[\x21-\x7e]{1,200}$/.test(key)) return null;
  return {
    userId: actor.id,
    key,
    asked: createHash('sha256').update(`${request.method} ${url.pathname} ${body}`).digest('hex'),
  };
}

/** Before anyone is signed in, the language the browser asks for. */
export const browserLanguage = (request: Request): 'en' | 'de' =>
  request.headers.get('accept-language')?.trim().toLowerCase().startsWith('de') ? 'de' : 'en';

export const param = (context: APIContext, name: string): string => context.params[name] ?? '';

/** The revision of a quote that an address asks for (`?revision=2`); none where it asks for the newest. */
export function revisionOf(url: URL): number | undefined {
  const text = url.searchParams.get('revision');
  return text === null ? undefined : /^\d{1,3}$/.test(text) ? Number(text) : 0;
}

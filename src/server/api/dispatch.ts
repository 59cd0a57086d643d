/**
 * The one way in. A request is matched to what the contract declares, let in or not, read, answered by the
 * room's handler, and told back; what goes wrong outside of that is answered by the middleware.
 */
import { createHash } from 'node:crypto';
import type { APIContext } from 'astro';
import type { QuoteView } from '../../contract';
import { contract, matcher, type Endpoint } from '../../contract/all';
import { refusal, type Actor } from '../../services/access/actor';
import { done, type Result } from '../../services/kernel/failure';
import { answerTo } from '../../services/quotes/quote-stands';
import { once, type Repeatable } from '../../services/kernel/unit-of-work';
import { answer, browserLanguage, fileAnswer, refused } from './answer';
import { checked, mostBytes, readBody, readBytes, type Read } from './body';
import { handlers, type Held } from './handlers';

const find = matcher(Object.keys(contract));

/** What is declared and what answers it. */
const held = (path: string): Held => ({
  endpoint: (contract as Readonly<Record<string, Endpoint>>)[path] as Endpoint,
  handle: (handlers as unknown as Readonly<Record<string, Held['handle']>>)[path] as Held['handle'],
});

/** Answers a request beneath `/api`. */
export async function dispatch(context: APIContext): Promise<Response> {
  const { request, url, locals } = context;
  const language = locals.actor?.language ?? browserLanguage(request);
  const head = request.method === 'HEAD';
  const matched = find(head ? 'GET' : request.method, url.pathname.slice('/api'.length));
  if (!matched) return refused(404, [{ code: 'request.unknown' }], language);
  const { endpoint, handle } = held(matched.path);
  const barred = letIn(endpoint, locals.actor, language);
  if (barred) return barred;
  const actor = locals.actor as Actor;

  const query = endpoint.query
    ? await checked(Object.fromEntries(url.searchParams), endpoint.query)
    : ({ ok: true, value: undefined } as const);
  if (!query.ok) return refused(query.status, query.failures, language);
  const input = await inputOf(endpoint, request);
  if (!input.ok) return refused(input.status, input.failures, language);

  const asked = { actor, at: matched.at, input: input.value, query: query.value, context };
  const repeat = repeatOf(locals.actor, context, endpoint, input.value);
  if (repeat === null) return refused(400, [{ code: 'request.badKey' }], language);
  const run = async () => told(endpoint, await handle(asked), request);
  const result = repeat ? await onceAs(repeat, run) : await run();
  const response = result instanceof Response ? result : respond(endpoint, result, language);
  return head ? new Response(null, response) : response;
}

/** A refusal for who is not let in. */
function letIn({ who }: Endpoint, actor: Actor | null, language: string): Response | null {
  if (who === 'anyone') return null;
  if (!actor) return refused(401, [{ code: 'signIn.needed' }], language);
  const lacks = who === 'person' ? null : refusal(actor, who);
  return lacks ? answer(lacks, language) : null;
}

async function inputOf(
  { input, takesFile, most = mostBytes }: Endpoint,
  request: Request,
): Promise<Read<unknown>> {
  if (takesFile) return readBytes(request, most);
  return input ? readBody(request, input, most) : { ok: true, value: undefined };
}

/** Whoever names the view of a quote that they have is told only what is otherwise by now. */
function told(
  { answers }: Endpoint,
  result: Result<unknown> | Response,
  request: Request,
): Result<unknown> | Response {
  if (result instanceof Response || !result.ok || answers.kind !== 'quote') return result;
  return done(answerTo(request.headers.get('quote-stand'), result.value as QuoteView));
}

/** Work that may be asked for again; what answers with a response of its own is never that. */
const onceAs = (
  repeat: Repeatable,
  run: () => Promise<Result<unknown> | Response>,
): Promise<Result<unknown>> => once(repeat, run as () => Promise<Result<unknown>>);

const respond = ({ answers }: Endpoint, result: Result<unknown>, language: string): Response =>
  result.ok && answers.kind === 'file'
    ? fileAnswer(result.value as Parameters<typeof fileAnswer>[0])
    : answer(result, language);

/**
 * By its Idempotency-Key, a request that may come again; undefined where it has none or changes nothing, null
 * where that is no key.
 */
function repeatOf(
  actor: Actor | null,
  { request, url }: APIContext,
  { takesFile, toldOnce }: Endpoint,
  input: unknown,
): Repeatable | undefined | null {
  const key = request.headers.get('idempotency-key');
  const changes = request.method !== 'GET' && request.method !== 'HEAD';
  if (key === null || !actor || takesFile || toldOnce || !changes) return undefined;
  if (!/^[\x21-\x7e]{1,200}$/.test(key)) return null;
  const body = input === undefined ? '' : JSON.stringify(input);
  return {
    userId: actor.id,
    key,
    asked: createHash('sha256').update(`${request.method} ${url.pathname} ${body}`).digest('hex'),
  };
}

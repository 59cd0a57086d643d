/** For tests: asks an endpoint as somebody, through the same way in as every request. */
import Ajv from 'ajv/dist/2020';
import type { APIContext } from 'astro';
import answered from '../../contract/answers.json';
import { answerSchema, contract } from '../../contract/all';
import type { Actor } from '../../services/access/actor';
import { dispatch } from './dispatch';

/** Method and path of an endpoint. */
export type Way = keyof typeof contract;
/** All endpoints there are. */
export const ways = Object.keys(contract) as Way[];

/** Ways of which an answer was held against what is declared. */
export const held = new Set<Way>();

const schemas = new Ajv({ strict: false, allErrors: true }).addSchema(
  { components: { schemas: answered } },
  'contract',
);
const validators = new Map<Way, ReturnType<typeof validatorOf>>();

function validatorOf(way: Way) {
  const schema = JSON.stringify(answerSchema(contract[way].answers.of));
  return schemas.compile(JSON.parse(schema.replaceAll('"#/', '"contract#/')) as object);
}

/** Throws where an answer has what its type does not name, or lacks what it has. */
function holds(way: Way, answer: unknown): void {
  const valid = validators.get(way) ?? validatorOf(way);
  validators.set(way, valid);
  if (!valid(answer))
    throw new Error(`${way}: ${schemas.errorsText(valid.errors?.slice(0, 5), { dataVar: 'answer' })}`);
  held.add(way);
}

/** What is sent in a test. */
export interface Request {
  at?: Readonly<Record<string, string>>;
  query?: Readonly<Record<string, string>>;
  /** An object is sent as JSON; text and bytes as they are. */
  body?: unknown;
  headers?: Readonly<Record<string, string>>;
}

/**
 * The answer of an endpoint to somebody; to nobody with null. Whatever is answered is held against what the
 * contract declares.
 */
export async function askAs(actor: Actor | null, way: Way, request: Request = {}): Promise<Response> {
  const response = await send(actor, way, request);
  if (response.ok && contract[way].answers.kind !== 'file') {
    const text = await response.clone().text();
    holds(way, text === '' ? null : JSON.parse(text));
  }
  return response;
}

async function send(actor: Actor | null, way: Way, request: Request): Promise<Response> {
  const { at = {}, query = {}, body, headers = {} } = request;
  const [method = '', path = ''] = way.split(' ');
  const url = new URL(
    `http://127.0.0.1/api${path.replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(at[name] ?? ''))}`,
  );
  for (const [name, value] of Object.entries(query)) url.searchParams.set(name, value);
  const sent =
    body === undefined || typeof body === 'string' || body instanceof Uint8Array
      ? body
      : JSON.stringify(body);
  const cookies = { get: () => undefined, set: () => undefined, delete: () => undefined };
  return dispatch({
    request: new Request(url, { method, headers, ...(sent === undefined ? {} : { body: sent as BodyInit }) }),
    url,
    cookies,
    locals: { actor, theme: 'auto', client: { address: '127.0.0.1', secure: false, host: '127.0.0.1' } },
  } as unknown as APIContext);
}

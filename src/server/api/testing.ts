/** For tests: asks an endpoint as somebody, through the same way in as every request. */
import type { APIContext } from 'astro';
import { contract } from '../../contract/all';
import type { Actor } from '../../services/access/actor';
import { dispatch } from './dispatch';

/** Method and path of an endpoint. */
export type Way = keyof typeof contract;
/** All endpoints there are. */
export const ways = Object.keys(contract) as Way[];

/** What is sent in a test. */
export interface Request {
  at?: Readonly<Record<string, string>>;
  query?: Readonly<Record<string, string>>;
  /** An object is sent as JSON; text and bytes as they are. */
  body?: unknown;
  headers?: Readonly<Record<string, string>>;
}

/** The answer of an endpoint to somebody; to nobody with null. */
export async function askAs(actor: Actor | null, way: Way, request: Request = {}): Promise<Response> {
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

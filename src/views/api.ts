/** Talking to the server as the contract says: every answer is a value, or refusals with sentences. */
import type { AnswerOf, Contract, InputOf, PlaceOf, QueryOf } from '../contract';

/** Why something was refused, as a code and a sentence. */
export interface Refusal {
  code: string;
  message: string;
  field?: string;
  params?: Record<string, string | number>;
}

/** A value, or why there is none, with the status of HTTP. */
export type Answer<T> = { ok: true; value: T } | { ok: false; status: number; failures: Refusal[] };

/** Method and path of an endpoint. */
export type Way = Extract<keyof Contract, string>;
/** What is sent to it; a number may be a text as it was typed, which the server reads or refuses. */
export type SentTo<W extends Way> = AsTyped<InputOf<Contract[W]>>;
type AsTyped<T> = unknown extends T
  ? T
  : T extends number
    ? number | string
    : T extends string | boolean | null | undefined
      ? T
      : T extends readonly (infer E)[]
        ? readonly AsTyped<E>[]
        : { [K in keyof T]: AsTyped<T[K]> };

/** The values of the names in its path, its input and query, where it has any. */
export type Asking<W extends Way> = Part<'at', PlaceOf<W>> & Part<'input', SentTo<W>> & Besides<W>;
interface Besides<W extends Way> {
  query?: { readonly [K in keyof QueryOf<Contract[W]>]?: string | number | boolean | undefined };
  headers?: Record<string, string>;
}
/** A part that is there where there is something in it. */
type Part<Name extends string, T> = keyof T extends never ? { [K in Name]?: undefined } : Record<Name, T>;
type Rest<T> = Partial<T> extends T ? [asking?: T] : [asking: T];

/** The address of an endpoint, for a link or a request. */
export function addressOf<W extends Way>(way: W, { at, query }: Pick<Asking<W>, 'at' | 'query'>): string {
  const values: Readonly<Record<string, string>> = at ?? {};
  const path = way
    .slice(way.indexOf(' ') + 1)
    .replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(values[name] ?? ''));
  const given = Object.entries<string | number | boolean | undefined>(query ?? {}).flatMap(([name, value]) =>
    value === undefined ? [] : [[name, String(value)]],
  );
  return `/api${path}${given.length > 0 ? `?${new URLSearchParams(given).toString()}` : ''}`;
}

/** Asks an endpoint. Status 0 where the server could not be reached at all. */
export function ask<W extends Way>(
  way: W,
  ...[asking]: Rest<Asking<W>>
): Promise<Answer<AnswerOf<Contract[W]>>> {
  const {
    at,
    query,
    input,
    headers,
  }: { at?: unknown; query?: unknown; input?: unknown; headers?: Record<string, string> } = asking ?? {};
  const method = way.slice(0, way.indexOf(' '));
  const body = input === undefined ? undefined : JSON.stringify(input);
  return answerOf(addressOf(way, { at, query } as Pick<Asking<W>, 'at' | 'query'>), {
    method,
    // A page that is left lets what it keeps go on, as far as browsers let it: 64 kB at most.
    keepalive: method === 'PUT' && (body?.length ?? 0) < 16_000,
    headers: { ...headers, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
    ...(body === undefined ? {} : { body }),
  });
}

/** Sends a file as it is. */
export const send = <W extends Way>(
  way: W,
  { file }: { file: File },
): Promise<Answer<AnswerOf<Contract[W]>>> =>
  answerOf(`/api${way.slice(way.indexOf(' ') + 1)}`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: file,
  });

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

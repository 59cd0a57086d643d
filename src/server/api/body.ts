/** Reading what is sent: measured while it arrives, and checked before anything else sees it. */
import { ValidationError, type Schema } from 'yup';
import type { Failure } from '../../services/kernel/failure';

/** What was read, or why it was refused, with the status of HTTP. */
export type Read<I> = { ok: true; value: I } | { ok: false; status: number; failures: Failure[] };

/** Bytes of a body, unless an endpoint says otherwise. */
export const mostBytes = 1024 * 1024;

/** Deeper than anything that is asked for. */
const mostDepth = 32;

const refused = (
  status: number,
  code: string,
  params: Failure['params'] = {},
): { ok: false; status: number; failures: Failure[] } => ({
  ok: false,
  status,
  failures: [{ code, params }],
});

/** The bytes of a body; what is longer than `most` is refused as soon as it is, and not read on. */
export async function readBytes(request: Request, most: number): Promise<Read<Uint8Array<ArrayBuffer>>> {
  const tooLarge = () => refused(413, 'request.tooLarge', { most: Math.floor(most / 1024) });
  if (Number(request.headers.get('content-length') ?? 0) > most) return tooLarge();
  const chunks: Uint8Array[] = [];
  let length = 0;
  const reader = request.body?.getReader();
  for (;;) {
    const next = await reader?.read();
    if (!next || next.done) break;
    length += next.value.byteLength;
    if (length > most) {
      // Not cancelled, which would end the connection before the answer is out; the server lets the rest go
      // by.
      reader?.releaseLock();
      return tooLarge();
    }
    chunks.push(next.value);
  }
  const bytes = new Uint8Array(length);
  let at = 0;
  for (const chunk of chunks) {
    bytes.set(chunk, at);
    at += chunk.byteLength;
  }
  return { ok: true, value: bytes };
}

/** A body as the value that a schema allows. */
export async function readBody<I>(request: Request, schema: Schema<I>, most = mostBytes): Promise<Read<I>> {
  const read = await readBytes(request, most);
  if (!read.ok) return read;
  const parsed = readJson(read.value);
  return parsed.ok ? checked(parsed.value, schema) : parsed;
}

function readJson(bytes: Uint8Array): Read<unknown> {
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    if (depthOf(text) > mostDepth) return refused(400, 'request.malformed');
    const value: unknown = JSON.parse(text);
    return isPlain(value) ? { ok: true, value } : refused(400, 'request.badText');
  } catch {
    return refused(400, 'request.malformed');
  }
}

/** How deep brackets are nested, read without nesting anything. */
function depthOf(text: string): number {
  let [depth, deepest, inText] = [0, 0, false];
  for (let at = 0; at < text.length; at++) {
    const code = text.charCodeAt(at);
    if (inText) {
      if (code === 0x5c) at++;
      else if (code === 0x22) inText = false;
    } else if (code === 0x22) inText = true;
    else if (code === 0x7b || code === 0x5b) deepest = Math.max(deepest, ++depth);
    else if (code === 0x7d || code === 0x5d) depth--;
  }
  return deepest;
}

/** Names that mean something to the language itself. */
const taken = new Set(['__proto__', 'constructor', 'prototype']);

/** A text that can be kept: no zero character, no half of a pair. */
export const isText = (text: string): boolean => !text.includes('\0') && text.isWellFormed();

/** Whether every text in it can be kept, and no key is one that the language itself reads. */
function isPlain(value: unknown): boolean {
  if (typeof value === 'string') return isText(value);
  if (typeof value !== 'object' || value === null) return true;
  if (Array.isArray(value)) return value.every(isPlain);
  return Object.entries(value).every(([key, inner]) => !taken.has(key) && isText(key) && isPlain(inner));
}

/** What a schema makes of a value, or every place at which it refuses. */
export async function checked<I>(given: unknown, schema: Schema<I>): Promise<Read<I>> {
  try {
    return { ok: true, value: await schema.validate(given, { abortEarly: false }) };
  } catch (failure) {
    if (!(failure instanceof ValidationError)) throw failure;
    const errors = failure.inner.length > 0 ? failure.inner : [failure];
    return { ok: false, status: 422, failures: errors.slice(0, 50).map(failureOf) };
  }
}

function failureOf({ message, path, params }: ValidationError): Failure {
  const code = /^[a-zA-Z]+\.[a-zA-Z]+$/.test(message) ? message : 'input.invalid';
  const unknown =
    (params as { properties?: string; unknown?: string } | undefined)?.properties ??
    (params as { unknown?: string } | undefined)?.unknown;
  return { code, ...(path ? { field: path } : {}), params: { field: unknown ?? path ?? '' } };
}

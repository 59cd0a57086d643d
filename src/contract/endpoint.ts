/**
 * How an endpoint is declared. A declaration is a value whose name is its method and path; from it follow the
 * way in, the parsing and refusing of what is sent, the page's client, the document for programs, and the tests
 * that try every endpoint as every role with bad input.
 */
import type { Schema } from 'yup';
import type { Permission } from './permissions';

/** Who is let in: whoever comes, whoever has signed in, or who has a permission. */
export type Who = 'anyone' | 'person' | Permission;

declare const answered: unique symbol;

/**
 * What an endpoint answers. `json` is a value; `quote` a quote, of which one who names the view that they have
 * (header Quote-Stand) is told only what differs; `file` a file as it is saved.
 */
export interface Answers<A> {
  readonly kind: 'json' | 'quote' | 'file';
  /** The name of the answer's type, for the document. */
  readonly of: string;
  /** Only for the compiler, which reads the answer's type from it. */
  readonly [answered]?: A;
}

/** An answer as JSON, of the type named. */
export const json = <A>(of: string): Answers<A> => ({ kind: 'json', of });

/** An answer that is a file. */
export const file: Answers<FileAnswer> = { kind: 'file', of: 'File' };

/** A file as it is saved. */
export interface FileAnswer {
  /** Its name, with its ending. */
  name: string;
  /** Its media type. */
  type: string;
  bytes: Uint8Array | string;
  headers?: Record<string, string>;
}

/** An endpoint as it is declared; the types are those of what is sent, read of the address, and answered. */
export interface Endpoint<Input = unknown, Query = unknown, Answer = unknown> {
  /** One sentence for those who write programs. */
  readonly says: string;
  readonly who: Who;
  /** What is sent as JSON; none where nothing is read from a body. */
  readonly input?: Schema<Input>;
  /** Takes the bytes of a file instead of JSON. */
  readonly takesFile?: true;
  /** The answer holds a secret that is told this once and kept nowhere, not even for who asks again. */
  readonly toldOnce?: true;
  /** Bytes of a body at most; a mebibyte unless said. */
  readonly most?: number;
  /** What of the address behind its question mark is read. */
  readonly query?: Schema<Query>;
  readonly answers: Answers<Answer>;
}

/** Endpoints by method and path, as in `GET /quotes/{id}`. */
export type Endpoints = Readonly<Record<string, Endpoint>>;

/** Declares an endpoint; the types of its input and query are those of its schemas. */
export const endpoint = <A, I = undefined, Q = undefined>(declared: Endpoint<I, Q, A>): Endpoint<I, Q, A> =>
  declared;

/** Declares an endpoint that takes the bytes of a file. */
export const takingFile = <A, Q = undefined>(
  declared: Omit<Endpoint<Uint8Array<ArrayBuffer>, Q, A>, 'input' | 'takesFile'>,
): Endpoint<Uint8Array<ArrayBuffer>, Q, A> => ({ ...declared, takesFile: true });

/** What an endpoint is sent. */
export type InputOf<E> = E extends Endpoint<infer I, infer _Q, infer _A> ? I : never;
/** What it reads of the address. */
export type QueryOf<E> = E extends Endpoint<infer _I, infer Q, infer _A> ? Q : never;
/** What it answers. */
export type AnswerOf<E> = E extends Endpoint<infer _I, infer _Q, infer A> ? A : never;

/** The names in braces of a path. */
export type Names<Path extends string> = Path extends `${string}{${infer Name}}${infer Rest}`
  ? Name | Names<Rest>
  : never;
/** The values of a path's names. */
export type PlaceOf<Path extends string> = Readonly<Record<Names<Path>, string>>;

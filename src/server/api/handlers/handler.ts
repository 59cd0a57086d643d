/** What answers an endpoint. */
import type { APIContext } from 'astro';
import type {
  AnswerOf,
  Endpoint,
  Endpoints,
  InputOf,
  PlaceOf,
  QueryOf,
  QuoteChanges,
} from '../../../contract';
import type { Actor } from '../../../services/access/actor';
import type { Result } from '../../../services/kernel/failure';

/** A request once it was let in and read. */
export interface Asked<Path extends string, E> {
  /** Who asks. Endpoints for anyone do not read it. */
  actor: Actor;
  /** The values of the names in the path. */
  at: PlaceOf<Path>;
  input: InputOf<E>;
  query: QueryOf<E>;
  context: APIContext;
}

/** A quote is given whole; what of it is sent is the dispatcher's to say. */
type Given<A> = Exclude<A, QuoteChanges>;

/** For each endpoint of a room what answers it: a service's word, or, where that says too little, a response. */
export type Handlers<Room extends Endpoints> = {
  [Path in keyof Room & string]: (
    asked: Asked<Path, Room[Path]>,
  ) => Promise<Result<Given<AnswerOf<Room[Path]>>> | Response>;
};

/** An endpoint and its handler, as the dispatcher holds them, which cannot know their types. */
export interface Held {
  endpoint: Endpoint;
  handle: (asked: Asked<string, Endpoint>) => Promise<Result<unknown> | Response>;
}

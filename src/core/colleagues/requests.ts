/** What a colleague is asked about a quote: to look at it, or a technical question at one of its lines. */

/** What can be asked. */
export const requestKinds = ['look', 'technical'] as const;
/** What is asked. */
export type RequestKind = (typeof requestKinds)[number];

/** How something that was asked stands: a special part that was offered waits until it is taken, or left. */
export type RequestState = 'open' | 'answered' | 'taken' | 'closed' | 'withdrawn';

/** What of a request tells how it stands. */
export interface RequestStand {
  madeBy: string;
  /** A person, or null where any person of the role is asked. */
  askedOf: string | null;
  role: string | null;
  answered: boolean;
  /** Its special part stands in the build. */
  taken: boolean;
  /** Whoever asked has seen the answer, or no longer wants one. */
  closed: boolean;
}

/** How a request stands. */
export function requestState({ answered, taken, closed }: RequestStand): RequestState {
  if (taken) return 'taken';
  if (closed) return answered ? 'closed' : 'withdrawn';
  return answered ? 'answered' : 'open';
}

/**
 * Whether a person may answer: who is asked, or has the role that is, as long as it is open. Nobody answers their own
 * question, or a cost would be what its asker wishes.
 */
export const answers = (person: { id: string; role: string }, request: RequestStand): boolean =>
  requestState(request) === 'open' &&
  person.id !== request.madeBy &&
  (request.askedOf === null ? request.role === person.role : request.askedOf === person.id);

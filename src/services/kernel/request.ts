/** What a request carries along while it is answered, for whatever is called on its way. */
import { AsyncLocalStorage } from 'node:async_hooks';
import { hurry, noHurry } from './threads/hurry';

/** What is known while a request is answered. */
export interface RequestContext {
  /** Aborted when whoever asked has gone away. */
  signal: AbortSignal;
  /** Who asks. */
  person?: string;
  /** Under which everything is remembered that prices are made from; read once a request. */
  stamp?: string;
}

const current = new AsyncLocalStorage<RequestContext>();

/** Answers a request; while it does, what is done in the background stands still. */
export const duringRequest = <T>(context: RequestContext, work: () => Promise<T>): Promise<T> =>
  current.run(context, async () => {
    hurry();
    try {
      return await work();
    } finally {
      noHurry();
    }
  });

/** Waits for something that is done in the background: nobody need stand still for that. */
export async function patiently<T>(work: () => Promise<T>): Promise<T> {
  if (!current.getStore()) return work();
  noHurry();
  try {
    return await work();
  } finally {
    hurry();
  }
}

/** Tells the request under way who asks, and under which stamp; nothing happens in a command or a test. */
export function requestedBy(person: string, stamp: string): void {
  const context = current.getStore();
  if (context) Object.assign(context, { person, stamp });
}

/** Tells the request under way that it changed what is remembered under its stamp: from here on it reads it anew. */
export function stampPassed(): void {
  const context = current.getStore();
  if (context) delete context.stamp;
}

/** Of the request under way; nothing in a command or a test. */
export const requestContext = (): RequestContext | undefined => current.getStore();

/** What a request carries along while it is answered, for whatever is called on its way. */
import { AsyncLocalStorage } from 'node:async_hooks';

export interface RequestContext {
  /** Aborted when whoever asked has gone away. */
  signal: AbortSignal;
  /** Who asks. */
  person?: string;
  /** Under which everything is remembered that prices are made from; read once a request. */
  stamp?: string;
}

const current = new AsyncLocalStorage<RequestContext>();

export const duringRequest = <T>(context: RequestContext, work: () => Promise<T>): Promise<T> => current.run(context, work);

/** Of the request under way; nothing in a command or a test. */
export const requestContext = (): RequestContext | undefined => current.getStore();

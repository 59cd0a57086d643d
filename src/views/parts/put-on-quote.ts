/** A build onto the quote that it was begun for, as the quote is by now. */
import { ask, type Answer } from '../api';

/** Puts it on as one piece. */
export async function putOnQuote(quote: string, build: string): Promise<Answer<unknown>> {
  const now = await ask('GET /quotes/{id}', { at: { id: quote } });
  return now.ok
    ? ask('POST /builds/{id}/line', { at: { id: build }, input: { version: now.value.version, quantity: 1 } })
    : now;
}

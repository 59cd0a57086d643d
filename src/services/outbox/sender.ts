/** Who writes: a person, in the name of their house. */
import type { Mailbox } from '../../core/sending';
import type { Actor } from '../access/actor';
import { findQuote } from '../quotes/quote-state';
import { senderOf as houseNamed } from '../settings/house';

/** The person who writes about a quote, or about none; a dealer in the name of the dealership. */
export async function senderOf(actor: Actor, quoteId: string | null): Promise<Mailbox> {
  const quote = quoteId === null ? null : await findQuote(actor, quoteId);
  const { name } = await houseNamed(quote?.dealer ?? null);
  return { name: `${actor.name}, ${name}`, address: actor.email };
}

/** The quotation as a PDF, in the customer's language, with the figures of the quote as it stands. */
import type { Actor } from './actor';
import { today } from './clock';
import { done, type Result } from './failure';
import { askPapers } from './papers';
import { seeQuote } from './quotes';

export async function quotation(actor: Actor, id: string, revision?: number): Promise<Result<{ name: string; type: string; bytes: Uint8Array }>> {
  const seen = await seeQuote(actor, id, revision);
  if (!seen.ok) return seen;
  const quote = seen.value;
  return done({ name: `${quote.number}-R${String(quote.revision.number)}.pdf`, type: 'application/pdf', bytes: await askPapers('quotation', { quote, today: today() }) });
}

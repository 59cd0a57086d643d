/** Whom a quote is made out to. */
import type { KnownContact, QuoteContactInput, QuoteView } from '../../contract';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { done, fail, type Result } from '../kernel/failure';
import { addContact } from '../customers/new-customer';
import { changeQuote, findQuote } from './quotes';
import { record } from '../kernel/unit-of-work';

/** Who is known at the customer of a quote, the usual one first. */
export async function knownContacts(actor: Actor, id: string): Promise<Result<KnownContact[]>> {
  const quote = await findQuote(actor, id);
  if (!quote) return fail('missing', { code: 'quote.missing' });
  const rows = await connected().records.contacts.findAll({
    where: { customerId: quote.customerId },
    order: [['position', 'ASC']],
    raw: true,
  });
  return done(rows.map(({ id: contact, name, email, task }) => ({ id: contact, name, email, task })));
}

/** Another person on a quote: a known one, or a new one, whom the customer then has too. */
export async function changeContact(
  actor: Actor,
  id: string,
  { version, from, contact }: QuoteContactInput,
): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async ({ quote, revision }) => {
    const { contacts, revisions } = connected().records;
    const known =
      from === undefined
        ? contact
        : await contacts.findOne({ where: { id: from, customerId: quote.customerId } });
    if (!known) return fail('missing', { code: 'contact.missing' });
    if (contact) await addContact(quote.customerId, contact);
    await revisions.update(
      { customer: { ...revision.customer, contactName: known.name, contactEmail: known.email } },
      { where: { id: revision.id } },
    );
    await record(actor, 'quote.contact', quote.number, { name: known.name });
    return done(null);
  });
}

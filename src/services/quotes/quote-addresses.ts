/** Addresses on a quote. */
import type { Address, KnownAddress, QuoteAddressInput, QuoteView } from '../../contract';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { done, fail, type Result } from '../kernel/failure';
import { addAddress } from '../customers/new-customer';
import { changeQuote, findQuote } from './quotes';
import { record } from '../kernel/unit-of-work';

/** Where the customer of a quote is known to be. */
export async function knownAddresses(actor: Actor, id: string): Promise<Result<KnownAddress[]>> {
  const quote = await findQuote(actor, id);
  if (!quote) return fail('missing', { code: 'quote.missing' });
  const rows = await connected().records.addresses.findAll({
    where: { customerId: quote.customerId },
    order: [
      ['kind', 'DESC'],
      ['position', 'ASC'],
      ['id', 'ASC'],
    ],
    raw: true,
  });
  return done(
    rows.map(({ id: address, kind, street, town, postcode, country }) => ({
      id: address,
      kind,
      street,
      town,
      postcode,
      country,
    })),
  );
}

/**
 * Another address on a quote: a known one, that of the invoice, or a new one, which the customer then has
 * too.
 */
export async function changeAddress(
  actor: Actor,
  id: string,
  { version, kind, from, address }: QuoteAddressInput,
): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async ({ quote, revision }) => {
    const { addresses, revisions } = connected().records;
    const known =
      from === undefined
        ? null
        : await addresses.findOne({ where: { id: from, customerId: quote.customerId } });
    const invoice = revision.customer.addresses.find((each) => each.kind === 'invoice');
    if (from !== undefined && !known) return fail('missing', { code: 'address.missing' });
    const { street, town, postcode, country } = known ??
      address ??
      invoice ?? { street: '', town: '', postcode: '', country: '' };
    if (address) await addAddress(quote.customerId, kind, address);
    const made: Address = { kind, street, town, postcode, country };
    const others = revision.customer.addresses.filter((each) => each.kind !== kind);
    await revisions.update(
      {
        customer: {
          ...revision.customer,
          addresses: kind === 'invoice' ? [made, ...others] : [...others, made],
        },
      },
      { where: { id: revision.id } },
    );
    await record(actor, 'quote.address', quote.number, { kind, street, town, country });
    return done(null);
  });
}

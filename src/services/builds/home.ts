/** Where a build belongs, and what follows from that: for whom it is priced, and whether it may change. */
import type { Context } from '../../core/engine';
import type { CustomerClass, PricedFor, RevisionRow } from '../../data';
import { today } from '../kernel/clock';
import { buyerOf, type QuoteBase } from '../quotes/quote-state';
import type { Buyer } from '../settings/grants';
import { deliveredTo } from '../settings/addressed';

/** A revision of a quote, or a person, who said for whom it is priced. */
export type Home =
  | { of: 'quote'; quote: QuoteBase; revision: RevisionRow }
  | { of: 'person'; ownerId: string; pricedFor: PricedFor; region: string };

/** The columns of a build that say where it belongs. */
export const columnsOf = (home: Home) =>
  home.of === 'quote'
    ? { quoteId: home.quote.id, revisionId: home.revision.id, ownerId: null, pricedFor: null }
    : { quoteId: null, revisionId: null, ownerId: home.ownerId, pricedFor: home.pricedFor };

/** Who buys what is built. */
export function buyerAt(home: Home): Buyer {
  if (home.of === 'quote') return buyerOf(home.quote, home.revision);
  const { customer, priceList } = home.pricedFor;
  return { id: customer?.id ?? null, class: customer?.class ?? null, priceList };
}

/** The name of the customer it is for; none where it is for nobody yet. */
export const customerAt = (home: Home): string | null =>
  home.of === 'quote' ? home.revision.customer.name : (home.pricedFor.customer?.name ?? null);

/** The country that it goes to; the house's own cannot be told from here, and is nobody's. */
export const goesTo = (home: Home): string =>
  home.of === 'quote' ? deliveredTo(home.revision.customer) : '';

/** Whether builds that belong there may be changed. */
export const isOpen = (home: Home): boolean => home.of === 'person' || home.revision.state === 'draft';

/** Under which it is written down what was done with a build. */
export const subjectAt = (home: Home): string => (home.of === 'quote' ? home.quote.number : home.ownerId);

/** What a home fixes for its builds, as of today. */
export const contextAt = (home: Home): Context =>
  home.of === 'quote'
    ? contextFor(home.revision)
    : { date: today(), values: home.region === '' ? {} : { region: home.region } };

/** What a quote fixes for its builds. */
export const contextFor = (revision: Pick<RevisionRow, 'customer'>): Context => ({
  date: today(),
  values: { region: revision.customer.region },
});

/** For whom a build is priced that is for a customer, and no quote yet; of a dealer's customer the dealer buys. */
export const pricedForOf = (
  customer: { id: string; class: CustomerClass; name: string; priceList: string },
  dealer: { id: string; class: CustomerClass } | null,
): PricedFor => ({
  customer: { ...(dealer ?? { id: customer.id, class: customer.class }), name: customer.name },
  priceList: customer.priceList,
});

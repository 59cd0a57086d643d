/** The quotation as a PDF, in the customer's language, with the figures of the quote as it stands. */
import { Op } from 'sequelize';
import type { QuoteView } from '../../contract';
import type { Units } from '../../core/exact';
import { writingIn, type Market } from '../../core/quotes';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import type { DescribedBuild } from '../builds/build-summary';
import { registeredFor } from '../builds/outcome';
import { today } from '../kernel/clock';
import { askEngine } from '../kernel/engines';
import { done, type Result } from '../kernel/failure';
import { marketIn, senderOf } from '../settings/house';
import { invoicedIn } from '../settings/tax';
import { versionById } from '../catalogue/models';
import { askPapers } from '../kernel/papers';
import { findQuote } from '../quotes/quote-state';
import { seeQuote } from '../quotes/quotes';

/** The quotation of a revision as PDF. */
export async function quotation(
  actor: Actor,
  id: string,
  revision?: number,
): Promise<Result<{ name: string; type: string; bytes: Uint8Array }>> {
  const seen = await seeQuote(actor, id, revision);
  if (!seen.ok) return seen;
  const market = await marketIn(invoicedIn(seen.value.customer));
  const quote = writtenFor(seen.value, market);
  const base = await findQuote(actor, id);
  const sender = await senderOf(base?.dealer ?? null);
  return done({
    name: `${quote.number}-R${String(quote.revision.number)}.pdf`,
    type: 'application/pdf',
    bytes: await askPapers('quotation', {
      quote,
      today: today(),
      paper: market.paper,
      sender,
      builds: await describedIn(quote, market.units),
    }),
  });
}

/** A quote for its customer: in their language, with the forms that are usual where they are. */
export const writtenFor = (quote: QuoteView, market: Market): QuoteView => ({
  ...quote,
  customer: { ...quote.customer, language: writingIn(quote.customer.language, market) },
});

/** What was chosen in each build of a quote, by its id, in the units of who reads it. */
export async function describedIn(
  { lines }: QuoteView,
  units: Units,
): Promise<Record<string, DescribedBuild>> {
  const ids = lines.flatMap(({ buildId }) => buildId ?? []);
  if (ids.length === 0) return {};
  const rows = await connected().records.builds.findAll({ where: { id: { [Op.in]: ids } } });
  const asked = await Promise.all(
    rows.map(async ({ modelVersionId: version, outcome }) => {
      const { registered } = await registeredFor(await versionById(version), outcome);
      return { version, values: outcome.values, units, ...(registered ? { registered } : {}) };
    }),
  );
  const described = await askEngine('described', asked);
  return Object.fromEntries(rows.map(({ id }, index) => [id, described[index] ?? { rows: [], inside: [] }]));
}

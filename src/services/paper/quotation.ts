/** The quotation as a PDF, in the customer's language, with the figures of the quote as it stands. */
import { Op } from 'sequelize';
import type { QuoteView } from '../../contract';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import type { DescribedBuild } from '../builds/build-summary';
import { registeredFor } from '../builds/outcome';
import { today } from '../kernel/clock';
import { askEngine } from '../kernel/engines';
import { done, type Result } from '../kernel/failure';
import { senderOf } from '../settings/house';
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
  const quote = seen.value;
  const base = await findQuote(actor, id);
  const sender = await senderOf(base?.dealer ?? null);
  return done({
    name: `${quote.number}-R${String(quote.revision.number)}.pdf`,
    type: 'application/pdf',
    bytes: await askPapers('quotation', { quote, today: today(), sender, builds: await describedIn(quote) }),
  });
}

/** What was chosen in each build of a quote, by its id. */
export async function describedIn({ lines }: QuoteView): Promise<Record<string, DescribedBuild>> {
  const ids = lines.flatMap(({ buildId }) => buildId ?? []);
  if (ids.length === 0) return {};
  const rows = await connected().records.builds.findAll({ where: { id: { [Op.in]: ids } } });
  const asked = await Promise.all(
    rows.map(async ({ modelVersionId: version, outcome }) => {
      const { registered } = await registeredFor(await versionById(version), outcome);
      return { version, values: outcome.values, ...(registered ? { registered } : {}) };
    }),
  );
  const described = await askEngine('described', asked);
  return Object.fromEntries(rows.map(({ id }, index) => [id, described[index] ?? { rows: [], inside: [] }]));
}

/** The quotation as a PDF, in the customer's language, with the figures of the quote as it stands. */
import { Op } from 'sequelize';
import type { QuoteView } from '../contract';
import { connected } from '../data';
import type { Actor } from './actor';
import type { DescribedBuild } from './build-summary';
import { registeredFor } from './builds';
import { today } from './clock';
import { askEngine } from './engines';
import { done, type Result } from './failure';
import { senderOf } from './house';
import { versionById } from './models';
import { askPapers } from './papers';
import { findQuote } from './quote-state';
import { seeQuote } from './quotes';

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

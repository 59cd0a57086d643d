/** What a customer was offered, and paid, for the same item before. */
import { Op } from 'sequelize';
import type { LastPrice } from '../../../contract';
import { connected } from '../../../data';
import type { Actor } from '../../access/actor';
import { today } from '../../kernel/clock';
import { done, fail, type Result } from '../../kernel/failure';
import { findQuote } from '../quotes';
import { isReference } from '../../kernel/reference';

const most = 8;

/**
 * Of a line's item, the same customer's quotes that were sent, lost or accepted, the newest first; this one
 * left out.
 */
export async function lastPrices(actor: Actor, id: string, lineId: string): Promise<Result<LastPrice[]>> {
  const quote = await findQuote(actor, id);
  const { lines, revisions, quotes, priceLists } = connected().records;
  const line = quote && isReference(lineId) ? await lines.findByPk(lineId) : null;
  const own = line && (await revisions.findByPk(line.revisionId));
  if (!quote || !line || own?.quoteId !== id) return fail('missing', { code: 'line.missing' });
  // Whoever may see this quote may see the customer's others: a customer belongs to the house or to one
  // dealer.
  const others = await quotes.findAll({
    where: { customerId: quote.customerId, id: { [Op.ne]: id } },
    raw: true,
  });
  const numbers = new Map(others.map((each) => [each.id, each.number]));
  const settled = await revisions.findAll({
    where: { quoteId: [...numbers.keys()], state: { [Op.ne]: 'draft' } },
    raw: true,
  });
  const byId = new Map(settled.map((revision) => [revision.id, revision]));
  const currencies = new Map((await priceLists.findAll({ raw: true })).map((list) => [list.code, list]));
  const rows = await lines.findAll({
    where: { revisionId: [...byId.keys()], sku: line.sku, frozen: { [Op.not]: null } },
    raw: true,
  });
  const found = rows.flatMap((row): (LastPrice & { at: number })[] => {
    const revision = byId.get(row.revisionId);
    const list = revision && currencies.get(revision.priceList);
    if (!revision || !list || !row.frozen) return [];
    const state = revision.state === 'sent' && revision.validUntil < today() ? 'expired' : revision.state;
    return [
      {
        quoteId: revision.quoteId,
        number: numbers.get(revision.quoteId) ?? '',
        revision: revision.number,
        state,
        on: (revision.settledAt ?? new Date(0)).toISOString(),
        quantity: row.quantity,
        unitList: row.frozen.price.unitList,
        unitNet: row.frozen.price.unitNet,
        currency: list.currency,
        decimals: list.decimals,
        at: revision.settledAt?.getTime() ?? 0,
      },
    ];
  });
  return done(
    found
      .sort((a, b) => b.at - a.at)
      .slice(0, most)
      .map(({ at: _at, ...last }) => last),
  );
}

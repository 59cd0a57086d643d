/** What a quote means for who sells it: the year's quota, and commission. */
import { atTarget, commission, priceQuote, sumLines } from '../core/pricing';
import { exact, fixed, minus, roundHalfUp, textOf } from '../core/exact';
import type { DealView } from '../core/quoting';
import { connected } from '../data';
import { may, type Actor } from './actor';
import { euroRates, quotaOf } from './desk';
import { done, fail, type Result } from './failure';
import { counted, partsOf, priceLines } from './quote-pricing';
import { findQuote, listQuotes } from './quotes';
import { standingOf } from './standing';

/** For the owner, and for those who sign; nothing of it for those who may not see margins. */
export async function seeDeal(actor: Actor, id: string): Promise<Result<DealView>> {
  const quote = await findQuote(actor, id);
  if (!quote) return fail('missing', { code: 'quote.missing' });
  if (!may(actor, 'costs') || (quote.ownerId !== actor.id && !may(actor, 'sign'))) return done({});
  const { users, commissionPlans } = connected().records;
  const owner = await users.findByPk(quote.ownerId);
  const parts = await partsOf(quote);
  const priced = counted(await priceLines(parts));
  const { net } = sumLines(priced.map((each) => each.price), parts.list.decimals);
  const inEuro = await euroRates();
  const quota = owner && (await quotaOf({ ...actor, name: owner.name, role: owner.role }, owner, await listQuotes(actor)));
  const plan = owner && (await commissionPlans.findByPk(owner.role));
  const open = priced.flatMap(({ from }) => (from ? [from] : []));
  const view: DealView = quota ? { quota: { ...quota, adds: inEuro(net, parts.list.currency).toFixed(0) } } : {};
  if (!owner || !plan || open.length < priced.length) return done(view);
  const { limits } = await standingOf(quote, parts.revision, priced);
  const target = priceQuote(atTarget(open, limits, owner.role), { decimals: parts.list.decimals }).totals.net;
  const rates = { baseRate: exact(plan.baseRate).toString(), higherRate: exact(plan.higherRate).toString() };
  const above = exact(net).gt(target) ? textOf(minus(fixed(net), fixed(target))) : '0';
  return done({ ...view, commission: { ...rates, net, target, above, amount: roundHalfUp(exact(commission(net, target, rates)), parts.list.decimals).toString() } });
}

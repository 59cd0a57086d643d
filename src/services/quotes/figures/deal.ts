/** What a quote means for who sells it: the year's quota, and commission. */
import { atTarget, commission, priceQuote, sumLines } from '../../../core/pricing';
import { exact, fixed, minus, roundHalfUp, textOf } from '../../../core/exact';
import type { DealView } from '../../../contract';
import { may, type Actor } from '../../access/actor';
import { signs } from '../../access/deputies';
import { today } from '../../kernel/clock';
import { euroRates, quotaOf } from '../../desk/desk';
import { done, fail, type Result } from '../../kernel/failure';
import { agreementsWith } from '../../settings/grants';
import { buyerOf, findQuote } from '../quote-state';
import { plansOn } from '../../settings/in-force';
import { reference } from '../../settings/reference-data';
import { counted, partsOf, priceLines } from './quote-pricing';
import { standingOf } from '../sign-off/standing';

/**
 * Agreements for everybody who sees the quote; the rest for the owner and those who sign, where they may see
 * margins.
 */
export async function seeDeal(actor: Actor, id: string): Promise<Result<DealView>> {
  const quote = await findQuote(actor, id);
  if (!quote) return fail('missing', { code: 'quote.missing' });
  const parts = await partsOf(quote);
  const all = await priceLines(parts);
  const agreements = await agreementsWith(
    buyerOf(quote, parts.revision),
    today(),
    all.map(({ line, item }) => ({ position: line.position, sku: item.sku, family: item.family })),
  );
  const known = await reference();
  if (!may(actor, 'costs') || (quote.ownerId !== actor.id && !signs(known, actor)))
    return done({ agreements });
  const owner = known.people.get(quote.ownerId);
  const priced = counted(all);
  const { net } = sumLines(
    priced.map((each) => each.price),
    parts.list.decimals,
  );
  const inEuro = await euroRates();
  const quota = owner && (await quotaOf(actor, owner));
  const plan = owner && plansOn(known, today()).find((each) => each.role === owner.role);
  const open = priced.flatMap(({ from }) => (from ? [from] : []));
  const view: DealView = {
    agreements,
    ...(quota ? { quota: { ...quota, adds: inEuro(net, parts.list.currency).toFixed(0) } } : {}),
  };
  if (!owner || !plan || open.length < priced.length) return done(view);
  const { limits } = await standingOf(parts, priced);
  const expected = atTarget(open, limits, owner.role);
  const { lines, totals } = priceQuote(expected, { decimals: parts.list.decimals });
  const target = totals.net;
  const atTargets = lines.map(({ price }, at) => ({
    position: priced[at]?.line.position ?? 0,
    rate: expected[at]?.terms.hand?.value ?? '0',
    net: price.net,
  }));
  const rates = { baseRate: exact(plan.baseRate).toString(), higherRate: exact(plan.higherRate).toString() };
  const above = exact(net).gt(target) ? textOf(minus(fixed(net), fixed(target))) : '0';
  return done({
    ...view,
    commission: {
      ...rates,
      net,
      target,
      above,
      amount: roundHalfUp(exact(commission(net, target, rates)), parts.list.decimals).toString(),
      lines: atTargets,
    },
  });
}

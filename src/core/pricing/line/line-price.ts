/** One line priced by itself, or after the others that it depends on. */
import { exact, fixed, minus, nothing, textOf, type ExactText } from '../../exact';
import type { LinePrice, LineTerms, PricedPart } from '../types';
import { listed, withRates, type Listed, type PriceEntry } from '../list/methods';
import { freightOf, priceOver } from '../quote/quote-formulas';
import type { Offer, PricedLine, PriceProblem, QuoteLine } from '../quote/quote-types';
import { usualMonths } from '../list/part-term';
import { tooShort, type Term } from './recurring';
import type { Typed } from './price-figures';
import { walked } from './walk';
import { chargedOver, toMinor } from './over-term';

/** What a line that depends on the others may ask of them. */
export interface Others {
  /** What an item or a family nets to, of what counts and is not itself a share. */
  netOf: (name: string) => ExactText | undefined;
  /** Of all that counts and is priced by itself. */
  net: ExactText;
  mass: ExactText;
}

/** Whether its price depends on the other lines. */
export const isLate = ({ offer }: QuoteLine): boolean =>
  offer.is === 'item' && (offer.entry?.method === 'share' || offer.entry?.method === 'formula');

/** Its walk, and what keeps it from being sold; before any whole-quote discount, and without margins. */
export function priceLine(line: QuoteLine, decimals: number, others?: Others): PricedLine {
  const { id, offer, terms, recurs } = line;
  const problems: PriceProblem[] = [];
  let price =
    offer.is === 'build'
      ? walked(offer.parts, terms, decimals, offer.cost)
      : itemPrice(line, offer, decimals, problems, others);
  if (offer.is === 'build' && offer.unpriced.length > 0)
    problems.push({ code: 'line.unpriced', params: { items: offer.unpriced.join(', ') } });
  const { hand } = terms;
  if (hand && hand.by !== 'rate' && !price.steps.some((step) => step.kind === 'discount'))
    problems.push({ code: 'line.hand', params: { why: whyNot(hand, price) } });
  const short =
    (price.subscriptions ?? []).length > 0 && offer.is === 'build'
      ? shortestMissed(offer.parts, terms)
      : undefined;
  if (short !== undefined) problems.push({ code: 'line.tooShort', params: { months: short } });
  if (recurs) {
    if (tooShort(recurs.every, recurs.term))
      problems.push({ code: 'line.tooShort', params: { months: recurs.every.leastMonths ?? 0 } });
    price = chargedOver(price, recurs.every, recurs.term, decimals);
  } else if (offer.is === 'item' && !Number.isInteger(terms.quantity)) price = toMinor(price, decimals);
  return { id, price, problems };
}

/** The months that something inside is sold for at least, where its term is shorter. */
function shortestMissed(parts: readonly PricedPart[], { term, day }: LineTerms): number | undefined {
  const missed = parts.flatMap(({ recurs }) => {
    if (!recurs) return [];
    const own: Term =
      recurs.months === undefined
        ? (term ?? { start: day, months: usualMonths(recurs), days: 0 })
        : { start: day, months: recurs.months, days: 0 };
    return tooShort(recurs, own) ? [recurs.leastMonths ?? 0] : [];
  });
  return missed.length > 0 ? Math.max(...missed) : undefined;
}

const whyNot = ({ by, value }: Typed, { unitCost }: LinePrice): 'margin' | 'base' | 'cost' =>
  by !== 'margin'
    ? 'base'
    : unitCost === undefined || exact(unitCost).isZero()
      ? 'cost'
      : exact(value).gte(1)
        ? 'margin'
        : 'base';

function itemPrice(
  { sku, terms }: QuoteLine,
  { name, entry, rates, typed, cost, freight }: Extract<Offer, { is: 'item' }>,
  decimals: number,
  problems: PriceProblem[],
  others?: Others,
): LinePrice {
  const quantity = String(terms.quantity);
  const priced = (by: PriceEntry): Listed =>
    listed(by, {
      quantity,
      ...(cost === undefined ? {} : { cost }),
      ...(typed === undefined ? {} : { typed }),
      ...(others
        ? {
            netOf: others.netOf,
            workOut: (formula) =>
              priceOver(formula, {
                net: others.net,
                mass: others.mass,
                quantity,
                freight: freight ? freightOf(freight, others.mass) : null,
              }),
          }
        : {}),
    });
  const answer = entry && priced(entry);
  if (!answer) problems.push({ code: 'line.unpriced', params: { items: sku } });
  else if (answer.is === 'outside') problems.push({ code: 'line.outside', params: { quantity } });
  else if (answer.is === 'open')
    problems.push(
      answer.wants === 'net'
        ? { code: 'line.wantsNet', params: { name: answer.name ?? '' } }
        : {
            code: ({ cost: 'line.wantsCost', value: 'line.wantsValue', price: 'line.wantsPrice' } as const)[
              answer.wants
            ],
            params: {},
          },
    );
  const got = answer?.is === 'listed' ? answer : undefined;
  const agreed = got && entry && rates ? priced(withRates(entry, rates)) : got;
  const charged = agreed?.is === 'listed' ? agreed : got;
  const per = got?.per ?? 'unit';
  const parts: PricedPart[] = [{ id: sku, kind: 'part', name, item: sku, amount: got?.amount ?? '0' }];
  const apart = got && charged ? minus(fixed(charged.amount), fixed(got.amount)) : nothing;
  if (apart.units !== 0n) parts.push({ id: `${sku}.rates`, kind: 'rates', name, amount: textOf(apart) });
  const costs =
    cost === undefined
      ? undefined
      : { unit: per === 'line' ? exact(cost).times(quantity).toString() : cost, once: '0' };
  const price = walked(parts, terms, decimals, costs, per);
  if (charged?.tiers) price.tiers = charged.tiers;
  if (charged?.least !== undefined) price.least = charged.least;
  return price;
}

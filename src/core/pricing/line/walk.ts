import {
  fixed,
  minus,
  negative,
  nothing,
  ofQuantity,
  plus,
  rounded,
  textOf,
  times,
  type Fixed,
} from '../../exact';
import { countedIn } from '../../model';
import { apartIn, type BuildCost } from './cost';
import { priceFiguresOf } from './price-figures';
import { bestOf, lostTo, offOf, quantityRate, type Grant } from './grants';
import type { LinePrice, LineTerms, PricedPart, RecurringPart, WalkStep } from '../types';
import { termKey, usualMonths } from '../list/part-term';
import { type Term } from './recurring';
import { spreadUnits } from '../quote/spread';
import { chargedOver, spreadOverTime } from './over-term';
import { withMargins } from '../limits/margins';

/**
 * Walks one line from list to net. `parts` is a build's priced parts, or one part for a plain item. What is not
 * counted with each piece is walked by itself, as often as it is counted, on the same terms, and added to the line,
 * and so is what recurs; a price or amount typed by hand is for one piece of the rest and leaves these as they are, and
 * so does a price agreed for it. With `per` line the parts, and the cost of one unit, are for all pieces
 * together.
 */
export const walk = (
  parts: readonly PricedPart[],
  terms: LineTerms,
  decimals: number,
  cost?: BuildCost,
  per: 'unit' | 'line' = 'unit',
): LinePrice => withMargins(walked(parts, terms, decimals, cost, per));

/** As walk, without margins: these are told last, of what is left of a line. */
export function walked(
  parts: readonly PricedPart[],
  terms: LineTerms,
  decimals: number,
  cost?: BuildCost,
  per: 'unit' | 'line' = 'unit',
): LinePrice {
  if (!parts.some((part) => part.recurs)) return walkGrowing(parts, terms, decimals, cost, per);
  const recurring = new Map<string, PricedPart[]>();
  for (const part of parts) {
    if (!part.recurs) continue;
    const key = termKey(part.recurs);
    const alike = recurring.get(key);
    if (alike) alike.push(part);
    else recurring.set(key, [part]);
  }
  const line = walkGrowing(
    parts.filter((part) => !part.recurs),
    terms,
    decimals,
    cost,
    per,
  );
  const subscriptions = [...recurring].map(([key, own]): LinePrice => {
    const { baseMonths, start, months } = own[0]?.recurs as RecurringPart;
    const usual = Math.max(...own.map(({ recurs }) => usualMonths(recurs as RecurringPart)));
    const term: Term = {
      start: start ?? terms.term?.start ?? terms.day,
      months: months ?? terms.term?.months ?? usual,
      days: months === undefined ? (terms.term?.days ?? 0) : 0,
    };
    return chargedOver(
      walkGrowing(
        own,
        withoutMoney(terms),
        decimals,
        cost && (cost.recurring?.[key] ?? { unit: '0', once: '0' }),
      ),
      { baseMonths },
      term,
      decimals,
    );
  });
  return withSubscriptions(line, subscriptions);
}

/** The line with what recurs in it. */
function withSubscriptions(line: LinePrice, subscriptions: LinePrice[]): LinePrice {
  const sum = (own: string, of: (price: LinePrice) => string | undefined): string =>
    textOf(subscriptions.reduce((total, price) => plus(total, fixed(of(price) ?? '0')), fixed(own)));
  const made: LinePrice = {
    ...line,
    list: sum(line.list, ({ list }) => list),
    net: sum(line.net, ({ net }) => net),
    subscriptions,
  };
  if (line.cost !== undefined) made.cost = sum(line.cost, ({ cost }) => cost);
  return made;
}

/** A line as what is due once, and what recurs, each a walked line of its own; together they are the line. */
export function sidesOf(line: LinePrice): LinePrice[] {
  const { subscriptions, ...own } = line;
  if (!subscriptions) return [line];
  const less = (all: string | undefined, of: (price: LinePrice) => string | undefined): string =>
    textOf(subscriptions.reduce((left, price) => minus(left, fixed(of(price) ?? '0')), fixed(all ?? '0')));
  const { margin: _margin, ...rest } = own;
  return [
    {
      ...rest,
      list: less(own.list, ({ list }) => list),
      net: less(own.net, ({ net }) => net),
      ...(own.before === undefined
        ? {}
        : {
            before: less(own.before, ({ before, net }) => before ?? net),
            share: less(own.share, ({ share }) => share),
          }),
      ...(own.cost === undefined ? {} : { cost: less(own.cost, ({ cost }) => cost) }),
    },
    ...subscriptions,
  ];
}

/**
 * On the same terms, but for money that is for one piece: typed on the line, or agreed as a price of its own.
 */
function withoutMoney(terms: LineTerms): LineTerms {
  const { hand, agreements, promotions, ...others } = terms;
  const shares = (grants: readonly Grant[] | undefined) => grants?.filter(({ price }) => price === undefined);
  return {
    ...others,
    ...(agreements ? { agreements: shares(agreements) } : {}),
    ...(promotions ? { promotions: shares(promotions) } : {}),
    ...(hand && (hand.by === 'rate' || hand.by === 'margin') ? { hand } : {}),
  };
}

function walkGrowing(
  parts: readonly PricedPart[],
  terms: LineTerms,
  decimals: number,
  cost?: BuildCost,
  per: 'unit' | 'line' = 'unit',
): LinePrice {
  const each = (part: PricedPart): boolean => part.counts === undefined;
  const apart = cost && apartIn(cost, terms.quantity);
  if (parts.every(each) && (apart === undefined || fixed(apart).units === 0n))
    return walkUnits(parts, terms, decimals, per, cost?.unit);
  const units = walkUnits(parts.filter(each), terms, decimals, per, cost?.unit);
  const { list, net } = walkUnits(
    parts.filter((part) => !each(part)).map((part) => countedPart(part, terms.quantity)),
    { ...withoutMoney(terms), quantity: 1 },
    decimals,
    'unit',
    terms.hand?.by === 'margin' ? apart : undefined,
  );
  const priced: LinePrice = {
    ...units,
    list: textOf(plus(fixed(units.list), fixed(list))),
    net: textOf(plus(fixed(units.net), fixed(net))),
    once: { list, net },
  };
  return units.cost === undefined || apart === undefined
    ? priced
    : {
        ...priced,
        once: { list, net, cost: apart },
        cost: textOf(plus(fixed(units.cost), fixed(apart))),
      };
}

/** A part as often as it is counted in the line. */
function countedPart(part: PricedPart, pieces: number): PricedPart {
  const counted = countedIn(part.counts, pieces);
  return counted === 1 ? part : { ...part, amount: textOf(times(fixed(part.amount), ofQuantity(counted))) };
}

/** The steps of one unit, as they are taken. */
class Steps {
  readonly taken: WalkStep[] = [];
  total = nothing;
  /** The total, written out. */
  text = '0';

  // One shape for all steps, which is made at once: of a thousand lines there are many.
  take(
    kind: WalkStep['kind'],
    amount: Fixed,
    name?: WalkStep['name'],
    rate?: string,
    typed?: WalkStep['typed'],
    lost?: WalkStep['lost'],
  ): void {
    const before = this.total.units;
    this.total = plus(this.total, amount);
    const text = textOf(amount);
    this.text = before === 0n ? text : textOf(this.total);
    this.taken.push({ kind, name, rate, typed, lost, amount: text, total: this.text });
  }

  share(rate: string): Fixed {
    return negative(times(this.total, fixed(rate)));
  }

  grant(kind: 'agreement' | 'promotion', grants: readonly Grant[] | undefined, day: string): void {
    if (!grants || grants.length === 0) return;
    const best = bestOf(this.total, grants, day);
    const won = grants[best];
    const lost =
      grants.length === 1 && won
        ? undefined
        : lostTo(best, this.total, grants, day, ({ name }, why, off) => ({ name, why, off }));
    if (won) this.take(kind, negative(offOf(won, this.total)), won.name, won.rate, undefined, lost);
    else this.take(kind, nothing, undefined, undefined, undefined, lost);
  }
}

function walkUnits(
  parts: readonly PricedPart[],
  terms: LineTerms,
  decimals: number,
  per: 'unit' | 'line',
  unitCost?: string,
): LinePrice {
  const steps = new Steps();
  let listed = nothing;
  for (const part of parts)
    if (part.kind === 'part' || part.kind === 'option') listed = plus(listed, fixed(part.amount));
  steps.take('list', listed);
  for (const part of parts)
    if (part.kind === 'inside') steps.take('inside', fixed(part.amount), part.name, part.rate);
  for (const part of parts)
    if (part.kind === 'surcharge') steps.take('surcharge', fixed(part.amount), part.name, part.rate);
  const { total: unitList, text: unitListText } = steps;
  for (const part of parts) if (part.kind === 'rates') steps.take('rates', fixed(part.amount));
  const { quantity, quantityDiscount, hand, day } = terms;
  // A price of its own is for one piece.
  const whole = (grants: readonly Grant[] | undefined) =>
    per === 'line'
      ? grants?.map((grant) =>
          grant.price === undefined
            ? grant
            : { ...grant, price: textOf(times(fixed(grant.price), ofQuantity(quantity))) },
        )
      : grants;
  steps.grant('agreement', whole(terms.agreements), day);
  if (quantityDiscount) {
    const rate = quantityRate(quantityDiscount, String(quantity));
    if (fixed(rate).units !== 0n) steps.take('quantity', steps.share(rate), quantityDiscount.name, rate);
  }
  steps.grant('promotion', whole(terms.promotions), day);
  // A share is taken unrounded and rounded with the rest.
  if (hand?.by === 'rate') {
    if (fixed(hand.value).units !== 0n)
      steps.take('discount', steps.share(hand.value), undefined, hand.value, hand);
  } else if (hand) {
    const answer = priceFiguresOf(steps.text, hand, decimals, unitCost);
    if (answer.is === 'figures')
      steps.take(
        'discount',
        minus(fixed(answer.figures.net), steps.total),
        undefined,
        answer.figures.rate,
        hand,
      );
  }
  const unitNet = rounded(steps.total, decimals);
  const rounding = minus(unitNet, steps.total);
  if (rounding.units !== 0n) steps.take('rounding', rounding);

  const pieces = per === 'line' ? 1 : quantity;
  const inAll = (value: Fixed, text: string): string =>
    pieces === 1 ? text : textOf(times(value, ofQuantity(pieces)));
  const [list, net, line] = [
    inAll(unitList, unitListText),
    inAll(unitNet, steps.text),
    per === 'line' ? per : undefined,
  ];
  // All that a line may tell is there from the start, written out: copies with more in them are then quick to
  // make. Costs are not even named where they are not known.
  if (unitCost === undefined)
    return {
      steps: steps.taken,
      per: line,
      tiers: undefined,
      least: undefined,
      unitList: unitListText,
      unitNet: steps.text,
      list,
      before: undefined,
      share: undefined,
      net,
      once: undefined,
      recurring: undefined,
      subscriptions: undefined,
    };
  // Costs are written as they were typed, 0.00 too; a line tells every amount in one way.
  const costOfOne = fixed(unitCost);
  const unitCostText = textOf(costOfOne);
  return {
    steps: steps.taken,
    per: line,
    tiers: undefined,
    least: undefined,
    unitList: unitListText,
    unitNet: steps.text,
    list,
    before: undefined,
    share: undefined,
    net,
    once: undefined,
    recurring: undefined,
    subscriptions: undefined,
    unitCost: unitCostText,
    cost: inAll(costOfOne, unitCostText),
    margin: undefined,
  };
}

/** The line with its share of the whole-quote discount taken off, in minor units, without margins. */
export function withShare(line: LinePrice, share: bigint, decimals: number): LinePrice {
  if (share === 0n) return line;
  const taken: Fixed = { units: share, scale: decimals };
  const net = minus(fixed(line.net), taken);
  const made: LinePrice = { ...line, before: line.net, share: textOf(taken), net: textOf(net) };
  if (line.subscriptions) {
    const nets = line.subscriptions.map((each) => fixed(each.net));
    const parts = spreadUnits(share, [nets.reduce(minus, fixed(line.net)), ...nets]);
    made.subscriptions = line.subscriptions.map((each, index) =>
      withShare(each, parts[index + 1] ?? 0n, decimals),
    );
  }
  if (line.recurring)
    made.recurring = {
      ...line.recurring,
      ...spreadOverTime(
        net,
        { start: line.recurring.from, months: line.recurring.months, days: line.recurring.days },
        decimals,
      ),
    };
  return made;
}

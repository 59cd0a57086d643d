import { fixed, minus, negative, nothing, ofWhole, plus, ratio, rounded, textOf, times, unitsAt, type Fixed } from '../exact';
import type { BuildCost } from './cost';
import { fourOf } from './four';
import { chooseGrant, quantityRate, type Grant } from './grants';
import type { LinePrice, LineTerms, PricedPart, RecurringPart, WalkStep } from './index';
import { termKey, usualMonths } from './part-term';
import { beginningOf, lastDay, monthsIn, type Recurrence, type Term } from './recurring';
import { spreadUnits } from './spread';

/**
 * Walks one line from list to net. `parts` is a build's priced parts, or one part for a plain item. What does not grow with the
 * quantity is walked by itself, once, on the same terms, and added to the line, and so is what recurs; a price or amount typed by hand is
 * for one piece of the rest and leaves these as they are. With `per` line the parts, and the cost of one unit, are for all pieces together.
 */
export function walk(parts: readonly PricedPart[], terms: LineTerms, decimals: number, cost?: BuildCost, per: 'unit' | 'line' = 'unit'): LinePrice {
  if (parts.every((part) => part.recurs === undefined)) return walkGrowing(parts, terms, decimals, cost, per);
  const recurring = new Map<string, PricedPart[]>();
  for (const part of parts) if (part.recurs) recurring.set(termKey(part.recurs), [...(recurring.get(termKey(part.recurs)) ?? []), part]);
  const line = walkGrowing(parts.filter((part) => !part.recurs), terms, decimals, cost, per);
  const subscriptions = [...recurring].map(([key, own]): LinePrice => {
    const { baseMonths, start, months } = own[0]?.recurs as RecurringPart;
    const usual = Math.max(...own.map(({ recurs }) => usualMonths(recurs as RecurringPart)));
    const term: Term = { start: start ?? terms.term?.start ?? terms.day, months: months ?? terms.term?.months ?? usual, days: months === undefined ? (terms.term?.days ?? 0) : 0 };
    return overTerm(walkGrowing(own, withoutMoney(terms), decimals, cost && (cost.recurring?.[key] ?? { unit: '0', once: '0' })), { baseMonths }, term, decimals);
  });
  return withSubscriptions(line, subscriptions);
}

/** The line with what recurs in it. */
function withSubscriptions(line: LinePrice, subscriptions: LinePrice[]): LinePrice {
  const all = [line, ...subscriptions];
  const sum = (of: (price: LinePrice) => string | undefined): Fixed => all.reduce((total, price) => plus(total, fixed(of(price) ?? '0')), nothing);
  const net = sum((price) => price.net);
  const { margin: _margin, ...rest } = line;
  const made: LinePrice = { ...rest, list: textOf(sum(({ list }) => list)), net: textOf(net), subscriptions };
  if (line.cost === undefined) return made;
  const cost = sum((price) => price.cost);
  return { ...made, cost: textOf(cost), ...marginFrom(net, cost) };
}

/** A line as what is due once, and what recurs, each a walked line of its own; together they are the line. */
export function sidesOf(line: LinePrice): LinePrice[] {
  const { subscriptions, ...own } = line;
  if (!subscriptions) return [line];
  const less = (all: string | undefined, of: (price: LinePrice) => string | undefined): string => textOf(subscriptions.reduce((left, price) => minus(left, fixed(of(price) ?? '0')), fixed(all ?? '0')));
  const { margin: _margin, ...rest } = own;
  return [
    {
      ...rest, list: less(own.list, ({ list }) => list), net: less(own.net, ({ net }) => net),
      ...(own.before === undefined ? {} : { before: less(own.before, ({ before, net }) => before ?? net), share: less(own.share, ({ share }) => share) }),
      ...(own.cost === undefined ? {} : { cost: less(own.cost, ({ cost }) => cost) }),
    },
    ...subscriptions,
  ];
}

/** On the same terms, but for money typed for one piece. */
function withoutMoney(terms: LineTerms): LineTerms {
  const { hand, ...others } = terms;
  return hand && (hand.by === 'rate' || hand.by === 'margin') ? terms : others;
}

function walkGrowing(parts: readonly PricedPart[], terms: LineTerms, decimals: number, cost?: BuildCost, per: 'unit' | 'line' = 'unit'): LinePrice {
  const once = parts.filter((part) => part.grows !== undefined);
  if (once.length === 0 && (cost === undefined || fixed(cost.once).units === 0n)) return walkUnits(parts, terms, decimals, per, cost?.unit);
  const units = walkUnits(parts.filter((part) => part.grows === undefined), terms, decimals, per, cost?.unit);
  const { list, net } = walkUnits(once, { ...withoutMoney(terms), quantity: 1 }, decimals, 'unit', terms.hand?.by === 'margin' ? cost?.once : undefined);
  const netSum = plus(fixed(units.net), fixed(net));
  const priced = { ...units, list: textOf(plus(fixed(units.list), fixed(list))), net: textOf(netSum), once: { list, net } };
  if (units.cost === undefined || cost === undefined) return priced;
  const costs = plus(fixed(units.cost), fixed(cost.once));
  const { margin: _margin, ...rest } = priced;
  return { ...rest, once: { list, net, cost: cost.once }, cost: textOf(costs), ...marginFrom(netSum, costs) };
}

const marginFrom = (net: Fixed, cost: Fixed): { margin?: string } => (net.units === 0n ? {} : { margin: ratio(minus(net, cost), net) });

function walkUnits(parts: readonly PricedPart[], terms: LineTerms, decimals: number, per: 'unit' | 'line', unitCost?: string): LinePrice {
  const steps: WalkStep[] = [];
  let total = nothing;
  const step = (kind: WalkStep['kind'], amount: Fixed, more?: Partial<WalkStep>): void => {
    total = plus(total, amount);
    const made = { kind, amount: textOf(amount), total: textOf(total) };
    steps.push(more ? Object.assign(made, more) : made);
  };
  const share = (rate: string): Fixed => negative(times(total, fixed(rate)));
  step('list', parts.reduce((sum, part) => (part.kind === 'part' || part.kind === 'option' ? plus(sum, fixed(part.amount)) : sum), nothing));
  for (const kind of ['inside', 'surcharge'] as const) {
    for (const part of parts) if (part.kind === kind) step(kind, fixed(part.amount), { name: part.name, ...(part.rate ? { rate: part.rate } : {}) });
  }
  const unitList = total;
  for (const part of parts) if (part.kind === 'rates') step('rates', fixed(part.amount));
  const pieces = per === 'line' ? 1 : terms.quantity;
  const granted = (kind: 'agreement' | 'promotion', grants: readonly Grant[] | undefined): void => {
    if (!grants || grants.length === 0) return;
    // A price of its own is for one piece.
    const whole = per === 'line' ? grants.map((grant) => (grant.price === undefined ? grant : { ...grant, price: textOf(times(fixed(grant.price), ofWhole(terms.quantity))) })) : grants;
    const { won, lost } = chooseGrant(textOf(total), whole, terms.day);
    const others = lost.length === 0 ? {} : { lost: lost.map(({ grant, why, off }) => ({ name: grant.name, why, off })) };
    if (won) step(kind, negative(fixed(won.off)), { name: won.grant.name, ...(won.grant.rate === undefined ? {} : { rate: won.grant.rate }), ...others });
    else step(kind, nothing, others);
  };
  granted('agreement', terms.agreements);
  if (terms.quantityDiscount) {
    const rate = quantityRate(terms.quantityDiscount, String(terms.quantity));
    if (fixed(rate).units !== 0n) step('quantity', share(rate), { rate, name: terms.quantityDiscount.name });
  }
  granted('promotion', terms.promotions);
  const { hand } = terms;
  // A share is taken unrounded and rounded with the rest.
  if (hand?.by === 'rate' && fixed(hand.value).units !== 0n) step('discount', share(hand.value), { rate: hand.value, typed: hand });
  if (hand && hand.by !== 'rate') {
    const answer = fourOf(textOf(total), hand, decimals, unitCost);
    if (answer.is === 'four') step('discount', minus(fixed(answer.four.net), total), { rate: answer.four.rate, typed: hand });
  }
  const unitNet = rounded(total, decimals);
  const rounding = minus(unitNet, total);
  if (rounding.units !== 0n) step('rounding', rounding);

  const inAll = (value: Fixed): Fixed => (pieces === 1 ? value : times(value, ofWhole(pieces)));
  const net = inAll(unitNet);
  const price: LinePrice = { steps, ...(per === 'line' ? { per } : {}), unitList: textOf(unitList), unitNet: textOf(unitNet), list: textOf(inAll(unitList)), net: textOf(net) };
  if (unitCost === undefined) return price;
  const cost = inAll(fixed(unitCost));
  return { ...price, unitCost, cost: textOf(cost), ...marginFrom(net, cost) };
}

/** A walked line over a term: its unit figures are for the base period, its sums for the whole term, each to the minor unit. */
export function overTerm(line: LinePrice, every: Recurrence, term: Term, decimals: number): LinePrice {
  const months = monthsIn(term);
  const [above, below] = [ofWhole(months.times), ofWhole(months.per * every.baseMonths)];
  const charged = (amount: string): Fixed => rounded(fixed(ratio(times(fixed(amount), above), below)), decimals);
  const net = charged(line.net);
  const cost = line.cost === undefined ? undefined : charged(line.cost);
  return {
    ...line,
    list: textOf(charged(line.list)),
    net: textOf(net),
    ...(cost === undefined ? {} : { cost: textOf(cost), ...marginFrom(net, cost) }),
    recurring: { baseMonths: every.baseMonths, from: term.start, to: lastDay(term), months: term.months, days: term.days, ...spreadOverTime(net, term, decimals) },
  };
}

/** What a net over a term comes to by the month and in its first year. */
function spreadOverTime(net: Fixed, term: Term, decimals: number): { perMonth: string; firstYear: string } {
  const all = monthsIn(term);
  const over = (part: { times: number; per: number }): string => (all.times === 0 ? '0' : textOf(rounded(fixed(ratio(times(net, ofWhole(part.times * all.per)), ofWhole(part.per * all.times))), decimals)));
  return { perMonth: over({ times: 1, per: 1 }), firstYear: over(monthsIn(beginningOf(term, 12))) };
}

/** The line with its share of the whole-quote discount taken off. */
export function withShare(line: LinePrice, share: string, decimals: number): LinePrice {
  if (share === '0') return line;
  const net = minus(fixed(line.net), fixed(share));
  const made: LinePrice = { ...line, before: line.net, share, net: textOf(net) };
  if (line.cost !== undefined) {
    if (net.units === 0n) delete made.margin;
    else made.margin = ratio(minus(net, fixed(line.cost)), net);
  }
  if (line.subscriptions) {
    const nets = line.subscriptions.map((each) => fixed(each.net));
    const parts = spreadUnits(unitsAt(fixed(share), decimals), [nets.reduce(minus, fixed(line.net)), ...nets]);
    made.subscriptions = line.subscriptions.map((each, index) => withShare(each, textOf({ units: parts[index + 1] ?? 0n, scale: decimals }), decimals));
  }
  if (line.recurring) made.recurring = { ...line.recurring, ...spreadOverTime(net, { start: line.recurring.from, months: line.recurring.months, days: line.recurring.days }, decimals) };
  return made;
}

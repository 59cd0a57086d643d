/** A whole quote: every line walked, what is a share of others after them, and the whole-quote discount over all that may be discounted. */
import { compare, exact, fixed, minus, nothing, ofWhole, plus, ratio, rounded, Sum, textOf, times, type ExactText, type Fixed } from '../exact';
import type { Texts } from '../model';
import type { BuildCost } from './cost';
import type { Typed } from './four';
import type { LinePrice, LineTerms, PricedPart } from './index';
import { listed, withRates, type Listed, type LineRates, type PriceEntry } from './methods';
import { priceOver } from './over-quote';
import { tooShort, usualMonths, type Recurrence, type Term } from './recurring';
import { spread } from './spread';
import type { Taxed } from './tax';
import { amountsOf, sumAmounts, type Amounts, type Totals } from './totals';
import { overTerm, walk, withShare } from './walk';

/** What a line sells: the priced parts of a build, or an item by its entry in the price list. */
export type Offer =
  | { is: 'build'; parts: readonly PricedPart[]; unpriced: readonly string[]; cost?: BuildCost }
  | {
      is: 'item';
      name: Texts;
      /** Absent where the list has none: the item cannot be sold on it. */
      entry?: PriceEntry;
      /** Agreed on the line instead of the entry's. */
      rates?: LineRates;
      /** Typed on the line, for one piece. */
      typed?: ExactText;
      /** Of one piece, in the currency of the list. */
      cost?: ExactText;
    };

/** A line as it is kept. Lines never change: an edited line is another object, so that what was worked out for the others still holds. */
export interface QuoteLine {
  id: string;
  sku: string;
  family: string;
  /** In the totals; an optional or alternative line is not. */
  counts: boolean;
  /** Left as it is by the whole-quote discount. */
  locked: boolean;
  /** Its item may be discounted at all. */
  discountable: boolean;
  offer: Offer;
  terms: LineTerms;
  recurs?: { every: Recurrence; term: Term };
  /** Of one piece, in kg, where it is known. */
  mass?: ExactText;
}

export interface QuoteTerms {
  decimals: number;
  /** Typed for the whole quote. */
  whole?: Typed;
}

/** Why a line cannot be sold, or what was typed cannot be. */
export type PriceProblem =
  | { code: 'line.unpriced'; params: { items: string } }
  | { code: 'line.wantsPrice' | 'line.wantsCost' | 'line.wantsValue'; params: Record<string, never> }
  | { code: 'line.wantsNet'; params: { name: string } }
  | { code: 'line.outside'; params: { quantity: string } }
  | { code: 'line.tooShort'; params: { months: number } }
  | { code: 'line.hand'; params: { why: 'margin' | 'base' | 'cost' } };

export interface PricedLine {
  id: string;
  price: LinePrice;
  problems: PriceProblem[];
}

/** The whole-quote discount said in all four ways, or why it cannot be. */
export type Whole =
  | {
      is: 'spread';
      /** Net of what may be discounted, before it. */
      base: ExactText;
      /** Share of the base. */
      rate: ExactText;
      amount: ExactText;
      /** Of all that counts. */
      net: ExactText;
      margin?: ExactText;
    }
  | { is: 'impossible'; why: 'margin' | 'base' | 'cost' };

export interface PricedQuote {
  /** In the order given. */
  lines: PricedLine[];
  totals: Totals;
  /** Also where nothing is typed: then nothing is taken off. */
  whole: Whole;
  /** Where the rates of the country are known. */
  tax?: Taxed;
}

/** A line as it was worked out, alone and with its share of the whole-quote discount. */
interface Kept {
  line: QuoteLine;
  decimals: number;
  alone: PricedLine;
  amounts: Amounts;
  share: ExactText;
  shared: PricedLine;
  sharedAmounts: Amounts;
}

/** Prices a quote. The order of the lines makes no difference. */
export const priceQuote = (lines: readonly QuoteLine[], terms: QuoteTerms): PricedQuote => pricer()(lines, terms);

/** Prices a quote again and again, and works out anew only what has changed since the last time. */
export function pricer(): (lines: readonly QuoteLine[], terms: QuoteTerms) => PricedQuote {
  const kept = new Map<string, Kept>();
  return (lines, terms) => {
    const { decimals } = terms;
    const isLate = ({ offer }: QuoteLine): boolean => offer.is === 'item' && (offer.entry?.method === 'share' || offer.entry?.method === 'formula');
    const keep = (line: QuoteLine, others?: Others): Kept => {
      const had = kept.get(line.id);
      if (had && had.line === line && had.decimals === decimals && !others) return had;
      const alone = pricedNow(line, decimals, others);
      const amounts = amountsOf(alone.price);
      return { line, decimals, alone, amounts, share: '0', shared: alone, sharedAmounts: amounts };
    };
    const first = lines.map((line) => (isLate(line) ? null : keep(line)));
    const all = first.includes(null) ? withOthers(first, lines, keep) : (first as Kept[]);
    const { whole, shares } = spreadWhole(all, terms);
    for (const [index, each] of all.entries()) lessShare(each, shares[index] ?? '0');
    // Mostly the lines are those of the last time, but for one.
    if (kept.size > all.length || all.some((each) => !kept.has(each.line.id))) kept.clear();
    for (const each of all) if (kept.get(each.line.id) !== each) kept.set(each.line.id, each);
    return { lines: all.map((each) => each.shared), totals: sumAmounts(all.filter((each) => each.line.counts).map((each) => each.sharedAmounts), decimals), whole };
  };
}

/** With what depends on the others, now that these are known. */
function withOthers(first: readonly (Kept | null)[], lines: readonly QuoteLine[], keep: (line: QuoteLine, others: Others) => Kept): Kept[] {
  const others = othersOf(first);
  return first.map((each, index) => each ?? keep(lines[index] as QuoteLine, others));
}

/** The line less its share, which is mostly what it was before another line changed. */
function lessShare(kept: Kept, share: ExactText): void {
  if (share === kept.share) return;
  kept.share = share;
  kept.shared = share === '0' ? kept.alone : { ...kept.alone, price: withShare(kept.alone.price, share, kept.decimals) };
  kept.sharedAmounts = share === '0' ? kept.amounts : amountsOf(kept.shared.price);
}

type NetOf = (name: string) => ExactText | undefined;

/** What a line that depends on the others may ask of them. */
interface Others {
  netOf: NetOf;
  /** Of all that counts and is priced by itself. */
  net: ExactText;
  mass: ExactText;
}

function othersOf(first: readonly (Kept | null)[]): Others {
  let [net, mass] = [nothing, nothing];
  for (const each of first) {
    if (!each?.line.counts) continue;
    net = plus(net, each.amounts.net);
    if (each.line.mass !== undefined) mass = plus(mass, times(fixed(each.line.mass), ofWhole(each.line.terms.quantity)));
  }
  return { netOf: netsBefore(first), net: textOf(net), mass: textOf(mass) };
}

/** What an item or a family nets to, of what counts and is not itself a share. */
function netsBefore(all: readonly (Kept | null)[]): NetOf {
  return (name) => {
    let sum: Fixed | undefined;
    for (const each of all) {
      if (each?.line.counts && (each.line.sku === name || each.line.family === name)) sum = plus(sum ?? nothing, each.amounts.net);
    }
    return sum && textOf(sum);
  };
}

function pricedNow(line: QuoteLine, decimals: number, others?: Others): PricedLine {
  const { id, offer, terms, recurs } = line;
  const problems: PriceProblem[] = [];
  let price = offer.is === 'build' ? walk(offer.parts, terms, decimals, offer.cost) : itemPrice(line, offer, decimals, problems, others);
  if (offer.is === 'build' && offer.unpriced.length > 0) problems.push({ code: 'line.unpriced', params: { items: offer.unpriced.join(', ') } });
  const { hand } = terms;
  if (hand && hand.by !== 'rate' && !price.steps.some((step) => step.kind === 'discount')) problems.push({ code: 'line.hand', params: { why: whyNot(hand, price) } });
  const short = (price.subscriptions ?? []).length > 0 && offer.is === 'build' ? shortestMissed(offer.parts, terms) : undefined;
  if (short !== undefined) problems.push({ code: 'line.tooShort', params: { months: short } });
  if (recurs) {
    if (tooShort(recurs.every, recurs.term)) problems.push({ code: 'line.tooShort', params: { months: recurs.every.leastMonths ?? 0 } });
    price = overTerm(price, recurs.every, recurs.term, decimals);
  }
  return { id, price, problems };
}

/** The months that something inside is sold for at least, where its term is shorter. */
function shortestMissed(parts: readonly PricedPart[], { term, day }: LineTerms): number | undefined {
  const missed = parts.flatMap(({ recurs }) => {
    if (!recurs) return [];
    const own: Term = recurs.months === undefined ? (term ?? { start: day, months: usualMonths(recurs), days: 0 }) : { start: day, months: recurs.months, days: 0 };
    return tooShort(recurs, own) ? [recurs.leastMonths ?? 0] : [];
  });
  return missed.length > 0 ? Math.max(...missed) : undefined;
}

const whyNot = ({ by, value }: Typed, { unitCost }: LinePrice): 'margin' | 'base' | 'cost' => (by !== 'margin' ? 'base' : unitCost === undefined ? 'cost' : exact(value).gte(1) ? 'margin' : 'base');

function itemPrice({ sku, terms }: QuoteLine, { name, entry, rates, typed, cost }: Extract<Offer, { is: 'item' }>, decimals: number, problems: PriceProblem[], others?: Others): LinePrice {
  const quantity = String(terms.quantity);
  const priced = (by: PriceEntry): Listed => listed(by, { quantity, ...(cost === undefined ? {} : { cost }), ...(typed === undefined ? {} : { typed }), ...(others ? { netOf: others.netOf, workOut: (formula) => priceOver(formula, { net: others.net, mass: others.mass, quantity }) } : {}) });
  const answer = entry && priced(entry);
  if (!answer) problems.push({ code: 'line.unpriced', params: { items: sku } });
  else if (answer.is === 'outside') problems.push({ code: 'line.outside', params: { quantity } });
  else if (answer.is === 'open') problems.push(answer.wants === 'net' ? { code: 'line.wantsNet', params: { name: answer.name ?? '' } } : { code: ({ cost: 'line.wantsCost', value: 'line.wantsValue', price: 'line.wantsPrice' } as const)[answer.wants], params: {} });
  const got = answer?.is === 'listed' ? answer : undefined;
  const agreed = got && entry && rates ? priced(withRates(entry, rates)) : got;
  const charged = agreed?.is === 'listed' ? agreed : got;
  const per = got?.per ?? 'unit';
  const parts: PricedPart[] = [{ id: sku, kind: 'part', name, item: sku, amount: got?.amount ?? '0' }];
  const apart = got && charged ? minus(fixed(charged.amount), fixed(got.amount)) : nothing;
  if (apart.units !== 0n) parts.push({ id: `${sku}.rates`, kind: 'rates', name, amount: textOf(apart) });
  const costs = cost === undefined ? undefined : { unit: per === 'line' ? exact(cost).times(quantity).toString() : cost, once: '0' };
  const price = walk(parts, terms, decimals, costs, per);
  return { ...price, ...(charged?.stretches ? { stretches: charged.stretches } : {}), ...(charged?.least === undefined ? {} : { least: charged.least }) };
}

function spreadWhole(all: readonly Kept[], { whole: typed, decimals }: QuoteTerms): { whole: Whole; shares: (ExactText | undefined)[] } {
  const [totals, bases, costs] = [new Sum(), new Sum(), new Sum()];
  let costed = true;
  const open: number[] = [];
  for (const [index, { line, amounts }] of all.entries()) {
    if (!line.counts) continue;
    totals.add(amounts.net);
    if (amounts.cost) costs.add(amounts.cost);
    else costed = false;
    if (line.locked || !line.discountable) continue;
    bases.add(amounts.net);
    open.push(index);
  }
  const [total, base, cost] = [totals.value, bases.value, costed ? costs.value : undefined];
  const answer = (amount: Fixed, rate?: ExactText): Whole => {
    const net = minus(total, amount);
    return {
      is: 'spread', base: textOf(base), rate: rate ?? (base.units === 0n ? '0' : exact(textOf(amount)).div(textOf(base)).toString()), amount: textOf(amount), net: textOf(net),
      ...(cost === undefined || net.units === 0n ? {} : { margin: ratio(minus(net, cost), net) }),
    };
  };
  if (!typed) return { whole: answer(nothing), shares: [] };
  const wanted = amountOf(typed, total, base, cost);
  if (typeof wanted === 'string') return { whole: { is: 'impossible', why: wanted }, shares: [] };
  const amount = rounded(wanted, decimals);
  if (compare(amount, base) > 0 || (base.units === 0n && amount.units !== 0n)) return { whole: { is: 'impossible', why: 'base' }, shares: [] };
  const spreadOver = open.map((index) => all[index] as Kept);
  // Among lines that lost the same by rounding the id decides, so that moving lines moves no cent.
  const parts = spread(textOf(amount), spreadOver.map(({ amounts }) => amounts.net), decimals, spreadOver.map(({ line }) => line.id));
  const shares: (ExactText | undefined)[] = [];
  for (const [place, index] of open.entries()) shares[index] = parts[place];
  return { whole: answer(amount, typed.by === 'rate' ? typed.value : undefined), shares };
}

function amountOf({ by, value }: Typed, total: Fixed, base: Fixed, cost: Fixed | undefined): Fixed | 'margin' | 'cost' {
  switch (by) {
    case 'rate':
      return times(base, fixed(value));
    case 'amount':
      return fixed(value);
    case 'net':
      return minus(total, fixed(value));
    case 'margin':
      if (cost === undefined) return 'cost';
      return exact(value).gte(1) ? 'margin' : fixed(exact(textOf(total)).minus(exact(textOf(cost)).div(exact(1).minus(value))).toString());
  }
}

/** The list price of a build as a weighted sum of formulas, for looking for the cheapest one. */
import { type Exact, exact, type ExactText } from '../../exact';
import { formulaOf, type Expr, type Formula } from '../../formula';
import { countingKey, seenFromOutside, type CompiledModel, type Counting, type Pick } from '../../model';
import { formulaIn } from './build-entry';
import type { Tariff } from '../types';
import type { PriceEntry } from './methods';
import { usualMonths } from './part-term';
import type { Recurrence } from '../line/recurring';

/** A formula times a weight. */
export interface PriceTerm {
  formula: Formula;
  weight: string;
}

/**
 * Something priced: how many of it, where nothing speaks against it, or what they come to at a price of 1.
 */
interface Priced {
  id: string;
  item: string;
  place?: string;
  counts?: Counting;
  recurs?: true;
  /** How many, where it is not the quantity; of what recurs times its periods. */
  pieces: Expr;
  quantity: Expr;
  price: Exact;
}

const literal = (value: Exact | string | boolean | null): Expr => ({ kind: 'literal', value, at: 0 });
const one = exact(1);
const nothing = literal(exact(0));
const calculated = (op: '+' | '-' | '*' | '/', left: Expr, right: Expr): Expr => ({
  kind: 'arithmetic',
  op,
  left,
  right,
  at: 0,
});
const atLeast = (value: Expr, border: ExactText): Expr => ({
  kind: 'compare',
  op: '>=',
  left: value,
  right: literal(exact(border)),
  at: 0,
});

/**
 * Terms whose weighted sum is the list price of every complete build of the model, builds inside among them;
 * what cannot be sold in it counts for nothing. They are those of one piece, so that whatever is counted counts once.
 */
export function priceTerms(model: CompiledModel, tariff: Tariff): PriceTerm[] {
  const priced = pricedIn(model, tariff);
  const terms = priced.map(({ quantity, price }) => ({ expr: quantity, weight: price }));
  const { document, formulas } = model;
  const share = (meant: readonly Priced[], path: string, sign: Exact): void => {
    const rate = formulas.get(`${path}.rate`)?.expr;
    const when = formulas.get(`${path}.when`)?.expr;
    if (!rate) return;
    for (const { quantity, price } of meant)
      terms.push({ expr: given(when, calculated('*', rate, quantity)), weight: price.times(sign) });
  };
  for (const { id, of } of document.insidePrices ?? []) {
    const places = model.picks.flatMap((pick) =>
      of.includes(pick.on) ? pick.builds.map((build) => build.place) : [],
    );
    share(
      priced.filter(
        (each) =>
          of.includes(each.id) ||
          places.some((place) => each.place === place || each.place?.startsWith(`${place}/`)),
      ),
      `insidePrices.${id}`,
      exact(-1),
    );
  }
  for (const { id, of } of document.surcharges)
    share(
      priced.filter((each) => of.includes(each.id)),
      `surcharges.${id}`,
      one,
    );
  return terms.map(({ expr, weight }) => ({
    formula: formulaOf(expr, { is: 'number', unit: 'any' }),
    weight: weight.toString(),
  }));
}

function pricedIn(model: CompiledModel, tariff: Tariff): Priced[] {
  const { document, formulas, slots } = model;
  const shares: {
    rate: Exact;
    of: readonly string[];
    id: string;
    item: string;
    quantity: Expr;
    counts?: Counting;
  }[] = [];
  const found: Priced[] = [];
  const name = (id: string): Expr => ({ kind: 'name', name: id, slot: slots.get(id) ?? -1, at: 0 });
  const add = (id: string, item: string, quantity: Expr, counting?: Counting): void => {
    const counts = counting === undefined ? {} : { counts: counting };
    const entry = entryOf(tariff, item);
    if (entry?.method === 'share')
      shares.push({ rate: exact(entry.rate), of: entry.of, id, item, quantity, ...counts });
    const priced = entry && amountOf(model, entry, quantity);
    const every = tariff.recurs?.[item];
    const overAll = (amount: Expr): Expr => (every ? overTerm(model, every, amount) : amount);
    if (priced)
      found.push({
        id,
        item,
        price: priced.price,
        quantity: overAll(priced.quantity),
        pieces: overAll(quantity),
        ...(every ? { recurs: true } : {}),
        ...counts,
      });
  };
  for (const part of document.prices) {
    const quantity = formulas.get(`prices.${part.id}.quantity`)?.expr;
    if (quantity) add(part.id, part.item, given(formulas.get(`prices.${part.id}.when`)?.expr, quantity));
  }
  for (const pick of model.picks) {
    if (pick.item !== undefined)
      add(
        pick.on,
        pick.item,
        given(takenExpr(model, pick, name), pick.quantity === undefined ? literal(one) : name(pick.quantity)),
        pick.counts,
      );
    for (const build of pick.builds) {
      const place = seenFromOutside(model, build);
      found.push(
        ...pricedIn(build.model, tariff).map((each) => ({
          ...each,
          id: `${build.place}/${each.id}`,
          place: each.place === undefined ? build.place : `${build.place}/${each.place}`,
          quantity: given(build.when.expr, place(each.quantity)),
          pieces: given(build.when.expr, place(each.pieces)),
        })),
      );
    }
  }
  const byThemselves = found.filter((each) => !each.recurs);
  for (const { rate, of, quantity, ...share } of shares) {
    for (const base of byThemselves)
      if (of.includes(base.item) && countingKey(base.counts) === countingKey(share.counts))
        found.push({
          ...share,
          pieces: quantity,
          quantity: calculated('*', quantity, base.quantity),
          price: base.price.times(rate),
        });
  }
  const own = tariff.inside?.[document.id];
  // In place of what it lists at: that off, and its own price on.
  return own
    ? found.flatMap((each) => {
        const price = own[each.item];
        return price === undefined ? [each] : [{ ...each, quantity: each.pieces, price: exact(price) }];
      })
    : found;
}

function entryOf({ prices, entries }: Tariff, item: string): PriceEntry | undefined {
  const price = prices[item];
  return price === undefined ? entries?.[item] : { method: 'unit', price };
}

/**
 * So many at a price, or what so many come to at a price of 1; undefined for what cannot be sold in a build,
 * or is a share of others.
 */
function amountOf(
  model: CompiledModel,
  entry: PriceEntry,
  quantity: Expr,
): { quantity: Expr; price: Exact } | undefined {
  switch (entry.method) {
    case 'unit':
      return { quantity, price: exact(entry.price) };
    case 'formula': {
      const formula = formulaIn(model, entry.formula);
      return formula && { quantity: calculated('*', quantity, formula.expr), price: one };
    }
    case 'bracket':
      return {
        quantity: [...entry.brackets]
          .reverse()
          .reduce<Expr>(
            (above, { from, below, price }) =>
              ifElse(
                atLeast(quantity, from),
                below === undefined
                  ? literal(exact(price))
                  : ifElse(atLeast(quantity, below), above, literal(exact(price))),
                nothing,
              ),
            nothing,
          ),
        price: one,
      };
    case 'graduated':
    case 'usage': {
      const { sum } = entry.slices.reduce<{ sum: Expr; before: Exact }>(
        ({ sum, before }, { from, below, rate }) => {
          const within = calculated(
            '+',
            literal(before),
            calculated('*', calculated('-', quantity, literal(exact(from))), literal(exact(rate))),
          );
          return {
            sum: ifElse(atLeast(quantity, from), within, sum),
            before: below === undefined ? before : before.plus(exact(below).minus(from).times(rate)),
          };
        },
        { sum: nothing, before: exact(0) },
      );
      if (entry.method === 'graduated' || entry.least === undefined) return { quantity: sum, price: one };
      const least = literal(exact(entry.least));
      // Nothing is due for what is not there.
      return {
        quantity: ifElse(
          { kind: 'compare', op: '=', left: quantity, right: nothing, at: 0 },
          nothing,
          ifElse(atLeast(sum, entry.least), sum, least),
        ),
        price: one,
      };
    }
    default:
      return undefined;
  }
}

const ifElse = (test: Expr, then: Expr, otherwise: Expr): Expr => ({
  kind: 'if',
  test,
  then,
  else: otherwise,
  at: 0,
});

/** What is for a period over the term of the model, else over the usual one. */
function overTerm({ formulas }: CompiledModel, every: Recurrence, amount: Expr): Expr {
  const months = formulas.get('term.months')?.expr ?? literal(exact(usualMonths(every)));
  return calculated('/', calculated('*', amount, months), literal(exact(every.baseMonths)));
}

function takenExpr(model: CompiledModel, { row, option }: Pick, name: (id: string) => Expr): Expr {
  if (option === undefined) return name(row);
  const entry = model.entries[model.slots.get(row) ?? -1];
  const many = entry?.kind === 'feature' && entry.feature.most > 1;
  return many
    ? { kind: 'call', name: 'list contains', args: [name(row), literal(option)], at: 0 }
    : { kind: 'compare', op: '=', left: name(row), right: literal(option), at: 0 };
}

/** The quantity where the condition holds, else nothing. */
const given = (when: Expr | undefined, quantity: Expr): Expr =>
  when ? ifElse(when, quantity, nothing) : quantity;

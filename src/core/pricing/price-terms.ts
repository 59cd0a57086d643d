/** The list price of a build as a weighted sum of formulas, for looking for the cheapest one. */
import type { Exact } from '../exact';
import { exact } from '../exact';
import { formulaOf, type Expr, type Formula } from '../formula';
import type { CompiledModel, Growth, NestedBuild, Pick } from '../model';
import type { Tariff } from './index';

/** A formula times a weight. */
export interface PriceTerm {
  formula: Formula;
  weight: string;
}

/** Something priced: how many of it, where nothing speaks against it. */
interface Priced {
  id: string;
  place?: string;
  grows?: Growth;
  quantity: Expr;
  price: Exact;
}

const literal = (value: Exact | string | boolean | null): Expr => ({ kind: 'literal', value, at: 0 });
const one = exact(1);

/**
 * Terms whose weighted sum is the list price of every complete build of the model, builds inside among them; items without a price
 * count for nothing. What does not grow with the quantity counts once.
 */
export function priceTerms(model: CompiledModel, tariff: Tariff): PriceTerm[] {
  const priced = pricedIn(model, tariff);
  const terms = priced.map(({ quantity, price }) => ({ expr: quantity, weight: price }));
  const { document, formulas } = model;
  const share = (meant: readonly Priced[], path: string, sign: Exact): void => {
    const rate = formulas.get(`${path}.rate`)?.expr;
    const when = formulas.get(`${path}.when`)?.expr;
    if (!rate) return;
    for (const { quantity, price } of meant) terms.push({ expr: given(when, { kind: 'arithmetic', op: '*', left: rate, right: quantity, at: 0 }), weight: price.times(sign) as Exact });
  };
  for (const { id, of } of document.insidePrices ?? []) {
    const places = model.picks.flatMap((pick) => (of.includes(pick.on) ? pick.builds.map((build) => build.place) : []));
    share(priced.filter((each) => of.includes(each.id) || places.some((place) => each.place === place || each.place?.startsWith(`${place}/`))), `insidePrices.${id}`, exact(-1));
  }
  for (const { id, of } of document.surcharges) share(priced.filter((each) => of.includes(each.id)), `surcharges.${id}`, one);
  return terms.map(({ expr, weight }) => ({ formula: formulaOf(expr, { is: 'number', unit: 'any' }), weight: weight.toString() }));
}

function pricedIn(model: CompiledModel, tariff: Tariff): Priced[] {
  const { document, formulas, slots } = model;
  const found: Priced[] = [];
  const name = (id: string): Expr => ({ kind: 'name', name: id, slot: slots.get(id) ?? -1, at: 0 });
  const add = (id: string, item: string, quantity: Expr, grows?: Growth): void => {
    const price = tariff.prices[item];
    if (price !== undefined) found.push({ id, quantity, price: exact(price), ...(grows && grows !== 'perParent' ? { grows } : {}) });
  };
  for (const part of document.prices) {
    const quantity = formulas.get(`prices.${part.id}.quantity`)?.expr;
    if (quantity) add(part.id, part.item, given(formulas.get(`prices.${part.id}.when`)?.expr, quantity));
  }
  for (const pick of model.picks) {
    if (pick.item !== undefined) add(pick.on, pick.item, given(takenExpr(model, pick, name), pick.quantity === undefined ? literal(one) : name(pick.quantity)), pick.grows);
    for (const build of pick.builds) {
      const place = placed(model, build);
      found.push(...pricedIn(build.model, tariff).map((each) => ({
        ...each, id: `${build.place}/${each.id}`, place: each.place === undefined ? build.place : `${build.place}/${each.place}`, quantity: given(build.when.expr, place(each.quantity)),
      })));
    }
  }
  return found;
}

function takenExpr(model: CompiledModel, { row, option }: Pick, name: (id: string) => Expr): Expr {
  if (option === undefined) return name(row);
  const entry = model.entries[model.slots.get(row) ?? -1];
  const many = entry?.kind === 'feature' && entry.feature.most > 1;
  return many ? { kind: 'call', name: 'list contains', args: [name(row), literal(option)], at: 0 } : { kind: 'compare', op: '=', left: name(row), right: literal(option), at: 0 };
}

/** The quantity where the condition holds, else nothing. */
const given = (when: Expr | undefined, quantity: Expr): Expr => (when ? { kind: 'if', test: when, then: quantity, else: literal(exact(0)), at: 0 } : quantity);

/** Rewrites an expression of a model inside so that it reads the places of the model around it. */
function placed(outer: CompiledModel, { place, names }: NestedBuild): (expr: Expr) => Expr {
  const move = (part: unknown): unknown => {
    if (Array.isArray(part)) return part.map(move);
    if (typeof part !== 'object' || part === null || Object.getPrototypeOf(part) !== Object.prototype) return part;
    const given = part as Expr;
    if (given.kind === 'name' && given.slot !== undefined && given.slot >= 0) {
      const id = names.get(given.name) ?? (outer.slots.has(`${place}/${given.name}`) ? `${place}/${given.name}` : given.name);
      return { ...given, name: id, slot: outer.slots.get(id) ?? -1 };
    }
    return given.kind === 'literal' ? given : Object.fromEntries(Object.entries(given).map(([key, value]) => [key, move(value)]));
  };
  return (expr) => move(expr) as Expr;
}

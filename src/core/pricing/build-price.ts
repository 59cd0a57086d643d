import { exact, Exact, zero } from '../exact';
import { buildsInside, featureAt, insideValues, nameOfBuild, open, Reading, rowsRead, type CompiledModel, type Growth, type Inside, type InsidePrice, type Open, type PlainValue, type Texts, type Values } from '../model';
import type { BuildPrice, Tariff, PricedPart } from './index';

/** The list price of a build as parts: what the model prices, its options, what builds inside list at, what is taken off inside, then surcharges on parts. */
export const priceBuild = (model: CompiledModel, values: Values, tariff: Tariff): BuildPrice => priced(new Reading(model, values), tariff, (inside) => priceBuild(inside.build.model, inside.values, tariff));

function priced(reading: Reading, tariff: Tariff, priceOf: (inside: Inside) => BuildPrice): BuildPrice {
  const { model, values } = reading;
  const { document } = model;
  const parts: PricedPart[] = [];
  const waiting: string[] = [];
  const unpriced = new Set<string>();

  const add = (id: string, kind: 'part' | 'option', name: PricedPart['name'], item: string, quantity: Exact | Open | null | undefined, grows: Growth = 'perParent'): void => {
    if (quantity === open || quantity === null) {
      waiting.push(id);
      return;
    }
    const amount = quantity ?? exact(1);
    if (amount.isZero()) return;
    const price = tariff.prices[item];
    if (price === undefined) unpriced.add(item);
    else parts.push({ id, kind, name, item, quantity: amount.toString(), unitPrice: price, amount: amount.times(price).toString(), ...(grows === 'perParent' ? {} : { grows }) });
  };

  for (const part of document.prices) {
    const holds = reading.holdsAt(`prices.${part.id}.when`);
    if (holds === open) waiting.push(part.id);
    else if (holds) add(part.id, 'part', part.name, part.item, reading.numberAt(`prices.${part.id}.quantity`));
  }
  for (const pick of model.picks) {
    const taken = takenOf(values, pick);
    if (taken === undefined && (pick.item !== undefined || pick.builds.length > 0)) waiting.push(pick.row);
    if (!taken || pick.item === undefined) continue;
    const feature = featureAt(model, pick.row);
    add(pick.on, 'option', feature && pick.option !== undefined ? named(feature.name, pick.name) : pick.name, pick.item, pick.quantity === undefined ? undefined : numberOf(reading, pick.quantity), pick.grows);
  }
  for (const inside of buildsInside(reading, (place) => waiting.push(place))) {
    const { place } = inside.build;
    const price = priceOf(inside);
    const name = nameOfBuild(inside);
    parts.push(...price.parts.map((part) => ({ ...part, id: `${place}/${part.id}`, name: named(name, part.name), place: part.place === undefined ? place : `${place}/${part.place}` })));
    waiting.push(...price.open.map((id) => `${place}/${id}`));
    for (const item of price.unpriced) unpriced.add(item);
  }
  for (const inside of document.insidePrices ?? []) {
    const holds = reading.holdsAt(`insidePrices.${inside.id}.when`);
    const rate = reading.numberAt(`insidePrices.${inside.id}.rate`);
    if (holds === open || rate === open) waiting.push(inside.id);
    else if (holds && rate) parts.push(...takenOff(model, parts, inside, rate));
  }
  for (const surcharge of document.surcharges) {
    const holds = reading.holdsAt(`surcharges.${surcharge.id}.when`);
    const rate = reading.numberAt(`surcharges.${surcharge.id}.rate`);
    const unsettled = holds === true && surcharge.of.some((part) => waiting.includes(part));
    if (holds === open || rate === open || unsettled) waiting.push(surcharge.id);
    else if (holds && rate) {
      const base = parts.filter((part) => surcharge.of.includes(part.id)).reduce((sum, part) => sum.plus(part.amount) as Exact, zero);
      parts.push({ id: surcharge.id, kind: 'surcharge', name: surcharge.name, rate: rate.toString(), amount: base.times(rate).toString() });
    }
  }
  const list = parts.reduce((sum, part) => sum.plus(part.amount) as Exact, zero);
  return { parts, list: list.toString(), open: [...new Set(waiting)], unpriced: [...unpriced] };
}

/** What a price inside takes off, apart for what grows with the quantity of the line and what does not. */
function takenOff({ picks }: CompiledModel, parts: readonly PricedPart[], { id, name, of }: InsidePrice, rate: Exact): PricedPart[] {
  const places = picks.flatMap((pick) => (of.includes(pick.on) ? pick.builds.map((build) => build.place) : []));
  const meant = parts.filter((part) => of.includes(part.id) || places.some((place) => part.place === place || part.place?.startsWith(`${place}/`)));
  return [undefined, 'once' as const, 'own' as const].flatMap((grows): PricedPart[] => {
    const base = meant.filter((part) => part.grows === grows).reduce((sum, part) => sum.plus(part.amount) as Exact, zero);
    return base.isZero() || rate.isZero() ? [] : [{ id: grows ? `${id}.${grows}` : id, kind: 'inside', name, rate: rate.toString(), amount: base.times(rate).negated().toString(), ...(grows ? { grows } : {}) }];
  });
}

const sameOpen = (a: BuildPrice, b: BuildPrice): boolean => a.open.length === b.open.length && a.open.every((part) => b.open.includes(part));

/** Rows on which what this model itself prices depends: by its formulas, by an item, or because they reach down or bring a build. */
const decisiveOf = new WeakMap<CompiledModel, ReadonlySet<string>>();
function decisiveRows(model: CompiledModel): ReadonlySet<string> {
  const known = decisiveOf.get(model);
  if (known) return known;
  const formulas = [...model.formulas].flatMap(([path, formula]) => (/^(prices|insidePrices|surcharges|features|parameters)\./.test(path) ? [formula] : []));
  const builds = model.picks.flatMap((pick) => pick.builds);
  const rows = new Set([
    ...rowsRead(model, [...formulas, ...builds.map((build) => build.when)]),
    ...model.picks.flatMap((pick) => [pick.row, ...(pick.quantity === undefined ? [] : [pick.quantity])]),
    ...builds.flatMap((build) => [...build.names.values()].filter((id) => !id.startsWith(`${build.place}/`))),
  ]);
  decisiveOf.set(model, rows);
  return rows;
}

/**
 * The values with one row changed, and the usual quantity of what is taken by it where it has none yet. They stand on the old ones:
 * to copy them all for each of a hundred options takes longer than to price.
 */
function changedBy(model: CompiledModel, on: string, values: Values, row: string, to: PlainValue): Values {
  const changed = Object.create(values) as Record<string, PlainValue>;
  changed[row] = to;
  const pick = model.picks.find((each) => each.on === on && each.quantity !== undefined);
  if (!pick?.quantity || typeof values[pick.quantity] === 'string' || takenOf(changed, pick) !== true) return changed;
  const usual = model.proposals.find((each) => each.on === pick.quantity && !each.when)?.value;
  const value = usual !== null && typeof usual === 'object' ? new Reading(model, changed).run(usual) : usual;
  if (typeof value === 'string' || value instanceof Exact) changed[pick.quantity] = String(value);
  return changed;
}

/** Whether an option, or a yes/no parameter, is taken; undefined while open. */
function takenOf(values: Values, { row, option }: CompiledModel['picks'][number]): boolean | undefined {
  const value = values[row];
  if (value === undefined) return undefined;
  return option === undefined ? value === true : Array.isArray(value) ? value.includes(option) : value === option;
}

function numberOf(reading: Reading, id: string): Exact | Open | null {
  const value = reading.named(id);
  return value === open || value instanceof Exact ? value : null;
}

/** "Capacity: 60 t": an option's own name says too little on a price walk. */
const named = (feature: Texts, option: Texts): Texts => Object.fromEntries(Object.entries(option).map(([language, text]) => [language, `${feature[language] ?? ''}: ${text}`]));

/**
 * What each option not taken would do to the list price with everything else as it is, by "feature.option" or parameter;
 * for an option taken of a multiple choice, what leaving it would do. Effects through rules show once the option is taken.
 */
export function priceDifferences(model: CompiledModel, values: Values, tariff: Tariff): Record<string, string> {
  const reading = new Reading(model, values);
  const known = new Map<string, BuildPrice>();
  const base = priced(reading, tariff, (inside) => {
    const price = priceBuild(inside.build.model, inside.values, tariff);
    known.set(inside.build.place, price);
    return price;
  });
  const found: Record<string, string> = {};
  const decisive = decisiveRows(model);
  const builds = model.picks.flatMap((pick) => pick.builds);
  /** The difference where only a build inside can make one; null where it opens or settles something, undefined where it is not so. */
  const differenceInside = (changed: Values, row: string): string | null | undefined => {
    const build = builds.find(({ place }) => row.startsWith(`${place}/`));
    if (!build) return '0';
    const before = known.get(build.place);
    if (!before) return undefined;
    const after = priceBuild(build.model, insideValues(build, changed), tariff);
    return sameOpen(before, after) ? exact(after.list).minus(before.list).toString() : null;
  };
  const add = (key: string, row: string, to: PlainValue): void => {
    const changed = changedBy(model, key, values, row, to);
    const rows = Object.keys(changed);
    const alone = rows.every((id) => !decisive.has(id)) ? differenceInside(changed, row) : undefined;
    if (alone !== undefined) {
      if (alone !== null) found[key] = alone;
      return;
    }
    // A build inside that none of the rows belongs to, or reaches, lists at what it did.
    const price = priced(reading.changed(changed, rows), tariff, (inside) => {
      const { place, names } = inside.build;
      const before = known.get(place);
      const touched = rows.some((id) => id.startsWith(`${place}/`)) || [...names.values()].some((id) => rows.includes(id));
      return before && !touched ? before : priceBuild(inside.build.model, inside.values, tariff);
    });
    // Where the change opens or settles a part of the price, there is no difference to tell.
    if (sameOpen(base, price)) found[key] = exact(price.list).minus(base.list).toString();
  };
  for (const entry of model.entries) {
    if (entry.kind === 'yesno') {
      const value = values[entry.id];
      if (typeof value === 'boolean') add(entry.id, entry.id, !value);
    }
    if (entry.kind !== 'feature') continue;
    const { id, feature } = entry;
    const value = values[id];
    // What a build inside costs depends on choices that are not there yet.
    for (const option of feature.options) {
      if (Array.isArray(value)) {
        const list = value as readonly string[];
        add(`${id}.${option.id}`, id, list.includes(option.id) ? list.filter((each) => each !== option.id) : [...list, option.id]);
      } else if (value !== option.id && value !== undefined && option.model === undefined) {
        add(`${id}.${option.id}`, id, option.id);
      }
    }
  }
  return found;
}

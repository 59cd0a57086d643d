import { exact, Exact, zero } from '../exact';
import { buildsInside, featureAt, nameOfBuild, open, Reading, type CompiledModel, type Growth, type Open, type Texts, type Values } from '../model';
import type { BuildPrice, Tariff, PricedPart } from './index';

/** The list price of a build as parts: what the model prices, its options, then surcharges on parts. */
export function priceBuild(model: CompiledModel, values: Values, tariff: Tariff): BuildPrice {
  const { document } = model;
  const reading = new Reading(model, values);
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
  for (const inside of buildsInside(model, values, (place) => waiting.push(place))) {
    const { place } = inside.build;
    const price = priceBuild(inside.build.model, inside.values, tariff);
    const name = nameOfBuild(inside);
    parts.push(...price.parts.map((part) => ({ ...part, id: `${place}/${part.id}`, name: named(name, part.name), place: part.place === undefined ? place : `${place}/${part.place}` })));
    waiting.push(...price.open.map((id) => `${place}/${id}`));
    for (const item of price.unpriced) unpriced.add(item);
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

/** The values with the usual quantity of what is taken by a change, where it has none yet. */
function withQuantity(model: CompiledModel, on: string, values: Values): Values {
  const pick = model.picks.find((each) => each.on === on && each.quantity !== undefined);
  if (!pick?.quantity || typeof values[pick.quantity] === 'string' || takenOf(values, pick) !== true) return values;
  const usual = model.proposals.find((each) => each.on === pick.quantity && !each.when)?.value;
  const value = usual !== null && typeof usual === 'object' ? new Reading(model, values).run(usual) : usual;
  return typeof value === 'string' || value instanceof Exact ? { ...values, [pick.quantity]: String(value) } : values;
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
  const base = priceBuild(model, values, tariff);
  const found: Record<string, string> = {};
  const add = (key: string, to: Values): void => {
    const changed = withQuantity(model, key, to);
    const price = priceBuild(model, changed, tariff);
    // Where the change opens or settles a part of the price, there is no difference to tell.
    const alike = price.open.length === base.open.length && price.open.every((part) => base.open.includes(part));
    if (alike) found[key] = exact(price.list).minus(base.list).toString();
  };
  for (const entry of model.entries) {
    if (entry.kind === 'yesno') {
      const value = values[entry.id];
      if (typeof value === 'boolean') add(entry.id, { ...values, [entry.id]: !value });
    }
    if (entry.kind !== 'feature') continue;
    const { id, feature } = entry;
    const value = values[id];
    // What a build inside costs depends on choices that are not there yet.
    for (const option of feature.options) {
      if (Array.isArray(value)) {
        const list = value as readonly string[];
        const other = list.includes(option.id) ? list.filter((each) => each !== option.id) : [...list, option.id];
        add(`${id}.${option.id}`, { ...values, [id]: other });
      } else if (value !== option.id && value !== undefined && option.model === undefined) {
        add(`${id}.${option.id}`, { ...values, [id]: option.id });
      }
    }
  }
  return found;
}

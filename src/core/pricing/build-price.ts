import type { Exact} from '../exact';
import { exact, zero } from '../exact';
import { open, Reading, type CompiledModel, type Open, type Texts, type Values } from '../model';
import type { BuildPrice, Tariff, PricedPart } from './index';

/** The list price of a build as parts: what the model prices, its options, then surcharges on parts. */
export function priceBuild(model: CompiledModel, values: Values, tariff: Tariff): BuildPrice {
  const { document } = model;
  const reading = new Reading(model, values);
  const parts: PricedPart[] = [];
  const waiting: string[] = [];
  const unpriced = new Set<string>();

  const add = (id: string, kind: 'part' | 'option', name: PricedPart['name'], item: string, quantity: Exact | Open | null | undefined): void => {
    if (quantity === open || quantity === null) {
      waiting.push(id);
      return;
    }
    const amount = quantity ?? exact(1);
    if (amount.isZero()) return;
    const price = tariff.prices[item];
    if (price === undefined) unpriced.add(item);
    else parts.push({ id, kind, name, item, quantity: amount.toString(), unitPrice: price, amount: amount.times(price).toString() });
  };

  for (const part of document.prices) {
    const holds = reading.holdsAt(`prices.${part.id}.when`);
    if (holds === open) waiting.push(part.id);
    else if (holds) add(part.id, 'part', part.name, part.item, reading.numberAt(`prices.${part.id}.quantity`));
  }
  for (const feature of document.features) {
    const value = values[feature.id];
    if (value === undefined && feature.options.some((option) => option.item)) waiting.push(feature.id);
    for (const option of feature.options) {
      const taken = Array.isArray(value) ? value.includes(option.id) : value === option.id;
      if (taken && option.item) add(`${feature.id}.${option.id}`, 'option', named(feature.name, option.name), option.item, reading.numberAt(`features.${feature.id}.${option.id}.quantity`));
    }
  }
  for (const parameter of document.parameters) {
    if (parameter.type === 'yesno' && parameter.item && values[parameter.id] === true) {
      add(parameter.id, 'option', parameter.name, parameter.item, reading.numberAt(`parameters.${parameter.id}.quantity`));
    }
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
  return { parts, list: list.toString(), open: waiting, unpriced: [...unpriced] };
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
  const add = (key: string, changed: Values): void => {
    const price = priceBuild(model, changed, tariff);
    // Where the change opens or settles a part of the price, there is no difference to tell.
    const alike = price.open.length === base.open.length && price.open.every((part) => base.open.includes(part));
    if (alike) found[key] = exact(price.list).minus(base.list).toString();
  };
  for (const feature of model.document.features) {
    const value = values[feature.id];
    for (const option of feature.options) {
      if (Array.isArray(value)) {
        const list = value as readonly string[];
        const other = list.includes(option.id) ? list.filter((id) => id !== option.id) : [...list, option.id];
        add(`${feature.id}.${option.id}`, { ...values, [feature.id]: other });
      } else if (value !== option.id && value !== undefined) {
        add(`${feature.id}.${option.id}`, { ...values, [feature.id]: option.id });
      }
    }
  }
  for (const parameter of model.document.parameters) {
    const value = values[parameter.id];
    if (parameter.type === 'yesno' && typeof value === 'boolean') add(parameter.id, { ...values, [parameter.id]: !value });
  }
  return found;
}

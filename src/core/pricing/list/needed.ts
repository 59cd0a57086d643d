/** What of a price list a model can need: whoever makes one build need not be sent a whole list. */
import type { CompiledModel } from '../../model';
import type { Tariff } from '../types';

/** The items that a build of a model, or one inside it, can be priced by or made of. */
export function itemsNeeded(model: CompiledModel): ReadonlySet<string> {
  const items = new Set<string>();
  const seen = new Set<CompiledModel>();
  const collect = (each: CompiledModel): void => {
    if (seen.has(each)) return;
    seen.add(each);
    for (const { item } of [...each.document.prices, ...each.document.materials]) items.add(item);
    for (const { item, builds } of each.picks) {
      if (item !== undefined) items.add(item);
      for (const build of builds) collect(build.model);
    }
  };
  collect(model);
  return items;
}

/** A tariff with nothing of other items; it prices whatever is made of these as the whole one does. */
export function tariffWithin(tariff: Tariff, items: ReadonlySet<string>): Tariff {
  const within = <T>(table: Readonly<Record<string, T>>): Record<string, T> =>
    Object.fromEntries(
      [...items].flatMap((item): [string, T][] => {
        const own = Object.hasOwn(table, item) ? table[item] : undefined;
        return own === undefined ? [] : [[item, own]];
      }),
    );
  const { prices, entries, inside, recurs, asSold, costs, ...rest } = tariff;
  return {
    ...rest,
    prices: within(prices),
    ...(entries && {
      entries: Object.fromEntries(
        Object.entries(within(entries)).map(([item, entry]) => [
          item,
          entry.method === 'share' ? { ...entry, of: entry.of.filter((each) => items.has(each)) } : entry,
        ]),
      ),
    }),
    ...(inside && {
      inside: Object.fromEntries(Object.entries(inside).map(([bundle, own]) => [bundle, within(own)])),
    }),
    ...(recurs && { recurs: within(recurs) }),
    ...(asSold && { asSold: asSold.filter((item) => items.has(item)) }),
    ...(costs && { costs: within(costs) }),
  };
}

/** Facts of these items alone. */
export const factsWithin = <T>(
  facts: Readonly<Record<string, T>>,
  items: ReadonlySet<string>,
): Record<string, T> => Object.fromEntries(Object.entries(facts).filter(([item]) => items.has(item)));

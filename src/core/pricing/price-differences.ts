import { exact, Exact } from '../exact';
import { insideValues, Reading, rowsRead, type CompiledModel, type PlainValue, type Values } from '../model';
import { formulaIn } from './build-entry';
import { priceBuild, priceReading, takenOf } from './build-price';
import type { BuildPrice, Tariff } from './index';

/**
 * What each option not taken would do to the list price with everything else as it is, by "feature.option" or parameter;
 * for an option taken of a multiple choice, what leaving it would do. Effects through rules show once the option is taken.
 */
export function priceDifferences(model: CompiledModel, values: Values, tariff: Tariff): Record<string, string> {
  const reading = new Reading(model, values);
  const known = new Map<string, BuildPrice>();
  const base = priceReading(reading, tariff, (inside) => {
    const price = priceBuild(inside.build.model, inside.values, tariff);
    known.set(inside.build.place, price);
    return price;
  });
  const found: Record<string, string> = {};
  const decisive = decisiveRows(model, tariff);
  const builds = model.picks.flatMap((pick) => pick.builds);
  /** What is taken off builds inside, or is a share of them, changes with them. */
  const insideAlone = (model.document.insidePrices ?? []).length === 0 && tariff.inside?.[model.document.id] === undefined && base.parts.every(({ item }) => item === undefined || tariff.entries?.[item]?.method !== 'share');
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
    const alone = insideAlone && rows.every((id) => !decisive.has(id)) ? differenceInside(changed, row) : undefined;
    if (alone !== undefined) {
      if (alone !== null) found[key] = alone;
      return;
    }
    // A build inside that none of the rows belongs to, or reaches, lists at what it did.
    const price = priceReading(reading.changed(changed, rows), tariff, (inside) => {
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

const sameOpen = (a: BuildPrice, b: BuildPrice): boolean => a.open.length === b.open.length && a.open.every((part) => b.open.includes(part));

/** Rows on which what this model itself prices depends: by its formulas and those of the list, by an item, or because they reach down or bring a build. */
const decisiveOf = new WeakMap<CompiledModel, { entries: Tariff['entries']; rows: ReadonlySet<string> }>();
function decisiveRows(model: CompiledModel, { entries }: Tariff): ReadonlySet<string> {
  const known = decisiveOf.get(model);
  if (known && known.entries === entries) return known.rows;
  const items = new Set([...model.document.prices.map(({ item }) => item), ...model.picks.flatMap(({ item }) => item ?? [])]);
  const ofList = [...items].flatMap((item) => {
    const entry = entries?.[item];
    return entry?.method === 'formula' ? (formulaIn(model, entry.formula) ?? []) : [];
  });
  const formulas = [...model.formulas].flatMap(([path, formula]) => (/^(prices|insidePrices|surcharges|features|parameters|term)\./.test(path) ? [formula] : []));
  const builds = model.picks.flatMap((pick) => pick.builds);
  const rows = new Set([
    ...rowsRead(model, [...formulas, ...ofList, ...builds.map((build) => build.when)]),
    ...model.picks.flatMap((pick) => [pick.row, ...(pick.quantity === undefined ? [] : [pick.quantity])]),
    ...builds.flatMap((build) => [...build.names.values()].filter((id) => !id.startsWith(`${build.place}/`))),
  ]);
  decisiveOf.set(model, { entries, rows });
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

/**
 * What a build consists of in goods: what is picked, priced, needed and done, of the builds inside too, but
 * for services.
 */
import { Exact } from '../../exact';
import { buildsInside, open, Reading, rowsRead, type CompiledModel, type Values } from '../../model';

/** In words for comparing, by the path in the document with the way to its place in front. */
export function goodsOf(
  model: CompiledModel,
  values: Values,
  prefix = '',
  found = new Map<string, string>(),
): Map<string, string> {
  const reading = new Reading(model, values);
  const { document, picks } = model;
  const services = new Set(document.services);
  const told = (path: string): string => {
    const value = reading.at(path);
    return value === open || value === undefined || value === null ? '' : String(value);
  };
  const holds = (path: string): boolean => reading.holdsAt(`${path}.when`) === true;
  const put = (path: string, item: string | undefined, ...amounts: string[]): void => {
    if (item === undefined || !services.has(item))
      found.set(prefix + path, [item ?? '', ...amounts].filter(Boolean).join(' × '));
  };
  for (const { on, row, option, item, quantity } of picks) {
    const value = reading.named(row);
    const taken =
      option === undefined
        ? value === true
        : Array.isArray(value)
          ? value.includes(option)
          : value === option;
    const many = quantity === undefined ? '1' : reading.named(quantity);
    if (item !== undefined && taken)
      put(on, item, many instanceof Exact ? many.toString() : many === open ? '' : (many as string));
  }
  for (const { id, item } of document.prices)
    if (holds(`prices.${id}`)) put(`prices.${id}`, item, told(`prices.${id}.quantity`));
  for (const { id } of document.surcharges)
    if (holds(`surcharges.${id}`)) put(`surcharges.${id}`, undefined, told(`surcharges.${id}.rate`));
  for (const { id } of document.insidePrices ?? [])
    if (holds(`insidePrices.${id}`)) put(`insidePrices.${id}`, undefined, told(`insidePrices.${id}.rate`));
  for (const { id, item } of document.materials) {
    const quantity = holds(`materials.${id}`) ? told(`materials.${id}.quantity`) : '0';
    if (quantity !== '0' && quantity !== '')
      put(`materials.${id}`, item, quantity, told(`materials.${id}.cut`));
  }
  for (const { id, centre } of document.operations)
    if (holds(`operations.${id}`))
      put(
        `operations.${id}`,
        undefined,
        centre,
        told(`operations.${id}.setUp`),
        told(`operations.${id}.run`),
      );
  for (const { build, values: own } of buildsInside(reading))
    goodsOf(build.model, own, `${prefix}${build.place}/`, found);
  return found;
}

/** Rows on which what a build consists of may depend, services left out, by their names out here. */
export function rowsOfGoods(model: CompiledModel): Set<string> {
  const { document, formulas, picks, slots, entries } = model;
  const services = new Set(document.services);
  const paths = [
    ...document.prices
      .filter(({ item }) => !services.has(item))
      .flatMap(({ id }) => [`prices.${id}.when`, `prices.${id}.quantity`]),
    ...document.surcharges.flatMap(({ id }) => [`surcharges.${id}.when`, `surcharges.${id}.rate`]),
    ...(document.insidePrices ?? []).flatMap(({ id }) => [
      `insidePrices.${id}.when`,
      `insidePrices.${id}.rate`,
    ]),
    ...document.materials
      .filter(({ item }) => !services.has(item))
      .flatMap(({ id }) => [`materials.${id}.when`, `materials.${id}.quantity`, `materials.${id}.cut`]),
    ...document.operations.flatMap(({ id }) => [
      `operations.${id}.when`,
      `operations.${id}.setUp`,
      `operations.${id}.run`,
    ]),
  ];
  const found = rowsRead(
    model,
    paths.flatMap((path) => formulas.get(path) ?? []),
  );
  for (const { row, item, quantity, builds } of picks) {
    if (builds.length > 0 || (item !== undefined && !services.has(item))) {
      found.add(row);
      const entry = quantity === undefined ? undefined : entries[slots.get(quantity) ?? -1];
      for (const each of entry?.kind === 'calculation'
        ? rowsRead(model, [entry.formula])
        : entry
          ? [entry.id]
          : [])
        found.add(each);
    }
    for (const { place, names, model: inner } of builds)
      for (const each of rowsOfGoods(inner)) found.add(names.get(each) ?? `${place}/${each}`);
  }
  return found;
}

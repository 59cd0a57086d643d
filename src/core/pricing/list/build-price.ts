import { exact, Exact, zero, type ExactText } from '../../exact';
import { Day } from '../../formula';
import {
  buildsInside,
  featureAt,
  nameOfBuild,
  open,
  Reading,
  type CompiledModel,
  type Growth,
  type Inside,
  type InsidePrice,
  type Open,
  type Texts,
  type Values,
} from '../../model';
import { priceIn } from './build-entry';
import type { BuildPrice, PricedPart, RecurringPart, Tariff } from '../types';
import { partOverTerm, termKey } from './part-term';

/**
 * The list price of a build as parts: what the model prices, its options, what builds inside list at, what is
 * a share of these, what is taken off inside, then surcharges on parts.
 */
export const priceBuild = (model: CompiledModel, values: Values, tariff: Tariff): BuildPrice =>
  priceReading(new Reading(model, values), tariff, (inside) =>
    priceBuild(inside.build.model, inside.values, tariff),
  );

/** As priceBuild, with a way to price the builds inside that may know them already. */
export function priceReading(
  reading: Reading,
  tariff: Tariff,
  priceOf: (inside: Inside) => BuildPrice,
): BuildPrice {
  const { model, values } = reading;
  const { document } = model;
  const parts: PricedPart[] = [];
  const shares: {
    part: Omit<PricedPart, 'amount'>;
    at: number;
    item: string;
    rate: ExactText;
    of: readonly string[];
    quantity: Exact;
  }[] = [];
  const waiting: string[] = [];
  const unpriced = new Set<string>();

  const add = (
    id: string,
    kind: 'part' | 'option',
    name: PricedPart['name'],
    item: string,
    quantity: Exact | Open | null | undefined,
    grows: Growth = 'perParent',
  ): void => {
    if (quantity === open || quantity === null) {
      waiting.push(id);
      return;
    }
    const pieces = quantity ?? exact(1);
    if (pieces.isZero()) return;
    const recurs = termIn(reading, tariff, item);
    const price = priceIn(reading, tariff, item, pieces.toString());
    if (recurs === open || price === open) waiting.push(id);
    else if (!price) unpriced.add(item);
    else {
      const part = {
        id,
        kind,
        name,
        item,
        quantity: pieces.toString(),
        ...(recurs ? { recurs } : {}),
        ...(grows === 'perParent' ? {} : { grows }),
      };
      if ('share' in price) shares.push({ part, at: parts.length, item, ...price.share, quantity: pieces });
      else parts.push({ ...part, ...price });
    }
  };

  for (const part of document.prices) {
    const holds = reading.holdsAt(`prices.${part.id}.when`);
    if (holds === open) waiting.push(part.id);
    else if (holds)
      add(part.id, 'part', part.name, part.item, reading.numberAt(`prices.${part.id}.quantity`));
  }
  for (const pick of model.picks) {
    const taken = takenOf(values, pick);
    if (taken === undefined && (pick.item !== undefined || pick.builds.length > 0)) waiting.push(pick.row);
    if (!taken || pick.item === undefined) continue;
    const feature = featureAt(model, pick.row);
    add(
      pick.on,
      'option',
      feature && pick.option !== undefined ? named(feature.name, pick.name) : pick.name,
      pick.item,
      pick.quantity === undefined ? undefined : numberOf(reading, pick.quantity),
      pick.grows,
    );
  }
  for (const inside of buildsInside(reading, (place) => waiting.push(place))) {
    const { place } = inside.build;
    const price = priceOf(inside);
    const name = nameOfBuild(inside);
    parts.push(
      ...price.parts.map((part) => ({
        ...part,
        id: `${place}/${part.id}`,
        ...(part.of === undefined ? {} : { of: `${place}/${part.of}` }),
        name: named(name, part.name),
        place: part.place === undefined ? place : `${place}/${part.place}`,
      })),
    );
    waiting.push(...price.open.map((id) => `${place}/${id}`));
    for (const item of price.unpriced) unpriced.add(item);
  }
  // A share is of what is priced by itself, and once while that recurs.
  const byThemselves = parts.filter((part) => part.recurs === undefined);
  for (const { part, at, item, rate, of, quantity } of shares.reverse()) {
    const base = byThemselves.filter(
      (each) => each.item !== undefined && of.includes(each.item) && each.grows === part.grows,
    );
    if (base.length === 0) unpriced.add(item);
    else parts.splice(at, 0, { ...part, rate, amount: sumOf(base).times(rate).times(quantity).toString() });
  }
  parts.push(...ownPrices(parts, tariff.inside?.[document.id]));
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
      const made = shareOf(
        parts.filter((part) => surcharge.of.includes(part.id)),
        surcharge.id,
        (grown, base) => ({
          ...grown,
          kind: 'surcharge',
          name: surcharge.name,
          rate: rate.toString(),
          amount: base.times(rate).toString(),
        }),
      );
      parts.push(
        ...(made.length > 0
          ? made
          : [
              {
                id: surcharge.id,
                kind: 'surcharge' as const,
                name: surcharge.name,
                rate: rate.toString(),
                amount: '0',
              },
            ]),
      );
    }
  }
  return {
    parts,
    list: parts.reduce((sum, part) => sum.plus(partOverTerm(part)), zero).toString(),
    open: [...new Set(waiting)],
    unpriced: [...unpriced],
  };
}

/** The term of an item that recurs: the model's, else what is usual. */
function termIn(reading: Reading, { recurs }: Tariff, item: string): RecurringPart | Open | undefined {
  const every = recurs?.[item];
  if (!every) return undefined;
  const start = reading.at('term.start');
  const months = reading.numberAt('term.months');
  if (start === open || months === open) return open;
  return {
    ...every,
    ...(start instanceof Day ? { start: start.toString() } : {}),
    ...(months ? { months: months.toNumber() } : {}),
  };
}

const sumOf = (parts: readonly PricedPart[]): Exact =>
  parts.reduce((sum, part) => sum.plus(part.amount), zero);

/**
 * A share of parts, apart for what grows with the quantity of the line and what does not, and for each term
 * that recurs.
 */
function shareOf(
  parts: readonly PricedPart[],
  id: string,
  make: (of: Pick<PricedPart, 'id' | 'grows' | 'recurs'>, base: Exact) => PricedPart,
): PricedPart[] {
  const alike = new Map<string, PricedPart[]>();
  for (const part of parts) {
    const key = `${part.grows ?? ''}${part.recurs ? `.${termKey(part.recurs)}` : ''}`;
    alike.set(key, [...(alike.get(key) ?? []), part]);
  }
  return [...alike].flatMap(([key, [first, ...others]]): PricedPart[] => {
    const base = first ? sumOf([first, ...others]) : zero;
    return !first || base.isZero()
      ? []
      : [
          make(
            {
              id: key === '' ? id : `${id}.${key}`,
              ...(first.grows ? { grows: first.grows } : {}),
              ...(first.recurs ? { recurs: first.recurs } : {}),
            },
            base,
          ),
        ];
  });
}

/**
 * What prices of their own in the bundle make of what its parts list at, and of what bundles inside made of
 * it.
 */
function ownPrices(
  parts: readonly PricedPart[],
  own: Readonly<Record<string, ExactText>> | undefined,
): PricedPart[] {
  if (!own) return [];
  return parts.flatMap((part): PricedPart[] => {
    const price = part.item === undefined || part.kind === 'inside' ? undefined : own[part.item];
    if (price === undefined) return [];
    const so = sumOf([part, ...parts.filter((each) => each.of === part.id)]);
    const apart = exact(price)
      .times(part.quantity ?? '1')
      .minus(so);
    return apart.isZero()
      ? []
      : [
          {
            id: `${part.id}.own`,
            kind: 'inside',
            name: part.name,
            amount: apart.toString(),
            of: part.id,
            ...(part.place === undefined ? {} : { place: part.place }),
            ...(part.grows ? { grows: part.grows } : {}),
            ...(part.recurs ? { recurs: part.recurs } : {}),
          },
        ];
  });
}

/** What a price inside takes off. */
function takenOff(
  { picks }: CompiledModel,
  parts: readonly PricedPart[],
  { id, name, of }: InsidePrice,
  rate: Exact,
): PricedPart[] {
  if (rate.isZero()) return [];
  const places = picks.flatMap((pick) =>
    of.includes(pick.on) ? pick.builds.map((build) => build.place) : [],
  );
  const meant = parts.filter(
    (part) =>
      of.includes(part.of ?? part.id) ||
      places.some((place) => part.place === place || part.place?.startsWith(`${place}/`)),
  );
  return shareOf(meant, id, (grown, base) => ({
    ...grown,
    kind: 'inside',
    name,
    rate: rate.toString(),
    amount: base.times(rate).negated().toString(),
  }));
}

/** Whether an option, or a yes/no parameter, is taken; undefined while open. */
export function takenOf(
  values: Values,
  { row, option }: CompiledModel['picks'][number],
): boolean | undefined {
  const value = values[row];
  if (value === undefined) return undefined;
  return option === undefined
    ? value === true
    : Array.isArray(value)
      ? value.includes(option)
      : value === option;
}

function numberOf(reading: Reading, id: string): Exact | Open | null {
  const value = reading.named(id);
  return value === open || value instanceof Exact ? value : null;
}

/** "Capacity: 60 t": an option's own name says too little on a price walk. */
const named = (feature: Texts, option: Texts): Texts =>
  Object.fromEntries(
    Object.entries(option).map(([language, text]) => [language, `${feature[language] ?? ''}: ${text}`]),
  );

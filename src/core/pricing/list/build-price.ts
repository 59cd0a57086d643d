import { exact, Exact, zero, type ExactText } from '../../exact';
import { Day } from '../../formula';
import {
  buildsInside,
  countingKey,
  featureAt,
  nameOfBuild,
  open,
  Reading,
  type CompiledModel,
  type Counting,
  type InsidePrice,
  type Open,
  type Surcharge,
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
  new PartsOfBuild(new Reading(model, values), tariff).price();

/** A part priced as a share of others, which waits until they are all known. */
interface Share {
  part: Omit<PricedPart, 'amount'>;
  /** Its place among the parts. */
  at: number;
  item: string;
  rate: ExactText;
  of: readonly string[];
  quantity: Exact;
}

/** An item of a build before it is priced. */
interface Ordered {
  id: string;
  kind: 'part' | 'option';
  name: PricedPart['name'];
  item: string;
  /** One where nothing is said; null where there is no such number yet. */
  quantity: Exact | Open | null | undefined;
  counts?: Counting;
}

/** The parts of one build, found in the order in which they build on each other. */
class PartsOfBuild {
  private readonly parts: PricedPart[] = [];
  private readonly shares: Share[] = [];
  /** Parts, options and surcharges that are not settled yet. */
  private readonly waiting: string[] = [];
  private readonly unpriced = new Set<string>();

  constructor(
    private readonly reading: Reading,
    private readonly tariff: Tariff,
  ) {}

  price(): BuildPrice {
    const { document } = this.reading.model;
    this.addModelParts();
    this.addOptions();
    this.addBuildsInside();
    this.addShares();
    this.parts.push(...ownPrices(this.parts, this.tariff.inside?.[document.id]));
    for (const inside of document.insidePrices ?? []) this.takeOff(inside);
    for (const surcharge of document.surcharges) this.addSurcharge(surcharge);
    return {
      parts: this.parts,
      list: this.parts.reduce((sum, part) => sum.plus(partOverTerm(part)), zero).toString(),
      open: [...new Set(this.waiting)],
      unpriced: [...this.unpriced],
    };
  }

  private addModelParts(): void {
    for (const { id, name, item } of this.reading.model.document.prices) {
      const holds = this.reading.holdsAt(`prices.${id}.when`);
      if (holds === open) this.waiting.push(id);
      else if (holds)
        this.add({ id, kind: 'part', name, item, quantity: this.reading.numberAt(`prices.${id}.quantity`) });
    }
  }

  private addOptions(): void {
    const { model, values } = this.reading;
    for (const pick of model.picks) {
      const taken = takenOf(values, pick);
      if (taken === undefined && (pick.item !== undefined || pick.builds.length > 0))
        this.waiting.push(pick.row);
      if (!taken || pick.item === undefined) continue;
      const feature = featureAt(model, pick.row);
      this.add({
        id: pick.on,
        kind: 'option',
        name: feature && pick.option !== undefined ? named(feature.name, pick.name) : pick.name,
        item: pick.item,
        quantity: pick.quantity === undefined ? undefined : numberOf(this.reading, pick.quantity),
        ...(pick.counts === undefined ? {} : { counts: pick.counts }),
      });
    }
  }

  private add({ item, quantity, ...what }: Ordered): void {
    if (quantity === open || quantity === null) {
      this.waiting.push(what.id);
      return;
    }
    const pieces = quantity ?? exact(1);
    if (pieces.isZero()) return;
    const recurs = termIn(this.reading, this.tariff, item);
    const price = priceIn(this.reading, this.tariff, item, pieces.toString());
    if (recurs === open || price === open) {
      this.waiting.push(what.id);
      return;
    }
    if (!price) {
      this.unpriced.add(item);
      return;
    }
    const part = {
      ...what,
      item,
      quantity: pieces.toString(),
      ...(recurs ? { recurs } : {}),
    };
    if ('share' in price)
      this.shares.push({ part, at: this.parts.length, item, ...price.share, quantity: pieces });
    else this.parts.push({ ...part, ...price });
  }

  private addBuildsInside(): void {
    for (const inside of buildsInside(this.reading, (place) => this.waiting.push(place))) {
      const { place } = inside.build;
      const price = priceBuild(inside.build.model, inside.values, this.tariff);
      const name = nameOfBuild(inside);
      this.parts.push(
        ...price.parts.map((part) => ({
          ...part,
          id: `${place}/${part.id}`,
          ...(part.of === undefined ? {} : { of: `${place}/${part.of}` }),
          name: named(name, part.name),
          place: part.place === undefined ? place : `${place}/${part.place}`,
        })),
      );
      this.waiting.push(...price.open.map((id) => `${place}/${id}`));
      for (const item of price.unpriced) this.unpriced.add(item);
    }
  }

  /** A share is of what is priced by itself, and once while that recurs. */
  private addShares(): void {
    const byThemselves = this.parts.filter((part) => part.recurs === undefined);
    for (const { part, at, item, rate, of, quantity } of this.shares.reverse()) {
      const base = byThemselves.filter(
        (each) =>
          each.item !== undefined &&
          of.includes(each.item) &&
          countingKey(each.counts) === countingKey(part.counts),
      );
      const amount = sumOf(base).times(rate).times(quantity).toString();
      if (base.length === 0) this.unpriced.add(item);
      else this.parts.splice(at, 0, { ...part, rate, amount });
    }
  }

  private takeOff(inside: InsidePrice): void {
    const holds = this.reading.holdsAt(`insidePrices.${inside.id}.when`);
    const rate = this.reading.numberAt(`insidePrices.${inside.id}.rate`);
    if (holds === open || rate === open) this.waiting.push(inside.id);
    else if (holds && rate) this.parts.push(...takenOff(this.reading.model, this.parts, inside, rate));
  }

  private addSurcharge({ id, name, of }: Surcharge): void {
    const holds = this.reading.holdsAt(`surcharges.${id}.when`);
    const rate = this.reading.numberAt(`surcharges.${id}.rate`);
    const unsettled = holds === true && of.some((part) => this.waiting.includes(part));
    if (holds === open || rate === open || unsettled) {
      this.waiting.push(id);
      return;
    }
    if (!holds || !rate) return;
    const charge = { kind: 'surcharge', name, rate: rate.toString() } as const;
    const charged = this.parts.filter((part) => of.includes(part.id));
    const made = shareOf(charged, id, (grown, base) => ({
      ...grown,
      ...charge,
      amount: base.times(rate).toString(),
    }));
    this.parts.push(...(made.length > 0 ? made : [{ id, ...charge, amount: '0' }]));
  }
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
 * A share of parts, apart for each way in which they are counted with the line, and for each term that recurs.
 */
function shareOf(
  parts: readonly PricedPart[],
  id: string,
  make: (of: Pick<PricedPart, 'id' | 'counts' | 'recurs'>, base: Exact) => PricedPart,
): PricedPart[] {
  const alike = new Map<string, PricedPart[]>();
  for (const part of parts) {
    const key = `${countingKey(part.counts)}${part.recurs ? `.${termKey(part.recurs)}` : ''}`;
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
              ...(first.counts ? { counts: first.counts } : {}),
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
            ...(part.counts ? { counts: part.counts } : {}),
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

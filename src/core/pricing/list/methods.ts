/** What an item lists at, by the method of its entry in a price list. */
import { Exact, exact, zero, type ExactText } from '../../exact';

/** From a quantity (inclusive) to another (exclusive); without `below`, to any. */
export interface Tier {
  from: ExactText;
  below?: ExactText;
}

/** One price for whatever quantity the bracket holds. */
export interface Bracket extends Tier {
  price: ExactText;
}

/** What each piece of the slice costs. */
export interface Slice extends Tier {
  rate: ExactText;
}

/** How an item is priced in a list. */
export type PriceEntry =
  | { method: 'unit'; price: ExactText }
  /** Brackets in order, that do not overlap. */
  | { method: 'bracket'; brackets: readonly Bracket[] }
  /** Slices in order, without holes, from 0. */
  | { method: 'graduated'; slices: readonly Slice[] }
  /** cost x (1 + markUp). */
  | { method: 'costPlus'; markUp: ExactText }
  /** A share of what other items or families net to, those of them that are there. */
  | { method: 'share'; rate: ExactText; of: readonly string[] }
  /** A formula over the build. */
  | { method: 'formula'; formula: string }
  /** As graduated, with a charge that is due in any case. */
  | { method: 'usage'; slices: readonly Slice[]; least?: ExactText }
  /** Typed on the line. */
  | { method: 'hand' }
  /** No charge inside its parent. */
  | { method: 'included' };

/**
 * Rates of what is used, as they are agreed on one line: one for each slice of the entry, and the charge due
 * in any case.
 */
export interface LineRates {
  each: readonly ExactText[];
  least?: ExactText;
}

/** An entry with the rates of a line; where these do not fit it, as it is. */
export function withRates(entry: PriceEntry, rates: LineRates | null | undefined): PriceEntry {
  if (!rates || entry.method !== 'usage' || rates.each.length !== entry.slices.length) return entry;
  return {
    method: 'usage',
    slices: entry.slices.map((slice, index) => ({ ...slice, rate: rates.each[index] ?? slice.rate })),
    ...(rates.least === undefined ? {} : { least: rates.least }),
  };
}

/** What a price may depend on besides its entry. */
export interface PriceAsked {
  quantity: ExactText;
  /** Cost of one piece, where it is known. */
  cost?: ExactText;
  /** What a line or family nets to, where a share is taken of it. */
  netOf?: (name: string) => ExactText | undefined;
  /** The value of a formula over the build; undefined while it is open. */
  workOut?: (formula: string) => ExactText | undefined;
  /** What is typed on the line, for one piece. */
  typed?: ExactText;
}

/** A tier of the quantity as it was priced: how many, at what, and what they come to. */
export interface PricedTier extends Tier {
  quantity: ExactText;
  /** Absent where a bracket has one price for all. */
  rate?: ExactText;
  amount: ExactText;
}

/** What an item lists at for a quantity, or why it has no price. */
export type Listed =
  | {
      is: 'listed';
      /** unit: the amount is for one piece, and grows with the quantity; line: for all of them. */
      per: 'unit' | 'line';
      amount: ExactText;
      tiers?: PricedTier[];
      /** The charge due in any case stands instead of the sum of the tiers. */
      least?: ExactText;
    }
  /**
   * Something that it depends on is not known: its cost, what it is a share of, a value of the build, a typed
   * price.
   */
  | { is: 'open'; wants: 'cost' | 'net' | 'value' | 'price'; name?: string }
  /** No bracket or slice holds the quantity. */
  | { is: 'outside'; quantity: ExactText };

/** Prices so much of something by its entry. Nothing is rounded. */
export function listed(entry: PriceEntry, asked: PriceAsked): Listed {
  const perUnit = (amount: Exact): Listed => ({ is: 'listed', per: 'unit', amount: amount.toString() });
  switch (entry.method) {
    case 'unit':
      return perUnit(exact(entry.price));
    case 'included':
      return perUnit(zero);
    case 'hand':
      return asked.typed === undefined ? { is: 'open', wants: 'price' } : perUnit(exact(asked.typed));
    case 'costPlus':
      return asked.cost === undefined
        ? { is: 'open', wants: 'cost' }
        : perUnit(exact(asked.cost).times(exact(entry.markUp).plus(1)));
    case 'formula': {
      const value = asked.workOut?.(entry.formula);
      return value === undefined ? { is: 'open', wants: 'value' } : perUnit(exact(value));
    }
    case 'share': {
      const nets = entry.of.flatMap((name) => asked.netOf?.(name) ?? []);
      if (nets.length === 0) return { is: 'open', wants: 'net', name: entry.of.join(', ') };
      return {
        is: 'listed',
        per: 'line',
        amount: nets
          .reduce((sum, net) => sum.plus(net), zero)
          .times(entry.rate)
          .toString(),
      };
    }
    case 'bracket': {
      const found = entry.brackets.find((bracket) => holds(bracket, asked.quantity));
      if (!found) return { is: 'outside', quantity: asked.quantity };
      return {
        is: 'listed',
        per: 'line',
        amount: found.price,
        tiers: [{ ...tierOf(found), quantity: asked.quantity, amount: found.price }],
      };
    }
    case 'graduated':
      return sliced(entry.slices, asked.quantity);
    case 'usage': {
      const priced = sliced(entry.slices, asked.quantity);
      return priced.is === 'listed' && entry.least !== undefined && exact(priced.amount).lt(entry.least)
        ? { ...priced, amount: entry.least, least: entry.least }
        : priced;
    }
  }
}

const tierOf = ({ from, below }: Tier): Tier => (below === undefined ? { from } : { from, below });

function holds({ from, below }: Tier, quantity: ExactText): boolean {
  const at = exact(quantity);
  return at.gte(from) && (below === undefined || at.lt(below));
}

/**
 * Each slice of the quantity at its own rate. A quantity that fills the last slice exactly is still held by
 * it.
 */
function sliced(slices: readonly Slice[], quantity: ExactText): Listed {
  const all = exact(quantity);
  const last = slices[slices.length - 1];
  if (all.isNegative() || !last || (last.below !== undefined && all.gt(last.below)))
    return { is: 'outside', quantity };
  const tiers = slices.flatMap((slice): PricedTier[] => {
    const within = Exact.min(all, slice.below ?? all).minus(slice.from);
    return within.lte(0)
      ? []
      : [
          {
            ...tierOf(slice),
            quantity: within.toString(),
            rate: slice.rate,
            amount: within.times(slice.rate).toString(),
          },
        ];
  });
  return {
    is: 'listed',
    per: 'line',
    amount: tiers.reduce((sum, each) => sum.plus(each.amount), zero).toString(),
    tiers,
  };
}

/**
 * What is wrong with the brackets or slices of an entry: where one begins before the last ended, or ends
 * before it begins; where a slice leaves a hole.
 */
export function entryProblem(
  entry: PriceEntry,
): { code: 'empty' | 'overlap' | 'hole' | 'backwards'; from: ExactText } | null {
  const tiers: readonly Tier[] | null =
    entry.method === 'bracket'
      ? entry.brackets
      : entry.method === 'graduated' || entry.method === 'usage'
        ? entry.slices
        : null;
  if (!tiers) return null;
  const [first] = tiers;
  if (!first) return { code: 'empty', from: '0' };
  const whole = entry.method !== 'bracket';
  if (whole && !exact(first.from).isZero()) return { code: 'hole', from: '0' };
  for (const [index, { from, below }] of tiers.entries()) {
    if (below !== undefined && exact(below).lte(from)) return { code: 'backwards', from };
    const next = tiers[index + 1];
    if (!next) continue;
    if (below === undefined || exact(next.from).lt(below)) return { code: 'overlap', from: next.from };
    if (whole && exact(next.from).gt(below)) return { code: 'hole', from: below };
  }
  return null;
}

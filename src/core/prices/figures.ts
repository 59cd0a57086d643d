/** The figures of an entry, whatever its method: what a price change raises and lowers. */
import { exact, type ExactText } from '../exact';
import { listed, type PriceEntry } from '../pricing';

/**
 * A figure. piece: the price of one; tier: of all that a bracket holds; rate: of each piece of a slice; least: the
 * charge due in any case.
 */
export interface EntryFigure {
  of: 'piece' | 'tier' | 'rate' | 'least';
  value: ExactText;
}

/** In their order; undefined where the entry has none of its own in the currency of its list. */
export function figuresOf(entry: PriceEntry): EntryFigure[] | undefined {
  switch (entry.method) {
    case 'unit':
      return [{ of: 'piece', value: entry.price }];
    case 'bracket':
      return entry.brackets.map(({ price }) => ({ of: 'tier', value: price }));
    case 'graduated':
      return entry.slices.map(({ rate }) => ({ of: 'rate', value: rate }));
    case 'usage':
      return [
        ...entry.slices.map(({ rate }) => ({ of: 'rate' as const, value: rate })),
        ...(entry.least === undefined ? [] : [{ of: 'least' as const, value: entry.least }]),
      ];
    default:
      return undefined;
  }
}

/** The same entry with other figures, in the order of `figuresOf`. */
export function withFigures(entry: PriceEntry, figures: readonly ExactText[]): PriceEntry {
  const at = (index: number, was: ExactText): ExactText => figures[index] ?? was;
  switch (entry.method) {
    case 'unit':
      return { ...entry, price: at(0, entry.price) };
    case 'bracket':
      return {
        ...entry,
        brackets: entry.brackets.map((each, index) => ({ ...each, price: at(index, each.price) })),
      };
    case 'graduated':
      return {
        ...entry,
        slices: entry.slices.map((each, index) => ({ ...each, rate: at(index, each.rate) })),
      };
    case 'usage': {
      const slices = entry.slices.map((each, index) => ({ ...each, rate: at(index, each.rate) }));
      return entry.least === undefined
        ? { ...entry, slices }
        : { ...entry, slices, least: at(slices.length, entry.least) };
    }
    default:
      return entry;
  }
}

/** What so many list at by an entry, where that can be told without a quote around it. */
export interface Tried {
  quantity: ExactText;
  /** For all of them; null where no tier holds the quantity, or it depends on more than the quantity. */
  amount: ExactText | null;
  /** For one of them on average. */
  each: ExactText | null;
  /** (amount - cost) / amount, where both are known. */
  margin: ExactText | null;
}

/** An entry tried at quantities; `cost` of one. */
export function triedAt(
  entry: PriceEntry,
  quantities: readonly ExactText[],
  cost: ExactText | undefined,
): Tried[] {
  return quantities.map((quantity) => {
    const answer = listed(entry, { quantity, ...(cost === undefined ? {} : { cost }) });
    if (answer.is !== 'listed') return { quantity, amount: null, each: null, margin: null };
    const amount = answer.per === 'unit' ? exact(answer.amount).times(quantity) : exact(answer.amount);
    return {
      quantity,
      amount: amount.toString(),
      each: exact(quantity).isZero() ? null : amount.div(quantity).toString(),
      margin:
        cost === undefined || amount.isZero()
          ? null
          : amount.minus(exact(cost).times(quantity)).div(amount).toString(),
    };
  });
}

/** What one piece lists at, or what the first tier that there is comes to for the least that it holds. */
export function leadingPrice(
  entry: PriceEntry | null | undefined,
  cost: ExactText | undefined,
): { amount: ExactText; quantity: ExactText; margin: ExactText | null } | null {
  if (!entry) return null;
  const first = entry.method === 'bracket' ? entry.brackets[0]?.from : '1';
  const [tried] = triedAt(entry, [first === undefined || !exact(first).gt(0) ? '1' : first], cost);
  return tried && tried.amount !== null
    ? { amount: tried.amount, quantity: tried.quantity, margin: tried.margin }
    : null;
}

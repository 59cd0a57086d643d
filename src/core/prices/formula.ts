/** Formulas of price changes: what becomes of an entry of a price list, step by step. */
import { exact, roundHalfUp, type Exact, type ExactText } from '../exact';
import { Decimal } from 'decimal.js';
import { figuresOf, withFigures } from './figures';
import type { PriceEntry } from '../pricing';

/** One step. Each goes on from what the ones before have made. */
export type PriceStep =
  /** So much more or less, as a share: 0.035 is 3.5 % more. */
  | { does: 'share'; by: ExactText }
  /** So much more or less, in the currency of the list. */
  | { does: 'add'; amount: ExactText }
  | { does: 'times'; factor: ExactText }
  /** What the item lists at in another list, times a factor. */
  | { does: 'list'; list: string; factor: ExactText }
  /** What one piece costs, times a factor. */
  | { does: 'cost'; factor: ExactText }
  /** The price at which one piece earns this share of it; with `atLeast`, where it would earn less. */
  | { does: 'margin'; rate: ExactText; atLeast: boolean }
  | { does: 'least' | 'most'; amount: ExactText }
  /** To a multiple: the nearest (half up), the next above, or the next below. */
  | { does: 'round'; to: ExactText; how: 'near' | 'up' | 'down' };

/** A formula: at least one step. */
export type ChangeFormula = readonly PriceStep[];

/** What a formula may need besides the entry. */
export interface FormulaMeans {
  /** Minor digits of the list's currency: what comes out is rounded half up to them. */
  decimals: number;
  /** Of one piece, in the list's currency, where it is known. */
  cost?: ExactText | undefined;
  /** The entry of the same item in another list. */
  entryIn?: (list: string) => PriceEntry | undefined;
}

/**
 * What came of it. noPrice: there is nothing to go on from; noOther: not in the other list; noCost: of an item of
 * which no cost is known, or a margin of a whole price; method: priced in a way that has no figure of its own;
 * perTier: one price for all pieces of a bracket, of which a margin for one piece says nothing; negative: less than
 * nothing would come out.
 */
export type FormulaOutcome =
  | { ok: true; entry: PriceEntry }
  | { ok: false; why: 'noPrice' | 'noOther' | 'noCost' | 'method' | 'perTier' | 'negative' };

/** Decimals of rates for each piece of a slice: finer than money, since many pieces are counted. */
const finest = 6;

class Stuck extends Error {
  constructor(readonly why: Extract<FormulaOutcome, { ok: false }>['why']) {
    super(why);
  }
}

/** Makes another entry of one; without one, a formula that begins with cost, margin or another list makes the first. */
export function applyFormula(
  formula: ChangeFormula,
  entry: PriceEntry | undefined,
  means: FormulaMeans,
): FormulaOutcome {
  try {
    return { ok: true, entry: applied(formula, entry, means) };
  } catch (thrown) {
    if (thrown instanceof Stuck) return { ok: false, why: thrown.why };
    throw thrown;
  }
}

function applied(formula: ChangeFormula, entry: PriceEntry | undefined, means: FormulaMeans): PriceEntry {
  if (entry?.method === 'costPlus') return markedUp(formula, entry.markUp);
  const [first] = formula;
  const base = first?.does === 'list' ? otherEntry(first.list, means) : entry;
  const shape = base ?? { method: 'unit' as const, price: '0' };
  const before = figuresOf(shape);
  if (!before) throw new Stuck('method');
  const figures = before.map(({ value, of }) => {
    let now: Exact | null = base ? exact(value) : null;
    for (const step of formula) {
      // The charge due in any case is for no piece: what is said of one does not concern it.
      if (of === 'least' && (step.does === 'cost' || step.does === 'margin')) continue;
      now = stepped(step, now, of, means);
    }
    if (now === null) throw new Stuck('noPrice');
    if (now.isNegative()) throw new Stuck('negative');
    return roundHalfUp(now, of === 'rate' ? finest : means.decimals).toString();
  });
  return withFigures(shape, figures);
}

function otherEntry(list: string, { entryIn }: FormulaMeans): PriceEntry {
  const other = entryIn?.(list);
  if (!other) throw new Stuck('noOther');
  return other;
}

function stepped(
  step: PriceStep,
  now: Exact | null,
  of: 'piece' | 'tier' | 'rate' | 'least',
  means: FormulaMeans,
): Exact {
  const price = (): Exact => {
    if (now === null) throw new Stuck('noPrice');
    return now;
  };
  const cost = (): Exact => {
    if (of === 'tier') throw new Stuck('perTier');
    if (means.cost === undefined) throw new Stuck('noCost');
    return exact(means.cost);
  };
  switch (step.does) {
    case 'share':
      return price().times(exact(step.by).plus(1));
    case 'add':
      return price().plus(step.amount);
    case 'times':
      return price().times(step.factor);
    case 'list':
      // The figures are those of the other list already.
      return price().times(step.factor);
    case 'cost':
      return cost().times(step.factor);
    case 'margin': {
      const wanted = cost().div(exact(1).minus(step.rate));
      return step.atLeast && now !== null && now.gte(wanted) ? now : wanted;
    }
    case 'least':
      return price().lt(step.amount) ? exact(step.amount) : price();
    case 'most':
      return price().gt(step.amount) ? exact(step.amount) : price();
    case 'round':
      return price().toNearest(step.to, roundings[step.how]);
  }
}

const roundings = { near: Decimal.ROUND_HALF_UP, up: Decimal.ROUND_UP, down: Decimal.ROUND_DOWN } as const;

/** A mark-up on cost is raised and lowered as the price that it makes; no amount can be said of it. */
function markedUp(formula: ChangeFormula, markUp: ExactText): PriceEntry {
  let factor = exact(markUp).plus(1);
  for (const step of formula) {
    if (step.does === 'share') factor = factor.times(exact(step.by).plus(1));
    else if (step.does === 'times') factor = factor.times(step.factor);
    else if (step.does === 'cost') factor = exact(step.factor);
    else if (step.does === 'margin') {
      const wanted = exact(1).div(exact(1).minus(step.rate));
      factor = step.atLeast && factor.gte(wanted) ? factor : wanted;
    } else throw new Stuck('method');
  }
  return { method: 'costPlus', markUp: roundHalfUp(factor.minus(1), finest).toString() };
}

/** What is wrong with a formula as it stands; null where nothing is. */
export function formulaProblem(
  formula: ChangeFormula,
): 'empty' | 'listNotFirst' | 'margin' | 'toNothing' | null {
  if (formula.length === 0) return 'empty';
  if (formula.some(({ does }, at) => does === 'list' && at > 0)) return 'listNotFirst';
  if (formula.some((step) => step.does === 'margin' && exact(step.rate).gte(1))) return 'margin';
  return formula.some((step) => step.does === 'round' && !exact(step.to).gt(0)) ? 'toNothing' : null;
}

/** What an item inside a build lists at, by the method of its entry: the quantity is that of one build. */
import { Exact, exact, type ExactText } from '../../exact';
import { compileFormula, type Formula } from '../../formula';
import { open, type CompiledModel, type Open, type Reading } from '../../model';
import type { PricedPart, Tariff } from '../types';
import { listed } from './methods';

/** What an item inside a build lists at. */
export type PriceInside =
  | Pick<PricedPart, 'unitPrice' | 'tiers' | 'least' | 'amount'>
  | { share: { rate: ExactText; of: readonly string[] } };

/**
 * Undefined where it cannot be sold inside the build: it has no entry, none for the quantity, one that must
 * be typed, or a formula over what the build does not have.
 */
export function priceIn(
  reading: Reading,
  { prices, costs, entries }: Tariff,
  item: string,
  quantity: ExactText,
): PriceInside | Open | undefined {
  const byPiece = (unitPrice: ExactText): PriceInside => ({
    unitPrice,
    amount: exact(quantity).times(unitPrice).toString(),
  });
  const price = prices[item];
  if (price !== undefined) return byPiece(price);
  const entry = entries?.[item];
  if (!entry) return undefined;
  if (entry.method === 'share') return { share: { rate: entry.rate, of: entry.of } };
  let unsettled = false as boolean;
  const cost = costs?.[item];
  const answer = listed(entry, {
    quantity,
    ...(cost === undefined ? {} : { cost }),
    workOut: (source) => {
      const formula = formulaIn(reading.model, source);
      const value = formula && reading.run(formula);
      unsettled = value === open;
      return value instanceof Exact ? value.toString() : undefined;
    },
  });
  if (unsettled) return open;
  if (answer.is !== 'listed') return undefined;
  if (answer.per === 'unit') return byPiece(answer.amount);
  const { amount, tiers, least } = answer;
  return { amount, ...(tiers ? { tiers } : {}), ...(least === undefined ? {} : { least }) };
}

const formulas = new WeakMap<CompiledModel, Map<string, Formula | null>>();

/**
 * A formula of a price list over the build of a model; undefined where it reads what the model does not have.
 */
export function formulaIn(model: CompiledModel, source: string): Formula | undefined {
  const known = formulas.get(model) ?? new Map<string, Formula | null>();
  formulas.set(model, known);
  if (!known.has(source)) {
    const compiled = compileFormula(source, model.scope, { is: 'number', unit: 'any' });
    known.set(source, compiled.ok ? compiled.formula : null);
  }
  return known.get(source) ?? undefined;
}

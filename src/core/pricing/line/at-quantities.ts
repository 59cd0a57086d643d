/** What a line would come to at other quantities, before its quantity is changed. */
import type { Exact } from '../../exact';
import { exact, roundHalfUp, type ExactText } from '../../exact';
import type { LineTerms, PricedPart } from '../types';
import type { BuildCost } from './cost';
import { walk } from './walk';

/** A quantity, what it comes to, and what a piece of it saves. */
export interface AtQuantity {
  quantity: number;
  /** In all, what is due once a line and over terms among it. */
  net: ExactText;
  /** A piece of it, to the minor unit. */
  each: ExactText;
  /** Less than a piece at the quantity that is there now; below zero where it is more. */
  saves: ExactText;
}

/** Quantities that one asks for. */
const usual = [1, 5, 10, 25, 50, 100];
/** The most that a line has. */
const most = 99_999;

/**
 * The quantity of the line, and others at which a piece comes to something else than at the one before: usual ones, and
 * those from which another level of the quantity discount holds.
 */
export function atQuantities(
  parts: readonly PricedPart[],
  terms: LineTerms,
  decimals: number,
  cost?: BuildCost,
): AtQuantity[] {
  const levels = (terms.quantityDiscount?.levels ?? []).map(({ from }) => Number(from));
  const quantities = [...new Set([...usual, ...levels, terms.quantity])]
    .filter((quantity) => quantity > 0 && quantity <= most)
    .sort((a, b) => a - b);
  const at = (quantity: number): { net: Exact; each: Exact } => {
    const net = exact(walk(parts, { ...terms, quantity }, decimals, cost).net);
    return { net, each: roundHalfUp(net.div(quantity), decimals) };
  };
  const now = at(terms.quantity);
  const rows: AtQuantity[] = [];
  for (const quantity of quantities) {
    const { net, each } = quantity === terms.quantity ? now : at(quantity);
    if (quantity !== terms.quantity && rows.at(-1)?.each === each.toString()) continue;
    rows.push({
      quantity,
      net: net.toString(),
      each: each.toString(),
      saves: now.each.minus(each).toString(),
    });
  }
  return rows;
}

import type { Exact} from '../exact';
import { roundHalfUp, zero } from '../exact';
import type { LinePrice } from './index';

export interface Totals {
  list: string;
  net: string;
  /** list - net. */
  reduction: string;
  cost?: string;
  /** (net - cost) / net. */
  margin?: string;
}

/** Sums lines. The list total is rounded to the minor unit for showing; the net total is a sum of rounded prices and exact. */
export function sumLines(lines: readonly LinePrice[], decimals: number): Totals {
  const sum = (of: (line: LinePrice) => string | undefined) => lines.reduce((all, line) => all.plus(of(line) ?? 0) as Exact, zero);
  const list = roundHalfUp(sum((line) => line.list), decimals);
  const net = sum((line) => line.net);
  const totals: Totals = { list: list.toString(), net: net.toString(), reduction: list.minus(net).toString() };
  if (lines.length === 0 || lines.some((line) => line.cost === undefined)) return totals;
  const cost = sum((line) => line.cost);
  return { ...totals, cost: roundHalfUp(cost, decimals).toString(), ...(net.isZero() ? {} : { margin: net.minus(cost).div(net).toString() }) };
}

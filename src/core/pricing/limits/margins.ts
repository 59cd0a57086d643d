/** Margins, put on a walk at its end. */
import { fixed, minus, ratio } from '../../exact';
import type { LinePrice } from '../types';

/** Tells the margin of a line and of what recurs in it, where costs are known; the line is given back. */
export function withMargins(line: LinePrice): LinePrice {
  const { net, cost, subscriptions } = line;
  if (cost !== undefined) {
    const earned = fixed(net);
    line.margin = earned.units === 0n ? undefined : ratio(minus(earned, fixed(cost)), earned);
  }
  if (subscriptions) for (const each of subscriptions) withMargins(each);
  return line;
}

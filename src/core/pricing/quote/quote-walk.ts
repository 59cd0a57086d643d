/** The walk of a whole quote: what each kind of step comes to over all that counts. */
import {
  compare,
  fixed,
  minus,
  nothing,
  ofQuantity,
  ofWhole,
  plus,
  ratio,
  textOf,
  times,
  type ExactText,
  type Fixed,
} from '../../exact';
import type { LinePrice, StepKind } from '../types';
import { monthsIn } from '../line/recurring';
import { sidesOf } from '../line/walk';

/** A step of the walk of a whole quote. */
export interface QuoteStep {
  /**
   * share: the whole-quote discount; rest: rounding, and what is granted on parts that are not counted with each piece.
   */
  kind: StepKind | 'share' | 'rest';
  amount: ExactText;
  total: ExactText;
}

const order: readonly StepKind[] = [
  'list',
  'inside',
  'surcharge',
  'rates',
  'agreement',
  'quantity',
  'promotion',
  'discount',
];

/**
 * Steps from list to net whose amounts sum to the net exactly. Steps of nothing are left out, save the list.
 */
export function quoteWalk(lines: readonly { price: LinePrice; quantity: number }[]): QuoteStep[] {
  const sums = new Map<StepKind | 'share', Fixed>();
  let net = nothing;
  const add = (kind: StepKind | 'share', amount: Fixed): void => {
    sums.set(kind, plus(sums.get(kind) ?? nothing, amount));
  };
  for (const { price, quantity } of lines.flatMap((line) =>
    sidesOf(line.price).map((side) => ({ price: side, quantity: line.quantity })),
  )) {
    const { recurring } = price;
    const months =
      recurring && monthsIn({ start: recurring.from, months: recurring.months, days: recurring.days });
    const pieces = times(ofQuantity(price.per === 'line' ? 1 : quantity), ofWhole(months?.times ?? 1));
    const inAll = (amount: ExactText): Fixed =>
      recurring && months
        ? fixed(ratio(times(fixed(amount), pieces), ofWhole(months.per * recurring.baseMonths)))
        : times(fixed(amount), pieces);
    for (const { kind, amount } of price.steps) if (kind !== 'rounding') add(kind, inAll(amount));
    if (price.once) add('list', fixed(price.once.list));
    if (price.share !== undefined) add('share', minus(nothing, fixed(price.share)));
    net = plus(net, fixed(price.net));
  }
  const steps: QuoteStep[] = [];
  let total = nothing;
  const step = (kind: QuoteStep['kind'], amount: Fixed): void => {
    total = plus(total, amount);
    steps.push({ kind, amount: textOf(amount), total: textOf(total) });
  };
  for (const kind of order) {
    const amount = sums.get(kind) ?? nothing;
    if (kind === 'list' || amount.units !== 0n) step(kind, amount);
  }
  const share = sums.get('share') ?? nothing;
  const rest = minus(minus(net, share), total);
  if (compare(rest, nothing) !== 0) step('rest', rest);
  if (share.units !== 0n) step('share', share);
  return steps;
}

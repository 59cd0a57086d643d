/** What of a line recurs, as it is told. */
import { fixed, plus, textOf, type ExactText } from '../../exact';
import type { LinePrice, LineRecurring } from '../types';

/** All of a line that recurs: the line itself, or what does inside a build. */
export function recurringIn({
  subscriptions,
  ...line
}: LinePrice): (LinePrice & { recurring: LineRecurring })[] {
  return (subscriptions ?? [line]).flatMap((each) =>
    each.recurring ? [{ ...each, recurring: each.recurring }] : [],
  );
}

/** So much of a line recurs from a day to another. */
export interface Running {
  net: ExactText;
  perMonth: ExactText;
  from: string;
  to: string;
  months: number;
}

/** What of a line with subscriptions recurs, those of the same days together. */
export function runningIn({ subscriptions = [] }: LinePrice): Running[] {
  const found = new Map<string, Running>();
  for (const { net, recurring } of subscriptions) {
    if (!recurring) continue;
    const { from, to, months, perMonth } = recurring;
    const other = found.get(`${from} ${to}`);
    const sum = (a: string, b = '0'): string => textOf(plus(fixed(a), fixed(b)));
    found.set(`${from} ${to}`, {
      net: sum(net, other?.net),
      perMonth: sum(perMonth, other?.perMonth),
      from,
      to,
      months,
    });
  }
  return [...found.values()];
}

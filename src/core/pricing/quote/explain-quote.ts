/** Why a figure of a quote is what it is. */
import type { ExactText } from '../../exact';
import type { LinePrice } from '../types';
import { oneTimeOf, subscribedTo } from './explain-line';
import type { ExplainedLine, Explanation, LineFigure, Operand, QuoteFigure } from './explanation';
import type { PricedQuote } from './quote-types';

/** What a value follows from. */
type Reason = Omit<Explanation, 'figure'>;

/** The figures of a quote as a whole. */
export class QuoteFigures {
  constructor(
    private readonly lines: readonly ExplainedLine[],
    private readonly quote: PricedQuote,
    private readonly decimals: number,
  ) {}

  /** Undefined where the quote has no such figure. */
  explain(what: QuoteFigure): Explanation | undefined {
    const reason = this.reasonOf(what);
    return reason && { figure: { of: 'quote', what }, ...reason };
  }

  private reasonOf(what: QuoteFigure): Reason | undefined {
    const { totals, whole } = this.quote;
    switch (what) {
      case 'list':
        return { value: totals.list, of: this.over('list', ({ list }) => list), rounded: this.decimals };
      case 'net':
        return { value: totals.net, of: this.over('net', ({ net }) => net) };
      case 'reduction':
        return {
          value: totals.reduction,
          of: [this.other('list', totals.list), this.less('net', totals.net)],
        };
      case 'oneTime':
        return { value: totals.oneTime, of: this.dueOnce() };
      case 'recurring':
        return { value: totals.recurring, of: this.overTerms() };
      case 'perMonth':
        return { value: totals.perMonth, of: this.recurs('perMonth') };
      case 'firstYear':
        return {
          value: totals.firstYear,
          of: [this.other('oneTime', totals.oneTime), ...this.recurs('firstYear')],
        };
      case 'share':
        return whole.is === 'spread'
          ? { value: whole.amount, of: this.over('share', ({ share }) => share) }
          : undefined;
      case 'tax':
      case 'gross':
        return this.taxed(what);
      case 'cost':
        return totals.cost === undefined
          ? undefined
          : { value: totals.cost, of: this.over('cost', ({ cost }) => cost), rounded: this.decimals };
      case 'margin':
        return this.margin();
    }
  }

  private dueOnce(): Operand[] {
    return [
      ...this.over('net', ({ net, recurring, subscriptions }) =>
        recurring || subscriptions ? undefined : net,
      ),
      ...this.over('oneTime', (price) => price.subscriptions && oneTimeOf(price)),
    ];
  }

  /** What recurs, over its whole terms: lines that do, and what recurs within others. */
  private overTerms(): Operand[] {
    const within = this.quote.lines.flatMap(({ id, price }, index): Operand[] =>
      this.lines[index]?.counts
        ? (price.subscriptions ?? []).map((each, period): Operand => ({
            is: 'figure',
            figure: { of: 'line', line: id, what: 'net', period },
            value: each.net,
          }))
        : [],
    );
    return [...this.over('net', ({ net, recurring }) => (recurring ? net : undefined)), ...within];
  }

  private recurs(what: 'perMonth' | 'firstYear'): Operand[] {
    return this.over(what, (price) =>
      price.subscriptions ? subscribedTo(price, what) : price.recurring?.[what],
    );
  }

  /** Each rate's tax is rounded by itself. */
  private taxed(what: 'tax' | 'gross'): Reason | undefined {
    const { tax, totals } = this.quote;
    if (!tax) return undefined;
    if (what === 'gross')
      return { value: tax.gross, of: [this.other('net', totals.net), this.other('tax', tax.tax)] };
    return {
      value: tax.tax,
      of: tax.byRate.map(({ rate, net, tax: value }): Operand => ({ is: 'taxed', rate, net, value })),
    };
  }

  /** Costs are summed before they are rounded for showing. */
  private margin(): Reason | undefined {
    const { totals } = this.quote;
    if (totals.cost === undefined || totals.margin === undefined) return undefined;
    const costs = this.over('cost', ({ cost }) => cost).map((each) => ({ ...each, times: '-1' }));
    return {
      value: totals.margin,
      of: [this.other('net', totals.net), ...costs],
      over: this.other('net', totals.net),
    };
  }

  /** A figure of each line that counts and has it. */
  private over(what: LineFigure, value: (price: LinePrice) => ExactText | undefined): Operand[] {
    return this.quote.lines.flatMap(({ id, price }, index): Operand[] => {
      const amount = this.lines[index]?.counts ? value(price) : undefined;
      return amount === undefined
        ? []
        : [{ is: 'figure', figure: { of: 'line', line: id, what }, value: amount }];
    });
  }

  private other(what: QuoteFigure, value: ExactText): Operand {
    return { is: 'figure', figure: { of: 'quote', what }, value };
  }

  private less(what: QuoteFigure, value: ExactText): Operand {
    return { ...this.other(what, value), times: '-1' };
  }
}

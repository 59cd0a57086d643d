/** Why a figure of a line is what it is. */
import { exact, zero, type Exact, type ExactText } from '../../exact';
import { beginningOf, monthsIn } from '../line/recurring';
import { sidesOf } from '../line/walk';
import type { LinePrice, LineRecurring, WalkStep } from '../types';
import type { ExplainedLine, Explanation, LineFigure, Operand } from './explanation';
import type { PricedQuote } from './quote-types';

/** What a value follows from. */
type Reason = Omit<Explanation, 'figure'>;
type Factor = Pick<Operand, 'times' | 'per'>;

/** What recurs, its term, and how many times the months that its price is for are in it. */
interface Recurring {
  recurring: LineRecurring;
  term: { start: LineRecurring['from']; months: number; days: number };
  months: { times: number; per: number };
}

/** The figures of a line, or with `within` of what recurs in it. */
export class LineFigures {
  /** For one piece, over the whole term. */
  private readonly overTerm: Factor;
  /** For all pieces, over the whole term. */
  private readonly inAll: Factor;
  private readonly toMinor: Pick<Explanation, 'rounded'>;
  private readonly recurs: Recurring | undefined;

  constructor(
    private readonly line: ExplainedLine,
    private readonly price: LinePrice,
    private readonly quote: PricedQuote,
    private readonly decimals: number,
    private readonly within?: { period: number; line: LinePrice },
  ) {
    const { recurring } = price;
    const pieces = price.per === 'line' ? exact(1) : exact(line.terms.quantity);
    this.recurs = recurring && recurringOf(recurring);
    this.overTerm = this.recurs ? factorOf(this.recurs) : {};
    this.inAll = { ...this.overTerm, times: pieces.times(this.recurs?.months.times ?? 1).toString() };
    this.toMinor = recurring || !Number.isInteger(line.terms.quantity) ? { rounded: decimals } : {};
  }

  /** Undefined where the line has no such figure. */
  explain(what: LineFigure): Explanation | undefined {
    const reason = this.reasonOf(what);
    const place = this.within ? { period: this.within.period } : {};
    return reason && { figure: { of: 'line', line: this.line.id, what, ...place }, ...reason };
  }

  private reasonOf(what: LineFigure): Reason | undefined {
    const { price } = this;
    switch (what) {
      case 'unitList':
        return {
          value: price.unitList,
          of: this.steps(({ kind }) => kind === 'list' || kind === 'inside' || kind === 'surcharge'),
        };
      case 'unitNet':
        return {
          value: price.unitNet,
          of: this.steps(({ kind }) => kind !== 'rounding'),
          rounded: this.decimals,
        };
      case 'list':
        return this.list();
      case 'before':
        return price.before === undefined ? undefined : { value: price.before, ...this.beforeWhole() };
      case 'share':
        return this.share();
      case 'net':
        return this.net();
      case 'oneTime':
        return this.oneTime();
      case 'perMonth':
      case 'firstYear':
        return this.recurring(what);
      case 'cost':
        return this.cost();
      case 'margin':
        return this.overOther('net', price.net);
      case 'markUp':
        return this.overOther('cost', price.cost);
    }
  }

  private list(): Reason {
    const { price } = this;
    return {
      value: price.list,
      of: [
        ...this.other('unitList', price.unitList, this.inAll),
        ...this.once(price.once?.list),
        ...this.subscribed('list', (each) => each.list),
      ],
      ...this.toMinor,
    };
  }

  /** What the line comes to before the discount of the whole quote. */
  private beforeWhole(): Omit<Reason, 'value'> {
    const { price } = this;
    return {
      of: [
        ...this.other('unitNet', price.unitNet, this.inAll),
        ...this.once(price.once?.net),
        ...(price.subscriptions ?? []).flatMap((each, period) =>
          this.figureAt(each.before === undefined ? 'net' : 'before', each.before ?? each.net, { period }),
        ),
      ],
      ...this.toMinor,
    };
  }

  /** Its share of the discount of the whole quote; what recurs in it has a share of the line's. */
  private share(): Reason | undefined {
    const { price, within } = this;
    const { whole } = this.quote;
    if (price.share === undefined || price.before === undefined || whole.is !== 'spread') return undefined;
    const spread = { rounded: this.decimals, spread: true } as const;
    if (within) {
      const factor = { times: price.before, per: within.line.before ?? '1' };
      return { value: price.share, of: this.figureAt('share', within.line.share, {}, factor), ...spread };
    }
    const share: Operand = {
      is: 'figure',
      figure: { of: 'quote', what: 'share' },
      value: whole.amount,
      times: price.before,
      per: whole.base,
    };
    return { value: price.share, of: [share], ...spread };
  }

  private net(): Reason {
    const { price } = this;
    if (price.share === undefined) return { value: price.net, ...this.beforeWhole() };
    return {
      value: price.net,
      of: [...this.other('before', price.before), ...this.other('share', price.share, { times: '-1' })],
    };
  }

  private oneTime(): Reason | undefined {
    const { price } = this;
    return (
      price.subscriptions && {
        value: oneTimeOf(price),
        of: [...this.other('net', price.net), ...this.subscribed('net', (each) => each.net, { times: '-1' })],
      }
    );
  }

  private recurring(what: 'perMonth' | 'firstYear'): Reason | undefined {
    const { price, recurs } = this;
    if (price.subscriptions)
      return {
        value: subscribedTo(price, what),
        of: this.subscribed(what, ({ recurring }) => recurring?.[what]),
      };
    if (!recurs || recurs.months.times === 0) return undefined;
    const part = what === 'perMonth' ? { times: 1, per: 1 } : monthsIn(beginningOf(recurs.term, 12));
    return {
      value: recurs.recurring[what],
      of: this.other('net', price.net, {
        times: String(part.times * recurs.months.per),
        per: String(part.per * recurs.months.times),
      }),
      rounded: this.decimals,
    };
  }

  private cost(): Reason | undefined {
    const { price } = this;
    if (price.cost === undefined || price.unitCost === undefined) return undefined;
    return {
      value: price.cost,
      of: [
        { is: 'costEach', value: price.unitCost, ...this.inAll },
        ...this.once(price.once?.cost),
        ...this.subscribed('cost', (each) => each.cost),
      ],
      ...this.toMinor,
    };
  }

  /** What is earned as a share of another figure. */
  private overOther(name: 'net' | 'cost', other: ExactText | undefined): Reason | undefined {
    const { price } = this;
    const [over] = this.other(name, other);
    if (price.cost === undefined || !over || exact(over.value).isZero()) return undefined;
    return {
      value: exact(price.net).minus(price.cost).div(over.value).toString(),
      of: [...this.other('net', price.net), ...this.other('cost', price.cost, { times: '-1' })],
      over,
    };
  }

  private figureAt(
    what: LineFigure,
    value: ExactText | undefined,
    at: { period?: number },
    factor: Factor = {},
  ): Operand[] {
    if (value === undefined) return [];
    return [{ is: 'figure', figure: { of: 'line', line: this.line.id, what, ...at }, value, ...factor }];
  }

  /** Another figure of the same. */
  private other(what: LineFigure, value: ExactText | undefined, factor: Factor = {}): Operand[] {
    return this.figureAt(what, value, this.within ? { period: this.within.period } : {}, factor);
  }

  /** Of all that recurs in the line. */
  private subscribed(
    what: LineFigure,
    value: (each: LinePrice) => ExactText | undefined,
    factor: Factor = {},
  ): Operand[] {
    return (this.price.subscriptions ?? []).flatMap((each, period) =>
      this.figureAt(what, value(each), { period }, factor),
    );
  }

  private once(value: ExactText | undefined): Operand[] {
    return value === undefined || exact(value).isZero() ? [] : [{ is: 'once', value, ...this.overTerm }];
  }

  private steps(kinds: (step: WalkStep) => boolean): Operand[] {
    return this.price.steps.filter(kinds).map((step) => ({ is: 'step', step, value: step.amount }));
  }
}

function recurringOf(recurring: LineRecurring): Recurring {
  const term = { start: recurring.from, months: recurring.months, days: recurring.days };
  return { recurring, term, months: monthsIn(term) };
}

/** From the months that a price is for to those of a term. */
const factorOf = ({ recurring, months }: Recurring): Factor => ({
  times: String(months.times),
  per: String(months.per * recurring.baseMonths),
});

/** What of a line with subscriptions is due once. */
export const oneTimeOf = (price: LinePrice): ExactText => sidesOf(price)[0]?.net ?? price.net;
/** What the subscriptions of a line come to. */
export const subscribedTo = ({ subscriptions = [] }: LinePrice, what: 'perMonth' | 'firstYear'): ExactText =>
  subscriptions.reduce<Exact>((sum, each) => sum.plus(each.recurring?.[what] ?? 0), zero).toString();

/**
 * Why a figure is what it is: the figures it is made of, and how. Anybody can work it out again with a
 * pencil.
 */
import { exact, roundHalfUp, zero, type Exact, type ExactText } from '../../exact';
import type { LinePrice, WalkStep } from '../types';
import type { PricedQuote } from './quote-types';
import { beginningOf, monthsIn } from '../line/recurring';
import { sidesOf } from '../line/walk';

/** A figure of a line. */
export type LineFigure =
  | 'unitList'
  | 'unitNet'
  | 'list'
  | 'before'
  | 'share'
  | 'net'
  | 'oneTime'
  | 'perMonth'
  | 'firstYear'
  | 'cost'
  | 'margin'
  | 'markUp';
/** A figure of a quote. */
export type QuoteFigure =
  | 'list'
  | 'net'
  | 'reduction'
  | 'oneTime'
  | 'recurring'
  | 'perMonth'
  | 'firstYear'
  | 'share'
  | 'tax'
  | 'gross'
  | 'cost'
  | 'margin';
/**
 * `period` is the place among what recurs in the line's build; without it the figure is of the whole line.
 */
export type Figure =
  { of: 'line'; line: string; what: LineFigure; period?: number } | { of: 'quote'; what: QuoteFigure };

/** What a figure is made of: another figure, a step of the walk, or something given. */
export type Operand = {
  value: ExactText;
  /** The value counts so many times; -1 takes it off. */
  times?: ExactText;
  /** And is divided by so much. */
  per?: ExactText;
} & (
  | { is: 'figure'; figure: Figure }
  | { is: 'step'; step: WalkStep }
  | { is: 'once' | 'costEach' }
  | { is: 'taxed'; rate: ExactText; net: ExactText }
);

/** What a figure is made of, and how. */
export interface Explanation {
  figure: Figure;
  value: ExactText;
  /** Summed, each times and per what it says. */
  of: Operand[];
  /** The sum is divided by this. */
  over?: Operand;
  /** Rounded half up to so many decimals, once, at the end. */
  rounded?: number;
  /** A part of a whole spread by largest remainder: less than a minor unit from what the operands come to. */
  spread?: true;
}

/** What has to be known of a line to explain its figures. */
export interface ExplainedLine {
  id: string;
  counts: boolean;
  terms: { quantity: number };
}

/**
 * Explains a figure of a priced quote; undefined where there is no such figure, such as a margin without
 * costs.
 */
export function explain(
  lines: readonly ExplainedLine[],
  quote: PricedQuote,
  decimals: number,
  figure: Figure,
): Explanation | undefined {
  if (figure.of === 'quote') return quoteFigure(lines, quote, decimals, figure.what);
  const index = lines.findIndex((line) => line.id === figure.line);
  const [line, price] = [lines[index], quote.lines[index]?.price];
  if (!line || !price) return undefined;
  if (figure.period === undefined) return lineFigure(line, price, quote, decimals, figure.what);
  const within = price.subscriptions?.[figure.period];
  return (
    within && lineFigure(line, within, quote, decimals, figure.what, { period: figure.period, line: price })
  );
}

/** Whether the value follows from the operands as the explanation says. */
export function worksOut({ value, of, over, rounded, spread }: Explanation): boolean {
  const one = ({ value: each, times = '1', per = '1' }: Operand): Exact => exact(each).times(times).div(per);
  const sum = of.reduce((all, each) => all.plus(one(each)), zero);
  const result = over ? sum.div(one(over)) : sum;
  if (spread)
    return result
      .minus(value)
      .abs()
      .lt(exact(10).pow(-(rounded ?? 0)));
  return (rounded === undefined ? result : roundHalfUp(result, rounded)).minus(value).abs().lt('1e-20');
}

/** Of a line, or with `within` of what recurs in it. */
function lineFigure(
  line: ExplainedLine,
  price: LinePrice,
  { whole }: PricedQuote,
  decimals: number,
  what: LineFigure,
  within?: { period: number; line: LinePrice },
): Explanation | undefined {
  const place = within ? { period: within.period } : {};
  const figure: Figure = { of: 'line', line: line.id, what, ...place };
  const figureAt = (
    name: LineFigure,
    value: ExactText | undefined,
    at: { period?: number },
    more: Pick<Operand, 'times' | 'per'> = {},
  ): Operand[] =>
    value === undefined
      ? []
      : [{ is: 'figure', figure: { of: 'line', line: line.id, what: name, ...at }, value, ...more }];
  const other = (
    name: LineFigure,
    value: ExactText | undefined,
    more: Pick<Operand, 'times' | 'per'> = {},
  ): Operand[] => figureAt(name, value, place, more);
  /** Of all that recurs in the line. */
  const subscribed = (
    name: LineFigure,
    value: (each: LinePrice) => ExactText | undefined,
    more: Pick<Operand, 'times'> = {},
  ): Operand[] =>
    (price.subscriptions ?? []).flatMap((each, period) => figureAt(name, value(each), { period }, more));
  const { recurring } = price;
  const term = recurring && { start: recurring.from, months: recurring.months, days: recurring.days };
  const months = term && monthsIn(term);
  const pieces = price.per === 'line' ? exact(1) : exact(line.terms.quantity);
  /** For all pieces, over the whole term. */
  const overTerm = months
    ? { times: String(months.times), per: String(months.per * recurring.baseMonths) }
    : {};
  const inAll = { ...overTerm, times: pieces.times(months?.times ?? 1).toString() };
  const toMinor = recurring || !Number.isInteger(line.terms.quantity) ? { rounded: decimals } : {};
  const once = (value: ExactText | undefined): Operand[] =>
    value === undefined || exact(value).isZero() ? [] : [{ is: 'once', value, ...overTerm }];
  const steps = (kinds: (step: WalkStep) => boolean): Operand[] =>
    price.steps.filter(kinds).map((step) => ({ is: 'step', step, value: step.amount }));
  const before = (): Omit<Explanation, 'figure' | 'value'> => ({
    of: [
      ...other('unitNet', price.unitNet, inAll),
      ...once(price.once?.net),
      ...(price.subscriptions ?? []).flatMap((each, period) =>
        figureAt(each.before === undefined ? 'net' : 'before', each.before ?? each.net, { period }),
      ),
    ],
    ...toMinor,
  });
  switch (what) {
    case 'unitList':
      return {
        figure,
        value: price.unitList,
        of: steps(({ kind }) => kind === 'list' || kind === 'inside' || kind === 'surcharge'),
      };
    case 'unitNet':
      return {
        figure,
        value: price.unitNet,
        of: steps(({ kind }) => kind !== 'rounding'),
        rounded: decimals,
      };
    case 'list':
      return {
        figure,
        value: price.list,
        of: [
          ...other('unitList', price.unitList, inAll),
          ...once(price.once?.list),
          ...subscribed('list', (each) => each.list),
        ],
        ...toMinor,
      };
    case 'before':
      return price.before === undefined ? undefined : { figure, value: price.before, ...before() };
    case 'share': {
      if (price.share === undefined || price.before === undefined || whole.is !== 'spread') return undefined;
      if (within)
        return {
          figure,
          value: price.share,
          of: figureAt(
            'share',
            within.line.share,
            {},
            { times: price.before, per: within.line.before ?? '1' },
          ),
          rounded: decimals,
          spread: true,
        };
      const share: Operand = {
        is: 'figure',
        figure: { of: 'quote', what: 'share' },
        value: whole.amount,
        times: price.before,
      };
      return {
        figure,
        value: price.share,
        of: [{ ...share, per: whole.base }],
        rounded: decimals,
        spread: true,
      };
    }
    case 'net':
      return price.share === undefined
        ? { figure, value: price.net, ...before() }
        : {
            figure,
            value: price.net,
            of: [...other('before', price.before), ...other('share', price.share, { times: '-1' })],
          };
    case 'oneTime':
      return (
        price.subscriptions && {
          figure,
          value: oneTimeOf(price),
          of: [...other('net', price.net), ...subscribed('net', (each) => each.net, { times: '-1' })],
        }
      );
    case 'perMonth':
    case 'firstYear': {
      if (price.subscriptions)
        return {
          figure,
          value: subscribedTo(price, what),
          of: subscribed(what, ({ recurring: each }) => each?.[what]),
        };
      if (!recurring || !term || !months || months.times === 0) return undefined;
      const part = what === 'perMonth' ? { times: 1, per: 1 } : monthsIn(beginningOf(term, 12));
      return {
        figure,
        value: recurring[what],
        of: other('net', price.net, {
          times: String(part.times * months.per),
          per: String(part.per * months.times),
        }),
        rounded: decimals,
      };
    }
    case 'cost': {
      if (price.cost === undefined || price.unitCost === undefined) return undefined;
      return {
        figure,
        value: price.cost,
        of: [
          { is: 'costEach', value: price.unitCost, ...inAll },
          ...once(price.once?.cost),
          ...subscribed('cost', (each) => each.cost),
        ],
        ...toMinor,
      };
    }
    case 'margin':
    case 'markUp': {
      const [over] = what === 'margin' ? other('net', price.net) : other('cost', price.cost);
      if (price.cost === undefined || !over || exact(over.value).isZero()) return undefined;
      const value = exact(price.net).minus(price.cost).div(over.value).toString();
      return {
        figure,
        value,
        of: [...other('net', price.net), ...other('cost', price.cost, { times: '-1' })],
        over,
      };
    }
  }
}

/** What of a line with subscriptions is due once. */
const oneTimeOf = (price: LinePrice): ExactText => sidesOf(price)[0]?.net ?? price.net;
const subscribedTo = ({ subscriptions = [] }: LinePrice, what: 'perMonth' | 'firstYear'): ExactText =>
  subscriptions.reduce((sum, each) => sum.plus(each.recurring?.[what] ?? 0), zero).toString();

function quoteFigure(
  lines: readonly ExplainedLine[],
  { lines: priced, totals, whole, tax }: PricedQuote,
  decimals: number,
  what: QuoteFigure,
): Explanation | undefined {
  const figure: Figure = { of: 'quote', what };
  const over = (name: LineFigure, value: (price: LinePrice) => ExactText | undefined): Operand[] =>
    priced.flatMap(({ id, price }, index): Operand[] => {
      const amount = lines[index]?.counts ? value(price) : undefined;
      return amount === undefined
        ? []
        : [{ is: 'figure', figure: { of: 'line', line: id, what: name }, value: amount }];
    });
  const subscribedNets = priced.flatMap(({ id, price }, index): Operand[] =>
    lines[index]?.counts
      ? (price.subscriptions ?? []).map((each, period): Operand => ({
          is: 'figure',
          figure: { of: 'line', line: id, what: 'net', period },
          value: each.net,
        }))
      : [],
  );
  const recurs = (name: 'perMonth' | 'firstYear'): Operand[] =>
    over(name, (price) => (price.subscriptions ? subscribedTo(price, name) : price.recurring?.[name]));
  const other = (name: QuoteFigure, value: ExactText, times?: ExactText): Operand => ({
    is: 'figure',
    figure: { of: 'quote', what: name },
    value,
    ...(times === undefined ? {} : { times }),
  });
  switch (what) {
    case 'list':
      return { figure, value: totals.list, of: over('list', ({ list }) => list), rounded: decimals };
    case 'net':
      return { figure, value: totals.net, of: over('net', ({ net }) => net) };
    case 'reduction':
      return {
        figure,
        value: totals.reduction,
        of: [other('list', totals.list), other('net', totals.net, '-1')],
      };
    case 'oneTime':
      return {
        figure,
        value: totals.oneTime,
        of: [
          ...over('net', ({ net, recurring, subscriptions }) =>
            recurring || subscriptions ? undefined : net,
          ),
          ...over('oneTime', (price) => price.subscriptions && oneTimeOf(price)),
        ],
      };
    case 'recurring':
      return {
        figure,
        value: totals.recurring,
        of: [...over('net', ({ net, recurring }) => (recurring ? net : undefined)), ...subscribedNets],
      };
    case 'perMonth':
      return { figure, value: totals.perMonth, of: recurs('perMonth') };
    case 'firstYear':
      return {
        figure,
        value: totals.firstYear,
        of: [other('oneTime', totals.oneTime), ...recurs('firstYear')],
      };
    case 'share':
      return whole.is === 'spread'
        ? { figure, value: whole.amount, of: over('share', ({ share }) => share) }
        : undefined;
    case 'tax':
      // Each rate's tax is rounded by itself.
      return (
        tax && {
          figure,
          value: tax.tax,
          of: tax.byRate.map(({ rate, net, tax: value }): Operand => ({ is: 'taxed', rate, net, value })),
        }
      );
    case 'gross':
      return tax && { figure, value: tax.gross, of: [other('net', totals.net), other('tax', tax.tax)] };
    case 'cost':
      return totals.cost === undefined
        ? undefined
        : { figure, value: totals.cost, of: over('cost', ({ cost }) => cost), rounded: decimals };
    case 'margin': {
      if (totals.cost === undefined || totals.margin === undefined) return undefined;
      // Costs are summed before they are rounded for showing.
      return {
        figure,
        value: totals.margin,
        of: [
          other('net', totals.net),
          ...over('cost', ({ cost }) => cost).map((each) => ({ ...each, times: '-1' })),
        ],
        over: other('net', totals.net),
      };
    }
  }
}

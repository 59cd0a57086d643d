/**
 * Why a figure is what it is: the figures it is made of, and how. Anybody can work it out again with a
 * pencil.
 */
import { exact, roundHalfUp, zero, type Exact } from '../../exact';
import { LineFigures } from './explain-line';
import { QuoteFigures } from './explain-quote';
import type { ExplainedLine, Explanation, Figure, Operand } from './explanation';
import type { PricedQuote } from './quote-types';

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
  if (figure.of === 'quote') return new QuoteFigures(lines, quote, decimals).explain(figure.what);
  const index = lines.findIndex((line) => line.id === figure.line);
  const [line, price] = [lines[index], quote.lines[index]?.price];
  if (!line || !price) return undefined;
  if (figure.period === undefined) return new LineFigures(line, price, quote, decimals).explain(figure.what);
  const within = price.subscriptions?.[figure.period];
  const place = { period: figure.period, line: price };
  return within && new LineFigures(line, within, quote, decimals, place).explain(figure.what);
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

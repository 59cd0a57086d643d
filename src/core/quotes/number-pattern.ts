/**
 * How the numbers of quotes, orders and work orders are written. In a pattern stand for what differs: {yy} or
 * {yyyy} the year, {market} the market of the customer, {000} the count with so many digits at least, and of a work
 * order {order} what the number of its order has behind its letters; all else is as it stands. Where the market
 * stands in it, each counts for itself.
 */

/** Numbers of a kind: how they are written, and whether the count begins anew with each year. */
export interface NumberRange {
  pattern: string;
  yearly: boolean;
}

/** What is wrong with a pattern. */
export type PatternProblem =
  'house.pattern.sign' | 'house.pattern.count' | 'house.pattern.year' | 'house.pattern.long';

const longest = 24;
const part = /\{(yy|yyyy|market|0{1,9}|order)\}/g;

/** What is wrong with a range; null where its numbers can be told apart. `of` an order: of its work orders. */
export function rangeProblem(
  { pattern, yearly }: NumberRange,
  of: 'year' | 'order' = 'year',
): PatternProblem | null {
  if (pattern.length > longest) return 'house.pattern.long';
  const parts = [...pattern.matchAll(part)].map(([, name = '']) => name);
  if (parts.filter((name) => name.startsWith('0')).length !== 1) return 'house.pattern.count';
  if (!/^[A-Za-z0-9./_-]*$/.test(pattern.replace(part, ''))) return 'house.pattern.sign';
  // A digit beside the count could be one of it.
  if (/[\d}]\{0|0\}[\d{]/.test(pattern)) return 'house.pattern.sign';
  if (of === 'order')
    return !parts.includes('order')
      ? 'house.pattern.count'
      : parts.includes('market')
        ? 'house.pattern.sign'
        : null;
  if (parts.includes('order')) return 'house.pattern.sign';
  return yearly && !parts.some((name) => name.startsWith('y')) ? 'house.pattern.year' : null;
}

/** Whether each market counts for itself. */
export const byMarket = ({ pattern }: NumberRange): boolean => pattern.includes('{market}');

/** The number of a count in a year, for a market; of a work order, with the number of its order. */
export function numberBy(
  pattern: string,
  { year, count, market = '', order = '' }: { year: number; count: number; market?: string; order?: string },
): string {
  return pattern.replace(part, (_, name: string) =>
    name === 'yyyy'
      ? String(year)
      : name === 'yy'
        ? String(year % 100).padStart(2, '0')
        : name === 'market'
          ? market
          : name === 'order'
            ? order.replace(/^[A-Za-z]+[-_/. ]*/, '')
            : String(count).padStart(name.length, '0'),
  );
}

/** Numbers as people write them, made into plain decimals. */

/** A share without its sign: "3,5 %" is "3.5". */
export const plainPercent = (typed: string): string => typed.trim().replace(/\s*%$/, '').replace(',', '.');

const signs: Readonly<Record<string, string>> = { '€': 'EUR', $: 'USD', '£': 'GBP', '¥': 'JPY' };

/** An amount as typed apart from the currency before or behind it, written as a code or a sign. */
export function withoutCurrency(typed: string): { amount: string; currency?: string } {
  const found =
    /^\s*([A-Za-z]{3}|[€$£¥])?\s*([^A-Za-z€$£¥]*\d[^A-Za-z€$£¥]*?)\s*([A-Za-z]{3}|[€$£¥])?\s*$/.exec(typed);
  const written = found?.[1] ?? found?.[3];
  return found && written !== undefined && !(found[1] && found[3])
    ? { amount: found[2] ?? '', currency: signs[written] ?? written.toUpperCase() }
    : { amount: typed };
}

/**
 * An amount as it travels. Of two kinds of sign the last is the decimal one; a single kind groups where it is
 * the sign that groups in the person's language and stands before three digits each, or comes more than once.
 */
export function plainMoney(typed: string, grouping: ',' | '.' = ','): string {
  const text = typed.trim().replace(/[\s\u00a0\u202f]/g, '');
  const last = Math.max(text.lastIndexOf('.'), text.lastIndexOf(','));
  if (last < 0) return text;
  const sign = text[last] as string;
  const both = text.includes('.') && text.includes(',');
  const groups =
    !both && (text.split(sign).length > 2 || (sign === grouping && /^-?\d{1,3}[.,]\d{3}$/.test(text)));
  return groups
    ? text.replaceAll(sign, '')
    : `${text.slice(0, last).replace(/[.,]/g, '')}.${text.slice(last + 1)}`;
}

import { monthsOfPart, type PricedPart } from '../core/pricing';
import { money, number, percent } from './format';
import type { Translate } from './texts';

/**
 * How the amount of a part came about, so that it can be worked out with a pencil: how many at what, by which
 * tiers of the quantity, as which share.
 */
export function partHow(
  { quantity, unitPrice, tiers, least, rate, kind }: PricedPart,
  t: Translate,
  language: string,
  decimals: number,
): string {
  if (rate !== undefined) return `${kind === 'inside' ? '−' : ''}${percent(rate, language)}`;
  if (unitPrice !== undefined)
    return quantity === undefined || quantity === '1'
      ? ''
      : `${number(quantity, language)} × ${money(unitPrice, language, decimals)}`;
  if (least !== undefined) return `${t('ledger.least')} ${money(least, language, decimals)}`;
  return (tiers ?? [])
    .map(({ quantity: many, rate: each, from, below }) =>
      each !== undefined
        ? `${number(many, language)} × ${number(each, language, 6)}`
        : below === undefined
          ? t('ledger.tierFrom', { from })
          : t('ledger.tier', { from, below }),
    )
    .join(' + ');
}

/** The same over its whole term, where it recurs: "(1,000 × 0.12 + 1,400 × 0.09) × 18/12 for 18 months". */
export function partHowInAll(part: PricedPart, t: Translate, language: string, decimals: number): string {
  const how = partHow(part, t, language, decimals);
  if (!part.recurs) return how;
  const [months, { baseMonths }] = [monthsOfPart(part.recurs), part.recurs];
  const times = months === baseMonths ? '' : `× ${String(months)}/${String(baseMonths)}`;
  return [times && how.includes(' + ') ? `(${how})` : how, times, t('walk.forMonths', { count: months })]
    .filter(Boolean)
    .join(' ');
}

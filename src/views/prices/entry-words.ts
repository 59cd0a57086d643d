/** Entries of price lists in words and figures. */
import { exact } from '../../core/exact';
import { cellsOfEntry, leadingPrice, type ListEntry } from '../../core/prices';
import { money } from '../../i18n';
import type { InWords } from '../speech';

/** What an entry says, short enough for a cell; null is one that ends. */
export function entryText(given: ListEntry | null, decimals: number, { t, language }: InWords): string {
  if (!given) return t('prices.ends');
  const { entry, every } = given;
  const cells = cellsOfEntry(given, language, decimals);
  const plain = ((): string => {
    switch (entry.method) {
      case 'unit':
        return money(entry.price, language, decimals);
      case 'bracket':
      case 'graduated':
      case 'usage':
        return `${t(`prices.method.${entry.method}`)}: ${cells.tiers}`;
      case 'costPlus':
        return `${t('prices.method.costPlus')} ${cells.price}`;
      case 'share':
        return `${cells.price} ${t('prices.ofThese', { names: cells.of })}`;
      case 'formula':
        return entry.formula;
      default:
        return t(`prices.method.${entry.method}`);
    }
  })();
  return every ? `${plain} ${t('prices.every', { count: every.baseMonths })}` : plain;
}

/** What an entry comes to for one, or for its first tier, with the way where it is not by the piece. */
export function shortText(given: ListEntry, decimals: number, words: InWords): string {
  const { method } = given.entry;
  if (method !== 'bracket' && method !== 'graduated' && method !== 'usage')
    return entryText(given, decimals, words);
  const first = leadingPrice(given.entry, undefined)?.amount;
  const way = words.t(`prices.method.${method}`);
  return first === undefined ? way : `${way} ${money(first, words.language, decimals)}`;
}

/** The margin of what an entry comes to for one, or for the first tier, in percent; empty where none can be told. */
export function marginText(given: ListEntry | null, cost: string, language: string): string {
  const margin = given && leadingPrice(given.entry, cost)?.margin;
  return margin === null || margin === undefined ? '' : percentText(margin, language);
}

/** How much more or less an entry comes to, as a share; null where it cannot be told. */
export function changeOf(before: ListEntry | null, after: ListEntry | null, cost: string): string | null {
  const [was, is] = [leadingPrice(before?.entry, cost)?.amount, leadingPrice(after?.entry, cost)?.amount];
  return was === undefined || is === undefined || exact(was).isZero()
    ? null
    : exact(is).div(was).minus(1).toString();
}

/** A share in percent, with its sign where it is a change. */
export function percentText(share: string, language: string, sign = false): string {
  const percent = exact(share).times(100).toDecimalPlaces(1);
  const text = `${money(percent.toString(), language, 1)} %`;
  return sign && percent.gt(0) ? `+${text}` : text;
}

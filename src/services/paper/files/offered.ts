/** What of a quote stands on its quotation. */
import { exact, roundHalfUp } from '../../../core/exact';
import { resaleOf, sumLines, taxed, type LinePrice, type Taxed } from '../../../core/pricing';
import type { LineView, QuoteView } from '../../../contract';

/**
 * What the customer is offered: of a dealer's quote the dealer's own prices, and nothing of what the dealer
 * pays.
 */
export function offered(quote: QuoteView): QuoteView {
  const { resale, decimals } = quote;
  if (!resale) return quote;
  const lines = quote.lines.map((line): LineView => {
    const { unit, total } = resaleOf(line.price, line.quantity, resale.share, decimals, line.resale);
    const resold = (amount: string) => scaled(amount, total, line.price.net, decimals);
    const priced = ({ subscriptions, ...price }: LinePrice, each: string, all: string): LinePrice => {
      const { steps: _steps, share: _share, before: _before, recurring, once: _once, ...kept } = price;
      return {
        ...kept,
        ...(recurring
          ? {
              recurring: {
                ...recurring,
                perMonth: resold(recurring.perMonth),
                firstYear: resold(recurring.firstYear),
              },
            }
          : {}),
        steps: [],
        unitList: each,
        unitNet: each,
        list: all,
        net: all,
        ...(subscriptions
          ? { subscriptions: subscriptions.map((own) => priced(own, resold(own.unitNet), resold(own.net))) }
          : {}),
      };
    };
    return { ...line, price: priced(line.price, unit ?? total, total) };
  });
  const totals = sumLines(
    lines.filter((line) => !line.optional && !line.alternative).map(({ price }) => price),
    decimals,
  );
  const { tax: _tax, ...untaxed } = quote;
  return { ...untaxed, ...taxOn(lines, decimals), lines, totals, lease: null };
}

/** Tax on what a dealer sells for; nothing where a line's rate is not known. */
function taxOn(lines: readonly LineView[], decimals: number): { tax?: Taxed } {
  const counted = lines
    .filter((line) => !line.optional && !line.alternative)
    .map(({ price: { net }, taxRate: rate }) => ({ net, rate }));
  return counted.length === 0 || counted.some(({ rate }) => rate === undefined)
    ? {}
    : { tax: taxed(counted as { net: string; rate: string }[], decimals) };
}

const scaled = (amount: string, by: string, from: string, decimals: number): string =>
  exact(from).isZero() ? '0' : roundHalfUp(exact(amount).times(by).div(from), decimals).toString();

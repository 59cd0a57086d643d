/** Tax on a quote, by where it is delivered to. */
import { exact } from '../../core/exact';
import { taxed, taxRate, type Taxed, type TaxRate } from '../../core/pricing';
import type { QuotedLine } from '../quotes/figures/quote-pricing';
import { today } from '../kernel/clock';
import { marketIn } from './house';
import { taxRatesOn } from './in-force';
import { reference } from './reference-data';

/** Whether prices for a country are without tax, as its market is used to. */
export const leavesTaxApart = async (country: string): Promise<boolean> =>
  (await marketIn(country)).tax === 'apart';

/** The rate for a class of item in a country; undefined where none is known. */
export async function taxRatesIn(country: string): Promise<(taxClass: string) => string | undefined> {
  const rows = taxRatesOn(await reference(), today()).filter((row) => row.country === country);
  const rates = rows.map(({ class: of, rate }): TaxRate => ({
    country,
    ...(of === null ? {} : { class: of }),
    rate: exact(rate).toString(),
  }));
  return (taxClass) => taxRate(rates, country, taxClass);
}

/**
 * Tax on what counts; undefined where the market leaves it apart, or the country, or a class of item in it, has
 * no rate.
 */
export async function taxOf(
  country: string,
  counted: readonly QuotedLine[],
  decimals: number,
): Promise<Taxed | undefined> {
  if (await leavesTaxApart(country)) return undefined;
  const rateOf = await taxRatesIn(country);
  const lines = counted.map(({ item, price }) => ({ net: price.net, rate: rateOf(item.taxClass) }));
  // Without a line nothing tells whether the country has rates.
  if (lines.some(({ rate }) => rate === undefined) || (lines.length === 0 && rateOf('') === undefined))
    return undefined;
  return taxed(lines as { net: string; rate: string }[], decimals);
}

/** Tax on a quote, by where it is delivered to. */
import type { Transaction } from 'sequelize';
import { exact } from '../core/exact';
import { taxed, taxRate, type Taxed, type TaxRate } from '../core/pricing';
import { connected, type CustomerCopy } from '../data';
import type { QuotedLine } from './quote-pricing';

/** The country of the delivery address, else of the first there is. */
export const deliveredTo = ({ addresses }: CustomerCopy): string => (addresses.find(({ kind }) => kind === 'delivery') ?? addresses[0])?.country ?? '';

/** Tax on what counts; undefined where the country, or a class of item in it, has no rate. */
export async function taxOf(country: string, counted: readonly QuotedLine[], decimals: number, transaction: Transaction | null): Promise<Taxed | undefined> {
  const rows = await connected().records.taxRates.findAll({ where: { country }, transaction, raw: true });
  const rates = rows.map(({ class: of, rate }): TaxRate => ({ country, ...(of === null ? {} : { class: of }), rate: exact(rate).toString() }));
  const lines = counted.map(({ item, price }) => ({ net: price.net, rate: taxRate(rates, country, item.taxClass) }));
  if (rates.length === 0 || lines.some(({ rate }) => rate === undefined)) return undefined;
  return taxed(lines as { net: string; rate: string }[], decimals);
}

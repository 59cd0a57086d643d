/** What a customer is granted: agreements and promotions, and discounts by quantity. */
import { Exact } from '../../core/exact';
import type { Grant, LineTerms } from '../../core/pricing';
import type { Texts } from '../../core/model';
import type { AgreementView } from '../../contract';
import type { CustomerClass, GrantRow } from '../../data';
import { quantityDiscountsOn } from './in-force';
import { reference } from './reference-data';

/** Who buys, from which list; nobody yet is granted what everybody is. */
export interface Buyer {
  id: string | null;
  class: CustomerClass | null;
  priceList: string;
}

/** What a customer is granted on a line. */
export type Granted = Pick<LineTerms, 'agreements' | 'quantityDiscount' | 'promotions'>;

const plain = (amount: string): string => new Exact(amount).toString();

const grantOf = ({ id, name, rate, price, validFrom, validTo, fixed }: GrantRow): Grant => ({
  id,
  name,
  ...(rate === null ? {} : { rate: plain(rate) }),
  ...(price === null ? {} : { price: plain(price) }),
  ...(validFrom === null ? {} : { from: validFrom }),
  ...(validTo === null ? {} : { to: validTo }),
  ...(fixed ? { fixed } : {}),
});

/** All grants that concern a buyer, whether they hold today or not. */
async function grantedTo({ id, class: kind, priceList }: Buyer): Promise<GrantRow[]> {
  return (await reference()).grants.filter(
    (row) =>
      (row.customerId === null ? row.class === null || row.class === kind : row.customerId === id) &&
      (row.priceList === null || row.priceList === priceList),
  );
}

const concerns = (row: GrantRow, sku: string, family: string): boolean =>
  (row.sku === null || row.sku === sku) && (row.family === null || row.family === family);

/** What a buyer has been granted by agreement, and which of some lines it concerns. */
export async function agreementsWith(
  buyer: Buyer,
  day: string,
  lines: readonly { position: number; sku: string; family: string }[],
): Promise<AgreementView[]> {
  const { items, families } = await reference();
  const own = (await grantedTo(buyer)).filter((row) => row.kind === 'agreement');
  const nameOf = (code: string): Texts | null =>
    items.get(code)?.name ?? families.find((family) => family.code === code)?.name ?? null;
  return own.map((row) => {
    const { name, rate, price, from, to, fixed = false } = grantOf(row);
    return {
      name,
      of: nameOf(row.sku ?? row.family ?? ''),
      ...(rate === undefined ? {} : { rate }),
      ...(price === undefined ? {} : { price }),
      ...(from === undefined ? {} : { from }),
      ...(to === undefined ? {} : { to }),
      fixed,
      holds: from !== undefined && day < from ? 'notYet' : to !== undefined && to < day ? 'over' : 'now',
      lines: lines.filter(({ sku, family }) => concerns(row, sku, family)).map(({ position }) => position),
    };
  });
}

/**
 * All that concerns a buyer, whether it holds today or not: the walk tells why something does not. By item
 * and family, on the day of a price.
 */
export async function grantsFor(
  buyer: Buyer,
): Promise<(sku: string, family: string, day: string) => Granted> {
  const own = await grantedTo(buyer);
  const known = await reference();
  return (sku, family, day) => {
    const byQuantity = quantityDiscountsOn(known, day);
    const here = own.filter((row) => concerns(row, sku, family));
    const of = (wanted: GrantRow['kind']) => here.filter((row) => row.kind === wanted).map(grantOf);
    const [agreements, promotions] = [of('agreement'), of('promotion')];
    const quantity =
      byQuantity.find((row) => row.sku === sku) ?? byQuantity.find((row) => row.family === family);
    return {
      ...(agreements.length > 0 ? { agreements } : {}),
      ...(promotions.length > 0 ? { promotions } : {}),
      ...(quantity
        ? { quantityDiscount: { name: quantity.name, by: quantity.by, levels: quantity.levels } }
        : {}),
    };
  };
}

/** What of the reference data holds on a day. */
import { inForce, type Dated } from '../../core/terms';
import type { FreightRateRow, Kept } from '../../data';
import type { Reference } from './reference-data';

/** Rows of reference data stay the same objects as long as nothing of it changes: what holds is found once a day. */
const found = new WeakMap<readonly object[], Map<string, readonly unknown[]>>();

function on<T extends Dated>(rows: readonly T[], keyOf: (row: T) => string, day: string): readonly T[] {
  const days = found.get(rows) ?? new Map<string, readonly unknown[]>();
  found.set(rows, days);
  const known = days.get(day);
  if (known) return known as readonly T[];
  const held = [...inForce(rows, keyOf, day).values()];
  days.set(day, held);
  return held;
}

/** By what two rows say something of the same, so that the later follows the earlier; by its id a row is for itself. */
export const keysOfTerms = {
  grants: ({ id }: Kept) => id,
  quantityDiscounts: ({ family, sku }: { family: string | null; sku: string | null }) =>
    `${family ?? ''} ${sku ?? ''}`,
  limits: ({ role, family, by }: { role: string; family: string | null; by: string }) =>
    `${role} ${family ?? ''} ${by}`,
  policies: ({ id }: Kept) => id,
  taxRates: ({ country, class: of }: { country: string; class: string | null }) => `${country} ${of ?? ''}`,
  freightRates: ({ priceList, country }: { priceList: string; country: string | null }) =>
    `${priceList} ${country ?? ''}`,
  plans: ({ role }: { role: string }) => role,
  workCentres: ({ code }: { code: string }) => code,
} as const;

/** Discounts by quantity that hold on a day. */
export const quantityDiscountsOn = ({ quantityDiscounts }: Reference, day: string) =>
  on(quantityDiscounts, keysOfTerms.quantityDiscounts, day);
/** Limits that hold on a day. */
export const limitsOn = ({ limits }: Pick<Reference, 'limits'>, day: string) =>
  on(limits, keysOfTerms.limits, day);
/** Policies that hold on a day. */
export const policiesOn = ({ policies }: Pick<Reference, 'policies'>, day: string) =>
  on(policies, keysOfTerms.policies, day);
/** Rates of tax that hold on a day. */
export const taxRatesOn = ({ taxRates }: Reference, day: string) => on(taxRates, keysOfTerms.taxRates, day);
/** What freight on a list costs to a country on a day: its own row, or that of all other countries. */
export function freightOn(
  { freightRates }: Pick<Reference, 'freightRates'>,
  priceList: string,
  country: string,
  day: string,
): FreightRateRow | undefined {
  const rows = on(freightRates, keysOfTerms.freightRates, day).filter((row) => row.priceList === priceList);
  return rows.find((row) => row.country === country) ?? rows.find((row) => row.country === null);
}
/** Commission plans that hold on a day. */
export const plansOn = ({ plans }: Reference, day: string) => on(plans, keysOfTerms.plans, day);
/** Work centres with what an hour costs on a day. */
export const workCentresOn = ({ workCentres }: Reference, day: string) =>
  on(workCentres, keysOfTerms.workCentres, day);

import type { Transaction } from 'sequelize';
import { Exact } from '../core/exact';
import type { LineTerms } from '../core/pricing';
import { connected, type CustomerClass } from '../data';

/** The best class discount in force per family. */
export async function agreementsOf(kind: CustomerClass, day: string, transaction: Transaction | null = null): Promise<(family: string) => LineTerms['agreement']> {
  const rows = await connected().records.agreements.findAll({ where: { class: kind }, transaction, raw: true });
  const best = new Map<string, Exact>();
  for (const row of rows) {
    if (row.validFrom > day) continue;
    const rate = new Exact(row.rate);
    const known = best.get(row.family);
    if (!known || rate.gt(known)) best.set(row.family, rate);
  }
  return (family) => {
    const rate = best.get(family);
    return rate && { rate: rate.toString(), name: kind };
  };
}

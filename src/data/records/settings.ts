/** Rows and tables of what is granted and who may grant it. */
import { DataTypes } from 'sequelize';
import type { Texts } from '../../core/model';
import type { QuantityDiscount } from '../../core/pricing';
import type { Role } from '../../contract';
import type { CustomerClass } from './customers';
import type { Dated } from '../../core/terms';
import type { Kept } from './catalogue';
import { dated, key, text, jsonb, ref, bool, int, money, now, type Define } from './columns';

/**
 * Granted to a customer or a class (or, of a promotion, to everybody), for a family or an item: a share off,
 * or a price of its own in one list.
 */
export interface GrantRow extends Dated, Kept {
  kind: 'agreement' | 'promotion';
  name: Texts;
  class: CustomerClass | null;
  customerId: string | null;
  family: string | null;
  sku: string | null;
  rate: string | null;
  price: string | null;
  priceList: string | null;
  fixed: boolean;
  /** The one that ended for it. */
  follows: string | null;
}

/** A discount by quantity. */
export interface QuantityDiscountRow extends QuantityDiscount, Dated, Kept {
  name: Texts;
  family: string | null;
  sku: string | null;
}

/** How far a role may go by itself; discounts and margins as shares. */
export interface LimitRow extends Dated, Kept {
  role: Role;
  family: string | null;
  by: 'discount' | 'margin';
  target: string;
  limitAt: string;
  floor: string;
  signs: Role;
  above: Role;
}

/** Something about the quotes of a role that another role must sign; the condition is FEEL over the quote. */
export interface PolicyRow extends Dated, Kept {
  role: Role;
  name: Texts;
  condition: string;
  signs: Role;
  /** The one that ended for it. */
  follows: string | null;
}

/** What a sale earns who made it: the higher rate is on what is above the target price. */
export interface CommissionPlanRow extends Dated, Kept {
  role: Role;
  baseRate: string;
  higherRate: string;
}

/** A part of what the house says of itself. */
export interface HousePartRow {
  part: string;
  value: unknown;
  version: number;
  changedAt: Date;
  changedBy: string | null;
}

/** Its tables. */
export const settingsRecords = (table: Define) => ({
  grants: table<GrantRow>('grants', {
    ...dated(),
    kind: text,
    name: jsonb,
    class: text,
    customerId: ref,
    family: text,
    sku: text,
    rate: DataTypes.DECIMAL(9, 6),
    price: money,
    priceList: text,
    fixed: bool,
    follows: ref,
  }),
  quantityDiscounts: table<QuantityDiscountRow>('quantity_discounts', {
    ...dated(),
    name: jsonb,
    family: text,
    sku: text,
    by: text,
    levels: jsonb,
  }),
  limits: table<LimitRow>('limits', {
    ...dated(),
    role: text,
    family: text,
    by: text,
    target: DataTypes.DECIMAL(9, 6),
    limitAt: DataTypes.DECIMAL(9, 6),
    floor: DataTypes.DECIMAL(9, 6),
    signs: text,
    above: text,
  }),
  policies: table<PolicyRow>('policies', {
    ...dated(),
    role: text,
    name: jsonb,
    condition: text,
    signs: text,
    follows: ref,
  }),
  houseParts: table<HousePartRow>('house_parts', {
    part: key(text),
    value: jsonb,
    version: int,
    changedAt: now(),
    changedBy: ref,
  }),
  commissionPlans: table<CommissionPlanRow>('commission_plans', {
    ...dated(),
    role: text,
    baseRate: DataTypes.DECIMAL(9, 6),
    higherRate: DataTypes.DECIMAL(9, 6),
  }),
});

/** What stands in the files of the demo. */
import type { Family, Item } from '../../core/items';
import type { Texts } from '../../core/model';
import type { Term } from '../../core/pricing';
import type { Lost } from '../../core/quotes';
import type { TypedInput, Role } from '../../contract';
import type { CustomerClass, GrantRow, LimitRow, QuantityDiscountRow } from '../../data';
import type { ChangeFile, EntryFile } from './demo-entries';

/** A customer with the addresses and people there. */
export interface CustomerFile {
  number: string;
  name: string;
  class: CustomerClass;
  priceList: string;
  language: string;
  region: string;
  dealer: string | null;
  addresses: {
    kind: 'invoice' | 'delivery';
    street: string;
    town: string;
    postcode: string;
    country: string;
  }[];
  contacts: { name: string; email: string; task?: string }[];
  paymentDays?: number;
}
/** An item of the master. */
export type ItemFile = Pick<Item, 'sku' | 'family' | 'name'> & Partial<Item>;
/** A family of items. */
export type FamilyFile = Pick<Family, 'code' | 'name'> & Partial<Family>;
/** A quantity discount. */
export type QuantityFile = Pick<QuantityDiscountRow, 'name' | 'by' | 'levels'> &
  Partial<Pick<QuantityDiscountRow, 'family' | 'sku'>>;
/** A limit of a role. */
export type LimitFile = Omit<LimitRow, 'id' | 'limitAt' | 'family'> & { family?: string; limit: string };
/** A grant; to everybody where no customer is named. */
export type GrantFile = Partial<Omit<GrantRow, 'id' | 'version' | 'customerId' | 'validFrom' | 'validTo'>> &
  Pick<GrantRow, 'name'> & { customer?: string; from?: string; to?: string };

/** A line of a quote: an item by number, or a build of a model. */
export interface LineFile {
  group?: string;
  model?: string;
  item?: string;
  term?: Term;
  price?: string;
  hand?: TypedInput;
  locked?: boolean;
  optional?: boolean;
  decisions?: { on: string; value: string | boolean | null }[];
  passed?: { rule: string; reason: string }[];
  quantity: number;
}
/** What somebody who signs said: yes, no, or yes on other discounts, by line. */
export interface AnswerFile {
  by: string;
  answer: 'yes' | 'no' | 'counter';
  comment: string;
  counter?: { line: number; rate: string }[];
}
/**
 * A quote. `daysAgo`: opened then, at the prices of then; `send`: sent, the day after or when `sentDaysAgo` says, and
 * then revised as `then` says; `settledDaysAgo`: accepted or lost then, and not today.
 */
export interface QuoteFile {
  daysAgo?: number;
  resale?: string;
  send?: boolean;
  sentDaysAgo?: number;
  then?: { line: number; quantity?: number; hand?: TypedInput }[];
  answer?: AnswerFile;
  lost?: Lost;
  settledDaysAgo?: number;
  by: string;
  ask?: string;
  customer: string;
  title: string;
  lines: LineFile[];
  whole?: TypedInput;
  accept: boolean;
}
/** Somebody who signs in. */
export interface UserFile {
  email: string;
  name: string;
  role: Role;
  language: string;
  dealer: string | null;
  quota?: string;
}

/** A price list with what it lists, and what it lists inside of bundles. */
export interface PriceListFile {
  code: string;
  name: Texts;
  currency: string;
  decimals: number;
  costRate: string;
  from: string;
  entries: Record<string, string | EntryFile>;
  inside?: Record<string, Record<string, string>>;
}
/** Prices that rise some days before the demo is loaded, whenever that is. */
export interface PriceChangeFile {
  priceList: string;
  daysAgo: number;
  entries: Record<string, ChangeFile>;
}

/** Reads a file of the demo by its name. */
export type Read = <T>(name: string) => Promise<T>;

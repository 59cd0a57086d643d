/** Rows and tables of what is sold and made, at which price and cost. */
import { DataTypes } from 'sequelize';
import type { Family, Item } from '../../core/items';
import type { Texts } from '../../core/model';
import type { PriceEntry } from '../../core/pricing';
import { key, text, int, json, jsonb, day, ref, bool, money, type Define } from './columns';

/** A price list with its currency. */
export interface PriceListRow {
  code: string;
  name: Texts;
  currency: string;
  decimals: number;
  costRate: string;
  validFrom: string;
}

/** A family of items; its properties come down to those inside it. */
export interface FamilyRow extends Family {
  position: number;
  version: number;
}

/** An item; its cost is for one, in EUR. */
export interface ItemRow extends Item {
  /** Counts its changes. */
  version: number;
}

/**
 * How an item is priced in a list from a day on, until a later entry or the last day; with base months, for
 * that long. `inside` is the item of a bundle inside which alone it is priced so; empty anywhere.
 */
export interface PriceEntryRow {
  priceList: string;
  sku: string;
  inside: string;
  entry: PriceEntry;
  baseMonths: number | null;
  leastMonths: number | null;
  validFrom: string;
  validTo: string | null;
}

/** A work centre and what an hour of it costs. */
export interface WorkCentreRow {
  code: string;
  name: Texts;
  rate: string;
}

/** A rate of tax by country; without a class, for all that have no rate of their own. */
export interface TaxRateRow {
  id: string;
  country: string;
  class: string | null;
  rate: string;
}

/** Its tables. */
export const catalogueRecords = (table: Define) => ({
  priceLists: table<PriceListRow>('price_lists', {
    code: key(text),
    name: jsonb,
    currency: text,
    decimals: int,
    costRate: money,
    validFrom: day,
  }),
  families: table<FamilyRow>('families', {
    code: key(text),
    name: jsonb,
    position: int,
    parent: text,
    properties: { type: json, defaultValue: [] },
    version: { type: int, defaultValue: 1 },
  }),
  items: table<ItemRow>('items', {
    sku: key(text),
    family: text,
    name: jsonb,
    kind: text,
    unit: text,
    cost: money,
    leadDays: int,
    mass: money,
    sold: bool,
    discountable: { type: bool, defaultValue: true },
    taxClass: { type: text, defaultValue: 'standard' },
    coversMonths: int,
    note: { type: jsonb, defaultValue: {} },
    says: { type: jsonb, defaultValue: {} },
    properties: { type: jsonb, defaultValue: {} },
    active: { type: bool, defaultValue: true },
    bars: { type: json, defaultValue: [] },
    usualQuantity: money,
    step: money,
    serials: { type: bool, defaultValue: false },
    replacedBy: text,
    goesWith: { type: json, defaultValue: [] },
    picture: ref,
    dataSheet: ref,
    version: { type: int, defaultValue: 1 },
  }),
  priceEntries: table<PriceEntryRow>('price_entries', {
    priceList: key(text),
    sku: key(text),
    inside: { ...key(text), defaultValue: '' },
    entry: jsonb,
    baseMonths: int,
    leastMonths: int,
    validFrom: key(day),
    validTo: day,
  }),
  workCentres: table<WorkCentreRow>('work_centres', { code: key(text), name: jsonb, rate: money }),
  taxRates: table<TaxRateRow>('tax_rates', {
    id: key(ref),
    country: text,
    class: text,
    rate: DataTypes.DECIMAL(9, 6),
  }),
});

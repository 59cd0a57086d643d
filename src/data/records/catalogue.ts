/** Rows and tables of what is sold and made, at which price and cost. */
import { DataTypes } from 'sequelize';
import type { Family, Item } from '../../core/items';
import type { Texts } from '../../core/model';
import type { WrongRow } from '../../core/prices';
import type { PriceEntry } from '../../core/pricing';
import type { Dated } from '../../core/terms';
import {
  key,
  text,
  int,
  json,
  jsonb,
  day,
  dated,
  ref,
  bool,
  instant,
  money,
  now,
  type Define,
} from './columns';

/** What is kept under a version, so that nobody writes over what another has just changed. */
export interface Kept {
  id: string;
  version: number;
}

/** A price list with its currency. */
export interface PriceListRow {
  code: string;
  name: Texts;
  currency: string;
  decimals: number;
  costRate: string;
  validFrom: string;
  version: number;
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
 * How an item is priced in a list, or null where it is priced no more; with base months, for that long. `inside` is the
 * item of a bundle inside which alone it is priced so; empty anywhere.
 */
interface EntryFields {
  priceList: string;
  sku: string;
  inside: string;
  entry: PriceEntry | null;
  baseMonths: number | null;
  leastMonths: number | null;
}

/** An entry that holds from a day on, until a later entry or the last day; `changeId`: the price change it came with. */
export interface PriceEntryRow extends EntryFields, Dated {
  validFrom: string;
  changeId: string | null;
}

/** A named set of entries in force from a day, once it is published. */
export interface PriceChangeRow {
  id: string;
  name: string;
  note: string;
  inForce: string;
  state: 'draft' | 'published' | 'withdrawn';
  version: number;
  madeAt: Date;
  madeBy: string | null;
  changedAt: Date;
  settledAt: Date | null;
  settledBy: string | null;
  /** The job that works out what it would do, for which version it did, and whether somebody has looked. */
  impactJob: string | null;
  impactVersion: number | null;
  impactSeen: boolean;
}

/** A row of a price change: an entry as it is to be, the formula it was made by, or what could not be read of it. */
export interface PriceChangeEntryRow extends EntryFields {
  changeId: string;
  /** Names the row within its change: where it stands, or of one that cannot be read the row of its file. */
  place: string;
  formula: string | null;
  wrong: WrongRow | null;
}

/** A row of what something would do out there, worked out by a job. */
export interface WhatIfRow<T = unknown> {
  job: string;
  position: number;
  verdict: string;
  row: T;
}

/** A work centre and what an hour of it costs. */
export interface WorkCentreRow extends Dated, Kept {
  code: string;
  name: Texts;
  rate: string;
}

/** What freight costs by country of delivery; without one, to all that have none of their own. In the currency of the list. */
export interface FreightRateRow extends Dated, Kept {
  priceList: string;
  country: string | null;
  base: string;
  perKg: string;
  least: string;
}

/** A rate of tax by country; without a class, for all that have no rate of their own. */
export interface TaxRateRow extends Dated, Kept {
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
    version: { type: int, defaultValue: 1 },
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
    changeId: ref,
  }),
  priceChanges: table<PriceChangeRow>('price_changes', {
    id: key(ref),
    name: text,
    note: { type: text, defaultValue: '' },
    inForce: day,
    state: { type: text, defaultValue: 'draft' },
    version: { type: int, defaultValue: 1 },
    madeAt: now(),
    madeBy: ref,
    changedAt: now(),
    settledAt: instant,
    settledBy: ref,
    impactJob: ref,
    impactVersion: int,
    impactSeen: { type: bool, defaultValue: false },
  }),
  priceChangeRows: table<PriceChangeEntryRow>('price_change_rows', {
    changeId: key(ref),
    place: key(text),
    priceList: text,
    sku: text,
    inside: { type: text, defaultValue: '' },
    entry: jsonb,
    baseMonths: int,
    leastMonths: int,
    formula: text,
    wrong: json,
  }),
  whatIfs: table<WhatIfRow>('what_ifs', { job: key(ref), position: key(int), verdict: text, row: json }),
  workCentres: table<WorkCentreRow>('work_centres', { ...dated(), code: text, name: jsonb, rate: money }),
  freightRates: table<FreightRateRow>('freight_rates', {
    ...dated(),
    priceList: text,
    country: text,
    base: money,
    perKg: money,
    least: money,
  }),
  taxRates: table<TaxRateRow>('tax_rates', {
    ...dated(),
    country: text,
    class: text,
    rate: DataTypes.DECIMAL(9, 6),
  }),
});

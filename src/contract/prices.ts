/** Price lists as they are on a day, and price changes: made ready, looked at, published, withdrawn. */
import { array, mixed, object, string, type Schema } from 'yup';
import { skuPattern } from '../core/items';
import {
  entryCells,
  type EntryCell,
  type EntryProblem,
  type EntryWarning,
  type ListEntry,
  type WrongRow,
} from '../core/prices';
import type { Texts } from '../core/model';
import { endpoint, file, json } from './endpoint';
import {
  day,
  exactly,
  find,
  id,
  note,
  optionalDay,
  page,
  said,
  version,
  type Page,
  type Sent,
} from './schema';

/** Rows that are kept in a price change at once at most. */
export const mostEntries = 20_000;

const list = string().strict().max(40, 'input.tooLong').required('input.required');
const sku = string().strict().matches(skuPattern, 'item.badNumber').required('item.badNumber');
/** Empty where it is anywhere. */
const inside = string().strict().max(40, 'input.tooLong').defined('input.required');

/** Which entries of a list are looked at, and on which day. */
export const entriesQuery = object({
  day: optionalDay,
  family: string().max(40, 'input.tooLong'),
  find,
  page,
});
/** What passes `entriesQuery`. */
export type EntriesQuery = Sent<typeof entriesQuery>;

/** One entry's past and future. */
export const entryQuery = object({ list, sku, inside: string().max(40, 'input.tooLong').default('') });
/** What passes `entryQuery`. */
export type EntryQuery = Sent<typeof entryQuery>;

/** A price change as it is called, and from which day it is to be in force. */
export const priceChangeInput = exactly({ name: said(80, 'change.noName'), inForce: day, note });
/** What passes `priceChangeInput`. */
export type PriceChangeInput = Sent<typeof priceChangeInput>;

/** The same against a version. */
export const priceChangeEditInput = exactly({
  version,
  name: said(80, 'change.noName'),
  inForce: day,
  note,
});
/** What passes `priceChangeEditInput`. */
export type PriceChangeEditInput = Sent<typeof priceChangeEditInput>;

const cells = mixed<Partial<Record<EntryCell, string>>>()
  .test('cells', 'input.invalid', (given: unknown) => {
    if (given === null || typeof given !== 'object' || Array.isArray(given)) return false;
    const known: readonly string[] = entryCells;
    return Object.entries(given).every(
      ([cell, text]) => known.includes(cell) && typeof text === 'string' && text.length <= 2_000,
    );
  })
  .required('input.required');

const place = { list, sku, inside };
/**
 * Rows of a price change as they are typed, in the language of who types them, and those that are taken out of it;
 * `mended`: rows of a file that could not be read and that these stand for.
 */
export const changeRowsInput = exactly({
  version,
  rows: array()
    .strict()
    .of(exactly({ ...place, cells }))
    .max(mostEntries, 'input.tooMany')
    .required('input.required'),
  out: array()
    .strict()
    .of(string().strict().max(140, 'input.tooLong').required('input.required'))
    .max(mostEntries, 'input.tooMany')
    .required('input.required'),
}) as unknown as Schema<{
  version: number;
  rows: { list: string; sku: string; inside: string; cells: Partial<Record<EntryCell, string>> }[];
  out: string[];
}>;
/** What passes `changeRowsInput`. */
export type ChangeRowsInput = Sent<typeof changeRowsInput>;

/** A formula, and over which entries of a list it is made: all that are found by a family and by words, or named ones. */
export const formulaInput = exactly({
  version,
  list,
  formula: string()
    .strict()
    .trim()
    .min(1, 'formula.empty')
    .max(200, 'input.tooLong')
    .required('formula.empty'),
  family: string().max(40, 'input.tooLong').nullable().default(null),
  find,
  skus: array().of(sku).max(mostEntries, 'input.tooMany').nullable().default(null),
  /** Single figures typed over are made anew too. */
  typedToo: mixed<boolean>()
    .test('flag', 'input.invalid', (given: unknown) => given === undefined || typeof given === 'boolean')
    .default(false),
}) as unknown as Schema<{
  version: number;
  list: string;
  formula: string;
  family: string | null;
  find: string;
  skus: string[] | null;
  typedToo: boolean;
}>;
/** What passes `formulaInput`. */
export type FormulaInput = Sent<typeof formulaInput>;

/** A sheet that was brought, and the list of its rows that name none. */
export const changeSheetInput = exactly({ version, file: id, list });
/** What passes `changeSheetInput`. */
export type ChangeSheetInput = Sent<typeof changeSheetInput>;

const changeVersion = exactly({ version });

/** Which rows of a price change are looked at. */
export const changeQuery = object({
  list: string().max(40, 'input.tooLong'),
  family: string().max(40, 'input.tooLong'),
  find,
  only: string().oneOf(['wrong', 'warned', 'typed'] as const, 'input.badKind'),
  page,
});
/** What passes `changeQuery`. */
export type ChangeQuery = Sent<typeof changeQuery>;

/** Which rows of an impact are looked at. */
export const whatIfQuery = object({
  is: string().oneOf(['same', 'other', 'decide'] as const, 'input.badKind'),
  page,
});
/** What passes `whatIfQuery`. */
export type WhatIfQuery = Sent<typeof whatIfQuery>;

/** A price list, and how many items it prices today. */
export interface ListHead {
  code: string;
  name: Texts;
  currency: string;
  decimals: number;
  entries: number;
}

/** draft: being made ready. ahead: published, and not in force yet. inForce: its day has come. */
export type ChangeStand = 'draft' | 'ahead' | 'inForce' | 'withdrawn';

/** A price change, as it is told of where it is not open. */
export interface PriceChangeHead {
  id: string;
  name: string;
  note: string;
  inForce: string;
  stand: ChangeStand;
  rows: number;
  version: number;
  by: string;
  changedAt: string;
  /** When it was published or withdrawn, and by whom. */
  settled: { at: string; by: string } | null;
}

/** Lists and changes. */
export interface PricesView {
  lists: ListHead[];
  changes: PriceChangeHead[];
  families: { code: string; name: Texts; parent: string | null }[];
  /** Items of bundles and models, inside which something can have a price of its own. */
  bundles: { sku: string; name: Texts }[];
  today: string;
}

/** An entry of a list as it is on a day. */
export interface EntryView {
  sku: string;
  name: Texts;
  family: string;
  inside: string;
  now: ListEntry;
  /** From which day on it is in force. */
  from: string;
  /** Of one piece, in the currency of the list. */
  cost: string;
  /** What follows it by a published change, and from when. */
  next: { from: string; change: string; entry: ListEntry | null } | null;
  /** Changes being made ready that have it, by their ids. */
  drafts: string[];
}

/** A page of the entries of a list. */
export interface EntriesPage extends Page<EntryView> {
  day: string;
}

/** An entry through time. */
export interface EntryHistory {
  /** The latest first. */
  rows: {
    from: string;
    to: string | null;
    entry: ListEntry | null;
    stand: 'ahead' | 'now' | 'over';
    /** The change that brought it, and who published that. */
    change: { id: string; name: string; by: string } | null;
  }[];
}

/** A row of a price change. */
export interface ChangeRowView {
  place: string;
  list: string;
  sku: string;
  inside: string;
  name: Texts;
  family: string;
  before: ListEntry | null;
  /** Null where the item is in the list no more, or where the row is wrong. */
  after: ListEntry | null;
  /** The formula that it was made by; null where it was typed. */
  formula: string | null;
  wrong: WrongRow | null;
  cost: string;
  problems: EntryProblem[];
  warnings: EntryWarning[];
}

/** What a price change comes to as a whole. */
export interface ChangeSums {
  rows: number;
  raised: number;
  lowered: number;
  same: number;
  fresh: number;
  ends: number;
  /** Rows that cannot be read, or have something to be mended. */
  wrong: number;
  belowCost: number;
  /** Rows of items that are missing in another list. */
  missing: number;
  typed: number;
  /** Mean change of the prices that were there, each counted once; null where none was. */
  mean: string | null;
}

/** A price change with some of its rows. */
export interface PriceChangeView extends Page<ChangeRowView> {
  head: PriceChangeHead;
  sums: ChangeSums;
  /** The job that works out what it would do: for this very version, and whether somebody has looked. */
  impact: { job: string; current: boolean; seen: boolean } | null;
  may: { edit: boolean; publish: boolean; withdraw: boolean };
  steps: ChangeSteps;
  lists: ListHead[];
}

/** The steps that can be taken back and done again: what they did, and who. */
export interface ChangeSteps {
  undo: { what: 'rows' | 'formula' | 'sheet' | 'edited'; by: string } | null;
  redo: ChangeSteps['undo'];
}

/** What a formula came to. */
export interface FormulaAnswer {
  made: number;
  /** Items that it could not be made for, by why, each with some of them named. */
  stuck: { why: string; count: number; skus: string[] }[];
  /** Figures typed over, which were left as they are. */
  left: number;
  change: PriceChangeView;
}

/** A quote or order, before and after something is in force. */
export interface WhatIfDocument {
  is: 'same' | 'other' | 'decide';
  at: { is: 'quote' | 'order'; id: string; number: string; title: string };
  customer: string;
  owner: string;
  currency: string;
  decimals: number;
  net: { before: string; after: string };
  margin: { before: string | null; after: string | null };
  /** Roles that must sign, and have not. */
  signs: { before: string[]; after: string[] };
  /** Lines that cannot be sold as they stand. */
  unsold: { before: number; after: number };
}

/** A page of what something would do out there. */
export interface WhatIfView extends Page<WhatIfDocument> {
  counts: Record<WhatIfDocument['is'], number>;
  /** By currency, what was sold in twelve months and what it would have come to. */
  sold: { currency: string; decimals: number; before: string; after: string }[];
  /** The same of open quotes. */
  open: { currency: string; decimals: number; before: string; after: string }[];
}

/** The job that was asked for. */
export interface AskedJob {
  job: string;
}

/** Endpoints of price lists and price changes. */
export const prices = {
  'GET /prices/all': endpoint({
    says: 'All price lists and price changes.',
    who: 'prices',
    answers: json<PricesView>('PricesView'),
  }),
  'GET /prices/lists/{list}': endpoint({
    says: 'A page of the entries of a list on a day.',
    who: 'prices',
    query: entriesQuery,
    answers: json<EntriesPage>('EntriesPage'),
  }),
  'GET /prices/lists/{list}/as.{format}': endpoint({
    says: 'The entries of a list on a day as a file for spreadsheets (csv or xlsx), as it is taken in again.',
    who: 'prices',
    query: entriesQuery,
    answers: file,
  }),
  'GET /prices/entry': endpoint({
    says: 'What an item lists at in a list, was listed at, and will be.',
    who: 'prices',
    query: entryQuery,
    answers: json<EntryHistory>('EntryHistory'),
  }),
  'POST /prices/changes': endpoint({
    says: 'Begins a price change.',
    who: 'prices',
    input: priceChangeInput,
    answers: json<PriceChangeHead>('PriceChangeHead'),
  }),
  'GET /prices/changes/{id}': endpoint({
    says: 'A price change with a page of its rows, each with what it was and will be.',
    who: 'prices',
    query: changeQuery,
    answers: json<PriceChangeView>('PriceChangeView'),
  }),
  'PUT /prices/changes/{id}': endpoint({
    says: 'Changes the name, note and day of a price change that is being made ready.',
    who: 'prices',
    input: priceChangeEditInput,
    answers: json<PriceChangeView>('PriceChangeView'),
  }),
  'DELETE /prices/changes/{id}': endpoint({
    says: 'Takes away a price change that is being made ready.',
    who: 'prices',
    input: changeVersion,
    answers: json<PricesView>('PricesView'),
  }),
  'PUT /prices/changes/{id}/rows': endpoint({
    says: 'Puts rows into a price change as they are typed, and takes others out.',
    who: 'prices',
    input: changeRowsInput,
    most: 8 * 1024 * 1024,
    answers: json<PriceChangeView>('PriceChangeView'),
  }),
  'POST /prices/changes/{id}/formula': endpoint({
    says: 'Makes entries by a formula over marked ones; single figures that were typed stay.',
    who: 'prices',
    input: formulaInput,
    most: 2 * 1024 * 1024,
    answers: json<FormulaAnswer>('FormulaAnswer'),
  }),
  'POST /prices/changes/{id}/undo': endpoint({
    says: 'Takes the last step of a price change back.',
    who: 'prices',
    input: changeVersion,
    answers: json<PriceChangeView>('PriceChangeView'),
  }),
  'POST /prices/changes/{id}/redo': endpoint({
    says: 'Does a step of a price change again that was taken back.',
    who: 'prices',
    input: changeVersion,
    answers: json<PriceChangeView>('PriceChangeView'),
  }),
  'POST /prices/changes/{id}/sheet': endpoint({
    says: 'Takes the rows of a brought CSV or XLSX file into a price change, as a job: all or none.',
    who: 'prices',
    input: changeSheetInput,
    answers: json<AskedJob>('AskedJob'),
  }),
  'POST /prices/changes/{id}/impact': endpoint({
    says: 'Works out in the background what a price change would do to open quotes, and to what was sold.',
    who: 'prices',
    input: changeVersion,
    answers: json<AskedJob>('AskedJob'),
  }),
  'GET /prices/changes/{id}/impact': endpoint({
    says: 'A page of what a price change would do out there.',
    who: 'prices',
    query: whatIfQuery,
    answers: json<WhatIfView>('WhatIfView'),
  }),
  'GET /prices/changes/{id}/impact/as.{format}': endpoint({
    says: 'What a price change would do out there as a file for spreadsheets (csv or xlsx).',
    who: 'prices',
    query: whatIfQuery,
    answers: file,
  }),
  'POST /prices/changes/{id}/publish': endpoint({
    says: 'Publishes a price change: it is in force from its day on.',
    who: 'prices',
    input: changeVersion,
    answers: json<PriceChangeView>('PriceChangeView'),
  }),
  'POST /prices/changes/{id}/withdraw': endpoint({
    says: 'Withdraws a published price change before its day.',
    who: 'prices',
    input: changeVersion,
    answers: json<PriceChangeView>('PriceChangeView'),
  }),
};

/** Items and families as whoever keeps them sees and changes them. */
import { array, mixed, number, object, string, type Schema } from 'yup';
import {
  itemKinds,
  skuPattern,
  type Family,
  type Item,
  type ItemProperty,
  type PropertyValue,
} from '../core/items';
import type { Texts } from '../core/model';
import { endpoint, file, json } from './endpoint';
import type { AskedJob } from './prices';
import { exactly, flag, oneOf, version, whole, type Sent } from './schema';

/** Items that are kept at once at most. */
export const mostItems = 20_000;

const sku = string().strict().matches(skuPattern, 'item.badNumber');
const familyCode = string()
  .strict()
  .matches(/^[a-z][a-zA-Z0-9-]{0,39}$/, 'family.badCode');

const languages = (most: number) => ({
  en: string().strict().max(most, 'input.tooLong'),
  de: string().strict().max(most, 'input.tooLong'),
});
/** A text in every language that it is written in. */
const texts = (most: number) => exactly(languages(most)) as unknown as Schema<Texts>;
/** One that may be absent. */
const optionalTexts = (most: number) =>
  object(languages(most)).exact('input.unknownField').default(undefined) as unknown as Schema<
    Texts | undefined
  >;

/** An amount as exact text, with as many decimals as are kept. */
const amount = string()
  .strict()
  .matches(/^-?\d{1,12}(\.\d{1,6})?$/, 'item.noAmount');
const optionalAmount = amount.nullable();
const optionalFile = string().strict().uuid('input.badId').nullable();

const values = mixed<Readonly<Record<string, PropertyValue>>>().test(
  'values',
  'item.badValue',
  (given: unknown) => {
    if (given === undefined) return true;
    if (given === null || typeof given !== 'object' || Array.isArray(given)) return false;
    const all = Object.entries(given);
    return (
      all.length <= 200 &&
      all.every(
        ([id, value]) =>
          id.length <= 40 &&
          (typeof value === 'boolean' || (typeof value === 'string' && value.length <= 500)),
      )
    );
  },
);

const bar = exactly({
  class: string().strict().max(20, 'input.tooLong').nullable().default(null),
  region: string().strict().max(20, 'input.tooLong').nullable().default(null),
  role: string().strict().max(20, 'input.tooLong').nullable().default(null),
  reason: texts(300),
});

/** What is told of an item in a row: what is left out stays as it is, and of a new one as it is usual. */
const cells = {
  family: familyCode,
  name: optionalTexts(200),
  kind: oneOf(itemKinds, 'item.badKind'),
  unit: string().strict().trim().min(1, 'input.required').max(12, 'input.tooLong'),
  cost: amount,
  leadDays: whole(2_000).optional(),
  mass: optionalAmount,
  active: flag,
  sold: flag,
  discountable: flag,
};

const more = {
  note: optionalTexts(2_000),
  says: optionalTexts(4_000),
  properties: values,
  bars: array().strict().of(bar).max(50, 'input.tooMany'),
  taxClass: string().strict().trim().min(1, 'input.required').max(40, 'input.tooLong'),
  usualQuantity: optionalAmount,
  step: optionalAmount,
  serials: flag,
  coversMonths: number()
    .strict()
    .integer('quantity.whole')
    .min(0, 'quantity.range')
    .max(1_200, 'quantity.range')
    .nullable(),
  replacedBy: sku.nullable(),
  goesWith: array().strict().of(sku.required('item.badNumber')).max(50, 'input.tooMany'),
  picture: optionalFile,
  dataSheet: optionalFile,
};

const itemRow = exactly({
  sku: sku.required('item.badNumber'),
  /** Of a new one there is none. */
  version: version.optional().default(undefined),
  ...cells,
});
/** Rows of items: new ones, and what is different of those that are there; all of them or none. */
export const itemRowsInput = exactly({
  rows: array()
    .strict()
    .of(itemRow)
    .min(1, 'input.required')
    .max(mostItems, 'input.tooMany')
    .required('input.required'),
});
/** What passes `itemRowsInput`. */
export type ItemRowsInput = Sent<typeof itemRowsInput>;

/** An item as it is to be: what is left out stays as it is. */
export const itemInput = exactly({ version, ...cells, ...more });
/** What passes `itemInput`. */
export type ItemInput = Sent<typeof itemInput>;

const property = mixed<ItemProperty>()
  .test('property', 'family.badProperty', isProperty)
  .required('input.required');

function isTexts(given: unknown): given is Texts {
  return (
    given !== null &&
    typeof given === 'object' &&
    !Array.isArray(given) &&
    Object.entries(given).every(
      ([language, text]) => ['en', 'de'].includes(language) && typeof text === 'string' && text.length <= 200,
    )
  );
}

/** Whether it has all that its type needs, and nothing else. */
function isProperty(given: unknown): given is ItemProperty {
  if (given === null || typeof given !== 'object') return false;
  const { id, name, is, ...rest } = given as Record<string, unknown>;
  if (typeof id !== 'string' || id.length > 40 || !isTexts(name)) return false;
  const own = Object.keys(rest);
  switch (is) {
    case 'number':
      return (
        own.length === 2 &&
        typeof rest.unit === 'string' &&
        rest.unit.length <= 12 &&
        Number.isInteger(rest.decimals) &&
        Number(rest.decimals) >= 0 &&
        Number(rest.decimals) <= 6
      );
    case 'choice':
      return (
        own.length === 1 &&
        Array.isArray(rest.options) &&
        rest.options.length <= 200 &&
        rest.options.every((option: unknown) => {
          const { id: of, name: called, ...others } = (option ?? {}) as Record<string, unknown>;
          return (
            typeof of === 'string' && of.length <= 40 && isTexts(called) && Object.keys(others).length === 0
          );
        })
      );
    case 'yesNo':
    case 'text':
      return own.length === 0;
    default:
      return false;
  }
}

const family = {
  name: texts(200),
  parent: familyCode.nullable().default(null),
  properties: array().of(property).max(100, 'input.tooMany').required('input.required') as unknown as Schema<
    readonly ItemProperty[]
  >,
};
/** A family as it is to be; of a new one there is no version. */
export const familyInput = exactly({ version: version.optional().default(undefined), ...family });
/** What passes `familyInput`. */
export type FamilyInput = Sent<typeof familyInput>;

/** An item as the list has it; `picture`: whether it has one. */
export type ItemRowView = Pick<
  Item,
  | 'sku'
  | 'family'
  | 'name'
  | 'kind'
  | 'unit'
  | 'cost'
  | 'leadDays'
  | 'mass'
  | 'active'
  | 'sold'
  | 'discountable'
> & { version: number };

/** A family, and how many items are directly in it. */
export interface FamilyView extends Family {
  version: number;
  items: number;
}

/** All items and families. */
export interface ItemsView {
  items: ItemRowView[];
  /** In their order. */
  families: FamilyView[];
}

/** Something that uses an item: what kind of thing, its name, and where it is to be seen. */
export interface ItemUse {
  is: 'model' | 'list' | 'quote' | 'order' | 'item' | 'grant';
  name: Texts;
  /** A path of the application; empty where it has no page. */
  path: string;
  /** How often, or what it is there. */
  count: number;
}

/** A change of something, with what it was before and after. */
export interface KeptChange {
  /** ISO. */
  at: string;
  by: string;
  action: string;
  /** Names of fields, each with how it was and is, as texts of JSON. */
  changes: { field: string; from: string; to: string }[];
}

/** An item with all that belongs to it. */
export interface ItemView {
  item: Item;
  version: number;
  /** Properties of its family, those of the outermost first. */
  properties: ItemProperty[];
  families: FamilyView[];
  /** What bars, taxes and kinds can be chosen from. */
  classes: string[];
  regions: string[];
  roles: string[];
  taxClasses: string[];
  uses: ItemUse[];
  /** The newest first. */
  history: KeptChange[];
  /** List prices of one in each price list, today; null where there is none, or another way of pricing. */
  prices: {
    list: string;
    name: Texts;
    currency: string;
    decimals: number;
    method: string;
    price: string | null;
    cost: string;
  }[];
  /** Names of the files that it has, by their ids. */
  files: Record<string, string>;
}

/** Endpoints of keeping items. */
export const items = {
  'GET /catalogue/items': endpoint({
    says: 'All items and families, with costs, for whoever keeps them.',
    who: 'prices',
    answers: json<ItemsView>('ItemsView'),
  }),
  'GET /catalogue/items.{format}': endpoint({
    says: 'All items as a file for spreadsheets (csv or xlsx), as it is taken in again.',
    who: 'prices',
    answers: file,
  }),
  'PUT /catalogue/items': endpoint({
    says: 'Keeps rows of items: new ones, and what is different of others; all of them or none.',
    who: 'prices',
    input: itemRowsInput,
    // As much as so many rows come to.
    most: 8 * 1024 * 1024,
    answers: json<ItemsView>('ItemsView'),
  }),
  'POST /catalogue/items/job': endpoint({
    says: 'Keeps rows of items in the background, all of them or none.',
    who: 'prices',
    input: itemRowsInput,
    most: 8 * 1024 * 1024,
    answers: json<AskedJob>('AskedJob'),
  }),
  'GET /catalogue/items/{sku}': endpoint({
    says: 'An item with all that is known of it, where it is used, and who changed it.',
    who: 'prices',
    answers: json<ItemView>('ItemView'),
  }),
  'PUT /catalogue/items/{sku}': endpoint({
    says: 'Changes an item.',
    who: 'prices',
    input: itemInput,
    answers: json<ItemView>('ItemView'),
  }),
  'DELETE /catalogue/items/{sku}': endpoint({
    says: 'Takes an item away that nothing uses.',
    who: 'prices',
    input: exactly({ version }),
    answers: json<ItemsView>('ItemsView'),
  }),
  'PUT /catalogue/families/{code}': endpoint({
    says: 'Makes a family, or changes its name, its properties, and what it is inside of.',
    who: 'prices',
    input: familyInput,
    answers: json<ItemsView>('ItemsView'),
  }),
  'DELETE /catalogue/families/{code}': endpoint({
    says: 'Takes a family away that has nothing inside it.',
    who: 'prices',
    input: exactly({ version }),
    answers: json<ItemsView>('ItemsView'),
  }),
};

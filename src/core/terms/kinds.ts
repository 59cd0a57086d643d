/**
 * Kinds of terms: what is granted, limited, charged and who buys, each kind as rows of the same fields. What all that is
 * done with rows needs to know of a kind is said here, so that rows of every kind are kept, compared, followed and taken
 * out and in by the same means.
 */

/** What stands in a field; texts are exact numbers, ISO days, codes, or what somebody wrote. */
export type FieldIs =
  | 'text'
  /** A share: 0.08 is 8 %. */
  | 'share'
  /** An amount of money or a factor. */
  | 'amount'
  | 'count'
  | 'mark'
  /** One of a few words, which are the options. */
  | 'word'
  | 'role'
  | 'family'
  | 'item'
  | 'list'
  | 'class'
  /** A customer's number. */
  | 'customer'
  | 'country'
  | 'currency'
  | 'region'
  /** "4: 0.04; 12: 0.07": shares from quantities on. */
  | 'levels'
  /** FEEL over a quote. */
  | 'condition'
  | 'code';

/** A field of a kind. */
export interface TermField {
  readonly id: string;
  readonly is: FieldIs;
  /** It has to say something. */
  readonly needed?: true;
  readonly options?: readonly string[];
}

/** A kind. */
export interface TermKind {
  readonly id: TermKindId;
  readonly fields: readonly TermField[];
  /** Fields that say what a row is about: of several rows of the same, the newest begun holds. None: each is for itself. */
  readonly key: readonly string[];
  /** Rows hold from a day on, and are followed; of others only their history is told. */
  readonly dated: boolean;
  /** What they are can be tried on open quotes: who would have to sign. */
  readonly tried?: true;
}

/** All kinds, in the order in which they are shown. */
export const termKindIds = [
  'agreements',
  'promotions',
  'quantityDiscounts',
  'limits',
  'policies',
  'tax',
  'freight',
  'commission',
  'workCentres',
  'customers',
  'lists',
] as const;
/** The name of a kind. */
export type TermKindId = (typeof termKindIds)[number];

const names: readonly TermField[] = [
  { id: 'en', is: 'text', needed: true },
  { id: 'de', is: 'text' },
];
const granted: readonly TermField[] = [
  ...names,
  { id: 'customer', is: 'customer' },
  { id: 'class', is: 'class' },
  { id: 'family', is: 'family' },
  { id: 'sku', is: 'item' },
  { id: 'rate', is: 'share' },
  { id: 'list', is: 'list' },
  { id: 'price', is: 'amount' },
];

/** The kinds by their names. */
export const termKinds: Readonly<Record<TermKindId, TermKind>> = {
  agreements: { id: 'agreements', fields: [...granted, { id: 'fixed', is: 'mark' }], key: [], dated: true },
  promotions: { id: 'promotions', fields: granted, key: [], dated: true },
  quantityDiscounts: {
    id: 'quantityDiscounts',
    fields: [
      ...names,
      { id: 'family', is: 'family' },
      { id: 'sku', is: 'item' },
      { id: 'by', is: 'word', needed: true, options: ['whole', 'slice'] },
      { id: 'levels', is: 'levels', needed: true },
    ],
    key: ['family', 'sku'],
    dated: true,
  },
  limits: {
    id: 'limits',
    fields: [
      { id: 'role', is: 'role', needed: true },
      { id: 'family', is: 'family' },
      { id: 'by', is: 'word', needed: true, options: ['discount', 'margin'] },
      { id: 'target', is: 'share', needed: true },
      { id: 'limit', is: 'share', needed: true },
      { id: 'floor', is: 'share', needed: true },
      { id: 'signs', is: 'role', needed: true },
      { id: 'above', is: 'role', needed: true },
    ],
    key: ['role', 'family', 'by'],
    dated: true,
    tried: true,
  },
  policies: {
    id: 'policies',
    fields: [
      { id: 'role', is: 'role', needed: true },
      ...names,
      { id: 'condition', is: 'condition', needed: true },
      { id: 'signs', is: 'role', needed: true },
    ],
    key: [],
    dated: true,
    tried: true,
  },
  tax: {
    id: 'tax',
    fields: [
      { id: 'country', is: 'country', needed: true },
      { id: 'class', is: 'code' },
      { id: 'rate', is: 'share', needed: true },
    ],
    key: ['country', 'class'],
    dated: true,
  },
  freight: {
    id: 'freight',
    fields: [
      { id: 'list', is: 'list', needed: true },
      { id: 'country', is: 'country' },
      { id: 'freightBase', is: 'amount', needed: true },
      { id: 'perKg', is: 'amount', needed: true },
      { id: 'least', is: 'amount', needed: true },
    ],
    key: ['list', 'country'],
    dated: true,
  },
  commission: {
    id: 'commission',
    fields: [
      { id: 'role', is: 'role', needed: true },
      { id: 'base', is: 'share', needed: true },
      { id: 'higher', is: 'share', needed: true },
    ],
    key: ['role'],
    dated: true,
  },
  workCentres: {
    id: 'workCentres',
    fields: [{ id: 'code', is: 'code', needed: true }, ...names, { id: 'rate', is: 'amount', needed: true }],
    key: ['code'],
    dated: true,
  },
  customers: {
    id: 'customers',
    fields: [
      { id: 'number', is: 'code', needed: true },
      { id: 'name', is: 'text', needed: true },
      { id: 'class', is: 'class', needed: true },
      { id: 'list', is: 'list', needed: true },
      { id: 'region', is: 'region', needed: true },
      { id: 'language', is: 'word', needed: true, options: ['en', 'de'] },
      { id: 'paymentDays', is: 'count', needed: true },
    ],
    key: ['number'],
    dated: false,
  },
  lists: {
    id: 'lists',
    fields: [
      { id: 'code', is: 'code', needed: true },
      ...names,
      { id: 'currency', is: 'currency', needed: true },
      { id: 'costRate', is: 'amount', needed: true },
    ],
    key: ['code'],
    dated: false,
  },
};

/**
 * What texts and conditions of a document may read: the quote, its customer, the house, all lines, and in what
 * stands under a line that line. Names and types are known before there is any quote, so that a formula is checked
 * when it is written.
 */
import { exact } from '../exact';
import { Day, readUnit, type Expr, type FeelType, type Scope, type Value } from '../formula';
import type { PaperGiven, PaperLine } from './given';
import type { PlaceOfText } from './kinds';

const text: FeelType = { is: 'text' };
const date: FeelType = { is: 'date' };
const plain = (unit: string): FeelType => ({ is: 'number', unit: readUnit(unit) });
const texts: FeelType = { is: 'list', item: text };
const count = plain('');

/** A field: its type, what it is of a quote, and whether it is money. */
interface FieldOf<T> {
  type: FeelType;
  of: (given: T) => Value;
  money?: true;
}

const number = (value: string | null): Value => (value === null ? null : exact(value));
const distinct = (given: readonly string[]): Value => [...new Set(given)];

const quoteFields: Readonly<Record<string, FieldOf<PaperGiven>>> = {
  number: { type: text, of: (given) => given.number },
  revision: { type: count, of: (given) => exact(given.revision) },
  title: { type: text, of: (given) => given.title },
  date: { type: date, of: (given) => Day.read(given.day) },
  validUntil: { type: date, of: (given) => Day.read(given.validUntil) },
  delivered: { type: date, of: (given) => Day.read(given.delivered) },
  currency: { type: text, of: (given) => given.currency },
  list: { type: count, of: (given) => exact(given.totals.list), money: true },
  net: { type: count, of: (given) => exact(given.totals.net), money: true },
  reduction: { type: count, of: (given) => exact(given.totals.reduction), money: true },
  gross: { type: count, of: (given) => number(given.tax?.gross ?? null), money: true },
  oneTime: { type: count, of: (given) => exact(given.totals.oneTime), money: true },
  perMonth: { type: count, of: (given) => exact(given.totals.perMonth), money: true },
  taxed: { type: { is: 'yesno' }, of: (given) => given.tax !== null },
  recurs: { type: { is: 'yesno' }, of: (given) => given.totals.recurring !== '0' },
  leased: { type: { is: 'yesno' }, of: (given) => given.lease !== null },
  owner: { type: text, of: (given) => given.owner.name },
  ownerEmail: { type: text, of: (given) => given.owner.email },
};

const invoiceOf = ({ customer: { addresses } }: PaperGiven) =>
  addresses.find(({ kind }) => kind === 'invoice') ?? addresses[0];
const deliveryOf = ({ customer: { addresses } }: PaperGiven) =>
  addresses.find(({ kind }) => kind === 'delivery') ?? addresses[0];

const customerFields: Readonly<Record<string, FieldOf<PaperGiven>>> = {
  name: { type: text, of: ({ customer }) => customer.name },
  number: { type: text, of: ({ customer }) => customer.number },
  class: { type: text, of: ({ customer }) => customer.class },
  contact: { type: text, of: ({ customer }) => customer.contact },
  paymentDays: { type: count, of: ({ customer }) => exact(customer.paymentDays) },
  town: { type: text, of: (given) => deliveryOf(given)?.town ?? '' },
  country: { type: text, of: (given) => deliveryOf(given)?.country ?? '' },
  invoiceTown: { type: text, of: (given) => invoiceOf(given)?.town ?? '' },
};

const houseKeys = [
  'name', 'street', 'postcode', 'town', 'country', 'phone', 'email', 'web', 'taxNumber', 'registered', 'bank', 'iban',
  'bic',
] as const; // prettier-ignore
const houseFields: Readonly<Record<string, FieldOf<PaperGiven>>> = Object.fromEntries(
  houseKeys.map((key) => [key, { type: text, of: ({ house }: PaperGiven) => house[key] }]),
);

const countedIn = ({ lines }: PaperGiven): readonly PaperLine[] =>
  lines.filter(({ optional, alternative }) => !optional && !alternative);
const soldIn = (given: PaperGiven) => countedIn(given).flatMap(({ sold }) => sold);
const lineLists: Readonly<Record<string, FieldOf<PaperGiven>>> = {
  items: { type: texts, of: (given) => distinct(soldIn(given).map(({ sku }) => sku)) },
  families: { type: texts, of: (given) => distinct(soldIn(given).map(({ family }) => family)) },
  kinds: { type: texts, of: (given) => distinct(soldIn(given).map(({ kind }) => kind)) },
  options: {
    type: texts,
    of: (given) => distinct(given.lines.filter(({ optional }) => optional).map(({ sku }) => sku)),
  },
  count: { type: count, of: (given) => exact(countedIn(given).length) },
};

const lineFields: Readonly<Record<string, FieldOf<PaperLine>>> = {
  position: { type: count, of: (line) => exact(line.position) },
  item: { type: text, of: (line) => line.sku },
  family: { type: text, of: (line) => line.family },
  kind: { type: text, of: (line) => line.kind },
  partNumber: { type: text, of: (line) => line.partNumber },
  quantity: { type: count, of: (line) => exact(line.quantity) },
  leadTime: { type: plain('days'), of: (line) => (line.leadDays === null ? null : exact(line.leadDays)) },
  mass: { type: plain('kg'), of: (line) => number(line.mass) },
  net: { type: count, of: (line) => exact(line.price.net), money: true },
};

type Subject = PaperGiven | PaperLine;
/** All fields in the order of their slots; those of the line come last. */
const slots: readonly { of: (given: PaperGiven, line: PaperLine | null) => Value }[] = [
  ...[quoteFields, customerFields, houseFields, lineLists].flatMap((fields) =>
    Object.values(fields).map(({ of }) => ({ of })),
  ),
  ...Object.values(lineFields).map(({ of }) => ({
    of: (_given: PaperGiven, line: PaperLine | null) => (line === null ? null : of(line)),
  })),
];

const always: Expr = { kind: 'literal', value: true, at: 0 };

function scopeOf(place: PlaceOfText): Scope {
  const scope = new Map<string, { slot: number; type: FeelType }>();
  let slot = 0;
  const add = <T extends Subject>(name: string, fields: Readonly<Record<string, FieldOf<T>>>): void => {
    const inner = new Map(
      Object.entries(fields).map(
        ([key, { type }]) => [key, { slot: slot++, type, id: `${name}.${key}` }] as const,
      ),
    );
    scope.set(name, {
      slot: NaN,
      type: { is: 'places', places: [{ when: always, fields: inner }], many: false },
    });
  };
  add('quote', quoteFields);
  add('customer', customerFields);
  add('house', houseFields);
  add('lines', lineLists);
  if (place === 'line') add('line', lineFields);
  return scope;
}

const scopes: Readonly<Record<PlaceOfText, Scope>> = {
  document: scopeOf('document'),
  line: scopeOf('line'),
  mail: scopeOf('document'),
};

/** What a formula at a place may read. */
export const paperScope = (place: PlaceOfText): Scope => scopes[place];

/** Names of all that can be read at a place, such as quote.validUntil. */
export const paperNames = (place: PlaceOfText): string[] =>
  (
    [
      ['quote', quoteFields],
      ['customer', customerFields],
      ['house', houseFields],
      ['lines', lineLists],
      ...(place === 'line' ? ([['line', lineFields]] as const) : []),
    ] as const
  ).flatMap(([name, fields]) => Object.keys(fields).map((key) => `${name}.${key}`));

/** What stands in the slots, of a quote and, under a line, of that line. */
export const paperEnvironment =
  (given: PaperGiven, line: PaperLine | null) =>
  (slot: number): Value =>
    slots[slot]?.of(given, line) ?? null;

/** Whether a formula is nothing but an amount of money, which is written like one. */
export function isMoney(source: string): boolean {
  const [name = '', field = '', ...rest] = source.trim().split('.');
  if (rest.length > 0) return false;
  const fields: Readonly<Record<string, { money?: true }>> | undefined =
    name === 'quote' ? quoteFields : name === 'line' ? lineFields : undefined;
  return fields !== undefined && Object.hasOwn(fields, field) && fields[field]?.money === true;
}

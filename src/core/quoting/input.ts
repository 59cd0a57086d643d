/** What people and programs may send. Messages are codes of sentences in the locale files. */
import { array, boolean, lazy, mixed, number, object, string, type Schema } from 'yup';
import { exact, readExact } from '../exact';
import type { Term, Typed } from '../pricing';
import { ledgerColumns, type LedgerColumn } from './ledger-columns';
import { quantityDecimals } from './quantities';
import { lostReasons } from './revisions';

const id = string().strict().uuid('input.badId').required('input.required');
const version = number()
  .strict()
  .typeError('input.badVersion')
  .integer('input.badVersion')
  .min(1, 'input.badVersion')
  .required('input.required');
/** An object of just these fields: anything more, such as a price or a standing, is refused. */
const exactly = <T extends object>(fields: { [K in keyof T]-?: unknown }): Schema<T> =>
  object(fields as never)
    .exact('input.unknownField')
    .required('input.required');

/** As JavaScript writes a number that is neither too fine nor too large for it: three decimals at most. */
const fineEnough = new RegExp(`^-?\\d+(\\.\\d{1,${String(quantityDecimals)}})?$`);

export const versionInput = exactly<VersionInput>({ version });
export interface VersionInput {
  version: number;
}

/**
 * How much: pieces, or as much as is measured, to three decimals; whether it must be whole is told by the
 * item. Plain decimals are taken as text, as they come from a cell.
 */
export const quantity = number()
  .transform((value: unknown, original: unknown) =>
    typeof original === 'string'
      ? /^\s*\d{1,12}(\.\d{1,12})?\s*$/.test(original)
        ? Number(original)
        : NaN
      : value,
  )
  .typeError('quantity.notANumber')
  .test(
    'fine',
    'quantity.fine',
    (value) => value === undefined || !Number.isFinite(value) || fineEnough.test(String(value)),
  )
  .moreThan(0, 'quantity.range')
  .max(99_999, 'quantity.range')
  .required('quantity.required');

/** A discount in percent as typed: "3.5" or "3,5". */
export const discountPercent = string()
  .required('discount.required')
  .test(
    'number',
    'discount.notANumber',
    (value?: string) => value === undefined || readExact(plainPercent(value)) !== null,
  )
  .test('range', 'discount.range', (value?: string) => {
    const percent = value === undefined ? null : readExact(plainPercent(value));
    return percent === null || (percent.gte(0) && percent.lte(100));
  });

export const plainPercent = (typed: string): string => typed.trim().replace(/\s*%$/, '').replace(',', '.');

export const signInInput = exactly<SignInInput>({
  email: string()
    .strict()
    .trim()
    .max(200, 'input.tooLong')
    .email('input.badEmail')
    .required('signIn.emailMissing'),
  password: string().strict().max(200, 'input.tooLong').required('signIn.passwordMissing'),
});
export interface SignInInput {
  email: string;
  password: string;
}

export const newQuoteInput = exactly<NewQuoteInput>({
  customerId: id.required('quote.noCustomer'),
  title: string().strict().trim().max(120, 'input.tooLong').default(''),
});
export interface NewQuoteInput {
  customerId: string;
  title: string;
}

export const newLineInput = exactly<NewLineInput>({
  version,
  sku: string().strict().max(200, 'input.tooLong').required('input.required'),
  quantity,
});
export interface NewLineInput {
  version: number;
  sku: string;
  quantity: number;
}

const signs: Readonly<Record<string, string>> = { '€': 'EUR', $: 'USD', '£': 'GBP', '¥': 'JPY' };

/** An amount as typed apart from the currency before or behind it, written as a code or a sign. */
export function withoutCurrency(typed: string): { amount: string; currency?: string } {
  const found =
    /^\s*([A-Za-z]{3}|[€$£¥])?\s*([^A-Za-z€$£¥]*\d[^A-Za-z€$£¥]*?)\s*([A-Za-z]{3}|[€$£¥])?\s*$/.exec(typed);
  const written = found?.[1] ?? found?.[3];
  return found && written !== undefined && !(found[1] && found[3])
    ? { amount: found[2] ?? '', currency: signs[written] ?? written.toUpperCase() }
    : { amount: typed };
}

/**
 * An amount of money as typed: "1250", "1250.50", "1.250,50" or "1,250.50", in the currency of the quote,
 * which is not written.
 */
const moneyBelow = (most: string) =>
  string()
    .required('amount.required')
    .test(
      'currency',
      'amount.currency',
      (value?: string) => value === undefined || withoutCurrency(value).currency === undefined,
    )
    .test(
      'number',
      'amount.notANumber',
      (value?: string) => value === undefined || readExact(plainMoney(value)) !== null,
    )
    .test('range', 'amount.range', (value?: string) => {
      const read = value === undefined ? null : readExact(plainMoney(value));
      return read === null || (read.gte(0) && read.lt(most));
    });

export const typedMoney = moneyBelow('1e12');
/** Of a whole quote: in a currency without decimals it may be far more than a piece costs. */
const wholeMoney = moneyBelow('1e15');

/**
 * An amount as it travels. Of two kinds of sign the last is the decimal one; a single kind groups where it is
 * the sign that groups in the person's language and stands before three digits each, or comes more than once.
 */
export function plainMoney(typed: string, grouping: ',' | '.' = ','): string {
  const text = typed.trim().replace(/[\s\u00a0\u202f]/g, '');
  const last = Math.max(text.lastIndexOf('.'), text.lastIndexOf(','));
  if (last < 0) return text;
  const sign = text[last] as string;
  const both = text.includes('.') && text.includes(',');
  const groups =
    !both && (text.split(sign).length > 2 || (sign === grouping && /^-?\d{1,3}[.,]\d{3}$/.test(text)));
  return groups
    ? text.replaceAll(sign, '')
    : `${text.slice(0, last).replace(/[.,]/g, '')}.${text.slice(last + 1)}`;
}

/** A margin in percent as typed; all or more of the net price is none. */
export const marginPercent = string()
  .required('margin.required')
  .test(
    'number',
    'margin.notANumber',
    (value?: string) => value === undefined || readExact(plainPercent(value)) !== null,
  )
  .test('range', 'margin.range', (value?: string) => {
    const percent = value === undefined ? null : readExact(plainPercent(value));
    return percent === null || (percent.gt(-1000) && percent.lt(100));
  });

/** What may be typed for each of the four. */
export const typedBy = {
  rate: discountPercent,
  amount: typedMoney,
  net: typedMoney,
  margin: marginPercent,
} as const;

/** What was typed, as it is kept: shares as fractions, amounts as they travel. */
export const typedOf = ({ by, value }: TypedInput): Typed => ({
  by,
  value:
    by === 'rate' || by === 'margin'
      ? exact(plainPercent(value)).div(100).toString()
      : exact(plainMoney(value)).toString(),
});

/** How a figure of a kind is typed; of an unknown kind, which is refused itself, anything. */
const typedIn = (kinds: Readonly<Record<string, Schema>>, by: string | undefined) =>
  kinds[by ?? ''] ?? string();

const wholeBy = { ...typedBy, amount: wholeMoney, net: wholeMoney } as const;
const typedWhole = exactly<TypedInput>({
  by: string()
    .strict()
    .oneOf(['rate', 'amount', 'net', 'margin'], 'input.badKind')
    .required('input.required'),
  value: string().when('by', ([by]: string[]) => typedIn(wholeBy, by)),
});
const typedWholeOrNone = lazy((value: unknown) =>
  value === null ? mixed().nullable() : value === undefined ? mixed().optional() : typedWhole,
) as unknown as Schema<TypedInput | null>;
const typed = exactly<TypedInput>({
  by: string()
    .strict()
    .oneOf(['rate', 'amount', 'net', 'margin'], 'input.badKind')
    .required('input.required'),
  value: string().when('by', ([by]: string[]) => typedIn(typedBy, by)),
});
export interface TypedInput {
  by: Typed['by'];
  value: string;
}
const typedOrNone = lazy((value: unknown) =>
  value === null ? mixed().nullable() : value === undefined ? mixed().optional() : typed,
) as unknown as Schema<TypedInput | null>;

/** A day that the calendar has: a February of thirty days is read as March. */
function isDay(text: string): boolean {
  const read = new Date(`${text}T00:00:00Z`);
  return !Number.isNaN(read.getTime()) && read.toISOString().startsWith(text);
}
const day = string()
  .strict()
  .matches(/^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/, 'input.badDate')
  .test('calendar', 'input.badDate', (value?: string) => value === undefined || isDay(value))
  .required('input.required');
const whole = (most: number) =>
  number()
    .strict()
    .typeError('quantity.notANumber')
    .integer('quantity.whole')
    .min(0, 'quantity.range')
    .max(most, 'quantity.range')
    .required('input.required');
const term = exactly<Term>({ start: day, months: whole(240), days: whole(30) });

const numbers = array()
  .strict()
  .of(string().strict().max(200, 'input.tooLong').required('input.required'))
  .max(10_000, 'input.tooMany')
  .required('input.required');
export interface ReadNumberInput {
  number: string;
}
export const readNumberInput = exactly<ReadNumberInput>({
  number: string().strict().trim().min(1).max(200).required(),
});
export const readNumbersInput = exactly<ReadNumbersInput>({ numbers });
export interface ReadNumbersInput {
  numbers: string[];
}
const row = exactly<NewLinesInput['rows'][number]>({
  sku: string().strict().max(200, 'input.tooLong').required('input.required'),
  quantity,
  discount: discountPercent.optional(),
});
export const newLinesInput = exactly<NewLinesInput>({
  version,
  rows: array().of(row).min(1, 'input.required').max(1_000, 'input.tooMany').required('input.required'),
});
/** `discount` is by hand, in percent. */
export interface NewLinesInput {
  version: number;
  rows: { sku: string; quantity: number; discount?: string }[];
}

const optionalTerm = lazy((value: unknown) =>
  value === undefined ? mixed().optional() : term,
) as unknown as Schema<Term | undefined>;
/** What may be typed on one line, or on several at once. */
const lineFields = {
  quantity: quantity.optional(),
  hand: typedOrNone,
  locked: boolean().strict(),
  optional: boolean().strict(),
  term: optionalTerm,
};
interface LineFields {
  quantity?: number;
  hand?: TypedInput | null;
  locked?: boolean;
  optional?: boolean;
  term?: Term;
}
const moneyOrNone = lazy((value: unknown) =>
  value === null ? mixed().nullable() : value === undefined ? mixed().optional() : typedMoney,
) as unknown as Schema<string | null>;
const rates = exactly<RatesInput>({
  each: array()
    .strict()
    .of(typedMoney)
    .min(1, 'input.required')
    .max(50, 'input.tooMany')
    .required('input.required'),
  least: typedMoney.optional(),
});
/** Rates of what is used, one a slice, as they are typed. */
export interface RatesInput {
  each: string[];
  least?: string;
}
const ratesOrNone = lazy((value: unknown) =>
  value === null ? mixed().nullable() : value === undefined ? mixed().optional() : rates,
) as unknown as Schema<RatesInput | null>;
export const changeLineInput = exactly<ChangeLineInput>({
  version,
  ...lineFields,
  price: typedMoney.optional(),
  cost: moneyOrNone,
  rates: ratesOrNone,
  resale: moneyOrNone,
});
export interface ChangeLineInput extends LineFields {
  version: number;
  price?: string;
  cost?: string | null;
  rates?: RatesInput | null;
  resale?: string | null;
}

const lineIds = array()
  .strict()
  .of(id)
  .min(1, 'input.required')
  .max(10_000, 'input.tooMany')
  .required('input.required');
const groupName = lazy((value: unknown) =>
  value === null
    ? mixed().nullable()
    : value === undefined
      ? mixed().optional()
      : string().trim().min(1, 'group.noName').max(80, 'input.tooLong'),
) as unknown as Schema<string | null | undefined>;
export const changeLinesInput = exactly<ChangeLinesInput>({
  version,
  lines: lineIds,
  ...lineFields,
  group: groupName,
});
export interface ChangeLinesInput extends LineFields {
  version: number;
  lines: string[];
  group?: string | null;
}
const lineValue = exactly<LineValue>({
  line: id,
  quantity: quantity.optional(),
  hand: typedOrNone,
  term: optionalTerm,
});
/** What a column of cells was filled with. */
export interface LineValue {
  line: string;
  quantity?: number;
  hand?: TypedInput | null;
  term?: Term;
}
export const lineValuesInput = exactly<LineValuesInput>({
  version,
  rows: array().of(lineValue).min(1, 'input.required').max(1_000, 'input.tooMany').required('input.required'),
});
export interface LineValuesInput {
  version: number;
  rows: LineValue[];
}
export const linesInput = exactly<LinesInput>({ version, lines: lineIds });
export interface LinesInput {
  version: number;
  lines: string[];
}
export const rivalsInput = exactly<RivalsInput>({ version, lines: lineIds, apart: boolean().strict() });
export interface RivalsInput {
  version: number;
  lines: string[];
  apart?: boolean;
}
const newGroupName = string().trim().max(80, 'input.tooLong').required('group.noName');
export const renameGroupInput = exactly<RenameGroupInput>({ version, from: newGroupName, to: newGroupName });
export interface RenameGroupInput {
  version: number;
  from: string;
  to: string;
}

const said = (most: number, code: string) => string().trim().max(most, 'input.tooLong').required(code);
const country = string()
  .trim()
  .matches(/^[A-Z]{2}$/, 'address.badCountry')
  .required('address.badCountry');
const addressFields = {
  street: said(120, 'address.noStreet'),
  town: said(80, 'address.noTown'),
  postcode: said(16, 'address.noPostcode'),
  country,
};
const address = exactly<AddressInput>(addressFields);
export interface AddressInput {
  street: string;
  town: string;
  postcode: string;
  country: string;
}
const optionalAddress = lazy((value: unknown) =>
  value === undefined || value === null ? mixed().optional().nullable() : address,
) as unknown as Schema<AddressInput | null | undefined>;

const emailText = string()
  .strict()
  .trim()
  .max(200, 'input.tooLong')
  .email('input.badEmail')
  .required('newCustomer.noEmail');

export const newCustomerInput = exactly<NewCustomerInput>({
  name: said(120, 'newCustomer.noName'),
  class: string()
    .strict()
    .oneOf(['direct', 'key', 'dealer', 'public'], 'input.badKind')
    .required('input.required'),
  priceList: said(40, 'newCustomer.noList'),
  language: string().strict().oneOf(['en', 'de'], 'input.badLanguage').required('input.badLanguage'),
  region: said(20, 'input.required'),
  contactName: said(120, 'newCustomer.noContact'),
  contactEmail: emailText,
  paymentDays: number()
    .transform((value: unknown, original: unknown) =>
      typeof original === 'string' ? (/^\s*\d{1,3}\s*$/.test(original) ? Number(original) : NaN) : value,
    )
    .typeError('newCustomer.days')
    .integer('newCustomer.days')
    .min(0, 'newCustomer.days')
    .max(365, 'newCustomer.days')
    .required('newCustomer.days'),
  invoice: address,
  delivery: optionalAddress,
});
/** Without a delivery address everything goes to where the invoice goes. */
export interface NewCustomerInput {
  name: string;
  class: 'direct' | 'key' | 'dealer' | 'public';
  priceList: string;
  language: 'en' | 'de';
  region: string;
  contactName: string;
  contactEmail: string;
  paymentDays: number;
  invoice: AddressInput;
  delivery?: AddressInput | null;
}

export const quoteAddressInput = exactly<QuoteAddressInput>({
  version,
  kind: string().strict().oneOf(['invoice', 'delivery'], 'input.badKind').required('input.required'),
  from: string().strict().uuid('input.badId'),
  copyInvoice: boolean().strict(),
  address: optionalAddress,
}).test(
  'one',
  'address.one',
  (value) =>
    [value.from, value.copyInvoice || undefined, value.address ?? undefined].filter(
      (each) => each !== undefined,
    ).length === 1,
);
/** One of the customer's known addresses, a new one, or that of the invoice. */
export interface QuoteAddressInput {
  version: number;
  kind: 'invoice' | 'delivery';
  from?: string;
  copyInvoice?: boolean;
  address?: AddressInput | null;
}

export const contactInput = exactly<ContactInput>({
  name: said(120, 'newCustomer.noContact'),
  email: emailText,
  task: string().trim().max(80, 'input.tooLong').default(''),
});
export interface ContactInput {
  name: string;
  email: string;
  task: string;
}
const optionalContact = lazy((value: unknown) =>
  value === undefined || value === null ? mixed().optional().nullable() : contactInput,
) as unknown as Schema<ContactInput | null | undefined>;
export const quoteContactInput = exactly<QuoteContactInput>({
  version,
  from: string().strict().uuid('input.badId'),
  contact: optionalContact,
}).test(
  'one',
  'contact.one',
  (value) => [value.from, value.contact ?? undefined].filter((each) => each !== undefined).length === 1,
);
/** One of the people known at the customer, or a new one. */
export interface QuoteContactInput {
  version: number;
  from?: string;
  contact?: ContactInput | null;
}

const reasonText = string().trim().max(500, 'input.tooLong').required('signOff.noReason');
export const askSignOffInput = exactly<AskSignOffInput>({ version, reason: reasonText });
export interface AskSignOffInput {
  version: number;
  reason: string;
}
const offer = exactly<OfferInput>({
  line: id,
  rate: string().test(
    'rate',
    'discount.notANumber',
    (value?: string) => value === undefined || discountPercent.isValidSync(value),
  ),
  no: boolean().strict().oneOf([true], 'signOff.badAnswer'),
}).test('one', 'signOff.badAnswer', (value) => (value.rate === undefined) !== (value.no === undefined));
/** For one line: the discount in percent that would be signed, or that it is not. */
export interface OfferInput {
  line: string;
  rate?: string | undefined;
  no?: true | undefined;
}
export const answerSignOffInput = exactly<AnswerSignOffInput>({
  version,
  answer: string().strict().oneOf(['yes', 'no', 'counter'], 'signOff.badAnswer').required('input.required'),
  comment: string().trim().max(500, 'input.tooLong').default(''),
  counter: array().of(offer).max(1_000, 'input.tooMany').default([]),
});
export interface AnswerSignOffInput {
  version: number;
  answer: 'yes' | 'no' | 'counter';
  comment: string;
  counter: OfferInput[];
}

export const placeLinesInput = exactly<PlaceLinesInput>({
  version,
  lines: lineIds,
  to: number()
    .strict()
    .integer('quantity.whole')
    .min(1, 'quantity.range')
    .max(99_999, 'quantity.range')
    .required('input.required'),
});
export interface PlaceLinesInput {
  version: number;
  lines: string[];
  to: number;
}

export const customerInput = exactly<CustomerInput>({ version, customerId: id });
export interface CustomerInput {
  version: number;
  customerId: string;
}

const yearlyRate = string()
  .required('discount.required')
  .test(
    'number',
    'discount.notANumber',
    (value?: string) => value === undefined || readExact(plainPercent(value)) !== null,
  )
  .test('range', 'lease.rate', (value?: string) => {
    const percent = value === undefined ? null : readExact(plainPercent(value));
    return percent === null || (percent.gte(0) && percent.lte(100));
  });
const leaseMonths = number()
  .strict()
  .typeError('quantity.notANumber')
  .integer('quantity.whole')
  .min(1, 'lease.months')
  .max(240, 'lease.months')
  .required('input.required');
const lease = exactly<LeaseInput>({
  months: leaseMonths,
  yearlyRate,
  residual: typedMoney.optional(),
  inAdvance: boolean().strict().default(false),
});
/** A lease as it is typed: a rate in percent a year, an amount as people write it. */
export interface LeaseInput {
  months: number;
  yearlyRate: string;
  residual?: string;
  inAdvance: boolean;
}
const leaseOrNone = lazy((value: unknown) =>
  value === null ? mixed().nullable() : value === undefined ? mixed().optional() : lease,
) as unknown as Schema<LeaseInput | null>;
/**
 * What a dealer adds, in percent; below nothing a dealer sells at a loss, which is the dealer's to decide.
 */
const resaleShare = string()
  .test(
    'number',
    'margin.notANumber',
    (value?: string) => value === undefined || readExact(plainPercent(value)) !== null,
  )
  .test('range', 'resale.range', (value?: string) => {
    const percent = value === undefined ? null : readExact(plainPercent(value));
    return percent === null || (percent.gte(-100) && percent.lte(1000));
  });
const optionalDay = lazy((value: unknown) =>
  value === undefined ? mixed().optional() : day,
) as unknown as Schema<string | undefined>;

export const changeQuoteInput = exactly<ChangeQuoteInput>({
  version,
  whole: typedWholeOrNone,
  validUntil: optionalDay,
  title: string().strict().trim().max(120, 'input.tooLong'),
  lease: leaseOrNone,
  resale: resaleShare,
});
export interface ChangeQuoteInput {
  version: number;
  whole?: TypedInput | null;
  validUntil?: string;
  title?: string;
  lease?: LeaseInput | null;
  resale?: string;
}

const revisionNumber = number()
  .strict()
  .integer('input.badVersion')
  .min(1, 'input.badVersion')
  .max(999, 'input.badVersion');
export const reviseInput = exactly<ReviseInput>({ version, from: revisionNumber });
export interface ReviseInput {
  version: number;
  from?: number;
}
export const loseInput = exactly<LoseInput>({
  version,
  reason: string()
    .strict()
    .oneOf([...lostReasons], 'lost.noReason')
    .required('lost.noReason'),
  note: string().trim().max(500, 'input.tooLong').default(''),
});
export interface LoseInput {
  version: number;
  reason: (typeof lostReasons)[number];
  note: string;
}

const ledgerColumn = exactly<LedgerColumn>({
  id: string()
    .strict()
    .oneOf([...ledgerColumns], 'input.badKind')
    .required('input.required'),
  pinned: boolean().strict().default(false),
});
export const personInput = exactly<PersonInput>({
  ledger: lazy((value: unknown) =>
    value === null
      ? mixed().nullable()
      : value === undefined
        ? mixed().optional()
        : array().of(ledgerColumn).min(1, 'input.required').max(ledgerColumns.length, 'input.tooMany'),
  ),
  language: string().strict().oneOf(['en', 'de'], 'input.badLanguage'),
  foldBarred: boolean().strict(),
  units: string().strict().oneOf(['metric', 'imperial'], 'input.badUnits'),
});
export interface PersonInput {
  language?: 'en' | 'de';
  foldBarred?: boolean;
  units?: 'metric' | 'imperial';
  ledger?: LedgerColumn[] | null;
}

const optionalId = string().strict().uuid('input.badId');
/** A build begins from a model, a copy of another build, a saved build, or a part number. */
export const newBuildInput = exactly<NewBuildInput>({
  quoteId: id,
  modelId: string().strict().max(40, 'input.tooLong'),
  copyOf: optionalId,
  savedId: optionalId,
  partNumber: string().trim().max(200, 'input.tooLong'),
}).test(
  'one',
  'build.oneStart',
  (value) =>
    [value.modelId, value.copyOf, value.savedId, value.partNumber].filter((each) => each !== undefined)
      .length === 1,
);
export interface NewBuildInput {
  quoteId: string;
  modelId?: string;
  copyOf?: string;
  savedId?: string;
  partNumber?: string;
}

export const variantInput = exactly<VariantInput>({ empty: boolean().strict().default(false) });
export interface VariantInput {
  empty: boolean;
}

export const sendVariantsInput = exactly<SendVariantsInput>({
  version,
  builds: array()
    .strict()
    .of(id)
    .min(1, 'input.required')
    .max(26, 'input.tooMany')
    .required('input.required'),
  alternatives: boolean().strict().default(false),
});
export interface SendVariantsInput {
  version: number;
  builds: string[];
  alternatives: boolean;
}

const savedName = string().trim().max(120, 'input.tooLong').required('saved.noName');
export const saveBuildInput = exactly<SaveBuildInput>({
  buildId: id,
  name: savedName,
  shared: boolean().strict().default(false),
});
export interface SaveBuildInput {
  buildId: string;
  name: string;
  shared: boolean;
}
export const changeSavedInput = exactly<ChangeSavedInput>({
  name: savedName.optional(),
  shared: boolean().strict(),
  starred: boolean().strict(),
});
export interface ChangeSavedInput {
  name?: string;
  shared?: boolean;
  starred?: boolean;
}

const decision = exactly<{ on: string; value: unknown }>({
  on: string().strict().max(400, 'input.tooLong').required('input.required'),
  value: mixed()
    .test(
      'value',
      'decision.wrongType',
      (value: unknown) =>
        value === null || typeof value === 'boolean' || (typeof value === 'string' && value.length <= 2_000),
    )
    .nullable()
    .defined('input.required'),
});
const pass = exactly<ContentInput['passed'][number]>({
  rule: string().strict().max(100, 'input.tooLong').required('input.required'),
  reason: string().trim().max(500, 'input.tooLong').required('input.required'),
});
/** An amount as it travels. */
const amount = string()
  .strict()
  .matches(/^\d{1,12}(\.\d{1,6})?$/, 'amount.notANumber')
  .required('input.required');
const special = exactly<ContentInput['special'][number]>({
  item: string().strict().max(40, 'input.tooLong').required('input.required'),
  text: string().trim().max(200, 'input.tooLong').required('input.required'),
  cost: amount,
  price: amount,
  days: number()
    .strict()
    .integer('quantity.whole')
    .min(0, 'quantity.range')
    .max(999, 'quantity.range')
    .required('input.required'),
});
export const contentInput = exactly<ContentInput>({
  version,
  decisions: array().strict().of(decision).max(2_000, 'input.tooMany').required('input.required'),
  passed: array().of(pass).max(200, 'input.tooMany').default([]),
  special: array().of(special).max(100, 'input.tooMany').default([]),
});
export interface ContentInput {
  version: number;
  decisions: { on: string; value: string | boolean | null }[];
  passed: { rule: string; reason: string }[];
  special: { item: string; text: string; cost: string; price: string; days: number }[];
}

export const putOnQuoteInput = exactly<PutOnQuoteInput>({ version, quantity });
export interface PutOnQuoteInput {
  version: number;
  quantity: number;
}

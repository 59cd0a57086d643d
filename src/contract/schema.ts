/** What many inputs are made of. Messages are codes of sentences in the locale files. */
import { array, boolean, number, object, string, type ObjectShape } from 'yup';
import { plainPercent, readExact, type Exact } from '../core/exact';
import { quantityDecimals } from '../core/quotes';

/** The type of what a schema lets through. */
export type Sent<S extends { __outputType: unknown }> = S['__outputType'];

/** An object of just these fields: anything more, such as a price or a standing, is refused. */
export const exactly = <F extends ObjectShape>(fields: F) =>
  object(fields).exact('input.unknownField').required('input.required');

/** A reference to a record. */
export const id = string().strict().uuid('input.badId').required('input.required');
/** A reference that may be absent. */
export const optionalId = string().strict().uuid('input.badId');

/** The version against which something is changed. */
export const version = number()
  .strict()
  .typeError('input.badVersion')
  .integer('input.badVersion')
  .min(1, 'input.badVersion')
  .required('input.required');

/** A change that says nothing but what it is against. */
export const versionInput = exactly({ version });
/** What passes `versionInput`. */
export type VersionInput = Sent<typeof versionInput>;

/** One of a few words. */
export const oneOf = <const W extends string>(words: readonly W[], code: string) =>
  string().strict().oneOf(words, code);

/** A text that has to be there, of so many characters at most. */
export const said = (most: number, code: string) => string().trim().max(most, 'input.tooLong').required(code);
/** A remark: nothing where there is none. */
export const note = string().trim().max(500, 'input.tooLong').default('');
/** A name or number of something, as it is. */
export const named = (most: number) =>
  string().strict().max(most, 'input.tooLong').required('input.required');
/** A yes or no that may be absent. */
export const flag = boolean().strict();

/** As JavaScript writes a number that is neither too fine nor too large for it: three decimals at most. */
const fineEnough = new RegExp(`^-?\\d+(\\.\\d{1,${String(quantityDecimals)}})?$`);

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

/** A whole number from 0, as many as there may be. */
export const whole = (most: number) =>
  number()
    .strict()
    .typeError('quantity.notANumber')
    .integer('quantity.whole')
    .min(0, 'quantity.range')
    .max(most, 'quantity.range')
    .required('input.required');

/** A share in percent as typed: "3.5" or "3,5". */
export const percent = (inRange: (percent: Exact) => boolean, range: string, notANumber: string) =>
  string()
    .test('number', notANumber, (value?: string) => value === undefined || readPercent(value) !== null)
    .test('range', range, (value?: string) => {
      const read = value === undefined ? null : readPercent(value);
      return read === null || inRange(read);
    });
const readPercent = (typed: string): Exact | null => readExact(plainPercent(typed));
/** From nothing to all. */
export const share = (read: Exact): boolean => read.gte(0) && read.lte(100);

/** A day that the calendar has: a February of thirty days is read as March. */
function isDay(text: string): boolean {
  const read = new Date(`${text}T00:00:00Z`);
  return !Number.isNaN(read.getTime()) && read.toISOString().startsWith(text);
}
/** A day as in "2026-11-28" that may be absent. */
export const optionalDay = string()
  .strict()
  .matches(/^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/, 'input.badDate')
  .test('calendar', 'input.badDate', (value?: string) => value === undefined || isDay(value));
/** A day that has to be there. */
export const day = optionalDay.required('input.required');

/** How long something recurs, from a day on. */
export const term = exactly({ start: day, months: whole(240), days: whole(30) });

/** Lines of a quote. */
export const lineIds = array()
  .strict()
  .of(id)
  .min(1, 'input.required')
  .max(10_000, 'input.tooMany')
  .required('input.required');

/** An e-mail address. */
export const emailText = string().strict().trim().max(200, 'input.tooLong').email('input.badEmail');

/** Words looked for. */
export const find = string().max(100, 'input.tooLong').default('');
/** What is looked for as it is typed: cut where it is too long, since nothing is lost by it. */
export const findQuery = object({
  find: string()
    .transform((text: string) => text.slice(0, 100))
    .default(''),
});
/** A page of a list, from 0. */
export const page = number()
  .typeError('input.invalid')
  .integer('input.invalid')
  .min(0, 'input.invalid')
  .max(100_000, 'input.invalid')
  .default(0);

/** A page of a list as it is answered, and how many rows there are in all. */
export interface Page<T> {
  rows: T[];
  /** From 0. */
  page: number;
  size: number;
  count: number;
}

/** What people and programs may send. Messages are codes of sentences in the locale files. */
import { array, mixed, number, object, string, type Schema } from 'yup';
import { readExact } from '../exact';

const id = string().strict().uuid('input.badId').required('input.required');
const version = number().strict().typeError('input.badVersion').integer('input.badVersion').min(1, 'input.badVersion').required('input.required');
/** An object of just these fields: anything more, such as a price or a standing, is refused. */
const exactly = <T extends object>(fields: { [K in keyof T]-?: unknown }): Schema<T> => object(fields as never).exact('input.unknownField').required('input.required') as unknown as Schema<T>;

/** A whole number of pieces. Texts of digits are taken, as they come from a cell. */
export const quantity = number()
  .transform((value: unknown, original: unknown) => (typeof original === 'string' ? (/^\s*\d{1,12}\s*$/.test(original) ? Number(original) : NaN) : value))
  .typeError('quantity.notANumber')
  .integer('quantity.whole')
  .min(1, 'quantity.range')
  .max(99_999, 'quantity.range')
  .required('quantity.required');

/** A discount in percent as typed: "3.5" or "3,5". */
export const discountPercent = string()
  .required('discount.required')
  .test('number', 'discount.notANumber', (value?: string) => value === undefined || readExact(plainPercent(value)) !== null)
  .test('range', 'discount.range', (value?: string) => {
    const percent = value === undefined ? null : readExact(plainPercent(value));
    return percent === null || (percent.gte(0) && percent.lte(100));
  });

export const plainPercent = (typed: string): string => typed.trim().replace(/\s*%$/, '').replace(',', '.');

export const signInInput = exactly<SignInInput>({
  email: string().strict().trim().max(200, 'input.tooLong').email('signIn.email').required('signIn.emailMissing'),
  password: string().strict().max(200, 'input.tooLong').required('signIn.passwordMissing'),
});
export interface SignInInput { email: string; password: string }

export const newQuoteInput = exactly<NewQuoteInput>({ customerId: id.required('quote.noCustomer'), title: string().strict().trim().max(120, 'input.tooLong').default('') });
export interface NewQuoteInput { customerId: string; title: string }

export const newLineInput = exactly<NewLineInput>({ version, sku: string().strict().max(40, 'input.tooLong').required('input.required'), quantity });
export interface NewLineInput { version: number; sku: string; quantity: number }

export const changeLineInput = exactly<ChangeLineInput>({ version, quantity: quantity.optional(), discount: discountPercent.optional() });
export interface ChangeLineInput { version: number; quantity?: number; discount?: string }

export const versionInput = exactly<VersionInput>({ version });
export interface VersionInput { version: number }

export const languageInput = exactly<{ language: 'en' | 'de' }>({ language: string().strict().oneOf(['en', 'de'], 'input.badLanguage').required('input.required') });

export const newBuildInput = exactly<NewBuildInput>({ quoteId: id, modelId: string().strict().max(40, 'input.tooLong').required('input.required') });
export interface NewBuildInput { quoteId: string; modelId: string }

const decision = exactly<{ on: string; value: unknown }>({
  on: string().strict().max(400, 'input.tooLong').required('input.required'),
  value: mixed().test('value', 'decision.wrongType', (value) => value === null || typeof value === 'boolean' || (typeof value === 'string' && value.length <= 2_000)).defined('input.required'),
});
export const decisionsInput = exactly<DecisionsInput>({ version, decisions: array().strict().of(decision).max(2_000, 'input.tooMany').required('input.required') });
export interface DecisionsInput { version: number; decisions: { on: string; value: string | boolean | null }[] }

export const putOnQuoteInput = exactly<PutOnQuoteInput>({ version, quantity });
export interface PutOnQuoteInput { version: number; quantity: number }

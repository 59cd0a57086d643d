/** What of a list is asked for, as it comes in an address. */
import { array, boolean, number, object, string, type Schema } from 'yup';
import type { ShownState } from './revisions';

const sorts = ['number', 'customer', 'title', 'owner', 'state', 'lines', 'net', 'changed'] as const;
const shownStates = [
  'draft',
  'signOff',
  'ready',
  'sent',
  'expired',
  'lost',
  'accepted',
] as const satisfies readonly ShownState[];

export interface QuoteListQuery {
  /** Words that number, title, customer or owner must have. */
  find: string;
  /** Only in one of these; all where there are none. */
  states: ShownState[];
  /** Only the person's own. */
  mine: boolean;
  sort: (typeof sorts)[number];
  descending: boolean;
  /** From 0. */
  page: number;
}

const find = string().max(100, 'input.tooLong').default('');
const page = number()
  .typeError('input.invalid')
  .integer('input.invalid')
  .min(0, 'input.invalid')
  .max(100_000, 'input.invalid')
  .default(0);

export const quoteListInput = object({
  find,
  page,
  states: array()
    .of(string().oneOf(shownStates, 'input.invalid').required('input.invalid'))
    .transform((value: unknown, given: unknown) =>
      typeof given === 'string' ? given.split(',').filter(Boolean) : value,
    )
    .default([]),
  mine: boolean().typeError('input.invalid').default(false),
  sort: string().oneOf(sorts, 'input.invalid').default('changed'),
  descending: boolean()
    .typeError('input.invalid')
    .when('sort', ([sort], schema) => schema.default(sort === undefined || sort === 'changed')),
}) as unknown as Schema<QuoteListQuery>;

export interface OrderListQuery {
  find: string;
  page: number;
}

export const orderListInput = object({ find, page }) as unknown as Schema<OrderListQuery>;

/** The best build by weights and bounds, each of the list price or a calculation. */
export interface BestInput {
  weights: { measure: string; weight: string }[];
  bounds: { measure: string; least?: string; most?: string }[];
  /** Rows set free, of those whose value nobody decided. */
  free: string[];
}

const measure = string().strict().max(200, 'input.tooLong').required('input.required');
const figure = string()
  .strict()
  .matches(/^-?\d{1,18}(\.\d{1,18})?$/, 'amount.notANumber');
export const bestInput = object({
  weights: array()
    .of(object({ measure, weight: figure.required('input.required') }).exact('input.unknownField'))
    .max(50, 'input.tooMany')
    .required('input.required'),
  bounds: array()
    .of(object({ measure, least: figure, most: figure }).exact('input.unknownField'))
    .max(50, 'input.tooMany')
    .default([]),
  free: array()
    .of(string().strict().max(400, 'input.tooLong').required('input.required'))
    .max(2_000, 'input.tooMany')
    .default([]),
})
  .exact('input.unknownField')
  .required('input.required') as unknown as Schema<BestInput>;

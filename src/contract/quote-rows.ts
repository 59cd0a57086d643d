/** Quotes as a list shows them, and what of a list is asked for. */
import { array, boolean, object, string, type Schema } from 'yup';
import type { ShownState } from '../core/quotes';
import { find, page, type Page } from './schema';

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

/** Which quotes are asked for, and in which order. */
export const quoteListInput = object({
  /** Words that number, title, customer or owner must have. */
  find,
  page,
  /** Only in one of these; all where there are none. */
  states: array()
    .of(string().oneOf(shownStates, 'input.invalid').required('input.invalid'))
    .transform((value: unknown, given: unknown) =>
      typeof given === 'string' ? given.split(',').filter(Boolean) : value,
    )
    .default([]),
  /** Only the person's own. */
  mine: boolean().typeError('input.invalid').default(false),
  sort: string().oneOf(sorts, 'input.invalid').default('changed'),
  descending: boolean()
    .typeError('input.invalid')
    .when('sort', ([sort], schema) => schema.default(sort === undefined || sort === 'changed')),
}) as unknown as Schema<QuoteListQuery>;

/** What of a list is asked for, as it passes. */
export interface QuoteListQuery {
  find: string;
  states: ShownState[];
  mine: boolean;
  sort: (typeof sorts)[number];
  descending: boolean;
  page: number;
}

/** A quote as a list shows it, by its newest revision. */
export interface QuoteRow {
  id: string;
  number: string;
  title: string;
  customer: string;
  owner: string;
  /** Of the person who reads. */
  mine: boolean;
  state: ShownState;
  revision: number;
  net: string;
  currency: string;
  decimals: number;
  lines: number;
  /** Lines that cannot be sold as they stand. */
  problems: number;
  /** Somebody must sign it, or has been asked to. */
  signing?: 'needed' | 'asked';
  updatedAt: string;
  validUntil: string;
}
/** A page of quotes. */
export type QuotePage = Page<QuoteRow>;

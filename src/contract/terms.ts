/** Terms: what is granted, limited, charged, and who buys, in rows that are followed and not changed. */
import { array, lazy, mixed, object, string, type Schema } from 'yup';
import { termKinds, type Stand, type TermKindId } from '../core/terms';
import type { Texts } from '../core/model';
import { endpoint, file, json } from './endpoint';
import type { KeptChange } from './items';
import type { AskedJob, WhatIfView } from './prices';
import { whatIfQuery } from './prices';
import { day, exactly, id, optionalDay, version, type Sent } from './schema';

/** Rows that are kept at once at most. */
export const mostTerms = 5_000;

const cells = mixed<Record<string, string>>()
  .test('cells', 'input.invalid', (given: unknown) => {
    if (given === null || typeof given !== 'object' || Array.isArray(given)) return false;
    const all = Object.entries(given);
    return (
      all.length <= 20 &&
      all.every(([name, text]) => name.length <= 30 && typeof text === 'string' && text.length <= 2_000)
    );
  })
  .required('input.required');

const noDay = mixed().nullable();
const maybeDay = lazy((given: unknown) => (given === null ? noDay : optionalDay));

const termRow = exactly({
  /** Of a new one there is none. */
  id: string().strict().uuid('input.badId'),
  version: version.optional().default(undefined),
  cells,
  /** Left out: what is new, or follows on something in force, begins on the day of the whole. */
  from: maybeDay,
  to: maybeDay,
});

/** Rows of a kind: new ones, and what is different; what is in force is followed from `from` on. */
export const termsInput = exactly({
  from: day,
  rows: array().strict().of(termRow).max(mostTerms, 'input.tooMany').required('input.required'),
  gone: array()
    .strict()
    .of(exactly({ id, version }))
    .max(mostTerms, 'input.tooMany')
    .required('input.required'),
}) as unknown as Schema<{
  from: string;
  rows: {
    id?: string | undefined;
    version?: number | undefined;
    cells: Record<string, string>;
    from?: string | null | undefined;
    to?: string | null | undefined;
  }[];
  gone: { id: string; version: number }[];
}>;
/** What passes `termsInput`. */
export type TermsInput = Sent<typeof termsInput>;

/** Whether what is over is shown too. */
export const termsQuery = object({ past: string().oneOf(['yes', 'no'] as const, 'input.badKind') });
/** What passes `termsQuery`. */
export type TermsQuery = Sent<typeof termsQuery>;

/** Whether a text names a kind of terms. */
export const isTermKind = (text: string): text is TermKindId => Object.hasOwn(termKinds, text);

/** A row of terms. */
export interface TermRowView {
  id: string;
  version: number;
  /** By field, as they are kept. */
  cells: Record<string, string>;
  from: string | null;
  to: string | null;
  stand: Stand;
}

/** What rows can name. */
export interface TermChoices {
  families: { code: string; name: Texts }[];
  lists: { code: string; name: Texts; currency: string }[];
  customers: { number: string; name: string }[];
  roles: string[];
  classes: string[];
  regions: string[];
  taxClasses: string[];
}

/** All rows of a kind. */
export interface TermsView {
  kind: TermKindId;
  rows: TermRowView[];
  choices: TermChoices;
  today: string;
}

/** What became of a row: those of the same, and who changed what. */
export interface TermHistory {
  rows: TermRowView[];
  changes: KeptChange[];
}

/** Endpoints of terms. */
export const terms = {
  'GET /terms/{kind}': endpoint({
    says: 'All rows of a kind of terms that hold or are to come, and those that are over where they are asked for.',
    who: 'prices',
    query: termsQuery,
    answers: json<TermsView>('TermsView'),
  }),
  'PUT /terms/{kind}': endpoint({
    says: 'Keeps rows of a kind of terms: all or none. What is in force is followed or ended from a day on.',
    who: 'prices',
    input: termsInput,
    most: 4 * 1024 * 1024,
    answers: json<TermsView>('TermsView'),
  }),
  'GET /terms/{kind}/as.{format}': endpoint({
    says: 'All rows of a kind of terms as a file for spreadsheets (csv or xlsx).',
    who: 'prices',
    answers: file,
  }),
  'GET /terms/history/{kind}/{id}': endpoint({
    says: 'What a row of terms was and will be, and who changed it.',
    who: 'prices',
    answers: json<TermHistory>('TermHistory'),
  }),
  'POST /terms/{kind}/try': endpoint({
    says: 'Works out in the background who would have to sign what on open quotes, if limits or policies were these.',
    who: 'prices',
    input: termsInput,
    most: 4 * 1024 * 1024,
    answers: json<AskedJob>('AskedJob'),
  }),
  'GET /terms/tried/{job}': endpoint({
    says: 'A page of who would have to sign what.',
    who: 'prices',
    query: whatIfQuery,
    answers: json<WhatIfView>('WhatIfView'),
  }),
  'GET /terms/tried/{job}/as.{format}': endpoint({
    says: 'What limits or policies would do, as they were tried, as a file for spreadsheets (csv or xlsx).',
    who: 'prices',
    query: whatIfQuery,
    answers: file,
  }),
};

/** Builds: begun, read, decided on, drawn, varied, put on a quote. */
import { array, mixed, object, string } from 'yup';
import type { BestAnswer } from '../core/engine';
import type { Registered } from '../core/numbering';
import type { BenchView, MoveView, NumberOnBench, VariantView } from './bench-view';
import { endpoint, file, json } from './endpoint';
import { changedQuote } from './quote-answer';
import {
  exactly,
  flag,
  id,
  named,
  optionalId,
  quantity,
  said,
  version,
  versionInput,
  whole,
  type Sent,
} from './schema';

const decision = exactly({
  on: named(400),
  value: mixed<string | boolean>()
    .test(
      'value',
      'decision.wrongType',
      (value: unknown) =>
        value === null || typeof value === 'boolean' || (typeof value === 'string' && value.length <= 2_000),
    )
    .nullable()
    .defined('input.required'),
});
const decisions = array().strict().of(decision).max(2_000, 'input.tooMany');

/**
 * A build begins from a model, a copy of another build, a saved build, or a part number; on a quote, or for the
 * person alone and priced for a customer. Of a model, what the needs answered come to is given along.
 */
export const newBuildInput = exactly({
  quoteId: optionalId,
  customerId: optionalId,
  modelId: string().strict().max(40, 'input.tooLong'),
  copyOf: optionalId,
  savedId: optionalId,
  partNumber: string().trim().max(200, 'input.tooLong'),
  asked: decisions,
})
  .test(
    'one',
    'build.oneStart',
    (value) =>
      [value.modelId, value.copyOf, value.savedId, value.partNumber].filter((each) => each !== undefined)
        .length === 1,
  )
  .test(
    'home',
    'build.oneHome',
    (value) => (value.quoteId === undefined) !== (value.customerId === undefined),
  );
/** What passes `newBuildInput`. */
export type NewBuildInput = Sent<typeof newBuildInput>;

/** A part number to be read. */
export const readNumberInput = exactly({ number: string().strict().trim().min(1).max(200).required() });
/** What passes `readNumberInput`. */
export type ReadNumberInput = Sent<typeof readNumberInput>;

/** Another variant: a copy, or empty. */
export const variantInput = exactly({ empty: flag.default(false) });
/** What passes `variantInput`. */
export type VariantInput = Sent<typeof variantInput>;

/** Variants to be put on the quote, as alternatives of one another where said so. */
export const sendVariantsInput = exactly({
  version,
  builds: array()
    .strict()
    .of(id)
    .min(1, 'input.required')
    .max(26, 'input.tooMany')
    .required('input.required'),
  alternatives: flag.default(false),
});
/** What passes `sendVariantsInput`. */
export type SendVariantsInput = Sent<typeof sendVariantsInput>;

const pass = exactly({ rule: named(100), reason: said(500, 'input.required') });
/** An amount as it travels. */
const amount = string()
  .strict()
  .matches(/^\d{1,12}(\.\d{1,6})?$/, 'amount.notANumber')
  .required('input.required');
/** What takes the place of an item: what it is, its cost and price for one, and its working days. */
export const specialFields = {
  text: said(200, 'input.required'),
  cost: amount,
  price: amount,
  days: whole(999),
};
const special = exactly({ item: named(40), ...specialFields });
/** What is made of a build: decisions, warnings passed with their reasons, special parts. */
export const contentInput = exactly({
  version,
  decisions: decisions.required('input.required'),
  passed: array().of(pass).max(200, 'input.tooMany').default([]),
  special: array().of(special).max(100, 'input.tooMany').default([]),
});
/** What passes `contentInput`. */
export type ContentInput = Sent<typeof contentInput>;

/** How many of a build are put on its quote. */
export const putOnQuoteInput = exactly({ version, quantity });
/** What passes `putOnQuoteInput`. */
export type PutOnQuoteInput = Sent<typeof putOnQuoteInput>;

const measure = named(200);
const figure = string()
  .strict()
  .matches(/^-?\d{1,18}(\.\d{1,18})?$/, 'amount.notANumber');
/**
 * The best build by weights and bounds, each of the list price or a calculation; `free` are rows set free, of
 * those whose value nobody decided.
 */
export const bestInput = exactly({
  weights: array()
    .of(exactly({ measure, weight: figure.required('input.required') }))
    .max(50, 'input.tooMany')
    .required('input.required'),
  bounds: array()
    .of(exactly({ measure, least: figure, most: figure }))
    .max(50, 'input.tooMany')
    .default([]),
  free: array().of(named(400)).max(2_000, 'input.tooMany').default([]),
});
/** What passes `bestInput`. */
export type BestInput = Sent<typeof bestInput>;

/** What is known of a build once it is stored. */
export interface SavedContent {
  version: number;
  partNumber: string;
  complete: boolean;
  registered?: Registered;
  specialNumber?: number;
  /** Working days until it is ready, for those whose page is not told how it is made. */
  leadDays?: number | null;
}

/** A build that was begun. */
export interface Begun {
  id: string;
  /** As it begins it leaves nothing to decide and no warning to pass. */
  ready: boolean;
}

/** A variant that was begun; its letter is its own among the variants of its build. */
export interface BegunVariant {
  id: string;
  letter: string;
}

/** Endpoints of builds. */
export const builds = {
  'POST /builds': endpoint({
    says: 'Begins a build for a quote, or for oneself and a customer, from a model, another build, a kept build or a part number.',
    who: 'quotes',
    input: newBuildInput,
    answers: json<Begun>('Begun'),
  }),
  'GET /builds/{id}': endpoint({
    says: 'A build with all that it takes to go on with it.',
    who: 'person',
    answers: json<BenchView>('BenchView'),
  }),
  'PUT /builds/{id}': endpoint({
    says: 'Stores what is decided on a build; what follows from it is worked out again.',
    who: 'quotes',
    input: contentInput,
    answers: json<SavedContent>('SavedContent'),
  }),
  'DELETE /builds/{id}': endpoint({
    says: 'Removes a variant.',
    who: 'quotes',
    answers: json<null>('null'),
  }),
  'POST /builds/{id}/best': endpoint({
    says: 'The best build by weights and bounds; changes nothing.',
    who: 'person',
    input: bestInput,
    answers: json<BestAnswer>('BestAnswer'),
  }),
  'POST /builds/{id}/read': endpoint({
    says: 'What a part number stands for on a build; changes nothing.',
    who: 'person',
    input: readNumberInput,
    answers: json<NumberOnBench>('NumberOnBench'),
  }),
  'GET /builds/{id}/move': endpoint({
    says: 'What would change if a build moved to the newest version of its model.',
    who: 'person',
    answers: json<MoveView>('MoveView'),
  }),
  'POST /builds/{id}/move': endpoint({
    says: 'Moves a build to the newest version of its model.',
    who: 'quotes',
    input: versionInput,
    answers: json<null>('null'),
  }),
  'GET /builds/{id}/variants': endpoint({
    says: 'The variants of one another, side by side.',
    who: 'person',
    answers: json<VariantView[]>('VariantView[]'),
  }),
  'POST /builds/{id}/variants': endpoint({
    says: 'Adds a variant, as the build is or empty.',
    who: 'quotes',
    input: variantInput,
    answers: json<BegunVariant>('BegunVariant'),
  }),
  'POST /builds/{id}/line': endpoint({
    says: 'Puts a build on its quote, or brings the line that it has up to it.',
    who: 'quotes',
    input: putOnQuoteInput,
    answers: changedQuote,
  }),
  'GET /builds/{id}/drawing.{format}': endpoint({
    says: 'The drawing of a build as a file (svg, dxf, glb or ifc; the last with all detail or coarse), in one of its views.',
    who: 'person',
    query: object({ view: string().default(''), detail: string().default('full') }),
    answers: file,
  }),
};

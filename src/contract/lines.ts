/** Lines of a quote: added, changed, moved, grouped, made alternatives, read from a list. */
import { array, mixed, number, string } from 'yup';
import type { ExactText } from '../core/exact';
import type { Texts } from '../core/model';
import type { ShownState } from '../core/quotes';
import { endpoint, file, json, takingFile } from './endpoint';
import { changedQuote } from './quote-answer';
import { revisionQuery } from './revision-query';
import {
  exactly,
  flag,
  id,
  lineIds,
  named,
  quantity,
  term,
  version,
  versionInput,
  type Sent,
} from './schema';
import { discountPercent, typedFigure, typedMoney } from './typed';

/** A line by its item or part number, at the end. */
export const newLineInput = exactly({ version, sku: named(200), quantity });
/** What passes `newLineInput`. */
export type NewLineInput = Sent<typeof newLineInput>;

const row = exactly({ sku: named(200), quantity, discount: discountPercent.optional() });
/** `discount` is by hand, in percent. */
export const newLinesInput = exactly({
  version,
  rows: array().of(row).min(1, 'input.required').max(1_000, 'input.tooMany').required('input.required'),
});
/** What passes `newLinesInput`. */
export type NewLinesInput = Sent<typeof newLinesInput>;

const optionalTerm = term.optional().default(undefined);
/** What may be typed on one line, or on several at once. */
const lineFields = {
  quantity: quantity.optional(),
  hand: typedFigure,
  locked: flag,
  optional: flag,
  term: optionalTerm,
};
const moneyOrNone = typedMoney.nullable().optional();
const rates = exactly({
  each: array()
    .strict()
    .of(typedMoney)
    .min(1, 'input.required')
    .max(50, 'input.tooMany')
    .required('input.required'),
  least: typedMoney.optional(),
});
/** Rates of what is used, one a slice, as they are typed. */
export type RatesInput = Sent<typeof rates>;

/** What may be typed on one line; null takes back what was typed. */
export const changeLineInput = exactly({
  version,
  ...lineFields,
  price: typedMoney.optional(),
  cost: moneyOrNone,
  rates: rates.nullable().optional().default(undefined),
  resale: moneyOrNone,
});
/** What passes `changeLineInput`. */
export type ChangeLineInput = Sent<typeof changeLineInput>;

/** The same change for many lines; null as the group takes them out of theirs. */
export const changeLinesInput = exactly({
  version,
  lines: lineIds,
  ...lineFields,
  group: string().trim().min(1, 'group.noName').max(80, 'input.tooLong').nullable().optional(),
});
/** What passes `changeLinesInput`. */
export type ChangeLinesInput = Sent<typeof changeLinesInput>;

const lineValue = exactly({ line: id, quantity: quantity.optional(), hand: typedFigure, term: optionalTerm });
/** What a column of cells was filled with. */
export type LineValue = Sent<typeof lineValue>;
/** Many lines, each with a value of its own. */
export const lineValuesInput = exactly({
  version,
  rows: array().of(lineValue).min(1, 'input.required').max(1_000, 'input.tooMany').required('input.required'),
});
/** What passes `lineValuesInput`. */
export type LineValuesInput = Sent<typeof lineValuesInput>;

/** Some lines of a quote. */
export const linesInput = exactly({ version, lines: lineIds });
/** What passes `linesInput`. */
export type LinesInput = Sent<typeof linesInput>;

/** Lines that become alternatives of one another, or stand apart again. */
export const alternativesInput = exactly({ version, lines: lineIds, apart: flag });
/** What passes `alternativesInput`. */
export type AlternativesInput = Sent<typeof alternativesInput>;

const groupName = string().trim().max(80, 'input.tooLong').required('group.noName');
/** A group and its new name. */
export const renameGroupInput = exactly({ version, from: groupName, to: groupName });
/** What passes `renameGroupInput`. */
export type RenameGroupInput = Sent<typeof renameGroupInput>;

/** To a place counted from 1. */
export const placeLinesInput = exactly({
  version,
  lines: lineIds,
  to: number()
    .strict()
    .integer('quantity.whole')
    .min(1, 'quantity.range')
    .max(99_999, 'quantity.range')
    .required('input.required'),
});
/** What passes `placeLinesInput`. */
export type PlaceLinesInput = Sent<typeof placeLinesInput>;

/** Part numbers to be read. */
export const readNumbersInput = exactly({
  numbers: array().strict().of(named(200)).max(10_000, 'input.tooMany').required('input.required'),
});
/** What passes `readNumbersInput`. */
export type ReadNumbersInput = Sent<typeof readNumbersInput>;

/** What a number of a pasted list is. */
export type ReadNumber =
  | { is: 'item'; sku: string; name: Texts; unit: string }
  /** Read back as a build; `complete` where nothing is left to choose. */
  | { is: 'build'; name: Texts; complete: boolean }
  | {
      is: 'wrong';
      code: string;
      params: Record<string, string | number>;
      nearest?: { number: string; name: Texts };
    };

/** What a customer was offered for the same item before. */
export interface LastPrice {
  quoteId: string;
  number: string;
  revision: number;
  state: ShownState;
  /** When it was sent, accepted or lost. */
  on: string;
  quantity: number;
  unitList: ExactText;
  unitNet: ExactText;
  currency: string;
  decimals: number;
}

/** What a file says, as a list that can be pasted. */
export interface ReadTable {
  text: string;
}

/** Endpoints of lines. */
export const lines = {
  'POST /quotes/{id}/lines': endpoint({
    says: 'Adds an item or a configured build by its number, at the end.',
    who: 'quotes',
    input: newLineInput,
    answers: changedQuote,
  }),
  'PATCH /quotes/{id}/lines/{line}': endpoint({
    says: 'Changes a line: quantity, typed figure, price, cost, rates, term, whether it is locked or optional.',
    who: 'quotes',
    input: changeLineInput,
    answers: changedQuote,
  }),
  'DELETE /quotes/{id}/lines/{line}': endpoint({
    says: 'Removes a line.',
    who: 'quotes',
    input: versionInput,
    answers: changedQuote,
  }),
  'POST /quotes/{id}/lines/{line}/copy': endpoint({
    says: 'Copies a line, its build with it, to the place behind it.',
    who: 'quotes',
    input: versionInput,
    answers: changedQuote,
  }),
  'POST /quotes/{id}/lines/{line}/instead': endpoint({
    says: 'Lets an alternative count in the place of the line that did.',
    who: 'quotes',
    input: versionInput,
    answers: changedQuote,
  }),
  'GET /quotes/{id}/lines/{line}/last': endpoint({
    says: 'What the customer was offered for the same item before.',
    who: 'person',
    answers: json<LastPrice[]>('LastPrice[]'),
  }),
  'POST /quotes/{id}/lines/several': endpoint({
    says: 'Adds many lines by their numbers, all or none.',
    who: 'quotes',
    input: newLinesInput,
    answers: changedQuote,
  }),
  'PATCH /quotes/{id}/lines/several': endpoint({
    says: 'Changes many lines in the same way, all or none.',
    who: 'quotes',
    input: changeLinesInput,
    answers: changedQuote,
  }),
  'DELETE /quotes/{id}/lines/several': endpoint({
    says: 'Removes lines.',
    who: 'quotes',
    input: linesInput,
    answers: changedQuote,
  }),
  'PATCH /quotes/{id}/lines/values': endpoint({
    says: 'Fills cells of many lines, each with its own value, all or none.',
    who: 'quotes',
    input: lineValuesInput,
    answers: changedQuote,
  }),
  'POST /quotes/{id}/lines/place': endpoint({
    says: 'Moves lines to another place.',
    who: 'quotes',
    input: placeLinesInput,
    answers: changedQuote,
  }),
  'POST /quotes/{id}/lines/alternatives': endpoint({
    says: 'Makes lines alternatives of one another, or sets them apart again.',
    who: 'quotes',
    input: alternativesInput,
    answers: changedQuote,
  }),
  'PATCH /quotes/{id}/groups': endpoint({
    says: 'Gives a group of lines another name.',
    who: 'quotes',
    input: renameGroupInput,
    answers: changedQuote,
  }),
  'POST /quotes/{id}/numbers': endpoint({
    says: 'Reads part numbers and says what each stands for; changes nothing.',
    who: 'person',
    input: readNumbersInput,
    answers: json<ReadNumber[]>('ReadNumber[]'),
  }),
  'GET /quotes/{id}/lines.{format}': endpoint({
    says: 'The lines as a file (csv or xlsx): as the customer may see them, or with all that the person sees.',
    who: 'person',
    query: revisionQuery.shape({ internal: mixed<string>() }),
    answers: file,
  }),
  'POST /read-table': takingFile({
    says: 'Part numbers and quantities of a CSV or XLSX file, as a list to look at; nothing is kept.',
    who: 'person',
    most: 5 * 1024 * 1024,
    answers: json<ReadTable>('ReadTable'),
  }),
};

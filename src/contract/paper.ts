/** What is put on paper: composed for a quote, and the texts and templates of the house that it is made from. */
import { array, boolean, mixed, number, string, type Schema } from 'yup';
import {
  blockKinds,
  partKinds,
  readRich,
  type Composition,
  type PaperGiven,
  type RichText,
  type TemplateContent,
  type TextContent,
} from '../core/paper';
import { writings } from '../core/quotes';
import type { Texts } from '../core/model';
import { endpoint, file, json } from './endpoint';
import { revisionQuery } from './revision-query';
import { exactly, id, oneOf, said, version } from './schema';

/** Formats of a quotation. */
export const paperFormats = ['pdf', 'docx', 'xlsx', 'html', 'xml'] as const;
/** A format of a quotation. */
export type PaperFormat = (typeof paperFormats)[number];

/** Blocks of one document at most, texts among them. */
const mostBlocks = 60;
/** Files joined at most. */
const mostAnnexes = 20;

const code = string()
  .strict()
  .trim()
  .max(40, 'input.tooLong')
  .matches(/^[a-zA-Z][a-zA-Z0-9-]*$/, { message: 'paper.badCode', excludeEmptyString: true });
const colour = string()
  .strict()
  .matches(/^#[0-9a-f]{6}$/i, 'paper.badColour')
  .required('paper.badColour');
const condition = string().strict().max(2_000, 'input.tooLong').default('');
const must = <const W extends string>(words: readonly W[]) =>
  oneOf(words, 'paper.badChoice').required('paper.badChoice');

/** Rich text as it travels; null where there is none. Everything that has no place in it is left out. */
const rich = mixed<RichText>()
  .transform((given: unknown) => (given ? (readRich(given) ?? 'none') : null))
  .test('rich', 'paper.badText', (value: unknown) => value === null || Array.isArray(value))
  .nullable()
  .default(null);

const block = exactly({
  key: string().strict().trim().min(1, 'input.required').max(80, 'input.tooLong').required('input.required'),
  kind: must(blockKinds),
  on: boolean().strict().required('input.required'),
  when: condition,
  text: code.default(''),
  own: rich,
});

const blocks = array()
  .of(block)
  .max(mostBlocks, 'input.tooMany')
  .required('input.required')
  .test('once', 'paper.blockTwice', (given) => new Set(given.map(({ key }) => key)).size === given.length);

const linesChoice = exactly({
  prices: must(['each', 'sums', 'none']),
  discounts: must(['line', 'sum', 'none']),
  parts: must(['priced', 'bundles', 'named', 'none']),
  chosen: must(['table', 'prose', 'short', 'none']),
  numbers: boolean().strict().required('input.required'),
  groups: boolean().strict().required('input.required'),
  kinds: array().of(must(partKinds)).max(partKinds.length, 'input.tooMany').required('input.required'),
  under: code.default(''),
});

const drawings = exactly({
  views: array()
    .of(string().strict().max(40, 'input.tooLong').required('input.required'))
    .max(20, 'input.tooMany')
    .required('input.required'),
  space: boolean().strict().required('input.required'),
});

const look = {
  colour,
  blocks,
  lines: linesChoice.required('input.required'),
  drawings: drawings.required('input.required'),
};

const composition = exactly({
  template: code.default(''),
  language: must(writings),
  paper: must(['A4', 'letter']),
  ...look,
  annexes: array()
    .of(exactly({ file: id, name: said(200, 'input.required'), kind: must(['pdf', 'picture']) }))
    .max(mostAnnexes, 'input.tooMany')
    .required('input.required'),
}).required('input.required');

/** Of what may be new: 0 where it is. */
const versionOrNew = number()
  .strict()
  .typeError('input.badVersion')
  .integer('input.badVersion')
  .min(0, 'input.badVersion')
  .required('input.required');

/** What was chosen, against the version that the person saw: 0 where nothing was chosen for this revision yet. */
export const composeInput = exactly({ version: versionOrNew, composition });
/** What passes `composeInput`. */
export interface ComposeInput {
  version: number;
  composition: Composition;
}

/** A document to be looked at; nothing is kept. */
export const pagesInput = exactly({ composition });
/** What passes `pagesInput`. */
export interface PagesInput {
  composition: Composition;
}

const name = string().strict().trim().max(120, 'input.tooLong');
const names = exactly({ en: name.optional(), de: name.optional() }).test('some', 'paper.noName', (given) =>
  Object.values(given).some((text) => typeof text === 'string' && text !== ''),
);

/** A text of the house; version 0 where it is new. */
export const paperTextInput = exactly({
  version: versionOrNew,
  content: exactly({
    name: names,
    place: must(['document', 'line', 'mail']),
    /** Of a mail: what it is about, with placeholders. */
    subject: exactly({ en: name.optional(), de: name.optional() }).optional().default(undefined),
    words: exactly({ en: rich, de: rich }).required('input.required'),
  }).required('input.required'),
});
/** What passes `paperTextInput`. */
export interface PaperTextInput {
  version: number;
  content: TextContent;
}

/** A template; version 0 where it is new. */
export const paperTemplateInput = exactly({
  version: versionOrNew,
  content: exactly({
    name: names,
    market: string().strict().max(6, 'input.tooLong').nullable().default(null),
    class: string().strict().max(20, 'input.tooLong').nullable().default(null),
    dealers: string().strict().max(40, 'input.tooLong').required('input.required'),
    language: oneOf(writings, 'paper.badChoice').nullable().default(null),
    paper: oneOf(['A4', 'letter'], 'paper.badChoice').nullable().default(null),
    mark: string().strict().uuid('input.badId').nullable().default(null),
    ...look,
  }).required('input.required'),
});
/** What passes `paperTemplateInput`. */
export interface PaperTemplateInput {
  version: number;
  content: TemplateContent;
}

/** Against which version something is taken away. */
export const paperVersionInput = exactly({ version });

/** Something that whoever sends should know. */
export type PaperWarning =
  /** Letters that no font of the pages has. */
  | { is: 'letters'; letters: string[] }
  /** A placeholder of a block that cannot be read any more. */
  | { is: 'placeholder'; block: string; source: string }
  /** A text, template or annex that is no longer there. */
  | { is: 'gone'; what: 'text' | 'template' | 'annex'; name: string }
  /** An annex that cannot be read as PDF. */
  | { is: 'annex'; name: string };

/** A text as it is taken for a document. */
export interface PaperText {
  code: string;
  version: number;
  name: Texts;
  place: TextContent['place'];
  words: TextContent['words'];
  subject?: TextContent['subject'];
}

/** A template as it is chosen from. */
export interface PaperTemplate {
  code: string;
  version: number;
  content: TemplateContent;
}

/** A quote's document while it is composed. */
export interface PaperView {
  quote: { id: string; number: string; title: string; revision: number; currency: string };
  customer: string;
  /** 0 where nothing was chosen for this revision yet. */
  version: number;
  changedBy: string | null;
  mayEdit: boolean;
  composition: Composition;
  /** As the template that fits has it. */
  usual: Composition;
  /** Those that fit the quote, the one that fits best first. */
  templates: PaperTemplate[];
  texts: PaperText[];
  /** Views that the drawings of its builds have. */
  views: { id: string; name: Texts }[];
  /** Data sheets of its items that could go along as annexes. */
  proposed: { file: string; sku: string; name: Texts; fileName: string }[];
  warnings: PaperWarning[];
}

/** Texts and templates as whoever keeps them sees them. */
export interface PaperHouseView {
  texts: PaperText[];
  templates: PaperTemplate[];
  markets: { code: string; name: string }[];
  dealers: { id: string; name: string }[];
  /** Quotes to try them on, the newest first. */
  quotes: { id: string; number: string; title: string; customer: string }[];
}

/** Endpoints of paper. */
export const paper = {
  'GET /quotes/{id}/paper': endpoint({
    says: 'The document of a quote as it is composed, with what may be chosen.',
    who: 'person',
    query: revisionQuery,
    answers: json<PaperView>('PaperView'),
  }),
  'PUT /quotes/{id}/paper': endpoint({
    says: 'Keeps what was chosen for the document of the newest revision, and remembers it for the customer.',
    who: 'quotes',
    input: composeInput,
    answers: json<PaperView>('PaperView'),
  }),
  'POST /quotes/{id}/paper/pages': endpoint({
    says: 'The pages of a document as it would be; nothing is kept.',
    who: 'person',
    query: revisionQuery,
    input: pagesInput,
    answers: file,
  }),
  'GET /quotes/{id}/paper/given': endpoint({
    says: 'What a document of a quote is made of, as its customer may see it.',
    who: 'person',
    query: revisionQuery,
    answers: json<PaperGiven>('PaperGiven'),
  }),
  'GET /quotes/{id}/paper.{format}': endpoint({
    says: 'The quotation as a file: pdf, docx, xlsx, html for mail, or xml (UBL 2.1).',
    who: 'person',
    query: revisionQuery,
    answers: file,
  }),
  'GET /builds/{id}/specification.{format}': endpoint({
    says: 'The specification sheet of a build as pdf, docx or html, without prices.',
    who: 'person',
    answers: file,
  }),
  'GET /builds/{id}/drawings.zip': endpoint({
    says: 'All drawings of a build in one archive: each view as svg and dxf, all as pdf, and in space as glb and ifc.',
    who: 'person',
    answers: file,
  }),
  'GET /paper': endpoint({
    says: 'Texts and templates of the house.',
    who: 'paper',
    answers: json<PaperHouseView>('PaperHouseView'),
  }),
  'PUT /paper/texts/{code}': endpoint({
    says: 'Follows a text by another version, or makes a new one.',
    who: 'paper',
    input: paperTextInput as unknown as Schema<PaperTextInput>,
    answers: json<PaperHouseView>('PaperHouseView'),
  }),
  'DELETE /paper/texts/{code}': endpoint({
    says: 'Takes a text away, where no template has it.',
    who: 'paper',
    input: paperVersionInput,
    answers: json<PaperHouseView>('PaperHouseView'),
  }),
  'PUT /paper/templates/{code}': endpoint({
    says: 'Follows a template by another version, or makes a new one.',
    who: 'paper',
    input: paperTemplateInput,
    answers: json<PaperHouseView>('PaperHouseView'),
  }),
  'DELETE /paper/templates/{code}': endpoint({
    says: 'Takes a template away; documents that began from it stay as they are.',
    who: 'paper',
    input: paperVersionInput,
    answers: json<PaperHouseView>('PaperHouseView'),
  }),
};

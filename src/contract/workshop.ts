/** The Workshop: drafts of models, what they would change, and the versions that come of them. */
import { array, boolean, lazy, mixed, object, string, type Schema } from 'yup';
import type { Finding, TestResult } from '../core/engine';
import type { ItemProperty, PropertyValue } from '../core/items';
import type { ModelDocument, ModelProblem, Texts } from '../core/model';
import {
  isEdit,
  type Conflict,
  type DecisionTable,
  type Difference,
  type Edit,
  type NotTaken,
} from '../core/modelling';
import type { Tariff } from '../core/pricing';
import { endpoint, file, json, takingFile } from './endpoint';
import { day, exactly, id, page, said, version, type Page, type Sent } from './schema';

const modelId = string()
  .strict()
  .matches(/^[a-z][A-Za-z0-9]{0,39}$/, 'model.badId')
  .required('model.badId');
const sku = string()
  .strict()
  .matches(/^[A-Z0-9][A-Z0-9.-]{0,39}$/, 'model.badSku');

const sheetLimits = { rows: 10_000, cells: 200_000, text: 2_000 };

/** Rows of texts within their limits, in one pass: a schema for each of so many cells would take seconds. */
function isSheet(given: unknown): given is string[][] {
  if (!Array.isArray(given) || given.length === 0 || given.length > sheetLimits.rows) return false;
  let cells = 0;
  return given.every(
    (row: unknown) =>
      Array.isArray(row) &&
      (cells += row.length) <= sheetLimits.cells &&
      row.every((cell) => typeof cell === 'string' && cell.length <= sheetLimits.text),
  );
}

const draftFields = exactly({
  name: said(80, 'draft.noName'),
  from: lazy((given: { is?: unknown } | undefined) => {
    switch (given?.is) {
      case 'version':
        return exactly({ is: string().oneOf(['version']), version: id });
      case 'copy':
        return exactly({
          is: string().oneOf(['copy']),
          version: id,
          id: modelId,
          sku: sku.required('model.badSku'),
          title: said(80, 'draft.noName'),
        });
      case 'nothing':
        return exactly({
          is: string().oneOf(['nothing']),
          id: modelId,
          sku: sku.required('model.badSku'),
          title: said(80, 'draft.noName'),
        });
      case 'items':
        return exactly({
          is: string().oneOf(['items']),
          id: modelId,
          sku: sku.required('model.badSku'),
          title: said(80, 'draft.noName'),
          skus: array()
            .strict()
            .of(sku.required('model.badSku'))
            .min(1, 'draft.noItems')
            .max(2_000, 'input.tooMany')
            .required('draft.noItems'),
        });
      case 'bundle':
        return exactly({
          is: string().oneOf(['bundle']),
          version: id,
          id: modelId,
          sku: sku.required('model.badSku'),
          title: said(80, 'draft.noName'),
        });
      case 'rows':
        return exactly({
          is: string().oneOf(['rows']),
          id: modelId,
          sku: sku.required('model.badSku'),
          title: said(80, 'draft.noName'),
          rows: mixed(isSheet).required('draft.noRows'),
          leave: boolean().strict(),
        });
      case 'document':
        return exactly({
          is: string().oneOf(['document']),
          sku,
          document: mixed().required('draft.noDocument'),
        });
      default:
        return object({ is: string().oneOf([], 'input.badKind').required('input.badKind') });
    }
  }),
});
/** What a draft is begun from: a version, a copy, nothing, items of the catalogue, a bundle, rows of a sheet, a document. */
export interface NewDraftInput {
  name: string;
  from:
    | { is: 'version'; version: string }
    | { is: 'copy'; version: string; id: string; sku: string; title: string }
    | { is: 'nothing'; id: string; sku: string; title: string }
    | { is: 'items'; id: string; sku: string; title: string; skus: string[] }
    | { is: 'bundle'; version: string; id: string; sku: string; title: string }
    /** With `leave` what is wrong in rows is left out. */
    | { is: 'rows'; id: string; sku: string; title: string; rows: string[][]; leave?: boolean }
    | { is: 'document'; sku?: string; document: unknown };
}

/** What a draft is begun from; which fields there are depends on what it is. */
export const newDraftInput = draftFields as unknown as Schema<NewDraftInput>;

/** An edit, made on the version of the draft that its maker knew. */
export interface EditInput {
  version: number;
  edit: Edit;
}
/** What an edit is sent as. */
export const editInput = exactly({
  version,
  edit: mixed((given): given is Edit => isEdit(given)).required('draft.badEdit'),
}) as unknown as Schema<EditInput>;

/** A draft as its maker knew it. */
export const draftInput = exactly({ version });
/** What passes `draftInput`. */
export type DraftInput = Sent<typeof draftInput>;

/** Bringing a draft up to date: of what both changed differently, what the other changed is taken at these places. */
export const catchUpInput = exactly({
  version,
  take: array()
    .strict()
    .of(string().strict().max(500).required())
    .max(5_000, 'input.tooMany')
    .required('input.required'),
});
/** What passes `catchUpInput`. */
export type CatchUpInput = Sent<typeof catchUpInput>;

/** Publishing: a note, and the day from which it is in force. */
export const publishInput = exactly({ version, note: said(1_000, 'draft.noNote'), from: day });
/** What passes `publishInput`. */
export type PublishInput = Sent<typeof publishInput>;

/** Why a version is withdrawn. */
export const withdrawInput = exactly({ note: said(1_000, 'draft.noNote') });
/** What passes `withdrawInput`. */
export type WithdrawInput = Sent<typeof withdrawInput>;

/** Which builds of an impact are asked for. */
export const impactQuery = object({ is: string().oneOf(['same', 'other', 'decide', 'lost']), page });
/** What passes `impactQuery`. */
export type ImpactQuery = Sent<typeof impactQuery>;

/** A draft that was begun. */
export interface NewDraft {
  id: string;
}

/** The job that works out what a draft would change. */
export interface ImpactJob {
  job: string;
}

/** A version that was published. */
export interface Published {
  id: string;
  number: number;
}

/** A published version. */
export interface VersionView {
  id: string;
  number: number;
  /** From which day on. */
  inForce: string;
  publishedAt: string;
  by: string | null;
  note: string;
  agreedBy: string | null;
  withdrawn: { at: string; by: string | null; note: string } | null;
  /** It is what customers get today. */
  current: boolean;
}

/** A draft, as it is told of where it is not open. */
export interface DraftHead {
  id: string;
  modelId: string;
  name: string;
  title: Texts;
  version: number;
  /** Number of the version that it was made from; null for a new model. */
  base: number | null;
  changedAt: string;
  changedBy: string;
  /** Another version came into force since. */
  behind: boolean;
}

/** A model with its versions and open drafts. */
export interface ModelHead {
  id: string;
  sku: string;
  name: Texts;
  versions: VersionView[];
  drafts: DraftHead[];
}

/** All models, and drafts of those that are not published yet. */
export interface ModelsView {
  models: ModelHead[];
  drafts: DraftHead[];
  /** A second pair of eyes is wanted before something is published. */
  secondEyes: boolean;
}

/** An edit as it was made. */
export interface EditView {
  number: number;
  version: number;
  edit: Edit;
  by: string;
  at: string;
  undone: boolean;
}

/** A page of edits, the newest first. */
export type EditPage = Page<EditView>;

/** A draft as its page opens it. */
export interface DraftView extends DraftHead {
  sku: string;
  document: ModelDocument;
  /** The base was withdrawn. */
  baseWithdrawn: boolean;
  canUndo: boolean;
  canRedo: boolean;
  /** Names of items, and what they cost and list at, for the try-out. */
  items: Record<string, Texts>;
  tariff: Tariff;
  facts: Record<string, { leadDays: number; mass?: string }>;
  centres: { code: string; name: Texts }[];
  versions: VersionView[];
  /** What it would change out there, as far as it was worked out for this very document. */
  impact: { job: string; seen: boolean } | null;
  agreed: boolean;
  secondEyes: boolean;
  today: string;
}

/** The draft after an edit, with what others did in between. */
export interface EditedView {
  version: number;
  /** Edits that the maker did not know, in their order. */
  between: EditView[];
  canUndo: boolean;
  canRedo: boolean;
}

/** What was taken back or made again, as an edit of the document as it was. */
export interface StepView extends EditedView {
  edit: Edit;
}

/** What a check found: what does not compile, what is wrong, and which tests are red. */
export interface DraftCheck {
  version: number;
  problems: ModelProblem[];
  findings: Finding[];
  tests: TestResult[];
}

/** What items of a draft list at, by item and list; null where a list has none. */
export interface DraftEntries {
  lists: { code: string; currency: string }[];
  items: Record<string, (string | null)[]>;
}

/** What the catalogue tells of the items that a draft brings, by the properties of their families. */
export interface DraftFacts {
  families: Record<string, ItemProperty[]>;
  items: Record<string, { family: string; name: Texts; values: Record<string, PropertyValue> }>;
}

/** What a check found, or the job that is at it. */
export interface CheckAnswer {
  check: DraftCheck | null;
  job: string | null;
}

/** What another version changed that this draft has not. */
export interface CatchUpView {
  to: number;
  changes: number;
  conflicts: Conflict[];
}

/** What a draft would make of a build out there. */
export interface ImpactRow {
  build: string;
  is: 'same' | 'other' | 'decide' | 'lost';
  /** Where it stands: a quote, a kept build, or an order. */
  at: { is: 'quote' | 'saved' | 'order'; id: string; number: string; title: string };
  owner: string;
  rows: string[];
  why: string[];
  price: { before: string; after: string };
  number: { before: string; after: string };
  leadDays: { before: number | null; after: number | null };
}

/** A page of what a draft would change. */
export interface ImpactView extends Page<ImpactRow> {
  counts: Record<ImpactRow['is'], number>;
}

/** Which part of a draft is wanted as a file, and of which rule. */
export const draftFileQuery = object({
  part: string()
    .oneOf(['document', 'outline', 'words', 'table', 'tables', 'impact'], 'input.badKind')
    .default('outline'),
  rule: string().max(40, 'input.tooLong'),
});
/** What passes `draftFileQuery`. */
export type DraftFileQuery = Sent<typeof draftFileQuery>;

/** The rows of a file as they stand. */
export interface FileRows {
  rows: string[][];
}

/** The decision tables of a file, and what in it is none. */
export interface FileTables {
  tables: DecisionTable[];
  notTaken: NotTaken[];
}

/** Endpoints of the Workshop. */
export const workshop = {
  'GET /models': endpoint({
    says: 'All models with their versions and drafts.',
    who: 'model',
    answers: json<ModelsView>('ModelsView'),
  }),
  'POST /drafts': endpoint({
    says: 'Begins a draft: from a version, a copy of one, nothing, items, a bundle, rows of a sheet, or a document.',
    who: 'model',
    input: newDraftInput,
    most: 8 * 1024 * 1024,
    answers: json<NewDraft>('NewDraft'),
  }),
  'GET /drafts/{id}': endpoint({
    says: 'A draft with all that its page needs to try it out.',
    who: 'model',
    answers: json<DraftView>('DraftView'),
  }),
  'GET /drafts/{id}/edits': endpoint({
    says: 'The edits of a draft, the newest first.',
    who: 'model',
    query: object({ page }),
    answers: json<EditPage>('EditPage'),
  }),
  'POST /drafts/{id}/edits': endpoint({
    says: 'Does an edit. What others did in between is told; what would be overwritten unseen is refused.',
    who: 'model',
    input: editInput,
    most: 8 * 1024 * 1024,
    answers: json<EditedView>('EditedView'),
  }),
  'POST /drafts/{id}/undo': endpoint({
    says: 'Takes the last edit back; of the last 200 each.',
    who: 'model',
    input: draftInput,
    answers: json<StepView>('StepView'),
  }),
  'POST /drafts/{id}/redo': endpoint({
    says: 'Makes again what was taken back.',
    who: 'model',
    input: draftInput,
    answers: json<StepView>('StepView'),
  }),
  'POST /drafts/{id}/aside': endpoint({
    says: 'Puts a draft aside for good; nothing of it was published.',
    who: 'model',
    input: draftInput,
    answers: json<null>('null'),
  }),
  'POST /drafts/{id}/check': endpoint({
    says: 'Compiles a draft, examines it, and runs its tests; of a large model the job that does it is told.',
    who: 'model',
    input: draftInput,
    answers: json<CheckAnswer>('CheckAnswer'),
  }),
  'GET /drafts/{id}/differences': endpoint({
    says: 'What differs between a draft and the version that it was made from.',
    who: 'model',
    answers: json<Difference[]>('Difference[]'),
  }),
  'GET /drafts/{id}/catch-up': endpoint({
    says: 'What the version in force changed that a draft has not, and what both changed differently.',
    who: 'model',
    answers: json<CatchUpView>('CatchUpView'),
  }),
  'POST /drafts/{id}/catch-up': endpoint({
    says: 'Brings a draft up to date with the version in force.',
    who: 'model',
    input: catchUpInput,
    answers: json<EditedView>('EditedView'),
  }),
  'POST /drafts/{id}/impact': endpoint({
    says: 'Begins to work out what a draft would change out there; the job that does it already is not begun twice.',
    who: 'model',
    input: draftInput,
    answers: json<ImpactJob>('ImpactJob'),
  }),
  'GET /drafts/{id}/impact': endpoint({
    says: 'A page of what a draft would change out there.',
    who: 'model',
    query: impactQuery,
    answers: json<ImpactView>('ImpactView'),
  }),
  'GET /drafts/{id}/entries': endpoint({
    says: 'What the items of a draft list at today in each price list.',
    who: 'model',
    answers: json<DraftEntries>('DraftEntries'),
  }),
  'GET /drafts/{id}/facts': endpoint({
    says: 'What the catalogue tells of the items of a draft, such as their rated load.',
    who: 'model',
    answers: json<DraftFacts>('DraftFacts'),
  }),
  'GET /drafts/{id}/as.{format}': endpoint({
    says: 'A part of a draft as a file: its document (json), outline, words, a table rule or an impact (csv, xlsx), table rules as decision tables (dmn).',
    who: 'model',
    query: draftFileQuery,
    answers: file,
  }),
  'POST /read-rows': takingFile({
    says: 'The rows of a CSV or XLSX file as they stand, to look at; nothing is kept.',
    who: 'person',
    most: 5 * 1024 * 1024,
    answers: json<FileRows>('FileRows'),
  }),
  'POST /read-tables': takingFile({
    says: 'The decision tables of a DMN file, to look at; nothing is kept.',
    who: 'model',
    most: 5 * 1024 * 1024,
    answers: json<FileTables>('FileTables'),
  }),
  'POST /drafts/{id}/agree': endpoint({
    says: 'Agrees to a draft as it is, as the second pair of eyes.',
    who: 'agree',
    input: draftInput,
    answers: json<null>('null'),
  }),
  'POST /drafts/{id}/publish': endpoint({
    says: 'Publishes a draft, in force from today or a later day.',
    who: 'model',
    input: publishInput,
    answers: json<Published>('Published'),
  }),
  'GET /versions/{id}': endpoint({
    says: 'The document of a version.',
    who: 'model',
    answers: json<ModelDocument>('ModelDocument'),
  }),
  'POST /versions/{id}/withdraw': endpoint({
    says: 'Withdraws a version: the one before is in force again, and builds made meanwhile keep theirs.',
    who: 'model',
    input: withdrawInput,
    answers: json<null>('null'),
  }),
};

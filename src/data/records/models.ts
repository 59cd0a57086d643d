/** Rows and tables of models, their versions, and numbers that are registered. */
import type { ImpactRow } from '../../contract';
import type { Finding, TestResult } from '../../core/engine';
import type { ModelDocument, ModelProblem } from '../../core/model';
import type { Edit } from '../../core/modelling';
import { bool, day, instant, int, json, key, now, ref, text, type Define } from './columns';

/** A model and the item that it is of. */
export interface ModelRow {
  id: string;
  sku: string;
}

/** A published version; never changed. */
export interface ModelVersionRow {
  id: string;
  modelId: string;
  number: number;
  document: ModelDocument;
  hash: string;
  publishedAt?: Date;
  publishedBy: string | null;
}

/** From which day a version is in force, and whether it was withdrawn. */
export interface ModelReleaseRow {
  versionId: string;
  inForce: string;
  note: string;
  /** The version that its draft was made from. */
  baseId: string | null;
  /** Whose eyes were the second pair. */
  agreedBy: string | null;
  withdrawnAt: Date | null;
  withdrawnBy: string | null;
  withdrawnNote: string | null;
}

/** A model while it is made: what it was made from, and what it is by now. */
export interface ModelDraftRow {
  id: string;
  modelId: string;
  sku: string;
  name: string;
  baseId: string | null;
  document: ModelDocument;
  /** Of the document as it is now. */
  hash: string;
  version: number;
  madeBy: string;
  madeAt?: Date;
  changedBy: string;
  changedAt?: Date;
  /** The job that worked out what it would change. */
  impactJob: string | null;
  /** The document that it was worked out for, and whether somebody looked at it. */
  impactHash: string | null;
  impactSeen: boolean;
  agreedBy: string | null;
  /** The document that was agreed to. */
  agreedHash: string | null;
  /** What its check-up came to, of which document and on which day; null before one was made. */
  checked?: { hash: string; day: string; found: DraftFound } | null;
  closedAt: Date | null;
  publishedId: string | null;
}

/** What a check-up found. */
export interface DraftFound {
  problems: ModelProblem[];
  findings: Finding[];
  tests: TestResult[];
}

/** One edit of a draft. */
export interface ModelEditRow {
  draftId: string;
  number: number;
  /** The version of the draft that it made. */
  version: number;
  edit: Edit;
  inverse: Edit;
  by: string;
  at?: Date;
  undone: boolean;
}

/** What a draft would make of one build out there. */
export interface ModelImpactRow {
  draftId: string;
  hash: string;
  position: number;
  verdict: 'same' | 'other' | 'decide' | 'lost';
  row: ImpactRow;
}

/** What a part number cannot say itself, under a number. */
export interface RegisteredNumberRow {
  modelId: string;
  key: string;
  number: number;
}

/** Its tables. */
export const modelsRecords = (table: Define) => ({
  models: table<ModelRow>('models', { id: key(text), sku: text }),
  modelVersions: table<ModelVersionRow>('model_versions', {
    id: key(ref),
    modelId: text,
    number: int,
    document: json,
    hash: text,
    publishedAt: now(),
    publishedBy: ref,
  }),
  modelReleases: table<ModelReleaseRow>('model_releases', {
    versionId: key(ref),
    inForce: day,
    note: text,
    baseId: ref,
    agreedBy: ref,
    withdrawnAt: instant,
    withdrawnBy: ref,
    withdrawnNote: text,
  }),
  modelDrafts: table<ModelDraftRow>('model_drafts', {
    id: key(ref),
    modelId: text,
    sku: text,
    name: text,
    baseId: ref,
    document: json,
    hash: text,
    version: int,
    madeBy: ref,
    madeAt: now(),
    changedBy: ref,
    changedAt: now(),
    impactJob: ref,
    impactHash: text,
    impactSeen: bool,
    agreedBy: ref,
    agreedHash: text,
    checked: json,
    closedAt: instant,
    publishedId: ref,
  }),
  modelEdits: table<ModelEditRow>('model_edits', {
    draftId: key(ref),
    number: key(int),
    version: int,
    edit: json,
    inverse: json,
    by: ref,
    at: now(),
    undone: bool,
  }),
  modelImpacts: table<ModelImpactRow>('model_impacts', {
    draftId: key(ref),
    hash: key(text),
    position: key(int),
    verdict: text,
    row: json,
  }),
  registeredNumbers: table<RegisteredNumberRow>('registered_numbers', {
    modelId: key(text),
    key: key(text),
    number: int,
  }),
});

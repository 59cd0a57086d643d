/** Rows and tables of models, their versions, and numbers that are registered. */
import type { ModelDocument } from '../../core/model';
import { key, text, int, json, ref, now, type Define } from './columns';

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
  registeredNumbers: table<RegisteredNumberRow>('registered_numbers', {
    modelId: key(text),
    key: key(text),
    number: int,
  }),
});

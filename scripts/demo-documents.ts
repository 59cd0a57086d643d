/** The demo's model documents as a compiler takes them: with the models that they name. */
import { readFileSync } from 'node:fs';
import { compileModel, withLibrary, type CompiledModel, type ModelDocument } from '../src/core/model';

const read = (id: string): unknown => JSON.parse(readFileSync(new URL(`../demo/models/${id}.json`, import.meta.url), 'utf8'));

export const demoDocument = (id: string): ModelDocument => withLibrary(read(id), read) as ModelDocument;

export function demoModel(id: string): CompiledModel {
  const result = compileModel(demoDocument(id));
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.model;
}

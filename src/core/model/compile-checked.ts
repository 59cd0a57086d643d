/** Compiling what comes from anywhere: checked for its shape first. Apart from the compiler, so that a page that only compiles what is published need not carry the shape. */
import { ValidationError } from 'yup';
import { compilePublished, type ModelResult } from './compile';
import type { ModelDocument } from './document';

import { documentSchema } from './schema';

/** Reads and compiles a document from outside. Every problem found is listed with its path; nothing throws. */
export function compileModel(given: unknown): ModelResult {
  try {
    documentSchema.validateSync(given, { abortEarly: false });
  } catch (failure) {
    if (!(failure instanceof ValidationError)) throw failure;
    const errors = failure.inner.length > 0 ? failure.inner : [failure];
    return { ok: false, problems: errors.map((each) => ({ path: each.path ?? '', code: 'model.shape', params: { what: each.message } })) };
  }
  return compilePublished(given as ModelDocument);
}

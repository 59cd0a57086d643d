/**
 * Compiling what comes from anywhere: checked for its shape first. Apart from the compiler, so that a page
 * that only compiles what is published need not carry the shape.
 */
import { ValidationError } from 'yup';
import { movedOn } from './moved-on';
import { compilePublished, type ModelResult } from './compile';
import type { ModelDocument } from './document';

import { documentSchema } from './schema';

/** Levels that a document has at most: those of five models inside one another, with room to spare. */
const deepest = 200;

/**
 * Whether anything in a JSON value is nested deeper; not by itself, since that would take a stack as deep.
 */
function isDeeperThan(given: unknown, most: number): boolean {
  let level: unknown[] = [given];
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > most) return true;
    level = level.flatMap((each) =>
      typeof each === 'object' && each !== null
        ? Object.values(each as Readonly<Record<string, unknown>>).filter(
            (inner) => typeof inner === 'object' && inner !== null,
          )
        : [],
    );
  }
  return false;
}

/**
 * Reads and compiles a document from outside, of this format or an earlier one. Every problem found is listed with its path; nothing throws.
 */
export function compileModel(given: unknown): ModelResult {
  if (isDeeperThan(given, deepest))
    return { ok: false, problems: [{ path: '', code: 'model.nested', params: { most: deepest } }] };
  const document = movedOn(given);
  try {
    documentSchema.validateSync(document, { abortEarly: false });
  } catch (failure) {
    if (!(failure instanceof ValidationError)) throw failure;
    const errors = failure.inner.length > 0 ? failure.inner : [failure];
    return {
      ok: false,
      problems: errors.map((each) => ({
        path: each.path ?? '',
        code: 'model.shape',
        params: { what: each.message },
      })),
    };
  }
  return compilePublished(document as ModelDocument);
}

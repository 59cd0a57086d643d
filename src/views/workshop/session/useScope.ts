/** What formulas of a draft may read, for fields in which one is typed. */
import { useDeferredValue, useMemo } from 'react';
import type { Scope } from '../../../core/formula';
import { compileModel, type ModelDocument } from '../../../core/model';
import { wordsOf, type Language } from '../../../core/modelling';
import type { NameOf } from '../../parts/formula-field/formula-words';
import { steps } from '../problem-path';

const none: Scope = new Map();

/**
 * Names and types of all that a formula of the document may read. What is wrong in one place takes nothing from the
 * names that others may use, so calculations that are wrong are left out, and everything that nobody reads.
 */
export function scopeOf(document: ModelDocument): Scope {
  const { drawing: _, extraDays: _days, term: _term, ...others } = document;
  const empty = { prices: [], surcharges: [], insidePrices: [], materials: [], operations: [] };
  const bare: ModelDocument = {
    ...others,
    ...empty,
    rules: [],
    tests: [],
    numbering: [],
    figures: { more: [] },
  };
  const first = compileModel(bare);
  if (first.ok) return first.model.scope;
  const wrong = new Set(
    first.problems.flatMap(({ path }) => {
      const [list, id] = steps(path, document);
      return list === 'calculations' && id !== undefined ? [id] : [];
    }),
  );
  const second = compileModel({
    ...bare,
    calculations: bare.calculations.filter(({ id }) => !wrong.has(id)),
  });
  return second.ok ? second.model.scope : none;
}

/** The names that formulas of the document may read, and what its rows and options are called. */
export function useScope(document: ModelDocument, language: string): { scope: Scope; nameOf: NameOf } {
  // Typing does not wait for it.
  const later = useDeferredValue(document);
  const { context, features, parameters, calculations, library, properties, items, classes } = later;
  const scope = useMemo(
    () => scopeOf(later),
    // oxlint-disable-next-line react/exhaustive-deps -- nothing else gives names
    [context, features, parameters, calculations, library, properties, items, classes],
  );
  const names = useMemo(
    () => wordsOf(later, language as Language),
    // oxlint-disable-next-line react/exhaustive-deps -- nothing else is called anything
    [context, features, parameters, calculations, library, language],
  );
  const nameOf = useMemo<NameOf>(
    () => (id, option) => {
      const row = names.rowOf(id);
      return option === undefined ? row?.name : row?.options.find((each) => each.id === option)?.name;
    },
    [names],
  );
  return { scope, nameOf };
}

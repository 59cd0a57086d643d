/** What an id of a document names, and where it is named. */
import type { ModelDocument } from '../model';

/**
 * Something that has an id. Rows are features, parameters, calculations and inputs of the context, which share
 * their names, since formulas call them so; an option is one of a row, or a value of an input.
 */
export type Named =
  | { is: 'row'; id: string }
  | { is: 'option'; of: string; id: string }
  | { is: 'section' | 'rule' | 'price' | 'view' | 'layer'; id: string };

/** A place in which something is named. */
export interface Mentioned {
  named: Named;
  /** Where, by names and ids: "rules.pitRamp.when". */
  path: string;
  /** The formula or cell that names it; not there where it stands by itself. */
  source?: string;
}

/** Whether two mean the same thing. */
export const isSame = (one: Named, other: Named): boolean =>
  one.is === other.is &&
  one.id === other.id &&
  (one.is !== 'option' || other.is !== 'option' || one.of === other.of);

/** The ids of what may be chosen in a row, by the row; rows in which nothing is chosen are not there. */
export function choicesIn(document: ModelDocument): ReadonlyMap<string, ReadonlySet<string>> {
  const idsOf = (options: readonly { id: string }[]): ReadonlySet<string> =>
    new Set(options.map(({ id }) => id));
  return new Map([
    ...document.context.map(({ id, values }) => [id, idsOf(values)] as const),
    ...document.features.map(({ id, options }) => [id, idsOf(options)] as const),
    ...document.parameters.flatMap((each) =>
      each.type === 'choice' ? [[each.id, idsOf(each.options)] as const] : [],
    ),
  ]);
}

/** The names of the rows of each model that an option brings, by "row.option". */
export function rowsInside(document: ModelDocument): ReadonlyMap<string, ReadonlySet<string>> {
  const models = new Map((document.library?.models ?? []).map((model) => [model.id, model]));
  return new Map(
    document.features.flatMap((feature) =>
      feature.options.flatMap(({ id, model }) => {
        const inner = model === undefined ? undefined : models.get(model);
        if (!inner) return [];
        const rows = [...inner.features, ...inner.parameters, ...inner.calculations];
        return [[`${feature.id}.${id}`, new Set(rows.map((row) => row.id))] as const];
      }),
    ),
  );
}

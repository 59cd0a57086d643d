/** Models and classes that a document names: found for it, and the classes folded in. */
import type { ModelClass, ModelDocument, Section } from './document';

/** The ids of models and classes that a document names itself. */
export function namedIn({ features, classes = [], library }: ModelDocument): {
  models: string[];
  classes: string[];
} {
  const own = (library?.classes ?? [])
    .filter((each) => classes.includes(each.id))
    .flatMap((each) => each.features ?? []);
  return {
    models: [
      ...new Set(
        [...features, ...own].flatMap((feature) => feature.options.flatMap((option) => option.model ?? [])),
      ),
    ],
    classes,
  };
}

/** Enough of a model to look for what it names; whether it is one is for the compiler to say. */
const isModel = (value: unknown): value is ModelDocument =>
  typeof value === 'object' &&
  value !== null &&
  Array.isArray((value as ModelDocument).features) &&
  (value as ModelDocument).features.every((each) =>
    Array.isArray((each as { options?: unknown } | null)?.options),
  );

/**
 * A document with everything it names in its library, found by `find`; what is not found is left for the
 * compiler to report.
 */
export function withLibrary(given: unknown, find: (id: string) => unknown): unknown {
  if (!isModel(given)) return given;
  const document = given;
  const models = new Map((document.library?.models ?? []).map((each) => [each.id, each]));
  const classes = new Map((document.library?.classes ?? []).map((each) => [each.id, each]));
  const add = (each: ModelDocument): void => {
    const named = namedIn({ ...each, library: { classes: [...classes.values()] } });
    for (const id of named.classes) {
      const found = classes.has(id) ? undefined : find(id);
      if (typeof found === 'object' && found !== null) classes.set(id, found as ModelClass);
    }
    for (const id of namedIn({ ...each, library: { classes: [...classes.values()] } }).models) {
      const found = models.has(id) || id === document.id ? undefined : find(id);
      if (!isModel(found)) continue;
      models.set(id, found);
      add(found);
    }
  };
  add(document);
  if (models.size === 0 && classes.size === 0) return document;
  return { ...document, library: { models: [...models.values()], classes: [...classes.values()] } };
}

/** The document with what its classes give in front of its own. */
export function withClasses(document: ModelDocument): ModelDocument {
  const names = document.classes ?? [];
  const found = names.flatMap((id) => document.library?.classes?.find((each) => each.id === id) ?? []);
  if (found.length === 0) return document;
  return {
    ...document,
    features: [...found.flatMap((each) => each.features ?? []), ...document.features],
    parameters: [...found.flatMap((each) => each.parameters ?? []), ...document.parameters],
    calculations: [...found.flatMap((each) => each.calculations ?? []), ...document.calculations],
    rules: [...found.flatMap((each) => each.rules ?? []), ...document.rules],
    sections: sectionsOf(document.sections, found),
  };
}

function sectionsOf(own: readonly Section[], classes: readonly ModelClass[]): Section[] {
  const given = classes.flatMap((each) => each.sections ?? []);
  const grown = own.map((section) => ({
    ...section,
    rows: [...section.rows, ...given.filter((each) => each.id === section.id).flatMap((each) => each.rows)],
  }));
  return [
    ...grown,
    ...given.filter(
      (section, index) =>
        !own.some((each) => each.id === section.id) &&
        given.findIndex((each) => each.id === section.id) === index,
    ),
  ];
}

/** Builds inside a build: which there are, and what their own model sees of them. */
import type { Feature, Texts } from './document';
import type { CompiledModel, NestedBuild, Pick as Picked } from './entries';
import { open, type PlainValue, type Reading, type Values } from './reading';

/** The values of an inner build by the ids of its own model. */
export function insideValues({ place, names }: NestedBuild, values: Values): Values {
  const within = `${place}/`;
  const found: Record<string, Values[string]> = {};
  if (values.today !== undefined) found.today = values.today;
  // Values may stand on others that they change: both are theirs.
  for (const id in values)
    if (id.startsWith(within)) found[id.slice(within.length)] = values[id] as PlainValue;
  for (const [own, full] of names) if (values[full] !== undefined) found[own] = values[full];
  return found;
}

/** A build that is there. */
export class Inside {
  constructor(
    readonly pick: Picked,
    readonly build: NestedBuild,
    private readonly outer: Values,
  ) {}

  /** By the ids of its own model; found when asked for. */
  get values(): Values {
    return insideValues(this.build, this.outer);
  }
}

/**
 * The builds that surely are there, in the order of the model; each whose being there is not settled is told.
 */
export function buildsInside(
  reading: Reading,
  tellOpen: (place: string) => void = () => undefined,
): Inside[] {
  return reading.model.picks.flatMap((pick) =>
    pick.builds.flatMap((build): Inside[] => {
      const exists = reading.run(build.when);
      if (exists === open) tellOpen(build.place);
      return exists === true ? [new Inside(pick, build, reading.values)] : [];
    }),
  );
}

/**
 * Rows of an inner build, those of the builds inside it too, by the ids of its own model, whose value reaches
 * down from further out.
 */
export const reachingIn = ({ place, names }: NestedBuild): string[] =>
  [...names].flatMap(([own, full]) => (full.startsWith(`${place}/`) ? [] : [own]));

/** What a build inside is called: the option that brings it, with its number where there may be several. */
export function nameOfBuild({ pick, build }: Pick<Inside, 'pick' | 'build'>): Texts {
  return pick.builds.length < 2
    ? pick.name
    : Object.fromEntries(
        Object.entries(pick.name).map(([language, text]) => [language, `${text} ${String(build.index)}`]),
      );
}

/** A feature (or choice parameter) of a model, those of the builds inside among them. */
export function featureAt(model: CompiledModel, id: string): Feature | undefined {
  const entry = model.entries[model.slots.get(id) ?? -1];
  return entry?.kind === 'feature' ? entry.feature : undefined;
}

/**
 * Rows and calculations in words, the builds inside among them: what shows a model needs, without its
 * formulas.
 */
export interface Outline {
  features: readonly Feature[];
  parameters: CompiledModel['document']['parameters'];
  calculations: CompiledModel['document']['calculations'];
  sections: CompiledModel['sections'];
  figures: CompiledModel['document']['figures'];
  /** Names of the builds inside, by place. */
  places: Readonly<Record<string, Texts>>;
  /** Rows that something in the drawing shows. */
  sketched: readonly string[];
}

/** The rows of a model in words, those of builds inside among them. */
export function outlineOf(model: CompiledModel): Outline {
  const features: Feature[] = [];
  const parameters: CompiledModel['document']['parameters'] = [];
  for (const entry of model.entries) {
    if (entry.kind === 'feature') features.push({ ...entry.feature, id: entry.id });
    else if (
      entry.kind === 'number' ||
      entry.kind === 'date' ||
      entry.kind === 'yesno' ||
      entry.kind === 'text'
    )
      parameters.push({ ...entry.parameter, id: entry.id });
  }
  const { calculations, figures } = model.document;
  return {
    features,
    parameters,
    calculations,
    sections: model.sections,
    figures,
    places: placesOf(model, ''),
    sketched: sketchedIn(model),
  };
}

function sketchedIn({ document, picks }: CompiledModel): string[] {
  const { drawing } = document;
  if (!drawing) return [];
  const own = [...drawing.shapes, ...drawing.dimensions].flatMap(({ of }) => (of === undefined ? [] : [of]));
  const inside = picks
    .flatMap((pick) =>
      drawing.shapes.some((shape) => shape.kind === 'build' && shape.pick === pick.on) ? pick.builds : [],
    )
    .flatMap(({ place, names, model }) =>
      sketchedIn(model).map((row) => names.get(row) ?? `${place}/${row}`),
    );
  return [...new Set([...own, ...inside])];
}

function placesOf(model: CompiledModel, prefix: string): Record<string, Texts> {
  return Object.assign(
    {},
    ...model.picks.flatMap((pick) =>
      pick.builds.map((build) => ({
        [prefix + build.place]: nameOfBuild({ pick, build }),
        ...placesOf(build.model, `${prefix}${build.place}/`),
      })),
    ),
  ) as Record<string, Texts>;
}

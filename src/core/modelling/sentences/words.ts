/**
 * The words that sentences about a model are made of: the names of its rows, options and properties in one language,
 * and those of the builds that its options bring.
 */
import { withClasses, type Feature, type ModelDocument, type Parameter, type Texts } from '../../model';

/** The languages that sentences are written in. */
export type Language = 'en' | 'de';

/** Something that can be chosen in a row. */
export interface OptionWord {
  id: string;
  name: string;
  /** What else it is called. */
  also?: readonly string[];
}

/** A row by its name. */
export interface RowWord {
  id: string;
  name: string;
  is: 'choice' | 'several' | 'yesno' | 'number' | 'text' | 'date' | 'condition';
  /** "" for none. */
  unit: string;
  options: readonly OptionWord[];
}

/** The words of a model. */
export interface Words {
  language: Language;
  rows: readonly RowWord[];
  rowOf: (id: string) => RowWord | undefined;
  /** Numbers that items have, and how many there are of an option. */
  properties: readonly OptionWord[];
  /** The words of the model that an option brings. */
  inside: (row: string, option: string) => Words | undefined;
}

const figureWord = { en: 'worked out', de: 'berechnet' };
const quantityName = { en: 'quantity', de: 'Menge' };

/** The words of a document in a language, as far as it has them; ids stand for names that are missing. */
export function wordsOf(document: ModelDocument, language: Language): Words {
  return make(document, language, document.library?.models ?? []);
}

function make(given: ModelDocument, language: Language, models: readonly ModelDocument[]): Words {
  const document = withClasses(given);
  const named = (texts: Texts | undefined, id: string): string =>
    (texts?.[language] ?? texts?.[document.languages[0] ?? ''] ?? '').replace(/\s+/g, ' ').trim() || id;
  const optionsOf = (options: readonly { id: string; name: Texts }[]): OptionWord[] =>
    toldApart(options.map(({ id, name }) => ({ id, name: named(name, id) })));
  const figures = figureNames(document, named, language);
  const rows: RowWord[] = toldApart([
    ...document.context.map(({ id, name, values }): RowWord => ({
      id,
      name: named(name, id),
      is: 'choice',
      unit: '',
      options: optionsOf(values),
    })),
    ...document.features.map((feature): RowWord => ({
      id: feature.id,
      name: named(feature.name, feature.id),
      is: feature.most > 1 ? 'several' : 'choice',
      unit: '',
      options: optionsOf(feature.options),
    })),
    ...document.parameters.map((parameter): RowWord => ({
      id: parameter.id,
      name: named(parameter.name, parameter.id),
      is: parameter.type,
      unit: parameter.type === 'number' ? parameter.unit : '',
      options: parameter.type === 'choice' ? optionsOf(parameter.options) : [],
    })),
    ...document.calculations.map(({ id, name, type, unit = '' }): RowWord => ({
      id,
      name: figures(named(name, id)),
      is: type === 'yesno' ? 'condition' : type,
      unit,
      options: [],
    })),
  ]);
  const byId = new Map(rows.map((row) => [row.id, row]));
  const bring = broughtBy([...document.features, ...document.parameters]);
  const known = new Map<string, Words>();
  return {
    language,
    rows,
    rowOf: (id) => byId.get(id),
    properties: [
      { id: 'quantity', name: quantityName[language] },
      ...(document.properties ?? []).map(({ id, name }) => ({ id, name: named(name, id) })),
    ],
    inside: (row, option) => {
      const id = bring.get(`${row}.${option}`);
      const model = id === undefined ? undefined : models.find((each) => each.id === id);
      if (!model) return undefined;
      const words = known.get(model.id) ?? make(model, language, models);
      known.set(model.id, words);
      return words;
    },
  };
}

/** Names of figures: one that has the name of a row is said to be worked out. */
function figureNames(
  { context, features, parameters }: ModelDocument,
  named: (texts: Texts | undefined, id: string) => string,
  language: Language,
): (name: string) => string {
  const rows = new Set(
    [...context, ...features, ...parameters].map(({ id, name }) => folded(named(name, id))),
  );
  return (name) => (rows.has(folded(name)) ? `${name} (${figureWord[language]})` : name);
}

/** The models that options bring, by "row.option". */
const broughtBy = (rows: readonly (Feature | Parameter)[]): ReadonlyMap<string, string> =>
  new Map(
    rows.flatMap((row) =>
      'options' in row
        ? row.options.flatMap((option) =>
            'model' in option && option.model !== undefined
              ? [[`${row.id}.${option.id}`, option.model] as const]
              : [],
          )
        : [],
    ),
  );

/** How names are compared: as they are read, not as they are written. */
export const folded = (text: string): string => text.normalize('NFC').toLowerCase().replace(/\s+/g, ' ');

/** Names of which several are alike are followed by their ids. */
function toldApart<T extends OptionWord>(words: readonly T[]): T[] {
  const counts = new Map<string, number>();
  for (const { name } of words) counts.set(folded(name), (counts.get(folded(name)) ?? 0) + 1);
  return words.map((word) =>
    (counts.get(folded(word.name)) ?? 0) > 1 ? { ...word, name: withId(word) } : word,
  );
}

/** A name that says of itself which one it is. */
export const withId = ({ id, name }: OptionWord): string => (name === id ? name : `${name} (${id})`);

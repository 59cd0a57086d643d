/** Models as they begin: from nothing, or with what a bundle is made of. */
import type { Feature, ModelDocument, Quantity } from '../model';

/** A model that has nothing yet but a place for its rows. */
export function bareDocument(id: string, title: string): ModelDocument {
  const name = { en: title, de: title };
  return {
    format: 2,
    id,
    name,
    languages: ['en', 'de'],
    context: [
      {
        id: 'region',
        name: { en: 'Region of use', de: 'Einsatzregion' },
        values: [
          { id: 'eu', name: { en: 'European Union', de: 'Europäische Union' } },
          { id: 'uk', name: { en: 'United Kingdom', de: 'Vereinigtes Königreich' } },
          { id: 'na', name: { en: 'North America', de: 'Nordamerika' } },
        ],
      },
    ],
    sections: [{ id: 'main', name, rows: [] }],
    features: [],
    parameters: [],
    calculations: [],
    rules: [],
    numbering: [{ kind: 'text', text: id.slice(0, 2).toUpperCase() }],
    prices: [],
    surcharges: [],
    materials: [],
    operations: [],
    figures: { more: [] },
  };
}

/** A quantity that says how many by itself, so that nothing of what it was part of is missing in it. */
const isPlain = (quantity: string | Quantity | undefined): boolean =>
  quantity === undefined || /^\d+(\.\d+)?$/.test(typeof quantity === 'string' ? quantity : quantity.usual);

/** A model with all parts that another brings: its features with items and builds, without what rules say of them. */
export function ofBundle(bundle: ModelDocument, id: string, title: string): ModelDocument {
  const bare = bareDocument(id, title);
  const features = bundle.features.flatMap((feature): Feature[] => {
    const options = feature.options
      .filter(({ item, model }) => item !== undefined || model !== undefined)
      .map(({ quantity, ...option }) =>
        isPlain(quantity) && quantity !== undefined ? { ...option, quantity } : option,
      );
    if (options.length === 0) return [];
    const { usual = [], reachesDown: _, ...others } = feature;
    const there = usual.filter((each) => options.some((option) => option.id === each));
    return [
      {
        ...others,
        least: Math.min(feature.least, options.length),
        options,
        ...(there.length > 0 ? { usual: there } : {}),
      },
    ];
  });
  const known = new Set(features.map((feature) => feature.id));
  const sections = bundle.sections
    .map((section) => ({ ...section, rows: section.rows.filter((row) => known.has(row)) }))
    .filter(({ rows }) => rows.length > 0);
  return {
    ...bare,
    languages: bundle.languages,
    context: bundle.context,
    features,
    sections: sections.length > 0 ? sections : bare.sections,
    numbering: [...bare.numbering, ...features.map(numberedBy)],
    ...(bundle.library ? { library: bundle.library } : {}),
  };
}

/** The segment that a feature has in the number: the code of its option, or of all that are taken. */
export const numberedBy = ({ id, most }: Feature) =>
  ({ kind: most > 1 ? 'letters' : 'code', of: id, before: '-' }) as const;

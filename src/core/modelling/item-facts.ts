/**
 * What the items of a model are told in the catalogue, held against what the model has of them. A model carries its own
 * copy, so that an old build stays what it was; it is taken over when whoever models says so.
 */
import type { ItemProperty, PropertyValue } from '../items';
import type { ModelDocument, Property } from '../model';
import type { Edit } from './edit';

/** What is told of one item, with the properties by which it is told. */
export interface ToldItem {
  readonly properties: readonly ItemProperty[];
  readonly values: Readonly<Record<string, PropertyValue>>;
}

/** A property that formulas of the model read or could read. */
export interface FactColumn extends Property {
  /** The model declares it. */
  declared: boolean;
}

/** What the model and the catalogue say of one item and property; null where nothing. */
export interface Fact {
  here: string | null;
  there: string | null;
}

/** All facts of the items that a model names. */
export interface FactsOfModel {
  columns: FactColumn[];
  rows: { sku: string; facts: Record<string, Fact> }[];
  /** How many of those that are declared differ. */
  differing: number;
  /** Properties that are not told since another of their id is of another kind or unit, with their items. */
  clashing: { id: string; sku: string }[];
}

/** Names that formulas read of everything that is picked. */
const taken = new Set(['quantity', 'item']);

/** Items that the options and questions of a model bring: what formulas can ask. */
export const broughtBy = ({ features, parameters }: ModelDocument): string[] => [
  ...new Set(
    [
      ...features.flatMap(({ options }) => options.map(({ item }) => item)),
      ...parameters.map((each) => ('item' in each ? each.item : undefined)),
    ].flatMap((sku) => (sku === undefined || sku === '' ? [] : [sku])),
  ),
];

/** A property of items as one of a model; choices are told by their ids. */
const asProperty = (property: ItemProperty): Property => ({
  id: property.id,
  name: property.name,
  unit: property.is === 'number' ? property.unit : '',
  ...(property.is === 'number'
    ? {}
    : { type: property.is === 'yesNo' ? ('yesno' as const) : ('text' as const) }),
});

const isSame = (one: Property, other: Property): boolean =>
  (one.type ?? 'number') === (other.type ?? 'number') && one.unit === other.unit;

/** What the items of a model are told here and there. */
export function factsOf(document: ModelDocument, told: ReadonlyMap<string, ToldItem>): FactsOfModel {
  const columns = new Map<string, FactColumn>(
    (document.properties ?? []).map((property) => [property.id, { ...property, declared: true }]),
  );
  const clashing: FactsOfModel['clashing'] = [];
  const rows = broughtBy(document).map((sku) => {
    const { properties = [], values = {} } = told.get(sku) ?? {};
    const there: Record<string, string> = {};
    for (const each of properties) {
      const value = values[each.id];
      if (value === undefined || taken.has(each.id)) continue;
      const property = asProperty(each);
      const column = columns.get(each.id);
      if (!column) columns.set(each.id, { ...property, declared: false });
      if (column && !isSame(column, property)) clashing.push({ id: each.id, sku });
      else there[each.id] = String(value);
    }
    const here = document.items?.[sku] ?? {};
    const facts = Object.fromEntries(
      [...new Set([...Object.keys(here), ...Object.keys(there)])].map((id): [string, Fact] => [
        id,
        { here: here[id] ?? null, there: there[id] ?? null },
      ]),
    );
    return { sku, facts };
  });
  const differing = rows.reduce(
    (sum, { facts }) =>
      sum + Object.entries(facts).filter(([id, fact]) => columns.get(id)?.declared && differs(fact)).length,
    0,
  );
  return { columns: [...columns.values()], rows, differing, clashing };
}

/** Whether the catalogue says something else than the model; where it says nothing, the model may. */
export const differs = ({ here, there }: Fact): boolean => there !== null && here !== there;

/**
 * The edit by which a model takes over what the catalogue says of some properties: they are declared, and others that
 * it declared are as they were. What the catalogue says nothing of stays.
 */
export function takeFacts(
  document: ModelDocument,
  facts: FactsOfModel,
  wanted: ReadonlySet<string>,
): Edit | null {
  const before = document.properties ?? [];
  const properties = [
    ...before,
    ...facts.columns.flatMap(({ declared, ...property }) =>
      !declared && wanted.has(property.id) ? [property] : [],
    ),
  ];
  const items: Record<string, Readonly<Record<string, string>>> = { ...document.items };
  let changed = properties.length > before.length;
  for (const { sku, facts: told } of facts.rows)
    for (const [id, fact] of Object.entries(told)) {
      if (!wanted.has(id) || !differs(fact)) continue;
      items[sku] = { ...items[sku], [id]: fact.there ?? '' };
      changed = true;
    }
  if (!changed) return null;
  return {
    do: 'several',
    edits: [
      { do: 'set', at: [], name: 'properties', value: properties },
      { do: 'set', at: [], name: 'items', value: items },
    ],
  };
}

/** The edit by which a model forgets a property that no formula reads any more. */
export const forgetFact = (document: ModelDocument, id: string): Edit => {
  const left = (document.properties ?? []).filter((property) => property.id !== id);
  const items = Object.entries(document.items ?? {}).flatMap(([sku, { [id]: _, ...told }]) =>
    Object.keys(told).length > 0 ? [[sku, told] as const] : [],
  );
  return {
    do: 'several',
    edits: [
      { do: 'set', at: [], name: 'properties', ...(left.length > 0 ? { value: left } : {}) },
      {
        do: 'set',
        at: [],
        name: 'items',
        ...(items.length > 0 ? { value: Object.fromEntries(items) } : {}),
      },
    ],
  };
};

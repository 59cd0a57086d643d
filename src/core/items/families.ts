/** Families: which is inside which, and the properties that come down from one to the other. */
import { readExact } from '../exact';
import type { Family, ItemProblem, ItemProperty, PropertyValue } from './types';

/** Families by their codes. */
export type Families = ReadonlyMap<string, Family>;

/** Families that are inside each other at most. */
export const deepest = 12;

/** A family and those that it is inside of, the outermost first. One that is not there, or a circle, ends it. */
export function chainOf(families: Families, code: string): Family[] {
  const chain: Family[] = [];
  const seen = new Set<string>();
  for (let at: string | null = code; at !== null && !seen.has(at);) {
    seen.add(at);
    const family: Family | undefined = families.get(at);
    if (!family) break;
    chain.unshift(family);
    at = family.parent;
  }
  return chain;
}

/** All properties of a family's items: those of the outermost family first. */
export const propertiesOf = (families: Families, code: string): ItemProperty[] =>
  chainOf(families, code).flatMap(({ properties }) => properties);

/** A family and all that are inside it, by their codes. */
export function inside(families: Families, code: string): ReadonlySet<string> {
  return new Set(
    [...families.keys()].filter((each) => chainOf(families, each).some((family) => family.code === code)),
  );
}

const propertyId = /^[a-z][a-zA-Z0-9]{0,39}$/;

/** What is wrong with a family as it is to be, among all others as they are. */
export function familyProblems(family: Family, others: Families): ItemProblem[] {
  const problems: ItemProblem[] = [];
  const all: Families = new Map(others).set(family.code, family);
  if (family.parent !== null && !others.has(family.parent))
    problems.push({ code: 'family.unknown', field: 'parent', params: { family: family.parent } });
  else if (family.parent !== null && inside(all, family.code).has(family.parent))
    problems.push({ code: 'family.circle', field: 'parent', params: { family: family.parent } });
  else if (chainOf(all, family.code).length > deepest)
    problems.push({ code: 'family.tooDeep', field: 'parent', params: { most: deepest } });
  // What comes from outside, and what those inside have of their own, may not be there again.
  const elsewhere = [
    ...chainOf(all, family.code).filter(({ code }) => code !== family.code),
    ...[...inside(all, family.code)].flatMap((code) => (code === family.code ? [] : (all.get(code) ?? []))),
  ];
  const taken = new Map(elsewhere.flatMap(({ code, properties }) => properties.map(({ id }) => [id, code])));
  const own = new Set<string>();
  family.properties.forEach((property, at) => {
    const field = `properties.${String(at)}`;
    const { id } = property;
    if (!propertyId.test(id)) problems.push({ code: 'family.badId', field, params: { id } });
    else if (own.has(id)) problems.push({ code: 'family.twice', field, params: { id } });
    else if (taken.has(id))
      problems.push({ code: 'family.elsewhere', field, params: { id, family: taken.get(id) ?? '' } });
    own.add(id);
    if (property.is === 'choice') {
      const ids = property.options.map((option) => option.id);
      if (ids.length === 0) problems.push({ code: 'family.noOptions', field, params: { id } });
      else if (new Set(ids).size < ids.length || ids.some((each) => each === ''))
        problems.push({ code: 'family.optionTwice', field, params: { id } });
    }
  });
  return problems;
}

/** What is wrong with what an item says of a property; null where nothing is. */
export function valueProblem(
  property: ItemProperty,
  value: PropertyValue,
): Omit<ItemProblem, 'field'> | null {
  const params = { property: property.id, value: String(value) };
  switch (property.is) {
    case 'number': {
      const read = typeof value === 'string' ? readExact(value) : null;
      if (read === null) return { code: 'item.noNumber', params };
      return read.decimalPlaces() > property.decimals
        ? { code: 'item.tooFine', params: { ...params, decimals: property.decimals } }
        : null;
    }
    case 'choice':
      return property.options.some(({ id }) => id === value) ? null : { code: 'item.noChoice', params };
    case 'yesNo':
      return typeof value === 'boolean' ? null : { code: 'item.noYesNo', params };
    case 'text':
      return typeof value === 'string' && value.length <= 500 ? null : { code: 'item.noText', params };
  }
}

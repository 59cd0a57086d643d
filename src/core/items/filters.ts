/** Finding items by what they say of the properties of their family. */
import { exact, readExact, type ExactText } from '../exact';
import type { ItemProperty, PropertyValue } from './types';

/** What is wanted of a property: one value, or a number from and to (both inclusive). */
export type PropertyFilter =
  { is: 'one'; value: PropertyValue } | { is: 'range'; from: ExactText | null; to: ExactText | null };

/** Filters by the ids of properties. */
export type PropertyFilters = Readonly<Record<string, PropertyFilter>>;

/** Whether an item says what is wanted; one that says nothing of a property that is asked for does not. */
export const passesFilters = (
  properties: Readonly<Record<string, PropertyValue>>,
  filters: PropertyFilters,
): boolean => Object.entries(filters).every(([id, filter]) => passes(properties[id], filter));

function passes(value: PropertyValue | undefined, filter: PropertyFilter): boolean {
  if (filter.is === 'one') return value === filter.value;
  if (filter.from === null && filter.to === null) return true;
  const number = typeof value === 'string' ? readExact(value) : null;
  return (
    number !== null &&
    (filter.from === null || number.gte(exact(filter.from))) &&
    (filter.to === null || number.lte(exact(filter.to)))
  );
}

/** Properties by which it makes sense to find among some items: those of which they say different things. */
export const tellingProperties = (
  properties: readonly ItemProperty[],
  items: readonly { properties: Readonly<Record<string, PropertyValue>> }[],
): ItemProperty[] =>
  properties.filter(
    ({ id, is }) => is !== 'text' && new Set(items.flatMap((item) => item.properties[id] ?? [])).size > 1,
  );

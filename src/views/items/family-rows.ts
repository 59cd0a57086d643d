/** Properties of a family as rows of a grid, and back. */
import type { ItemProperty } from '../../core/items';
import type { Row } from '../../ui/grid';

/** Types of properties, in the order in which they are proposed. */
export const propertyTypes = ['number', 'choice', 'yesNo', 'text'] as const;

/** Options as one writes them in a cell: "steel = Steel / Stahl; rubber = Rubber / Gummi". */
export const writtenOptions = (
  options: readonly { id: string; name: Readonly<Record<string, string>> }[],
): string =>
  options
    .map(({ id, name: { en = '', de = '' } }) => `${id} = ${[en, de].filter(Boolean).join(' / ')}`)
    .join('; ');

/** Options as they were written; null where it cannot be told which. */
export function readOptions(typed: string): { id: string; name: Record<string, string> }[] | null {
  const read = typed
    .split(';')
    .map((part) => part.trim())
    .filter((part) => part !== '')
    .map((part) => /^([A-Za-z][A-Za-z0-9-]{0,39})(?:\s*=\s*([^/]+?)(?:\s*\/\s*(.+))?)?$/.exec(part));
  if (read.length === 0 || read.some((each) => each === null)) return null;
  return read.map((each) => {
    const [, id = '', en, de] = each ?? [];
    return { id, name: { en: en ?? id, ...(de === undefined ? {} : { de }) } };
  });
}

/** A property as a row. */
export const propertyRow = (property: ItemProperty): Row => ({
  id: property.id,
  depth: 0,
  cells: [
    property.id,
    property.name.en ?? '',
    property.name.de ?? '',
    property.is,
    property.is === 'number' ? property.unit : '',
    property.is === 'number' ? String(property.decimals) : '',
    property.is === 'choice' ? writtenOptions(property.options) : '',
  ],
});

/** The property of a row. */
export function propertyOf({ cells }: Row): ItemProperty {
  const [id = '', en = '', de = '', is = 'text', unit = '', decimals = '', options = ''] = cells.map(
    (cell) => (typeof cell === 'string' ? cell : ''),
  );
  const head = { id, name: Object.fromEntries(Object.entries({ en, de }).filter(([, name]) => name !== '')) };
  switch (is) {
    case 'number':
      return { ...head, is, unit, decimals: Number(decimals || '0') };
    case 'choice':
      return { ...head, is, options: readOptions(options) ?? [] };
    case 'yesNo':
      return { ...head, is };
    default:
      return { ...head, is: 'text' };
  }
}

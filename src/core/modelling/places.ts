/**
 * Where a part stands in a document: a way of lists and ids, as in `['features', 'surface', 'options', 'steel']`.
 * Lists whose parts have no ids (segments of the number, rows of a table) are whole values of what has them.
 */
import type { ModelDocument } from '../model';

/** Something with an id. */
export type Part = Readonly<Record<string, unknown>> & { readonly id: string };
/** The way to a part: list, id, list, id; without steps the document itself. */
export type PartAt = readonly string[];
/** The way to a list: that of what has it, and its name. */
export type ListAt = readonly string[];

/** Anything with values at names. */
export type Held = Readonly<Record<string, unknown>>;

/** Lists of parts, by the list that what has them stands in; `''` is the document. */
const lists: Readonly<Record<string, readonly string[]>> = {
  '': [
    'context',
    'sections',
    'features',
    'parameters',
    'calculations',
    'rules',
    'prices',
    'surcharges',
    'insidePrices',
    'materials',
    'operations',
    'tests',
    'properties',
    'drawing.views',
    'drawing.layers',
    'drawing.shapes',
    'drawing.dimensions',
  ],
  context: ['values'],
  features: ['options'],
  parameters: ['options'],
};

/** Whether there can be a list at a place. */
export const isList = (at: ListAt): boolean =>
  at.length % 2 === 1 && (lists[at.at(-3) ?? ''] ?? []).includes(at.at(-1) ?? '');

/** The names of the lists that a part has, by the way to it. */
export const listsOf = (at: PartAt): readonly string[] => lists[at.at(-2) ?? ''] ?? [];

/** The value at a name, which may lead through an object by dots. */
export const valueAt = (held: Held, name: string): unknown =>
  name.split('.').reduce<unknown>((at, step) => (at as Held | undefined)?.[step], held);

/** The object with a value at a name; undefined takes it away. */
export function withValue<T extends object>(held: T, name: string, value: unknown): T {
  const [first = '', ...rest] = name.split('.');
  const next =
    rest.length === 0 ? value : withValue(((held as Held)[first] ?? {}) as Held, rest.join('.'), value);
  if (next !== undefined) return { ...held, [first]: next };
  const { [first]: _, ...others } = held as Held;
  return others as T;
}

/** The parts of a list; empty where it is not there. */
export function listAt(document: ModelDocument, at: ListAt): readonly Part[] {
  const owner = at.length === 1 ? (document as unknown as Held) : partAt(document, at.slice(0, -1));
  return owner && isList(at) ? ((valueAt(owner, at.at(-1) ?? '') as readonly Part[] | undefined) ?? []) : [];
}

/** A part; the document itself for a way without steps. */
export function partAt(document: ModelDocument, at: PartAt): Held | undefined {
  if (at.length === 0) return document as unknown as Held;
  return listAt(document, at.slice(0, -1)).find(({ id }) => id === at.at(-1));
}

/** The document with another list at a place. */
export function withList(
  document: ModelDocument,
  at: ListAt,
  parts: readonly Part[] | undefined,
): ModelDocument {
  const name = at.at(-1) ?? '';
  return withPart(document, at.slice(0, -1), (owner) => withValue(owner, name, parts));
}

/** The document with a part changed; the same where it is not there. */
export function withPart(
  document: ModelDocument,
  at: PartAt,
  change: <T extends Held>(part: T) => T,
): ModelDocument {
  if (at.length === 0) return change(document as unknown as Held) as unknown as ModelDocument;
  const id = at.at(-1);
  const list = at.slice(0, -1);
  return withList(
    document,
    list,
    listAt(document, list).map((part) => (part.id === id ? change(part) : part)),
  );
}

/**
 * Edits of a model: data, each at a part known by its id, each with its inverse. Nothing here asks whether the
 * document compiles: a draft may be wrong on the way.
 */
import type { ModelDocument } from '../model';
import { isList, listAt, partAt, withList, withPart, withValue, type Part } from './places';
import { takenIn, type Edit, type Edited, type EditProblem } from './edit';
import { renamed } from './rename';

const refused = (code: EditProblem['code'], params: EditProblem['params'] = {}): Edited => ({
  ok: false,
  problem: { code, params },
});
const placeOf = (at: readonly string[]): string => at.join('.');

/** Does an edit. */
export function edited(document: ModelDocument, edit: Edit): Edited {
  switch (edit.do) {
    case 'set':
      return set(document, edit);
    case 'add':
      return add(document, edit);
    case 'remove':
      return remove(document, edit);
    case 'move':
      return move(document, edit);
    case 'rename':
      return renamed(document, edit.at, edit.to);
    case 'several':
      return several(document, edit.edits);
  }
}

function set(document: ModelDocument, { at, name, value }: Extract<Edit, { do: 'set' }>): Edited {
  const part = partAt(document, at);
  if (!part) return refused('edit.missing', { what: placeOf(at) });
  // What names a part is changed with all that names it.
  if (name === 'id' && at.length > 0) return refused('edit.idIsRenamed', { what: placeOf(at) });
  const outer = firstMissing(part, name);
  const before = name.split('.').reduce<unknown>((held, step) => (held as Part | undefined)?.[step], part);
  return {
    ok: true,
    document: withPart(document, at, (each) => withValue(each, name, value)),
    // An object that is made for a value goes with it.
    inverse:
      outer === undefined || outer === name
        ? { do: 'set', at, name, ...(before === undefined ? {} : { value: before }) }
        : { do: 'set', at, name: outer },
  };
}

/** The first step of a name at which nothing stands. */
function firstMissing(part: object, name: string): string | undefined {
  const steps = name.split('.');
  let held: unknown = part;
  for (const [index, step] of steps.entries()) {
    held = (held as Record<string, unknown>)[step];
    if (held === undefined) return steps.slice(0, index + 1).join('.');
  }
  return undefined;
}

function add(document: ModelDocument, { to, part, before }: Extract<Edit, { do: 'add' }>): Edited {
  const owner = partAt(document, to.slice(0, -1));
  if (!isList(to) || !owner) return refused('edit.noList', { what: placeOf(to) });
  const outer = firstMissing(owner, to.at(-1) ?? '');
  const parts = listAt(document, to);
  if (takenIn(document, to, part.id)) return refused('edit.taken', { id: part.id });
  const place = placeBefore(parts, before);
  if (place === undefined) return refused('edit.missing', { what: placeOf([...to, before ?? '']) });
  return {
    ok: true,
    document: withList(document, to, [...parts.slice(0, place), part, ...parts.slice(place)]),
    // The first part of a list makes the list, which goes with it.
    inverse:
      outer === undefined
        ? { do: 'remove', at: [...to, part.id] }
        : { do: 'set', at: to.slice(0, -1), name: outer },
  };
}

/** Where a part goes that stands before another; the end for none, undefined where that one is not there. */
function placeBefore(parts: readonly Part[], before: string | undefined): number | undefined {
  if (before === undefined) return parts.length;
  const at = parts.findIndex(({ id }) => id === before);
  return at < 0 ? undefined : at;
}

function remove(document: ModelDocument, { at }: Extract<Edit, { do: 'remove' }>): Edited {
  const list = at.slice(0, -1);
  const parts = listAt(document, list);
  const place = parts.findIndex(({ id }) => id === at.at(-1));
  const part = parts[place];
  if (!part) return refused('edit.missing', { what: placeOf(at) });
  const before = parts[place + 1]?.id;
  return {
    ok: true,
    document: withList(document, list, [...parts.slice(0, place), ...parts.slice(place + 1)]),
    inverse: { do: 'add', to: list, part, ...(before === undefined ? {} : { before }) },
  };
}

function move(document: ModelDocument, { at, before }: Extract<Edit, { do: 'move' }>): Edited {
  const list = at.slice(0, -1);
  const parts = listAt(document, list);
  const from = parts.findIndex(({ id }) => id === at.at(-1));
  const part = parts[from];
  if (!part) return refused('edit.missing', { what: placeOf(at) });
  const others = parts.filter((each) => each !== part);
  const place = before === part.id ? from : placeBefore(others, before);
  if (place === undefined) return refused('edit.missing', { what: placeOf([...list, before ?? '']) });
  const after = parts[from + 1]?.id;
  return {
    ok: true,
    document: withList(document, list, [...others.slice(0, place), part, ...others.slice(place)]),
    inverse: { do: 'move', at, ...(after === undefined ? {} : { before: after }) },
  };
}

function several(document: ModelDocument, edits: readonly Edit[]): Edited {
  const inverses: Edit[] = [];
  let now = document;
  for (const edit of edits) {
    const next = edited(now, edit);
    if (!next.ok) return next;
    now = next.document;
    inverses.unshift(next.inverse);
  }
  return { ok: true, document: now, inverse: { do: 'several', edits: inverses } };
}

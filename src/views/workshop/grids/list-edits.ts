/** From the rows of a grid back to a list of the document: which edits make the one as the other stands. */
import type { ModelDocument } from '../../../core/model';
import {
  differences,
  edited,
  editOf,
  listAt,
  withValue,
  type Edit,
  type Part,
} from '../../../core/modelling';
import { isBlank, isWrong, type Row } from '../../../ui/grid';
import type { PartColumn } from './part-columns';

/** The rows of a list. */
export const rowsOfList = (document: ModelDocument, list: string, columns: readonly PartColumn[]): Row[] =>
  listAt(document, [list]).map((part) => ({
    id: part.id,
    depth: 0,
    cells: columns.map(({ read }) => read(part)),
  }));

/** An id made of a name: its letters and digits, the first of each word large but for the first. */
export function idOf(name: string, taken: (id: string) => boolean, fallback: string): string {
  const plain = name.replace(/ß/g, 'ss').normalize('NFD').replace(/\p{M}/gu, '');
  const words = plain.split(/[^A-Za-z0-9]+/).filter(Boolean);
  const joined = words
    .map(
      (word, at) => (at === 0 ? word.charAt(0).toLowerCase() : word.charAt(0).toUpperCase()) + word.slice(1),
    )
    .join('');
  const base = (/^[a-z]/.test(joined) ? joined : `${fallback}${joined}`).slice(0, 34);
  let id = base;
  for (let count = 2; taken(id); count++) id = `${base}${String(count)}`;
  return id;
}

/** The edit that makes a list as the rows of its grid stand, and the ids that new rows got. */
export interface ListEdit {
  edit: Edit;
  ids: ReadonlyMap<string, string>;
}

/**
 * Works it out. Blank rows are nothing yet; what cannot be read stays as it was. `nameOf` is the part's id by that of
 * its row, where the row was new in this grid.
 */
export function listEdit(
  document: ModelDocument,
  list: string,
  rows: readonly Row[],
  columns: readonly PartColumn[],
  { nameOf, fresh }: { nameOf: (row: string) => string; fresh: (id: string) => Part },
): ListEdit | null {
  const old = new Map(listAt(document, [list]).map((part) => [part.id, part]));
  const ids = new Map<string, string>();
  const renames: Edit[] = [];
  const taken = new Set(old.keys());
  const parts = rows.flatMap((row): Part[] => {
    const known = old.get(nameOf(row.id));
    if (!known && isBlank(row)) return [];
    const texts = row.cells.map((cell) => (isWrong(cell) ? null : cell));
    const id = known?.id ?? newId(texts, columns, taken, list);
    taken.add(id);
    const before = known ?? fresh(id);
    const part = columns.reduce((so, column, at) => {
      const text = texts[at];
      if (text === null || text === undefined || text === column.read(so)) return so;
      // What is new keeps what it begins with, where nothing was typed.
      return text === '' && !known ? so : column.write(so, text);
    }, before);
    if (!known) ids.set(row.id, part.id);
    else if (part.id !== known.id) renames.push({ do: 'rename', at: [list, known.id], to: part.id });
    return [part];
  });
  // Names are changed in all that names them first; what else differs is done to the parts as they are called then.
  let named = document;
  const done: Edit[] = [];
  for (const rename of renames) {
    const result = edited(named, rename);
    if (!result.ok) continue;
    named = result.document;
    done.push(rename);
  }
  const renamed = new Set(done.flatMap((edit) => (edit.do === 'rename' ? [edit.to] : [])));
  // A name that could not be changed stays.
  const wanted = parts.map((part) => {
    const from = renames.find((edit) => edit.do === 'rename' && edit.to === part.id);
    return from?.do === 'rename' && !renamed.has(part.id)
      ? { ...part, id: from.at.at(-1) ?? part.id }
      : withOthers(part, named, list);
  });
  const after = withValue(named, list, wanted);
  const edits = [...done, ...differences(named, after).map(editOf)];
  return edits.length === 0 ? null : { edit: { do: 'several', edits }, ids };
}

/** What a change of names changed in a part beside what its row shows. */
function withOthers(part: Part, document: ModelDocument, list: string): Part {
  const now = listAt(document, [list]).find(({ id }) => id === part.id);
  return now ? { ...now, ...part } : part;
}

function newId(
  texts: readonly (string | null)[],
  columns: readonly PartColumn[],
  taken: ReadonlySet<string>,
  list: string,
): string {
  const named = columns.findIndex(({ column }) => column.id === 'name');
  const name = texts[named] ?? texts.find((text) => text !== null && text !== '') ?? '';
  return idOf(name, (id) => taken.has(id), (list.split('.').at(-1) ?? list).slice(0, -1));
}

/** What an edit is, what comes of one, and which ids are free. */
import type { ModelDocument } from '../model';
import { listAt, type ListAt, type Part, type PartAt } from './places';

/** Something done to a document. */
export type Edit =
  /** A value of a part, or of the document; undefined takes it away. Names lead through objects by dots. */
  | { do: 'set'; at: PartAt; name: string; value?: unknown }
  /** A new part, before another of its list; at the end where none is named. */
  | { do: 'add'; to: ListAt; part: Part; before?: string }
  | { do: 'remove'; at: PartAt }
  /** To another place in its list: before another, or to the end. */
  | { do: 'move'; at: PartAt; before?: string }
  /** Another id, in all that names it too. */
  | { do: 'rename'; at: PartAt; to: string }
  /** One after another, all or none. */
  | { do: 'several'; edits: readonly Edit[] };

/** Why an edit cannot be done. */
export interface EditProblem {
  code:
    | 'edit.missing'
    | 'edit.noList'
    | 'edit.taken'
    | 'edit.badId'
    | 'edit.mentioned'
    | 'edit.captured'
    | 'edit.reaches'
    | 'edit.idIsRenamed';
  params: Readonly<Record<string, string>>;
}

/** The document as it is then, and what takes it back; or why not. */
export type Edited =
  { ok: true; document: ModelDocument; inverse: Edit } | { ok: false; problem: EditProblem };

/** Lists whose parts share their names: formulas call all of them by their ids alone. */
const rowLists = ['context', 'features', 'parameters', 'calculations'];

/** Whether an id is used in a list, or by what formulas could mean instead. */
export function takenIn(document: ModelDocument, list: ListAt, id: string): boolean {
  const [name = ''] = list;
  const lists = list.length === 1 && rowLists.includes(name) ? rowLists.map((each) => [each]) : [list];
  return lists.some((each) => listAt(document, each).some((part) => part.id === id));
}

/** Whether an edit was made without knowing another that came in between, and would undo or hide it. */
import type { Edit } from './edit';

/** A place that an edit changes: the way to a part, and the value of it where it is one. */
interface Touched {
  way: string;
  /** Nothing where the part itself comes, goes or changes its id. */
  name?: string;
}

/** Whether two edits are about the same: one value, or a part and what stands in it. */
export function touch(one: Edit, other: Edit): boolean {
  // Another id is written into whatever names the part.
  if (hasRename(one) || hasRename(other)) return true;
  const others = touchedBy(other);
  return touchedBy(one).some((each) => others.some((its) => isSamePlace(each, its)));
}

const hasRename = (edit: Edit): boolean =>
  edit.do === 'rename' || (edit.do === 'several' && edit.edits.some(hasRename));

function touchedBy(edit: Edit): Touched[] {
  switch (edit.do) {
    case 'set':
      return [{ way: edit.at.join('/'), name: edit.name }];
    case 'add':
      return [{ way: [...edit.to, edit.part.id].join('/') }];
    case 'several':
      return edit.edits.flatMap(touchedBy);
    default:
      return [{ way: edit.at.join('/') }];
  }
}

const isIn = (inner: string, outer: string, separator: string): boolean =>
  inner === outer || inner.startsWith(outer === '' ? '' : outer + separator);

function isSamePlace(one: Touched, other: Touched): boolean {
  if (one.name !== undefined && other.name !== undefined)
    return one.way === other.way && (isIn(one.name, other.name, '.') || isIn(other.name, one.name, '.'));
  if (one.name !== undefined) return isIn(one.way, other.way, '/');
  if (other.name !== undefined) return isIn(other.way, one.way, '/');
  return isIn(one.way, other.way, '/') || isIn(other.way, one.way, '/');
}

const deepest = 4;
const isText = (value: unknown): value is string => typeof value === 'string' && value.length <= 200;
const isWay = (value: unknown): boolean => Array.isArray(value) && value.length <= 8 && value.every(isText);

/** Whether something from outside has the shape of an edit; whether it can be done is for `edited` to say. */
export function isEdit(given: unknown, depth = 0): given is Edit {
  if (typeof given !== 'object' || given === null || depth > deepest) return false;
  const edit = given as Readonly<Record<string, unknown>>;
  const before = edit['before'] === undefined || isText(edit['before']);
  switch (edit['do']) {
    case 'set':
      return isWay(edit['at']) && isText(edit['name']) && edit['name'] !== '';
    case 'add': {
      const part = edit['part'] as Readonly<Record<string, unknown>> | null | undefined;
      return isWay(edit['to']) && before && typeof part === 'object' && part !== null && isText(part['id']);
    }
    case 'remove':
      return isWay(edit['at']);
    case 'move':
      return isWay(edit['at']) && before;
    case 'rename':
      return isWay(edit['at']) && isText(edit['to']);
    case 'several':
      return Array.isArray(edit['edits']) && edit['edits'].every((each) => isEdit(each, depth + 1));
    default:
      return false;
  }
}

/**
 * Two drafts of one base as one: what only one of them changed is taken, what both changed alike is one change, and
 * what they changed differently is a conflict that somebody settles. Nothing is lost: each change of either is in
 * what comes of it, or in a conflict.
 */
import type { ModelDocument } from '../model';
import { alike, differences, editOf, type Difference } from './differences';
import { edited } from './edits';

/** What two drafts changed differently; ours is in what came of it, as long as nobody chooses theirs. */
export interface Conflict {
  /**
   * Of ours; more than one where theirs is about a part in which several things were changed, none where theirs
   * cannot be done for another reason, such as an id that is used elsewhere by now.
   */
  ours: readonly Difference[];
  theirs: Difference;
}

/** What comes of two drafts. */
export interface Merged {
  document: ModelDocument;
  conflicts: readonly Conflict[];
}

/** Brings what differs between a base and theirs into ours. */
export function merged(base: ModelDocument, ours: ModelDocument, theirs: ModelDocument): Merged {
  const own = differences(base, ours);
  const conflicts: Conflict[] = [];
  let document = ours;
  for (const change of differences(base, theirs)) {
    const against = own.filter((each) => disagree(each, change));
    if (own.some((each) => isSameChange(each, change))) continue;
    // Where a part stands is worth no question: of two that moved it, ours is where it is.
    const result = against.length > 0 ? null : edited(document, editOf(placedIn(document, change)));
    if (result?.ok) document = result.document;
    else conflicts.push({ ours: against, theirs: change });
  }
  return { document, conflicts };
}

/** A change as it can be done where the part that it stands before is no longer there. */
function placedIn(document: ModelDocument, change: Difference): Difference {
  if ((change.is !== 'added' && change.is !== 'moved') || change.before === undefined) return change;
  const result = edited(document, editOf(change));
  if (result.ok) return change;
  const { before: _, ...atTheEnd } = change;
  return atTheEnd;
}

const wayOf = (change: Difference): string =>
  (change.is === 'added' ? [...change.to, change.part.id] : change.at).join('/');
const isWithin = (inner: string, outer: string): boolean => inner === outer || inner.startsWith(`${outer}/`);
const isPartOf = (inner: string, outer: string): boolean => inner === outer || inner.startsWith(`${outer}.`);

/** Whether both changed the same, and to the same. */
function isSameChange(one: Difference, other: Difference): boolean {
  if (wayOf(one) !== wayOf(other) || one.is !== other.is) return false;
  if (one.is === 'set' && other.is === 'set') return one.name === other.name && alike(one.to, other.to);
  if (one.is === 'added' && other.is === 'added') return alike(one.part, other.part);
  return one.is !== 'moved' || (other.is === 'moved' && one.before === other.before);
}

/** Whether both are about the same, and not the same change. */
function disagree(one: Difference, other: Difference): boolean {
  if (isSameChange(one, other)) return false;
  const [a, b] = [wayOf(one), wayOf(other)];
  // What is taken away, and what is changed or added in it.
  if (one.is === 'removed' && other.is !== 'removed') return isWithin(b, a);
  if (other.is === 'removed' && one.is !== 'removed') return isWithin(a, b);
  if (one.is === 'removed' && other.is === 'removed') return false;
  if (a !== b) return false;
  if (one.is === 'set' && other.is === 'set')
    return isPartOf(one.name, other.name) || isPartOf(other.name, one.name);
  return one.is === other.is;
}

/**
 * Views of quotes that were given out last, so that an answer can tell what is otherwise than in the one that
 * somebody has.
 */
import { randomBytes } from 'node:crypto';
import { changesBetween, type QuoteChanges, type QuoteView } from '../../contract';
import { Recent } from '../kernel/threads/recent';

/** Of this server; another one does not know them, and answers with everything. */
const server = randomBytes(6).toString('base64url');
let count = 0;

/** By their stand; a line counts as one, and is mostly shared with other views of its quote. */
const given = new Recent<QuoteView>(100_000);

/** Names a view, and remembers it. */
export function stamped(view: Omit<QuoteView, 'stand'>): QuoteView {
  const stand = `${server}-${String(++count)}`;
  const named = { ...view, stand };
  given.set(stand, named, view.lines.length + 20);
  return named;
}

/** What is otherwise than in the view that somebody has; all of it where that one is not known here. */
export function answerTo(has: string | null, view: QuoteView): QuoteView | QuoteChanges {
  const before = has === null ? undefined : given.get(has);
  return before?.id === view.id ? changesBetween(before, view) : view;
}

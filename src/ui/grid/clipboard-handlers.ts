import type { ClipboardEvent } from 'react';
import { say } from '../Toaster';
import { copied, emptied, pasted } from './cells';
import { tableOf, textOf } from './clipboard';
import type { GridHandle } from './useGrid';
import type { GridWords } from './words';

/** Whether an event came of one of the grid's cells, or of the grid itself where it has none. */
export const isCell = (target: EventTarget): boolean =>
  target instanceof HTMLElement &&
  ['gridcell', 'grid', 'treegrid'].includes(target.getAttribute('role') ?? '');

/** Copies and cuts what is marked, and pastes what other programs copied; not while a cell is edited. */
export function clipboardHandlers(
  { session, plan, fixed }: GridHandle,
  words: GridWords,
  editing: boolean,
  onPasting?: (table: string[][]) => boolean,
) {
  const onCopy = (event: ClipboardEvent): void => {
    if (editing || !isCell(event.target)) return;
    event.preventDefault();
    event.clipboardData.setData('text/plain', textOf(copied(session.state(), plan)));
    if (event.type === 'cut') session.act((state) => emptied(state, plan));
  };
  const onPaste = (event: ClipboardEvent): void => {
    if (editing || fixed || !isCell(event.target)) return;
    event.preventDefault();
    const table = tableOf(event.clipboardData.getData('text/plain'));
    if (!onPasting?.(table)) paste({ session, plan }, words, table);
  };
  return { onCopy, onCut: onCopy, onPaste };
}

/** Puts a table into the cells from the cursor on. */
export function paste(
  { session, plan }: Pick<GridHandle, 'session' | 'plan'>,
  words: GridWords,
  table: readonly (readonly string[])[],
): void {
  const outcome = pasted(session.state(), plan, table);
  if (outcome.is === 'tooMany') say(words.tooMany(outcome.most), true);
  else {
    session.act(() => outcome.state);
    if (outcome.beside > 0) say(words.beside(outcome.beside));
  }
}

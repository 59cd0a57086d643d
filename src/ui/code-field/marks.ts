/** Marks beneath the characters with which something is wrong. */
import { StateEffect, StateField, type Extension } from '@codemirror/state';
import { Decoration, EditorView, type DecorationSet } from '@codemirror/view';
import type { CodeProblem } from './code-problem';

/** Shows these instead of those that are shown. */
export const showMarks = StateEffect.define<readonly CodeProblem[]>();

const wrong = Decoration.mark({ class: 'cm-wrong' });

/** The marks move with the text until other ones are shown. */
export const marksOf: Extension = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(marks, transaction) {
    const shown = transaction.effects.find((effect) => effect.is(showMarks));
    if (!shown) return marks.map(transaction.changes);
    const { length } = transaction.newDoc;
    return Decoration.set(
      shown.value
        .map(({ from, to }) => ({ from: Math.min(from, Math.max(0, length - 1)), to: Math.min(to, length) }))
        .filter(({ from, to }) => from < to)
        .map(({ from, to }) => wrong.range(from, to)),
      true,
    );
  },
  provide: (field) => EditorView.decorations.from(field),
});

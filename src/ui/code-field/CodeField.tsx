import { useCallback, useEffect, useId, useState, type ReactNode, type RefObject } from 'react';
import { autocompletion, completionKeymap, type CompletionContext } from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { bracketMatching } from '@codemirror/language';
import { Compartment, EditorState, Transaction, type Extension } from '@codemirror/state';
import { EditorView, keymap } from '@codemirror/view';
import { useEcho, type Echo } from '../useEcho';
import { useLatest } from '../useLatest';
import type { CodeProblem } from './code-problem';
import { marksOf, showMarks } from './marks';
import { theme } from './theme';
import shared from '../ui.module.css';
import css from './code-field.module.css';

/** Something that could be written. */
export interface CodeProposal {
  /** What is written. */
  text: string;
  /** What it is called, where that is another thing. */
  name?: string;
  /** Of what kind it is, or what it gives. */
  detail?: string;
  /** How far behind what is written the place to write goes on; before its end where it is negative. */
  go?: number;
}

/** What could be written in the place of a part of the text, in the order in which it is shown. */
export interface CodeProposals {
  from: number;
  to: number;
  proposals: readonly CodeProposal[];
}

interface Props {
  label: string;
  /** Who sees it knows by its place what it is. */
  hideLabel?: boolean;
  value: string;
  /** One line, or as many as one likes. */
  lines?: 'one' | 'many';
  readOnly?: boolean;
  /** How the text is read, for its colours and brackets; the same as long as nothing changes. */
  language?: Extension;
  /** `asked`: somebody asked for it, rather than that something was typed. */
  propose?: (text: string, at: number, asked: boolean) => CodeProposals | null;
  problems?: readonly CodeProblem[];
  /** Stands at its end, as the value that it comes to. */
  beside?: ReactNode;
  hint?: string;
  /** What the editor itself says, by its English words. */
  phrases?: Readonly<Record<string, string>>;
  onChange: (text: string) => void;
  /** Enter in a field of one line. */
  /** With what stands there at that moment, which may be newer than what was last drawn. */
  onEnter?: (text: string) => void;
}

/**
 * A text in a language of its own: proposals while it is typed, brackets that show their fellows, what is wrong
 * marked at its characters with its sentence beneath. Tab leaves it, as any field.
 */
export function CodeField(props: Props) {
  const { label, hideLabel, value, problems = [], beside, hint } = props;
  const echo = useEcho<string>();
  const { view, mount } = useEditor(props, echo);
  const id = useId();
  const [problem] = problems;
  useEffect(() => {
    view?.dispatch({ effects: showMarks.of(problems) });
  }, [view, problems]);
  useEffect(() => {
    // What the field itself said comes back late, when more is typed already.
    if (echo.hears(value)) return;
    if (view && view.state.doc.toString() !== value)
      view.dispatch({
        changes: { from: 0, to: view.state.doc.length, insert: value },
        annotations: Transaction.addToHistory.of(false),
      });
  }, [view, value, echo]);
  useEffect(() => {
    view?.contentDOM.setAttribute('aria-invalid', String(problem !== undefined));
    // Across the border of its tree of elements no id can be named.
    view?.contentDOM.setAttribute('aria-description', problem?.text ?? hint ?? '');
  }, [view, problem, hint]);
  return (
    <div className={css.field}>
      <span
        id={`${id}-label`}
        className={hideLabel ? shared.hidden : shared.label}
        onClick={() => view?.focus()}
      >
        {label}
      </span>
      <div className={css.line} data-invalid={problem !== undefined}>
        <div ref={mount} className={css.host} data-code-field={label} />
        {beside !== undefined && <span className={css.beside}>{beside}</span>}
      </div>
      {problem ? (
        <p className={shared.error} role="alert">
          {problem.text}
        </p>
      ) : (
        hint !== undefined && <p className={shared.hint}>{hint}</p>
      )}
    </div>
  );
}

/** What of the editor changes while it is there. */
interface Parts {
  language: Compartment;
  fixed: Compartment;
}

/** The editor, made once in the element that `mount` is given; what changes is given to it. */
function useEditor(
  props: Props,
  echo: Echo<string>,
): {
  view: EditorView | null;
  mount: (host: HTMLElement | null) => (() => void) | undefined;
} {
  const latest = useLatest(props);
  const [view, setView] = useState<EditorView | null>(null);
  const [parts] = useState<Parts>(() => ({ language: new Compartment(), fixed: new Compartment() }));
  const { language, readOnly = false } = props;
  const mount = useCallback(
    (host: HTMLElement | null) => {
      if (!host) return undefined;
      // Its own tree of elements, where its style sheets need no leave of the page.
      const root = host.shadowRoot ?? host.attachShadow({ mode: 'open' });
      const state = EditorState.create({
        doc: latest.current.value,
        extensions: extensionsOf(latest, parts, echo),
      });
      const made = new EditorView({ root, parent: root, state });
      setView(made);
      return () => {
        setView(null);
        made.destroy();
      };
    },
    [latest, parts, echo],
  );
  useEffect(() => {
    view?.dispatch({
      effects: [
        parts.language.reconfigure(language ?? []),
        parts.fixed.reconfigure([EditorState.readOnly.of(readOnly), EditorView.editable.of(!readOnly)]),
      ],
    });
  }, [view, parts, language, readOnly]);
  return { view, mount };
}

/** How the editor behaves. */
function extensionsOf(latest: RefObject<Props>, parts: Parts, echo: Echo<string>): Extension[] {
  const { lines = 'one', label, phrases = {} } = latest.current;
  const enter = {
    key: 'Enter',
    run: (view: EditorView) => {
      latest.current.onEnter?.(view.state.doc.toString());
      return true;
    },
  };
  return [
    history(),
    bracketMatching(),
    marksOf,
    theme,
    EditorState.phrases.of(phrases),
    autocompletion({
      override: [(context) => proposals(latest.current, context)],
      icons: false,
      // They are there at once, and whoever types quickly takes them at once.
      activateOnTypingDelay: 0,
      interactionDelay: 0,
    }),
    keymap.of([...(lines === 'one' ? [enter] : []), ...historyKeymap, ...defaultKeymap]),
    keymap.of(completionKeymap),
    lines === 'one' ? unbroken : EditorView.lineWrapping,
    EditorView.contentAttributes.of({ 'aria-label': label, spellcheck: 'false' }),
    EditorView.updateListener.of(({ docChanged, state, transactions }) => {
      const typed = transactions.some((each) => each.annotation(Transaction.addToHistory) !== false);
      if (!docChanged || !typed) return;
      const text = state.doc.toString();
      echo.said(text);
      latest.current.onChange(text);
    }),
    parts.language.of([]),
    parts.fixed.of([]),
  ];
}

function proposals({ propose }: Props, context: CompletionContext) {
  const found = propose?.(context.state.doc.toString(), context.pos, context.explicit);
  if (!found || found.proposals.length === 0) return null;
  const written = context.state.sliceDoc(found.from, context.pos);
  // Where nothing is typed yet, all that there is would be in the way, but for who asks.
  if (written === '' && !context.explicit && context.state.sliceDoc(found.from - 1, found.from) !== '"')
    return null;
  return {
    from: found.from,
    to: found.to,
    filter: false,
    options: found.proposals.map(({ text, name, detail, go = 0 }) => ({
      label: text,
      displayLabel: name ?? text,
      ...(detail === undefined ? {} : { detail }),
      apply: (view: EditorView, _: unknown, from: number, to: number) =>
        view.dispatch({
          changes: { from, to, insert: text },
          selection: { anchor: from + text.length + go },
          userEvent: 'input.complete',
        }),
    })),
  };
}

/** What is pasted of several lines becomes one. */
const unbroken = EditorState.transactionFilter.of((transaction) =>
  transaction.docChanged && transaction.newDoc.lines > 1
    ? [transaction, { changes: breaksIn(transaction.newDoc.toString()), sequential: true }]
    : transaction,
);
const breaksIn = (text: string) =>
  [...text.matchAll(/\s*\n\s*/g)].map(({ 0: part, index }) => ({
    from: index,
    to: index + part.length,
    insert: ' ',
  }));

import { useDeferredValue, useMemo } from 'react';
import { parser } from '@bpmn-io/lezer-feel';
import { LRLanguage } from '@codemirror/language';
import { compileCell, compileFormula, proposalsAt, type FeelType, type Scope } from '../../../core/formula';
import { CodeField, type CodeProblem } from '../../../ui/code-field';
import { sentence } from '../../../i18n';
import { useSpeech } from '../../speech';
import { proposed, typeText, type NameOf } from './formula-words';

const formulas = LRLanguage.define({ parser }).extension;
const cells = LRLanguage.define({ parser: parser.configure({ top: 'UnaryTests' }) }).extension;

interface Props {
  label: string;
  hideLabel?: boolean;
  value: string;
  /** What it may read. */
  scope: Scope;
  /** What it must give. */
  wanted?: FeelType;
  /** The name on which the tests of a table's cell are; then it is no formula but such tests. */
  cell?: string;
  /** What rows and options are called in the language of the reader; by their ids where it has nothing. */
  nameOf?: NameOf;
  lines?: 'one' | 'many';
  readOnly?: boolean;
  /** What it comes to just now, as it is written. */
  comesTo?: string;
  onChange: (source: string) => void;
  onEnter?: (source: string) => void;
}

/**
 * A formula in FEEL while it is written: rows, options and functions proposed in the words of the reader, types and
 * units checked, what is wrong marked at its characters with a sentence, and what it comes to beside it.
 */
export function FormulaField(props: Props) {
  const { label, hideLabel = false, value, scope, wanted, cell, nameOf = noName, lines = 'one' } = props;
  const { readOnly = false, comesTo, onChange, onEnter } = props;
  const { t, language } = useSpeech();
  // A long formula is read when there is time; typing does not wait for it.
  const source = useDeferredValue(value);
  const problems = useMemo(
    () => problemsOf(source, scope, wanted, cell, language),
    [source, scope, wanted, cell, language],
  );
  const hint = wanted ? t('formula.gives', { type: typeText(wanted, t) }) : undefined;
  const phrases = useMemo(() => ({ Completions: t('formula.proposals') }), [t]);
  return (
    <CodeField
      {...{ label, hideLabel, value, lines, readOnly, problems, phrases, onChange }}
      language={cell === undefined ? formulas : cells}
      {...(hint === undefined ? {} : { hint })}
      {...(comesTo === undefined ? {} : { beside: `= ${comesTo}` })}
      {...(onEnter ? { onEnter } : {})}
      propose={(text, at) => {
        const found = proposalsAt(text, at, scope, cell);
        return found && proposed(found, text, at, nameOf, t);
      }}
    />
  );
}

const noName = (): undefined => undefined;

/** What is wrong with it, at the words concerned. */
function problemsOf(
  source: string,
  scope: Scope,
  wanted: FeelType | undefined,
  cell: string | undefined,
  language: string,
): readonly CodeProblem[] {
  // Whether there has to be one is for the form to say that it stands in.
  if (source.trim() === '') return none;
  const compiled =
    cell === undefined ? compileFormula(source, scope, wanted) : compileCell(cell, source, scope);
  if (compiled.ok) return none;
  return compiled.problems.slice(0, mostShown).map(({ code, at, params }) => {
    const from = Math.max(0, Math.min(at, source.length - 1));
    const word = /^(?:[\p{L}\p{N}_]+|"(?:[^"\\]|\\.)*"?|\S)/u.exec(source.slice(from))?.[0] ?? ' ';
    return { from, to: from + word.length, text: sentence(language, code, params) };
  });
}

const none: readonly CodeProblem[] = [];
const mostShown = 20;

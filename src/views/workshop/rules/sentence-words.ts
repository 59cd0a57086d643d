/** What could stand at a place of a sentence, as proposals while one types and as words of what is wrong. */
import { expectedAt, type Expected, type SentenceProblem, type Words } from '../../../core/modelling';
import type { Rule } from '../../../core/model';
import type { CodeProposals, CodeProblem } from '../../../ui/code-field';
import type { InWords } from '../../speech';

const mostProposed = 60;

/** What could be typed here, by what was typed of it. */
export function sentenceProposals(
  text: string,
  at: number,
  words: Words,
  before: Rule,
  { t }: InWords,
): CodeProposals | null {
  const { from, expected } = expectedAt(text, at, words, before);
  const typed = text.slice(from, at).trimStart().toLowerCase();
  const all = new Map<string, { text: string; detail: string }>();
  const add = (name: string, detail: string): void => {
    if (!all.has(name)) all.set(name, { text: name, detail });
  };
  for (const each of ordered(expected))
    if (each.is === 'option') each.options.forEach(({ name }) => add(name, t('draft.sentence.option')));
    else if (each.is === 'row')
      each.words.rows.forEach(({ name, unit }) =>
        add(name, unit === '' ? t('draft.sentence.row') : `${t('draft.sentence.row')}, ${unit}`),
      );
    else if (each.is === 'word' && /\p{L}/u.test(each.text)) add(each.text, t('draft.sentence.word'));
  const fits = [...all.values()].filter(({ text: name }) => holds(name.toLowerCase(), typed));
  return fits.length === 0
    ? null
    : {
        from: from + (text.slice(from, at).length - text.slice(from, at).trimStart().length),
        to: at,
        proposals: fits.slice(0, mostProposed),
      };
}

/** Options first, then rows, then words: what is meant most often. */
const ordered = (expected: readonly Expected[]): Expected[] => {
  const rank = { option: 0, row: 1, word: 2, number: 3, formula: 4, end: 5 };
  return [...expected].sort((one, other) => rank[one.is] - rank[other.is]);
};

/** Whether a name begins so, or one of its words does. */
const holds = (name: string, typed: string): boolean =>
  name.startsWith(typed) || name.split(/[\s(]+/).some((word) => word.startsWith(typed));

const mostNamed = 5;

/** What is wrong with a sentence, at its characters. */
export function problemIn(text: string, problem: SentenceProblem, { t }: InWords): CodeProblem {
  const from = Math.min(problem.at, Math.max(0, text.length - 1));
  const word = /^\s*(?:[\p{L}\p{N}_]+|\S)/u.exec(text.slice(from))?.[0] ?? ' ';
  const to = Math.min(text.length, from + word.length);
  if (problem.code === 'sentence.must') return { from: 0, to: text.length, text: t('draft.sentence.must') };
  if (problem.code === 'sentence.empty') return { from: 0, to: 0, text: t('draft.sentence.empty') };
  const what = couldStand(problem.expected, t);
  return {
    from,
    to,
    text:
      problem.near === ''
        ? t('draft.sentence.unknownEnd', { what })
        : t('draft.sentence.unknown', { near: problem.near, what }),
  };
}

function couldStand(expected: readonly Expected[], t: InWords['t']): string {
  const said = new Set<string>();
  for (const each of ordered(expected)) {
    if (each.is === 'option' && each.options.length <= mostNamed)
      each.options.forEach(({ name }) => said.add(name));
    else if (each.is === 'word') said.add(`“${each.text}”`);
    else if (each.is === 'number' && each.unit !== '')
      said.add(`${t('draft.sentence.a.number')} (${each.unit})`);
    else said.add(t(`draft.sentence.a.${each.is}`));
  }
  return [...said].slice(0, mostNamed).join(t('draft.sentence.or'));
}

/**
 * Placeholders: FEEL between braces in a text, such as {quote.validUntil}. They are found and checked while the text
 * is written, and filled when the document is composed. A brace that is meant is written twice.
 */
import { Exact } from '../exact';
import {
  compileFormula,
  Day,
  Span as Duration,
  type Formula,
  type FormulaProblem,
  type Value,
} from '../formula';
import type { PaperGiven, PaperLine } from './given';
import { richMap, richWords, type RichText } from './rich';
import { isMoney, paperEnvironment, paperScope } from './scope';
import type { PlaceOfText } from './kinds';
import type { Span } from './types';
import type { Words } from './words';

/** What is wrong with a placeholder, at a character of the text. */
export interface PlaceholderProblem {
  at: number;
  problem: FormulaProblem | { code: 'paper.unclosed'; at: number; params: Record<string, string> };
}

type Piece =
  | { is: 'text'; text: string }
  | { is: 'formula'; source: string; at: number }
  | { is: 'unclosed'; at: number };

/** A text in pieces: words, and the formulas between braces. */
function piecesOf(text: string): Piece[] {
  const pieces: Piece[] = [];
  let words = '';
  let at = 0;
  const flush = (): void => {
    if (words !== '') pieces.push({ is: 'text', text: words });
    words = '';
  };
  while (at < text.length) {
    const letter = text[at] as string;
    if ((letter === '{' || letter === '}') && text[at + 1] === letter) {
      words += letter;
      at += 2;
    } else if (letter !== '{') {
      words += letter;
      at += 1;
    } else {
      const end = endOf(text, at + 1);
      flush();
      if (end < 0) {
        pieces.push({ is: 'unclosed', at });
        return pieces;
      }
      pieces.push({ is: 'formula', source: text.slice(at + 1, end), at: at + 1 });
      at = end + 1;
    }
  }
  flush();
  return pieces;
}

/** Where the brace closes; texts in quotes may have braces of their own. */
function endOf(text: string, from: number): number {
  let quoted = false;
  for (let at = from; at < text.length; at++) {
    const letter = text[at];
    if (letter === '\\' && quoted) at += 1;
    else if (letter === '"') quoted = !quoted;
    else if (letter === '}' && !quoted) return at;
  }
  return -1;
}

/** Everything wrong with the placeholders of a text. */
export function placeholderProblems(text: string, place: PlaceOfText): PlaceholderProblem[] {
  return piecesOf(text).flatMap((piece): PlaceholderProblem[] => {
    if (piece.is === 'text') return [];
    if (piece.is === 'unclosed')
      return [{ at: piece.at, problem: { code: 'paper.unclosed', at: piece.at, params: {} } }];
    const compiled = compileFormula(piece.source, paperScope(place));
    return compiled.ok
      ? []
      : compiled.problems.slice(0, 3).map((problem) => ({ at: piece.at + problem.at, problem }));
  });
}

/** Everything wrong with the placeholders of a rich text, by the character in its words. */
export const richProblems = (rich: RichText, place: PlaceOfText): PlaceholderProblem[] =>
  placeholderProblems(richWords(rich), place);

const compiled = new Map<string, Formula | null>();
const mostCompiled = 2_000;

function formulaOf(source: string, place: PlaceOfText): Formula | null {
  const key = `${place} ${source}`;
  const known = compiled.get(key);
  if (known !== undefined) return known;
  const made = compileFormula(source, paperScope(place));
  if (compiled.size >= mostCompiled) compiled.clear();
  const formula = made.ok ? made.formula : null;
  compiled.set(key, formula);
  return formula;
}

/** What fills the placeholders of a document. */
export interface Filling {
  given: PaperGiven;
  line: PaperLine | null;
  words: Words;
}

/** A text with its placeholders filled; what cannot be read or is nothing leaves a gap. */
export function filled(text: string, filling: Filling): string {
  return piecesOf(text)
    .map((piece) => {
      if (piece.is === 'text') return piece.text;
      if (piece.is === 'unclosed') return '';
      const formula = formulaOf(piece.source, filling.line ? 'line' : 'document');
      if (!formula) return '';
      return writtenValue(
        formula.run(paperEnvironment(filling.given, filling.line)),
        isMoney(piece.source),
        filling.words,
      );
    })
    .join('');
}

/** A rich text with its placeholders filled. */
export const filledRich = (rich: RichText, filling: Filling): RichText =>
  richMap(rich, (spans) =>
    spans
      .map((span): Span => ({ ...span, text: filled(span.text, filling) }))
      .filter(({ text }) => text !== ''),
  ).filter((part) => part.is === 'list' || part.spans.length > 0);

/** Whether a condition holds; an empty one does, one that cannot be read does not. */
export function holds(condition: string, { given, line }: Omit<Filling, 'words'>): boolean {
  if (condition.trim() === '') return true;
  const formula = formulaOf(condition, line ? 'line' : 'document');
  return formula?.run(paperEnvironment(given, line)) === true;
}

/** What is wrong with a condition, at its characters. */
export function conditionProblems(condition: string): readonly FormulaProblem[] {
  if (condition.trim() === '') return [];
  const made = compileFormula(condition, paperScope('document'), { is: 'yesno' });
  return made.ok ? [] : made.problems;
}

/** A value as it is read. */
function writtenValue(value: Value, money: boolean, words: Words): string {
  if (value === null) return '';
  if (value instanceof Exact)
    return money ? words.amount(value.toString()) : words.number(value.toString(), 12);
  if (value instanceof Day) return words.date(value.toString());
  if (value instanceof Duration) return value.toString();
  if (Array.isArray(value)) return value.map((each) => writtenValue(each, money, words)).join(', ');
  if (typeof value === 'boolean') return value ? words.yes : words.no;
  return value;
}

/** What a placeholder comes to, as it is written; null where it cannot be read. */
export function placeholderValue(source: string, filling: Filling): string | null {
  const formula = formulaOf(source, filling.line ? 'line' : 'document');
  return (
    formula &&
    writtenValue(formula.run(paperEnvironment(filling.given, filling.line)), isMoney(source), filling.words)
  );
}

/** The placeholders of a text that cannot be read, as they are written. */
export const unreadPlaceholders = (text: string, place: PlaceOfText): string[] =>
  piecesOf(text).flatMap((piece) => {
    if (piece.is === 'text') return [];
    if (piece.is === 'unclosed') return [text.slice(piece.at, piece.at + 20)];
    return formulaOf(piece.source, place) ? [] : [piece.source];
  });

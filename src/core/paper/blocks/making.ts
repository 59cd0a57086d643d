/** What a block is made with. */
import type { BlockChoice, Composition } from '../composition';
import type { PaperGiven, PaperLine } from '../given';
import type { Filling } from '../placeholders';
import type { RichText } from '../rich';
import type { Cell, Figure, Look, Node, Span, TextLine } from '../types';
import type { Words } from '../words';

/** All that a block reads. */
export interface Making {
  given: PaperGiven;
  composition: Composition;
  words: Words;
  /** Texts of the house by their codes, in the language of the document. */
  texts: Readonly<Record<string, RichText>>;
}

/** Makes the parts of a block; none where there is nothing to say. */
export type BlockMaker = (making: Making, choice: BlockChoice) => readonly Node[];

/** Lines that count, in their order. */
export const countedLines = ({ lines }: PaperGiven): readonly PaperLine[] =>
  lines.filter(({ optional, alternative }) => !optional && !alternative);

/** What fills placeholders of the document. */
export const fillingOf = ({ given, words }: Making, line: PaperLine | null = null): Filling => ({
  given,
  line,
  words,
});

/** Whether a block of a kind is on, so that what it shows does not stand elsewhere. */
export const isOn = ({ composition }: Making, kind: BlockChoice['kind']): boolean =>
  composition.blocks.some((block) => block.kind === kind && block.on);

export const span = (text: string): Span => ({ text });

/** A line of a cell. */
export const line = (text: string, look?: Look): TextLine => ({
  spans: [span(text)],
  ...(look ? { look } : {}),
});

export const blank: Cell = { lines: [] };
/** A cell of words. */
export const wordsCell = (text: string, look?: Look): Cell =>
  text === '' ? blank : { lines: [line(text, look)] };

/** A cell of a figure, as it is read. */
export const figureCell = (text: string, figure: Figure, look?: Look): Cell => ({
  lines: [line(text, look)],
  figure,
});

export const money = (id: string, value: string, decimals: number, works?: Figure['works']): Figure => ({
  id,
  value,
  is: 'money',
  decimals,
  ...(works ? { works } : {}),
});

/**
 * A document that knows no format: blocks of paragraphs, tables, figures and drawings in their order. Every writer
 * takes it as it is, so that two formats of one document cannot differ; what a role or a choice hides is not in it.
 */
import type { ExactText } from '../exact';
import type { View } from '../drawing';
import type { Writing } from '../quotes';

/** A run of text. */
export interface Span {
  text: string;
  bold?: true;
  italic?: true;
  /** An address (https, mailto) to which it leads. */
  link?: string;
}

/** Where a figure comes from, in the ids of other figures of the document. */
export type Works =
  /** All of them multiplied, to the minor unit. */
  | { is: 'product'; of: readonly string[] }
  /** All of them together, less the others. */
  | { is: 'sum'; of: readonly string[]; less?: readonly string[] }
  /** All of them together at a rate, to the minor unit. */
  | { is: 'rate'; rate: ExactText; of: readonly string[] }
  /** Each list of them multiplied, to the minor unit, and these together. */
  | { is: 'across'; of: readonly (readonly string[])[] };

/** A number as it counts, beside the text in which it is read. */
export interface Figure {
  /** Names it within the document. */
  id: string;
  value: ExactText;
  /** share: 0.05 is read as 5 %. */
  is: 'money' | 'count' | 'share';
  /** As many as are read, of money always. */
  decimals: number;
  /** Absent where it is given, not worked out. */
  works?: Works;
}

/** How something stands out. */
export type Look = 'strong' | 'quiet' | 'code' | 'head';

/** A cell of a table. */
export interface Cell {
  lines: readonly TextLine[];
  /** Small entries beneath: names with what they are, and where there is a third, with what they cost. */
  entries?: readonly (readonly string[])[];
  figure?: Figure;
  /** Columns that it goes over; one unless said. */
  over?: number;
}

/** A line of a cell. */
export interface TextLine {
  spans: readonly Span[];
  look?: Look;
}

/** A column of a table. */
export interface TableColumn {
  title: string;
  /** Of figures: at its right. */
  right?: true;
  /** In points; the columns without share what is left. */
  width?: number;
}

/** A row of a table. */
export interface TableRow {
  /** item: begins something. detail: belongs to the item above it. group: head of what follows. sum: what is above together. */
  is: 'item' | 'detail' | 'group' | 'sum';
  cells: readonly Cell[];
  /** What all items up to and with this one come to; carried over to the next page. */
  running?: ExactText;
}

/** A term on a line of time. */
export interface Bar {
  name: string;
  /** ISO days, both counted. */
  from: string;
  to: string;
  /** Beside it. */
  note: string;
}

/** A part of a block. */
export type Node =
  | { is: 'heading'; text: string; level: 1 | 2 | 3 }
  | { is: 'paragraph'; spans: readonly Span[]; look?: Look }
  | { is: 'list'; ordered: boolean; items: readonly (readonly Span[])[] }
  /** Names with what they are, such as the number and the day of a quotation. */
  | { is: 'pairs'; rows: readonly (readonly [name: string, value: string])[] }
  | {
      is: 'table';
      /** Names it within the document. */
      id: string;
      columns: readonly TableColumn[];
      rows: readonly TableRow[];
      /** Text for what is carried over at the end of a page, and at the head of the next; none where nothing is. */
      carried?: readonly [over: string, forward: string];
    }
  /** Sums at the right, the last of them standing out. */
  | {
      is: 'sums';
      id: string;
      rows: readonly { name: string; figure: Figure; text: string; strong: boolean }[];
    }
  | { is: 'drawing'; view: View; caption: string }
  /** A picture of the file store. */
  | { is: 'picture'; file: string; caption: string }
  | {
      is: 'timeline';
      bars: readonly Bar[];
      from: string;
      to: string;
      ticks: readonly { at: string; text: string }[];
    }
  /** Lines to write on. */
  | { is: 'fields'; names: readonly string[] };

/** A part of the document that a person switches on and off and puts in its place. */
export interface Block {
  /** As in the composition. */
  key: string;
  /** For the bookmarks of a reader; empty where it has none. */
  title: string;
  nodes: readonly Node[];
  /** Begins a page of its own. */
  apart?: true;
}

/** Who sends it. */
export interface LetterHead {
  name: string;
  /** Address, telephone and so on, each a line. */
  lines: readonly string[];
  /** Registration, bank, tax: at the foot of the first page. */
  foot: readonly string[];
  /** Picture of the file store. */
  mark: string | null;
}

/** A composed document. */
export interface PaperDocument {
  kind: 'quotation' | 'specification' | 'schedule';
  /** What it is, in a word. */
  what: string;
  title: string;
  /** Number and revision, on every page. */
  reference: string;
  /** ISO 639, with the country where its forms differ. */
  language: Writing;
  author: string;
  /** ISO day. */
  day: string;
  paper: 'A4' | 'letter';
  /** Of what stands out, as #rrggbb. */
  colour: string;
  /** Across each page, such as "Draft"; empty where nothing is. */
  watermark: string;
  /** Text of the foot of a page, with {page} and {pages}. */
  pageText: string;
  head: LetterHead;
  /** ISO 4217 and its minor digits. */
  currency: string;
  decimals: number;
  blocks: readonly Block[];
  /** PDF files of the store that follow, with their names. */
  annexes: readonly Annex[];
}

/** A file of the store that goes along: a PDF is joined at the end, a picture stands in the document. */
export interface Annex {
  file: string;
  name: string;
  kind: 'pdf' | 'picture';
}

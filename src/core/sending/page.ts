/**
 * A document as it is read on a page of its own, also on a phone: as composed, with its drawings as pictures. It has no
 * figures beside their texts, and nothing that only paper needs.
 */
import type { Node, PaperDocument, Span } from '../paper';

/** A line of a cell. */
export interface PageLine {
  spans: readonly Span[];
  look?: 'strong' | 'quiet' | 'code' | 'head';
}

/** A cell of a table; a figure stands at its right. */
export interface PageCell {
  lines: readonly PageLine[];
  /** Names with what they are, and where there is a third, with what they cost. */
  entries: readonly (readonly string[])[];
  right: boolean;
  /** Columns that it goes over. */
  over: number;
}

/** A row of a table: item, detail, group or sum, as on paper. */
export interface PageRow {
  is: 'item' | 'detail' | 'group' | 'sum';
  cells: readonly PageCell[];
}

/** A part of a block; drawings and lines of time are pictures made of lines (SVG). */
export type PageNode =
  | Extract<Node, { is: 'heading' | 'list' | 'pairs' | 'picture' }>
  | { is: 'paragraph'; spans: readonly Span[]; look?: PageLine['look'] }
  | { is: 'table'; columns: readonly { title: string; right: boolean }[]; rows: readonly PageRow[] }
  | { is: 'sums'; rows: readonly { name: string; text: string; strong: boolean }[] }
  | { is: 'lines'; svg: string; caption: string };

/** A composed document for a page. */
export interface PageDocument extends Pick<
  PaperDocument,
  'what' | 'title' | 'reference' | 'language' | 'day' | 'colour'
> {
  /** Who sends it: name, address, what stands at the foot, and the picture of the file store. */
  head: { name: string; lines: readonly string[]; foot: readonly string[]; mark: string | null };
  blocks: { key: string; title: string; nodes: PageNode[] }[];
}

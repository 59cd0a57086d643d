/** A document as it is read on a page of its own, also on a phone: as composed, with its drawings as pictures. */
import type { Node, PaperDocument } from '../paper';

/** A part of a block; drawings and lines of time are pictures made of lines (SVG). */
export type PageNode =
  Exclude<Node, { is: 'drawing' | 'timeline' | 'fields' }> | { is: 'lines'; svg: string; caption: string };

/** A composed document for a page. */
export interface PageDocument extends Pick<
  PaperDocument,
  'what' | 'title' | 'reference' | 'language' | 'day' | 'colour' | 'head'
> {
  blocks: { key: string; title: string; nodes: PageNode[] }[];
}

/** A composed document for a page: what only paper needs is left out, drawings become pictures. */
import { compose, composeSpecification, type Node, type PaperDocument } from '../../../core/paper';
import type { PageDocument, PageNode } from '../../../core/sending';
import { paperWords } from '../../../i18n/paper-words';
import { svgOf } from './node-svg';
import type { PaperTask } from './paper-file';
import type { SheetGiven } from './specification-file';

/** What only stands where one signs or posts it. */
const ofPaper = new Set(['acceptance', 'letterHead']);

function pageOf(document: PaperDocument): PageDocument {
  const { what, title, reference, language, day, colour, head, blocks } = document;
  return {
    what,
    title,
    reference,
    language,
    day,
    colour,
    head: { name: head.name, lines: head.lines, foot: head.foot, mark: head.mark },
    blocks: blocks
      .filter(({ key }) => !ofPaper.has(key))
      .map(({ key, title: name, nodes }) => ({
        key,
        title: name,
        nodes: nodes.flatMap((node) => nodesOf(node, document)),
      }))
      .filter(({ nodes }) => nodes.length > 0),
  };
}

function nodesOf(node: Node, document: PaperDocument): PageNode[] {
  switch (node.is) {
    case 'fields':
      return [];
    case 'drawing':
      return [{ is: 'lines', svg: svgOf(node, document).svg, caption: node.caption }];
    case 'timeline':
      return [{ is: 'lines', svg: svgOf(node, document).svg, caption: '' }];
    case 'table':
      return [tableOf(node)];
    case 'sums':
      return [{ is: 'sums', rows: node.rows.map(({ name, text, strong }) => ({ name, text, strong })) }];
    default:
      return [node];
  }
}

function tableOf({ columns, rows }: Extract<Node, { is: 'table' }>): PageNode {
  return {
    is: 'table',
    columns: columns.map(({ title, right }) => ({ title, right: right === true })),
    rows: rows.map(({ is, cells }) => {
      let column = 0;
      return {
        is,
        cells: cells.map(({ lines, entries = [], figure, over = 1 }) => {
          const right = figure !== undefined || (over === 1 && columns[column]?.right === true);
          column += over;
          return { lines, entries, right, over };
        }),
      };
    }),
  };
}

/** Of a quotation. */
export const quotationPage = ({ given, composition, texts }: PaperTask): PageDocument =>
  pageOf(compose({ given, composition, texts, words: paperWords(composition.language, given.decimals) }));

/** Of the specification sheet of a build. */
export const specificationPage = ({ specification, look }: SheetGiven): PageDocument =>
  pageOf(composeSpecification(specification, look, paperWords(look.language, 0)));

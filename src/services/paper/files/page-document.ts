/** A composed document for a page: what only paper needs is left out, drawings become pictures. */
import { compose, composeSpecification, type PaperDocument } from '../../../core/paper';
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
    head,
    blocks: blocks
      .filter(({ key }) => !ofPaper.has(key))
      .map((block) => ({
        key: block.key,
        title: block.title,
        nodes: block.nodes.flatMap((node): PageNode[] => {
          if (node.is === 'fields') return [];
          if (node.is !== 'drawing' && node.is !== 'timeline') return [node];
          return [
            {
              is: 'lines',
              svg: svgOf(node, document).svg,
              caption: node.is === 'drawing' ? node.caption : '',
            },
          ];
        }),
      }))
      .filter(({ nodes }) => nodes.length > 0),
  };
}

/** Of a quotation. */
export const quotationPage = ({ given, composition, texts }: PaperTask): PageDocument =>
  pageOf(compose({ given, composition, texts, words: paperWords(composition.language, given.decimals) }));

/** Of the specification sheet of a build. */
export const specificationPage = ({ specification, look }: SheetGiven): PageDocument =>
  pageOf(composeSpecification(specification, look, paperWords(look.language, 0)));

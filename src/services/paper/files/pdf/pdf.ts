/** A document as PDF: the pages as they are kept and sent. */
import { readFileSync } from 'node:fs';
import pdfmake from 'pdfmake';
import type { Content, Node, NodeQueries, TDocumentDefinitions } from 'pdfmake/interfaces';
import type { PaperDocument } from '../../../../core/paper';
import { money } from '../../../../i18n';
import { faces } from '../fonts';
import type { GivenFiles } from '../given-files';
import { hairline, ink, quiet } from '../paper-colours';
import { blockOf, endOf, imageOf, type Setting } from './pdf-nodes';
import { withAnnexes } from './annexes';
import { unpackedFont } from '../unpacked-font';
import { words } from './pdf-text';

/** Where pages find fonts before they look on the disk; its types do not tell of it. */
const virtual = pdfmake as unknown as {
  virtualfs: { writeFileSync: (name: string, bytes: Buffer) => void };
};
let prepared = false;

function prepare(): void {
  if (prepared) return;
  pdfmake.setFonts({ ...faces });
  // Each font is unpacked once for all documents of this thread.
  for (const file of new Set(Object.values(faces).flatMap((face) => Object.values(face) as string[])))
    virtual.virtualfs.writeFileSync(file, unpackedFont(readFileSync(file)));
  pdfmake.setLocalAccessPolicy(() => true);
  pdfmake.setUrlAccessPolicy(() => false);
  prepared = true;
}

/** Sheets of paper, in points. */
const sheets = {
  A4: { name: 'A4', width: 595.28 },
  letter: { name: 'LETTER', width: 612 },
} as const;
/** At both sides of a page. */
const side = 54;

/** The pages, with the annexes behind them. */
export async function writePdf(document: PaperDocument, files: GivenFiles): Promise<Uint8Array> {
  prepare();
  const bytes = new Uint8Array(await pdfmake.createPdf(pagesOf(document, files)).getBuffer());
  return withAnnexes(bytes, document, files);
}

const mostRowsTidied = 600;
const rowsIn = ({ blocks }: PaperDocument): number =>
  blocks
    .flatMap(({ nodes }) => nodes)
    .reduce((sum, node) => sum + (node.is === 'table' || node.is === 'pairs' ? node.rows.length : 0), 0);

/** The pages as data, before they are set. */
export function pagesOf(document: PaperDocument, files: GivenFiles): TDocumentDefinitions {
  const sheet = sheets[document.paper];
  const setting: Setting = { document, files, width: sheet.width - 2 * side, carried: [] };
  const { title, author, reference, language, watermark } = document;
  const content = [firstHead(setting), ...document.blocks.map((block) => blockOf(block, setting))];
  endOf(content);
  return {
    info: { title, author, subject: reference, creationDate: new Date(`${document.day}T00:00:00Z`) },
    language: language === 'en' ? 'en-GB' : language,
    displayTitle: true,
    version: '1.7',
    pageSize: sheet.name,
    pageMargins: [side, 64, side, 66],
    ...(watermark === ''
      ? {}
      : { watermark: { text: watermark, color: hairline, opacity: 0.25, bold: true } }),
    defaultStyle: { font: 'Archivo', fontSize: 9.5, color: ink, lineHeight: 1.2 },
    header: (page) => laterHead(page, setting),
    footer: (page, pages) => footOf(page, pages, setting),
    // A head does not stand alone at the foot of a page. Each such break sets all pages anew: long ones do without.
    ...(rowsIn(document) > mostRowsTidied
      ? {}
      : {
          pageBreakBefore: (node: Node, { getFollowingNodesOnPage }: NodeQueries) =>
            node.headlineLevel !== undefined && getFollowingNodesOnPage().length === 0,
        }),
    content,
  };
}

/** Who it is from, at the head of the first page, over a rule in the house's colour. */
function firstHead({ document, files, width }: Setting): Content {
  const { head, colour } = document;
  const mark = head.mark === null ? undefined : files[head.mark];
  const who: Content = {
    stack: [
      words(head.name, { bold: true, fontSize: 13 }),
      ...head.lines.map((line) => words(line, { fontSize: 8, color: quiet })),
    ],
  };
  return {
    stack: [
      {
        columns: [
          ...(mark ? [{ width: 64, ...(imageOf(mark, { fit: [54, 54] }) as object) }] : []),
          who,
          words(document.what, {
            fontSize: 22,
            bold: true,
            color: colour,
            alignment: 'right',
            width: 200,
          }),
        ],
      },
      {
        canvas: [{ type: 'rect', x: 0, y: 8, w: width, h: 2.2, color: colour }],
        margin: [0, 0, 0, 22],
      },
    ],
  } as Content;
}

/** On later pages: whose and which it is, and what is brought forward. */
function laterHead(page: number, setting: Setting): Content {
  if (page === 1) return '';
  const { document } = setting;
  const forward = carriedOn(page - 1, setting);
  return {
    columns: [
      words(`${document.author} · ${document.what} ${document.reference}`, {
        fontSize: 8,
        color: quiet,
      }),
      ...(forward === undefined ? [] : [carriedText(forward, 1, setting)]),
    ],
    margin: [side, 34, side, 0],
  };
}

/** Page numbers, what is carried over, and on the first page what the law wants to stand there. */
function footOf(page: number, pages: number, setting: Setting): Content {
  const { document, width } = setting;
  const over = page < pages ? carriedOn(page, setting) : undefined;
  const numbers = document.pageText.replace('{page}', String(page)).replace('{pages}', String(pages));
  const foot = page === 1 ? document.head.foot.join(' · ') : document.reference;
  return {
    stack: [
      ...(over === undefined ? [] : [carriedText(over, 0, setting)]),
      {
        canvas: [{ type: 'line', x1: 0, y1: 4, x2: width, y2: 4, lineWidth: 0.4, lineColor: hairline }],
      },
      {
        columns: [
          words(foot, { fontSize: 7, color: quiet }),
          words(numbers, { fontSize: 7.5, color: quiet, alignment: 'right', width: 90 }),
        ],
        margin: [0, 4, 0, 0],
      },
    ],
    margin: [side, 8, side, 0],
  };
}

const carriedText = (running: string, which: 0 | 1, { document }: Setting): Content => {
  const table = document.blocks
    .flatMap(({ nodes }) => nodes)
    .find((node) => node.is === 'table' && node.carried !== undefined);
  const text = table?.is === 'table' ? (table.carried?.[which] ?? '') : '';
  return words(`${text}  ${money(running, document.language, document.decimals)}`, {
    fontSize: 8,
    bold: true,
    alignment: 'right',
  });
};

interface Placed {
  positions?: readonly { pageNumber: number }[];
}

/**
 * What lines come to up to the end of a page, where they go on on the next; heads and feet are set when everything
 * has its place, so that each row says on which page it came to stand.
 */
function carriedOn(page: number, { carried }: Setting): string | undefined {
  const pageOf = ({ cell }: Setting['carried'][number]): number =>
    (cell as Placed).positions?.at(-1)?.pageNumber ?? 0;
  const last = carried.findLastIndex((each) => {
    const at = pageOf(each);
    return at > 0 && at <= page;
  });
  const next = carried[last + 1];
  return last < 0 || !next || pageOf(next) === 0 ? undefined : carried[last]?.running;
}

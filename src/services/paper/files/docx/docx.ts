/** A document as DOCX, for houses that must edit what they send. */
import {
  AlignmentType,
  BorderStyle,
  Document,
  Footer,
  Header,
  ImageRun,
  LevelFormat,
  Packer,
  PageNumber,
  Paragraph,
  Tab,
  TabStopType,
  type ISectionOptions,
} from 'docx';
import type { Block, PaperDocument } from '../../../../core/paper';
import type { GivenFiles } from '../given-files';
import { pictureRaster } from '../raster';
import { nodesIn, runOf } from './docx-nodes';

/** Twentieths of a point. */
const twips = (points: number): number => Math.round(points * 20);
const sheets = {
  A4: { width: twips(595.28), height: twips(841.89) },
  letter: { width: twips(612), height: twips(792) },
} as const;
const side = 54;

/** The document; pictures and drawings in dots. */
export async function writeDocx(document: PaperDocument, files: GivenFiles): Promise<Uint8Array> {
  const { title, author, reference, colour, paper, language, watermark, pageText } = document;
  const width = sheets[paper].width / 20 - 2 * side;
  const made = await Promise.all(document.blocks.map((block) => blockParts(block, document, files, width)));
  const section: ISectionOptions = {
    properties: {
      titlePage: true,
      page: {
        size: sheets[paper],
        margin: { top: twips(64), bottom: twips(60), left: twips(side), right: twips(side) },
      },
    },
    headers: {
      first: new Header({ children: [] }),
      default: new Header({
        children: [quiet(`${author} · ${document.what} ${reference}`)],
      }),
    },
    footers: {
      first: new Footer({ children: [pageNumbers(pageText, document.head.foot.join(' · '), width)] }),
      default: new Footer({ children: [pageNumbers(pageText, reference, width)] }),
    },
    children: [...(await headParts(document, files)), ...made.flat()],
  };
  const book = new Document({
    title,
    creator: author,
    subject: reference,
    description: watermark,
    styles: {
      default: {
        document: {
          run: {
            font: 'Arial',
            size: 19,
            language: { value: language === 'en' ? 'en-GB' : language === 'de' ? 'de-DE' : language },
          },
        },
        heading1: { run: { font: 'Arial', size: 26, bold: true, color: '23262a' } },
        heading2: { run: { font: 'Arial', size: 23, bold: true, color: colour.slice(1) } },
        heading3: { run: { font: 'Arial', size: 19, bold: true, color: '23262a' } },
      },
    },
    numbering: {
      config: [
        {
          reference: 'ordered',
          levels: [{ level: 0, format: LevelFormat.DECIMAL, text: '%1.', alignment: AlignmentType.START }],
        },
      ],
    },
    sections: [section],
  });
  return new Uint8Array(await Packer.toBuffer(book));
}

const quiet = (text: string): Paragraph =>
  new Paragraph({ children: [runOf({ text, size: 16, color: '5a5d60' })] });

/** Who it is from, and what it is; a draft says so where no watermark would be seen by all readers. */
async function headParts(document: PaperDocument, files: GivenFiles): Promise<Paragraph[]> {
  const { head, colour, watermark } = document;
  const mark = head.mark === null ? undefined : files[head.mark];
  const raster = mark && (await pictureRaster(mark, { width: 54, height: 54 }));
  return [
    ...(raster
      ? [
          new Paragraph({
            children: [
              new ImageRun({
                type: 'png',
                data: raster.png,
                transformation: { width: raster.width, height: raster.height },
              }),
            ],
          }),
        ]
      : []),
    new Paragraph({
      tabStops: [{ type: TabStopType.RIGHT, position: twips(487) }],
      children: [
        runOf({ text: head.name, bold: true, size: 26 }),
        runOf({
          children: [new Tab(), document.what],
          bold: true,
          size: 40,
          color: colour.slice(1),
        }),
      ],
    }),
    ...head.lines.map(quiet),
    ...(watermark === ''
      ? []
      : [new Paragraph({ children: [runOf({ text: watermark, bold: true, color: 'a3352b' })] })]),
    new Paragraph({
      border: { bottom: { style: BorderStyle.SINGLE, size: 16, color: colour.slice(1), space: 1 } },
      spacing: { after: 240 },
      children: [],
    }),
  ];
}

/** Page numbers at the right, something to know at the left. */
function pageNumbers(pageText: string, left: string, width: number): Paragraph {
  const parts = pageText
    .split(/(\{pages?\})/)
    .map((part) =>
      part === '{page}' ? PageNumber.CURRENT : part === '{pages}' ? PageNumber.TOTAL_PAGES : part,
    );
  return new Paragraph({
    tabStops: [{ type: TabStopType.RIGHT, position: twips(width) }],
    children: [
      runOf({ text: left, size: 14, color: '5a5d60' }),
      runOf({ children: [new Tab(), ...parts], size: 15, color: '5a5d60' }),
    ],
  });
}

async function blockParts(
  block: Block,
  document: PaperDocument,
  files: GivenFiles,
  width: number,
): Promise<Awaited<ReturnType<typeof nodesIn>>> {
  const parts = await nodesIn(block.nodes, { document, files, width });
  return block.apart ? [new Paragraph({ pageBreakBefore: true, children: [] }), ...parts] : parts;
}

/** The parts of a document as DOCX takes them. */
import {
  AlignmentType,
  BorderStyle,
  ExternalHyperlink,
  HeadingLevel,
  ImageRun,
  Paragraph,
  Table,
  TableCell,
  TableLayoutType,
  TableRow,
  TextRun,
  WidthType,
  type IRunOptions,
  type ParagraphChild,
} from 'docx';
import type { Cell, Look, Node, PaperDocument, Span, TextLine } from '../../../../core/paper';
import type { GivenFiles } from '../given-files';
import { svgOf } from '../node-svg';
import { pictureRaster, rasterOf } from '../raster';

/** What nodes are made with. */
export interface DocxSetting {
  document: PaperDocument;
  files: GivenFiles;
  /** Width of the text, in points. */
  width: number;
}

const twips = (points: number): number => Math.round(points * 20);
const grey = '5a5d60';
const hairline = { style: BorderStyle.SINGLE, size: 4, color: 'c9c0ae' };
const none = { style: BorderStyle.NONE, size: 0, color: 'auto' };
const noBorders = { top: none, bottom: none, left: none, right: none };

const runLooks: Readonly<Record<Look, object>> = {
  strong: { bold: true },
  quiet: { size: 17, color: grey },
  code: { font: 'Courier New', size: 17 },
  head: { size: 16, color: grey },
};

/** A run of text. */
export const runOf = (options: IRunOptions): TextRun => new TextRun(options);

/** Runs of text; links lead where they lead. */
function runs(spans: readonly Span[], look?: Look, more: object = {}): ParagraphChild[] {
  return spans.map(({ text, bold, italic, link }) => {
    const run = runOf({
      text,
      ...(look ? runLooks[look] : {}),
      ...more,
      ...(bold ? { bold } : {}),
      ...(italic ? { italics: true } : {}),
      ...(link ? { style: 'Hyperlink' } : {}),
    });
    return link ? new ExternalHyperlink({ link, children: [run] }) : run;
  });
}

const levels = { 1: HeadingLevel.HEADING_1, 2: HeadingLevel.HEADING_2, 3: HeadingLevel.HEADING_3 } as const;

/** Nodes in their order. */
export async function nodesIn(nodes: readonly Node[], setting: DocxSetting): Promise<(Paragraph | Table)[]> {
  const made: (Paragraph | Table)[] = [];
  for (const node of nodes) made.push(...(await nodeParts(node, setting)));
  return made;
}

async function nodeParts(node: Node, setting: DocxSetting): Promise<(Paragraph | Table)[]> {
  switch (node.is) {
    case 'heading':
      return [
        new Paragraph({
          heading: levels[node.level],
          text: node.text,
          keepNext: true,
          spacing: { before: 160, after: 80 },
        }),
      ];
    case 'paragraph':
      return [
        new Paragraph({ children: runs(node.spans, node.look), spacing: { after: node.look ? 20 : 100 } }),
      ];
    case 'list':
      return node.items.map(
        (item) =>
          new Paragraph({
            children: runs(item),
            ...(node.ordered ? { numbering: { reference: 'ordered', level: 0 } } : { bullet: { level: 0 } }),
          }),
      );
    case 'pairs':
      return [pairsTable(node.rows, setting.width), gap()];
    case 'table':
      return [tableOf(node, setting), gap()];
    case 'sums':
      return [sumsTable(node, setting), gap()];
    case 'drawing':
    case 'timeline': {
      const { svg, ratio } = svgOf(node, setting.document);
      const raster = await rasterOf(svg, ratio, { width: setting.width, height: 300 });
      return [
        new Paragraph({
          keepNext: node.is === 'drawing',
          children: [
            new ImageRun({
              type: 'png',
              data: raster.png,
              transformation: { width: raster.width * 1.333, height: raster.height * 1.333 },
            }),
          ],
        }),
        ...(node.is === 'drawing'
          ? [new Paragraph({ children: [runOf({ text: node.caption, size: 16, color: grey })] })]
          : []),
      ];
    }
    case 'picture': {
      const found = setting.files[node.file];
      const raster = found && (await pictureRaster(found, { width: Math.round(setting.width), height: 300 }));
      return raster
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
        : [];
    }
    case 'fields':
      return [fieldsTable(node.names, setting.width), gap()];
  }
}

const gap = (): Paragraph => new Paragraph({ children: [], spacing: { after: 60 } });

const plainCell = (children: Paragraph[], width: number, more: object = {}): TableCell =>
  new TableCell({
    children,
    width: { size: twips(width), type: WidthType.DXA },
    borders: noBorders,
    ...more,
  });

function fixedTable(rows: TableRow[], widths: readonly number[]): Table {
  return new Table({
    layout: TableLayoutType.FIXED,
    columnWidths: widths.map(twips),
    width: { size: twips(widths.reduce((sum, each) => sum + each, 0)), type: WidthType.DXA },
    borders: { ...noBorders, insideHorizontal: none, insideVertical: none },
    rows,
  });
}

function pairsTable(rows: readonly (readonly [string, string])[], width: number): Table {
  const [name, value] = [Math.min(150, width * 0.35), width - Math.min(150, width * 0.35)];
  return fixedTable(
    rows.map(
      ([left, right]) =>
        new TableRow({
          cantSplit: true,
          children: [
            plainCell([new Paragraph({ children: [runOf({ text: left, color: grey })] })], name),
            plainCell(
              right.split('\n').map((text) => new Paragraph({ children: [runOf({ text })] })),
              value,
            ),
          ],
        }),
    ),
    [name, value],
  );
}

function tableOf(node: Extract<Node, { is: 'table' }>, { width, document }: DocxSetting): Table {
  const given = node.columns.reduce((sum, column) => sum + (column.width ?? 0) + 6, 0);
  const free = node.columns.filter((column) => column.width === undefined).length;
  const widths = node.columns.map((column) =>
    column.width === undefined ? Math.max(60, (width - given) / Math.max(free, 1) + 6) : column.width + 6,
  );
  const head = new TableRow({
    tableHeader: true,
    cantSplit: true,
    children: node.columns.map((column, at) =>
      plainCell(
        [
          new Paragraph({
            alignment: column.right ? AlignmentType.RIGHT : AlignmentType.LEFT,
            children: [runOf({ text: column.title, size: 16, color: grey })],
          }),
        ],
        widths[at] as number,
        { borders: { ...noBorders, bottom: { ...hairline, color: document.colour.slice(1), size: 8 } } },
      ),
    ),
  });
  const rows = node.rows.map((row) => {
    let column = 0;
    const cells = row.cells.map((cell) => {
      const over = cell.over ?? 1;
      const across = widths.slice(column, column + over).reduce((sum, each) => sum + each, 0);
      const right = node.columns[column]?.right === true && over === 1;
      column += over;
      return plainCell(cellParts(cell, right, row.is === 'sum' || row.is === 'group'), across, {
        columnSpan: over,
        ...(row.is === 'item' || row.is === 'group' ? { borders: { ...noBorders, top: hairline } } : {}),
      });
    });
    while (column < widths.length) cells.push(plainCell([new Paragraph({})], widths[column++] as number));
    return new TableRow({ cantSplit: true, children: cells });
  });
  return fixedTable([head, ...rows], widths);
}

function cellParts(cell: Cell, right: boolean, strong: boolean): Paragraph[] {
  const lines = cell.lines.map((each: TextLine) => {
    const figure = cell.figure ? { font: 'Courier New', size: 18 } : {};
    return new Paragraph({
      ...(right || cell.figure ? { alignment: AlignmentType.RIGHT } : {}),
      children: runs(each.spans, each.look, { ...figure, ...(strong ? { bold: true } : {}) }),
    });
  });
  const entries = (cell.entries ?? []).map(
    ([name = '', value = '', amount]) =>
      new Paragraph({
        children: [
          runOf({ text: `${name}: `, size: 16, color: grey }),
          runOf({ text: [value, amount].filter(Boolean).join('   '), size: 16 }),
        ],
      }),
  );
  const all = [...lines, ...entries];
  return all.length === 0 ? [new Paragraph({})] : all;
}

function sumsTable({ rows }: Extract<Node, { is: 'sums' }>, { width, document }: DocxSetting): Table {
  const widths = [width - 290, 190, 100];
  return fixedTable(
    rows.map(({ name, text, strong }) => {
      const borders = strong
        ? { ...noBorders, top: { ...hairline, color: document.colour.slice(1), size: 8 } }
        : noBorders;
      return new TableRow({
        cantSplit: true,
        children: [
          plainCell([new Paragraph({})], widths[0] as number),
          plainCell(
            [
              new Paragraph({
                keepNext: true,
                children: [runOf({ text: name, bold: strong, ...(strong ? {} : { color: grey }) })],
              }),
            ],
            widths[1] as number,
            { borders },
          ),
          plainCell(
            [
              new Paragraph({
                alignment: AlignmentType.RIGHT,
                keepNext: true,
                children: [runOf({ text, font: 'Courier New', size: strong ? 20 : 18, bold: strong })],
              }),
            ],
            widths[2] as number,
            { borders },
          ),
        ],
      });
    }),
    widths,
  );
}

function fieldsTable(names: readonly string[], width: number): Table {
  const each = width / names.length;
  return fixedTable(
    [
      new TableRow({
        cantSplit: true,
        children: names.map((name) =>
          plainCell(
            [
              new Paragraph({ spacing: { before: 500 }, border: { bottom: hairline }, children: [] }),
              new Paragraph({ children: [runOf({ text: name, size: 16, color: grey })] }),
            ],
            each,
          ),
        ),
      }),
    ],
    names.map(() => each),
  );
}

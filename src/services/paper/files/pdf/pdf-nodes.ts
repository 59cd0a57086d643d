/** The parts of a document as pages take them. */
import type { Content, ContentText, TableCell } from 'pdfmake/interfaces';
import type { Block, Node, PaperDocument } from '../../../../core/paper';
import { hairline, ink, quiet } from '../paper-colours';
import type { GivenFiles } from '../given-files';
import { drawnOf, mostHeight } from './pdf-drawing';
import { tableOf, type Carried } from './pdf-table';
import { looks, pieces, words } from './pdf-text';

/** What setting a document is done with. */
export interface Setting {
  document: PaperDocument;
  files: GivenFiles;
  /** Width of the text on a page, in points. */
  width: number;
  /** Rows whose sums are carried from page to page. */
  carried: Carried[];
}

/** Of what leads to a list: it stays with it. */
const leading = 9;

/** A block as it is set; its head goes to the bookmarks. */
export function blockOf(block: Block, setting: Setting): Content {
  const stack = block.nodes.flatMap((node, at) => {
    const made = nodeOf(node, setting, at === 0 ? block.title : '');
    const leads = node.is === 'paragraph' && block.nodes[at + 1]?.is === 'list';
    return leads ? made.map((content) => Object.assign(content, { headlineLevel: leading })) : made;
  });
  const placed = block.key === 'letterHead' ? letterHead(block.nodes, setting) : stack;
  name(placed, `block-${block.key}`);
  return {
    stack: placed,
    ...(staysWhole(block) ? { unbreakable: true } : {}),
    margin: [0, 0, 0, 10],
    ...(block.apart ? { pageBreak: 'before' } : {}),
  };
}

/** Letters of a text that is not parted, such as a closing from its name; a longer one has room on two pages. */
const shortText = 700;

const staysWhole = ({ key, nodes }: Block): boolean =>
  key === 'acceptance' ||
  (nodes.every(({ is }) => is === 'paragraph') &&
    nodes.reduce((sum, node) => sum + (node.is === 'paragraph' ? lettersOf(node.spans) : 0), 0) <= shortText);

const lettersOf = (spans: readonly { text: string }[]): number =>
  spans.reduce((sum, { text }) => sum + text.length, 0);

/** What stands last leaves no room beneath: it would not fit on a page that is full, and make an empty one. */
export function endOf(contents: readonly Content[] = []): void {
  const last = contents.at(-1);
  if (typeof last !== 'object' || Array.isArray(last)) return;
  if ('margin' in last && Array.isArray(last.margin)) {
    const [left, top, right = left] = last.margin;
    last.margin = [left, top, right, 0];
  }
  if ('stack' in last) endOf(last.stack);
}

/** Gives the first text of some a name, to which a link or a reader goes. */
function name(contents: readonly Content[], id: string): boolean {
  return contents.some((content) => {
    if (typeof content !== 'object' || Array.isArray(content)) return false;
    if ('text' in content && content.text !== '') {
      Object.assign(content, { id });
      return true;
    }
    if ('stack' in content) return name(content.stack as Content[], id);
    if ('columns' in content) return name(content.columns as Content[], id);
    return (
      'table' in content &&
      content.table !== undefined &&
      name(content.table.body.slice(content.table.headerRows ?? 0).flat() as Content[], id)
    );
  });
}

/** Address at the left, number and days at the right. */
function letterHead(nodes: readonly Node[], setting: Setting): Content[] {
  const pairs = nodes.filter(({ is }) => is === 'pairs');
  const rest = nodes.filter(({ is }) => is !== 'pairs');
  return [
    {
      columns: [
        { width: '*', stack: rest.flatMap((node) => nodeOf(node, setting, '', true)) },
        { width: 225, stack: pairs.flatMap((node) => nodeOf(node, setting, '')) },
      ],
      margin: [0, 0, 0, 12],
    },
  ];
}

/** A node as it is set. */
function nodeOf(node: Node, setting: Setting, bookmark: string, close = false): Content[] {
  const { colour } = setting.document;
  switch (node.is) {
    case 'heading':
      return [heading(node, colour, bookmark)];
    case 'paragraph':
      return [
        {
          text: pieces(node.spans),
          ...(node.look ? looks[node.look] : {}),
          margin: [0, 0, 0, close ? 1 : 5],
        },
      ];
    case 'list': {
      const items = node.items.map((item): ContentText => ({ text: pieces(item), margin: [0, 0, 0, 2] }));
      return [node.ordered ? { ol: items, margin: [0, 0, 0, 6] } : { ul: items, margin: [0, 0, 0, 6] }];
    }
    case 'pairs':
      return [pairsOf(node, setting.width)];
    case 'table': {
      const { content, carried } = tableOf(node, colour);
      if (node.carried) setting.carried.push(...carried);
      return [content];
    }
    case 'sums':
      return [sumsOf(node, colour)];
    case 'drawing':
    case 'timeline':
      return drawnOf(node, setting);
    case 'picture':
      return pictureOf(node, setting);
    case 'fields':
      return [fieldsOf(node, setting.width)];
  }
}

function heading(
  { text, level }: Extract<Node, { is: 'heading' }>,
  colour: string,
  bookmark: string,
): Content {
  const set = {
    1: { fontSize: 13, bold: true, margin: [0, 2, 0, 8] },
    2: { fontSize: 11.5, bold: true, color: colour, margin: [0, 8, 0, 5] },
    3: { fontSize: 9.5, bold: true, margin: [0, 5, 0, 3] },
  }[level];
  return words(text, {
    ...set,
    headlineLevel: level,
    ...(bookmark === '' ? {} : { outline: true, outlineText: bookmark }),
  });
}

/** Names at the left, what they are beside; long lists in two columns. */
function pairsOf({ rows }: Extract<Node, { is: 'pairs' }>, width: number): Content {
  const cells = ([name, value]: readonly [string, string]): TableCell[] => [
    words(name, { color: quiet }),
    words(value),
  ];
  const two = rows.length > 8;
  const half = Math.ceil(rows.length / 2);
  const empty: TableCell[] = ['', ''];
  return {
    layout: {
      hLineWidth: () => 0,
      vLineWidth: () => 0,
      paddingLeft: () => 0,
      paddingRight: () => 8,
      paddingTop: () => 1,
      paddingBottom: () => 1,
    },
    table: {
      dontBreakRows: true,
      widths: two ? [width * 0.24, width * 0.26 - 16, width * 0.24, '*'] : [88, '*'],
      body: two
        ? Array.from({ length: half }, (_, at) => [
            ...cells(rows[at] as readonly [string, string]),
            ...(rows[at + half] ? cells(rows[at + half] as readonly [string, string]) : empty),
          ])
        : rows.map(cells),
    },
    margin: [0, 0, 0, 6],
  };
}

/** Sums at the right, kept together. */
function sumsOf({ rows }: Extract<Node, { is: 'sums' }>, colour: string): Content {
  return {
    unbreakable: true,
    columns: [
      { width: '*', text: '' },
      {
        width: 276,
        layout: {
          hLineColor: (at: number) => (rows[at]?.strong ? colour : hairline),
          hLineWidth: (at: number) => (rows[at]?.strong ? 0.8 : 0),
          vLineWidth: () => 0,
          paddingLeft: () => 0,
          paddingRight: () => 0,
          paddingTop: () => 2,
          paddingBottom: () => 2,
        },
        table: {
          widths: ['*', 92],
          body: rows.map(({ name, text, strong }): TableCell[] => [
            words(name, strong ? { bold: true } : { color: quiet }) as TableCell,
            {
              text,
              font: 'Mono',
              fontSize: strong ? 10.5 : 9,
              bold: strong,
              alignment: 'right',
            },
          ]),
        },
      },
    ],
    margin: [0, 4, 0, 6],
  };
}

function pictureOf(
  { file, caption }: Extract<Node, { is: 'picture' }>,
  { files, width }: Setting,
): Content[] {
  const found = files[file];
  if (!found) return [];
  return [
    {
      unbreakable: true,
      stack: [
        imageOf(found, { fit: [width, mostHeight] }),
        ...(caption === '' ? [] : [words(caption, { fontSize: 8, color: quiet })]),
      ],
      margin: [0, 0, 0, 8],
    },
  ];
}

/** A picture of the store; drawings stay vectors. */
export const imageOf = ({ kind, bytes }: GivenFiles[string], more: object): Content =>
  kind === 'svg'
    ? { svg: new TextDecoder().decode(bytes), font: 'Archivo', ...more }
    : {
        image: `data:image/${kind};base64,${Buffer.from(bytes).toString('base64')}`,
        ...more,
      };

/** Lines to write on, each with what it is for. */
function fieldsOf({ names }: Extract<Node, { is: 'fields' }>, width: number): Content {
  const each = Math.min(200, width / names.length - 16);
  return {
    columns: names.map((name) => ({
      width: 'auto',
      stack: [
        {
          canvas: [
            { type: 'line' as const, x1: 0, y1: 34, x2: each, y2: 34, lineWidth: 0.6, lineColor: ink },
          ],
        },
        words(name, { fontSize: 8, color: quiet, margin: [0, 3, 0, 0] }),
      ],
    })),
    columnGap: 16,
    unbreakable: true,
    margin: [0, 10, 0, 10],
  };
}

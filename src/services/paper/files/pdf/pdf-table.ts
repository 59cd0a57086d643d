/** Tables in pages: lines kept together, heads repeated, and what is carried over noted for the foot of each page. */
import type { Content, ContentTable, TableCell } from 'pdfmake/interfaces';
import type { Cell, Node, TableRow } from '../../../../core/paper';
import { hairline, ink, quiet } from '../paper-colours';
import { runsIn } from '../fonts';
import { textOf, words } from './pdf-text';

type Table = Extract<Node, { is: 'table' }>;

/** A row whose running sum may be carried over, and the cell by which its page is known once it is set. */
export interface Carried {
  running: string;
  cell: object;
}

/** Entries of one nested table at most, so that it may go over a page. */
const entriesTogether = 12;
/** Entries of a column that take no nested table each, in rows of two. */
const tight = {
  hLineWidth: () => 0,
  vLineWidth: () => 0,
  paddingLeft: () => 0,
  paddingRight: () => 8,
  paddingTop: () => 0,
  paddingBottom: () => 0,
};

/** The table, and its rows that are carried. */
export function tableOf(table: Table, colour: string): { content: ContentTable; carried: Carried[] } {
  const carried: Carried[] = [];
  const rows: { cells: TableCell[]; is: TableRow['is'] | 'head' }[] = [
    {
      is: 'head',
      cells: table.columns.map(
        ({ title, right }): TableCell =>
          words(title, { fontSize: 8, color: quiet, ...(right ? { alignment: 'right' } : {}) }) as TableCell,
      ),
    },
    ...table.rows.flatMap((row) => rowsOf(row, table, carried)),
  ];
  return {
    carried,
    content: {
      layout: {
        hLineColor: (at) => (at <= 1 ? colour : hairline),
        hLineWidth: (at) => (at === 1 ? 0.8 : at === 0 ? 0 : at === rows.length || ruled(rows[at]) ? 0.4 : 0),
        vLineWidth: () => 0,
        paddingLeft: (at) => (at === 0 ? 0 : 3),
        paddingRight: (at, node) => (at === (node.table.widths?.length ?? 0) - 1 ? 0 : 3),
        paddingTop: (at) => (ruled(rows[at]) ? 5 : 1),
        paddingBottom: (at) => (rows[at + 1] === undefined || ruled(rows[at + 1]) ? 5 : 1),
      },
      table: {
        // The head of the only group is said again on each page that its rows go on to.
        headerRows: rows[1]?.is === 'group' && rows.every(({ is }, at) => at < 2 || is === 'item') ? 2 : 1,
        keepWithHeaderRows: 1,
        dontBreakRows: true,
        widths: table.columns.map(({ width }) => width ?? '*'),
        body: rows.map(({ cells }) => cells),
      },
      margin: [0, 0, 0, 8],
    },
  };
}

const ruled = (row: { is: TableRow['is'] | 'head' } | undefined): boolean =>
  row !== undefined && row.is !== 'detail' && row.is !== 'sum';

/** A row; one with many small entries becomes several, so that no page is left empty for it. */
function rowsOf(
  row: TableRow,
  table: Table,
  carried: Carried[],
): { cells: TableCell[]; is: TableRow['is'] }[] {
  const most = Math.max(0, ...row.cells.map(({ entries }) => entries?.length ?? 0));
  const parts: TableRow[] =
    most <= entriesTogether
      ? [row]
      : Array.from({ length: Math.ceil(most / entriesTogether) }, (_, at) => ({
          ...row,
          cells: row.cells.map((cell): Cell =>
            cell.entries
              ? {
                  ...cell,
                  lines: at === 0 ? cell.lines : [],
                  entries: cell.entries.slice(at * entriesTogether, (at + 1) * entriesTogether),
                }
              : cell,
          ),
        }));
  return parts.map((part) => {
    const cells = cellsOf(part, table);
    if (part.running !== undefined && part === parts[0]) {
      const at = part.cells.findLastIndex(({ figure }) => figure !== undefined);
      const marked = cells.findLast((cell) => typeof cell === 'object' && 'text' in cell);
      // Only what has a name of its own is told of when it moves to another page with all of its row.
      if (at >= 0 && typeof marked === 'object') {
        Object.assign(marked, { id: `${table.id}-${String(carried.length)}` });
        carried.push({ running: part.running, cell: marked });
      }
    }
    return { is: part.is, cells };
  });
}

function cellsOf(row: TableRow, table: Table): TableCell[] {
  const cells: TableCell[] = [];
  for (const cell of row.cells) {
    const column = table.columns[cells.length];
    const over = cell.over ?? 1;
    cells.push(cellOf(cell, column?.right === true && over === 1, over, row));
    for (let at = 1; at < over; at++) cells.push('');
  }
  while (cells.length < table.columns.length) cells.push('');
  return cells;
}

function cellOf(cell: Cell, right: boolean, over: number, { is }: TableRow): TableCell {
  const spread = over > 1 ? { colSpan: over } : {};
  const aligned = right || (cell.figure && over === 1) ? { alignment: 'right' as const } : {};
  const figure = cell.figure ? { font: 'Mono', fontSize: 9 } : {};
  const [only, ...more] = cell.lines;
  if (cell.entries && cell.entries.length > 0)
    return {
      stack: [...cell.lines.map((each) => textOf(each)), entriesOf(cell.entries)],
      ...spread,
    };
  if (!only) return over === 1 ? '' : { text: '', ...spread };
  if (more.length === 0)
    return textOf(only, {
      ...figure,
      ...(is === 'sum' || is === 'group' ? { bold: true } : {}),
      ...aligned,
      ...spread,
      ...(only.look === undefined && Object.keys({ ...figure, ...aligned, ...spread }).length === 0
        ? { color: ink }
        : {}),
    });
  return { stack: cell.lines.map((each) => textOf(each)), ...aligned, ...spread };
}

/** Small entries in two columns beside each other. */
function entriesOf(entries: readonly (readonly string[])[]): Content {
  const three = entries.some((entry) => entry.length > 2);
  const small = (text: string, color: string, alignment: 'left' | 'right' = 'left'): TableCell => ({
    text: runsIn(text).map(({ text: part, font }) => (font ? { text: part, font } : part)),
    fontSize: 8,
    color,
    alignment,
  });
  const set = (entry: readonly string[] | undefined): TableCell[] =>
    entry
      ? [
          small(entry[0] ?? '', quiet),
          small(entry[1] ?? '', ink, three ? 'right' : 'left'),
          ...(three ? [small(entry[2] ?? '', ink, 'right')] : []),
        ]
      : Array.from({ length: three ? 3 : 2 }, (): TableCell => '');
  const half = Math.ceil(entries.length / 2);
  const widths = three ? [124, 24, 54] : [108, 98];
  return {
    layout: tight,
    table: {
      widths: [...widths, ...widths],
      body: Array.from({ length: half }, (_, row) => [...set(entries[row]), ...set(entries[row + half])]),
    },
  };
}

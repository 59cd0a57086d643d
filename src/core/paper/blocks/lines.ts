/** The table of lines: what is sold, how many, at what, which makes how much. */
import { exact, type ExactText } from '../../exact';
import type { PaperLine } from '../given';
import { lineAmount, shownRows, type ShownRow } from '../shown-price';
import type { Cell, Figure, Node, TableColumn, TableRow } from '../types';
import { chosenCell, itemCell, notesCell, partsCell, whichRow } from './item';
import {
  blank,
  countedLines,
  figureCell,
  isOn,
  money,
  wordsCell,
  type BlockMaker,
  type Making,
} from './making';

/** How a table of lines is set up. */
export interface LineTable {
  /** Names it, and the figures in it. */
  id: string;
  making: Making;
  columns: readonly ColumnKind[];
  /** Each line has its share of the discount on the whole, since tax has several rates. */
  withShare: boolean;
}

type ColumnKind = 'pos' | 'what' | 'quantity' | 'unitPrice' | 'off' | 'unitNet' | 'periods' | 'total';

/** Tax is told at each line where there is more than one rate. */
export const severalRates = ({ given: { tax } }: Making): boolean => (tax?.byRate.length ?? 0) > 1;

/** The discount on the whole stands with each line where its tax could not be followed otherwise. */
export const sharesTold = (making: Making): boolean =>
  severalRates(making) &&
  making.composition.lines.discounts === 'line' &&
  countedLines(making.given).some(({ price }) => price.share !== undefined && price.share !== '0');

/** The main table: what counts, and what does not where it has no block of its own. */
export const lines: BlockMaker = (making) => {
  const elsewhere = (line: PaperLine): boolean =>
    line.alternative
      ? isOn(making, 'alternatives') && line.alternativeSet !== null
      : line.optional && isOn(making, 'optional');
  const shown = making.given.lines.filter((line) => !elsewhere(line));
  return shown.length === 0 ? [] : [lineTable('lines', shown, making, true)];
};

/** A table of some lines. */
export function lineTable(
  id: string,
  shown: readonly PaperLine[],
  making: Making,
  carries: boolean,
): Extract<Node, { is: 'table' }> {
  const { composition, words } = making;
  const table: LineTable = {
    id,
    making,
    columns: columnsFor(shown, making),
    withShare: sharesTold(making),
  };
  const running = new Running(making, table.withShare, carries && composition.lines.prices === 'each');
  const rows = shown.flatMap((line, index): TableRow[] => [
    ...(composition.lines.groups && line.group !== null && shown[index - 1]?.group !== line.group
      ? [groupRow(line.group, shown, table)]
      : []),
    ...lineRows(line, table, running.after(line)),
  ]);
  return {
    is: 'table',
    id,
    columns: table.columns.map((kind) => columnOf(kind, making)),
    rows,
    ...(running.carries ? { carried: [words.say('carriedOver'), words.say('broughtForward')] as const } : {}),
  };
}

/** What lines come to so far. */
class Running {
  private sum = exact(0);

  constructor(
    private readonly making: Making,
    private readonly withShare: boolean,
    readonly carries: boolean,
  ) {}

  after(line: PaperLine): ExactText | undefined {
    if (!this.carries) return undefined;
    if (!line.optional && !line.alternative)
      this.sum = this.sum.plus(amountOf(line, this.making, this.withShare));
    return this.sum.toString();
  }
}

const amountOf = ({ price }: PaperLine, { composition, given }: Making, withShare: boolean): ExactText =>
  lineAmount(price, composition.lines.discounts, given.decimals, withShare);

function columnsFor(shown: readonly PaperLine[], making: Making): ColumnKind[] {
  const { prices, discounts } = making.composition.lines;
  if (prices !== 'each') return ['pos', 'what', 'quantity'];
  const rows = shown.flatMap(({ price, quantity }) =>
    shownRows(price, quantity, discounts, making.given.decimals, false),
  );
  const off = rows.some((row) => row.off !== undefined);
  return [
    'pos',
    'what',
    'quantity',
    ...(off ? (['unitPrice', 'off', 'unitNet'] as const) : (['unitPrice'] as const)),
    ...(rows.some(({ periods }) => periods !== undefined) ? (['periods'] as const) : []),
    'total',
  ];
}

function columnOf(kind: ColumnKind, { words, given: { currency } }: Making): TableColumn {
  switch (kind) {
    case 'pos':
      return { title: words.say('pos'), width: 18 };
    case 'what':
      return { title: words.say('what') };
    case 'quantity':
      return { title: words.say('quantity'), right: true, width: 42 };
    case 'unitPrice':
      return { title: words.say('unitPrice'), right: true, width: 60 };
    case 'off':
      return { title: words.say('discount'), right: true, width: 38 };
    case 'unitNet':
      return { title: words.say('unitNet'), right: true, width: 60 };
    case 'periods':
      return { title: words.say('periods'), right: true, width: 38 };
    case 'total':
      return { title: `${words.say('total')} ${currency}`, right: true, width: 66 };
  }
}

/** Names of the figures of a row. */
const rowId = (table: string, line: PaperLine, row: number): string =>
  `${table}.${String(line.position)}.${String(row + 1)}`;

/** Names of the amounts of a line, which together are the line. */
export const amountIds = (table: string, line: PaperLine, making: Making): string[] =>
  shownRows(
    line.price,
    line.quantity,
    making.composition.lines.discounts,
    making.given.decimals,
    sharesTold(making),
  ).map((_, row) => `${rowId(table, line, row)}.total`);

/** A line as rows that can be followed: what it is beside the first, what was chosen beneath. */
function lineRows(line: PaperLine, table: LineTable, running: ExactText | undefined): TableRow[] {
  const { making, columns } = table;
  const { given, composition } = making;
  const rows = shownRows(
    line.price,
    line.quantity,
    composition.lines.discounts,
    given.decimals,
    table.withShare,
  );
  const several = rows.length > 1 && composition.lines.prices === 'each';
  const counted = composition.lines.prices === 'each' ? rows : rows.slice(0, 1);
  const which = (row: ShownRow): string =>
    composition.lines.prices === 'each' ? whichRow(row, several, line, making) : '';
  const made = counted.map((row, at): TableRow => {
    const what = at === 0 ? itemCell(line, making) : wordsCell(which(row), 'quiet');
    return {
      is: at === 0 ? 'item' : 'detail',
      cells: columns.map((kind) => rowCell(kind, { row, at, line, what, table })),
    };
  });
  const notes = notesCell(line, making, counted[0] ? which(counted[0]) : '', {
    rateTold: severalRates(making),
    // What is due by the month stands in the block of what recurs, where there is one.
    monthTold: !isOn(making, 'recurring'),
  });
  const beneath = [notes, chosenCell(line, making), partsCell(line, making)].flatMap((cell): TableRow[] =>
    cell ? [{ is: 'detail', cells: spread(cell, columns) }] : [],
  );
  const [first, ...rest] = made;
  const all = [...(first ? [first] : []), ...beneath, ...rest, ...(several ? [sumRow(line, table)] : [])];
  // Carried over is what has been printed: with the amount of the line, not with what is told beneath.
  const told = several ? all.length - 1 : 0;
  return running === undefined ? all : all.map((row, at) => (at === told ? { ...row, running } : row));
}

/** A cell beside the number of a line, over all that is at its right. */
const spread = (cell: Cell, columns: readonly ColumnKind[]): Cell[] => [
  blank,
  { ...cell, over: columns.length - 1 },
];

interface CellFor {
  row: ShownRow;
  at: number;
  line: PaperLine;
  what: Cell;
  table: LineTable;
}

function rowCell(kind: ColumnKind, { row, at, line, what, table }: CellFor): Cell {
  const { words, given } = table.making;
  const { decimals } = given;
  const id = rowId(table.id, line, at);
  switch (kind) {
    case 'pos':
      return at === 0 ? wordsCell(String(line.position), 'quiet') : blank;
    case 'what':
      return what;
    case 'quantity': {
      if (row.is === 'once' || row.is === 'share') return blank;
      const unit = words.unit(line.unit);
      return figureCell(`${words.number(String(line.quantity))}${unit === '' ? '' : ` ${unit}`}`, {
        id: `${id}.quantity`,
        value: String(line.quantity),
        is: 'count',
        decimals: 3,
      });
    }
    case 'unitPrice':
      return row.unitList === undefined
        ? blank
        : figureCell(words.amount(row.unitList), money(`${id}.list`, row.unitList, decimals));
    case 'off':
      return row.off === undefined
        ? blank
        : figureCell(words.percent(row.off), { id: `${id}.off`, value: row.off, is: 'share', decimals: 4 });
    case 'unitNet':
      return row.unitNet === undefined
        ? blank
        : figureCell(words.amount(row.unitNet), money(`${id}.net`, row.unitNet, decimals));
    case 'periods':
      return row.periods === undefined
        ? blank
        : figureCell(words.number(row.periods, 4), {
            id: `${id}.periods`,
            value: row.periods,
            is: 'count',
            decimals: 4,
          });
    case 'total':
      return figureCell(
        words.amount(row.amount),
        money(`${id}.total`, row.amount, decimals, worksOf(row, id, table)),
      );
  }
}

/** How the amount of a row comes about from what stands beside it. */
function worksOf(row: ShownRow, id: string, { columns }: LineTable): Figure['works'] {
  if (row.unitNet === undefined || row.quantity === undefined) return undefined;
  return {
    is: 'product',
    of: [
      `${id}.quantity`,
      columns.includes('unitNet') ? `${id}.net` : `${id}.list`,
      ...(row.periods === undefined ? [] : [`${id}.periods`]),
    ],
  };
}

/** What the rows of a line are together. */
function sumRow(line: PaperLine, table: LineTable): TableRow {
  const { making, columns } = table;
  const { words, given } = making;
  const amount = amountOf(line, making, table.withShare);
  const figure = money(`${table.id}.${String(line.position)}.sum`, amount, given.decimals, {
    is: 'sum',
    of: amountIds(table.id, line, making),
  });
  return {
    is: 'sum',
    cells: [
      blank,
      { ...wordsCell(words.say('lineTotal', { line: line.position }), 'strong'), over: columns.length - 2 },
      figureCell(words.amount(amount), figure, 'strong'),
    ],
  };
}

/** The head of a group, with what its lines come to before a discount on the whole. */
function groupRow(group: string, shown: readonly PaperLine[], table: LineTable): TableRow {
  const { making, columns } = table;
  const { prices } = making.composition.lines;
  const own = shown.filter((line) => line.group === group && !line.optional && !line.alternative);
  if (prices === 'none')
    return { is: 'group', cells: [{ ...wordsCell(group, 'strong'), over: columns.length }] };
  const net = own.reduce((sum, line) => sum.plus(amountOf(line, making, table.withShare)), exact(0));
  const figure = money(`${table.id}.group.${group}`, net.toString(), making.given.decimals, {
    is: 'sum',
    of: prices === 'each' ? own.flatMap((line) => amountIds(table.id, line, making)) : [],
  });
  const { works: _works, ...given } = figure;
  return {
    is: 'group',
    cells: [
      { ...wordsCell(group, 'strong'), over: columns.length - 1 },
      figureCell(making.words.amount(net.toString()), prices === 'each' ? figure : given, 'strong'),
    ],
  };
}

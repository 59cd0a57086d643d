/** What may be taken instead, or besides: alternatives beside each other with what differs, and optional lines. */
import { lineAmount } from '../shown-price';
import type { PaperLine } from '../given';
import type { Cell, Node, TableRow } from '../types';
import { lineTable, sharesTold } from './lines';
import { figureCell, money, wordsCell, type BlockMaker, type Making } from './making';

/** Lines beside each other at most; more of one set go on in another table. */
const mostBeside = 3;

/** Each set of alternatives as a table: a column for each of them, a row for what differs. */
export const alternatives: BlockMaker = (making) => {
  const sets = new Map<string, PaperLine[]>();
  for (const line of making.given.lines) {
    if (line.alternativeSet === null) continue;
    sets.set(line.alternativeSet, [...(sets.get(line.alternativeSet) ?? []), line]);
  }
  return [...sets.values()].flatMap((set, at) => setTables(set, at, making));
};

function setTables(set: readonly PaperLine[], at: number, making: Making): Node[] {
  const counted = set.find(({ alternative }) => !alternative);
  const others = set.filter((line) => line !== counted);
  const beside = counted ? mostBeside - 1 : mostBeside;
  const tables: Node[] = [];
  for (let from = 0; from < others.length; from += beside)
    tables.push(
      besideTable(
        [...(counted ? [counted] : []), ...others.slice(from, from + beside)],
        `alternatives.${String(at + 1)}.${String(from)}`,
        making,
      ),
    );
  return tables;
}

function besideTable(shown: readonly PaperLine[], id: string, making: Making): Node {
  const { words, composition, given } = making;
  const { numbers, prices, discounts } = composition.lines;
  const row = (name: string, cells: readonly Cell[], is: TableRow['is'] = 'detail'): TableRow => ({
    is,
    cells: [wordsCell(name, 'quiet'), ...cells],
  });
  const texts = (of: (line: PaperLine) => string): Cell[] => shown.map((line) => wordsCell(of(line)));
  return {
    is: 'table',
    id,
    columns: [
      { title: '', width: 110 },
      ...shown.map(({ position }) => ({ title: words.say('line', { line: position }) })),
    ],
    rows: [
      row(
        '',
        shown.map((line) => wordsCell(words.own(line.name), 'strong')),
        'item',
      ),
      ...(numbers
        ? [
            row(
              words.say('partNumber'),
              shown.map((line) => wordsCell(line.partNumber, 'code')),
            ),
          ]
        : []),
      row(
        words.say('quantity'),
        texts((line) => words.number(String(line.quantity))),
      ),
      ...differences(shown, making).map(({ name, values }) =>
        row(
          name,
          values.map((text) => wordsCell(text)),
        ),
      ),
      ...(prices === 'each'
        ? [
            row(
              `${words.say('total')} ${given.currency}`,
              shown.map((line) => {
                const amount = lineAmount(line.price, discounts, given.decimals, sharesTold(making));
                return figureCell(
                  words.amount(amount),
                  money(`${id}.${String(line.position)}`, amount, given.decimals),
                  'strong',
                );
              }),
              'sum',
            ),
          ]
        : []),
      row(
        words.say('whole'),
        texts((line) => words.say(line.alternative ? 'alternativeAlone' : 'counts')),
      ),
    ],
  };
}

/** Rows of the builds whose values are not the same in all. */
function differences(
  shown: readonly PaperLine[],
  { words }: Making,
): { name: string; values: readonly string[] }[] {
  const names = new Map<string, string>();
  for (const { build } of shown)
    for (const { row, name } of build?.rows ?? []) if (!names.has(row)) names.set(row, words.own(name));
  return [...names].flatMap(([id, name]) => {
    const values = shown.map(({ build }) => {
      const found = build?.rows.find(({ row }) => row === id);
      return found ? words.own(found.value) : '–';
    });
    return values.every((value) => value === values[0]) ? [] : [{ name, values }];
  });
}

/** Lines that may be taken besides. */
export const optional: BlockMaker = (making) => {
  const shown = making.given.lines.filter((line) => line.optional && !line.alternative);
  return shown.length === 0 ? [] : [lineTable('optional', shown, making, false)];
};

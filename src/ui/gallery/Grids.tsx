/** Grids in every state, for the page of components and its tests. */
import { Grid, useGrid, type Cell, type GridColumn, type GridWords, type Row } from '../grid';
import css from './gallery.module.css';

/** The words of a grid for who reads the page of components. */
export const gridWords: GridWords = {
  rows: (count) => (count === 1 ? 'One row' : `${count.toLocaleString('en')} rows`),
  marked: (count) => `${String(count)} cells marked`,
  wrong: (count) => (count === 1 ? 'One cell to mend' : `${String(count)} cells to mend`),
  tooMany: (most) => `There can be ${most.toLocaleString('en')} rows at most. Nothing was pasted.`,
  beside: (count) => `${String(count)} columns had no place and were left out.`,
  undone: 'Undone.',
  redone: 'Done again.',
  empty: 'No rows yet.',
  add: 'Add a row',
  more: 'Rows',
  row: (number) => `Row ${String(number)}`,
  open: (row) => `Open ${row}`,
  fold: (row) => `Fold ${row}`,
  acts: {
    above: 'Add above',
    below: 'Add below',
    double: 'Double',
    remove: 'Take away',
    up: 'Move up',
    down: 'Move down',
    in: 'Put inside',
    out: 'Take out',
  },
  keys: (keys) => keys,
};

const kinds = ['plate', 'frame', 'cell', 'cable'];
const columns: readonly GridColumn[] = [
  {
    id: 'name',
    title: 'Part',
    width: 220,
    read: (kept) => ({ kept }),
    needed: 'Type what the part is called.',
  },
  {
    id: 'kind',
    title: 'Kind',
    width: 110,
    choices: kinds,
    read: (typed) =>
      kinds.includes(typed.toLowerCase())
        ? { kept: typed.toLowerCase() }
        : { why: `“${typed}” is no kind. Choose one of ${kinds.join(', ')}.` },
  },
  {
    id: 'count',
    title: 'Count',
    width: 90,
    kind: 'figure',
    read: (typed) => (/^\d+$/.test(typed) ? { kept: typed } : { why: 'Type a whole number, such as 12.' }),
  },
  {
    id: 'stock',
    title: 'In stock',
    width: 80,
    kind: 'mark',
    read: () => ({ kept: '1' }),
    shown: () => '✓',
    typed: () => 'x',
  },
  { id: 'number', title: 'Number', width: 120, kind: 'code', fixed: true, read: (kept) => ({ kept }) },
];
const row = (at: number, depth: number, ...cells: Cell[]): Row => ({
  id: `part-${String(at)}`,
  depth,
  cells,
});
const flat: readonly Row[] = [
  row(1, 0, 'Deck plate', 'plate', '4', '1', 'SILL-00001'),
  row(2, 0, 'Side frame', 'frame', '2', '', 'SILL-00002'),
  row(3, 0, 'Load cell', 'cell', '6', '1', 'SILL-00003'),
  row(4, 0, 'Signal cable', 'cable', '12', '', 'SILL-00004'),
];
const tree: readonly Row[] = [
  row(1, 0, 'Bridge', 'frame', '1', '', ''),
  row(2, 1, 'Deck', 'plate', '1', '', ''),
  row(3, 2, 'Deck plate', 'plate', '4', '1', ''),
  row(4, 1, 'Load cell', 'cell', '6', '1', ''),
  row(5, 0, 'Cabinet', 'frame', '1', '', ''),
];
const many = Array.from({ length: 20_000 }, (_, at) =>
  row(
    at,
    0,
    `Part ${String(at)}`,
    kinds[at % 4] ?? '',
    String((at * 7) % 90),
    '',
    `SILL-${String(at).padStart(5, '0')}`,
  ),
);

function Example({
  rows,
  most = 200,
  ...made
}: {
  rows: readonly Row[];
  most?: number | undefined;
  tree?: boolean;
  fixed?: boolean;
}) {
  const grid = useGrid(rows, { columns, most, ...made });
  return (
    <div className={css.gridBox}>
      <Grid label="Parts" grid={grid} words={gridWords} />
    </div>
  );
}

/** By state. */
export const grids = [
  { name: 'a few rows', shown: () => <Example rows={flat} /> },
  {
    name: 'something to mend',
    shown: () => (
      <Example
        rows={[
          ...flat.slice(0, 2),
          row(9, 0, '', 'cell', { typed: 'six', why: 'Type a whole number, such as 12.' }, '', ''),
        ]}
      />
    ),
  },
  { name: 'a tree', shown: () => <Example rows={tree} tree /> },
  { name: '20,000 rows', shown: () => <Example rows={many} most={20_000} /> },
  { name: 'fixed', shown: () => <Example rows={flat} fixed /> },
  { name: 'nothing yet', shown: () => <Example rows={[]} /> },
];

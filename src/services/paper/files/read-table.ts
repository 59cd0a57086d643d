/** Part numbers and quantities read from a CSV or XLSX file, within limits. */
import Papa from 'papaparse';
import { listOf } from './part-rows';
import { readSheet, type SheetLimits, type SheetProblem } from './read-sheet';

/** Of what is pasted or uploaded as a list. */
export const tableLimits = {
  rows: 10_000,
  columns: 200,
  cells: 200_000,
  unpacked: 50 * 1024 * 1024,
  text: 32_767,
} as const;

/** Of what is taken in as rows that are kept, with a row of titles. */
const rowLimits = { ...tableLimits, rows: 20_001, cells: 400_000 } as const;

/** A file as a list of numbers and quantities, or why it is none. */
export type TableRead = { is: 'list'; text: string } | SheetProblem;

/** Reads CSV and XLSX, told apart by their content. */
export function readTableBytes(bytes: Uint8Array): TableRead {
  const read = readRows(bytes, tableLimits);
  return read.is === 'rows' ? { is: 'list', text: listOf(read.rows) } : read;
}

/** A file as rows of texts, or why it is none. */
export type RowsRead = { is: 'rows'; rows: string[][] } | SheetProblem;

/** Reads the rows of CSV and XLSX as they stand; the sign that keeps a text from being a formula is no part of it. */
export function readRows(bytes: Uint8Array, limits: SheetLimits = rowLimits): RowsRead {
  if (isZip(bytes)) return readSheet(bytes, limits);
  const read = readText(bytes, limits);
  return read.is === 'rows'
    ? { is: 'rows', rows: read.rows.map((row) => row.map((cell) => cell.replace(/^'(?=[-=+@])/, ''))) }
    : read;
}

const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;

/** What parts the columns: the sign that is there most often in the fullest of the first lines. */
function separatorOf(text: string): string {
  const count = (line: string, sign: string): number => line.split(sign).length - 1;
  const signs = ['\t', ';', ',', '|'];
  const fullest = text
    .slice(0, 20_000)
    .split(/\r\n|\r|\n/)
    .slice(0, 8)
    .map((line) => signs.map((sign) => count(line, sign)))
    .reduce(
      (best, counts) => (Math.max(...counts) > Math.max(...best) ? counts : best),
      signs.map(() => 0),
    );
  const most = Math.max(...fullest);
  return most === 0 ? ',' : (signs[fullest.indexOf(most)] ?? ',');
}

function readText(bytes: Uint8Array, limits: SheetLimits): RowsRead {
  const text = new TextDecoder().decode(bytes).replace(/^\ufeff/, '');
  // Anything but text has characters that no list has.
  if (/[\u0000-\u0008\u000e-\u001f]/.test(text)) return { is: 'unreadable' };
  const rows: string[][] = [];
  let cells = 0;
  let beyond: SheetProblem | undefined;
  Papa.parse<string[]>(text, {
    skipEmptyLines: 'greedy',
    delimiter: separatorOf(text),
    // Row by row, so that what is beyond a limit is never built.
    step: ({ data }, parser) => {
      cells += data.length;
      if (rows.length >= limits.rows) beyond = { is: 'beyond', what: 'rows', most: limits.rows };
      else if (data.length > limits.columns)
        beyond = { is: 'beyond', what: 'columns', most: limits.columns, row: rows.length + 1 };
      else if (cells > limits.cells) beyond = { is: 'beyond', what: 'cells', most: limits.cells };
      if (beyond) parser.abort();
      else rows.push(data);
    },
  });
  return beyond ?? { is: 'rows', rows };
}

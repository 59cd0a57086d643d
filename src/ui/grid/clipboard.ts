/** Cells as they go to spreadsheets and come from them: rows by line, cells by tab, quotes around what needs them. */
import Papa from 'papaparse';

/** The cells of a pasted text; an end of line behind the last row is no row. */
export function tableOf(text: string): string[][] {
  const { data } = Papa.parse<string[]>(text.replace(/\r\n?/g, '\n').replace(/\n$/, ''), {
    delimiter: '\t',
    newline: '\n',
    quoteChar: '"',
  });
  return data;
}

/** Cells as a text to paste. */
export const textOf = (table: readonly (readonly string[])[]): string =>
  Papa.unparse(table as string[][], { delimiter: '\t', newline: '\n', quotes: false });

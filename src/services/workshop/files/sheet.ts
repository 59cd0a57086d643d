/** Rows of texts as files for spreadsheets. */
import ExcelJS from 'exceljs';
import Papa from 'papaparse';
import type { Sheet } from '../../../core/modelling';

const widest = 60;

/** Writes rows, the first with the heads of the columns; what one would take for a formula is text in it. */
export async function writeSheet(name: string, rows: Sheet, format: 'csv' | 'xlsx'): Promise<Uint8Array> {
  if (format === 'csv')
    return new TextEncoder().encode(
      `\ufeff${Papa.unparse(rows as string[][], { escapeFormulae: true, newline: '\r\n' })}\r\n`,
    );
  const book = new ExcelJS.Workbook();
  // Such names have at most 31 letters, and not these.
  const sheet = book.addWorksheet(name.replace(/[\\/?*[\]:]/g, ' ').slice(0, 31) || 'Sheet');
  sheet.addRows(rows.map((row) => [...row]));
  sheet.columns.forEach((column, at) => {
    column.width = Math.min(
      widest,
      Math.max(8, ...rows.slice(0, 200).map((row) => (row[at] ?? '').length + 2)),
    );
    column.numFmt = '@';
  });
  sheet.getRow(1).font = { bold: true };
  sheet.views = [{ state: 'frozen', ySplit: 1 }];
  return new Uint8Array(await book.xlsx.writeBuffer());
}

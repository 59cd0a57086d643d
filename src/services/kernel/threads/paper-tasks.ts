/** What the thread of papers does: files written and read. */
import type { QuoteView } from '../../../contract';
import { linesAsCsv, linesAsXlsx, type SheetFor } from '../../paper/files/line-sheet';
import { writeQuotation } from '../../paper/files/quotation-pages';
import { type QuotationGiven } from '../../paper/files/quotation-given';
import { readTableBytes, type TableRead } from '../../paper/files/read-table';

/** All that can be asked of the thread for files. */
export const paperTasks = {
  quotation: (given: QuotationGiven): Promise<Uint8Array> => writeQuotation(given),
  lines: async ({
    quote,
    format,
    language,
    to,
  }: {
    quote: QuoteView;
    format: 'csv' | 'xlsx';
    language: string;
    to: SheetFor;
  }): Promise<Uint8Array> =>
    format === 'csv'
      ? new TextEncoder().encode(linesAsCsv(quote, language, to))
      : linesAsXlsx(quote, language, to),
  table: ({ bytes }: { bytes: Uint8Array }): TableRead => readTableBytes(bytes),
};

/** Their types. */
export type PaperTasks = typeof paperTasks;

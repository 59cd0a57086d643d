/** What the thread of papers does: files written and read. */
import type { QuoteView } from '../../core/quoting';
import { linesAsCsv, linesAsXlsx } from '../files/line-sheet';
import { writeQuotation, type QuotationGiven } from '../files/quotation-pages';
import { readTableBytes, type TableRead } from '../files/read-table';

export const paperTasks = {
  quotation: (given: QuotationGiven): Promise<Uint8Array> => writeQuotation(given),
  lines: async ({ quote, format, language }: { quote: QuoteView; format: 'csv' | 'xlsx'; language: string }): Promise<Uint8Array> =>
    format === 'csv' ? new TextEncoder().encode(linesAsCsv(quote, language)) : linesAsXlsx(quote, language),
  table: ({ bytes }: { bytes: Uint8Array }): TableRead => readTableBytes(bytes),
};

export type PaperTasks = typeof paperTasks;

/** What the thread of papers does: files written and read. */
import type { PaperWarning, QuoteView } from '../../../contract';
import { linesAsCsv, linesAsXlsx, type SheetFor } from '../../paper/files/line-sheet';
import { readsAsPdf } from '../../paper/files/pdf/annexes';
import { quotationPage, specificationPage } from '../../paper/files/page-document';
import { paperWarnings, writePaper, type PaperTask, type PaperWritten } from '../../paper/files/paper-file';
import type { GivenFiles } from '../../paper/files/given-files';
import { writePdf } from '../../paper/files/pdf/pdf';
import {
  writeArchive,
  writeSpecification,
  zipped,
  type SheetGiven,
} from '../../paper/files/specification-file';
import { readRows, readTableBytes, type RowsRead, type TableRead } from '../../paper/files/read-table';
import type { PaperDocument } from '../../../core/paper';
import type { DecisionTable, Sheet } from '../../../core/modelling';
import { readDmn, writeDmn, type DmnRead } from '../../workshop/files/dmn';
import { writeSheet } from '../../workshop/files/sheet';

/** All that can be asked of the thread for files. */
export const paperTasks = {
  paper: (task: Parameters<typeof writePaper>[0]): Promise<PaperWritten> => writePaper(task),
  quotationPage: (task: PaperTask) => quotationPage(task),
  specificationPage: (given: SheetGiven) => specificationPage(given),
  paperWarnings: (task: PaperTask): PaperWarning[] => paperWarnings(task),
  specification: ({
    format,
    ...given
  }: SheetGiven & { format: 'pdf' | 'docx' | 'html' }): Promise<Uint8Array> =>
    writeSpecification(given, format),
  /** A composed document as PDF. */
  composed: async ({
    document,
    files,
  }: {
    document: PaperDocument;
    files: GivenFiles;
  }): Promise<Uint8Array> => writePdf(document, files),
  /** Files in a folder of an archive; the same files give the same archive, whenever it is made. */
  archive: ({
    folder,
    files,
    day,
  }: {
    folder: string;
    files: Readonly<Record<string, Uint8Array>>;
    day: string;
  }): Uint8Array => zipped(folder, files, day),
  drawingsArchive: ({
    sheet,
    files,
    folder,
  }: {
    sheet: SheetGiven;
    files: Readonly<Record<string, Uint8Array>>;
    folder: string;
  }): Promise<Uint8Array> => writeArchive(sheet, files, folder),
  readsAsPdf: ({ bytes }: { bytes: Uint8Array }): Promise<boolean> => readsAsPdf(bytes),
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
  rows: ({ bytes }: { bytes: Uint8Array }): RowsRead => readRows(bytes),
  sheet: ({
    name,
    rows,
    format,
  }: {
    name: string;
    rows: Sheet;
    format: 'csv' | 'xlsx';
  }): Promise<Uint8Array> => writeSheet(name, rows, format),
  dmn: ({ bytes }: { bytes: Uint8Array }): Promise<DmnRead> => readDmn(bytes),
  asDmn: ({ name, tables }: { name: string; tables: readonly DecisionTable[] }): Promise<Uint8Array> =>
    writeDmn(name, tables),
  table: ({ bytes }: { bytes: Uint8Array }): TableRead => readTableBytes(bytes),
};

/** Their types. */
export type PaperTasks = typeof paperTasks;

/** The lines of a quote as a table for spreadsheets. */
import ExcelJS from 'exceljs';
import Papa from 'papaparse';
import { exact, roundHalfUp } from '../../core/exact';
import { recurringIn } from '../../core/pricing';
import type { LineView, QuoteView } from '../../core/quoting';
import { own, shift, translator, type TextKey } from '../../i18n';

type Cell = string | number;
interface ExportColumn {
  title: TextKey;
  width: number;
  /** Decimals of a figure; undefined for words. */
  decimals?: number;
  /** As a spreadsheet shows it, where that is not by the decimals. */
  format?: string;
  /** Figures as decimal text. */
  of: (line: LineView) => string;
}

/** What may be seen of a quote goes out, nothing else: costs are not even columns for those who may not see them. */
function columnsOf({ decimals, may }: QuoteView, language: string): ExportColumn[] {
  const words = (title: TextKey, width: number, of: (line: LineView) => string): ExportColumn => ({ title, width, of });
  const figure = (title: TextKey, of: (line: LineView) => string | undefined, digits = decimals): ExportColumn => ({ title, width: 14, decimals: digits, of: (line) => of(line) ?? '' });
  const t = translator(language);
  return [
    figure('ledger.line', (line) => String(line.position), 0),
    words('marked.group', 20, (line) => line.group ?? ''),
    words('file.number', 34, (line) => line.partNumber),
    words('ledger.what', 36, (line) => own(line.name, language)),
    words('file.choices', 60, (line) => own(line.summary, language)),
    { ...figure('ledger.quantity', (line) => String(line.quantity), 3), format: '#,##0.###' },
    figure('ledger.list', (line) => line.price.unitList),
    figure('ledger.discount', (line) => shift(line.price.steps.find((step) => step.kind === 'discount')?.rate ?? '0', 2), 4),
    figure('ledger.unitNet', (line) => line.price.unitNet),
    figure('ledger.net', (line) => line.price.net),
    ...(may.seeCosts ? [figure('column.cost', (line) => line.price.cost), figure('ledger.marginPercent', (line) => (line.price.margin === undefined ? undefined : shift(line.price.margin, 2)), 2)] : []),
    words('file.from', 12, (line) => recurringIn(line.price)[0]?.recurring.from ?? ''),
    words('file.to', 12, (line) => recurringIn(line.price)[0]?.recurring.to ?? ''),
    words('file.note', 14, (line) => (line.optional ? t('ledger.optional') : line.alternative ? t('ledger.alternative') : '')),
  ];
}

/** What spreadsheets take for the beginning of a formula, in full width too. */
const beginsFormula = /^[=+\-@\t\r\uff1d\uff0b\uff0d\uff20]/;

/** Separated as spreadsheets of the person's language expect it; nothing in it is taken for a formula. */
export function linesAsCsv(quote: QuoteView, language: string): string {
  const t = translator(language);
  const columns = columnsOf(quote, language);
  const plain = (text: string, decimals: number | undefined): string => (decimals === undefined || text === '' ? text : roundHalfUp(exact(text), decimals).toFixed().replace('.', language === 'de' ? ',' : '.'));
  // Figures stay figures, below nothing too; only words could be taken for a formula.
  const defused = (text: string, decimals: number | undefined): string => (decimals === undefined && beginsFormula.test(text) ? `'${text}` : text);
  const rows = quote.lines.map((line) => columns.map(({ of, decimals }) => defused(plain(of(line), decimals), decimals)));
  return `\ufeff${Papa.unparse([columns.map(({ title }) => t(title)), ...rows], { delimiter: language === 'de' ? ';' : ',', newline: '\r\n' })}\r\n`;
}

export async function linesAsXlsx(quote: QuoteView, language: string): Promise<Uint8Array> {
  const t = translator(language);
  const columns = columnsOf(quote, language);
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet(quote.number, { views: [{ state: 'frozen', ySplit: 1 }] });
  sheet.columns = columns.map(({ title, width, decimals, format }) => ({ header: t(title), width, ...(decimals === undefined ? {} : { style: { numFmt: format ?? (decimals === 0 ? '0' : `#,##0.${'0'.repeat(decimals)}`) } }) }));
  sheet.getRow(1).font = { bold: true };
  for (const line of quote.lines) sheet.addRow(columns.map(({ of, decimals }): Cell | null => (of(line) === '' ? null : decimals === undefined ? of(line) : Number(of(line)))));
  return new Uint8Array(await book.xlsx.writeBuffer());
}

/** The lines of a quote as a table for spreadsheets. */
import ExcelJS from 'exceljs';
import Papa from 'papaparse';
import { exact, roundHalfUp } from '../../../core/exact';
import { across, monthsOf, type AcrossRow } from '../../../core/pricing';
import type { LineView, QuoteView } from '../../../contract';
import { hasText, own, shift, translator, type TextKey } from '../../../i18n';
import { offered } from './offered';

type Cell = string | number;
interface ExportColumn {
  title: TextKey;
  width: number;
  /** Decimals of a figure; undefined for words. */
  decimals?: number;
  /** As a spreadsheet shows it, where that is not by the decimals. */
  format?: string;
  /** Figures as decimal text. */
  of: (row: SheetRow) => string;
}

/** For whom a table is: the customer is shown what the quotation shows, colleagues all that they may see. */
export type SheetFor = 'customer' | 'internal';

/**
 * A row of the table: a line, or one of the rows that it is made of where it does not multiply across as a
 * whole.
 */
interface SheetRow {
  line: LineView;
  /** Absent where the row is the line itself. */
  part?: AcrossRow;
}

/** What a quote says to the customer: of a dealer's quote, the dealer's own prices. */
const shownTo = (quote: QuoteView, to: SheetFor): QuoteView => (to === 'customer' ? offered(quote) : quote);

/**
 * What may be seen of a quote goes out, nothing else: costs are not even columns for the customer, and for
 * those who may not see them.
 */
function columnsOf({ decimals, may }: QuoteView, language: string, to: SheetFor): ExportColumn[] {
  const words = (title: TextKey, width: number, of: (row: SheetRow) => string): ExportColumn => ({
    title,
    width,
    of,
  });
  const figure = (
    title: TextKey,
    of: (row: SheetRow) => string | undefined,
    digits = decimals,
  ): ExportColumn => ({ title, width: 14, decimals: digits, of: (row) => of(row) ?? '' });
  const t = translator(language);
  /** Of the line itself, not of what it is made of. */
  const ofLine =
    (of: (line: LineView) => string | undefined) =>
    ({ line, part }: SheetRow): string | undefined =>
      part ? undefined : of(line);
  const rowOf = ({ line, part }: SheetRow): AcrossRow | undefined => part ?? onlyRow(line);
  return [
    figure('ledger.line', ({ line }) => String(line.position), 0),
    words('marked.group', 20, ({ line }) => line.group ?? ''),
    words('file.number', 34, (row) => ofLine((line) => line.partNumber)(row) ?? ''),
    words('ledger.what', 36, ({ line, part }) =>
      part ? t(`file.row.${part.is}`) : own(line.name, language),
    ),
    words('file.choices', 60, (row) => ofLine((line) => own(line.summary, language))(row) ?? ''),
    {
      ...figure(
        'ledger.quantity',
        (row) => (row.part && row.part.quantity === undefined ? undefined : String(row.line.quantity)),
        3,
      ),
      format: '#,##0.###',
    },
    words('catalogue.unit', 8, ({ line, part }) =>
      part && part.quantity === undefined
        ? ''
        : hasText(`unit.${line.unit}`)
          ? t(`unit.${line.unit}` as 'unit.pc')
          : line.unit,
    ),
    words('file.per', 14, (row) => {
      const at = rowOf(row);
      return at === undefined || at.is === 'once' || at.is === 'share'
        ? ''
        : t(at.quantity === undefined ? 'ledger.forAll' : 'file.each');
    }),
    figure('ledger.list', (row) => rowOf(row)?.unitList),
    ...(to === 'internal'
      ? [
          figure(
            'ledger.discount',
            ofLine((line) =>
              shift(line.price.steps.find((step) => step.kind === 'discount')?.rate ?? '0', 2),
            ),
            4,
          ),
        ]
      : [
          figure(
            'file.off',
            (row) => {
              const at = rowOf(row);
              return at?.unitList === undefined ? undefined : shift(offIn(at), 2);
            },
            4,
          ),
        ]),
    figure('ledger.unitNet', (row) => rowOf(row)?.unitNet),
    {
      ...figure(
        'file.periods',
        (row) => {
          const term = rowOf(row)?.term;
          return (
            term &&
            monthsOf({ start: term.from, months: term.months, days: term.days })
              .div(term.baseMonths)
              .toDecimalPlaces(6)
              .toString()
          );
        },
        6,
      ),
      format: '0.######',
    },
    figure('ledger.net', ({ line, part }) => part?.amount ?? line.price.net),
    ...(to === 'internal' && may.seeCosts
      ? [
          figure(
            'column.cost',
            ofLine((line) => line.price.cost),
          ),
          figure(
            'ledger.marginPercent',
            ofLine((line) => (line.price.margin === undefined ? undefined : shift(line.price.margin, 2))),
            2,
          ),
        ]
      : []),
    words('file.from', 12, (row) => rowOf(row)?.term?.from ?? ''),
    words('file.to', 12, (row) => rowOf(row)?.term?.to ?? ''),
    words('file.note', 30, ({ line, part }) =>
      part
        ? t('file.within', { line: line.position })
        : line.optional
          ? t('ledger.optional')
          : line.alternative
            ? line.insteadOf === undefined
              ? t('paper.alternativeAlone')
              : t('ledger.alternative', { line: line.insteadOf })
            : '',
    ),
  ];
}

/** The one row that a line is made of; undefined where it is several. */
function onlyRow({ price, quantity }: LineView): AcrossRow | undefined {
  const rows = across(price, quantity);
  return rows.length === 1 ? rows[0] : undefined;
}

/** All that is taken off, as a share of the list price. */
const offIn = ({ unitList = '0', unitNet = '0' }: AcrossRow): string =>
  exact(unitList).isZero() ? '0' : exact(unitList).minus(unitNet).div(unitList).toDecimalPlaces(6).toString();

/**
 * Lines, each followed by what it is made of where that is more than one row; every row can be multiplied
 * across.
 */
const rowsOf = ({ lines }: QuoteView): SheetRow[] =>
  lines.flatMap((line): SheetRow[] => {
    const rows = across(line.price, line.quantity);
    return [{ line }, ...(rows.length > 1 ? rows.map((part) => ({ line, part })) : [])];
  });

/** What spreadsheets take for the beginning of a formula, in full width too. */
const beginsFormula = /^[=+\-@\t\r\uff1d\uff0b\uff0d\uff20]/;

/**
 * Separated as spreadsheets of the person's language expect it; nothing in it is taken for a formula. What is
 * internal says so in its first row.
 */
export function linesAsCsv(seen: QuoteView, language: string, to: SheetFor): string {
  const t = translator(language);
  const quote = shownTo(seen, to);
  const columns = columnsOf(quote, language, to);
  const plain = (text: string, decimals: number | undefined): string =>
    decimals === undefined || text === ''
      ? text
      : roundHalfUp(exact(text), decimals)
          .toFixed()
          .replace('.', language === 'de' ? ',' : '.');
  // Figures stay figures, below nothing too; only words could be taken for a formula.
  const defused = (text: string, decimals: number | undefined): string =>
    decimals === undefined && beginsFormula.test(text) ? `'${text}` : text;
  const rows = rowsOf(quote).map((row) =>
    columns.map(({ of, decimals }) => defused(plain(of(row), decimals), decimals)),
  );
  return `\ufeff${Papa.unparse([...(to === 'internal' ? [[t('file.internal', { number: quote.number })]] : []), columns.map(({ title }) => t(title)), ...rows], { delimiter: language === 'de' ? ';' : ',', newline: '\r\n' })}\r\n`;
}

/** The lines of a quote as a workbook, figures as numbers. */
export async function linesAsXlsx(seen: QuoteView, language: string, to: SheetFor): Promise<Uint8Array> {
  const t = translator(language);
  const quote = shownTo(seen, to);
  const columns = columnsOf(quote, language, to);
  const book = new ExcelJS.Workbook();
  const head = to === 'internal' ? 2 : 1;
  const sheet = book.addWorksheet(quote.number, { views: [{ state: 'frozen', ySplit: head }] });
  columns.forEach(({ width, decimals, format }, index) => {
    const column = sheet.getColumn(index + 1);
    column.width = width;
    if (decimals !== undefined)
      column.numFmt = format ?? (decimals === 0 ? '0' : `#,##0.${'0'.repeat(decimals)}`);
  });
  if (to === 'internal')
    sheet.addRow([t('file.internal', { number: quote.number })]).font = {
      bold: true,
      color: { argb: 'FFA3352B' },
    };
  sheet.addRow(columns.map(({ title }) => t(title))).font = { bold: true };
  for (const row of rowsOf(quote))
    sheet.addRow(
      columns.map(({ of, decimals }): Cell | null =>
        of(row) === '' ? null : decimals === undefined ? of(row) : Number(of(row)),
      ),
    );
  return new Uint8Array(await book.xlsx.writeBuffer());
}

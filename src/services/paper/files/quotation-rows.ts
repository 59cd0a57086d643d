/** The table of lines of a quotation. */
import type { Content, TableCell } from 'pdfmake/interfaces';
import { exact } from '../../../core/exact';
import { across, multiplies, type AcrossRow, type LinePrice } from '../../../core/pricing';
import type { LineView, QuoteView } from '../../../contract';
import { hasText, number, percent, translator } from '../../../i18n';
import type { DescribedBuild } from '../../builds/build-summary';
import { quiet, hairline } from './paper-colours';
import { type Row, columns, chosen, bundleParts, reductionOf, whichRow, whatItIs } from './quotation-item';
import { type QuotationGiven } from './quotation-given';

/** The table of lines. */
export function linesTable(
  quote: QuoteView,
  builds: QuotationGiven['builds'],
  amount: (value: string) => string,
): Content {
  const t = translator(quote.customer.language);
  const heads = [
    t('pdf.pos'),
    t('pdf.what'),
    t('pdf.quantity'),
    t('pdf.unitPrice'),
    t('pdf.discount'),
    t('pdf.unitNet'),
    `${t('pdf.total')} ${quote.currency}`,
  ];
  const rows: Row[] = [
    {
      ruled: true,
      cells: heads.map((text, index): TableCell => ({
        text,
        style: 'head',
        alignment: index < 2 ? 'left' : 'right',
      })),
    },
    ...quote.lines.flatMap((line, index) => [
      ...(line.group !== null && quote.lines[index - 1]?.group !== line.group
        ? [groupRow(line.group, quote, amount)]
        : []),
      ...lineRows(line, quote, amount, line.buildId === undefined ? undefined : builds[line.buildId]),
    ]),
  ];
  return {
    layout: {
      hLineColor: hairline,
      hLineWidth: (at: number) =>
        at === 0 || at === 1 ? 0.8 : at === rows.length || rows[at]?.ruled ? 0.4 : 0,
      vLineWidth: () => 0,
      paddingLeft: (at: number) => (at === 0 ? 0 : 3),
      paddingRight: (at: number) => (at === columns - 1 ? 0 : 3),
      paddingTop: (at: number) => (rows[at]?.ruled ? 5 : 1),
      paddingBottom: (at: number) => (rows[at + 1]?.ruled !== false ? 5 : 1),
    },
    table: {
      headerRows: 1,
      dontBreakRows: true,
      widths: [18, '*', 40, 60, 36, 60, 64],
      body: rows.map(({ cells }) => cells),
    },
  };
}

/** The head of a group, with what its lines come to before a discount on the whole. */
function groupRow(group: string, { lines }: QuoteView, amount: (value: string) => string): Row {
  const net = lines
    .filter((line) => line.group === group && !line.optional && !line.alternative)
    .reduce((sum, { price }) => sum.plus(beforeWhole(price)), exact(0));
  return {
    ruled: true,
    cells: [
      { text: group, bold: true, colSpan: 6 },
      '',
      '',
      '',
      '',
      '',
      { text: amount(net.toString()), style: 'figure', alignment: 'right', bold: true },
    ],
  };
}

/** What a line comes to before a discount on the whole quote, which is told once, beneath. */
const beforeWhole = ({ net, share = '0' }: LinePrice): string => exact(net).plus(share).toString();

/**
 * A line as rows that multiply across: what it is beside the first, what was chosen beneath that, and what
 * they come to where they are several.
 */
function lineRows(
  line: LineView,
  quote: QuoteView,
  amount: (value: string) => string,
  build: DescribedBuild | undefined,
): Row[] {
  const {
    decimals,
    customer: { language },
  } = quote;
  const t = translator(language);
  const figure = (text: string, bold = false): TableCell => ({
    text,
    style: 'figure',
    alignment: 'right',
    bold,
  });
  const rows = across(line.price, line.quantity).filter(({ is }) => is !== 'share');
  const unit =
    line.unit === 'pc' || !hasText(`unit.${line.unit}`) ? '' : ` ${t(`unit.${line.unit}` as 'unit.m')}`;
  const several = rows.length > 1;
  const figures = (row: AcrossRow): TableCell[] => {
    // What does not multiply, such as a price for all, is told by its amount alone, and by words.
    const each = row.quantity !== undefined && row.unitNet !== undefined && multiplies(row, decimals);
    const off = row.unitNet === undefined ? '0' : reductionOf(row);
    return [
      figure(row.is === 'once' ? '' : `${number(String(line.quantity), language)}${unit}`),
      figure(each ? amount(row.unitList ?? '0') : ''),
      figure(exact(off).abs().lt('0.00005') ? '' : percent(off, language)),
      figure(each ? amount(row.unitNet ?? '0') : ''),
      figure(amount(row.amount)),
    ];
  };
  return rows
    .flatMap((row, index): Row[] =>
      index === 0
        ? [
            {
              ruled: true,
              cells: [
                { text: String(line.position), color: quiet },
                whatItIs(line, quote, amount, build, whichRow(row, several, line, t, language, amount)),
                ...figures(row),
              ],
            },
            ...chosen(build, language),
            ...bundleParts(line, build, t, language, amount),
          ]
        : [
            {
              ruled: false,
              cells: [
                '',
                { text: whichRow(row, several, line, t, language, amount), fontSize: 8.5, color: quiet },
                ...figures(row),
              ],
            },
          ],
    )
    .concat(
      several
        ? [
            {
              ruled: false,
              cells: [
                '',
                { text: t('pdf.lineTotal', { line: line.position }), bold: true, colSpan: 5 },
                '',
                '',
                '',
                '',
                figure(amount(beforeWhole(line.price)), true),
              ],
            },
          ]
        : [],
    );
}

/** The quotation as a PDF, in the customer's language, with the figures of the quote as it stands. */
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import pdfmake from 'pdfmake';
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import type { QuoteView } from '../../../contract';
import { date, money, translator } from '../../../i18n';
import { ink, quiet, hairline, accent } from './paper-colours';
import { offered } from './offered';
import { linesTable } from './quotation-rows';
import { leaseOffer, totals } from './quotation-sums';
import { type QuotationGiven } from './quotation-given';

/** The pages as they are kept and sent. */
export async function writeQuotation(given: QuotationGiven): Promise<Uint8Array> {
  prepareFonts();
  return new Uint8Array(
    await pdfmake.createPdf(documentOf({ ...given, quote: offered(given.quote) })).getBuffer(),
  );
}

let prepared = false;

/** The fonts of the application, from their packages; nothing is fetched. */
function prepareFonts(): void {
  if (prepared) return;
  const find = createRequire(join(process.cwd(), 'package.json'));
  const file = (pkg: string, name: string): string =>
    join(dirname(find.resolve(`${pkg}/package.json`)), 'files', `${name}.woff`);
  const text = (weight: number) => file('@fontsource/archivo', `archivo-latin-${String(weight)}-normal`);
  const mono = (weight: number) =>
    file('@fontsource/spline-sans-mono', `spline-sans-mono-latin-${String(weight)}-normal`);
  pdfmake.setFonts({
    Archivo: { normal: text(400), bold: text(600), italics: text(400), bolditalics: text(600) },
    Mono: { normal: mono(400), bold: mono(600), italics: mono(400), bolditalics: mono(600) },
  });
  pdfmake.setLocalAccessPolicy(() => true);
  pdfmake.setUrlAccessPolicy(() => false);
  prepared = true;
}

/** Sheets of paper, in points. */
const sizes = { A4: { name: 'A4', width: 595 }, letter: { name: 'LETTER', width: 612 } } as const;
/** At both sides. */
const margin = 54;

/** The day on its head: when it was sent, else today. */
const sentOn = ({ revisions, revision: { number } }: QuoteView, today: string): string =>
  revisions.find((each) => each.number === number)?.settledAt?.slice(0, 10) ?? today;

/** The pages as data, before they are set. */
export function documentOf({ quote, today, sender, builds, paper }: QuotationGiven): TDocumentDefinitions {
  const { language } = quote.customer;
  const t = translator(language);
  const amount = (value: string) => money(value, language, quote.decimals);
  const [invoice] = [...quote.customer.addresses].sort((a) => (a.kind === 'invoice' ? -1 : 1));
  const meta: [string, string][] = [
    [t('pdf.number'), `${quote.number} · ${t('pdf.revision', { number: quote.revision.number })}`],
    [t('pdf.date'), date(sentOn(quote, today), language)],
    [t('pdf.valid'), date(quote.revision.validUntil, language)],
    [t('pdf.contact'), quote.owner],
  ];
  // What cannot be sold as it stands, or nobody has signed, does not look like an offer.
  const draft =
    quote.lines.some((line) => line.problems.length > 0) ||
    (quote.signOff?.needs.some((need) => !need.held) ?? false);
  return {
    info: { title: `${t('pdf.title')} ${quote.number}`, author: sender.name },
    pageSize: sizes[paper].name,
    pageMargins: [margin, 64, margin, 60],
    ...(draft ? { watermark: { text: t('pdf.draft'), color: hairline, opacity: 0.35, bold: true } } : {}),
    defaultStyle: { font: 'Archivo', fontSize: 9.5, color: ink, lineHeight: 1.2 },
    styles: {
      head: { fontSize: 8, color: quiet },
      title: { fontSize: 20, bold: true, color: accent },
      code: { font: 'Mono', fontSize: 8.5 },
      figure: { font: 'Mono', fontSize: 9 },
      sum: { font: 'Mono', fontSize: 10.5, bold: true },
    },
    footer: (page, pages) => ({
      text: t('pdf.page', { page, pages }),
      alignment: 'center',
      fontSize: 8,
      color: quiet,
      margin: [0, 20, 0, 0],
    }),
    content: [
      {
        columns: [
          {
            stack: [
              { text: sender.name, bold: true, fontSize: 12 },
              {
                text: `${sender.street}, ${sender.postcode} ${sender.town}, ${sender.country}`,
                style: 'head',
              },
            ],
          },
          { text: t('pdf.title'), style: 'title', alignment: 'right' },
        ],
      },
      {
        canvas: [
          {
            type: 'line',
            x1: 0,
            y1: 6,
            x2: sizes[paper].width - 2 * margin,
            y2: 6,
            lineWidth: 0.75,
            lineColor: accent,
          },
        ],
        margin: [0, 0, 0, 22],
      },
      {
        columns: [
          {
            width: '*',
            stack: [
              { text: t('pdf.to'), style: 'head' },
              { text: quote.customer.name, bold: true },
              { text: quote.customer.contactName },
              ...(invoice
                ? [
                    { text: invoice.street },
                    { text: `${invoice.postcode} ${invoice.town}, ${invoice.country}` },
                  ]
                : []),
            ],
          },
          {
            width: 220,
            layout: 'noBorders',
            table: {
              widths: [80, '*'],
              body: meta.map(([name, value]): TableCell[] => [{ text: name, color: quiet }, { text: value }]),
            },
          },
        ],
        margin: [0, 0, 0, 20],
      },
      ...(quote.title
        ? [{ text: quote.title, bold: true, fontSize: 11, margin: [0, 0, 0, 8] } as Content]
        : []),
      linesTable(quote, builds, amount),
      totals(quote, amount),
      ...leaseOffer(quote, amount),
      {
        text: [
          t(quote.tax ? 'pdf.terms' : 'pdf.termsUntaxed', {
            currency: quote.currency,
            days: quote.customer.paymentDays ?? 30,
          }),
          t('pdf.delivery', {
            date: date(quote.delivered, language),
            from: date(sentOn(quote, today), language),
          }),
        ].join(' '),
        color: quiet,
        margin: [0, 22, 0, 0],
      },
    ],
  };
}

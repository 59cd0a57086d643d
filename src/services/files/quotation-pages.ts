/** The quotation as a PDF, in the customer's language, with the figures of the quote as it stands. */
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import pdfmake from 'pdfmake';
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import { exact, fixed, negative, ratio, roundHalfUp, textOf } from '../../core/exact';
import { monthlyRate, resaleOf, runningIn, sumLines, type LinePrice } from '../../core/pricing';
import type { LineView, QuoteView } from '../../core/quoting';
import { date, money, own, percent, translator } from '../../i18n';

const ink = '#23262a';
const quiet = '#5a5d60';
const hairline = '#c9c0ae';
const accent = '#1f5246';

/** The pages as they are kept and sent. */
export async function writeQuotation(seen: QuoteView, today: string): Promise<Uint8Array> {
  prepareFonts();
  return new Uint8Array(await pdfmake.createPdf(documentOf(offered(seen), today)).getBuffer());
}

/** What the customer is offered: of a dealer's quote the dealer's own prices, and nothing of what the dealer pays. */
export function offered(quote: QuoteView): QuoteView {
  const { resale, decimals } = quote;
  if (!resale) return quote;
  const lines = quote.lines.map((line): LineView => {
    const { unit, total } = resaleOf(line.price, line.quantity, resale.share, decimals, line.resale);
    const resold = (amount: string) => scaled(amount, total, line.price.net, decimals);
    const priced = ({ subscriptions, ...price }: LinePrice, each: string, all: string): LinePrice => {
      const { steps: _steps, share: _share, before: _before, recurring, once: _once, ...kept } = price;
      return {
        ...kept, ...(recurring ? { recurring: { ...recurring, perMonth: resold(recurring.perMonth), firstYear: resold(recurring.firstYear) } } : {}), steps: [], unitList: each, unitNet: each, list: all, net: all,
        ...(subscriptions ? { subscriptions: subscriptions.map((own) => priced(own, resold(own.unitNet), resold(own.net))) } : {}),
      };
    };
    return { ...line, price: priced(line.price, unit ?? total, total) };
  });
  const totals = sumLines(lines.filter((line) => !line.optional && !line.alternative).map(({ price }) => price), decimals);
  return { ...quote, lines, totals, lease: null };
}

const scaled = (amount: string, by: string, from: string, decimals: number): string => (exact(from).isZero() ? '0' : roundHalfUp(exact(amount).times(by).div(from) as ReturnType<typeof exact>, decimals).toString());

let prepared = false;

/** The fonts of the application, from their packages; nothing is fetched. */
function prepareFonts(): void {
  if (prepared) return;
  const find = createRequire(join(process.cwd(), 'package.json'));
  const file = (pkg: string, name: string): string => join(dirname(find.resolve(`${pkg}/package.json`)), 'files', `${name}.woff`);
  const text = (weight: number) => file('@fontsource/archivo', `archivo-latin-${String(weight)}-normal`);
  const mono = (weight: number) => file('@fontsource/spline-sans-mono', `spline-sans-mono-latin-${String(weight)}-normal`);
  pdfmake.setFonts({
    Archivo: { normal: text(400), bold: text(600), italics: text(400), bolditalics: text(600) },
    Mono: { normal: mono(400), bold: mono(600), italics: mono(400), bolditalics: mono(600) },
  });
  pdfmake.setLocalAccessPolicy(() => true);
  pdfmake.setUrlAccessPolicy(() => false);
  prepared = true;
}

/** The day on its head: when it was sent, else today. */
const sentOn = ({ revisions, revision: { number } }: QuoteView, today: string): string => revisions.find((each) => each.number === number)?.settledAt?.slice(0, 10) ?? today;

function documentOf(quote: QuoteView, today: string): TDocumentDefinitions {
  const { language } = quote.customer;
  const t = translator(language);
  const from = quote.resale?.dealer ?? 'Harrowmoor Scale Works';
  const amount = (value: string) => money(value, language, quote.decimals);
  const [invoice] = [...quote.customer.addresses].sort((a) => (a.kind === 'invoice' ? -1 : 1));
  const meta: [string, string][] = [
    [t('pdf.number'), `${quote.number} · ${t('pdf.revision', { number: quote.revision.number })}`],
    [t('pdf.date'), date(sentOn(quote, today), language)],
    [t('pdf.valid'), date(quote.revision.validUntil, language)],
    [t('pdf.contact'), quote.owner],
  ];
  // What cannot be sold as it stands, or nobody has signed, does not look like an offer.
  const draft = quote.lines.some((line) => line.problems.length > 0) || (quote.signOff?.needs.some((need) => !need.held) ?? false);
  return {
    info: { title: `${t('pdf.title')} ${quote.number}`, author: from },
    pageSize: 'A4',
    pageMargins: [54, 64, 54, 60],
    ...(draft ? { watermark: { text: t('pdf.draft'), color: hairline, opacity: 0.35, bold: true } } : {}),
    defaultStyle: { font: 'Archivo', fontSize: 9.5, color: ink, lineHeight: 1.2 },
    styles: { head: { fontSize: 8, color: quiet }, title: { fontSize: 20, bold: true, color: accent }, code: { font: 'Mono', fontSize: 8.5 }, figure: { font: 'Mono', fontSize: 9 }, sum: { font: 'Mono', fontSize: 10.5, bold: true } },
    footer: (page, pages) => ({ text: t('pdf.page', { page, pages }), alignment: 'center', fontSize: 8, color: quiet, margin: [0, 20, 0, 0] }),
    content: [
      { columns: [{ text: from, bold: true, fontSize: 12 }, { text: t('pdf.title'), style: 'title', alignment: 'right' }] },
      { canvas: [{ type: 'line', x1: 0, y1: 6, x2: 487, y2: 6, lineWidth: 0.75, lineColor: accent }], margin: [0, 0, 0, 22] },
      {
        columns: [
          { width: '*', stack: [{ text: t('pdf.to'), style: 'head' }, { text: quote.customer.name, bold: true }, { text: quote.customer.contactName }, ...(invoice ? [{ text: invoice.street }, { text: `${invoice.postcode} ${invoice.town}, ${invoice.country}` }] : [])] },
          { width: 220, layout: 'noBorders', table: { widths: [80, '*'], body: meta.map(([name, value]): TableCell[] => [{ text: name, color: quiet }, { text: value }]) } },
        ],
        margin: [0, 0, 0, 20],
      },
      ...(quote.title ? [{ text: quote.title, bold: true, fontSize: 11, margin: [0, 0, 0, 8] } as Content] : []),
      {
        layout: { hLineColor: hairline, hLineWidth: (row: number) => (row <= 1 ? 0.8 : 0.4), vLineWidth: () => 0, paddingTop: () => 5, paddingBottom: () => 5 },
        table: {
          headerRows: 1,
          dontBreakRows: true,
          widths: [20, '*', 34, 68, 62, 76],
          body: [
            [t('pdf.pos'), t('pdf.what'), t('pdf.quantity'), t('pdf.unitPrice'), t('pdf.discount'), `${t('pdf.total')} ${quote.currency}`].map((text, index): TableCell => ({ text, style: 'head', alignment: index < 2 ? 'left' : 'right' })),
            ...quote.lines.flatMap((line, index) => [...(line.group !== null && quote.lines[index - 1]?.group !== line.group ? [groupCells(line.group, quote, amount)] : []), lineCells(line, quote, amount)]),
          ],
        },
      },
      totals(quote, amount),
      ...leaseOffer(quote, amount),
      { text: t('pdf.terms', { currency: quote.currency, days: quote.customer.paymentDays ?? 30 }), color: quiet, margin: [0, 22, 0, 0] },
    ],
  };
}

/** The head of a group, with what its lines come to. */
function groupCells(group: string, { lines }: QuoteView, amount: (value: string) => string): TableCell[] {
  const net = lines.filter((line) => line.group === group && !line.optional && !line.alternative).reduce((sum, { price }) => sum.plus(price.net), exact(0));
  return [{ text: group, bold: true, colSpan: 5 }, {}, {}, {}, {}, { text: amount(net.toString()), style: 'figure', alignment: 'right', bold: true }];
}

function lineCells(line: LineView, { currency, customer: { language } }: QuoteView, amount: (value: string) => string): TableCell[] {
  const t = translator(language);
  const figure = (text: string): TableCell => ({ text, style: 'figure', alignment: 'right' });
  const { recurring } = line.price;
  const under = (text: string): Content => ({ text, fontSize: 8.5, color: quiet, margin: [0, 2, 0, 0] });
  return [
    { text: String(line.position), color: quiet },
    {
      stack: [
        { text: own(line.name, language), bold: true },
        { text: line.partNumber, style: 'code' },
        ...(line.summary ? [under(own(line.summary, language))] : []),
        ...(recurring ? [under(t('pdf.term', { from: date(recurring.from, language), to: date(recurring.to, language), month: amount(recurring.perMonth), currency }))] : []),
        ...runningIn(line.price).map(({ net, from, to, perMonth }) => under(t('pdf.subscription', { net: amount(net), from: date(from, language), to: date(to, language), month: amount(perMonth), currency }))),
        ...line.covers.map(({ name, from, to }) => under(t('pdf.cover', { name: own(name, language), from: date(from, language), to: date(to, language) }))),
        ...(line.optional ? [under(t('pdf.optional'))] : line.alternative ? [under(t('pdf.alternative', { line: line.insteadOf ?? '–' }))] : []),
      ],
    },
    figure(String(line.quantity)),
    figure(amount(line.price.unitList)),
    figure(reductionOf(line, language)),
    figure(amount(line.price.net)),
  ];
}

/** All that was taken off the list price of a line, as shares one after another, its part of the whole-quote discount last. */
function reductionOf({ price }: LineView, language: string): string {
  const rates = price.steps.flatMap((step) => (step.kind !== 'surcharge' && step.kind !== 'inside' && step.rate ? [step.rate] : []));
  const shared = price.share !== undefined && price.before !== undefined && fixed(price.before).units !== 0n ? [ratio(fixed(price.share), fixed(price.before))] : [];
  return [...rates, ...shared].map((rate) => percent(rate, language)).join(' + ');
}

/** What is due once, by the month, where it is offered so. */
function leaseOffer({ lease, totals: { oneTime }, decimals, currency, customer: { language } }: QuoteView, amount: (value: string) => string): Content[] {
  if (!lease || exact(oneTime).lte(lease.residual ?? '0')) return [];
  const t = translator(language);
  const rate = roundHalfUp(exact(monthlyRate({ amount: oneTime, ...lease })), decimals).toString();
  const left = lease.residual === undefined || lease.residual === '0' ? '' : t('pdf.leaseLeft', { amount: amount(lease.residual) });
  return [{ text: t('pdf.lease', { rate: amount(rate), currency, months: lease.months, due: t(lease.inAdvance ? 'pdf.inAdvance' : 'pdf.inArrears'), left }), margin: [0, 14, 0, 0] }];
}

function totals(quote: QuoteView, amount: (value: string) => string): Content {
  const t = translator(quote.customer.language);
  const row = (name: string, value: string, style = 'figure'): TableCell[] => [{ text: name, ...(style === 'sum' ? { bold: true } : { color: quiet }) }, { text: value, style, alignment: 'right' }];
  return {
    columns: [
      { width: '*', text: '' },
      {
        width: 230,
        layout: { hLineColor: accent, hLineWidth: (index: number) => (index === 2 ? 0.8 : 0), vLineWidth: () => 0 },
        table: { widths: ['*', 90], body: [row(t('pdf.list'), amount(quote.totals.list)), row(t('pdf.less'), amount(textOf(negative(fixed(quote.totals.reduction))))), row(`${t('pdf.net')} ${quote.currency}`, amount(quote.totals.net), 'sum'), ...(quote.totals.recurring === '0' ? [] : [row(t('pdf.recurring'), amount(quote.totals.recurring))])] },
      },
    ],
    margin: [0, 10, 0, 0],
  };
}

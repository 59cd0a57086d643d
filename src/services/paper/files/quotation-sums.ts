/** The sums of a quotation, and a lease that is offered. */
import type { Content, TableCell } from 'pdfmake/interfaces';
import { exact, roundHalfUp } from '../../../core/exact';
import { monthlyRate } from '../../../core/pricing';
import type { QuoteView } from '../../../contract';
import { percent, translator } from '../../../i18n';
import { quiet, accent } from './paper-colours';

/** What is due once, by the month, where it is offered so. */
export function leaseOffer(
  { lease, totals: { oneTime }, decimals, currency, customer: { language } }: QuoteView,
  amount: (value: string) => string,
): Content[] {
  if (!lease || exact(oneTime).lte(lease.residual ?? '0')) return [];
  const t = translator(language);
  const rate = roundHalfUp(exact(monthlyRate({ amount: oneTime, ...lease })), decimals).toString();
  const left =
    lease.residual === undefined || lease.residual === '0'
      ? ''
      : t('pdf.leaseLeft', { amount: amount(lease.residual) });
  return [
    {
      text: t('pdf.lease', {
        rate: amount(rate),
        currency,
        months: lease.months,
        due: t(lease.inAdvance ? 'pdf.inAdvance' : 'pdf.inArrears'),
        left,
      }),
      margin: [0, 14, 0, 0],
    },
  ];
}

/** The sums below the lines. */
export function totals(quote: QuoteView, amount: (value: string) => string): Content {
  const {
    totals: sums,
    tax,
    currency,
    customer: { language },
  } = quote;
  const t = translator(language);
  const row = (name: string, value: string, style = 'figure'): TableCell[] => [
    { text: name, ...(style === 'sum' ? { bold: true } : { color: quiet }) },
    { text: value, style, alignment: 'right' },
  ];
  const taxes = tax
    ? [
        ...tax.byRate.map(({ rate, net, tax: due }) =>
          row(t('pdf.taxOf', { rate: percent(rate, language), net: amount(net) }), amount(due)),
        ),
        row(`${t('pdf.gross')} ${currency}`, amount(tax.gross), 'sum'),
      ]
    : [];
  const whole = quote.lines
    .filter((line) => !line.optional && !line.alternative)
    .reduce((sum, { price }) => sum.plus(price.share ?? '0'), exact(0));
  const lines = exact(sums.reduction).minus(whole);
  const reductions = [
    ...(lines.isZero() ? [] : [row(t('pdf.less'), amount(lines.negated().toString()))]),
    ...(whole.isZero()
      ? []
      : [
          row(t('pdf.linesTotal'), amount(whole.plus(sums.net).toString())),
          row(t('pdf.wholeOff'), amount(whole.negated().toString())),
        ]),
  ];
  return {
    columns: [
      { width: '*', text: '' },
      {
        width: 260,
        layout: {
          hLineColor: accent,
          hLineWidth: (index: number) => (index === 1 + reductions.length ? 0.8 : 0),
          vLineWidth: () => 0,
        },
        table: {
          widths: ['*', 90],
          body: [
            row(t('pdf.list'), amount(sums.list)),
            ...reductions,
            row(`${t('pdf.net')} ${currency}`, amount(sums.net), 'sum'),
            ...(sums.recurring === '0' ? [] : [row(t('pdf.recurring'), amount(sums.recurring))]),
            ...taxes,
          ],
        },
      },
    ],
    margin: [0, 10, 0, 0],
  };
}

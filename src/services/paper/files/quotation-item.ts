/** What a line of a quotation is, in words. */
import type { Content, TableCell } from 'pdfmake/interfaces';
import { exact, fixed, minus, ratio } from '../../../core/exact';
import { runningIn, type AcrossRow } from '../../../core/pricing';
import type { LineView, QuoteView } from '../../../contract';
import { date, number, own, translator, type Translate } from '../../../i18n';
import { partHow } from '../../../i18n/part-how';
import type { DescribedBuild } from '../../builds/build-summary';
import { ink, quiet } from './paper-colours';

/** A row of the table of lines; a rule stands above the first row of each line only. */
export interface Row {
  cells: TableCell[];
  ruled: boolean;
}

/** Columns of the table of lines. */
export const columns = 7;
/** A cell beside the number of a line, over all that is at its right. */
const spanning = (cell: object): TableCell[] => [
  '',
  { ...cell, colSpan: columns - 1 } as TableCell,
  ...Array.from({ length: columns - 2 }, (): TableCell => ''),
];

const tight = {
  hLineWidth: () => 0,
  vLineWidth: () => 0,
  paddingLeft: () => 0,
  paddingRight: () => 8,
  paddingTop: () => 0,
  paddingBottom: () => 0,
};

/** Small entries in two columns, a few rows at a time, so that they may go over a page. */
function besides(
  entries: readonly (readonly [string, string, string?])[],
  widths: readonly [number, number, number],
): Row[] {
  const made: Row[] = [];
  const small = (text: string, color: string, alignment: 'left' | 'right' = 'left'): TableCell => ({
    text,
    fontSize: 8,
    color,
    alignment,
  });
  const triple = (entry: readonly [string, string, string?] | undefined): TableCell[] =>
    entry
      ? [
          small(entry[0], quiet),
          small(entry[1], ink, entry[2] === undefined ? 'left' : 'right'),
          entry[2] === undefined ? '' : small(entry[2], ink, 'right'),
        ]
      : ['', '', ''];
  for (let at = 0; at < entries.length; at += 12) {
    const some = entries.slice(at, at + 12);
    const half = Math.ceil(some.length / 2);
    made.push({
      ruled: false,
      cells: spanning({
        layout: tight,
        table: {
          widths: [...widths, ...widths],
          body: Array.from({ length: half }, (_, row) => [...triple(some[row]), ...triple(some[row + half])]),
        },
      }),
    });
  }
  return made;
}

/** What was chosen, by name and value. */
export const chosen = (build: DescribedBuild | undefined, language: string): Row[] =>
  besides(
    (build?.rows ?? []).map(({ name, value }) => [own(name, language), own(value, language)] as const),
    [108, 96, 0],
  );

/**
 * What is inside a bundle, with what it adds to the list price of one; what is off in the bundle below
 * nothing. A dealer's own prices are not made of these.
 */
export function bundleParts(
  { build, price }: LineView,
  described: DescribedBuild | undefined,
  t: Translate,
  language: string,
  amount: (value: string) => string,
): Row[] {
  const parts = (build?.parts ?? []).filter(
    (part) => part.counts === undefined && !part.recurs && !exact(part.amount).isZero(),
  );
  if (
    !described ||
    described.inside.length === 0 ||
    parts.length === 0 ||
    !exact(price.unitList).eq(parts.reduce((sum, part) => sum.plus(part.amount), exact(0)))
  )
    return [];
  return [
    {
      ruled: false,
      cells: spanning({ text: t('pdf.madeOf'), fontSize: 8, color: quiet, margin: [0, 4, 0, 0] }),
    },
    ...besides(
      parts.map(
        (part) =>
          [
            own(part.name, language),
            part.quantity === undefined ? '' : number(part.quantity, language),
            amount(part.amount),
          ] as const,
      ),
      [124, 22, 50],
    ),
  ];
}

/** What is taken off the list price, all steps together. */
export function reductionOf({ unitList = '0', unitNet = '0' }: AcrossRow): string {
  return fixed(unitList).units === 0n ? '0' : ratio(minus(fixed(unitList), fixed(unitNet)), fixed(unitList));
}

/** What a row of a line is for, and how its amount comes about where it does not multiply across. */
export function whichRow(
  { is, term, quantity, unitList = '0' }: AcrossRow,
  several: boolean,
  { price }: LineView,
  t: Translate,
  language: string,
  amount: (value: string) => string,
): string {
  const tiers =
    quantity === undefined
      ? partHow(
          {
            id: '',
            kind: 'part',
            name: {},
            amount: unitList,
            ...(price.tiers ? { tiers: price.tiers } : {}),
            ...(price.least === undefined ? {} : { least: price.least }),
          },
          t,
          language,
          2,
        )
      : '';
  const forAll =
    quantity === undefined && is !== 'once'
      ? [t('pdf.forAll', { amount: amount(unitList) }), ...(tiers ? [`(${tiers})`] : [])].join(' ')
      : '';
  const when = term
    ? t('pdf.overTerm', {
        from: date(term.from, language),
        to: date(term.to, language),
        months: number(String(term.months), language),
        days: term.days > 0 ? t('ledger.termDays', { count: term.days }) : '',
        base: term.baseMonths,
      })
    : is === 'once'
      ? t('pdf.onceALine')
      : several
        ? t('pdf.dueOnce')
        : '';
  return [when, forAll].filter(Boolean).join('. ');
}

/** What a line is, in words, with its build and what covers it. */
export function whatItIs(
  line: LineView,
  { currency, customer: { language } }: QuoteView,
  amount: (value: string) => string,
  build: DescribedBuild | undefined,
  first: string,
): TableCell {
  const t = translator(language);
  const { recurring } = line.price;
  const under = (text: string): Content => ({ text, fontSize: 8.5, color: quiet, margin: [0, 2, 0, 0] });
  const inside = build?.inside ?? [];
  return {
    stack: [
      { text: own(line.name, language), bold: true },
      { text: line.partNumber, style: 'code' },
      ...inside.map(({ name, number: code }): Content => ({
        text: [`${own(name, language)}  `, { text: code, style: 'code' }],
        fontSize: 8.5,
        color: quiet,
        margin: [0, 1, 0, 0],
      })),
      ...(recurring
        ? [
            under(
              t('pdf.monthly', {
                from: date(recurring.from, language),
                to: date(recurring.to, language),
                month: amount(recurring.perMonth),
                currency,
              }),
            ),
          ]
        : []),
      ...runningIn(line.price).map(({ from, to, perMonth }) =>
        under(
          t('pdf.monthly', {
            from: date(from, language),
            to: date(to, language),
            month: amount(perMonth),
            currency,
          }),
        ),
      ),
      ...line.covers.map(({ name, from, to }) =>
        under(
          t('pdf.cover', { name: own(name, language), from: date(from, language), to: date(to, language) }),
        ),
      ),
      ...(line.optional
        ? [under(t('pdf.optional'))]
        : line.alternative
          ? [
              under(
                line.insteadOf === undefined
                  ? t('pdf.alternativeAlone')
                  : t('pdf.alternative', { line: line.insteadOf }),
              ),
            ]
          : []),
      ...(first === '' ? [] : [under(first)]),
    ],
  };
}

/** The quotation as a PDF, in the customer's language, with the figures of the quote as it stands. */
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import pdfmake from 'pdfmake';
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import { exact, fixed, minus, ratio, roundHalfUp } from '../../core/exact';
import {
  across,
  monthlyRate,
  multiplies,
  resaleOf,
  runningIn,
  sumLines,
  taxed,
  type AcrossRow,
  type LinePrice,
  type Taxed,
} from '../../core/pricing';
import type { LineView, QuoteView } from '../../core/quoting';
import { date, hasText, money, number, own, percent, translator, type Translate } from '../../i18n';
import { partHow } from '../../i18n/part-how';
import type { DescribedBuild } from '../build-summary';
import type { Sender } from '../house';

const ink = '#23262a';
const quiet = '#5a5d60';
const hairline = '#c9c0ae';
const accent = '#1f5246';

export interface QuotationGiven {
  quote: QuoteView;
  today: string;
  sender: Sender;
  /** What was chosen in each build, by its id. */
  builds: Readonly<Record<string, DescribedBuild>>;
}

/** The pages as they are kept and sent. */
export async function writeQuotation(given: QuotationGiven): Promise<Uint8Array> {
  prepareFonts();
  return new Uint8Array(
    await pdfmake.createPdf(documentOf({ ...given, quote: offered(given.quote) })).getBuffer(),
  );
}

/**
 * What the customer is offered: of a dealer's quote the dealer's own prices, and nothing of what the dealer
 * pays.
 */
export function offered(quote: QuoteView): QuoteView {
  const { resale, decimals } = quote;
  if (!resale) return quote;
  const lines = quote.lines.map((line): LineView => {
    const { unit, total } = resaleOf(line.price, line.quantity, resale.share, decimals, line.resale);
    const resold = (amount: string) => scaled(amount, total, line.price.net, decimals);
    const priced = ({ subscriptions, ...price }: LinePrice, each: string, all: string): LinePrice => {
      const { steps: _steps, share: _share, before: _before, recurring, once: _once, ...kept } = price;
      return {
        ...kept,
        ...(recurring
          ? {
              recurring: {
                ...recurring,
                perMonth: resold(recurring.perMonth),
                firstYear: resold(recurring.firstYear),
              },
            }
          : {}),
        steps: [],
        unitList: each,
        unitNet: each,
        list: all,
        net: all,
        ...(subscriptions
          ? { subscriptions: subscriptions.map((own) => priced(own, resold(own.unitNet), resold(own.net))) }
          : {}),
      };
    };
    return { ...line, price: priced(line.price, unit ?? total, total) };
  });
  const totals = sumLines(
    lines.filter((line) => !line.optional && !line.alternative).map(({ price }) => price),
    decimals,
  );
  const { tax: _tax, ...untaxed } = quote;
  return { ...untaxed, ...taxOn(lines, decimals), lines, totals, lease: null };
}

/** Tax on what a dealer sells for; nothing where a line's rate is not known. */
function taxOn(lines: readonly LineView[], decimals: number): { tax?: Taxed } {
  const counted = lines
    .filter((line) => !line.optional && !line.alternative)
    .map(({ price: { net }, taxRate: rate }) => ({ net, rate }));
  return counted.length === 0 || counted.some(({ rate }) => rate === undefined)
    ? {}
    : { tax: taxed(counted as { net: string; rate: string }[], decimals) };
}

const scaled = (amount: string, by: string, from: string, decimals: number): string =>
  exact(from).isZero() ? '0' : roundHalfUp(exact(amount).times(by).div(from), decimals).toString();

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

/** The day on its head: when it was sent, else today. */
const sentOn = ({ revisions, revision: { number } }: QuoteView, today: string): string =>
  revisions.find((each) => each.number === number)?.settledAt?.slice(0, 10) ?? today;

/** The pages as data, before they are set. */
export function documentOf({ quote, today, sender, builds }: QuotationGiven): TDocumentDefinitions {
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
    pageSize: 'A4',
    pageMargins: [54, 64, 54, 60],
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
        canvas: [{ type: 'line', x1: 0, y1: 6, x2: 487, y2: 6, lineWidth: 0.75, lineColor: accent }],
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

/** A row of the table of lines; a rule stands above the first row of each line only. */
interface Row {
  cells: TableCell[];
  ruled: boolean;
}

const columns = 7;
/** A cell beside the number of a line, over all that is at its right. */
const spanning = (cell: object): TableCell[] => [
  '',
  { ...cell, colSpan: columns - 1 } as TableCell,
  ...Array.from({ length: columns - 2 }, (): TableCell => ''),
];

function linesTable(
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
const chosen = (build: DescribedBuild | undefined, language: string): Row[] =>
  besides(
    (build?.rows ?? []).map(({ name, value }) => [own(name, language), own(value, language)] as const),
    [108, 96, 0],
  );

/**
 * What is inside a bundle, with what it adds to the list price of one; what is off in the bundle below
 * nothing. A dealer's own prices are not made of these.
 */
function bundleParts(
  { build, price }: LineView,
  described: DescribedBuild | undefined,
  t: Translate,
  language: string,
  amount: (value: string) => string,
): Row[] {
  const parts = (build?.parts ?? []).filter(
    (part) => part.grows === undefined && !part.recurs && !exact(part.amount).isZero(),
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
function reductionOf({ unitList = '0', unitNet = '0' }: AcrossRow): string {
  return fixed(unitList).units === 0n ? '0' : ratio(minus(fixed(unitList), fixed(unitNet)), fixed(unitList));
}

/** What a row of a line is for, and how its amount comes about where it does not multiply across. */
function whichRow(
  { is, term, quantity, unitList = '0' }: AcrossRow,
  several: boolean,
  { price }: LineView,
  t: Translate,
  language: string,
  amount: (value: string) => string,
): string {
  const stretches =
    quantity === undefined
      ? partHow(
          {
            id: '',
            kind: 'part',
            name: {},
            amount: unitList,
            ...(price.stretches ? { stretches: price.stretches } : {}),
            ...(price.least === undefined ? {} : { least: price.least }),
          },
          t,
          language,
          2,
        )
      : '';
  const forAll =
    quantity === undefined && is !== 'once'
      ? [t('pdf.forAll', { amount: amount(unitList) }), ...(stretches ? [`(${stretches})`] : [])].join(' ')
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

function whatItIs(
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

/** What is due once, by the month, where it is offered so. */
function leaseOffer(
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

function totals(quote: QuoteView, amount: (value: string) => string): Content {
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

/** What is paid over time: what recurs with its days on a line of time, and a lease. */
import { exact, roundHalfUp } from '../../exact';
import { monthlyRate, recurringIn, type LineRecurring } from '../../pricing';
import type { PaperLine } from '../given';
import type { Bar, Node, TableRow } from '../types';
import { countedLines, figureCell, money, span, wordsCell, type BlockMaker, type Making } from './making';

interface Recurs {
  line: PaperLine;
  recurring: LineRecurring;
  net: string;
}

/** All that recurs, a row each, and when it runs. */
export const recurring: BlockMaker = (making) => {
  const { given, words, composition } = making;
  const found = countedLines(given).flatMap((line): Recurs[] =>
    recurringIn(line.price).map(({ recurring: of, net }) => ({ line, recurring: of, net })),
  );
  if (found.length === 0) return [];
  const priced = composition.lines.prices === 'each';
  return [
    {
      is: 'table',
      id: 'recurring',
      columns: [
        { title: words.say('what') },
        { title: words.say('from'), width: 74 },
        { title: words.say('until'), width: 74 },
        ...(priced
          ? [
              { title: words.say('perMonth'), right: true as const, width: 66 },
              { title: words.say('firstYear'), right: true as const, width: 66 },
              { title: words.say('total'), right: true as const, width: 66 },
            ]
          : []),
      ],
      rows: found.map((each, at) => recurringRow(each, at, priced, making)),
    },
    ...(countedLines(given).some(({ price }) => price.share !== undefined && price.share !== '0') && priced
      ? [{ is: 'paragraph', look: 'quiet', spans: [span(words.say('afterWhole'))] } as const]
      : []),
    timeline(found, making),
  ];
};

/** What it is that recurs: parts of a build by their own names. */
function nameOf({ line, recurring: of }: Recurs, { words }: Making): string {
  const own = line.recurs.filter(
    ({ baseMonths, start }) => baseMonths === of.baseMonths && (start === null || start === of.from),
  );
  return own.length === 0 ? words.own(line.name) : own.map(({ name }) => words.own(name)).join(', ');
}

function recurringRow(
  { line, recurring: of, net }: Recurs,
  at: number,
  priced: boolean,
  making: Making,
): TableRow {
  const { words, given } = making;
  const figure = (name: string, value: string) =>
    figureCell(words.amount(value), money(`recurring.${String(at + 1)}.${name}`, value, given.decimals));
  return {
    is: 'item',
    cells: [
      wordsCell(
        `${nameOf({ line, recurring: of, net }, making)} (${words.say('line', { line: line.position })})`,
      ),
      wordsCell(words.date(of.from)),
      wordsCell(words.date(of.to)),
      ...(priced ? [figure('month', of.perMonth), figure('year', of.firstYear), figure('term', net)] : []),
    ],
  };
}

/** Bars of time, with a mark at the beginning of each year. */
function timeline(found: readonly Recurs[], making: Making): Node {
  const { words, composition, given } = making;
  const bars = found.map(({ line, recurring: of }): Bar => ({
    name: words.own(line.name),
    from: of.from,
    to: of.to,
    note:
      composition.lines.prices === 'each'
        ? words.say('each', { amount: words.amount(of.perMonth), currency: given.currency })
        : '',
  }));
  const from = bars.map((bar) => bar.from).sort()[0] ?? given.day;
  const to =
    bars
      .map((bar) => bar.to)
      .sort()
      .at(-1) ?? given.day;
  const [first, last] = [Number(from.slice(0, 4)), Number(to.slice(0, 4))];
  const step = Math.max(1, Math.ceil((last - first) / 8));
  const years = Array.from({ length: Math.floor((last - first) / step) }, (_, at) => first + (at + 1) * step);
  return {
    is: 'timeline',
    bars,
    from,
    to,
    ticks: [
      { at: from, text: words.date(from) },
      ...years.map((year) => ({ at: `${String(year)}-01-01`, text: String(year) })),
    ],
  };
}

/** What is due once, by the month, where it is offered so. */
export const lease: BlockMaker = ({ given, words, composition }) => {
  const { lease: offered, totals, decimals, currency } = given;
  if (!offered || composition.lines.prices === 'none' || exact(totals.oneTime).lte(offered.residual ?? '0'))
    return [];
  const rate = roundHalfUp(exact(monthlyRate({ amount: totals.oneTime, ...offered })), decimals).toString();
  const left =
    offered.residual === undefined || offered.residual === '0'
      ? ''
      : words.say('leaseLeft', { amount: words.amount(offered.residual) });
  return [
    {
      is: 'paragraph',
      spans: [
        span(
          words.say('lease', {
            rate: words.amount(rate),
            currency,
            months: offered.months,
            due: words.say(offered.inAdvance ? 'inAdvance' : 'inArrears'),
            left,
            of: words.amount(totals.oneTime),
            yearly: words.percent(offered.yearlyRate),
          }),
        ),
      ],
    },
  ];
};

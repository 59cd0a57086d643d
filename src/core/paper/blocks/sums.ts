/** The sums beneath the lines, and tax. */
import { exact, roundHalfUp, type ExactText } from '../../exact';
import type { Figure, Node } from '../types';
import { amountIds, severalRates, sharesTold } from './lines';
import { countedLines, money, type Making } from './making';
import { lineAmount, shownRows } from '../shown-price';

type SumRow = Extract<Node, { is: 'sums' }>['rows'][number];

/** From what the lines come to, to what is paid. */
export function sums(making: Making): Node[] {
  const { given, composition, words } = making;
  const { prices } = composition.lines;
  const counted = countedLines(given);
  if (prices === 'none' || counted.length === 0) return [];
  const { currency, totals } = given;
  const row = (name: string, figure: Figure, strong = false): SumRow => ({
    name,
    figure,
    text: words.amount(figure.value),
    strong,
  });
  const amounts = prices === 'each' ? counted.flatMap((line) => amountIds('lines', line, making)) : [];
  const rows = [
    ...reductions(making, amounts, row),
    ...(totals.recurring === '0'
      ? []
      : [row(words.say('recurring'), money('sums.recurring', totals.recurring, given.decimals))]),
    ...taxRows(making, row),
  ];
  return [
    {
      is: 'sums',
      id: 'sums',
      rows: rows.map((each) =>
        each.figure.id === 'sums.net' || each.figure.id === 'sums.gross'
          ? { ...each, name: `${each.name} ${currency}`, strong: true }
          : each,
      ),
    },
  ];
}

type RowMaker = (name: string, figure: Figure, strong?: boolean) => SumRow;

/** From the list price to the net total, as much of it as is shown. */
function reductions(making: Making, amounts: readonly string[], row: RowMaker): SumRow[] {
  const { given, composition, words } = making;
  const { discounts } = composition.lines;
  const { decimals, totals } = given;
  const figure = (id: string, value: ExactText, works?: Figure['works']) =>
    money(`sums.${id}`, value, decimals, works);
  const sum = (of: readonly string[], less: readonly string[] = []): Figure['works'] =>
    of.length === 0 ? undefined : { is: 'sum', of, ...(less.length === 0 ? {} : { less }) };
  const net = (works: Figure['works']) => row(words.say('net'), figure('net', totals.net, works));
  if (discounts === 'none') return [net(sum(amounts))];
  if (discounts === 'sum') return atList(making, amounts, row);
  const shared = sharesTold(making);
  const counted = countedLines(given);
  const whole = shared
    ? exact(0)
    : counted.reduce((all, { price }) => all.plus(price.share ?? '0'), exact(0));
  const before = whole.plus(totals.net).toString();
  const off = exact(totals.list).minus(before);
  return [
    ...(off.isZero()
      ? []
      : [
          row(words.say('list'), figure('list', totals.list, listWorks(making))),
          row(
            words.say('less'),
            figure(
              'less',
              off.negated().toString(),
              sum(whole.isZero() ? amounts : ['sums.lines'], ['sums.list']),
            ),
          ),
        ]),
    ...(whole.isZero()
      ? [net(sum(amounts))]
      : [
          row(words.say('linesTotal'), figure('lines', before, sum(amounts))),
          row(words.say('wholeOff'), figure('whole', whole.negated().toString())),
          net(sum(['sums.lines', 'sums.whole'])),
        ]),
  ];
}

/** Lines at list prices, and all that is taken off as one sum. */
function atList(making: Making, amounts: readonly string[], row: RowMaker): SumRow[] {
  const { given, words } = making;
  const { decimals, totals } = given;
  const list = countedLines(given).reduce(
    (all, { price }) => all.plus(lineAmount(price, 'sum', decimals, false)),
    exact(0),
  );
  const off = exact(totals.net).minus(list);
  const all: Figure['works'] = amounts.length === 0 ? undefined : { is: 'sum', of: amounts };
  if (off.isZero()) return [row(words.say('net'), money('sums.net', totals.net, decimals, all))];
  return [
    row(words.say('list'), money('sums.list', list.toString(), decimals, all)),
    row(words.say('less'), money('sums.less', off.toString(), decimals)),
    row(
      words.say('net'),
      money('sums.net', totals.net, decimals, { is: 'sum', of: ['sums.list', 'sums.less'] }),
    ),
  ];
}

/** The list total from the unit prices, where all lines have one. */
function listWorks(making: Making): Figure['works'] {
  const { given, composition } = making;
  if (composition.lines.prices !== 'each') return undefined;
  const products: string[][] = [];
  let total = exact(0);
  for (const line of countedLines(given)) {
    const rows = shownRows(line.price, line.quantity, 'line', given.decimals, false);
    for (const [at, row] of rows.entries()) {
      if (row.unitList === undefined || row.quantity === undefined) return undefined;
      const id = `lines.${String(line.position)}.${String(at + 1)}`;
      products.push([
        `${id}.quantity`,
        `${id}.list`,
        ...(row.periods === undefined ? [] : [`${id}.periods`]),
      ]);
      const one = exact(row.unitList).times(row.quantity);
      total = total.plus(roundHalfUp(one.times(row.periods ?? '1'), given.decimals));
    }
  }
  return total.eq(given.totals.list) ? { is: 'across', of: products } : undefined;
}

/** Tax by rate, and the sum with it. */
function taxRows(making: Making, row: RowMaker): SumRow[] {
  const { given, words } = making;
  const { tax, decimals } = given;
  if (!tax) return [];
  const rates = tax.byRate.map(({ rate, net, tax: due }, at) =>
    row(
      words.say('taxOf', { rate: words.percent(rate), net: words.amount(net) }),
      money(`sums.tax${String(at + 1)}`, due, decimals, taxWorks(rate, making)),
    ),
  );
  return [
    ...rates,
    row(
      words.say('gross'),
      money('sums.gross', tax.gross, decimals, {
        is: 'sum',
        of: ['sums.net', ...rates.map(({ figure }) => figure.id)],
      }),
    ),
  ];
}

/** Of what a rate is taken. */
function taxWorks(rate: ExactText, making: Making): Figure['works'] {
  if (!severalRates(making)) return { is: 'rate', rate, of: ['sums.net'] };
  const { prices, discounts } = making.composition.lines;
  const counted = countedLines(making.given);
  const whole = counted.some(({ price }) => price.share !== undefined && price.share !== '0');
  // Shares of a discount on the whole are only where they are told.
  if (prices !== 'each' || discounts === 'sum' || (whole && discounts === 'line' && !sharesTold(making)))
    return undefined;
  return {
    is: 'rate',
    rate,
    of: counted
      .filter((line) => line.taxRate !== null && exact(line.taxRate).eq(rate))
      .flatMap((line) => amountIds('lines', line, making)),
  };
}

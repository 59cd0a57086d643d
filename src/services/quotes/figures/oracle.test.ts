/**
 * Money once more, by other means: quotes drawn by lot are priced by the services, and worked out here anew from the
 * rows of the database, with fractions of whole numbers alone and nothing of the code that prices.
 */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { QuoteView } from '../../../contract';
import { connected, type GrantRow, type ItemRow, type QuantityDiscountRow } from '../../../data';
import type { Actor } from '../../access/actor';
import { beginBuild } from '../../builds/begin';
import { saveContent } from '../../builds/save';
import { findCustomers } from '../../customers/customers';
import { inDays, today } from '../../kernel/clock';
import type { Result } from '../../kernel/failure';
import { openDemo, personOf } from '../../kernel/testing';
import { changeLine } from '../lines/lines';
import { addByNumber, putOnQuote } from '../lines/quote-builds';
import { findQuote, stateOf } from '../quote-state';
import { changeWhole, openQuote } from '../quotes';
import { partsIn, priceLines } from './quote-pricing';

/** A fraction of whole numbers. */
type Ratio = readonly [over: bigint, under: bigint];
const zero: Ratio = [0n, 1n];
function read(text: string): Ratio {
  const [, sign = '', whole = '0', after = ''] = /^(-?)(\d+)\.?(\d*)$/.exec(text) ?? [];
  const over = BigInt(whole + after);
  return [sign === '-' ? -over : over, 10n ** BigInt(after.length)];
}
const add = ([a, b]: Ratio, [c, d]: Ratio): Ratio => [a * d + c * b, b * d];
const mul = ([a, b]: Ratio, [c, d]: Ratio): Ratio => [a * c, b * d];
const neg = ([a, b]: Ratio): Ratio => [-a, b];
const sub = (a: Ratio, b: Ratio): Ratio => add(a, neg(b));
const of = (whole: number): Ratio => [BigInt(whole), 1n];
const less = (a: Ratio, b: Ratio): boolean => a[0] * b[1] < b[0] * a[1];
const sum = (all: readonly Ratio[]): Ratio => all.reduce(add, zero);
/** What is typed as 3.5 and means 0.035. */
const percent = (typed: string): Ratio => mul(read(typed), [1n, 100n]);
/** Half up, to so many decimals, in minor units; amounts here are never below nothing. */
const minor = ([over, under]: Ratio, decimals: number): bigint =>
  (2n * over * 10n ** BigInt(decimals) + under) / (2n * under);
const round = (value: Ratio, decimals: number): Ratio => [minor(value, decimals), 10n ** BigInt(decimals)];

/** Numbers by lot, the same each time. */
function lots(seed: number): (below: number) => number {
  let at = seed;
  return (below) => {
    at = (Math.imul(at, 1_103_515_245) + 12_345) & 0x7fffffff;
    return Math.floor((at / 0x80000000) * below);
  };
}

interface Slice {
  from: string;
  below?: string;
  rate?: string;
  price?: string;
}
interface Entry {
  method: string;
  price?: string;
  markUp?: string;
  rate?: string;
  of?: string[];
  brackets?: Slice[];
  slices?: Slice[];
  least?: string;
}
interface Known {
  entries: Map<string, { entry: Entry; baseMonths: number | null }>;
  grants: GrantRow[];
  quantities: QuantityDiscountRow[];
  items: Map<string, ItemRow>;
  costRate: string;
  decimals: number;
}

let mara: Actor;
beforeAll(async () => {
  await openDemo('oracle');
  mara = await personOf('mara@harrowmoor.example');
});
afterAll(() => connected().close());

const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.failures));
  return result.value;
};

async function knownOf(priceList: string): Promise<Known> {
  const { priceEntries, priceLists, grants, quantityDiscounts, items } = connected().records;
  const list = await priceLists.findOne({ where: { code: priceList }, raw: true });
  const entries: Known['entries'] = new Map();
  const rows = await priceEntries.findAll({
    where: { priceList, inside: '' },
    order: [['validFrom', 'ASC']],
    raw: true,
  });
  for (const { sku, entry, baseMonths, validFrom } of rows)
    if (validFrom <= today()) entries.set(sku, { entry: entry as unknown as Entry, baseMonths });
  return {
    entries,
    grants: await grants.findAll({ raw: true }),
    quantities: await quantityDiscounts.findAll({ raw: true }),
    items: new Map((await items.findAll({ raw: true })).map((item) => [item.sku, item])),
    costRate: list?.costRate ?? '1',
    decimals: list?.decimals ?? 2,
  };
}

/** What so many cost in slices, each at its own rate. */
function sliced(slices: readonly Slice[], quantity: Ratio, rates?: readonly string[]): Ratio {
  return sum(
    slices.map(({ from, below, rate = '0' }, at) => {
      const [first, end] = [read(from), below === undefined ? quantity : read(below)];
      const upTo = less(quantity, end) ? quantity : end;
      return less(first, upTo) ? mul(sub(upTo, first), read(rates?.[at] ?? rate)) : zero;
    }),
  );
}

/** The bracket that holds so many. */
const bracketOf = ({ brackets = [] }: Entry, quantity: Ratio): Slice | undefined =>
  brackets.find(
    ({ from, below }) => !less(quantity, read(from)) && (below === undefined || less(quantity, read(below))),
  );

/** What a line is typed to be, beside its item. */
interface Drawn {
  sku: string;
  quantity: number;
  hand?: { by: 'rate' | 'amount' | 'net'; value: string };
  rates?: { each: string[]; least: string };
  term?: { start: string; months: number; days: number };
  locked: boolean;
  optional: boolean;
  /** Of a build: list amounts of its parts. */
  parts?: Ratio;
}

/** What is best of some grants for a price. */
function granted(price: Ratio, grants: readonly GrantRow[], pieces: Ratio): Ratio {
  const offs = grants.map(({ rate, price: own }) =>
    own === null ? mul(price, read(rate ?? '0')) : sub(price, mul(read(own), pieces)),
  );
  return offs.reduce((best, off) => (less(best, off) ? off : best), zero);
}

/** The net of a line before the discount on the whole quote. */
function netOf(
  { sku, quantity, hand, rates, term, parts }: Drawn,
  known: Known,
  customer: { id: string; class: string; priceList: string },
  others: (name: string) => Ratio,
): Ratio {
  const { entry, baseMonths } = known.entries.get(sku) ?? { entry: { method: 'build' }, baseMonths: null };
  const item = known.items.get(sku);
  const { decimals } = known;
  const all = of(quantity);
  let [price, pieces]: [Ratio, Ratio] = [zero, all];
  switch (entry.method) {
    case 'build':
      price = parts ?? zero;
      break;
    case 'unit':
      price = read(entry.price ?? '0');
      break;
    case 'costPlus':
      price = mul(
        mul(read(item?.cost ?? '0'), read(known.costRate)),
        add([1n, 1n], read(entry.markUp ?? '0')),
      );
      break;
    default: {
      pieces = [1n, 1n];
      if (entry.method === 'share') price = mul(sum((entry.of ?? []).map(others)), read(entry.rate ?? '0'));
      if (entry.method === 'bracket') {
        price = read(bracketOf(entry, all)?.price ?? '0');
      }
      if (entry.method === 'graduated') price = sliced(entry.slices ?? [], all);
      if (entry.method === 'usage') {
        price = sliced(entry.slices ?? [], all, rates?.each);
        const least = read(rates ? rates.least : (entry.least ?? '0'));
        if (less(price, least)) price = least;
      }
    }
  }
  const here = known.grants.filter(
    (grant) =>
      (grant.validFrom === null || grant.validFrom <= today()) &&
      (grant.validTo === null || grant.validTo >= today()) &&
      (grant.customerId === null || grant.customerId === customer.id) &&
      (grant.class === null || grant.class === customer.class) &&
      (grant.priceList === null || grant.priceList === customer.priceList) &&
      (grant.sku !== null ? grant.sku === sku : grant.family === null || grant.family === item?.family),
  );
  const forAll = pieces[0] === 1n && quantity !== 1 ? all : [1n, 1n];
  const own = (kind: string): GrantRow[] => here.filter((grant) => grant.kind === kind);
  price = sub(price, granted(price, own('agreement'), forAll as Ratio));
  const discount =
    known.quantities.find((row) => row.sku === sku) ??
    known.quantities.find((row) => row.sku === null && row.family === item?.family);
  if (discount) {
    const reached = discount.levels.filter(({ from }) => !less(all, read(from)));
    const rate =
      discount.by === 'whole'
        ? read(reached.at(-1)?.rate ?? '0')
        : mul(
            sum(
              Array.from({ length: quantity }, (_, at) =>
                read(discount.levels.filter(({ from }) => Number(from) <= at + 1).at(-1)?.rate ?? '0'),
              ),
            ),
            [1n, BigInt(quantity)],
          );
    price = sub(price, mul(price, rate));
  }
  price = sub(price, granted(price, own('promotion'), forAll as Ratio));
  if (hand?.by === 'rate') price = sub(price, mul(price, percent(hand.value)));
  if (hand?.by === 'amount') price = sub(price, read(hand.value));
  if (hand?.by === 'net') price = read(hand.value);
  const net = mul(round(price, decimals), pieces);
  if (baseMonths === null || !term) return net;
  return round(mul(net, [BigInt(term.months), BigInt(baseMonths)]), decimals);
}

/** An amount in minor units, over weights: whole units by largest remainder, the first of equals before others. */
function spread(amount: bigint, weights: readonly bigint[]): bigint[] {
  const all = weights.reduce((a, b) => a + b, 0n);
  if (all === 0n) return weights.map(() => 0n);
  const parts = weights.map((weight) => (amount * weight) / all);
  const left = Number(amount - parts.reduce((a, b) => a + b, 0n));
  const order = weights
    .map((weight, at) => ({ at, rest: (amount * weight) % all }))
    .sort((a, b) => (a.rest === b.rest ? a.at - b.at : a.rest > b.rest ? -1 : 1));
  for (const { at } of order.slice(0, left)) parts[at] = (parts[at] ?? 0n) + 1n;
  return parts;
}

const builds: readonly { on: string; value: string | boolean }[][] = [
  [
    { on: 'vehicle', value: 'articulated' },
    { on: 'length', value: 'm18' },
    { on: 'approachParts.trafficLights', value: true },
  ],
  [
    { on: 'vehicle', value: 'rigid' },
    { on: 'length', value: 'm12' },
    { on: 'finish', value: 'galvanised' },
  ],
];
const plain = [
  ['SILL-1212-P', 'SILL-0808-X', 'TN-PAD-15', 'YE-KIOSK', 'YE-BOLL', 'SV-CALIB', 'BC-IP66', 'YE-SPARECELL'],
  ['SV-TRAIN-GRP', 'YE-CARD', 'DK-CLOUD', 'DK-USER', 'SV-CARE'],
] as const;

/** A line by lot; `build` where it is one. */
function draw(lot: (below: number) => number, decimals: number): Drawn & { build?: (typeof builds)[number] } {
  const kind = lot(7);
  const marks = { locked: lot(6) === 0, optional: lot(8) === 0 };
  const rate = { by: 'rate' as const, value: (lot(70) / 10).toFixed(1) };
  const term = { start: inDays(30), months: 12 + lot(25), days: 0 };
  if (kind === 0)
    return {
      sku: 'RIDGEBACK',
      quantity: 1 + lot(3),
      build: builds[lot(builds.length)],
      hand: rate,
      ...marks,
    };
  if (kind < 5) {
    const sku = plain[0][lot(plain[0].length)] ?? '';
    const amount = { by: 'amount' as const, value: (lot(900) / 100).toFixed(decimals) };
    const net = { by: 'net' as const, value: (1 + lot(30_000) / 100).toFixed(decimals) };
    const hand = [undefined, rate, amount, net][lot(4)];
    return { sku, quantity: 1 + lot(14), ...(hand ? { hand } : {}), ...marks };
  }
  const sku = plain[1][lot(plain[1].length)] ?? '';
  const recurs = sku === 'DK-CLOUD' || sku === 'DK-USER' || sku === 'SV-CARE';
  return {
    sku,
    quantity: sku === 'SV-CARE' ? 1 : sku === 'DK-CLOUD' ? 200 + lot(9_000) : 1 + lot(18),
    ...(recurs ? { term } : {}),
    ...(sku === 'DK-CLOUD' && lot(2) === 0
      ? { rates: { each: ['0.11', '0.0825', '0.0633'], least: '39.5' } }
      : {}),
    hand: rate,
    ...marks,
  };
}

async function added(quote: QuoteView, drawn: Drawn, build?: (typeof builds)[number]): Promise<QuoteView> {
  const { sku, quantity, hand, rates, term, locked, optional } = drawn;
  let now: QuoteView;
  if (build) {
    const begun = value(await beginBuild(mara, { quoteId: quote.id, modelId: 'ridgeback' }));
    value(await saveContent(mara, begun.id, { version: 1, decisions: [...build], passed: [], special: [] }));
    now = value(await putOnQuote(mara, begun.id, { version: quote.version, quantity }));
  } else now = value(await addByNumber(mara, quote.id, { version: quote.version, sku, quantity }));
  const line = now.lines.at(-1)?.id ?? '';
  const change = {
    ...(hand ? { hand } : {}),
    ...(rates ? { rates } : {}),
    ...(term ? { term } : {}),
    ...(locked ? { locked } : {}),
    ...(optional ? { optional } : {}),
  };
  if (Object.keys(change).length === 0) return now;
  return value(await changeLine(mara, quote.id, line, { version: now.version, ...change }));
}

/** What the parts of each build list at, by the rows of the price list. */
async function partsOf(id: string, known: Known): Promise<Map<string, Ratio>> {
  const base = await findQuote(mara, id);
  const state = base && (await stateOf(base));
  if (!state) throw new Error('the quote is gone');
  const priced = await priceLines(await partsIn(state));
  return new Map(
    priced.flatMap(({ line, parts }): [string, Ratio][] => {
      if (!parts) return [];
      const amounts = parts.parts.map(({ item = '', quantity = '0' }) => {
        const { entry } = known.entries.get(item) ?? { entry: { method: '' } };
        switch (entry.method) {
          case 'unit':
            return mul(read((entry as Entry).price ?? '0'), read(quantity));
          case 'bracket':
            return read(bracketOf(entry, read(quantity))?.price ?? '0');
          case 'included':
            return zero;
          default:
            throw new Error(`${item} is priced by ${entry.method}`);
        }
      });
      return [[line.id, sum(amounts)]];
    }),
  );
}

describe('a quote drawn by lot', () => {
  it.each(Array.from({ length: 20 }, (_, seed) => seed + 1))(
    'number %i comes to the same by fractions of whole numbers',
    async (seed) => {
      const lot = lots(seed * 7_919);
      lot(2);
      const name = ['callow', 'brannoch', 'norrvik', 'dunmere', 'tannbruck', 'pender'][seed % 6] ?? '';
      const [found] = await findCustomers(mara, name);
      const customer = await connected().records.customers.findOne({
        where: { id: found?.id ?? '' },
        raw: true,
      });
      if (!customer) throw new Error(`nobody is called ${name}`);
      const known = await knownOf(customer.priceList);
      let quote = value(await openQuote(mara, { customerId: customer.id, title: `By lot ${String(seed)}` }));
      const drawn: Drawn[] = [];
      for (let count = 3 + lot(5); count > 0; count -= 1) {
        const one = draw(lot, known.decimals);
        // A share of nothing cannot be sold.
        if (one.sku === 'SV-CARE' && !drawn.some(({ sku, optional }) => sku === 'RIDGEBACK' && !optional))
          continue;
        quote = await added(quote, one, one.build);
        drawn.push(one);
      }
      const shareOff = seed % 3 === 0 ? '0' : String(1 + lot(9));
      if (shareOff !== '0')
        quote = value(
          await changeWhole(mara, quote.id, {
            version: quote.version,
            whole: { by: 'rate', value: shareOff },
          }),
        );
      const parts = await partsOf(quote.id, known);
      const lines = drawn.map((each, at) => ({
        ...each,
        id: quote.lines[at]?.id ?? '',
        parts: parts.get(quote.lines[at]?.id ?? '') ?? zero,
      }));
      const nets = new Map<string, Ratio>();
      const counted = lines.filter(({ optional }) => !optional);
      const others = (of: string): Ratio =>
        sum(
          counted.flatMap(({ id, sku }) =>
            sku !== 'SV-CARE' && (sku === of || known.items.get(sku)?.family === of)
              ? [nets.get(id) ?? zero]
              : [],
          ),
        );
      for (const late of [false, true])
        for (const line of lines)
          if ((line.sku === 'SV-CARE') === late) nets.set(line.id, netOf(line, known, customer, others));
      const open = counted.filter(
        ({ locked, sku }) => !locked && known.items.get(sku)?.discountable !== false,
      );
      const weights = open.map(({ id }) => minor(nets.get(id) ?? zero, known.decimals));
      const base = weights.reduce((a, b) => a + b, 0n);
      const off = minor(mul([base, 10n ** BigInt(known.decimals)], percent(shareOff)), known.decimals);
      spread(off, weights).forEach((part, at) => {
        const { id } = open[at] as { id: string };
        nets.set(id, sub(nets.get(id) ?? zero, [part, 10n ** BigInt(known.decimals)]));
      });
      const units = (amount: Ratio): bigint => minor(amount, known.decimals);
      expect(
        quote.lines.map(({ price }, at) => [lines[at]?.sku, units(read(price.net))]),
        `${name}, ${shareOff} off: ${JSON.stringify(drawn)}`,
      ).toEqual(lines.map(({ id, sku }) => [sku, units(nets.get(id) ?? zero)]));
      expect(units(read(quote.totals.net))).toBe(
        counted.reduce((all, { id }) => all + units(nets.get(id) ?? zero), 0n),
      );
    },
    30_000,
  );
});

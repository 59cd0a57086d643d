/**
 * Spreading, any of four, limits, leases, commission and tax: worked examples, and what must hold whatever
 * the amounts.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exact, roundHalfUp } from '../exact';
import {
  atTarget,
  commission,
  figureAt,
  figuresOf,
  priceFiguresOf,
  judge,
  markUpOf,
  monthlyRate,
  needsOf,
  priceQuote,
  reachOf,
  spread,
  stillHolds,
  taxed,
  taxRate,
  type PriceFigures,
  type Limit,
  type LineFigures,
  type LinePrice,
  type QuoteLine,
  type Typed,
} from './index';
import { spreadNumbers, spreadUnits } from './quote/spread';

const minor = (value: string, decimals: number): bigint =>
  BigInt(exact(value).times(exact(10).pow(decimals)).toFixed());
const money = (units: number, decimals: number): string =>
  exact(units).div(exact(10).pow(decimals)).toString();

describe('an amount spread over lines', () => {
  it('goes by largest remainder: 5 % of 1,033.33, 999.99 and 0.05', () => {
    const lines = ['1033.33', '999.99', '0.05'];
    const off = roundHalfUp(exact('2033.37').times('0.05'), 2).toString();
    expect(off).toBe('101.67');
    expect(spread(off, lines, 2)).toEqual(['51.67', '50', '0']);
  });

  it.each([
    ['100', ['1', '1', '1'], 2, ['33.34', '33.33', '33.33']],
    ['-100', ['1', '1', '1'], 2, ['-33.34', '-33.33', '-33.33']],
    ['100', ['1', '1', '1'], 0, ['34', '33', '33']],
    ['0.001', ['1', '1'], 3, ['0.001', '0']],
    ['7', ['0', '5'], 2, ['0', '7']],
    ['7', ['0', '0'], 2, ['0', '0']],
    ['0', ['3', '4'], 2, ['0', '0']],
    ['5', [], 2, []],
  ])('%s over %j with %i decimals is %j', (amount, weights, decimals, parts) => {
    expect(spread(amount, weights, decimals)).toEqual(parts);
  });

  it('sums to the amount in every currency, no part further than a minor unit from its share, nothing to nothing', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(0, 2, 3),
        fc.integer({ min: -1_000_000_00, max: 1_000_000_00 }),
        fc.array(fc.integer({ min: 0, max: 5_000_000 }), { minLength: 1, maxLength: 30 }),
        (decimals, units, weights) => {
          const [amount, all] = [money(units, decimals), weights.reduce((a, b) => a + b, 0)];
          const parts = spread(
            amount,
            weights.map((weight) => money(weight, decimals)),
            decimals,
          );
          expect(parts.reduce((sum, part) => sum + minor(part, decimals), 0n)).toBe(
            all === 0 ? 0n : BigInt(units),
          );
          parts.forEach((part, index) => {
            const weight = weights[index] as number;
            if (weight === 0) expect(part).toBe('0');
            else
              expect(Math.abs(Number(minor(part, decimals)) - (units * weight) / all)).toBeLessThanOrEqual(1);
          });
        },
      ),
    );
  });

  it('gives the same line the same, in whatever order the lines stand, but for who gets the last minor unit', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 1_000_00 }),
        fc.uniqueArray(fc.integer({ min: 1, max: 5_000_00 }), { minLength: 2, maxLength: 12 }),
        (units, weights) => {
          const [forwards, backwards] = [weights, [...weights].reverse()].map((each) =>
            spread(
              money(units, 2),
              each.map((weight) => money(weight, 2)),
              2,
            ),
          );
          [...(backwards as string[])]
            .reverse()
            .forEach((part, index) =>
              expect(
                Math.abs(Number(minor(part, 2) - minor(forwards?.[index] as string, 2))),
              ).toBeLessThanOrEqual(1),
            );
        },
      ),
    );
  });
});

describe('an amount spread as numbers', () => {
  it('is spread as exactly as with whole numbers of any size, wherever numbers hold it', () => {
    const upTo = (most: number) =>
      fc.oneof(
        fc.integer({ min: 0, max: 200 }),
        fc.integer({ min: 0, max: 40_000_000 }),
        fc.integer({ min: 0, max: most }),
      );
    let counted = 0;
    fc.assert(
      fc.property(
        upTo(2 ** 50),
        fc.boolean(),
        fc.array(upTo(2 ** 45), { maxLength: 30 }),
        (amount, below, weights) => {
          const units = below ? -amount : amount;
          const names = weights.map(
            (_, at) =>
              String.fromCharCode(97 + ((at * 7) % weights.length)).padEnd(1 + (at % 3), 'x') + String(at),
          );
          const numbers = spreadNumbers(units, Float64Array.from(weights), names) ?? new Float64Array();
          counted += numbers.length > 0 ? 1 : 0;
          expect(Array.from(numbers, (part) => BigInt(part))).toEqual(
            spreadUnits(
              BigInt(units),
              weights.map((weight) => ({ units: BigInt(weight), scale: 0 })),
              names,
            ),
          );
        },
      ),
      { numRuns: 1000 },
    );
    expect(counted).toBeGreaterThan(500);
  });
  it('is left to whole numbers of any size where a sum or the amount is too large, or a weight is none', () => {
    expect(spreadNumbers(2 ** 51, Float64Array.from([2 ** 20, 1]), ['a', 'b'])).toBeUndefined();
    expect(spreadNumbers(5, Float64Array.from([2 ** 50, 1]), ['a', 'b'])).toBeUndefined();
    expect(spreadNumbers(5, Float64Array.from([NaN, 1]), ['a', 'b'])).toBeUndefined();
    expect(spreadNumbers(5, Float64Array.from([-1, 3]), ['a', 'b'])).toBeUndefined();
  });
});

describe('any of four', () => {
  const four = (base: string, typed: Typed, cost?: string, decimals = 2): PriceFigures => {
    const answer = priceFiguresOf(base, typed, decimals, cost);
    if (answer.is !== 'figures') throw new Error(answer.why);
    return answer.figures;
  };

  it('gives the net that a margin of 32 % wants', () => {
    expect(four('40000', { by: 'margin', value: '0.32' }, '21340')).toMatchObject({
      net: '31382.35',
      amount: '8617.65',
    });
  });

  it.each<[Typed, Partial<PriceFigures>]>([
    [
      { by: 'rate', value: '0.1' },
      { rate: '0.1', amount: '100', net: '900', margin: '0.3333333333333333333333333333333333' },
    ],
    [
      { by: 'amount', value: '100' },
      { rate: '0.1', amount: '100', net: '900' },
    ],
    [
      { by: 'net', value: '900' },
      { rate: '0.1', amount: '100', net: '900' },
    ],
    [
      { by: 'net', value: '1100' },
      { rate: '-0.1', amount: '-100', net: '1100' },
    ],
    [
      { by: 'margin', value: '0.4' },
      { rate: '0', amount: '0', net: '1000', margin: '0.4' },
    ],
    [
      { by: 'rate', value: '1' },
      { rate: '1', amount: '1000', net: '0' },
    ],
  ])('%j on 1,000 that costs 600 is %j', (typed, expected) => {
    expect(four('1000', typed, '600')).toMatchObject(expected);
  });

  it('is impossible where it is', () => {
    expect(priceFiguresOf('1000', { by: 'margin', value: '1' }, 2, '600')).toEqual({
      is: 'impossible',
      why: 'margin',
    });
    expect(priceFiguresOf('1000', { by: 'margin', value: '0.3' }, 2)).toEqual({
      is: 'impossible',
      why: 'cost',
    });
    expect(priceFiguresOf('0', { by: 'net', value: '10' }, 2)).toEqual({ is: 'impossible', why: 'base' });
    expect(four('0', { by: 'rate', value: '0.2' })).toMatchObject({ net: '0', rate: '0.2' });
  });

  it('comes to the same net, whichever of the four is typed, in every currency', () => {
    const amounts = fc.integer({ min: 1, max: 900_000_00 });
    fc.assert(
      fc.property(
        fc.constantFrom(0, 2, 3),
        amounts,
        amounts,
        fc.integer({ min: 0, max: 9999 }),
        (decimals, base, cost, basis) => {
          const [price, costs] = [money(base, decimals), money(cost, decimals)];
          const first = four(
            price,
            { by: 'rate', value: exact(basis).div(10_000).toString() },
            costs,
            decimals,
          );
          const others: Typed[] = [
            { by: 'amount', value: first.amount },
            { by: 'net', value: first.net },
            ...(first.margin === undefined ? [] : [{ by: 'margin' as const, value: first.margin }]),
          ];
          for (const typed of others) expect(four(price, typed, costs, decimals).net).toBe(first.net);
          // What follows sums: price less discount is the net, to the minor unit.
          expect(exact(price).minus(first.amount).toString()).toBe(first.net);
        },
      ),
    );
  });

  it('has a mark-up besides its margin', () => {
    expect([markUpOf('1350', '1000'), markUpOf('10', '0')]).toEqual(['0.35', undefined]);
  });
});

describe('limits', () => {
  const discount: Limit = {
    role: 'engineer',
    by: 'discount',
    target: '0.05',
    limit: '0.1',
    floor: '0.2',
    signs: 'manager',
    above: 'director',
  };
  const margin: Limit = {
    role: 'engineer',
    family: 'deck',
    by: 'margin',
    target: '0.4',
    limit: '0.3',
    floor: '0.2',
    signs: 'manager',
    above: 'director',
  };
  it.each([
    ['0.05', 'onTarget'],
    ['0.06', 'withinLimit'],
    ['0.1', 'withinLimit'],
    ['0.100001', 'beyondLimit'],
    ['0.2', 'beyondLimit'],
    ['0.21', 'beyondFloor'],
  ])('a discount of %s is %s', (figure, reach) => {
    expect(reachOf(discount, figure)).toBe(reach);
  });
  it.each([
    ['0.4', 'onTarget'],
    ['0.39', 'withinLimit'],
    ['0.3', 'withinLimit'],
    ['0.29', 'beyondLimit'],
    ['0.2', 'beyondLimit'],
    ['0.19', 'beyondFloor'],
  ])('a margin of %s is %s', (figure, reach) => {
    expect(reachOf(margin, figure)).toBe(reach);
  });

  const line = (id: string, off: string, left?: string, family = 'deck'): LineFigures => ({
    line: id,
    family,
    discount: off,
    ...(left === undefined ? {} : { margin: left }),
  });
  const at = (lines: LineFigures[], role = 'engineer') => judge(lines, [discount, margin], role);
  it('name who signs, the nearest first, and concern only their role and family', () => {
    expect(
      at([line('1', '0.02', '0.5'), line('2', '0.12', '0.1'), line('3', '0.3', '0.1', 'service')]).map(
        ({ line: id, by, reach, signers }) => [id, by, reach, signers],
      ),
    ).toEqual([
      ['1', 'discount', 'onTarget', []],
      ['1', 'margin', 'onTarget', []],
      ['2', 'discount', 'beyondLimit', ['manager']],
      ['2', 'margin', 'beyondFloor', ['manager', 'director']],
      ['3', 'discount', 'beyondFloor', ['manager', 'director']],
    ]);
    expect(at([line('1', '0.9', '-1')], 'manager')).toEqual([]);
  });
  it('prefer the one of the family', () => {
    const ofFamily: Limit = { ...discount, family: 'deck', limit: '0.5', floor: '0.6' };
    expect(judge([line('1', '0.4')], [discount, ofFamily], 'engineer')).toMatchObject([
      { reach: 'withinLimit', limit: ofFamily },
    ]);
  });
  it('once signed stay so while nothing gets worse', () => {
    const signed = [line('1', '0.15', '0.35'), line('2', '0.02', '0.25')];
    expect(stillHolds(signed, at(signed))).toBe(true);
    expect(stillHolds(signed, at([line('1', '0.14', '0.36'), line('2', '0.01', '0.26')]))).toBe(true);
    expect(stillHolds(signed, at([line('1', '0.16', '0.34'), line('2', '0.02', '0.25')]))).toBe(false);
    expect(stillHolds(signed, at([line('1', '0.15', '0.35'), line('2', '0.02', '0.24')]))).toBe(false);
    // Nobody signed for another line; one within its limit wants nobody.
    expect(stillHolds(signed, at([...signed, line('3', '0.2', '0.5')]))).toBe(false);
    expect(stillHolds(signed, at([...signed, line('3', '0.1', '0.5')]))).toBe(true);
    expect(stillHolds([], at([line('1', '0.01', '0.5')]))).toBe(true);
  });
});

describe('a lease', () => {
  const lease = { amount: '48000', months: 36, yearlyRate: '0.054' };
  const cents = (value: string) => roundHalfUp(exact(value), 2).toFixed(2);
  it.each([
    [lease, '1447.24'],
    [{ ...lease, residual: '6000' }, '1293.33'],
    [{ ...lease, residual: '6000', inAdvance: true }, '1287.54'],
    [{ amount: '36000', months: 36, yearlyRate: '0' }, '1000.00'],
    [{ amount: '36000', months: 30, yearlyRate: '0', residual: '6000' }, '1000.00'],
  ])('%j is %s a month', (given, expected) => {
    expect(cents(monthlyRate(given))).toBe(expected);
  });
  it('pays off what was financed, month after month, down to the residual', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 120 }),
        fc.integer({ min: 0, max: 3000 }),
        fc.integer({ min: 0, max: 9000 }),
        fc.boolean(),
        (months, basis, residual, inAdvance) => {
          const given = {
            amount: '10000',
            months,
            yearlyRate: exact(basis).div(10_000).toString(),
            residual: String(residual),
            inAdvance,
          };
          const [rate, interest] = [exact(monthlyRate(given)), exact(given.yearlyRate).div(12)];
          let owed = exact(given.amount);
          for (let month = 0; month < months; month++)
            owed = inAdvance
              ? owed.minus(rate).times(interest.plus(1))
              : owed.times(interest.plus(1)).minus(rate);
          expect(Math.abs(owed.minus(residual).toNumber())).toBeLessThan(1e-12);
        },
      ),
      { numRuns: 60 },
    );
  });
  it('runs for at least a month', () => {
    expect(() => monthlyRate({ ...lease, months: 0 })).toThrow(RangeError);
    expect(() => monthlyRate({ ...lease, months: 1.5 })).toThrow(RangeError);
  });
});

it('lines at their target have the discount of their family, or of all, instead of what was typed; agreements stay', () => {
  const limit = (target: string, more: Partial<Limit> = {}): Limit => ({
    role: 'engineer',
    by: 'discount',
    target,
    limit: '0.1',
    floor: '0.2',
    signs: 'manager',
    above: 'director',
    ...more,
  });
  const limits = [
    limit('0.03'),
    limit('0.05', { family: 'services' }),
    limit('0.5', { role: 'manager' }),
    limit('0.4', { by: 'margin' }),
  ];
  const line = (family: string, discountable = true): QuoteLine => ({
    id: family,
    sku: family,
    family,
    counts: true,
    locked: false,
    discountable,
    offer: { is: 'item', name: {}, entry: { method: 'unit', price: '1000' } },
    terms: {
      quantity: 1,
      day: '2026-11-26',
      agreements: [{ id: 'a', name: {}, rate: '0.1' }],
      hand: { by: 'net', value: '1' },
    },
  });
  const { lines, totals } = priceQuote(
    atTarget([line('yard'), line('services'), line('fixed', false)], limits, 'engineer'),
    { decimals: 2 },
  );
  expect(lines.map(({ price }) => price.net)).toEqual(['873', '855', '900']);
  expect(totals.net).toBe('2628');
});

it('a commission is higher only on what is above the target price', () => {
  const plan = { baseRate: '0.02', higherRate: '0.05' };
  expect(['9000', '10000', '12000'].map((net) => commission(net, '10000', plan))).toEqual([
    '180',
    '200',
    '300',
  ]);
});

describe('tax', () => {
  const rates = [
    { country: 'GB', rate: '0.2' },
    { country: 'GB', class: 'training', rate: '0' },
    { country: 'SE', rate: '0.25' },
  ];
  it('is by country and class, and unknown where no rate is', () => {
    expect([
      taxRate(rates, 'GB', 'deck'),
      taxRate(rates, 'GB', 'training'),
      taxRate(rates, 'SE', 'training'),
      taxRate(rates, 'NO', 'deck'),
    ]).toEqual(['0.2', '0', '0.25', undefined]);
  });
  it('is rounded once a rate, and net and tax are the gross', () => {
    expect(
      taxed(
        [
          { net: '10.01', rate: '0.2' },
          { net: '10.01', rate: '0.20' },
          { net: '5', rate: '0' },
        ],
        2,
      ),
    ).toEqual({
      net: '25.02',
      byRate: [
        { rate: '0.2', net: '20.02', tax: '4' },
        { rate: '0', net: '5', tax: '0' },
      ],
      tax: '4',
      gross: '29.02',
    });
    expect(taxed([], 2)).toEqual({ net: '0', byRate: [], tax: '0', gross: '0' });
  });
});

describe('what is given away', () => {
  const name = { en: 'A thing' };
  const lineOf = (
    hand: Typed | undefined,
    whole: Typed | undefined,
    agreements = [{ id: 'a', name, rate: '0.2' }],
  ): LinePrice => {
    const quote = priceQuote(
      [
        {
          id: 'a',
          sku: 'A',
          family: 'deck',
          counts: true,
          locked: false,
          discountable: true,
          offer: { is: 'item', name, entry: { method: 'unit', price: '1000' }, cost: '400' },
          terms: { quantity: 3, day: '2026-11-26', agreements, ...(hand ? { hand } : {}) },
        },
      ],
      { decimals: 2, ...(whole ? { whole } : {}) },
    );
    return quote.lines[0]?.price ?? ({} as never);
  };
  const priced = (...terms: Parameters<typeof lineOf>) => figuresOf('a', 'deck', lineOf(...terms));
  it('is by hand and with the whole quote, not what the customer has been granted anyway', () => {
    expect(priced(undefined, undefined)).toEqual({ line: 'a', family: 'deck', discount: '0', margin: '0.5' });
    expect(priced({ by: 'rate', value: '0.1' }, undefined)).toMatchObject({ discount: '0.1' });
    expect(priced({ by: 'net', value: '600' }, undefined)).toMatchObject({ discount: '0.25' });
    expect(priced({ by: 'rate', value: '0.1' }, { by: 'rate', value: '0.1' })).toMatchObject({
      discount: '0.19',
    });
    expect(priced(undefined, { by: 'rate', value: '0.05' }, [])).toMatchObject({ discount: '0.05' });
    expect(Number(priced({ by: 'net', value: '880' }, undefined).discount)).toBe(-0.1);
  });

  it('is told of what is only typed as of what stands, with the share of the whole-quote discount', () => {
    const whole: Typed = { by: 'rate', value: '0.1' };
    for (const value of ['0', '0.05', '0.25']) {
      const stands = lineOf({ by: 'rate', value }, whole);
      for (const from of [lineOf(undefined, whole), lineOf({ by: 'rate', value: '0.4' }, whole), stands]) {
        expect(Number(figureAt(from, 'discount', value))).toBeCloseTo(
          Number(priced({ by: 'rate', value }, whole).discount),
          12,
        );
        // 800 less what is typed earns so much before the whole-quote discount.
        const margin = String(1 - 400 / (800 * (1 - Number(value))));
        expect(Number(figureAt(from, 'margin', margin))).toBeCloseTo(Number(stands.margin), 9);
      }
    }
    expect(figureAt(lineOf(undefined, undefined), 'discount', '0.07')).toBe('0.07');
    expect(figureAt(lineOf(undefined, undefined), 'margin', '0.33')).toBe('0.33');
  });

  const limit: Limit = {
    role: 'engineer',
    by: 'discount',
    target: '0.03',
    limit: '0.08',
    floor: '0.15',
    signs: 'manager',
    above: 'director',
  };
  const figures = (off: string): LineFigures[] => [{ line: 'a', family: 'deck', discount: off }];
  const needs = (off: string, ...signed: { role: string; figures: LineFigures[] }[]) =>
    needsOf(judge(figures(off), [limit], 'engineer'), signed).map(({ role, held }) => [role, held]);
  it('judges a whole-quote discount as it was typed, whatever cents fell on a line', () => {
    const lines = ['1033.33', '999.99', '41.07', '0.05'].map((each, at): QuoteLine => ({
      id: String(at),
      sku: 'A',
      family: 'deck',
      counts: true,
      locked: false,
      discountable: true,
      offer: { is: 'item', name: {}, entry: { method: 'unit', price: each } },
      terms: { quantity: 1, day: '2026-11-26' },
    }));
    const whole: Typed = { by: 'rate', value: '0.08' };
    const quote = priceQuote(lines, { decimals: 2, whole });
    const judgedBy = (rate?: string) =>
      judge(
        quote.lines.map(({ id, price }) => figuresOf(id, 'deck', price, rate)),
        [limit],
        'engineer',
      ).filter(({ signers }) => signers.length > 0);
    expect(judgedBy('0.08')).toEqual([]);
    expect(judgedBy('0.0800001').length).toBeGreaterThan(1);
    // Told by its cents alone one line would be beyond it.
    expect(judgedBy().length).toBeGreaterThan(0);
  });

  it('judges a margin as it was typed, whatever rounding made of it', () => {
    const floor: Limit = {
      role: 'engineer',
      by: 'margin',
      target: '0.5',
      limit: '0.32',
      floor: '0.1',
      signs: 'manager',
      above: 'director',
    };
    const line: QuoteLine = {
      id: 'a',
      sku: 'A',
      family: 'deck',
      counts: true,
      locked: false,
      discountable: true,
      offer: { is: 'item', name: {}, entry: { method: 'unit', price: '40000' }, cost: '21340.01' },
      terms: { quantity: 1, day: '2026-11-26', hand: { by: 'margin', value: '0.32' } },
    };
    const [priced] = priceQuote([line], { decimals: 2 }).lines;
    expect(priced && Number(priced.price.margin)).not.toBe(0.32);
    expect(priced && judge([figuresOf('a', 'deck', priced.price)], [floor], 'engineer')).toMatchObject([
      { figure: '0.32', signers: [] },
    ]);
  });

  it('needs those who sign, until what they signed last covers it', () => {
    expect(needs('0.08')).toEqual([]);
    expect(needs('0.12')).toEqual([['manager', false]]);
    expect(needs('0.2')).toEqual([
      ['manager', false],
      ['director', false],
    ]);
    expect(needs('0.12', { role: 'manager', figures: figures('0.12') })).toEqual([['manager', true]]);
    expect(needs('0.11', { role: 'manager', figures: figures('0.12') })).toEqual([['manager', true]]);
    expect(needs('0.121', { role: 'manager', figures: figures('0.12') })).toEqual([['manager', false]]);
    expect(needs('0.2', { role: 'manager', figures: figures('0.2') })).toEqual([
      ['manager', true],
      ['director', false],
    ]);
    // The last answer counts, also where an earlier one went further.
    expect(
      needs(
        '0.12',
        { role: 'manager', figures: figures('0.14') },
        { role: 'manager', figures: figures('0.1') },
      ),
    ).toEqual([['manager', false]]);
  });
});

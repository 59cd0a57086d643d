import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exact } from '../../exact';
import { overTerm, resaleOf, sumResale, walk, type LinePrice } from '..';

const price = (unitNet: string, quantity: number, more: Partial<LinePrice> = {}): LinePrice => ({
  steps: [],
  unitList: unitNet,
  unitNet,
  list: unitNet,
  net: exact(unitNet).times(quantity).toString(),
  ...more,
});

describe('what a dealer sells for', () => {
  it.each<[string, LinePrice, number, string, string | null, { unit?: string; total: string }]>([
    [
      'a share on each piece, to the minor unit',
      price('33.33', 3),
      3,
      '0.155',
      null,
      { unit: '38.5', total: '115.5' },
    ],
    ['nothing on top', price('33.33', 3), 3, '0', null, { unit: '33.33', total: '99.99' }],
    ["a price of the dealer's own", price('33.33', 3), 3, '0.155', '40', { unit: '40', total: '120' }],
    [
      'one price for all pieces',
      price('900', 1, { per: 'line', net: '900' }),
      4,
      '0.1',
      null,
      { total: '990' },
    ],
    [
      "one price for all pieces, of the dealer's own",
      price('900', 1, { per: 'line', net: '900' }),
      4,
      '0.1',
      '1000',
      { unit: '1000', total: '1000' },
    ],
    [
      'what comes once besides',
      price('100', 2, { once: { list: '50', net: '50' }, net: '250' }),
      2,
      '0.1',
      null,
      { unit: '110', total: '275' },
    ],
    [
      "a price of the dealer's own beside what comes once",
      price('100', 2, { once: { list: '50', net: '50' }, net: '250' }),
      2,
      '0.1',
      '110',
      { unit: '110', total: '275' },
    ],
    [
      "a price of the dealer's own beside what recurs",
      price('100', 2, { subscriptions: [price('60', 2), price('12.5', 1)], net: '332.5' }),
      2,
      '0.1',
      '130',
      { unit: '130', total: '405.75' },
    ],
    ['at a loss', price('100', 2), 2, '-0.05', null, { unit: '95', total: '190' }],
  ])('%s', (_what, line, quantity, share, own, expected) => {
    expect(resaleOf(line, quantity, share, 2, own)).toEqual(expected);
  });

  it('of what recurs is on the whole term', () => {
    const walked = walk(
      [{ id: 'a', kind: 'part', name: {}, amount: '240' }],
      { quantity: 2, day: '2026-11-26' },
      2,
    );
    const year = overTerm(walked, { baseMonths: 12 }, { start: '2027-01-01', months: 18, days: 0 }, 2);
    expect(resaleOf(year, 2, '0.1', 2)).toEqual({ unit: '264', total: '792' });
    expect(resaleOf(year, 2, '0.1', 2, '300')).toEqual({ unit: '300', total: '900' });
  });

  it('of a build is the same where the figure that stands there is typed', () => {
    const amount = fc.integer({ min: 0, max: 999_999 }).map((cents) => exact(cents).div(100).toString());
    fc.assert(
      fc.property(
        amount,
        fc.integer({ min: 1, max: 9 }),
        fc.option(amount),
        fc.array(amount, { maxLength: 2 }),
        fc.integer({ min: 0, max: 400 }).map((mille) => String(mille / 1000)),
        (unitNet, quantity, once, subscriptions, share) => {
          const own = walk(
            [
              { id: 'a', kind: 'part', name: {}, amount: unitNet },
              ...(once === null
                ? []
                : [{ id: 'b', kind: 'part' as const, name: {}, amount: once, counts: 'line' as const }]),
              ...subscriptions.map((each, at) => ({
                id: `s${String(at)}`,
                kind: 'part' as const,
                name: {},
                amount: each,
                recurs: { baseMonths: 12, months: 12 * (at + 1) },
              })),
            ],
            { quantity, day: '2026-11-26' },
            2,
          );
          const byShare = resaleOf(own, quantity, share, 2);
          expect(resaleOf(own, quantity, share, 2, byShare.unit ?? null)).toEqual(byShare);
        },
      ),
    );
  });

  it('sums to the cent, and earns what is left over the buying price', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({ cents: fc.integer({ min: 0, max: 1e7 }), quantity: fc.integer({ min: 1, max: 50 }) }),
          { maxLength: 8 },
        ),
        fc.integer({ min: 0, max: 5000 }),
        (lines, bips) => {
          const sold = lines.map(({ cents, quantity }) => ({
            net: exact(cents).div(100).times(quantity).toString(),
            total: resaleOf(
              price(exact(cents).div(100).toString(), quantity),
              quantity,
              String(bips / 10_000),
              2,
            ).total,
          }));
          const { total, earned } = sumResale(sold);
          // In whole cents, each piece rounded half up.
          const wanted = lines.reduce(
            (sum, { cents, quantity }) =>
              sum + BigInt(quantity) * ((BigInt(cents) * BigInt(10_000 + bips) * 2n + 10_000n) / 20_000n),
            0n,
          );
          expect(exact(total).times(100).toFixed(0)).toBe(String(wanted));
          expect(
            exact(total)
              .minus(sold.reduce((sum, { net }) => sum.plus(net), exact(0)))
              .toString(),
          ).toBe(earned);
        },
      ),
    );
  });
});

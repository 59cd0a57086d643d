/**
 * Price methods, terms and grants, against worked examples and fractions of whole numbers reckoned by
 * themselves.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  addMonths,
  chargeOver,
  chooseGrant,
  entryProblem,
  lastDay,
  listed,
  withRates,
  monthsOf,
  quantityRate,
  recurringTotals,
  termBetween,
  tooShort,
  type Bracket,
  type Grant,
  type Listed,
  type PriceEntry,
  type Slice,
} from '..';

const amount = (found: Listed): string => (found.is === 'listed' ? found.amount : found.is);

const brackets: Bracket[] = [
  { from: '1', below: '5', price: '900' },
  { from: '5', below: '10', price: '1500' },
  { from: '10', below: '20', price: '2600' },
];
const tickets: Slice[] = [
  { from: '0', below: '1000', rate: '0.12' },
  { from: '1000', below: '5000', rate: '0.09' },
  { from: '5000', rate: '0.07' },
];

describe('a price', () => {
  it.each([
    ['4', '900'],
    ['5', '1500'],
    ['9.99', '1500'],
    ['10', '2600'],
    ['19', '2600'],
    ['1', '900'],
    ['20', 'outside'],
    ['0.5', 'outside'],
    ['0', 'outside'],
  ])('by brackets, for %s: %s', (quantity, expected) => {
    expect(amount(listed({ method: 'bracket', brackets }, { quantity }))).toBe(expected);
  });

  it.each([
    ['7400', '648'],
    ['0', '0'],
    ['1', '0.12'],
    ['1000', '120'],
    ['1001', '120.09'],
    ['5000', '480'],
    ['5001', '480.07'],
    ['1000000', '70130'],
    ['-1', 'outside'],
  ])('of usage in slices, for %s: %s', (quantity, expected) => {
    expect(amount(listed({ method: 'usage', slices: tickets }, { quantity }))).toBe(expected);
    expect(amount(listed({ method: 'graduated', slices: tickets }, { quantity }))).toBe(expected);
  });

  it('of usage is at least its least charge, and says that it is that', () => {
    expect(listed({ method: 'usage', slices: tickets, least: '50' }, { quantity: '100' })).toMatchObject({
      amount: '50',
      least: '50',
      tiers: [{ quantity: '100', rate: '0.12', amount: '12' }],
    });
    expect(
      listed({ method: 'usage', slices: tickets, least: '50' }, { quantity: '7400' }),
    ).not.toHaveProperty('least');
  });

  it('in slices ends where the last does, which is still held', () => {
    const entry: PriceEntry = { method: 'graduated', slices: [{ from: '0', below: '10', rate: '2' }] };
    expect([amount(listed(entry, { quantity: '10' })), amount(listed(entry, { quantity: '10.1' }))]).toEqual([
      '20',
      'outside',
    ]);
  });

  it('follows its other methods, and says what it waits for', () => {
    const of = (entry: PriceEntry, asked: Partial<Parameters<typeof listed>[1]> = {}) =>
      listed(entry, { quantity: '3', ...asked });
    expect(of({ method: 'unit', price: '12.5' })).toEqual({ is: 'listed', per: 'unit', amount: '12.5' });
    expect(of({ method: 'included' })).toEqual({ is: 'listed', per: 'unit', amount: '0' });
    expect(of({ method: 'costPlus', markUp: '0.35' }, { cost: '200' })).toEqual({
      is: 'listed',
      per: 'unit',
      amount: '270',
    });
    expect(of({ method: 'costPlus', markUp: '0.35' })).toEqual({ is: 'open', wants: 'cost' });
    expect(of({ method: 'hand' }, { typed: '99' })).toEqual({ is: 'listed', per: 'unit', amount: '99' });
    expect(of({ method: 'hand' })).toEqual({ is: 'open', wants: 'price' });
    expect(
      of(
        { method: 'formula', formula: 'length * 40' },
        { workOut: (formula) => (formula === 'length * 40' ? '720' : undefined) },
      ),
    ).toEqual({ is: 'listed', per: 'unit', amount: '720' });
    expect(of({ method: 'formula', formula: 'length * 40' })).toEqual({ is: 'open', wants: 'value' });
    const nets: Record<string, string> = { ridgeback: '20000', beacon: '1000' };
    expect(
      of({ method: 'share', rate: '0.04', of: ['ridgeback', 'beacon'] }, { netOf: (name) => nets[name] }),
    ).toEqual({ is: 'listed', per: 'line', amount: '840' });
    expect(
      of({ method: 'share', rate: '0.04', of: ['ridgeback', 'tarn'] }, { netOf: (name) => nets[name] }),
    ).toEqual({ is: 'listed', per: 'line', amount: '800' });
    expect(
      of({ method: 'share', rate: '0.04', of: ['plumb', 'tarn'] }, { netOf: (name) => nets[name] }),
    ).toEqual({ is: 'open', wants: 'net', name: 'plumb, tarn' });
  });

  it('in slices is what every piece costs by itself, summed', () => {
    const pieces = fc.integer({ min: 0, max: 300 });
    const cuts = fc
      .uniqueArray(fc.integer({ min: 1, max: 250 }), { minLength: 0, maxLength: 4 })
      .map((each) => [0, ...each.sort((a, b) => a - b)]);
    fc.assert(
      fc.property(
        cuts,
        fc.array(fc.integer({ min: 0, max: 99_999 }), { minLength: 5, maxLength: 5 }),
        pieces,
        (from, rates, quantity) => {
          const slices = from.map((at, index): Slice => ({
            from: String(at),
            ...(from[index + 1] === undefined ? {} : { below: String(from[index + 1]) }),
            rate: `${String(Math.floor((rates[index] ?? 0) / 1000))}.${String((rates[index] ?? 0) % 1000).padStart(3, '0')}`,
          }));
          let thousandths = 0n;
          for (let piece = 0; piece < quantity; piece++)
            thousandths += BigInt(rates[from.findLastIndex((at) => at <= piece)] ?? 0);
          const found = listed({ method: 'graduated', slices }, { quantity: String(quantity) });
          expect(BigInt(Math.round(Number(amount(found)) * 1000))).toBe(thousandths);
          expect(
            found.is === 'listed' && found.tiers?.reduce((sum, each) => sum + Number(each.quantity), 0),
          ).toBe(quantity);
        },
      ),
    );
  });

  it.each<[string, PriceEntry, ReturnType<typeof entryProblem>]>([
    ['good brackets', { method: 'bracket', brackets }, null],
    ['good slices', { method: 'usage', slices: tickets }, null],
    [
      'a hole between brackets',
      {
        method: 'bracket',
        brackets: [
          { from: '1', below: '5', price: '1' },
          { from: '7', price: '2' },
        ],
      },
      null,
    ],
    ['no slices', { method: 'graduated', slices: [] }, { code: 'empty', from: '0' }],
    [
      'slices that begin late',
      { method: 'graduated', slices: [{ from: '1', rate: '1' }] },
      { code: 'hole', from: '0' },
    ],
    [
      'a hole between slices',
      {
        method: 'graduated',
        slices: [
          { from: '0', below: '5', rate: '1' },
          { from: '6', rate: '1' },
        ],
      },
      { code: 'hole', from: '5' },
    ],
    [
      'brackets that overlap',
      {
        method: 'bracket',
        brackets: [
          { from: '1', below: '5', price: '1' },
          { from: '4', price: '2' },
        ],
      },
      { code: 'overlap', from: '4' },
    ],
    [
      'one after an endless one',
      {
        method: 'bracket',
        brackets: [
          { from: '1', price: '1' },
          { from: '4', price: '2' },
        ],
      },
      { code: 'overlap', from: '4' },
    ],
    [
      'one that ends before it begins',
      { method: 'bracket', brackets: [{ from: '5', below: '5', price: '1' }] },
      { code: 'backwards', from: '5' },
    ],
  ])('has an entry that can be checked: %s', (_name, entry, problem) => {
    expect(entryProblem(entry)).toEqual(problem);
  });
});

describe('a term', () => {
  it.each([
    [6, '120'],
    [18, '360'],
    [12, '240'],
    [1, '20'],
    [0, '0'],
  ])('of %i months at 240 for 12 comes to %s', (months, expected) => {
    expect(chargeOver('240', { baseMonths: 12 }, { start: '2026-12-01', months, days: 0 })).toBe(expected);
  });

  it.each([
    ['2026-01-31', 1, '2026-02-28'],
    ['2024-01-31', 1, '2024-02-29'],
    ['2026-01-31', 2, '2026-03-31'],
    ['2026-11-15', 3, '2027-02-15'],
    ['2026-03-31', -1, '2026-02-28'],
    ['2026-12-31', 12, '2027-12-31'],
  ])('%s and %i months is %s', (day, months, expected) => {
    expect(addMonths(day, months)).toBe(expected);
  });

  it.each([
    ['2026-01-01', '2026-12-31', 12, 0],
    ['2026-01-15', '2026-04-19', 3, 5],
    ['2026-01-31', '2026-02-27', 1, 0],
    ['2026-02-01', '2026-02-14', 0, 14],
    ['2026-02-01', '2026-01-01', 0, 0],
    ['2026-05-10', '2026-05-09', 0, 0],
  ])('from %s to %s is %i months and %i days', (start, last, months, days) => {
    expect(termBetween(start, last)).toEqual({ start, months, days });
  });

  it('counts days by the length of the month begun', () => {
    // 14 days of a February of 28, half of it.
    expect(monthsOf({ start: '2026-01-01', months: 1, days: 14 }).toString()).toBe('1.5');
    expect(chargeOver('240', { baseMonths: 12 }, { start: '2026-01-01', months: 1, days: 14 })).toBe('30');
  });

  it('stands apart by month, first year and whole term, with its days', () => {
    expect(recurringTotals('240', { baseMonths: 12 }, { start: '2026-12-10', months: 18, days: 0 })).toEqual({
      perMonth: '20',
      firstYear: '240',
      wholeTerm: '360',
      from: '2026-12-10',
      to: '2028-06-09',
    });
    expect(
      recurringTotals('30', { baseMonths: 1 }, { start: '2026-12-10', months: 6, days: 0 }),
    ).toMatchObject({ perMonth: '30', firstYear: '180', wholeTerm: '180', to: '2027-06-09' });
  });

  it('may be too short', () => {
    const least = { baseMonths: 12, leastMonths: 12 };
    expect([11, 12].map((months) => tooShort(least, { start: '2026-01-01', months, days: 0 }))).toEqual([
      true,
      false,
    ]);
    expect(tooShort({ baseMonths: 12 }, { start: '2026-01-01', months: 0, days: 1 })).toBe(false);
  });

  it('ends where it is read back from', () => {
    const day = fc
      .integer({ min: 0, max: 5000 })
      .map((days) => new Date(Date.UTC(2024, 0, 1 + days)).toISOString().slice(0, 10));
    fc.assert(
      fc.property(
        day,
        fc.integer({ min: 0, max: 120 }),
        fc.integer({ min: 0, max: 27 }),
        (start, months, days) => {
          const term = { start, months, days };
          if (months + days === 0) return;
          const read = termBetween(start, lastDay(term));
          expect(lastDay(read)).toBe(lastDay(term));
          expect(read.months * 31 + read.days).toBeGreaterThanOrEqual(0);
          expect(Number(monthsOf(read))).toBeGreaterThan(months - 0.001);
        },
      ),
    );
  });
});

describe('what is granted', () => {
  const key: Grant = { id: 'key', name: { en: 'Key accounts, decks' }, rate: '0.08' };
  const contract: Grant = {
    id: 'contract',
    name: { en: 'Frame contract' },
    price: '900',
    from: '2026-01-01',
    to: '2026-12-31',
  };
  it('is what is best for the customer, and tells why the others are not', () => {
    expect(chooseGrant('1000', [key, contract], '2026-11-26')).toEqual({
      won: { grant: contract, off: '100' },
      lost: [{ grant: key, why: 'worse', off: '80' }],
    });
    expect(chooseGrant('1000', [key, contract], '2027-01-01')).toEqual({
      won: { grant: key, off: '80' },
      lost: [{ grant: contract, why: 'over', off: '100' }],
    });
    expect(chooseGrant('1000', [key, contract], '2025-12-31').lost).toMatchObject([{ why: 'notYet' }]);
    expect(chooseGrant('1000', [contract], '2026-12-31').won?.grant).toBe(contract);
  });
  it('is a fixed one, even where it is worse, or dearer than the list', () => {
    const fixed: Grant = { id: 'fixed', name: { en: 'Tender' }, price: '1100', fixed: true };
    expect(chooseGrant('1000', [key, fixed], '2026-11-26')).toEqual({
      won: { grant: fixed, off: '-100' },
      lost: [{ grant: key, why: 'fixed', off: '80' }],
    });
  });
  it('is nothing where its price is dearer, or there is none', () => {
    expect(chooseGrant('800', [contract], '2026-11-26')).toEqual({
      won: null,
      lost: [{ grant: contract, why: 'dearer', off: '-100' }],
    });
    expect(chooseGrant('800', [], '2026-11-26')).toEqual({ won: null, lost: [] });
  });

  const levels = [
    { from: '10', rate: '0.05' },
    { from: '20', rate: '0.1' },
  ];
  it.each([
    ['9', '0', '0'],
    ['10', '0.05', '0.005'],
    ['19', '0.05', null],
    ['20', '0.1', null],
    ['29', '0.1', null],
  ])('for %s pieces is %s by whole quantity', (quantity, whole, slice) => {
    expect(quantityRate({ by: 'whole', levels }, quantity)).toBe(whole);
    if (slice !== null) expect(quantityRate({ by: 'slice', levels }, quantity)).toBe(slice);
  });
  it('by slice is the mean of what each piece gets', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), (quantity) => {
        let hundredths = 0;
        for (let piece = 1; piece <= quantity; piece++) hundredths += piece >= 20 ? 10 : piece >= 10 ? 5 : 0;
        expect(
          Math.round(Number(quantityRate({ by: 'slice', levels }, String(quantity))) * quantity * 100),
        ).toBe(hundredths);
      }),
    );
  });
});

describe('rates of one line', () => {
  const entry = {
    method: 'usage' as const,
    slices: [
      { from: '0', below: '1000', rate: '0.12' },
      { from: '1000', rate: '0.07' },
    ],
    least: '45',
  };
  it('take the place of those of the list, slice by slice; the charge due in any case is theirs', () => {
    expect(withRates(entry, { each: ['0.1', '0.05'] })).toEqual({
      method: 'usage',
      slices: [
        { from: '0', below: '1000', rate: '0.1' },
        { from: '1000', rate: '0.05' },
      ],
    });
    expect(withRates(entry, { each: ['0.1', '0.05'], least: '60' })).toMatchObject({ least: '60' });
  });
  it('are left out where the list has other slices by now, or another method', () => {
    expect(withRates(entry, { each: ['0.1'] })).toBe(entry);
    expect(withRates(entry, null)).toBe(entry);
    const unit = { method: 'unit' as const, price: '1' };
    expect(withRates(unit, { each: ['0.1', '0.05'] })).toBe(unit);
  });
});

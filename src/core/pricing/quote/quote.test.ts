import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exact } from '../../exact';
import {
  across,
  explain,
  multiplies,
  pricer,
  priceQuote,
  quoteWalk,
  sidesOf,
  taxed,
  worksOut,
  type Figure,
  type Offer,
  type PricedPart,
  type PricedQuote,
  type PriceEntry,
  type QuoteLine,
  type QuoteTerms,
  type Typed,
} from '..';

const day = '2026-11-26';
const name = { en: 'A thing' };
const item = (entry: PriceEntry | undefined, more: Partial<Extract<Offer, { is: 'item' }>> = {}): Offer => ({
  is: 'item',
  name,
  ...(entry ? { entry } : {}),
  ...more,
});
const line = (id: string, offer: Offer, more: Partial<QuoteLine> = {}): QuoteLine => ({
  id,
  sku: `SKU-${id}`,
  family: 'yard',
  counts: true,
  locked: false,
  discountable: true,
  offer,
  terms: { quantity: 1, day },
  ...more,
});
const unit = (price: string): PriceEntry => ({ method: 'unit', price });
const netsOf = (quote: PricedQuote) => quote.lines.map(({ price }) => exact(price.net).toFixed(2));

describe('a quote', () => {
  it('spreads its discount to the cent over what may be discounted', () => {
    const lines = ['1033.33', '999.99', '0.05'].map((price, index) => line(String(index), item(unit(price))));
    const quote = priceQuote(lines, { decimals: 2, whole: { by: 'rate', value: '0.05' } });
    expect(quote.lines.map(({ price }) => price.share ?? '0')).toEqual(['51.67', '50', '0']);
    expect(quote.whole).toMatchObject({ is: 'spread', amount: '101.67', base: '2033.37' });
    expect(quote.totals.net).toBe('1931.7');
  });

  it('comes to a net or a margin over the lines that are not locked', () => {
    const locked = line('a', item(unit('1000'), { cost: '800' }), { locked: true });
    const fixed = line('b', item(unit('200'), { cost: '100' }), { discountable: false });
    const open = line('c', item(unit('3000'), { cost: '1500' }));
    const net = priceQuote([locked, fixed, open], { decimals: 2, whole: { by: 'net', value: '4000' } });
    expect([net.totals.net, ...netsOf(net)]).toEqual(['4000', '1000.00', '200.00', '2800.00']);
    const margin = priceQuote([locked, fixed, open], { decimals: 2, whole: { by: 'margin', value: '0.4' } });
    expect(margin.totals).toMatchObject({ net: '4000', cost: '2400', margin: '0.4' });
    expect(margin.whole).toMatchObject({ base: '3000', amount: '200' });
  });

  it('of a million millions and more, in a currency without decimals, comes to what is typed, to the last unit', () => {
    const lines = Array.from({ length: 37 }, (_, at) =>
      line(String(at), item(unit(String(900_000_000_000 + at * 7_919))), {
        terms: { quantity: 1 + ((at * 31) % 900), day },
      }),
    );
    for (const whole of [
      { by: 'net', value: '9999999999999937' },
      { by: 'amount', value: '123456789012345' },
      { by: 'rate', value: '0.0333' },
    ] as const) {
      const quote = priceQuote(lines, { decimals: 0, whole });
      const sum = quote.lines.reduce((all, { price }) => all.plus(price.net), exact(0));
      expect(quote.whole.is).toBe('spread');
      expect(quote.totals.net).toBe(sum.toFixed());
      if (whole.by === 'net') expect(sum.toFixed()).toBe(whole.value);
      if (whole.by === 'amount')
        expect(quote.lines.reduce((all, { price }) => all.plus(price.share ?? 0), exact(0)).toFixed()).toBe(
          whole.value,
        );
    }
  });

  it('says what cannot be, and takes nothing off then', () => {
    const lines = [
      line('a', item(unit('1000'), { cost: '700' }), { locked: true }),
      line('b', item(unit('100'))),
    ];
    const whole = (typed: Typed) => priceQuote(lines, { decimals: 2, whole: typed });
    expect(whole({ by: 'amount', value: '100.01' })).toMatchObject({
      whole: { is: 'impossible', why: 'base' },
      totals: { net: '1100' },
    });
    expect(whole({ by: 'margin', value: '0.3' }).whole).toEqual({ is: 'impossible', why: 'cost' });
    expect(whole({ by: 'margin', value: '1' }).whole).toEqual({ is: 'impossible', why: 'cost' });
    expect(priceQuote(lines.slice(0, 1), { decimals: 2, whole: { by: 'margin', value: '1' } }).whole).toEqual(
      { is: 'impossible', why: 'margin' },
    );
    expect(whole({ by: 'amount', value: '100' }).totals.net).toBe('1000');
    // A share of nothing, where there is something to be had.
    expect(
      priceQuote(lines.slice(0, 1), { decimals: 2, whole: { by: 'rate', value: '0.03' } }).whole,
    ).toEqual({ is: 'impossible', why: 'base' });
    expect(priceQuote([], { decimals: 2, whole: { by: 'rate', value: '0.03' } }).whole.is).toBe('spread');
  });

  it('leaves optional and alternative lines out, and discounts them no further', () => {
    const quote = priceQuote([line('a', item(unit('100'))), line('b', item(unit('50')), { counts: false })], {
      decimals: 2,
      whole: { by: 'rate', value: '0.1' },
    });
    expect([quote.totals.net, ...netsOf(quote)]).toEqual(['90', '90.00', '50.00']);
  });

  it('takes a share of what families and items net to, never of a share', () => {
    const share = (of: string[]): QuoteLine =>
      line('s', item({ method: 'share', rate: '0.08', of }), { family: 'services' });
    const decks = [
      line('a', item(unit('1000')), {
        family: 'weighbridges',
        terms: { quantity: 2, day, hand: { by: 'rate', value: '0.1' } },
      }),
      line('b', item(unit('300'))),
    ];
    expect(netsOf(priceQuote([share(['weighbridges', 'SKU-b']), ...decks], { decimals: 2 }))[0]).toBe(
      '168.00',
    );
    expect(priceQuote([share(['services'])], { decimals: 2 }).lines[0]?.problems).toEqual([
      { code: 'line.wantsNet', params: { name: 'services' } },
    ]);
  });

  it.each<[string, Offer, number, object]>([
    ['no entry', item(undefined), 1, { code: 'line.unpriced', params: { items: 'SKU-a' } }],
    [
      'a quantity that no bracket holds',
      item({ method: 'bracket', brackets: [{ from: '1', below: '20', price: '900' }] }),
      20,
      { code: 'line.outside', params: { quantity: '20' } },
    ],
    ['a price still to type', item({ method: 'hand' }), 1, { code: 'line.wantsPrice' }],
    ['a cost that is not known', item({ method: 'costPlus', markUp: '0.3' }), 1, { code: 'line.wantsCost' }],
  ])('says what a line wants: %s', (_, offer, quantity, problem) => {
    const quote = priceQuote([line('a', offer, { terms: { quantity, day } })], { decimals: 2 });
    expect(quote.lines[0]?.problems).toMatchObject([problem]);
    expect(quote.totals.net).toBe('0');
  });

  it('charges what recurs over its term, and tells month and first year apart', () => {
    const recurs = (months: number, days = 0) => ({
      every: { baseMonths: 12, leastMonths: 6 },
      term: { start: '2026-12-01', months, days },
    });
    const over = (months: number, days = 0) =>
      priceQuote(
        [
          line('a', item(unit('240'), { cost: '60' }), { recurs: recurs(months, days) }),
          line('b', item(unit('500'))),
        ],
        { decimals: 2 },
      );
    expect(over(6).totals).toMatchObject({
      net: '620',
      recurring: '120',
      oneTime: '500',
      perMonth: '20',
      firstYear: '620',
    });
    expect(over(18).totals).toMatchObject({ net: '860', recurring: '360', perMonth: '20', firstYear: '740' });
    expect(over(18).lines[0]?.price).toMatchObject({
      unitNet: '240',
      cost: '90',
      margin: '0.75',
      recurring: { from: '2026-12-01', to: '2028-05-31' },
    });
    expect(netsOf(over(1, 10))[0]).toBe('26.45');
    expect(over(5, 30).lines[0]?.problems).toEqual([{ code: 'line.tooShort', params: { months: 6 } }]);
  });

  it('tells every amount in one way, however its cost was typed', () => {
    const [priced] = priceQuote([line('a', item({ method: 'included' }, { cost: '0.000' }))], {
      decimals: 0,
    }).lines;
    expect(priced?.price).toMatchObject({ unitCost: '0', cost: '0', net: '0' });
  });

  it('names what was granted, and why the other did not count', () => {
    const agreements = [
      { id: 'class', name: { en: 'Key accounts' }, rate: '0.08' },
      { id: 'frame', name: { en: 'Frame contract' }, price: '900', to: '2026-12-31' },
    ];
    const terms = {
      quantity: 12,
      day,
      agreements,
      quantityDiscount: {
        name: { en: 'From ten' },
        by: 'whole' as const,
        levels: [{ from: '10', rate: '0.02' }],
      },
      promotions: [{ id: 'p', name: { en: 'Autumn' }, rate: '0.05', to: '2026-11-01' }],
    };
    const [priced] = priceQuote([line('a', item(unit('1000')), { terms })], { decimals: 2 }).lines;
    expect(priced?.price.steps).toMatchObject([
      { kind: 'list', total: '1000' },
      {
        kind: 'agreement',
        name: { en: 'Frame contract' },
        amount: '-100',
        lost: [{ name: { en: 'Key accounts' }, why: 'worse', off: '80' }],
      },
      { kind: 'quantity', rate: '0.02', amount: '-18' },
      { kind: 'promotion', amount: '0', lost: [{ name: { en: 'Autumn' }, why: 'over' }] },
    ]);
    expect(priced?.price).toMatchObject({ unitNet: '882', net: '10584' });
  });
});

/** Fractions of whole numbers: another way to the same results. */
class Fraction {
  constructor(
    readonly top: bigint,
    readonly bottom: bigint,
  ) {}
  static of(text: string): Fraction {
    const [whole = '0', after = ''] = text.split('.');
    return new Fraction(BigInt(whole + after), 10n ** BigInt(after.length));
  }
  times(other: Fraction): Fraction {
    return new Fraction(this.top * other.top, this.bottom * other.bottom);
  }
  /** 1 - this. */
  rest(): Fraction {
    return new Fraction(this.bottom - this.top, this.bottom);
  }
  /** In minor units, rounded half up. */
  minor(decimals: number): bigint {
    return (2n * this.top * 10n ** BigInt(decimals) + this.bottom) / (2n * this.bottom);
  }
}

const money = fc
  .tuple(fc.integer({ min: 0, max: 99_999 }), fc.integer({ min: 0, max: 999 }))
  .map(([whole, rest]) => `${String(whole)}.${String(rest).padStart(3, '0')}`);
const rate = fc.integer({ min: 0, max: 1000 }).map((each) => exact(each).div(1000).toString());
const decimalsOf = fc.constantFrom(0, 2, 3);
const granted = (id: string) =>
  fc
    .array(rate, { maxLength: 3 })
    .map((rates) => rates.map((each, at) => ({ id: `${id}${String(at)}`, name, rate: each })));
const steps = fc.record({ from: fc.constant('1'), rate });
const typed: fc.Arbitrary<Typed> = fc.oneof(
  fc.record({
    by: fc.constantFrom('rate' as const, 'margin' as const),
    value: rate.filter((each) => each !== '1'),
  }),
  fc.record({ by: fc.constantFrom('amount' as const, 'net' as const), value: money }),
);
const entry: fc.Arbitrary<PriceEntry> = fc.oneof(
  money.map(unit),
  rate.map((markUp): PriceEntry => ({ method: 'costPlus', markUp })),
  fc.tuple(money, money).map(([a, b]): PriceEntry => ({
    method: 'bracket',
    brackets: [
      { from: '1', below: '10', price: a },
      { from: '10', price: b },
    ],
  })),
  fc.tuple(money, money, money).map(([a, b, least]): PriceEntry => ({
    method: 'usage',
    slices: [
      { from: '0', below: '10', rate: a },
      { from: '10', rate: b },
    ],
    least,
  })),
  fc.constant<PriceEntry>({ method: 'share', rate: '0.07', of: ['yard'] }),
  fc.constant<PriceEntry>({ method: 'included' }),
);
const offers: fc.Arbitrary<Offer> = fc.oneof(
  fc
    .tuple(entry, money, fc.option(fc.tuple(money, money, money), { nil: undefined }))
    .map(([each, cost, agreed]) =>
      item(each, { cost, ...(agreed ? { rates: { each: agreed.slice(0, 2), least: agreed[2] } } : {}) }),
    ),
  fc
    .tuple(
      money,
      money,
      rate,
      money,
      fc.array(
        fc.record({
          amount: money,
          baseMonths: fc.constantFrom(1, 12),
          months: fc.constantFrom(undefined, 18),
          counts: fc.constantFrom(undefined, 'line' as const, { every: 2 }, { every: 4 }),
        }),
        { maxLength: 4 },
      ),
    )
    .map(([a, b, surcharge, cost, recurring]): Offer => ({
      is: 'build',
      unpriced: [],
      cost: {
        unit: cost,
        once: '12.5',
        recurring: { '12__': { unit: '3.331', once: '1' }, '1__18': { unit: '0.07', once: '0' } },
      },
      parts: [
        { id: 'deck', kind: 'part', name, amount: a },
        { id: 'kit', kind: 'option', name, amount: b, counts: 'line' },
        {
          id: 'custom',
          kind: 'surcharge',
          name,
          rate: surcharge,
          amount: exact(a).times(surcharge).toString(),
        },
        ...recurring.map(({ amount, baseMonths, months, counts }, at): PricedPart => ({
          id: `r${String(at)}`,
          kind: 'part',
          name,
          amount,
          recurs: { baseMonths, ...(months === undefined ? {} : { months }) },
          ...(counts ? { counts } : {}),
        })),
      ],
    })),
);
const quotes = (max = 8): fc.Arbitrary<QuoteLine[]> =>
  fc
    .array(
      fc.record({
        offer: offers,
        family: fc.constantFrom('yard', 'services'),
        counts: fc.boolean(),
        locked: fc.boolean(),
        quantity: fc.oneof(
          fc.integer({ min: 1, max: 40 }),
          fc.integer({ min: 1, max: 40_000 }).map((thousandths) => thousandths / 1000),
        ),
        agreements: granted('a'),
        promotions: granted('p'),
        levels: fc.array(steps, { maxLength: 1 }),
        hand: fc.option(typed, { nil: undefined }),
        term: fc.option(
          fc.record({ months: fc.integer({ min: 0, max: 40 }), days: fc.integer({ min: 0, max: 27 }) }),
          { nil: undefined },
        ),
      }),
      { maxLength: max },
    )
    .map((all) =>
      all.map(({ quantity, agreements, promotions, levels, hand, term, ...each }, at): QuoteLine => ({
        ...line(String.fromCharCode(97 + at), each.offer),
        ...each,
        // A build is sold by the piece; an item may be measured.
        terms: {
          quantity: each.offer.is === 'build' ? Math.ceil(quantity) : quantity,
          day,
          agreements,
          promotions,
          ...(levels.length > 0 ? { quantityDiscount: { name, by: 'slice', levels } } : {}),
          ...(hand ? { hand } : {}),
          ...(term && each.offer.is === 'build' ? { term: { start: '2026-03-15', ...term } } : {}),
        },
        ...(term && each.offer.is === 'item'
          ? { recurs: { every: { baseMonths: 12 }, term: { start: '2026-03-15', ...term } } }
          : {}),
      })),
    );
const terms: fc.Arbitrary<QuoteTerms> = fc
  .record({ decimals: decimalsOf, whole: fc.option(typed, { nil: undefined }) })
  .map(({ decimals, whole }) => ({ decimals, ...(whole ? { whole } : {}) }));
const sum = (amounts: readonly string[]) =>
  amounts.reduce((all, each) => all.plus(each), exact(0)).toString();

describe('whatever is on a quote', () => {
  it('its parts sum to its wholes, to the minor unit', () => {
    fc.assert(
      fc.property(quotes(), terms, (lines, given) => {
        const quote = priceQuote(lines, given);
        const counted = quote.lines.filter((_, at) => lines[at]?.counts).map(({ price }) => price);
        expect(sum(counted.map(({ net }) => net))).toBe(quote.totals.net);
        expect(sum([quote.totals.oneTime, quote.totals.recurring])).toBe(quote.totals.net);
        // A line is what is due once and what recurs, to the minor unit.
        for (const price of counted)
          for (const what of ['list', 'net', 'share', 'cost'] as const)
            expect(sum(sidesOf(price).map((side) => side[what] ?? '0'))).toBe(price[what] ?? '0');
        for (const { net } of counted) expect(exact(net).decimalPlaces()).toBeLessThanOrEqual(given.decimals);
        if (quote.whole.is === 'spread') {
          expect(sum(counted.map(({ share = '0' }) => share))).toBe(quote.whole.amount);
          expect(quote.whole.net).toBe(quote.totals.net);
        }
      }),
    );
  });

  it('each line is rows that multiply across and sum to its net', () => {
    const seen = new Set<string>();
    fc.assert(
      fc.property(quotes(), terms, (lines, given) => {
        const quote = priceQuote(lines, given);
        quote.lines.forEach(({ price }, at) => {
          const rows = across(price, lines[at]?.terms.quantity ?? 1);
          expect(sum(rows.map(({ amount }) => amount))).toBe(price.net);
          for (const row of rows) {
            seen.add(row.is);
            expect([row, multiplies(row, given.decimals)]).toEqual([row, true]);
          }
        });
      }),
    );
    expect([...seen].sort()).toEqual(['all', 'once', 'pieces', 'share', 'term']);
    expect(multiplies({ is: 'pieces', quantity: 3, unitNet: '10', amount: '30.01' }, 2)).toBe(false);
  });

  it('the order of its lines does not matter', () => {
    fc.assert(
      fc.property(quotes(), terms, fc.infiniteStream(fc.nat()), (lines, given, random) => {
        const moved = lines
          .map((each) => ({ each: { ...each }, at: random.next().value as number }))
          .sort((a, b) => a.at - b.at)
          .map(({ each }) => each);
        const [before, after] = [priceQuote(lines, given), priceQuote(moved, given)];
        expect(after.totals).toEqual(before.totals);
        expect(after.whole).toEqual(before.whole);
        expect([...after.lines].sort((a, b) => (a.id < b.id ? -1 : 1))).toEqual(before.lines);
      }),
    );
  });

  it('every figure is explained, and works out', () => {
    const ofLine = [
      'unitList',
      'unitNet',
      'list',
      'before',
      'share',
      'net',
      'oneTime',
      'perMonth',
      'firstYear',
      'cost',
      'margin',
      'markUp',
    ] as const;
    const ofQuote = [
      'list',
      'net',
      'reduction',
      'oneTime',
      'recurring',
      'perMonth',
      'firstYear',
      'share',
      'cost',
      'margin',
    ] as const;
    let [seen, inPeriods] = [0, 0];
    fc.assert(
      fc.property(quotes(4), terms, (lines, given) => {
        const quote = priceQuote(lines, given);
        const periods = quote.lines.flatMap(({ id, price }) =>
          (price.subscriptions ?? []).flatMap((_, period) =>
            ofLine.map((what): Figure => ({ of: 'line', line: id, what, period })),
          ),
        );
        const figures: Figure[] = [
          ...periods,
          ...lines.flatMap(({ id }) => ofLine.map((what): Figure => ({ of: 'line', line: id, what }))),
          ...ofQuote.map((what): Figure => ({ of: 'quote', what })),
        ];
        for (const figure of figures) {
          const explained = explain(lines, quote, given.decimals, figure);
          if (!explained) continue;
          seen += 1;
          if (figure.of === 'line' && figure.period !== undefined) inPeriods += 1;
          expect(worksOut(explained), JSON.stringify(explained)).toBe(true);
        }
        for (const what of ['list', 'net', 'reduction', 'oneTime', 'perMonth', 'firstYear'] as const)
          expect(explain(lines, quote, given.decimals, { of: 'quote', what })).toBeDefined();
      }),
    );
    expect(seen).toBeGreaterThan(1000);
    expect(inPeriods).toBeGreaterThan(100);
  });

  it('its walk sums to its net', () => {
    fc.assert(
      fc.property(quotes(), terms, (lines, given) => {
        const quote = priceQuote(lines, given);
        const steps = quoteWalk(
          quote.lines.flatMap(({ price }, at) =>
            lines[at]?.counts ? [{ price, quantity: lines[at].terms.quantity }] : [],
          ),
        );
        expect(
          exact(steps[steps.length - 1]?.total ?? '0')
            .minus(quote.totals.net)
            .abs()
            .lt('1e-15'),
        ).toBe(true);
        expect(sum(steps.map(({ amount }) => amount))).toBe(steps[steps.length - 1]?.total);
        if (quote.whole.is === 'spread' && quote.whole.amount !== '0')
          expect(steps.find(({ kind }) => kind === 'share')?.amount).toBe(
            exact(quote.whole.amount).negated().toString(),
          );
      }),
    );
  });

  it('its tax is explained by rate, and gross is net and tax', () => {
    fc.assert(
      fc.property(quotes(), terms, fc.array(rate, { minLength: 1, maxLength: 3 }), (lines, given, rates) => {
        const quote = priceQuote(lines, given);
        const tax = taxed(
          quote.lines.flatMap(({ price }, at) =>
            lines[at]?.counts ? [{ net: price.net, rate: rates[at % rates.length] ?? '0' }] : [],
          ),
          given.decimals,
        );
        const withTax = { ...quote, tax };
        for (const what of ['tax', 'gross'] as const) {
          const explained = explain(lines, withTax, given.decimals, { of: 'quote', what });
          expect(explained && worksOut(explained)).toBe(true);
          expect(explain(lines, quote, given.decimals, { of: 'quote', what })).toBeUndefined();
        }
        expect(tax.net).toBe(quote.totals.net);
      }),
    );
  });

  it('an explanation of another value does not work out', () => {
    const lines = [line('a', item(unit('100')))];
    const net = explain(lines, priceQuote(lines, { decimals: 2 }), 2, { of: 'quote', what: 'net' });
    expect(net && worksOut({ ...net, value: '100.01' })).toBe(false);
  });

  it('any of four says the same as the others', () => {
    fc.assert(
      fc.property(quotes(), typed, decimalsOf, (lines, whole, decimals) => {
        const first = priceQuote(lines, { decimals, whole });
        if (first.whole.is !== 'spread') return;
        for (const by of ['amount', 'net', 'margin'] as const) {
          const value = first.whole[by];
          if (value === undefined) continue;
          const again = priceQuote(lines, { decimals, whole: { by, value } });
          expect(again.totals.net).toBe(first.totals.net);
          expect(netsOf(again)).toEqual(netsOf(first));
        }
      }),
    );
  });

  it('no way of edits moves a cent', () => {
    fc.assert(
      fc.property(
        quotes(),
        terms,
        fc.array(fc.tuple(fc.nat(), typed), { maxLength: 12 }),
        (lines, given, edits) => {
          const price = pricer();
          const first = price(lines, given);
          let now = lines;
          for (const [at, hand] of edits) {
            now = now.map((each, index) =>
              index === at % Math.max(1, lines.length) ? { ...each, terms: { ...each.terms, hand } } : each,
            );
            // What is kept from before makes no difference either.
            expect(price(now, { ...given, whole: hand })).toEqual(priceQuote(now, { ...given, whole: hand }));
          }
          now = now.map((each, index) => ({ ...each, terms: lines[index]?.terms ?? each.terms }));
          expect(price(now, given)).toEqual(first);
        },
      ),
    );
  });

  it('whole numbers of minor units come to the same', () => {
    const plain = fc.record({
      price: money,
      quantity: fc.integer({ min: 1, max: 500 }),
      agreement: rate,
      promotion: rate,
      hand: rate,
    });
    fc.assert(
      fc.property(
        fc.array(plain, { minLength: 1, maxLength: 6 }),
        rate,
        decimalsOf,
        (all, whole, decimals) => {
          const lines = all.map(({ price, quantity, agreement, promotion, hand }, at) =>
            line(String(at), item(unit(price)), {
              terms: {
                quantity,
                day,
                agreements: [{ id: 'a', name, rate: agreement }],
                promotions: [{ id: 'p', name, rate: promotion }],
                hand: { by: 'rate', value: hand },
              },
            }),
          );
          const nets = all.map(
            ({ price, quantity, agreement, promotion, hand }) =>
              BigInt(quantity) *
              [agreement, promotion, hand]
                .reduce((left, share) => left.times(Fraction.of(share).rest()), Fraction.of(price))
                .minor(decimals),
          );
          const total = nets.reduce((before, net) => before + net, 0n);
          const off = new Fraction(total, 1n).times(Fraction.of(whole)).minor(0);
          const quote = priceQuote(lines, { decimals, whole: { by: 'rate', value: whole } });
          const minor = (amount: string) =>
            BigInt(
              exact(amount)
                .times(10 ** decimals)
                .toFixed(),
            );
          expect(quote.lines.map(({ price }) => minor(price.before ?? price.net))).toEqual(nets);
          expect(minor(quote.totals.net)).toBe(total - off);
          for (const [at, { price }] of quote.lines.entries()) {
            // Each share is less than a minor unit from its exact part.
            const apart = minor(price.share ?? '0') * total - off * (nets[at] as bigint);
            expect(total === 0n || (apart < total && apart > -total)).toBe(true);
          }
        },
      ),
    );
  });
});

it('costs that are not known are not even named, on what recurs and what is discounted with the whole quote neither', () => {
  const part = (id: string, more: object) => ({ id, kind: 'part' as const, name, amount: '100', ...more });
  const lines = [{}, { counts: 'line' as const }, { recurs: { baseMonths: 12, months: 18 } }].map(
    (more, at): QuoteLine => ({
      id: String(at),
      sku: 'A',
      family: 'deck',
      counts: true,
      locked: false,
      discountable: true,
      offer: { is: 'build', unpriced: [], parts: [part('a', {}), part('b', more)] },
      terms: { quantity: 2, day },
      ...(at === 0
        ? { recurs: { every: { baseMonths: 12 }, term: { start: '2027-01-01', months: 6, days: 0 } } }
        : {}),
    }),
  );
  const named = (value: unknown): string[] =>
    typeof value === 'object' && value !== null
      ? Object.entries(value).flatMap(([key, inner]) => [key, ...named(inner)])
      : [];
  for (const whole of [undefined, { by: 'rate', value: '0.03' } as const]) {
    const keys = named(priceQuote(lines, { decimals: 2, ...(whole ? { whole } : {}) }).lines);
    expect(keys.filter((key) => ['cost', 'unitCost', 'margin'].includes(key))).toEqual([]);
    expect(keys).toContain('subscriptions');
  }
});

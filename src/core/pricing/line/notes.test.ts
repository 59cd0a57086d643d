/** What money, shares and margins typed or agreed on a build reach, and what is said of it. */
import { describe, expect, it } from 'vitest';
import { notesOn, priceQuote, walk, type LineTerms, type PricedPart, type QuoteLine } from '..';

const day = '2026-11-26';
const part = (id: string, amount: string, more: Partial<PricedPart> = {}): PricedPart => ({
  id,
  kind: 'part',
  name: {},
  amount,
  ...more,
});
const bundle = [
  part('deck', '5600'),
  part('training', '712', { counts: 'line' }),
  part('licence', '2700', { recurs: { baseMonths: 12, months: 12 } }),
];
const price = (terms: Partial<LineTerms>, parts: readonly PricedPart[] = bundle) =>
  walk(parts, { quantity: 2, day, ...terms }, 2, {
    unit: '3000',
    once: '400',
    recurring: { '12__12': { unit: '1000', once: '0' } },
  });
const contract = { id: 'frame', name: { en: 'Frame' }, price: '5000', fixed: true };

describe('a contract price on a build', () => {
  it('is of the piece: what comes once and what recurs stay as they are', () => {
    const { net, once, subscriptions, unitNet } = price({ agreements: [contract] });
    expect([unitNet, once?.net, subscriptions?.map((each) => each.net), net]).toEqual([
      '5000',
      '712',
      ['5400'],
      '16112',
    ]);
    expect(price({ agreements: [contract] }, bundle.slice(0, 2)).net).toBe('10712');
  });

  it('leaves the class discount to what it does not reach, and wins over it on the piece', () => {
    const { unitNet, once, subscriptions } = price({
      agreements: [{ id: 'class', name: {}, rate: '0.1' }, contract],
    });
    expect([unitNet, once?.net, subscriptions?.map((each) => each.net)]).toEqual(['5000', '640.8', ['4860']]);
  });

  it('of a promotion is of the piece, too', () => {
    expect(price({ promotions: [{ id: 'autumn', name: {}, price: '1000' }] })).toMatchObject({
      unitNet: '1000',
      once: { net: '712' },
      net: '8112',
    });
  });

  it('typed as money comes to the same', () => {
    expect(price({ hand: { by: 'net', value: '5000' } }).net).toBe(price({ agreements: [contract] }).net);
  });
});

describe('what is typed on a build', () => {
  it('as a share or a margin reaches all of it', () => {
    expect(price({ hand: { by: 'rate', value: '0.1' } })).toMatchObject({
      unitNet: '5040',
      once: { net: '640.8' },
      net: '15580.8',
    });
    const margin = price({ hand: { by: 'margin', value: '0.5' } });
    expect([
      margin.unitNet,
      margin.once?.net,
      margin.subscriptions?.map((each) => each.net),
      margin.margin,
    ]).toEqual(['6000', '800', ['4000'], '0.5']);
  });

  it.each<[string, Partial<LineTerms>, string[]]>([
    ['a net', { hand: { by: 'net', value: '5000' } }, ['pieceOnly']],
    ['an amount', { hand: { by: 'amount', value: '100' } }, ['pieceOnly']],
    ['a contract price', { agreements: [contract] }, ['pieceOnly']],
    ['a share', { hand: { by: 'rate', value: '0.1' } }, ['withRest']],
    ['a margin', { hand: { by: 'margin', value: '0.5' } }, ['withRest']],
    ['a class discount', { agreements: [{ id: 'class', name: {}, rate: '0.1' }] }, []],
  ])('%s is explained', (_, terms, notes) => {
    expect(notesOn(price(terms))).toEqual(notes);
    expect(notesOn(price(terms, bundle.slice(0, 1)))).toEqual([]);
  });

  it('a surcharge inside a bundle, and a formula, are explained', () => {
    expect(
      notesOn(
        price({}, [
          part('deck', '100'),
          part('less', '-4', { kind: 'inside' }),
          part('custom', '6', { kind: 'surcharge' }),
        ]),
      ),
    ).toEqual(['surchargeOfList']);
    expect(notesOn(price({}, [part('deck', '100')]), 'formula')).toEqual(['perPiece']);
  });

  it('as a margin means nothing where nothing is paid for', () => {
    const line = (cost?: string): QuoteLine => ({
      id: 'a',
      sku: 'A',
      family: 'yard',
      counts: true,
      locked: false,
      discountable: true,
      offer: {
        is: 'item',
        name: {},
        entry: { method: 'unit', price: '100' },
        ...(cost === undefined ? {} : { cost }),
      },
      terms: { quantity: 1, day, hand: { by: 'margin', value: '0.3' } },
    });
    for (const cost of [undefined, '0', '0.00']) {
      const quote = priceQuote([line(cost)], { decimals: 2, whole: { by: 'margin', value: '0.3' } });
      expect([quote.lines[0]?.problems, quote.lines[0]?.price.net, quote.whole]).toEqual([
        [{ code: 'line.hand', params: { why: 'cost' } }],
        '100',
        { is: 'impossible', why: 'cost' },
      ]);
    }
    expect(priceQuote([line('35')], { decimals: 2 }).totals.net).toBe('50');
  });
});

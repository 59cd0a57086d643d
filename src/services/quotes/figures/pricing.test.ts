/** Prices and sign-off as the services give them, against a real database. */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { exact } from '../../../core/exact';
import { lastDay } from '../../../core/pricing';
import { shippingDays } from '../../../core/production';
import { answerSignOffInput, type QuoteView } from '../../../contract';
import { connected, type FreightRateRow } from '../../../data';
import type { Actor } from '../../access/actor';
import { inDays } from '../../kernel/clock';
import { changeCustomer, seeCustomerChange } from '../customer-change';
import { findCustomers } from '../../customers/customers';
import type { Result } from '../../kernel/failure';
import { acceptQuote } from '../../orders/orders';
import { addByNumber, copyLine } from '../lines/quote-builds';
import { seeDeal } from './deal';
import { changeLine, removeLines } from '../lines/lines';
import { alternativeLines, takeInstead } from '../lines/alternatives';
import { listQuotes } from '../quote-list';
import { changeWhole, openQuote, seeQuote } from '../quotes';
import { sendQuote } from '../history/revisions';
import { answerSignOff, askSignOff, takeCounter } from '../sign-off/sign-offs';
import { askedOf } from '../sign-off/standing';
import { offered } from '../../paper/files/offered';
import { openDemo, personOf } from '../../kernel/testing';

let mara: Actor, joss: Actor, tobias: Actor, hedda: Actor, rhona: Actor;
beforeAll(async () => {
  await openDemo('pricing');
  const of = (name: string, house = 'harrowmoor') => personOf(`${name}@${house}.example`);
  [mara, joss, tobias, hedda, rhona] = [
    await of('mara'),
    await of('joss'),
    await of('tobias'),
    await of('hedda'),
    await of('rhona', 'dunmere'),
  ];
});
afterAll(() => connected().close());

const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.failures));
  return result.value;
};
const codes = (result: Result<unknown>): string[] =>
  result.ok ? [] : result.failures.map((failure) => failure.code);

async function quoteOf(
  actor: Actor,
  customer: string,
  ...items: [sku: string, quantity: number][]
): Promise<QuoteView> {
  const [found] = await findCustomers(actor, customer);
  let quote = value(await openQuote(actor, { customerId: found?.id ?? '', title: '' }));
  for (const [sku, quantity] of items)
    quote = value(await addByNumber(actor, quote.id, { version: quote.version, sku, quantity }));
  return quote;
}
const line = (quote: QuoteView, at = 1) => quote.lines[at - 1]?.id ?? '';
const changed = async (quote: QuoteView, change: object, at = 1, actor = mara) =>
  changeLine(actor, quote.id, line(quote, at), { version: quote.version, ...change });

describe('what a list prices by other methods', () => {
  it('has brackets with their edges, and says which quantity none holds', async () => {
    let quote = await quoteOf(mara, 'norrvik', ['SV-TRAIN-GRP', 4]);
    expect(quote.lines[0]?.price).toMatchObject({ per: 'line', net: '900' });
    for (const [quantity, net] of [
      [5, '1500'],
      [9, '1500'],
      [10, '2600'],
      [19, '2600'],
    ] as const) {
      quote = value(await changed(quote, { quantity }));
      expect(quote.lines[0]?.price.net).toBe(net);
    }
    expect(codes(await changed(quote, { quantity: 20 }))).toEqual(['line.outside']);
    expect(value(await seeQuote(mara, quote.id)).lines[0]).toMatchObject({
      quantity: 19,
      price: { net: '2600' },
    });
  });

  it('charges usage by slice, over the term', async () => {
    const quote = value(
      await changed(await quoteOf(mara, 'norrvik', ['DK-CLOUD', 7400]), {
        term: { start: '2027-01-01', months: 18, days: 0 },
      }),
    );
    expect(quote.lines[0]?.price).toMatchObject({
      unitNet: '648',
      net: '11664',
      recurring: { to: '2028-06-30', perMonth: '648', firstYear: '7776' },
    });
    expect(quote.totals).toMatchObject({ oneTime: '0', recurring: '11664', firstYear: '7776' });
    const few = value(await changed(quote, { quantity: 10 }));
    expect(few.lines[0]?.price).toMatchObject({ unitNet: '45', least: '45.00' });
  });

  it('prorates a subscription by months and days, not below its least term', async () => {
    let quote = await quoteOf(mara, 'norrvik', ['DK-SITE', 1]);
    expect(quote.lines[0]?.price.net).toBe('780');
    quote = value(await changed(quote, { term: { start: '2027-01-01', months: 18, days: 0 } }));
    expect(quote.lines[0]?.price.net).toBe('1170');
    quote = value(await changed(quote, { term: { start: '2027-01-01', months: 7, days: 10 } }));
    // 780 / 12 x (7 + 10/31)
    expect(quote.lines[0]?.price.net).toBe('475.97');
    expect(codes(await changed(quote, { term: { start: '2027-01-01', months: 5, days: 29 } }))).toEqual([
      'line.tooShort',
    ]);
    expect(
      codes(
        await changed(await quoteOf(mara, 'norrvik', ['SV-COMM', 1]), {
          term: { start: '2027-01-01', months: 12, days: 0 },
        }),
      ),
    ).toEqual(['line.notRecurring']);
  });

  it('takes a share of families, a typed price, and cost with a mark-up', async () => {
    let quote = await quoteOf(
      mara,
      'norrvik',
      ['SV-CARE', 1],
      ['SV-ENGINEER', 3],
      ['YE-SPARECELL', 1],
      ['BC-IP66', 2],
    );
    expect(quote.lines[1]?.problems).toMatchObject([{ code: 'line.wantsPrice' }]);
    expect(codes(await changed(quote, { price: '100' }, 3))).toEqual(['line.priceNotTyped']);
    quote = value(await changed(quote, { price: '118' }, 2));
    expect(quote.lines[1]).toMatchObject({ typedPrice: '118', problems: [], price: { net: '354' } });
    // 286.00 x 1.45, less 5 % for key accounts
    expect(quote.lines[2]?.price).toMatchObject({ unitList: '414.7', unitNet: '393.97' });
    const terminals = Number(quote.lines[3]?.price.net);
    expect(Number(quote.lines[0]?.price.net)).toBeCloseTo(terminals * 0.04, 2);
  });

  it('takes the cost of what is made up for a line from the line, where it is said there', async () => {
    const quote = value(
      await changed(await quoteOf(mara, 'norrvik', ['SV-ENGINEER', 3], ['SV-COMM', 1]), { price: '118' }),
    );
    const usual = quote.lines[0]?.price.unitCost;
    const said = value(await changed(quote, { cost: '70.80' }));
    expect(said.lines[0]).toMatchObject({
      typedCost: '70.8',
      price: { net: '354', unitCost: '70.8', cost: '212.4', margin: '0.4' },
    });
    expect(said.lines[1]?.typedCost).toBeUndefined();
    expect(codes(await changed(said, { cost: '5' }, 2))).toEqual(['line.costNotTyped']);
    expect(codes(await changed(said, { cost: '5' }, 1, rhona))).toHaveLength(1);
    expect(value(await changed(said, { cost: null })).lines[0]).toMatchObject({
      typedCost: null,
      price: { unitCost: usual },
    });
  });

  it('grants contract prices, discounts by quantity and promotions, and says why others do not count', async () => {
    const contract = await quoteOf(mara, 'brannoch', ['SV-CALIB', 2]);
    expect(contract.lines[0]?.price.steps).toMatchObject([
      { kind: 'list', total: '550' },
      { kind: 'agreement', name: { en: 'Frame contract Brannoch' }, total: '495' },
    ]);
    const kiosks = await quoteOf(mara, 'hallersee', ['YE-KIOSK', 4]);
    // The third piece and those after it: two of four at 5 %.
    expect(kiosks.lines[0]?.price.steps.find((step) => step.kind === 'quantity')).toMatchObject({
      rate: '0.025',
    });
    const terminal = await quoteOf(mara, 'hallersee', ['BC-IP66', 1]);
    expect(terminal.lines[0]?.price.steps.find((step) => step.kind === 'promotion')).toMatchObject({
      amount: '0',
      lost: [{ name: { en: 'Autumn terminals' }, why: 'over' }],
    });
  });
});

describe('agreements', () => {
  it('are listed with what they are for, whether they hold, and which lines they concern', async () => {
    const brannoch = await quoteOf(mara, 'brannoch', ['SILL-1212-X', 1], ['SV-CALIB', 2]);
    const { agreements } = value(await seeDeal(mara, brannoch.id));
    expect(agreements.find(({ price }) => price !== undefined)).toEqual({
      name: { en: 'Frame contract Brannoch', de: 'Rahmenvertrag Brannoch' },
      of: { en: 'Calibration visit', de: 'Kalibrierbesuch' },
      price: '495',
      from: '2026-01-01',
      to: '2027-12-31',
      fixed: false,
      holds: 'now',
      lines: [2],
    });
    // In another currency there is no such price, and another customer has not been granted it.
    expect(
      value(await seeDeal(mara, (await quoteOf(mara, 'hallersee', ['SV-CALIB', 1])).id)).agreements.some(
        ({ price }) => price !== undefined,
      ),
    ).toBe(false);
    const { grants } = connected().records;
    await grants.update({ validTo: '2026-02-01' }, { where: { sku: 'SV-CALIB' } });
    expect(
      value(await seeDeal(mara, brannoch.id)).agreements.find(({ price }) => price !== undefined)?.holds,
    ).toBe('over');
    await grants.update({ validTo: '2027-12-31' }, { where: { sku: 'SV-CALIB' } });
  });
});

describe('dates', () => {
  it('of a warranty run from delivery on, for as long as its item covers', async () => {
    const [{ id } = { id: '' }] = (await listQuotes(mara)).rows.filter(
      ({ number }) => number === 'Q-26-0012',
    );
    const { lines } = value(await seeQuote(mara, id));
    const [cover, ...more] = lines[0]?.covers ?? [];
    expect([cover?.name.en, more]).toEqual(['Warranty to 10 years', []]);
    expect(cover && lastDay({ start: cover.from, months: 120, days: 0 })).toBe(cover?.to);
    // Not before the slowest part, packing and the way.
    expect((cover?.from ?? '') > inDays(shippingDays)).toBe(true);
    expect(lines[1]?.covers).toEqual([]);
  });
  it('stay as they were sent, and follow the order', async () => {
    const [{ id } = { id: '' }] = (await listQuotes(mara)).rows.filter(
      ({ number }) => number === 'Q-26-0002',
    );
    const order = await connected().records.orders.findOne({ where: { quoteId: id } });
    const covers = value(await seeQuote(mara, id)).lines.flatMap((line) => line.covers);
    expect(covers.length).toBeGreaterThan(0);
    for (const cover of covers) expect(cover.from).toBe(order?.promised);
  });
});

describe('tax', () => {
  it('is by the country that is delivered to and the class of item, each rate by itself', async () => {
    const german = await quoteOf(mara, 'hallersee', ['SV-COMM', 1], ['DK-SITE', 1]);
    expect(german.tax).toEqual({
      net: '1670',
      byRate: [{ rate: '0.19', net: '1670', tax: '317.3' }],
      tax: '317.3',
      gross: '1987.3',
    });
    const american = await quoteOf(mara, 'pender', ['SV-COMM', 1], ['DK-SITE', 1]);
    const [software, rest] = american.tax?.byRate ?? [];
    expect([american.taxCountry, software?.rate, rest?.rate, rest?.tax]).toEqual(['US', '0.06', '0', '0']);
    expect(software?.net).toBe(american.lines[1]?.price.net);
  });
  it('is told to be unknown rather than none where the country has no rate', async () => {
    await connected().records.taxRates.destroy({ where: { country: 'SE' } });
    expect((await quoteOf(mara, 'norrvik', ['SV-COMM', 1])).tax).toBeUndefined();
  });
});

describe('alternatives', () => {
  const alone = (quote: QuoteView) =>
    quote.lines.map(({ alternative, insteadOf }) => (alternative ? insteadOf : '-'));
  it('count in the place of one another, in the totals and in a copy, and stand by themselves once the others are gone', async () => {
    let quote = await quoteOf(mara, 'norrvik', ['SILL-1212-X', 1], ['SILL-1515-X', 1], ['SV-COMM', 1]);
    const [first, second, third] = quote.lines.map(({ id, price }) => ({ id, net: Number(price.net) }));
    if (!first || !second || !third) throw new Error('three lines');
    expect(
      codes(await alternativeLines(mara, quote.id, { version: quote.version, lines: [first.id] })),
    ).toEqual(['line.oneAlternative']);
    quote = value(
      await alternativeLines(mara, quote.id, { version: quote.version, lines: [second.id, first.id] }),
    );
    expect(alone(quote)).toEqual(['-', 1, '-']);
    expect(Number(quote.totals.net)).toBeCloseTo(first.net + third.net, 2);
    expect(codes(await takeInstead(mara, quote.id, first.id, { version: quote.version }))).toEqual([
      'line.counts',
    ]);
    quote = value(await takeInstead(mara, quote.id, second.id, { version: quote.version }));
    expect(alone(quote)).toEqual([2, '-', '-']);
    expect(Number(quote.totals.net)).toBeCloseTo(second.net + third.net, 2);
    // A copy of an alternative is another one; a copy of what counts stands by itself.
    quote = value(await copyLine(mara, quote.id, first.id, { version: quote.version }));
    expect(alone(quote)).toEqual([3, 3, '-', '-']);
    quote = value(await removeLines(mara, quote.id, { version: quote.version, lines: [second.id] }));
    expect(alone(quote)).toEqual(['-', 1, '-']);
    quote = value(
      await alternativeLines(mara, quote.id, { version: quote.version, lines: [first.id], apart: true }),
    );
    expect(alone(quote)).toEqual(['-', '-', '-']);
  });
});

describe('another customer', () => {
  const to = async (part: string) => (await findCustomers(mara, part))[0]?.id ?? '';
  it('is seen before it changes anything: list, grants, region and what was typed in money', async () => {
    let quote = await quoteOf(mara, 'brannoch', ['SV-CALIB', 2], ['SILL-1212-X', 1], ['SV-ENGINEER', 1]);
    quote = value(await changed(quote, { hand: { by: 'net', value: '1700' } }, 2));
    quote = value(await changed(quote, { price: '100' }, 3));
    const seen = value(await seeCustomerChange(mara, quote.id, await to('hallersee')));
    expect(seen).toMatchObject({
      before: { currency: 'GBP' },
      after: { currency: 'EUR', priceList: 'EUR-2026' },
      takenBack: [2, 3],
    });
    // Without the frame contract the visit costs what the list says.
    expect(seen.lines[0]).toMatchObject({ before: '990', after: '1280' });
    expect(seen.lines[2]?.problems).toMatchObject([{ code: 'line.wantsPrice' }]);
    const still = value(await seeQuote(mara, quote.id));
    expect([still.version, still.currency, still.totals.net, still.customer.name]).toEqual([
      quote.version,
      'GBP',
      quote.totals.net,
      'Brannoch Aggregates plc',
    ]);

    const after = value(
      await changeCustomer(mara, quote.id, { version: quote.version, customerId: await to('hallersee') }),
    );
    expect(after).toMatchObject({
      currency: 'EUR',
      customer: { name: 'Hallersee Entsorgung GmbH', language: 'de', region: 'eu' },
      totals: { net: seen.after.net },
    });
    expect(after.lines.map(({ hand, typedPrice }) => [hand, typedPrice])).toEqual([
      [null, undefined],
      [null, undefined],
      [null, null],
    ]);
    expect(value(await seeQuote(mara, quote.id)).totals.net).toBe(seen.after.net);
  });
  it('keeps what was typed as a share, and refuses a customer that is not one’s own', async () => {
    const quote = value(
      await changed(await quoteOf(mara, 'brannoch', ['SILL-1212-X', 1]), {
        hand: { by: 'rate', value: '5' },
      }),
    );
    expect(
      value(
        await changeCustomer(mara, quote.id, { version: quote.version, customerId: await to('hallersee') }),
      ).lines[0]?.hand,
    ).toEqual({ by: 'rate', value: '0.05' });
    const [dealers] = await findCustomers(rhona, 'saltmarsh');
    for (const customerId of [dealers?.id ?? '', 'nonsense']) {
      expect(codes(await seeCustomerChange(mara, quote.id, customerId))).toEqual(['quote.unknownCustomer']);
      expect(codes(await changeCustomer(mara, quote.id, { version: quote.version + 1, customerId }))).toEqual(
        ['quote.unknownCustomer'],
      );
    }
  });
});

describe('any of four', () => {
  it('may be typed on a line, is kept as typed, and may be taken back', async () => {
    const quote = await quoteOf(mara, 'hallersee', ['SILL-1212-X', 3]);
    const list = quote.lines[0]?.price.unitNet;
    const margin = value(await changed(quote, { hand: { by: 'margin', value: '40' } }));
    expect(margin.lines[0]).toMatchObject({
      hand: { by: 'margin', value: '0.4' },
      price: { unitNet: '1633.33' },
    });
    const net = value(await changed(margin, { hand: { by: 'net', value: '1700.00' } }));
    expect(net.lines[0]?.price).toMatchObject({ unitNet: '1700', net: '5100' });
    const off = value(await changed(net, { hand: { by: 'amount', value: '89.12' } }));
    expect(off.lines[0]?.price.unitNet).toBe('1900');
    expect(codes(await changed(off, { hand: { by: 'amount', value: '5000' } }))).toEqual(['line.hand']);
    expect(value(await changed(off, { hand: null })).lines[0]).toMatchObject({
      hand: null,
      price: { unitNet: list },
    });
    expect(
      codes(
        await changed(await quoteOf(mara, 'hallersee', ['SV-DELIV', 1]), {
          hand: { by: 'rate', value: '1' },
        }),
      ),
    ).toEqual(['line.notDiscountable']);
  });

  it('may be typed for the whole quote, over what is neither locked nor fixed', async () => {
    let quote = await quoteOf(
      mara,
      'hallersee',
      ['SILL-1212-X', 1],
      ['SV-COMM', 1],
      ['SV-DELIV', 1],
      ['YE-KIOSK', 1],
    );
    quote = value(await changed(quote, { locked: true }, 2));
    quote = value(await changed(quote, { optional: true }, 4));
    const before = quote.totals.net;
    quote = value(
      await changeWhole(mara, quote.id, { version: quote.version, whole: { by: 'net', value: '3000' } }),
    );
    expect(quote.totals.net).toBe('3000');
    expect(quote.lines.map(({ price }) => price.share)).toEqual([
      expect.any(String),
      undefined,
      undefined,
      undefined,
    ]);
    expect(
      codes(await changeWhole(mara, quote.id, { version: quote.version, whole: { by: 'net', value: '1' } })),
    ).toEqual(['quote.whole']);
    quote = value(await changeWhole(mara, quote.id, { version: quote.version, whole: null }));
    // What is promised and can no longer be spread is not left out silently.
    const promised = await quoteOf(mara, 'norrvik', ['YE-KIOSK', 1], ['YE-LAMP', 2]);
    let less = value(
      await changeWhole(mara, promised.id, { version: promised.version, whole: { by: 'rate', value: '3' } }),
    );
    for (const at of [1, 2]) less = value(await changed(less, { locked: true }, at));
    expect([
      codes(await sendQuote(mara, less.id, { version: less.version })),
      codes(await acceptQuote(mara, less.id, less.version)),
    ]).toEqual([['quote.whole'], ['quote.whole']]);
    less = value(await changed(less, { locked: false }, 2));
    expect(value(await sendQuote(mara, less.id, { version: less.version })).revision.state).toBe('sent');
    expect(quote.totals.net).toBe(before);
  });

  it('tells a dealer no margin, and takes none from one', async () => {
    const quote = await quoteOf(rhona, 'saltmarsh', ['YE-KIOSK', 1]);
    expect(codes(await changed(quote, { hand: { by: 'margin', value: '40' } }, 1, rhona))).toEqual([
      'refused.permission',
    ]);
    expect(
      codes(
        await changeWhole(rhona, quote.id, { version: quote.version, whole: { by: 'margin', value: '40' } }),
      ),
    ).toEqual(['refused.permission']);
    expect(JSON.stringify(quote)).not.toMatch(/"(margin|cost|unitCost|signOff|limits)"/);
  });
});

describe('sign-off', () => {
  const beyond = async (rate: string) =>
    value(
      await changed(await quoteOf(mara, 'hallersee', ['SILL-1212-X', 2], ['SV-COMM', 1]), {
        hand: { by: 'rate', value: rate },
      }),
    );
  const asked = async (quote: QuoteView, reason = 'Third order this year') =>
    askSignOff(mara, quote.id, { version: quote.version, reason });
  const answer = (
    quote: QuoteView,
    actor: Actor,
    kind: 'yes' | 'no' | 'counter',
    counter: { line: string; rate?: string; no?: true }[] = [],
    at = 0,
  ) =>
    answerSignOff(actor, quote.id, quote.signOff?.history[at]?.id ?? '', {
      version: quote.version,
      answer: kind,
      comment: '',
      counter,
    });
  const held = (quote: QuoteView) => quote.signOff?.needs.map((need) => [need.role, need.held]);

  it('is not needed within limits', async () => {
    const quote = await beyond('8');
    expect(held(quote)).toEqual([]);
    expect(codes(await asked(quote))).toEqual(['signOff.notNeeded']);
    expect(value(await acceptQuote(mara, quote.id, quote.version)).number).toMatch(/^O-/);
  });

  it('holds once given, while no figure gets worse, and lets the quote be accepted', async () => {
    let quote = await beyond('12');
    expect(held(quote)).toEqual([['manager', false]]);
    expect(codes(await acceptQuote(mara, quote.id, quote.version))).toEqual(['quote.unsigned']);
    quote = value(await asked(quote));
    expect((await askedOf(tobias)).some((each) => each.quoteId === quote.id)).toBe(true);
    quote = value(await answer(value(await seeQuote(tobias, quote.id)), tobias, 'yes'));
    expect(held(quote)).toEqual([['manager', true]]);
    quote = value(await changed(quote, { hand: { by: 'rate', value: '11' } }));
    expect(held(quote)).toEqual([['manager', true]]);
    const worse = value(await changed(quote, { hand: { by: 'rate', value: '12.5' } }));
    expect(held(worse)).toEqual([['manager', false]]);
    quote = value(await changed(worse, { hand: { by: 'rate', value: '12' } }));
    expect(held(quote)).toEqual([['manager', true]]);
    expect(value(await acceptQuote(mara, quote.id, quote.version)).number).toMatch(/^O-/);
  });

  it('beyond the floor is for the level above too, and each signs alone', async () => {
    let quote = value(await asked(await beyond('20')));
    expect(held(quote)).toEqual([
      ['manager', false],
      ['director', false],
    ]);
    const of = (role: string) => quote.signOff?.history.findIndex((each) => each.role === role) ?? -1;
    expect(codes(await answer(quote, tobias, 'yes', [], of('director')))).toEqual(['signOff.notYours']);
    quote = value(await answer(quote, tobias, 'yes', [], of('manager')));
    expect(held(quote)).toEqual([
      ['manager', true],
      ['director', false],
    ]);
    quote = value(await answer(quote, hedda, 'yes', [], of('director')));
    expect(held(quote)).toEqual([
      ['manager', true],
      ['director', true],
    ]);
  });

  it('may be refused, or answered with what would do, which then holds', async () => {
    let quote = value(await answer(value(await asked(await beyond('14'))), tobias, 'no'));
    expect(held(quote)).toEqual([['manager', false]]);
    quote = value(await asked(quote, 'Once more'));
    const at = quote.signOff?.history.findIndex((each) => each.state === 'asked') ?? -1;
    expect(codes(await answer(quote, tobias, 'counter', [], at))).toEqual(['signOff.noOffer']);
    quote = value(await answer(quote, tobias, 'counter', [{ line: line(quote), rate: '10' }], at));
    expect(held(quote)).toEqual([['manager', false]]);
    quote = value(
      await takeCounter(mara, quote.id, quote.signOff?.history[at]?.id ?? '', { version: quote.version }),
    );
    expect(quote.lines[0]?.hand).toEqual({ by: 'rate', value: '0.1' });
    expect(held(quote)).toEqual([['manager', true]]);
  });

  it('may be refused for one line and signed for another, and tells what was asked beside what was given', async () => {
    let quote = await beyond('14');
    quote = value(
      await addByNumber(mara, quote.id, { version: quote.version, sku: 'SILL-1212-X', quantity: 1 }),
    );
    quote = value(
      await changeLine(mara, quote.id, quote.lines[1]?.id ?? '', {
        version: quote.version,
        hand: { by: 'rate', value: '14' },
      }),
    );
    quote = value(await asked(quote));
    const [first, second] = quote.lines.map(({ id }) => id);
    const history = (of: QuoteView) =>
      of.signOff?.history[0]?.lines.map(({ position, offer, refused }) => [position, offer, refused]);
    for (const wrong of [{ line: first ?? '' }, { line: first ?? '', rate: '10', no: true as const }])
      expect(
        await answerSignOffInput.isValid({ version: 1, answer: 'counter', comment: '', counter: [wrong] }),
      ).toBe(false);
    quote = value(await answer(quote, tobias, 'counter', [{ line: second ?? '', no: true }]));
    expect(history(quote)).toEqual([
      [1, undefined, undefined],
      [2, undefined, true],
    ]);
    // The first is signed as asked; the second still wants somebody.
    expect(quote.signOff?.needs.map(({ role, held: is, lines }) => [role, is, lines])).toContainEqual([
      'manager',
      false,
      expect.arrayContaining([2]),
    ]);
    quote = value(await changeLine(mara, quote.id, second ?? '', { version: quote.version, hand: null }));
    expect(held(quote)?.find(([role]) => role === 'manager')).toEqual(['manager', true]);
    expect(quote.signOff?.history[0]?.lines.map(({ discount }) => Number(discount) > 0.13)).toEqual([
      true,
      true,
    ]);
  });

  it('is nobody’s to give who has no right to', async () => {
    const quote = value(await asked(await beyond('12')));
    for (const actor of [mara, joss])
      expect(codes(await answer(quote, actor, 'yes'))).toEqual(['refused.permission']);
    expect(codes(await answer(quote, rhona, 'yes'))).toEqual(['refused.permission']);
    const signed = value(await answer(quote, tobias, 'yes'));
    expect(codes(await answer(signed, tobias, 'no'))).toEqual(['signOff.answered']);
    expect(
      codes(
        await answerSignOff(tobias, quote.id, 'nonsense', {
          version: signed.version,
          answer: 'yes',
          comment: '',
          counter: [],
        }),
      ),
    ).toEqual(['signOff.missing']);
    const entries = await connected().records.audit.findAll({
      where: { subject: quote.number },
      order: [['id', 'ASC']],
    });
    expect(entries.map((entry) => entry.action)).toEqual(
      expect.arrayContaining(['signOff.asked', 'signOff.answered']),
    );
  });

  it('on a manager’s own quote is for the level above', async () => {
    const quote = value(
      await changed(
        await quoteOf(tobias, 'hallersee', ['SILL-1212-X', 2]),
        { hand: { by: 'rate', value: '16' } },
        1,
        tobias,
      ),
    );
    expect(held(quote)).toEqual([['director', false]]);
    const waiting = value(
      await askSignOff(tobias, quote.id, { version: quote.version, reason: 'Fair stand' }),
    );
    expect(waiting.signOff?.mayAnswer).toEqual([]);
    expect(held(value(await answer(waiting, hedda, 'yes')))).toEqual([['director', true]]);
  });
});

describe('what a quote means for who sells it', () => {
  it('is commission above target, and what it adds to the year; told to its owner and to those who sign, nobody else', async () => {
    const quote = await quoteOf(mara, 'hallersee', ['SV-COMM', 1]);
    const deal = value(await seeDeal(mara, quote.id));
    // Services are to be sold at 5 % off: 890.00 x 0.95 = 845.50; 1.5 % of that and 4 % of 44.50.
    expect(deal.commission).toMatchObject({
      net: '890',
      target: '845.5',
      above: '44.5',
      amount: '14.46',
      lines: [{ position: 1, rate: '0.05', net: '845.5' }],
    });
    expect(deal.quota?.adds).toBe('890');
    expect(Object.keys(value(await seeDeal(joss, quote.id)))).toEqual(['agreements']);
    expect(Object.keys(value(await seeDeal(tobias, quote.id)))).toEqual([
      'agreements',
      'quota',
      'commission',
    ]);
    expect(codes(await seeDeal(rhona, quote.id))).toEqual(['quote.missing']);
  });

  it('a lease is kept as it was typed, and refused where it cannot be', async () => {
    let quote = await quoteOf(mara, 'hallersee', ['SV-COMM', 1]);
    const lease = { months: 36, yearlyRate: '5,4', residual: '100', inAdvance: true };
    quote = value(await changeWhole(mara, quote.id, { version: quote.version, lease }));
    expect(quote.lease).toEqual({ months: 36, yearlyRate: '0.054', residual: '100', inAdvance: true });
    expect(
      codes(
        await changeWhole(mara, quote.id, { version: quote.version, lease: { ...lease, residual: '5000' } }),
      ),
    ).toEqual(['lease.residual']);
    expect(
      value(await changeWhole(mara, quote.id, { version: quote.version, lease: null })).lease,
    ).toBeNull();
  });
});

describe('a dealer', () => {
  it("buys at the dealer's prices for an own customer, sells at an own price, and gives no discount on what is bought", async () => {
    let quote = await quoteOf(rhona, 'saltmarsh', ['YE-KIOSK', 2]);
    expect(quote.lines[0]?.price.steps.map(({ kind, rate }) => [kind, rate])).toContainEqual([
      'agreement',
      '0.18',
    ]);
    expect(quote.resale).toEqual({ share: '0.22', dealer: 'Dunmere Weigh & Haul' });
    quote = value(await changeWhole(rhona, quote.id, { version: quote.version, resale: '25' }));
    const buys = quote.lines[0]?.price.unitNet ?? '';
    const sells = offered(quote);
    expect(sells.lines[0]?.price).toMatchObject({
      unitNet: exact(buys).times('1.25').toDecimalPlaces(2).toString(),
      steps: [],
    });
    // Nothing of the buying price is left in what the customer reads.
    expect(
      JSON.stringify({ lines: sells.lines.map(({ price }) => price), totals: sells.totals }),
    ).not.toContain(`"${buys}"`);
    quote = value(await changed(quote, { resale: '5000' }, 1, rhona));
    expect(offered(quote).totals.net).toBe('10000');
    for (const change of [{ hand: { by: 'rate' as const, value: '5' } }, { locked: true }])
      expect(codes(await changed(quote, change, 1, rhona))).toEqual(['refused.permission']);
    expect(
      codes(
        await changeWhole(rhona, quote.id, { version: quote.version, whole: { by: 'rate', value: '5' } }),
      ),
    ).toEqual(['refused.permission']);
    // The next quote begins with the share that was typed last.
    const again = await personOf('rhona@dunmere.example');
    expect((await quoteOf(again, 'saltmarsh', ['YE-KIOSK', 1])).resale?.share).toBe('0.25');
  });

  it("is nobody else's way of selling", async () => {
    const quote = await quoteOf(mara, 'hallersee', ['SV-COMM', 1]);
    expect(quote.resale).toBeUndefined();
    expect(codes(await changeWhole(mara, quote.id, { version: quote.version, resale: '25' }))).toEqual([
      'refused.permission',
    ]);
    expect(codes(await changed(quote, { resale: '5000' }))).toEqual(['refused.permission']);
  });
});

describe('policies', () => {
  it('ask for a sign-off that limits do not, and one holds as long as what was read is the same', async () => {
    const [customer] = await findCustomers(mara, 'hallersee');
    await connected().records.customers.update({ paymentDays: 90 }, { where: { id: customer?.id ?? '' } });
    let quote = await quoteOf(mara, 'hallersee', ['SV-COMM', 1]);
    await connected().records.customers.update({ paymentDays: 30 }, { where: { id: customer?.id ?? '' } });
    expect(quote.signOff?.needs).toMatchObject([
      { role: 'manager', lines: [], held: false, policies: [{ en: 'paid later than after 60 days' }] },
    ]);
    expect(codes(await acceptQuote(mara, quote.id, quote.version))).toEqual(['quote.unsigned']);
    quote = value(await askSignOff(mara, quote.id, { version: quote.version, reason: 'They always pay' }));
    quote = value(
      await answerSignOff(tobias, quote.id, quote.signOff?.history[0]?.id ?? '', {
        version: quote.version,
        answer: 'yes',
        comment: '',
        counter: [],
      }),
    );
    expect(value(await seeQuote(mara, quote.id)).signOff?.needs[0]?.held).toBe(true);
    const row = await connected().records.revisions.findOne({ where: { quoteId: quote.id } });
    await row?.update({ customer: { ...row.customer, paymentDays: 120 } });
    expect(value(await seeQuote(mara, quote.id)).signOff?.needs[0]?.held).toBe(false);
  });
});

describe('freight', () => {
  it('is by the mass of all that is sold, builds with it, at least its least', async () => {
    let quote = await quoteOf(mara, 'hallersee', ['SV-FREIGHT', 1]);
    expect(quote.lines[0]?.price.net).toBe('180');
    quote = value(
      await addByNumber(mara, quote.id, { version: quote.version, sku: 'SILL-1212-X', quantity: 40 }),
    );
    const mass = (await connected().records.items.findByPk('SILL-1212-X'))?.mass ?? '0';
    expect(Number(quote.lines[0]?.price.net)).toBeCloseTo(Math.max(180, 0.09 * 40 * Number(mass)), 2);
    // Sweden has a row of its own: a base, more for each kg, and another least.
    const skog = await quoteOf(mara, 'norrvik', ['SV-FREIGHT', 1], ['SILL-1212-X', 40]);
    expect(Number(skog.lines[0]?.price.net)).toBeCloseTo(140 + 0.13 * 40 * Number(mass), 2);
    // It is followed from a day on: what stands on the day before is as it was.
    const { freightRates, lines } = connected().records;
    const own = { priceList: 'EUR-2026', country: 'SE' };
    const row = await freightRates.findOne({ where: own, raw: true });
    if (!row) throw new Error('no freight to Sweden');
    const { perKg, least, version, validTo } = row as FreightRateRow;
    await freightRates.create({
      ...own,
      id: randomUUID(),
      base: '1000',
      perKg,
      least,
      version,
      validFrom: inDays(1),
      validTo,
    });
    expect(value(await seeQuote(mara, skog.id)).lines[0]?.price.net).toBe(skog.lines[0]?.price.net);
    await lines.update({ pricedOn: inDays(1) }, { where: { id: skog.lines.map(({ id }) => id) } });
    expect(Number(value(await seeQuote(mara, skog.id)).lines[0]?.price.net)).toBeCloseTo(
      1000 + 0.13 * 40 * Number(mass),
      2,
    );
    // Where no freight is known to, it cannot be sold.
    await freightRates.destroy({ where: { priceList: 'EUR-2026', country: null } });
    expect(value(await seeQuote(mara, quote.id)).lines[0]?.problems).toMatchObject([
      { code: 'line.wantsValue' },
    ]);
    const heavy = await connected().records.quotes.findOne({ where: { number: 'Q-26-0007' } });
    const build = await connected().records.builds.findOne({ where: { quoteId: heavy?.id ?? '' } });
    expect(Number(build?.outcome.mass)).toBeGreaterThan(1000);
  });
});

/** What is taken from outside, and what is refused with which sentence. */
import { describe, expect, it } from 'vitest';
import type { Schema } from 'yup';
import { changeLineInput, changeLinesInput, lineValuesInput, placeLinesInput, newLineInput } from './lines';
import { changeQuoteInput, loseInput, quoteAddressInput, newQuoteInput } from './quotes';
import { newCustomerInput } from './customers';
import { personInput, signInInput } from './access';
import { contentInput, newBuildInput } from './builds';
import { discountPercent, typedMoney, typedOf } from './typed';
import { quantity } from './schema';
import { plainMoney, plainPercent, withoutCurrency } from '../core/exact';

const uuid = '00000000-0000-4000-8000-000000000000';

/** The codes of what is wrong; none where it is taken. */
async function refusals(schema: Schema, value: unknown): Promise<string[]> {
  try {
    await schema.validate(value, { abortEarly: false });
    return [];
  } catch (failure) {
    return (failure as { errors: string[] }).errors;
  }
}

describe('quantities', () => {
  it.each([1, 99_999, '7', ' 12 '])('%j is taken', async (value) => {
    expect(await refusals(quantity, value)).toEqual([]);
  });
  it.each([
    [0, 'quantity.range'],
    [-3, 'quantity.range'],
    [100_000, 'quantity.range'],
    [1e9, 'quantity.range'],
    [1.2345, 'quantity.fine'],
    [1e-9, 'quantity.fine'],
    ['two', 'quantity.notANumber'],
    ['1e3', 'quantity.notANumber'],
    ['1,5', 'quantity.notANumber'],
    [NaN, 'quantity.notANumber'],
    [undefined, 'quantity.required'],
  ])('%j is refused: %s', async (value, code) => {
    expect(await refusals(quantity, value)).toContain(code);
  });
});

describe('discounts', () => {
  it.each([
    ['3.5', '3.5'],
    ['3,5', '3.5'],
    [' 7 % ', '7'],
    ['100', '100'],
    ['0', '0'],
  ])('%j is %s percent', async (typed, plain) => {
    expect([await refusals(discountPercent, typed), plainPercent(typed)]).toEqual([[], plain]);
  });
  it.each([
    ['101', 'discount.range'],
    ['-1', 'discount.range'],
    ['much', 'discount.notANumber'],
    ['1e308', 'discount.notANumber'],
    ['', 'discount.required'],
  ])('%j is refused: %s', async (typed, code) => {
    expect(await refusals(discountPercent, typed)).toContain(code);
  });
});

describe('a currency beside an amount', () => {
  it.each<[string, ReturnType<typeof withoutCurrency>]>([
    ['120 EUR', { amount: '120', currency: 'EUR' }],
    ['eur 1,250.50', { amount: '1,250.50', currency: 'EUR' }],
    ['$99', { amount: '99', currency: 'USD' }],
    ['99,5 €', { amount: '99,5', currency: 'EUR' }],
    ['£ 5', { amount: '5', currency: 'GBP' }],
    ['120', { amount: '120' }],
    ['lots', { amount: 'lots' }],
    ['ten', { amount: 'ten' }],
    ['ten EUR', { amount: 'ten EUR' }],
    ['EUR 5 USD', { amount: 'EUR 5 USD' }],
    ['', { amount: '' }],
  ])('of %j is told apart', (typed, apart) => {
    expect(withoutCurrency(typed)).toEqual(apart);
  });
  it('is not sent, since an amount is in the currency of its quote', async () => {
    for (const value of ['120 USD', '120 EUR', '€120'])
      expect(await refusals(typedMoney, value)).toContain('amount.currency');
  });
});

describe('what is typed for a price', () => {
  it.each([
    ['1250', ',', '1250'],
    ['1,250', ',', '1250'],
    ['1,250.50', ',', '1250.50'],
    ['1.250,50', ',', '1250.50'],
    ['12,5', ',', '12.5'],
    ['1.250', ',', '1.250'],
    ['1.250', '.', '1250'],
    ['1.250,50', '.', '1250.50'],
    ['12.5', '.', '12.5'],
    ['1.234.567', '.', '1234567'],
    ['1 250,00', '.', '1250.00'],
    ['-3,5', ',', '-3.5'],
  ] as const)('%j, grouped by %j, is %s', (text, grouping, plain) => {
    expect(plainMoney(text, grouping)).toBe(plain);
  });
  it.each([
    [
      { by: 'rate', value: '7,5' },
      { by: 'rate', value: '0.075' },
    ],
    [
      { by: 'margin', value: '32 %' },
      { by: 'margin', value: '0.32' },
    ],
    [
      { by: 'net', value: '31382.35' },
      { by: 'net', value: '31382.35' },
    ],
    [
      { by: 'amount', value: '100,50' },
      { by: 'amount', value: '100.5' },
    ],
  ] as const)('%j is kept as %j', (typed, kept) => expect(typedOf(typed)).toEqual(kept));
  it.each([
    [{ by: 'rate', value: '101' }, 'discount.range'],
    [{ by: 'net', value: '-1' }, 'amount.range'],
    [{ by: 'net', value: '1e308' }, 'amount.notANumber'],
    [{ by: 'amount', value: 'lots' }, 'amount.notANumber'],
    [{ by: 'margin', value: '100' }, 'margin.range'],
    [{ by: 'price', value: '1' }, 'input.badKind'],
    [{ by: 'net', value: '1', currency: 'USD' }, 'input.unknownField'],
    [{ by: 'net' }, 'amount.required'],
  ])('%j is refused: %s', async (hand, code) => {
    expect(await refusals(changeLineInput, { version: 1, hand })).toContain(code);
    expect(await refusals(changeQuoteInput, { version: 1, whole: hand })).toContain(code);
  });
  it('may be taken back', async () => {
    expect(await refusals(changeLineInput, { version: 1, hand: null })).toEqual([]);
    expect(await refusals(changeQuoteInput, { version: 1, whole: null })).toEqual([]);
  });
  it.each([
    [{ start: '2027-02-29', months: 1, days: 0 }, 'input.badDate'],
    [{ start: 'soon', months: 1, days: 0 }, 'input.badDate'],
    [{ start: '2027-01-01', months: -1, days: 0 }, 'quantity.range'],
    [{ start: '2027-01-01', months: 1.5, days: 0 }, 'quantity.whole'],
    [{ start: '2027-01-01', months: 1, days: 31 }, 'quantity.range'],
  ])('a term %j is refused: %s', async (term, code) => {
    expect(await refusals(changeLineInput, { version: 1, term })).toContain(code);
  });
});

describe('requests', () => {
  it('hold only what they may', async () => {
    expect(
      await refusals(changeLineInput, { version: 3, quantity: 2, hand: { by: 'rate', value: '5' } }),
    ).toEqual([]);
    expect(await refusals(changeLineInput, { version: 3, net: '1.00' })).toEqual(['input.unknownField']);
    expect(await refusals(newLineInput, { version: 1, sku: 'SILL-12', quantity: 1, cost: '0' })).toEqual([
      'input.unknownField',
    ]);
    expect(
      await refusals(contentInput, {
        version: 1,
        decisions: [{ on: 'mounting', value: 'pit', standing: 'free' }],
      }),
    ).toEqual(['input.unknownField']);
  });
  it('name everything that is wrong', async () => {
    expect((await refusals(newLineInput, { version: 0, quantity: 'x' })).sort()).toEqual([
      'input.badVersion',
      'input.required',
      'quantity.notANumber',
    ]);
    expect(await refusals(newQuoteInput, { customerId: 'acme', title: 'x'.repeat(121) })).toEqual(
      expect.arrayContaining(['input.badId', 'input.tooLong']),
    );
    expect(await refusals(newQuoteInput, { customerId: uuid })).toEqual([]);
    expect((await refusals(signInInput, { email: 'mara', password: '' })).sort()).toEqual([
      'input.badEmail',
      'signIn.passwordMissing',
    ]);
  });
  it.each([
    [{ on: 'a', value: 5 }, 'decision.wrongType'],
    [{ on: 'a', value: ['x'] }, 'decision.wrongType'],
    [{ on: 'x'.repeat(401), value: true }, 'input.tooLong'],
    [{ value: true }, 'input.required'],
    [{ on: 'a', value: 'x'.repeat(2_001) }, 'decision.wrongType'],
  ])('a decision %j is refused: %s', async (decision, code) => {
    expect(await refusals(contentInput, { version: 1, decisions: [decision] })).toContain(code);
  });
  it('may not be endless', async () => {
    const decisions = Array.from({ length: 2_001 }, (_, index) => ({ on: `a${String(index)}`, value: true }));
    expect(await refusals(contentInput, { version: 1, decisions })).toContain('input.tooMany');
  });
});

describe('what a build is made of', () => {
  it('needs no warnings passed and no special parts', async () => {
    expect(await contentInput.validate({ version: 1, decisions: [] })).toEqual({
      version: 1,
      decisions: [],
      passed: [],
      special: [],
    });
  });
  const part = { item: 'RB-HUB', text: 'Hub in a steel box', cost: '120', price: '240.5', days: 10 };
  it('takes special parts with amounts as text, and says what is wrong with others', async () => {
    expect(await refusals(contentInput, { version: 1, decisions: [], special: [part] })).toEqual([]);
    for (const wrong of [{ cost: '-1' }, { price: '1e5' }, { price: '' }, { cost: 'much' }])
      expect(
        await refusals(contentInput, { version: 1, decisions: [], special: [{ ...part, ...wrong }] }),
      ).not.toEqual([]);
    expect(
      await refusals(contentInput, { version: 1, decisions: [], special: [{ ...part, days: 1.5 }] }),
    ).toEqual(['quantity.whole']);
    expect(
      await refusals(contentInput, { version: 1, decisions: [], special: [{ ...part, margin: '0.5' }] }),
    ).toEqual(['input.unknownField']);
  });
  it('passes a warning only with a reason, and lets nobody say who passed it', async () => {
    expect(
      await refusals(contentInput, {
        version: 1,
        decisions: [],
        passed: [{ rule: 'pitPump', reason: '  ' }],
      }),
    ).toEqual(['input.required']);
    expect(
      await refusals(contentInput, {
        version: 1,
        decisions: [],
        passed: [{ rule: 'pitPump', reason: 'dry ground', by: 'Somebody' }],
      }),
    ).toEqual(['input.unknownField']);
  });
  it.each([
    [{}, 'build.oneStart'],
    [{ modelId: 'ridgeback', partNumber: 'RB-060' }, 'build.oneStart'],
  ])('begins from one thing: %j is refused', async (start, code) => {
    expect(await refusals(newBuildInput, { quoteId: uuid, ...start })).toEqual([code]);
  });
  it.each([{}, { quoteId: uuid, customerId: uuid }])('belongs to one: %j is refused', async (home) => {
    expect(await refusals(newBuildInput, { modelId: 'ridgeback', ...home })).toEqual(['build.oneHome']);
  });
});

describe('changes of several lines', () => {
  const base = { version: 1, lines: [uuid] };
  it.each<[string, Schema, unknown]>([
    ['a discount', changeLinesInput, { ...base, hand: { by: 'rate', value: '3,5' } }],
    ['a group', changeLinesInput, { ...base, group: ' Gate ' }],
    ['out of a group', changeLinesInput, { ...base, group: null }],
    [
      'cells of a column',
      lineValuesInput,
      {
        version: 1,
        rows: [
          { line: uuid, quantity: 3 },
          { line: uuid, hand: null },
        ],
      },
    ],
    ['a place', placeLinesInput, { ...base, to: 4 }],
    ['columns', personInput, { ledger: [{ id: 'total', pinned: true }] }],
    ['the usual columns', personInput, { ledger: null }],
    ['rates', changeLineInput, { version: 1, rates: { each: ['0.1', '0,09'], least: '45' } }],
    ['a lease', changeQuoteInput, { version: 1, lease: { months: 36, yearlyRate: '5.4', inAdvance: true } }],
    ['no lease', changeQuoteInput, { version: 1, lease: null }],
  ])('%s are taken', async (_what, schema, value) => {
    expect(await refusals(schema, value)).toEqual([]);
  });
  it.each<[string, Schema, unknown, string]>([
    ['no lines', changeLinesInput, { version: 1, lines: [] }, 'input.required'],
    ['a line that is none', changeLinesInput, { version: 1, lines: ['x'] }, 'input.badId'],
    ['a group without a name', changeLinesInput, { ...base, group: ' ' }, 'group.noName'],
    ['a forged net', changeLinesInput, { ...base, net: '1' }, 'input.unknownField'],
    [
      'more rows than are read at once',
      lineValuesInput,
      { version: 1, rows: Array.from({ length: 10_000 }, () => ({ line: uuid, quantity: 1 })) },
      'input.tooMany',
    ],
    [
      'a quantity below nothing',
      lineValuesInput,
      { version: 1, rows: [{ line: uuid, quantity: -2 }] },
      'quantity.range',
    ],
    ['a rate of 1e308', changeLineInput, { version: 1, rates: { each: ['1e308'] } }, 'amount.notANumber'],
    ['a place before the first', placeLinesInput, { ...base, to: 0 }, 'quantity.range'],
    ['a column that is none', personInput, { ledger: [{ id: 'secret', pinned: false }] }, 'input.badKind'],
    [
      'a lease without end',
      changeQuoteInput,
      { version: 1, lease: { months: 0, yearlyRate: '5', inAdvance: false } },
      'lease.months',
    ],
    [
      'a lease at 200 %',
      changeQuoteInput,
      { version: 1, lease: { months: 12, yearlyRate: '200', inAdvance: false } },
      'lease.rate',
    ],
    ['a day that is none', changeQuoteInput, { version: 1, validUntil: '2026-02-30' }, 'input.badDate'],
    ['a reason that is none', loseInput, { version: 1, reason: 'weather' }, 'lost.noReason'],
  ])('%s is refused', async (_what, schema, value, code) => {
    expect(await refusals(schema, value)).toContain(code);
  });
});

describe('a new customer', () => {
  const invoice = { street: '1 Mill Lane', town: 'Otterbeck', postcode: 'OB1 1BH', country: 'GB' };
  const customer = {
    name: 'Otter Stone',
    class: 'direct',
    priceList: 'GBP-2026',
    language: 'en',
    region: 'uk',
    contactName: 'Ada Fell',
    contactEmail: 'a.fell@otter.example',
    paymentDays: '45',
    invoice,
  };
  it('is taken, with or without an address for delivery', async () => {
    expect(await refusals(newCustomerInput, customer)).toEqual([]);
    expect(
      await refusals(newCustomerInput, { ...customer, delivery: { ...invoice, street: 'Yard 3' } }),
    ).toEqual([]);
  });
  it.each<[object, string]>([
    [{ name: ' ' }, 'newCustomer.noName'],
    [{ contactEmail: 'ada' }, 'input.badEmail'],
    [{ contactEmail: '' }, 'newCustomer.noEmail'],
    [{ paymentDays: '-1' }, 'newCustomer.days'],
    [{ paymentDays: 'soon' }, 'newCustomer.days'],
    [{ paymentDays: 400 }, 'newCustomer.days'],
    [{ class: 'friend' }, 'input.badKind'],
    [{ invoice: { ...invoice, country: 'Britain' } }, 'address.badCountry'],
    [{ invoice: { ...invoice, street: '' } }, 'address.noStreet'],
    [{ delivery: { ...invoice, town: '' } }, 'address.noTown'],
    [{ dealerId: uuid }, 'input.unknownField'],
  ])('%j is refused: %s', async (more, code) => {
    expect(await refusals(newCustomerInput, { ...customer, ...more })).toContain(code);
  });
  it('on a quote an address is said in one way', async () => {
    expect(await refusals(quoteAddressInput, { version: 1, kind: 'delivery', copyInvoice: true })).toEqual(
      [],
    );
    expect(
      await refusals(quoteAddressInput, { version: 1, kind: 'delivery', copyInvoice: true, from: uuid }),
    ).toEqual(['address.one']);
    expect(await refusals(quoteAddressInput, { version: 1, kind: 'delivery' })).toEqual(['address.one']);
  });
});

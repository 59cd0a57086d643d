/** New customers and their addresses, on a real database with the demo in it. */
import { beforeAll, describe, expect, it } from 'vitest';
import type { NewCustomerInput, QuoteView } from '../../contract';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { findCustomers } from './customers';
import type { Result } from '../kernel/failure';
import { createCustomer, customerMeans } from './new-customer';
import { changeAddress, knownAddresses } from '../quotes/quote-addresses';
import { changeContact, knownContacts } from '../quotes/quote-contacts';
import { addByNumber } from '../quotes/lines/quote-builds';
import { openQuote, seeQuote } from '../quotes/quotes';
import { openDemo, personOf } from '../kernel/testing';

let mara: Actor, rhona: Actor, wen: Actor;
const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.failures));
  return result.value;
};
const codes = (result: Result<unknown>): string[] =>
  result.ok ? [] : result.failures.map(({ code }) => code);
const invoice = { street: '1 Mill Lane', town: 'Otterbeck', postcode: 'OB1 1BH', country: 'GB' };
const input = (more: Partial<NewCustomerInput> = {}): NewCustomerInput => ({
  name: 'Otter Stone',
  class: 'direct',
  priceList: 'GBP-2026',
  language: 'en',
  region: 'uk',
  contactName: 'Ada Fell',
  contactEmail: 'a.fell@otter.example',
  paymentDays: 45,
  invoice,
  ...more,
});
const where = (quote: QuoteView) =>
  quote.customer.addresses.map(({ kind, street, country }) => `${kind}: ${street}, ${country}`);

beforeAll(async () => {
  await openDemo('customers');
  [mara, rhona, wen] = [
    await personOf('mara@harrowmoor.example'),
    await personOf('rhona@dunmere.example'),
    await personOf('wen@harrowmoor.example'),
  ];
});

describe('a new customer', () => {
  it('has the next number, is found, and brings everything to a quote', async () => {
    const made = value(await createCustomer(mara, input()));
    const before = await connected().records.customers.max('number', { where: { dealerId: null } });
    expect(before).toBe(made.number);
    expect((await findCustomers(mara, 'otter sto')).map(({ id }) => id)).toEqual([made.id]);
    const quote = value(await openQuote(mara, { customerId: made.id, title: '' }));
    expect(quote).toMatchObject({
      priceList: 'GBP-2026',
      customer: { contactName: 'Ada Fell', paymentDays: 45, region: 'uk' },
    });
    expect(where(quote)).toEqual(['invoice: 1 Mill Lane, GB', 'delivery: 1 Mill Lane, GB']);
  });
  it('is refused where it is known already, and where the list or the right is missing', async () => {
    expect(codes(await createCustomer(mara, input()))).toEqual(['newCustomer.known']);
    expect(codes(await createCustomer(mara, input({ name: 'Another', priceList: 'XXX' })))).toEqual([
      'newCustomer.noList',
    ]);
    expect(codes(await createCustomer(wen, input({ name: 'Another' })))).toEqual(['refused.permission']);
  });
  it("of a dealer is the dealer's own, direct and on the dealer's list, and nobody else finds it", async () => {
    const means = await customerMeans(rhona);
    expect(means.classes).toEqual(['direct']);
    expect(means.priceLists).toHaveLength(1);
    expect(codes(await createCustomer(rhona, input({ name: 'Hill Farm', priceList: 'USD-2026' })))).toEqual([
      'newCustomer.noList',
    ]);
    const made = value(
      await createCustomer(rhona, input({ name: 'Hill Farm', priceList: means.priceLists[0]?.code ?? '' })),
    );
    expect((await findCustomers(rhona, 'hill farm')).map(({ id }) => id)).toEqual([made.id]);
    expect(await findCustomers(mara, 'hill farm')).toEqual([]);
  });
  it('gets numbers one at a time, however many are made at once', async () => {
    const made = await Promise.all(
      ['One', 'Two', 'Three', 'Four'].map((name) => createCustomer(mara, input({ name }))),
    );
    expect(new Set(made.map((result) => value(result).number)).size).toBe(4);
  });
});

describe('addresses on a quote', () => {
  it("are the customer's known ones, a new one that the customer then has, or that of the invoice; tax follows delivery", async () => {
    const customer = await connected().records.customers.findOne({ where: { number: 'C-1001' } });
    let quote = value(await openQuote(mara, { customerId: customer?.id ?? '', title: '' }));
    quote = value(await addByNumber(mara, quote.id, { version: quote.version, sku: 'SV-COMM', quantity: 1 }));
    expect(where(quote)[1]).toBe('delivery: North Face Quarry, Gate 2, GB');
    const depot = value(await knownAddresses(mara, quote.id)).find(({ street }) =>
      street.startsWith('Slate Row Depot'),
    );
    quote = value(
      await changeAddress(mara, quote.id, {
        version: quote.version,
        kind: 'delivery',
        from: depot?.id ?? '',
      }),
    );
    expect(where(quote)).toEqual(['invoice: 4 Slate Row, GB', 'delivery: Slate Row Depot, Yard 3, GB']);
    quote = value(
      await changeAddress(mara, quote.id, {
        version: quote.version,
        kind: 'delivery',
        address: { street: 'Hafenweg 2', town: 'Emden', postcode: '26721', country: 'DE' },
      }),
    );
    expect(quote.taxCountry).toBe('DE');
    expect(quote.tax?.byRate.map(({ rate }) => rate)).toEqual(['0.19']);
    expect(value(await knownAddresses(mara, quote.id)).map(({ street }) => street)).toContain('Hafenweg 2');
    quote = value(
      await changeAddress(mara, quote.id, { version: quote.version, kind: 'delivery', copyInvoice: true }),
    );
    expect(where(quote)[1]).toBe('delivery: 4 Slate Row, GB');
    // Somebody else's address is none of theirs.
    const other = await connected().records.addresses.findOne({ where: { town: 'Otterbeck' } });
    expect(
      codes(
        await changeAddress(mara, quote.id, {
          version: quote.version,
          kind: 'delivery',
          from: other?.id ?? '',
        }),
      ),
    ).toEqual(['address.missing']);
    expect(value(await seeQuote(mara, quote.id)).customer.addresses).toEqual(quote.customer.addresses);
    expect(codes(await knownAddresses(rhona, quote.id))).toEqual(['quote.missing']);
  });
});

describe('the contact on a quote', () => {
  it('is the usual one, another who is known, or somebody new whom the customer then has', async () => {
    const [customer] = await findCustomers(mara, 'gower');
    expect(customer?.name).toBe('Brannoch Aggregates plc');
    let quote = value(await openQuote(mara, { customerId: customer?.id ?? '', title: '' }));
    expect(quote.customer).toMatchObject({
      contactName: 'Callum Wray',
      contactEmail: 'c.wray@brannoch.example',
    });
    const known = value(await knownContacts(mara, quote.id));
    expect(known.map(({ name, task }) => `${name}/${task}`)).toEqual([
      'Callum Wray/',
      'Ines Gower/Purchasing',
      'Fenn Haddow/Works electrician',
    ]);
    quote = value(await changeContact(mara, quote.id, { version: quote.version, from: known[1]?.id ?? '' }));
    expect(quote.customer.contactName).toBe('Ines Gower');
    quote = value(
      await changeContact(mara, quote.id, {
        version: quote.version,
        contact: { name: 'Tam Roe', email: 't.roe@brannoch.example', task: '' },
      }),
    );
    expect(value(await seeQuote(mara, quote.id)).customer.contactEmail).toBe('t.roe@brannoch.example');
    expect(value(await knownContacts(mara, quote.id)).map(({ name }) => name)).toContain('Tam Roe');
    const other = await connected().records.contacts.findOne({ where: { name: 'Jutta Brehm' } });
    expect(
      codes(await changeContact(mara, quote.id, { version: quote.version, from: other?.id ?? '' })),
    ).toEqual(['contact.missing']);
    expect(codes(await knownContacts(rhona, quote.id))).toEqual(['quote.missing']);
    // A quote opened next is for the usual one again.
    expect(
      value(await openQuote(mara, { customerId: customer?.id ?? '', title: '' })).customer.contactName,
    ).toBe('Callum Wray');
  });
});

import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { findCustomers } from '../customers/customers';
import { listOrders } from '../orders/orders';
import { listQuotes } from '../quotes/quote-list';
import { findItems, search } from './search';
import { openDemo, personOf } from '../kernel/testing';

let mara: Actor;
let rhona: Actor;
beforeAll(async () => {
  await openDemo('search');
  [mara, rhona] = [await personOf('mara@harrowmoor.example'), await personOf('rhona@dunmere.example')];
});
afterAll(() => connected().close());

describe('finding', () => {
  it.each([
    ['termnal', 'BEACON'],
    ['beacn', 'BEACON'],
    ['RB-JBOX8', 'RB-JBOX-08'],
    ['rb-jbox-1', 'RB-JBOX-10'],
    ['ridg', 'RIDGEBACK'],
    ['Anzeige', 'YE-DISPLAY'],
  ])('finds the item meant by "%s"', async (typed, sku) => {
    expect((await findItems(mara, typed, 5)).map((each) => each.sku)).toContain(sku);
    if (typed !== 'Anzeige') expect((await findItems(mara, typed, 5))[0]?.sku).toBe(sku);
  });

  it('offers only what is sold by itself, and says what is configured', async () => {
    const found = await findItems(mara, 'a', 500);
    const sold = await connected().records.items.findAll({ where: { sold: true } });
    expect(found.every((each) => sold.some(({ sku }) => sku === each.sku))).toBe(true);
    expect((await findItems(mara, 'ridgeback', 1))[0]).toMatchObject({
      sku: 'RIDGEBACK',
      model: 'ridgeback',
    });
  });

  it('forgives a typo in every list, and never for what has the word itself', async () => {
    expect((await findCustomers(mara, 'norvik')).map(({ name }) => name)).toContain('Norrvik Skog AB');
    expect((await listQuotes(mara, { find: 'norvik' })).rows.map(({ customer }) => customer)).toContain(
      'Norrvik Skog AB',
    );
    const [order] = (await listOrders(mara)).rows;
    const [word = ''] = (order?.customer ?? '').split(' ');
    expect(
      (await listOrders(mara, { find: word.slice(0, 3) + word.slice(4) })).rows.map(
        ({ customer }) => customer,
      ),
    ).toContain(order?.customer);
    expect(
      (await listQuotes(mara, { find: 'norrvik' })).rows.every(({ customer }) =>
        customer.includes('Norrvik'),
      ),
    ).toBe(true);
    expect(await findCustomers(mara, 'qqqzzz')).toEqual([]);
    expect(await findCustomers(mara, '%')).toEqual([]);
  });

  it('gives nobody what is not theirs, however it is spelled', async () => {
    expect(await findCustomers(rhona, 'norvik')).toEqual([]);
    expect((await search(rhona, 'norvik')).filter(({ kind }) => kind !== 'item')).toEqual([]);
    expect((await search(rhona, 'beacn')).map(({ kind }) => kind)).toContain('item');
  });
});

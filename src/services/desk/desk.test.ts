/** What waits for whom: each sees their own, who signs sees what is asked of them, a dealer sees the dealer's. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Exact } from '../../core/exact';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { catalogue } from '../catalogue/catalogue';
import { findCustomers } from '../customers/customers';
import type { Result } from '../kernel/failure';
import { openDemo, personOf } from '../kernel/testing';
import { listOrders, seeOrder } from '../orders/orders';
import { openQuote } from '../quotes/quotes';
import { fullTariff } from '../settings/tariffs';
import { desk, euroRates } from './desk';

const emails = [
  'mara@harrowmoor.example',
  'wen@harrowmoor.example',
  'tobias@harrowmoor.example',
  'rhona@dunmere.example',
] as const;
const people = new Map<string, Actor>();
const person = (email: (typeof emails)[number]): Actor => {
  const found = people.get(email);
  if (!found) throw new Error(`${email} is nobody`);
  return found;
};
beforeAll(async () => {
  await openDemo('desk');
  for (const email of emails) people.set(email, await personOf(email));
});
afterAll(() => connected().close());

const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.failures));
  return result.value;
};
const ownerOf = async (id: string) =>
  (await connected().records.quotes.findByPk(id, { attributes: ['ownerId'], raw: true }))?.ownerId;

describe('the Desk', () => {
  it('shows a person’s own quotes, the newest step of each, and what is opened at once', async () => {
    const mara = person('mara@harrowmoor.example');
    const before = await desk(mara);
    for (const { id } of before.quotes) expect(await ownerOf(id)).toBe(mara.id);
    expect(before.quotes.map(({ state }) => state)).not.toContain('accepted');
    const [customer] = await findCustomers(mara, 'norrvik');
    const opened = value(await openQuote(mara, { customerId: customer?.id ?? '', title: 'For the Desk' }));
    const after = await desk(mara);
    expect([after.count, after.quotes.some(({ id }) => id === opened.id)]).toEqual([before.count + 1, true]);
  });

  it('of the team has the others’ too, and never a dealer’s; a dealer’s has the dealer’s alone', async () => {
    const [mara, dealer] = [person('mara@harrowmoor.example'), person('rhona@dunmere.example')];
    const team = await desk(mara, 'team');
    const owners = await Promise.all(team.quotes.map(({ id }) => ownerOf(id)));
    expect(new Set(owners).size).toBeGreaterThan(1);
    expect(owners).not.toContain(dealer.id);
    const theirs = await desk(dealer, 'team');
    for (const { id } of theirs.quotes) expect(await ownerOf(id)).toBe(dealer.id);
    expect(theirs.asked).toEqual([]);
    expect(JSON.stringify(theirs)).not.toMatch(/margin|"cost"/);
  });

  it('says how the year stands only to who has a quota: what is won, and a share of what is open', async () => {
    for (const actor of people.values()) {
      const { quota } = await desk(actor);
      if (!quota) continue;
      for (const figure of [quota.target, quota.won, quota.open]) expect(figure).toMatch(/^\d+$/);
      expect(quota.weight).toBe('0.3');
    }
    expect((await desk(person('mara@harrowmoor.example'))).quota).toBeDefined();
  });

  it('counts every currency in euros, by the rate of its list', async () => {
    const euros = await euroRates();
    const lists = await connected().records.priceLists.findAll({ raw: true });
    expect(euros('100', 'EUR').toString()).toBe('100');
    for (const { currency, costRate } of lists)
      expect(euros(costRate, currency).equals(new Exact(1))).toBe(true);
    // Of a currency that no list has, nothing is known but the figure.
    expect(euros('7', 'XXX').toString()).toBe('7');
  });
});

describe('the catalogue', () => {
  it('has everything that is sold by itself, a family after the other, what is configured first', async () => {
    const { items, families } = await catalogue(person('mara@harrowmoor.example'));
    const place = new Map(families.map(({ code }, at) => [code, at]));
    const places = items.map(({ family }) => place.get(family) ?? -1);
    expect(places).toEqual([...places].sort((a, b) => a - b));
    for (const family of place.keys()) {
      const models = items.filter((item) => item.family === family).map(({ kind }) => kind === 'model');
      expect(models).toEqual([...models].sort((a, b) => Number(b) - Number(a)));
    }
    const sold = await connected().records.items.count({ where: { sold: true, active: true } });
    expect(items).toHaveLength(sold);
    expect(items.filter(({ model }) => model !== undefined).length).toBeGreaterThan(3);
  });

  it('has prices of the list that is asked for; costs are for those who see them', async () => {
    const mara = person('mara@harrowmoor.example');
    for (const { code } of await connected().records.priceLists.findAll({ raw: true })) {
      const { priceList, items } = await catalogue(mara, code);
      const { prices } = await fullTariff(code, new Date().toISOString().slice(0, 10));
      expect(priceList.code).toBe(code);
      for (const { sku, price } of items) expect(price).toBe(prices[sku]);
    }
    expect((await catalogue(mara)).items.some(({ cost }) => cost !== undefined)).toBe(true);
    const dealers = await catalogue(person('rhona@dunmere.example'), 'no such list');
    expect(dealers.items.every(({ cost }) => cost === undefined)).toBe(true);
    expect(dealers.items.length).toBeGreaterThan(50);
  });
});

describe('orders', () => {
  it('are listed the newest first, found by customer and number, and none is lost between pages', async () => {
    const mara = person('mara@harrowmoor.example');
    const { rows, count } = await listOrders(mara);
    expect(count).toBe(rows.length);
    expect(rows.map(({ createdAt }) => createdAt)).toEqual(
      rows.map(({ createdAt }) => createdAt).sort((a, b) => b.localeCompare(a)),
    );
    for (const row of rows) {
      const found = await listOrders(mara, { find: row.number });
      expect(found.rows.map(({ id }) => id)).toContain(row.id);
      const seen = value(await seeOrder(mara, row.id));
      expect([seen.number, seen.net]).toEqual([row.number, row.net]);
    }
    expect((await listOrders(mara, { find: 'nobody at all' })).rows).toEqual([]);
    const dealer = await seeOrder(person('rhona@dunmere.example'), rows[0]?.id ?? '');
    expect(dealer.ok).toBe(false);
  });
});

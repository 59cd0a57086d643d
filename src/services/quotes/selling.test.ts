/**
 * Services against a real PostgreSQL: what the database itself guards, and what happens when several come at
 * once.
 */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connected, migrate, openDatabase } from '../../data';
import type { Actor } from '../access/actor';
import { openBench } from '../builds/bench';
import { beginBuild } from '../builds/begin';
import { saveContent } from '../builds/save';
import { findCustomers } from '../customers/customers';
import { loadDemo } from '../demo/demo';
import type { Result } from '../kernel/failure';
import { publish } from '../catalogue/models';
import { acceptQuote, seeOrder } from '../orders/orders';
import { addByNumber, putOnQuote } from './lines/quote-builds';
import { changeLine } from './lines/lines';
import { openQuote, seeQuote } from './quotes';
import { hashPassword } from '../access/sessions';
import { openEmpty, personOf } from '../kernel/testing';
import { inTransaction } from '../kernel/unit-of-work';

let mara: Actor;
let rhona: Actor;
const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.failures));
  return result.value;
};
const codes = (result: Result<unknown>) => (result.ok ? [] : result.failures.map((failure) => failure.code));
async function newBuild(
  actor: Actor,
  customer: string,
  decisions: { on: string; value: string | boolean }[],
) {
  const [found] = await findCustomers(actor, customer);
  const quote = value(await openQuote(actor, { customerId: found?.id ?? '', title: 'test' }));
  const { id } = value(await beginBuild(actor, { quoteId: quote.id, modelId: 'ridgeback' }));
  const saved = value(await saveContent(actor, id, { version: 1, decisions, passed: [], special: [] }));
  return { quote, id, saved };
}
const complete = [
  { on: 'vehicle', value: 'articulated' },
  { on: 'length', value: 'm12' },
];
const custom = (width: string) => [
  ...complete,
  { on: 'width', value: 'custom' },
  { on: 'customWidth', value: width },
];

beforeAll(async () => {
  await openEmpty('selling');
  // Two instances starting at once: one migrates, the other waits and finds it done.
  const other = openDatabase(process.env.DATABASE_URL ?? '');
  const applied = await Promise.all([migrate(connected()), migrate(other)]);
  expect(applied.flat()).toContain('0001-first');
  await other.close();
  await loadDemo('demo');
  mara = await personOf('mara@harrowmoor.example');
  rhona = await personOf('rhona@dunmere.example');
});
afterAll(() => connected().close());

describe('the database guards what must not change', () => {
  it('refuses to change a published model version and an audit entry', async () => {
    await expect(connected().sequelize.query("update model_versions set hash = 'x'")).rejects.toThrow(
      'never change',
    );
    await expect(connected().sequelize.query('delete from audit_entries')).rejects.toThrow('never change');
  });

  it('refuses to change a line of an accepted revision', async () => {
    const { quote, id } = await newBuild(mara, 'callow', complete);
    const view = value(await putOnQuote(mara, id, { version: quote.version, quantity: 1 }));
    value(await acceptQuote(mara, quote.id, view.version));
    await expect(
      connected().sequelize.query('update quote_lines set quantity = 9 where id = $1', {
        bind: [view.lines[0]?.id],
      }),
    ).rejects.toThrow('never change');
  });

  it('migrates again without a change and publishes the same document once', async () => {
    expect(await migrate(connected())).toEqual([]);
    const { modelVersions } = connected().records;
    const version = await modelVersions.findOne({ where: { modelId: 'ridgeback' } });
    if (!version) throw new Error('no version');
    await connected().transaction(() => publish(version.document, 'RIDGEBACK', null));
    expect(await modelVersions.count({ where: { modelId: 'ridgeback' } })).toBe(1);
  });
});

describe('registered numbers', () => {
  it('are the same for the same values and differ for others, however many save at once', async () => {
    const made = await Promise.all(
      ['2.55', '2.6', '2.55', '2.65', '2.6'].map((width) => newBuild(mara, 'callow', custom(width))),
    );
    const numbers = made.map(
      ({ saved }) =>
        Object.entries(saved.registered ?? {}).find(([what]) => what.startsWith('ridgeback '))?.[1],
    );
    expect(numbers[0]).toBe(numbers[2]);
    expect(numbers[1]).toBe(numbers[4]);
    expect(new Set(numbers).size).toBe(3);
    expect(made[0]?.saved.partNumber).toBe(`RB-060-120-X${String(numbers[0]).padStart(4, '0')}-P-S-D-0-3-O`);
  });
});

describe('a use case happens whole or not at all', () => {
  it('leaves nothing of a refused one', async () => {
    const before = await connected().records.quotes.count();
    const result = await inTransaction(async () => {
      await connected().records.quotes.create({
        id: randomUUID(),
        number: 'Q-half',
        title: '',
        customerId: (await connected().records.customers.findOne())?.id ?? '',
        ownerId: mara.id,
        version: 1,
        updatedAt: new Date(),
        updatedBy: mara.id,
      });
      return { ok: false, status: 'invalid', failures: [{ code: 'quote.empty' }] } as const;
    });
    expect(result.ok).toBe(false);
    expect(await connected().records.quotes.count()).toBe(before);
  });

  it('lets one of several changes against the same version through', async () => {
    const [customer] = await findCustomers(mara, 'brannoch');
    const quote = value(await openQuote(mara, { customerId: customer?.id ?? '', title: '' }));
    const results = await Promise.all(
      ['SV-COMM', 'SV-CALIB', 'SV-DELIV'].map((sku) =>
        addByNumber(mara, quote.id, { version: quote.version, sku, quantity: 1 }),
      ),
    );
    expect(results.filter((result) => result.ok)).toHaveLength(1);
    expect(results.flatMap(codes)).toEqual(['quote.staleOwn', 'quote.staleOwn']);
    expect(value(await seeQuote(mara, quote.id)).lines).toHaveLength(1);
  });

  it('writes who changed which figure', async () => {
    const [customer] = await findCustomers(mara, 'brannoch');
    let quote = value(await openQuote(mara, { customerId: customer?.id ?? '', title: '' }));
    quote = value(
      await addByNumber(mara, quote.id, { version: quote.version, sku: 'YE-KIOSK', quantity: 2 }),
    );
    quote = value(
      await changeLine(mara, quote.id, quote.lines[0]?.id ?? '', {
        version: quote.version,
        hand: { by: 'rate', value: '7,5' },
      }),
    );
    // 4,283.00 less 5 % for key accounts is 4,068.85; less 7.5 % is 3,763.68625, rounded half up
    expect(quote.lines[0]?.price).toMatchObject({ unitList: '4283', unitNet: '3763.69', net: '7527.38' });
    const entries = await connected().records.audit.findAll({
      where: { subject: quote.number },
      order: [['id', 'ASC']],
    });
    expect(entries.map((entry) => [entry.action, entry.userId])).toEqual([
      ['quote.opened', mara.id],
      ['line.added', mara.id],
      ['line.changed', mara.id],
    ]);
    expect(entries[2]?.details).toMatchObject({
      from: { hand: null },
      to: { hand: { by: 'rate', value: '0.075' } },
    });
  });
});

describe('an accepted quote', () => {
  it('keeps its prices when the list changes, and its order knows what to build', async () => {
    const { quote, id } = await newBuild(mara, 'corrie', [...complete, { on: 'mounting', value: 'pit' }]);
    const before = value(await putOnQuote(mara, id, { version: quote.version, quantity: 3 }));
    expect(before.lines[0]?.warnings[0]?.text.en).toContain('without a drain pump');
    expect(codes(await acceptQuote(mara, quote.id, before.version))).toEqual(['line.warning']);
    const passed = value(
      await saveContent(mara, id, {
        version: 2,
        decisions: [...complete, { on: 'mounting', value: 'pit' }],
        passed: [{ rule: 'pitPump', reason: 'Dry chalk' }],
        special: [],
      }),
    );
    expect(passed.version).toBe(3);
    expect(value(await seeQuote(mara, quote.id)).lines[0]?.warnings[0]?.passed).toMatchObject({
      reason: 'Dry chalk',
      by: 'Mara Lindqvist',
    });
    const { orderId } = value(await acceptQuote(mara, quote.id, before.version));
    await connected().records.priceEntries.update(
      { entry: { method: 'unit', price: '9999' } },
      { where: { priceList: 'GBP-2026', sku: 'RB-HUB' } },
    );
    const after = value(await seeQuote(mara, quote.id));
    await connected().records.priceEntries.update(
      { entry: { method: 'unit', price: '361' } },
      { where: { priceList: 'GBP-2026', sku: 'RB-HUB' } },
    );
    expect(after.totals).toEqual(before.totals);
    const order = value(await seeOrder(mara, orderId));
    expect(order.address.street).toBe('Recycling Centre, Foss Road');
    const [work] = order.workOrderList;
    expect(work?.materials.find((need) => need.item === 'RB-CELL-D')?.quantity).toBe('18');
    // Six of the deck, two of the terminal.
    expect(work?.operations).toHaveLength(8);
    expect(work?.decisions).toContainEqual({
      name: { en: 'Mounting', de: 'Einbau' },
      value: { en: 'Pit', de: 'Grube' },
    });
  });
});

describe('a dealer', () => {
  it('gets no cost on the Bench or the quote, and no order', async () => {
    const { quote, id } = await newBuild(rhona, 'tor edge', complete);
    const bench = value(await openBench(rhona, id));
    expect(bench.tariff.costs).toBeUndefined();
    expect(bench.tariff.rates).toBeUndefined();
    expect(bench.picture.line.cost).toBeUndefined();
    const view = value(await putOnQuote(rhona, id, { version: quote.version, quantity: 1 }));
    expect(JSON.stringify(view)).not.toMatch(/"(cost|unitCost|margin)"/);
    expect(codes(await acceptQuote(rhona, quote.id, view.version))).toEqual(['refused.permission']);
    expect(codes(await openBench(rhona, (await newBuild(mara, 'callow', complete)).id))).toEqual([
      'build.missing',
    ]);
  });
});

it('keeps passwords as salted hashes', async () => {
  const [first, second] = [await hashPassword('harrowmoor'), await hashPassword('harrowmoor')];
  expect(first).not.toBe(second);
  expect(first).not.toContain('harrowmoor');
});

/**
 * Values that nobody outside may know are planted where they belong, and looked for in all that a dealer can
 * get; looked at are values, not names of keys.
 */
import { inflateRawSync, inflateSync } from 'node:zlib';
import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ModelDocument } from '../../core/model';
import { connected } from '../../data';
import type { Actor } from './actor';
import { openBench } from '../builds/bench';
import { beginBuild, saveContent } from '../builds/builds';
import { catalogue } from '../catalogue/catalogue';
import { seeCustomerChange } from '../quotes/customer-change';
import { findCustomers } from '../customers/customers';
import { seeDeal } from '../quotes/figures/deal';
import { desk } from '../desk/desk';
import { drawingFile } from '../builds/drawings';
import type { Result } from '../kernel/failure';
import { seeFreshening } from '../quotes/history/freshen';
import { lastPrices } from '../quotes/lines/last-prices';
import { lineTable } from '../paper/line-table';
import { publish } from '../catalogue/models';
import { seeMove } from '../builds/moves';
import { customerMeans } from '../customers/new-customer';
import { quotation } from '../paper/quotation';
import { addByNumber, putOnQuote, readNumbers } from '../quotes/lines/quote-builds';
import { listQuotes } from '../quotes/quote-list';
import { changeWhole, openQuote, seeQuote } from '../quotes/quotes';
import { compareQuote } from '../quotes/history/revisions';
import { listSaved } from '../builds/saved-builds';
import { search } from '../desk/search';
import { openDemo, personOf } from '../kernel/testing';
import { seeVariants } from '../builds/variants';

/** Planted where only the house may look; each is found as it stands, wherever it gets to. */
const planted = {
  operation: 'Planted welding step 7731',
  centre: '7731.31',
  scrap: '0.0773131',
  setUp: '7.7313113',
  test: 'plantedTest7731',
  cost: '7731.13',
  limit: '0.077311',
  floor: '0.377311',
  commission: '0.007731',
  quota: '7731173',
  policy: 'Planted policy 7731',
  colleague: 'Planted reason 7731',
};

const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.failures));
  return result.value;
};

/** All texts in a file, unpacked where it is packed. */
function textsOf(bytes: Uint8Array): string {
  const raw = Buffer.from(bytes);
  let all = raw.toString('latin1');
  for (let at = raw.indexOf('stream'); at >= 0; at = raw.indexOf('stream', at + 6)) {
    try {
      all += inflateSync(raw.subarray(at + (raw[at + 6] === 13 ? 8 : 7))).toString('latin1');
    } catch {
      /* Not a packed part. */
    }
  }
  for (let at = raw.indexOf('PK\u0003\u0004'); at >= 0; at = raw.indexOf('PK\u0003\u0004', at + 4)) {
    try {
      all += inflateRawSync(
        raw.subarray(at + 30 + raw.readUInt16LE(at + 26) + raw.readUInt16LE(at + 28)),
      ).toString('utf8');
    } catch {
      /* Not a packed part. */
    }
  }
  return all;
}

const found = (text: string): string[] =>
  Object.entries(planted).flatMap(([name, secret]) => (text.includes(secret) ? [name] : []));

let [mara, rhona, tobias]: Actor[] = [];
let build = '';
let quote = '';

/** All that somebody can get of a quote, a build, lists and files. */
async function everythingOf(actor: Actor): Promise<[string, string][]> {
  const seen = value(await seeQuote(actor, quote));
  const json = async (name: string, given: Promise<unknown>): Promise<[string, string]> => [
    name,
    JSON.stringify(await given),
  ];
  const file = async (
    name: string,
    given: Promise<Result<{ bytes: Uint8Array }>>,
  ): Promise<[string, string]> => [name, textsOf(value(await given).bytes)];
  const [customer] = await findCustomers(actor, 'saltmarsh');
  return Promise.all([
    json('quote', Promise.resolve(seen)),
    json('bench', openBench(actor, build)),
    json('variants', seeVariants(actor, build)),
    json('move', seeMove(actor, build)),
    json('deal', seeDeal(actor, quote)),
    json('freshening', seeFreshening(actor, quote)),
    json('compare', compareQuote(actor, quote, 1, 1)),
    json('list', listQuotes(actor)),
    json('desk', desk(actor)),
    json('desk', desk(actor, 'team')),
    json('search', search(actor, 'ridge')),
    json('catalogue', catalogue(actor)),
    json('saved', listSaved(actor)),
    json('customers', findCustomers(actor, 'a')),
    json('means', customerMeans(actor)),
    json('last', lastPrices(actor, quote, seen.lines[0]?.id ?? '')),
    json('other customer', seeCustomerChange(actor, quote, customer?.id ?? '')),
    json('numbers', readNumbers(actor, quote, { numbers: ['YE-KIOSK', 'RB-040-120'] })),
    json(
      'saved build',
      saveContent(actor, build, {
        version: (await connected().records.builds.findByPk(build))?.version ?? 1,
        decisions:
          seen.lines.length > 0
            ? [
                { on: 'vehicle', value: 'articulated' },
                { on: 'length', value: 'm12' },
              ]
            : [],
        passed: [],
        special: [],
      }),
    ),
    json('changed', changeWhole(actor, quote, { version: seen.version, title: 'Planted' })),
    file('pdf', quotation(actor, quote)),
    file('csv', lineTable(actor, quote, 'csv', 'customer')),
    file('csv', lineTable(actor, quote, 'csv', 'internal')),
    file('xlsx', lineTable(actor, quote, 'xlsx', 'customer')),
    file('xlsx', lineTable(actor, quote, 'xlsx', 'internal')),
    file('svg', drawingFile(actor, build, 'svg', 'side')),
    file('glb', drawingFile(actor, build, 'glb', '')),
  ]);
}

beforeAll(async () => {
  await openDemo('leaks');
  const { sequelize } = connected();
  const [row] = await sequelize.query<{ document: ModelDocument }>(
    "select document from model_versions where model_id = 'ridgeback' order by number desc limit 1",
    { type: QueryTypes.SELECT },
  );
  const document = (row as { document: ModelDocument }).document;
  const marked: ModelDocument = {
    ...document,
    materials: document.materials.map((material) => ({ ...material, scrap: planted.scrap })),
    operations: document.operations.map((operation) => ({
      ...operation,
      name: Object.fromEntries(Object.keys(operation.name).map((language) => [language, planted.operation])),
      setUp: planted.setUp,
    })),
    tests: [{ id: planted.test, decisions: {}, expect: {} }],
  };
  expect((await connected().transaction(() => publish(marked, 'RIDGEBACK', null))).problems).toEqual([]);
  // So that a cost in another currency is the same figure.
  await sequelize.query('update price_lists set cost_rate = 1');
  await sequelize.query(`update items set cost = ${planted.cost}`);
  await sequelize.query(`update work_centres set rate = ${planted.centre}`);
  await sequelize.query(
    `update limits set limit_at = ${planted.limit}, target = 0, floor = ${planted.floor} where by = 'discount'`,
  );
  await sequelize.query(`update commission_plans set base_rate = ${planted.commission}`);
  await sequelize.query(`update users set quota = ${planted.quota} where role <> 'dealer'`);
  await sequelize.query(
    `update policies set name = '{"en":"${planted.policy}","de":"${planted.policy}"}', condition = 'true'`,
  );
  [mara, rhona, tobias] = [
    await personOf('mara@harrowmoor.example'),
    await personOf('rhona@dunmere.example'),
    await personOf('tobias@harrowmoor.example'),
  ];
});
afterAll(() => connected().close());

async function prepare(actor: Actor): Promise<void> {
  const [customer] = await findCustomers(actor, actor.role === 'dealer' ? 'dunmere' : 'callow');
  const opened = value(await openQuote(actor, { customerId: customer?.id ?? '', title: '' }));
  quote = opened.id;
  build = value(await beginBuild(actor, { quoteId: quote, modelId: 'ridgeback' })).id;
  value(
    await saveContent(actor, build, {
      version: 1,
      decisions: [
        { on: 'vehicle', value: 'articulated' },
        { on: 'length', value: 'm12' },
      ],
      passed: [],
      special: [],
    }),
  );
  const put = value(await putOnQuote(actor, build, { version: opened.version, quantity: 1 }));
  await connected().sequelize.query(
    `insert into sign_offs (id, revision_id, role, reason, figures, asked_by, state, comment, counter, asked) select gen_random_uuid(), id, 'manager', '${planted.colleague}', '[]', '${actor.id}', 'asked', '', '[]', '[]' from quote_revisions where quote_id = '${quote}'`,
  );
  value(await addByNumber(actor, quote, { version: put.version, sku: 'YE-KIOSK', quantity: 1 }));
}

describe('what is planted', () => {
  it('is nowhere in what a dealer gets', async () => {
    await prepare(rhona as Actor);
    const leaks = (await everythingOf(rhona as Actor)).flatMap(([name, text]) =>
      found(text).map((secret) => `${secret} in ${name}`),
    );
    expect(leaks).toEqual([]);
    // Not for want of anything to see.
    expect(value(await openBench(rhona as Actor, build)).leadDays).toBeGreaterThan(0);
  });

  it("is in what the house gets, each where it belongs, so that it would have been found; tests of a model are in nobody's page", async () => {
    await prepare(mara as Actor);
    const all = await everythingOf(mara as Actor);
    const where = (name: string) => found(all.find(([each]) => each === name)?.[1] ?? '');
    expect(where('bench')).toEqual(expect.arrayContaining(['operation', 'scrap', 'setUp', 'cost', 'centre']));
    expect(where('quote')).toEqual(expect.arrayContaining(['limit', 'floor', 'colleague', 'policy']));
    expect(where('deal')).toEqual(expect.arrayContaining(['commission', 'quota']));
    expect(where('pdf')).toEqual([]);
    expect(all.filter(([, text]) => text.includes(planted.test))).toEqual([]);
    expect(JSON.stringify(await desk(tobias as Actor))).toContain(planted.quota);
  });
});

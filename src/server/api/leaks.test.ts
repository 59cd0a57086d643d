/**
 * Values that nobody outside may know are planted where they belong, and looked for in all that a dealer can
 * get; looked at are values, not names of keys.
 */
import { inflateRawSync, inflateSync } from 'node:zlib';
import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { contract, rolesOf } from '../../contract/all';
import type { ModelDocument } from '../../core/model';
import { connected } from '../../data';
import type { Actor } from '../../services/access/actor';
import { openBench } from '../../services/builds/bench';
import { beginBuild } from '../../services/builds/begin';
import { saveContent } from '../../services/builds/save';
import { catalogue } from '../../services/catalogue/catalogue';
import { bring } from '../../services/files/files';
import { findCustomers } from '../../services/customers/customers';
import { desk } from '../../services/desk/desk';
import type { Result } from '../../services/kernel/failure';
import { askForJob } from '../../services/kernel/jobs/queue';
import { publish } from '../../services/catalogue/models';
import { addByNumber, putOnQuote } from '../../services/quotes/lines/quote-builds';
import { openQuote, seeQuote } from '../../services/quotes/quotes';
import { inDays } from '../../services/kernel/clock';
import { seeMail } from '../../services/outbox/mails';
import { mailBuild } from '../../services/outbox/sending';
import { workAll } from '../../services/outbox/testing';
import { beginSchedule } from '../../services/schedules/schedules';
import { seeShared } from '../../services/shares/shared';
import { shareQuote } from '../../services/shares/shares';
import { openDemo, personOf } from '../../services/kernel/testing';
import { pdfPages } from '../../services/paper/testing';
import { askAs, ways, type Request, type Way } from './testing';

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
  tomorrow: '7731.97',
  agreed: '0.6773113',
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

/** The words on the pages of a PDF, whose letters stand in it by their numbers in its fonts. */
async function wordsOf(bytes: Uint8Array): Promise<string> {
  if (!Buffer.from(bytes.subarray(0, 5)).equals(Buffer.from('%PDF-'))) return '';
  return (await pdfPages(bytes)).join(' ');
}

const found = (text: string): string[] =>
  Object.entries(planted).flatMap(([name, secret]) => (text.includes(secret) ? [name] : []));

let [mara, rhona, tobias]: Actor[] = [];
let build = '';
let quote = '';

/** What reads without changing, but is sent, since it is too long for an address. */
const sentAsks = (partNumber: string): Partial<Record<Way, object>> => ({
  'POST /builds/{id}/read': { number: partNumber },
  'POST /quotes/{id}/numbers': { numbers: ['YE-KIOSK', 'RB-040-120'] },
  'POST /builds/{id}/best': { weights: [{ measure: 'price', weight: '1' }] },
});
/** Queries that make an endpoint say all that it can. */
const queries: Partial<Record<Way, Record<string, string>[]>> = {
  'GET /search': [{ find: 'ridge' }],
  'GET /items': [{ find: 'kiosk' }],
  'GET /customers': [{ find: 'a' }],
  'GET /quotes/{id}/revisions': [{ before: '1', after: '1' }],
  'GET /quotes/{id}/lines.{format}': [{}, { internal: '' }],
  'GET /builds/{id}/drawing.{format}': [{ view: 'side' }],
};
const formats: Partial<Record<Way, string[]>> = {
  'GET /quotes/{id}/lines.{format}': ['csv', 'xlsx'],
  'GET /builds/{id}/drawing.{format}': ['svg', 'glb', 'dxf', 'ifc'],
  'GET /quotes/{id}/paper.{format}': ['pdf', 'docx', 'xlsx', 'html', 'xml'],
  'GET /builds/{id}/specification.{format}': ['pdf', 'docx', 'html'],
  'GET /schedules/{id}/file.{format}': ['pdf', 'xlsx', 'csv'],
};

/** All that somebody can get: every endpoint that only tells, what changes are answered with, and the pages. */
async function everythingOf(actor: Actor): Promise<[string, string][]> {
  const seen = value(await seeQuote(actor, quote));
  const customer = (await findCustomers(actor, '')).at(-1);
  const line = seen.lines[0]?.id ?? '';
  const told: [string, string][] = [];
  const job = await askForJob({ kind: 'house.facts', tries: 1 }, null, { by: actor.id });
  const brought = value(await bring(actor, { name: 'a.txt', bytes: new TextEncoder().encode('a') }));
  const out = await sentOf(actor);
  const site = value(await beginSchedule(actor, { name: 'Site', site: '', quote }));
  const ids = {
    '/mails/': out.mail,
    '/shelf/': out.document,
    '/documents/': out.document,
    '/builds/': build,
    '/jobs/': job.id,
    '/files/': brought.id,
    '/schedules/': site.id,
  };
  const tell = async (way: Way, request: Request): Promise<void> => {
    const id = Object.entries(ids).find(([part]) => way.includes(part))?.[1] ?? quote;
    const { token } = out;
    const answer = await askAs(actor, way, { ...request, at: { id, line, token, ...request.at } });
    // What is made since the quote was seen is refused, and no way is there to ask in vain.
    if (!answer.ok) throw new Error(`${way}: ${await answer.text()}`);
    const bytes = new Uint8Array(await answer.arrayBuffer());
    told.push([way, textsOf(bytes) + (await wordsOf(bytes))]);
  };
  const sent = sentAsks(seen.lines[0]?.partNumber ?? '');
  const tells = ways.filter(
    (way) =>
      (way.startsWith('GET ') || way in sent) &&
      // A house without a mark has no picture on its paper.
      !way.includes('/pictures/') &&
      rolesOf(contract[way].who).includes(actor.role),
  );
  expect(tells.length).toBeGreaterThan(20);
  for (const way of tells)
    for (const query of queries[way] ?? [{ to: customer?.id ?? '' }])
      for (const format of formats[way] ?? ['']) await tell(way, { at: { format }, query, body: sent[way] });
  const version = (await connected().records.builds.findByPk(build))?.version ?? 1;
  await tell('PUT /builds/{id}', { body: { version, decisions } });
  await tell('PATCH /quotes/{id}', { body: { version: seen.version, title: 'Planted' } });
  for (const whose of ['mine', 'team'] as const)
    told.push(['desk', JSON.stringify(await desk(actor, whose))]);
  told.push(['catalogue', JSON.stringify(await catalogue(actor))]);
  return told;
}

/** A mail about the build with its sheet and a link, as it went. */
async function sentOf(actor: Actor): Promise<{ mail: string; document: string; token: string }> {
  const mail = value(
    await mailBuild(
      actor,
      build,
      {
        recipients: [{ as: 'to', name: '', address: 'ana@kestrel.example' }],
        subject: 'The build',
        words: 'Here it is.',
        documents: [{ is: 'specification', build }],
        share: { until: inDays(9) },
      } as never,
      'https://scales.example',
    ),
  );
  await workAll();
  const sent = value(await seeMail(actor, mail.id));
  return {
    mail: sent.id,
    document: sent.documents[0]?.id ?? '',
    token: sent.words.split('/s/')[1]?.trim() ?? '',
  };
}

const decisions = [
  { on: 'vehicle', value: 'articulated' },
  { on: 'length', value: 'm12' },
];

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
  // Prices that come into force tomorrow, in every list, and what another customer has agreed.
  await sequelize.query(
    `insert into price_entries (price_list, sku, inside, entry, valid_from) select code, 'YE-KIOSK', '', '{"method":"unit","price":"${planted.tomorrow}"}', current_date + 1 from price_lists`,
  );
  await sequelize.query(
    `insert into grants (id, kind, name, customer_id, sku, rate) select gen_random_uuid(), 'agreement', '{"en":"Other"}', id, 'YE-KIOSK', ${planted.agreed} from customers where number = 'C-1002'`,
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
  await connected().sequelize.query(
    // A cost that a colleague named in an answer is of the same kind as any other.
    `insert into quote_requests (id, quote_id, kind, line_origin, line_named, item, role, words, made_by, answer, part, answered_by, answered_at) select gen_random_uuid(), '${quote}', 'technical', l.origin, '{"position":1,"name":{}}', 'x', 'modeller', 'a', '${actor.id}', 'b', '{"item":"x","text":"c","cost":"${planted.cost}","price":"1","days":1}', '${actor.id}', now() from quote_lines l join quote_revisions r on r.id = l.revision_id where r.quote_id = '${quote}' limit 1`,
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
    expect(where('GET /builds/{id}')).toEqual(
      expect.arrayContaining(['operation', 'scrap', 'setUp', 'cost', 'centre']),
    );
    expect(where('GET /quotes/{id}')).toEqual(
      expect.arrayContaining(['limit', 'floor', 'colleague', 'policy']),
    );
    expect(where('GET /quotes/{id}/deal')).toEqual(expect.arrayContaining(['commission', 'quota']));
    // What goes to the customer has none of it, in any format, though whoever sends it sees it all.
    const papers = all.filter(([name]) => /paper|specification/.test(name));
    expect(papers.length).toBeGreaterThan(8);
    expect(papers.flatMap(([name, text]) => found(text).map((secret) => `${secret} in ${name}`))).toEqual([]);
    expect(papers.filter(([, text]) => /Ridgeback/.test(text)).length).toBeGreaterThan(6);
    expect(all.filter(([, text]) => text.includes(planted.test))).toEqual([]);
    // What holds tomorrow, or for somebody else, is told to nobody who sells.
    expect(
      all.filter(([, text]) => text.includes(planted.tomorrow) || text.includes(planted.agreed)),
    ).toEqual([]);
    expect(JSON.stringify(await desk(tobias as Actor))).toContain(planted.quota);
  });

  it('is nowhere behind a share, by whatever way it is asked', async () => {
    await prepare(mara as Actor);
    // It could not be sent as it stands; what is looked for here is what a share tells, not whether one may be made.
    await connected().sequelize.query(
      `update quote_revisions set state = 'sent' where quote_id = '${quote}'`,
    );
    const asked = { name: '', address: '', until: inDays(9) };
    const made = value(await shareQuote(mara as Actor, quote, asked, 'https://scales.example'));
    const token = made.link.split('/s/')[1] ?? '';
    const shown = value(await seeShared(token));
    await workAll();
    const { documents } = value(await seeShared(token));
    expect([shown.builds.length, documents.length]).toEqual([1, 1]);
    const shared = ways.filter((way) => way.includes('/shared/{token}'));
    expect(shared.length).toBeGreaterThan(4);
    const got: [string, string][] = [];
    for (const way of shared) {
      const id = way.includes('/documents/') ? (documents[0]?.id ?? '') : build;
      const body = way.startsWith('POST ') ? { answer: 'question', name: 'Ana', words: 'When?' } : undefined;
      const answer = await askAs(null, way, { at: { token, id }, body });
      expect([way, answer.status]).toEqual([way, way.includes('/pictures/') ? 404 : 200]);
      const bytes = new Uint8Array(await answer.arrayBuffer());
      got.push([way, textsOf(bytes) + (await wordsOf(bytes))]);
    }
    expect(got.flatMap(([name, text]) => found(text).map((secret) => `${secret} in ${name}`))).toEqual([]);
    // Nor what else nobody outside is told: who signs, how sure it is, what colleagues say, other people's numbers.
    for (const [name, text] of got)
      for (const word of ['signOff', 'margin', '"cost', 'callow@', 'resale', 'passwordHash'])
        expect([name, text.includes(word)]).toEqual([name, false]);
    expect(got.filter(([, text]) => /Ridgeback/.test(text)).length).toBeGreaterThan(2);
  });
});

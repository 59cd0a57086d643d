/**
 * Every endpoint that is declared, tried as every role and as nobody, with what is right and with what is bad:
 * the tests are made from the declarations, so that a new endpoint is tried without anybody thinking of it.
 */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { contract, openApi, rolesOf, rooms, type Endpoint } from '../../contract/all';
import { roles, type QuoteView, type Role } from '../../contract';
import { connected } from '../../data';
import { plainComposition } from '../../core/paper';
import type { Actor } from '../../services/access/actor';
import { inDays } from '../../services/kernel/clock';
import { openDemo, personOf } from '../../services/kernel/testing';
import answered from '../../contract/answers.json';
import { askAs, ways, type Way } from './testing';

const people = new Map<Role, Actor>();
/** A quote with a line and a build, of an engineer of the house. */
let quote: QuoteView;
let build = '';
/** A share of the build. */
let token = '';
const at = (): Record<string, string> => ({
  id: quote.id,
  line: quote.lines[0]?.id ?? '',
  signOff: quote.id,
  format: 'csv',
  token,
});
const placeFor = (way: Way): Record<string, string> => ({
  ...at(),
  ...(way.includes('/builds/') ? { id: build, format: 'svg' } : {}),
  ...(way.includes('/saved/') ? { id: quote.id } : {}),
  ...(way.includes('/paper/') ? { code: 'opening' } : {}),
  ...(way.includes('/paper.') ? { format: 'html' } : {}),
  ...(way.includes('/catalogue/items/') ? { sku: 'YE-KIOSK' } : {}),
  ...(way.includes('/catalogue/families/') ? { code: 'floor' } : {}),
  ...(way.includes('/prices/lists/') ? { list: 'EUR-2026' } : {}),
  ...(way.includes('/attachments/') ? { file: quote.id } : {}),
  ...(way.includes('/file.') ? { format: 'csv' } : {}),
  ...(way.includes('/terms/') ? { kind: 'limits', job: quote.id } : {}),
});
const declared = (way: Way): Endpoint => contract[way];
const person = (role: Role): Actor => people.get(role) as Actor;
const read = async <T>(answer: Promise<Response>): Promise<T> => {
  const response = await answer;
  const text = await response.text();
  if (!response.ok) throw new Error(text);
  return JSON.parse(text) as T;
};

/** Signing in is limited, and has tests of its own; the document and the pulse are read by whoever asks. */
const tried = ways.filter((way) => !way.endsWith(' /session'));

beforeAll(async () => {
  await openDemo('contract');
  for (const email of [
    'mara@harrowmoor.example',
    'tobias@harrowmoor.example',
    'wen@harrowmoor.example',
    'rhona@dunmere.example',
  ]) {
    const actor = await personOf(email);
    people.set(actor.role, actor);
  }
  people.set('director', { ...person('manager'), role: 'director' });
  people.set('administrator', await personOf('ines@harrowmoor.example'));
  const mara = person('engineer');
  const [customer] = await read<{ id: string }[]>(
    askAs(mara, 'GET /customers', { query: { find: 'callow' } }),
  );
  const opened = await read<QuoteView>(
    askAs(mara, 'POST /quotes', { body: { customerId: customer?.id, title: 'Contract' } }),
  );
  quote = await read<QuoteView>(
    askAs(mara, 'POST /quotes/{id}/lines', {
      at: { id: opened.id },
      body: { version: opened.version, sku: 'YE-KIOSK', quantity: 1 },
    }),
  );
  build = (
    await read<{ id: string }>(
      askAs(mara, 'POST /builds', { body: { quoteId: quote.id, modelId: 'ridgeback' } }),
    )
  ).id;
  const made = await read<{ link: string }>(
    askAs(mara, 'POST /builds/{id}/shares', { at: { id: build }, body: { until: inDays(9) } }),
  );
  token = made.link.split('/s/')[1] ?? '';
});
afterAll(() => connected().close());

/** What nobody should send, whatever the endpoint reads. */
const badBodies: readonly [string, unknown][] = [
  ['nothing', undefined],
  ['no JSON', '{'],
  ['a list', '[]'],
  ['a number', '1'],
  ['a name of the language', '{"__proto__":{"version":1}}'],
  ['too deep', `${'['.repeat(60)}${']'.repeat(60)}`],
  ['half of a pair', '{"version":1,"title":"\\ud800"}'],
  ['a field that nobody knows', { version: 1, price: '0.01', state: 'accepted' }],
  ['a version as text', { version: '1' }],
  ['too much', { note: 'x'.repeat(6 * 1024 * 1024) }],
];

/** Ids that are none, and one that nothing has. */
const badPlaces = ['abc', '%', '..', '__proto__', 'x'.repeat(3000), '3f0d1f04-0000-4000-8000-000000000000'];

describe('who is let in', () => {
  it.each(tried)('%s', async (way) => {
    const { who } = declared(way);
    const body = declared(way).input ? {} : undefined;
    const alone = await askAs(null, way, { at: placeFor(way), body });
    expect(alone.status === 401).toBe(who !== 'anyone');
    for (const role of roles) {
      const answer = await askAs(person(role), way, { at: badPlace(way), body });
      expect([role, answer.status === 403]).toEqual([role, !rolesOf(who).includes(role)]);
    }
  });
  const badPlace = (way: Way): Record<string, string> => ({
    ...placeFor(way),
    id: '3f0d1f04-0000-4000-8000-000000000000',
  });
});

describe('what is bad is refused in a sentence and changes nothing', () => {
  it.each(tried)('%s', async (way) => {
    const before = await read<QuoteView>(askAs(person('engineer'), 'GET /quotes/{id}', { at: at() }));
    const reads = declared(way).input !== undefined;
    const role = rolesOf(declared(way).who)[0] ?? 'engineer';
    for (const [name, body] of reads ? badBodies : []) {
      const answer = await askAs(person(role), way, { at: placeFor(way), body });
      expect([400, 413, 422], name).toContain(answer.status);
      const { failures } = (await answer.json()) as { failures: { code: string; message: string }[] };
      expect([name, failures.every(({ message }) => message.length > 0)]).toEqual([name, true]);
    }
    for (const name of way.matchAll(/\{(\w+)\}/g))
      for (const place of badPlaces) {
        // What is read as the share itself is there for whoever has it.
        if (place === '..' && way.startsWith('GET /shared/{token}/')) continue;
        const asked = { ...placeFor(way), [name[1] ?? '']: place };
        const answer = await askAs(person(role), way, { at: asked, body: reads ? {} : undefined });
        expect([403, 404, 409, 422], place.slice(0, 40)).toContain(answer.status);
      }
    for (const value of ['-1', '1e300', '%00', 'x'.repeat(4000), 'a,b'])
      if (declared(way).query) {
        const query = Object.fromEntries(
          ['find', 'page', 'revision', 'states', 'sort', 'before', 'to', 'view'].map((each) => [each, value]),
        );
        expect((await askAs(person(role), way, { at: placeFor(way), query })).status).toBeLessThan(500);
      }
    const after = await read<QuoteView>(askAs(person('engineer'), 'GET /quotes/{id}', { at: at() }));
    expect(after.version).toBe(before.version);
  });
});

describe('what belongs to the house is not there for a dealer', () => {
  const beneath = tried.filter(
    (way) =>
      /\/(quotes|builds)\/\{id\}/.test(way) &&
      declared(way).who !== 'anyone' &&
      rolesOf(declared(way).who).includes('dealer'),
  );
  it.each(beneath)('%s', async (way) => {
    const { input } = declared(way);
    const answer = await askAs(person('dealer'), way, {
      at: placeFor(way),
      body: input ? rightFor(way) : undefined,
    });
    expect(answer.status).toBe(404);
  });

  /** Something that the endpoint would take. */
  const rightFor = (way: Way): object => {
    const version = quote.version;
    const line = quote.lines[0]?.id ?? '';
    const recipients = [{ as: 'to', name: '', address: 'ana@kestrel.example' }];
    const mail = { recipients, subject: 'a', words: 'a', documents: [], share: null };
    const composition = plainComposition({ language: 'en', paper: 'A4' });
    const bodies: Partial<Record<Way, object>> = {
      'PATCH /quotes/{id}/lines/several': { version, lines: [line] },
      'DELETE /quotes/{id}/lines/several': { version, lines: [line] },
      'POST /quotes/{id}/lines/several': { version, rows: [{ sku: 'YE-KIOSK', quantity: 1 }] },
      'PATCH /quotes/{id}/lines/values': { version, rows: [{ line, quantity: 2 }] },
      'POST /quotes/{id}/lines/place': { version, lines: [line], to: 1 },
      'POST /quotes/{id}/lines/alternatives': { version, lines: [line] },
      'POST /quotes/{id}/lines': { version, sku: 'YE-KIOSK', quantity: 1 },
      'PATCH /quotes/{id}/groups': { version, from: 'a', to: 'b' },
      'POST /quotes/{id}/numbers': { numbers: ['YE-KIOSK'] },
      'POST /quotes/{id}/addresses': { version, kind: 'delivery', copyInvoice: true },
      'POST /quotes/{id}/contacts': { version, contact: { name: 'A', email: 'a@b.example', task: '' } },
      'POST /quotes/{id}/customer': { version, customerId: quote.id },
      'POST /quotes/{id}/freshening': { version, lines: [line] },
      'POST /quotes/{id}/variants': { version, builds: [build] },
      'POST /quotes/{id}/lose': { version, reason: 'price' },
      'POST /quotes/{id}/sign-offs': { version, reason: 'x' },
      'PUT /quotes/{id}/paper': { version: 0, composition },
      'POST /quotes/{id}/paper/pages': { composition },
      'PUT /builds/{id}': { version: 1, decisions: [] },
      'POST /builds/{id}/best': { weights: [] },
      'POST /builds/{id}/read': { number: 'RB-040-120' },
      'POST /builds/{id}/variants': {},
      'POST /builds/{id}/line': { version, quantity: 1 },
      'POST /quotes/{id}/notes': { words: 'a' },
      'POST /quotes/{id}/requests': { kind: 'look', of: quote.id, words: 'a' },
      'POST /quotes/{id}/follow-ups': { day: '2030-01-01' },
      'POST /quotes/{id}/attachments': { file: quote.id, kind: 'order' },
      'POST /quotes/{id}/hand-over': { version, to: quote.id },
      'POST /quotes/{id}/mails': { version, ...mail },
      'POST /builds/{id}/mails': mail,
      'POST /quotes/{id}/shares': { until: inDays(9) },
      'POST /builds/{id}/shares': { until: inDays(9) },
    };
    return bodies[way] ?? { version };
  };
});

describe('the document for programs', () => {
  const document = openApi(rooms, answered) as {
    paths: Record<string, Record<string, { operationId: string; security: unknown[]; requestBody?: object }>>;
  };

  it('says every endpoint once, with its own name', () => {
    const said = Object.entries(document.paths).flatMap(([path, methods]) =>
      Object.keys(methods).map((method) => `${method.toUpperCase()} ${path}`),
    );
    expect(said.sort()).toEqual([...ways].sort());
    const names = Object.values(document.paths).flatMap((methods) =>
      Object.values(methods).map(({ operationId }) => operationId),
    );
    expect(new Set(names).size).toBe(names.length);
  });

  it('describes what is sent as it is checked', () => {
    const sent = document.paths['/quotes/{id}/lines']?.['post']?.requestBody;
    expect(sent).toMatchObject({
      content: {
        'application/json': {
          schema: {
            type: 'object',
            required: ['version', 'sku', 'quantity'],
            additionalProperties: false,
            properties: {
              version: { type: 'integer', minimum: 1 },
              sku: { type: 'string', maxLength: 200 },
              quantity: { type: 'number', exclusiveMinimum: 0, maximum: 99_999 },
            },
          },
        },
      },
    });
  });

  it('is read by whoever asks', async () => {
    expect(await read<object>(askAs(null, 'GET /openapi.json'))).toEqual(
      JSON.parse(JSON.stringify(document)),
    );
  });
});

describe('an answer that was lost', () => {
  it('is told again, and nothing is made twice; a page that names its view is told what differs', async () => {
    const mara = person('engineer');
    const now = await read<QuoteView>(askAs(mara, 'GET /quotes/{id}', { at: at() }));
    const add = () =>
      read<{ had?: string; lines: { sku: string }[] }>(
        askAs(mara, 'POST /quotes/{id}/lines', {
          at: at(),
          body: { version: now.version, sku: 'SILL-1212-X', quantity: 1 },
          headers: { 'idempotency-key': 'once', 'quote-stand': now.stand },
        }),
      );
    const [first, again] = [await add(), await add()];
    expect(again).toEqual(first);
    expect([first.had, first.lines.map(({ sku }) => sku)]).toEqual([now.stand, ['SILL-1212-X']]);
    const then = await read<{ version: number }>(askAs(mara, 'GET /quotes/{id}', { at: at() }));
    expect(then.version).toBe(now.version + 1);
    expect(
      (
        await askAs(mara, 'POST /quotes/{id}/lines', {
          at: at(),
          body: { version: now.version, sku: 'YE-KIOSK', quantity: 1 },
          headers: { 'idempotency-key': 'once' },
        })
      ).status,
    ).toBe(422);
  });
});

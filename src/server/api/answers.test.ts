/**
 * A day on which every endpoint is asked once for what it is there for. What it answers is held against the
 * types that it declares, so that the document for programs promises what they get, no more and no less.
 */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type {
  BuildItem,
  ColleaguesView,
  ScheduleView,
  ShelfPage,
  BenchView,
  CustomerFound,
  CustomerMeans,
  FileView,
  HouseView,
  JobView,
  KnownContact,
  MailView,
  ModelsView,
  PaperHouseView,
  PaperText,
  PaperView,
  PeopleView,
  PeopleWithLink,
  QuoteView,
  SavedBuild,
  SendView,
  SentView,
  SharedLink,
  SharedView,
  TermsView,
} from '../../contract';
import { contract } from '../../contract/all';
import { connected } from '../../data';
import type { Actor } from '../../services/access/actor';
import { publish } from '../../services/catalogue/models';
import { JobWorker } from '../../services/kernel/jobs/worker';
import { openDemo, personOf } from '../../services/kernel/testing';
import { inDays, today } from '../../services/kernel/clock';
import { workAll } from '../../services/outbox/testing';
import { writeDmn } from '../../services/workshop/files/dmn';
import { impactJob } from '../../services/workshop/impact';
import { priceImpactJob } from '../../services/prices/impact';
import { priceSheetJob } from '../../services/prices/sheet-job';
import { atWork } from '../../services/workshop/testing';
import { packageJob } from '../../services/schedules/package';
import { askAs, held, ways, type Request, type Way } from './testing';

let [mara, tobias, joss, ines, wen]: Actor[] = [];

/** What somebody is answered, which has to be what was asked for. */
async function told<T>(actor: Actor | undefined, way: Way, request: Request = {}): Promise<T> {
  const answer = await askAs(actor ?? null, way, request);
  const text = await answer.text();
  if (!answer.ok) throw new Error(`${way}: ${text}`);
  return JSON.parse(text) as T;
}

/** A quote that is worked on: what changes it is sent its version. */
class Desk {
  constructor(
    private readonly actor: Actor | undefined,
    public quote: QuoteView,
  ) {}

  static async open(actor: Actor | undefined, title: string, find = 'callow'): Promise<Desk> {
    const [customer] = await told<CustomerFound[]>(actor, 'GET /customers', { query: { find } });
    const body = { customerId: customer?.id, title };
    return new Desk(actor, await told<QuoteView>(actor, 'POST /quotes', { body }));
  }

  line(at: number): string {
    return this.quote.lines[at]?.id ?? '';
  }

  async change(way: Way, body: object = {}, at: Record<string, string> = {}, by = this.actor): Promise<void> {
    const version = this.quote.version;
    await told(by, way, { at: { id: this.quote.id, ...at }, body: { version, ...body } });
    this.quote = await this.ask<QuoteView>('GET /quotes/{id}');
  }

  ask<T>(way: Way, request: Request = {}): Promise<T> {
    return told<T>(this.actor, way, { at: { id: this.quote.id }, ...request });
  }
}

beforeAll(async () => {
  await openDemo('answers');
  [mara, tobias, joss, ines, wen] = await Promise.all(
    ['mara', 'tobias', 'joss', 'ines', 'wen'].map((name) => personOf(`${name}@harrowmoor.example`)),
  );
});
afterAll(() => connected().close());

describe('every endpoint answers as it is declared', () => {
  it('who somebody is, what there is to find, and what the server is', async () => {
    await told(undefined, 'GET /alive');
    await told(undefined, 'GET /health');
    await told(undefined, 'GET /openapi.json');
    const credentials = { email: 'mara@harrowmoor.example', password: 'harrowmoor' };
    await told(undefined, 'POST /session', { body: credentials });
    await told(undefined, 'DELETE /session');
    await told(mara, 'PATCH /me', { body: { units: 'metric' } });
    await told(mara, 'GET /search', { query: { find: 'ridge' } });
    await told(mara, 'GET /items', { query: { find: 'kiosk' } });
    await told(mara, 'GET /quotes');
    await told(mara, 'GET /orders');
  });

  it('a customer', async () => {
    const { regions, priceLists } = await told<CustomerMeans>(mara, 'GET /customers/means');
    await told(mara, 'POST /customers', {
      body: {
        name: 'Fellgate Aggregates',
        class: 'direct',
        priceList: priceLists[0]?.code,
        language: 'en',
        region: regions[0],
        contactName: 'Iris Holm',
        contactEmail: 'iris@fellgate.example',
        paymentDays: 30,
        invoice: { street: '1 Quarry Lane', town: 'Fellgate', postcode: 'FG1 1AA', country: 'GB' },
      },
    });
  });

  it('lines of a quote', async () => {
    const desk = await Desk.open(mara, 'Lines');
    await desk.change('POST /quotes/{id}/lines', { sku: 'YE-KIOSK', quantity: 1 });
    const rows = [
      { sku: 'SILL-1212-X', quantity: 2 },
      { sku: 'YE-CARD', quantity: 250, discount: '2' },
      { sku: 'DK-SITE', quantity: 1 },
    ];
    await desk.change('POST /quotes/{id}/lines/several', { rows });
    await desk.change('PATCH /quotes/{id}/lines/{line}', { quantity: 3 }, { line: desk.line(0) });
    await desk.change('PATCH /quotes/{id}/lines/several', {
      lines: [desk.line(0), desk.line(1)],
      group: 'Gate',
    });
    await desk.change('PATCH /quotes/{id}/groups', { from: 'Gate', to: 'North gate' });
    await desk.change('PATCH /quotes/{id}/lines/values', { rows: [{ line: desk.line(1), quantity: 4 }] });
    await desk.change('POST /quotes/{id}/lines/place', { lines: [desk.line(2)], to: 1 });
    await desk.change('POST /quotes/{id}/lines/{line}/copy', {}, { line: desk.line(1) });
    const two = [desk.line(1), desk.line(2)];
    await desk.change('POST /quotes/{id}/lines/alternatives', { lines: two, apart: false });
    const aside = desk.quote.lines.find(({ alternative }) => alternative)?.id ?? '';
    await desk.change('POST /quotes/{id}/lines/{line}/instead', {}, { line: aside });
    await desk.change('POST /quotes/{id}/undo');
    await desk.change('POST /quotes/{id}/redo');
    await desk.change('DELETE /quotes/{id}/lines/{line}', {}, { line: desk.line(0) });
    await desk.change('DELETE /quotes/{id}/lines/several', { lines: [desk.line(0)] });
    const line = desk.line(0);
    await desk.ask('GET /quotes/{id}/lines/{line}/last', { at: { id: desk.quote.id, line } });
    await desk.ask('POST /quotes/{id}/numbers', {
      at: { id: desk.quote.id },
      body: { numbers: ['YE-KIOSK', 'RB-060-180', 'SILL-1212-Y', 'nothing'] },
    });
    await told(mara, 'POST /read-table', { body: new TextEncoder().encode('Item;Quantity\nYE-KIOSK;3\n') });
  });

  it('a quote as a whole', async () => {
    const desk = await Desk.open(mara, 'Whole');
    await desk.change('POST /quotes/{id}/lines', { sku: 'YE-KIOSK', quantity: 1 });
    const lease = { months: 36, yearlyRate: '4.5', inAdvance: false };
    await desk.change('PATCH /quotes/{id}', { title: 'Whole quote', lease });
    await desk.ask('GET /quotes/{id}/deal');
    await desk.ask('GET /quotes/{id}/addresses');
    await desk.change('POST /quotes/{id}/addresses', { kind: 'delivery', copyInvoice: true });
    const [contact] = await desk.ask<KnownContact[]>('GET /quotes/{id}/contacts');
    await desk.change('POST /quotes/{id}/contacts', { from: contact?.id });
    const [other] = await told<CustomerFound[]>(mara, 'GET /customers', { query: { find: 'norrvik' } });
    await desk.ask('GET /quotes/{id}/customer', {
      at: { id: desk.quote.id },
      query: { to: other?.id ?? '' },
    });
    await desk.change('POST /quotes/{id}/customer', { customerId: other?.id });
    await desk.ask('GET /quotes/{id}/freshening');
    await desk.change('POST /quotes/{id}/freshening', { lines: [desk.line(0)] });
    await desk.change('POST /quotes/{id}/send');
    await desk.change('POST /quotes/{id}/revisions');
    const both = { at: { id: desk.quote.id }, query: { before: '1', after: '2' } };
    await desk.ask('GET /quotes/{id}/revisions', both);
    await desk.change('POST /quotes/{id}/send');
    const version = desk.quote.version;
    await told(mara, 'POST /quotes/{id}/accept', { at: { id: desk.quote.id }, body: { version } });
    await desk.ask('GET /quotes/{id}');
    const lost = await Desk.open(mara, 'Lost');
    await lost.change('POST /quotes/{id}/lines', { sku: 'YE-KIOSK', quantity: 1 });
    await lost.change('POST /quotes/{id}/send');
    await lost.change('POST /quotes/{id}/lose', { reason: 'price', note: '' });
  });

  it('sign-offs', async () => {
    const desk = await Desk.open(mara, 'Sign-off');
    await desk.change('POST /quotes/{id}/lines', { sku: 'YE-KIOSK', quantity: 1 });
    const line = desk.line(0);
    await desk.change('PATCH /quotes/{id}/lines/{line}', { hand: { by: 'rate', value: '14' } }, { line });
    await desk.change('POST /quotes/{id}/sign-offs', { reason: 'A first order' });
    const signOff = desk.quote.signOff?.history.at(-1)?.id ?? '';
    const answer = { answer: 'counter', comment: '', counter: [{ line, rate: '9' }] };
    const signer = tobias?.role === 'manager' ? tobias : joss;
    await desk.change('PATCH /quotes/{id}/sign-offs/{signOff}', answer, { signOff }, signer);
    await desk.change('POST /quotes/{id}/sign-offs/{signOff}/take', {}, { signOff });
  });

  it('builds', async () => {
    const desk = await Desk.open(mara, 'Builds');
    const begun = { body: { quoteId: desk.quote.id, modelId: 'beacon' } };
    const { id } = await told<{ id: string }>(mara, 'POST /builds', begun);
    const at = { id };
    const bench = await told<BenchView>(mara, 'GET /builds/{id}', { at });
    const content = { version: bench.build.version, decisions: [], passed: [], special: [] };
    await told(mara, 'PUT /builds/{id}', { at, body: content });
    await told(mara, 'POST /builds/{id}/best', {
      at,
      body: { weights: [{ measure: 'price', weight: '1' }] },
    });
    await told(mara, 'POST /builds/{id}/read', { at, body: { number: 'BC-DLM-10KT-EN.7' } });
    await told(mara, 'GET /builds/{id}/move', { at });
    const more = await told<{ id: string }>(mara, 'POST /builds/{id}/variants', { at, body: {} });
    await told(mara, 'GET /builds/{id}/variants', { at });
    await desk.change('POST /builds/{id}/line', { quantity: 1 }, at);
    await desk.change('POST /quotes/{id}/variants', { builds: [more.id], alternatives: true });
    const newer = { ...bench.document, title: { en: 'Beacon, newer' } };
    await connected().transaction(() => publish(newer, 'BEACON', null));
    await told(mara, 'POST /builds/{id}/move', { at: more, body: { version: 1 } });
    const third = await told<{ id: string }>(mara, 'POST /builds/{id}/variants', {
      at,
      body: { empty: true },
    });
    await told(mara, 'DELETE /builds/{id}', { at: third });
    await told(mara, 'POST /saved', { body: { buildId: id, name: 'Shop counter', shared: true } });
    const [kept] = await told<SavedBuild[]>(mara, 'GET /saved');
    const saved = { at: { id: kept?.id ?? '' } };
    await told(mara, 'PATCH /saved/{id}', { ...saved, body: { starred: true } });
    await told(mara, 'DELETE /saved/{id}', saved);
  });

  it('the house', async () => {
    const { company, calendar, numbers, markets, workshop } = await told<HouseView>(ines, 'GET /house');
    await told(ines, 'PUT /house/company', { body: { ...company, phone: '+44 1632 960100' } });
    await told(ines, 'PUT /house/calendar', { body: { ...calendar, workdays: [1, 2, 3, 4] } });
    await told(ines, 'PUT /house/numbers', { body: numbers });
    await told(ines, 'PUT /house/markets', { body: markets });
    await told(ines, 'PUT /house/workshop', { body: { ...workshop, secondEyes: true } });
  });

  it('the Workshop', async () => {
    const { models } = await told<ModelsView>(wen, 'GET /models');
    const tarn = models.find(({ id }) => id === 'tarn');
    const version = { id: tarn?.versions[0]?.id ?? '' };
    await told(wen, 'GET /versions/{id}', { at: version });
    const begin = async () =>
      told<{ id: string }>(wen, 'POST /drafts', {
        body: { name: 'Wireless', from: { is: 'version', version: version.id } },
      });
    const at = { at: await begin() };
    const other = { at: await begin() };
    const edit = { do: 'set', at: [], name: 'name.en', value: 'Tarn, wireless' };
    await told(wen, 'POST /drafts/{id}/edits', { ...at, body: { version: 1, edit } });
    await told(wen, 'POST /drafts/{id}/undo', { ...at, body: { version: 2 } });
    await told(wen, 'POST /drafts/{id}/redo', { ...at, body: { version: 3 } });
    const rule = {
      id: 'more',
      kind: 'say',
      when: 'pads > 99',
      severity: 'note',
      reason: { en: 'Many.', de: 'Viele.' },
    };
    await told(wen, 'POST /drafts/{id}/edits', {
      ...at,
      body: { version: 4, edit: { do: 'add', to: ['rules'], part: rule } },
    });
    await told(wen, 'GET /drafts/{id}/edits', at);
    await told(wen, 'GET /drafts/{id}', at);
    await told(wen, 'GET /drafts/{id}/differences', at);
    await told(wen, 'POST /drafts/{id}/check', { ...at, body: { version: 5 } });
    const draft = await connected().records.modelDrafts.findByPk(at.at.id);
    const input = { draft: at.at.id, hash: draft?.hash ?? '' };
    await told(wen, 'POST /drafts/{id}/impact', { ...at, body: { version: 5 } });
    await impactJob.finish(await impactJob.work(input, atWork), input, atWork);
    await told(wen, 'GET /drafts/{id}/impact', at);
    await told(wen, 'GET /drafts/{id}/entries', at);
    await told(wen, 'GET /drafts/{id}/facts', at);
    await told(wen, 'POST /read-rows', { body: new TextEncoder().encode('Feature;Option\nPad;30 t\n') });
    const dmn = await writeDmn('tarn', [
      {
        name: 'Pads',
        hitPolicy: 'ANY',
        inputs: [{ label: 'Pad', expression: 'pad' }],
        outputs: [{ label: 'allowed', name: 'allowed' }],
        rules: [{ inputs: ['"p10"'], outputs: ['true'], annotation: '' }],
      },
    ]);
    await told(wen, 'POST /read-tables', { body: dmn });
    await told(tobias, 'POST /drafts/{id}/agree', { ...at, body: { version: 5 } });
    const published = await told<{ id: string }>(wen, 'POST /drafts/{id}/publish', {
      ...at,
      body: { version: 5, note: 'Says so of many.', from: today() },
    });
    await told(wen, 'GET /drafts/{id}/catch-up', other);
    await told(wen, 'POST /drafts/{id}/catch-up', { ...other, body: { version: 1, take: [] } });
    await told(wen, 'POST /drafts/{id}/aside', { ...other, body: { version: 2 } });
    await told(wen, 'POST /versions/{id}/withdraw', { at: published, body: { note: 'A slip.' } });
  });

  it('people', async () => {
    const { people } = await told<PeopleView>(ines, 'GET /people');
    const tobias = people.find(({ name }) => name === 'Tobias Renwick');
    const hedda = people.find(({ name }) => name === 'Hedda Marchbank');
    const added = await told<PeopleWithLink>(ines, 'POST /people', {
      body: { name: 'Nell Ashby', email: 'nell@harrowmoor.example', role: 'modeller', language: 'en' },
    });
    const at = { at: { id: added.person } };
    const body = { name: 'Nell Ashby', email: 'nell@harrowmoor.example', role: 'engineer', language: 'de' };
    await told(ines, 'PUT /people/{id}', { ...at, body: { version: 1, ...body } });
    const { link } = await told<PeopleWithLink>(ines, 'POST /people/{id}/link', at);
    const token = link.slice(link.indexOf('#') + 1);
    await told(ines, 'POST /password/link', { body: { token } });
    await told(ines, 'POST /password', { body: { token, password: 'four plain words here' } });
    await told(ines, 'PUT /people/{id}/aside', { ...at, body: { version: 2, aside: true } });
    await told(ines, 'PUT /people/{id}/deputies', {
      at: { id: tobias?.id ?? '' },
      body: {
        version: tobias?.version,
        deputies: [{ deputy: hedda?.id, from: '2027-03-01', to: '2027-03-05' }],
      },
    });
  });

  it('what is put on paper', async () => {
    const desk = await Desk.open(mara, 'Paper');
    await desk.change('POST /quotes/{id}/lines', { sku: 'YE-KIOSK', quantity: 1 });
    const view = await desk.ask<PaperView>('GET /quotes/{id}/paper');
    await desk.ask('GET /quotes/{id}/paper/given');
    const chosen = { ...view.composition, colour: '#123456' };
    const kept = await desk.ask<PaperView>('PUT /quotes/{id}/paper', {
      body: { version: view.version, composition: chosen },
    });
    expect([kept.version, kept.composition.colour]).toEqual([1, '#123456']);
    const house = await told<PaperHouseView>(wen, 'GET /paper');
    const [text, template] = [house.texts[0], house.templates[0]];
    const { code, version, name, place, words } = text as PaperText;
    const next = { version, content: { name, place, words } };
    await told(wen, 'PUT /paper/texts/{code}', { at: { code }, body: next });
    await told(wen, 'PUT /paper/texts/{code}', { at: { code: 'spare' }, body: { ...next, version: 0 } });
    await told(wen, 'DELETE /paper/texts/{code}', { at: { code: 'spare' }, body: { version: 1 } });
    const content = template?.content;
    await told(wen, 'PUT /paper/templates/{code}', { at: { code: 'spare' }, body: { version: 0, content } });
    await told(wen, 'DELETE /paper/templates/{code}', { at: { code: 'spare' }, body: { version: 1 } });
  });

  it('items', async () => {
    const row = { sku: 'SPARE-1', family: 'yard', name: { en: 'Spare' } };
    await told(wen, 'GET /catalogue/items');
    await told(wen, 'PUT /catalogue/items', { body: { rows: [row] } });
    const one = { at: { sku: 'SPARE-1' } };
    await told(wen, 'POST /catalogue/items/job', { body: { rows: [{ ...row, sku: 'JOB-1' }] } });
    await told(wen, 'GET /catalogue/items/{sku}', one);
    await told(wen, 'PUT /catalogue/items/{sku}', { ...one, body: { version: 1, leadDays: 3 } });
    await told(wen, 'DELETE /catalogue/items/{sku}', { ...one, body: { version: 2 } });
    const family = { at: { code: 'spare' } };
    const properties = [
      { id: 'load', name: { en: 'Load' }, is: 'number', unit: 't', decimals: 1 },
      { id: 'cover', name: { en: 'Cover' }, is: 'choice', options: [{ id: 'steel', name: { en: 'Steel' } }] },
      { id: 'wet', name: { en: 'Wet' }, is: 'yesNo' },
      { id: 'make', name: { en: 'Make' }, is: 'text' },
    ];
    await told(wen, 'PUT /catalogue/families/{code}', {
      ...family,
      body: { name: { en: 'Spare' }, parent: 'yard', properties },
    });
    await told(wen, 'DELETE /catalogue/families/{code}', { ...family, body: { version: 1 } });
  });

  it('price lists and price changes', async () => {
    const list = { at: { list: 'EUR-2026' } };
    await told(wen, 'GET /prices/all');
    await told(wen, 'GET /prices/lists/{list}', list);
    await told(wen, 'GET /prices/entry', { query: { list: 'EUR-2026', sku: 'YE-CARD' } });
    const begin = (name: string) =>
      told<{ id: string }>(wen, 'POST /prices/changes', { body: { name, inForce: inDays(9) } });
    const at = { at: { id: (await begin('Spring')).id } };
    const other = { at: { id: (await begin('Autumn')).id } };
    await told(wen, 'GET /prices/changes/{id}', at);
    await told(wen, 'PUT /prices/changes/{id}', {
      ...at,
      body: { version: 1, name: 'Spring, early', inForce: inDays(8) },
    });
    const formula = { version: 2, list: 'EUR-2026', formula: '+3.5 %, to 0.5' };
    await told(wen, 'POST /prices/changes/{id}/formula', { ...at, body: formula });
    const rows = [{ list: 'EUR-2026', sku: 'YE-CARD', inside: '', cells: { tiers: '0 - 9: 5; 9 - : 4' } }];
    await told(wen, 'PUT /prices/changes/{id}/rows', { ...at, body: { version: 3, rows, out: [] } });
    await told(wen, 'POST /prices/changes/{id}/undo', { ...at, body: { version: 4 } });
    await told(wen, 'POST /prices/changes/{id}/redo', { ...at, body: { version: 5 } });
    await told(wen, 'POST /prices/changes/{id}/impact', { ...at, body: { version: 6 } });
    const input = { change: at.at.id, version: 6 };
    const one = { ...atWork, id: at.at.id };
    await priceImpactJob.finish(await priceImpactJob.work(input, one), input, one);
    await told(wen, 'GET /prices/changes/{id}/impact', { ...at, query: { page: '0' } });
    await told(wen, 'POST /prices/changes/{id}/publish', { ...at, body: { version: 6 } });
    await told(wen, 'POST /prices/changes/{id}/withdraw', { ...at, body: { version: 7 } });
    const { id: file } = await told<FileView>(wen, 'POST /files', {
      body: new TextEncoder().encode('Item;Price\nYE-BOLL;dear\n'),
      query: { name: 'prices.csv' },
    });
    const sheet = { version: 1, file, list: 'EUR-2026' };
    await told(wen, 'POST /prices/changes/{id}/sheet', { ...other, body: sheet });
    const taken = { change: other.at.id, ...sheet, language: 'en' };
    const by = { ...atWork, askedBy: wen?.id ?? '' };
    await priceSheetJob.finish(await priceSheetJob.work(taken, by), taken, by);
    // With a row that is to be mended.
    await told(wen, 'GET /prices/changes/{id}', other);
    await told(wen, 'DELETE /prices/changes/{id}', { ...other, body: { version: 2 } });
  });

  it('terms', async () => {
    const at = { at: { kind: 'limits' } };
    const view = await told<TermsView>(wen, 'GET /terms/{kind}', at);
    const [row] = view.rows;
    const rows = [{ id: row?.id, version: row?.version, cells: { ...row?.cells, target: '0.01' } }];
    const body = { from: inDays(3), rows, gone: [] };
    const { job } = await told<{ job: string }>(wen, 'POST /terms/{kind}/try', { ...at, body });
    await told(wen, 'GET /terms/tried/{job}', { at: { job } });
    await told(wen, 'PUT /terms/{kind}', { ...at, body });
    await told(wen, 'GET /terms/history/{kind}/{id}', { at: { kind: 'limits', id: row?.id ?? '' } });
  });

  it('files', async () => {
    const { id } = await told<FileView>(mara, 'POST /files', {
      body: new TextEncoder().encode('a;b'),
      query: { name: 'list.csv' },
    });
    expect(await (await askAs(mara ?? null, 'GET /files/{id}', { at: { id } })).text()).toBe('a;b');
    await told(mara, 'DELETE /files/{id}', { at: { id } });
  });

  it('jobs', async () => {
    const at = await told<JobView>(ines, 'POST /jobs', { body: { kind: 'house.facts' } });
    await told(ines, 'GET /jobs/{id}', { at: { id: at.id } });
    await told(ines, 'POST /jobs/{id}/stop', { at: { id: at.id } });
    await told(ines, 'POST /jobs/{id}/again', { at: { id: at.id } });
    await told(ines, 'GET /jobs', { query: { state: 'waiting' } });
    await told(ines, 'GET /audit', { query: { subject: 'house' } });
    await told(ines, 'POST /audit/file', { body: { subject: 'house' } });
  });

  it('what goes out, and what comes back', async () => {
    await told(mara, 'GET /desk');
    await told(mara, 'GET /mail-server');
    await told(ines, 'PUT /mail-server', { body: { down: false } });
    const desk = await Desk.open(mara, 'Sent');
    await desk.change('POST /quotes/{id}/lines', { sku: 'YE-KIOSK', quantity: 1 });
    const { contacts } = await desk.ask<SendView>('GET /quotes/{id}/sending');
    const [first] = contacts;
    const mail = {
      recipients: [{ as: 'to', name: first?.name ?? '', address: first?.address ?? '' }],
      subject: 'Our quotation',
      words: 'Here it is.\n\n{link}',
      documents: [{ is: 'quotation', format: 'pdf' }],
      share: { until: inDays(20) },
    };
    const asked = await desk.ask<MailView>('POST /quotes/{id}/mails', {
      body: { version: desk.quote.version, ...mail },
    });
    await workAll();
    const at = { id: asked.id };
    const sent = await told<MailView>(mara, 'GET /mails/{id}', { at });
    await told(mara, 'GET /mails');
    await told(mara, 'GET /mails/{id}/seen', { at });
    await told(mara, 'POST /mail-server/returns', { body: { mail: asked.id, address: first?.address } });
    await connected().records.mails.update({ state: 'unsure', sentAt: null }, { where: { id: asked.id } });
    await told(mara, 'POST /mails/{id}/arrived', { at });
    await connected().records.mails.update({ state: 'unsure', sentAt: null }, { where: { id: asked.id } });
    await told(mara, 'POST /mails/{id}/again', { at });
    const token = sent.words.split('/s/')[1]?.trim() ?? '';
    const view = await told<SharedView>(undefined, 'GET /shared/{token}', { at: { token } });
    const answer = { name: 'Ana', words: 'When?', answer: 'question' };
    await told(undefined, 'POST /shared/{token}/answers', { at: { token }, body: answer });
    const yes = { name: 'Ana', answer: 'accepted', document: view.hash, agreed: true };
    await connected().records.revisions.update(
      { validUntil: inDays(-1) },
      { where: { quoteId: desk.quote.id } },
    );
    await told(undefined, 'POST /shared/{token}/answers', { at: { token }, body: yes });
    await connected().records.revisions.update(
      { validUntil: inDays(9) },
      { where: { quoteId: desk.quote.id } },
    );
    const { answers } = await desk.ask<SentView>('GET /quotes/{id}/sent');
    const of = (is: string): string => answers.find((each) => each.answer === is)?.id ?? '';
    await told(mara, 'POST /answers/{id}/reply', { at: { id: of('question') }, body: { words: 'In May.' } });
    await told(mara, 'POST /answers/{id}/order', { at: { id: of('accepted') } });
    await told(mara, 'GET /desk');
    const { share } = await desk.ask<SharedLink>('POST /quotes/{id}/shares', { body: { until: inDays(3) } });
    await told(mara, 'PUT /shares/{id}/until', { at: { id: share.id }, body: { until: inDays(4) } });
    await told(mara, 'POST /shares/{id}/revoke', { at: { id: share.id } });

    const quote = await Desk.open(mara, 'Build sent');
    const begun = { body: { quoteId: quote.quote.id, modelId: 'ridgeback' } };
    const { id: build } = await told<{ id: string }>(mara, 'POST /builds', begun);
    await told(mara, 'GET /builds/{id}/sending', { at: { id: build } });
    await told(mara, 'POST /builds/{id}/mails', { at: { id: build }, body: { ...mail, documents: [] } });
    await told(mara, 'GET /builds/{id}/sent', { at: { id: build } });
    const made = await told<SharedLink>(mara, 'POST /builds/{id}/shares', {
      at: { id: build },
      body: { until: inDays(3) },
    });
    const other = made.link.split('/s/')[1] ?? '';
    await told(undefined, 'GET /shared/{token}', { at: { token: other } });
    await told(undefined, 'GET /shared/{token}/builds/{id}', { at: { token: other, id: build } });
  });

  it('site schedules and the shelf', async () => {
    const desk = await Desk.open(mara, 'Site');
    await desk.change('POST /quotes/{id}/lines', { sku: 'YE-KIOSK', quantity: 2 });
    const asked = { name: 'North quarry', site: '', quote: desk.quote.id };
    const begun = await told<ScheduleView>(mara, 'POST /schedules', { body: asked });
    const at = { id: begun.id };
    await told(mara, 'GET /schedules');
    const head = { version: begun.version, name: 'South quarry', site: 'By the river' };
    const named = await told<ScheduleView>(mara, 'PUT /schedules/{id}', { at, body: head });
    const rows = named.positions.map(({ tag, area, quantity, remark, of }) => ({
      tag,
      area,
      quantity,
      remark,
      of,
    }));
    const kept = await told<ScheduleView>(mara, 'PUT /schedules/{id}/positions', {
      at,
      body: { version: named.version, rows },
    });
    const lines = { version: kept.version, quote: desk.quote.id };
    await told(mara, 'POST /schedules/{id}/lines', { at, body: lines });
    const wanted = { as: 'zip', language: 'en', drawings: true, dataSheets: true };
    await told(mara, 'POST /schedules/{id}/package', { at, body: wanted });
    const worker = new JobWorker([packageJob] as never, { pauseAfter: () => 0 });
    while (await worker.runNext()) continue;
    const view = await told<ScheduleView>(mara, 'GET /schedules/{id}', { at });
    expect(view.packages).toHaveLength(1);
    const { rows: shelved } = await told<ShelfPage>(mara, 'GET /shelf', { query: { find: 'quarry' } });
    await told(mara, 'POST /shelf/{id}/again', { at: { id: shelved[0]?.id ?? '' } });
    await told(mara, 'DELETE /schedules/{id}', { at });
  });

  it('what colleagues tell and ask one another', async () => {
    const desk = await Desk.open(mara, 'Among colleagues');
    await desk.change('POST /quotes/{id}/lines/several', {
      rows: [{ sku: 'RB-080-180-B-C-P-D-0-G-O/L', quantity: 1 }],
    });
    const id = desk.quote.id;
    const ask = (way: Way, body?: object, more: Record<string, string> = {}) =>
      told<ColleaguesView>(mara, way, { at: { id, ...more }, body });
    const noted = await ask('POST /quotes/{id}/notes', { words: 'A note' });
    await told(mara, 'DELETE /notes/{id}', { at: { id: noted.thread[0]?.id ?? '' } });
    const line = desk.line(0);
    const [item] = await told<BuildItem[]>(mara, 'GET /quotes/{id}/lines/{line}/items', { at: { id, line } });
    const question = { kind: 'technical', role: 'modeller', line, item: item?.sku, words: 'What?' };
    const asked = (await ask('POST /quotes/{id}/requests', question)).thread[0]?.id ?? '';
    await told(wen, 'GET /quotes/{id}/colleagues', { at: { id } });
    const part = { text: 'Other', cost: '1', price: '2.5', days: 3 };
    await told(wen, 'GET /desk');
    await told(wen, 'POST /requests/{id}/answer', { at: { id: asked }, body: { words: 'That.', part } });
    await told(mara, 'GET /desk');
    await told(mara, 'POST /requests/{id}/take', { at: { id: asked } });
    const look = { kind: 'look', of: joss?.id, words: 'Look' };
    const looked = (await ask('POST /quotes/{id}/requests', look)).thread[0]?.id ?? '';
    await told(mara, 'POST /requests/{id}/close', { at: { id: looked } });
    const { followUps } = await ask('POST /quotes/{id}/follow-ups', { day: inDays(1) });
    await told(mara, 'PUT /follow-ups/{id}', { at: { id: followUps[0]?.id ?? '' }, body: { done: true } });
    const { id: file } = await told<FileView>(mara, 'POST /files', {
      body: new TextEncoder().encode('a'),
      query: { name: 'a.txt' },
    });
    await ask('POST /quotes/{id}/attachments', { file, kind: 'other' });
    await ask('DELETE /quotes/{id}/attachments/{file}', undefined, { file });
    const { version } = await desk.ask<QuoteView>('GET /quotes/{id}');
    await ask('POST /quotes/{id}/hand-over', { version, to: joss?.id, words: 'Yours' });
  });

  it('leaves none out', () => {
    const json = ways.filter((way) => contract[way].answers.kind !== 'file');
    expect(json.filter((way) => !held.has(way))).toEqual([]);
  });
});

/** Site schedules: what stands where, kept all or none, and what is made of it. */
import { unzipSync } from 'fflate';
import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { PackageInput, PositionsInput, ScheduleView } from '../../contract';
import type { Decision } from '../../core/engine';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { beginBuild } from '../builds/begin';
import { saveContent } from '../builds/save';
import { endLive } from '../kernel/live';
import { JobWorker } from '../kernel/jobs/worker';
import { openDemo, personOf } from '../kernel/testing';
import { documentFor } from '../outbox/documents';
import { codes, readyQuote, value } from '../outbox/testing';
import { addSeveral, putOnQuote } from '../quotes/lines/quote-builds';
import { removeLines } from '../quotes/lines/lines';
import { makeAgain } from '../shelf/again';
import { seeShelf } from '../shelf/list';
import { openShelved } from '../shelf/shelf';
import { pdfLetters } from '../paper/testing';
import { scheduleFile } from './files';
import { listSchedules } from './find';
import { askForPackage, packageJob } from './package';
import {
  beginSchedule,
  changeSchedule,
  dropSchedule,
  keepPositions,
  scheduleLines,
  seeSchedule,
} from './schedules';

let mara: Actor;
let joss: Actor;
let rhona: Actor;
beforeAll(async () => {
  await openDemo('schedules');
  mara = await personOf('mara@harrowmoor.example');
  joss = await personOf('joss@harrowmoor.example');
  rhona = await personOf('rhona@dunmere.example');
});
afterAll(async () => {
  await endLive();
  await connected().close();
});

type Row = PositionsInput['rows'][number];
const row = (tag: string, more: Partial<Row> = {}): Row => ({
  tag,
  area: '',
  quantity: '1',
  remark: '',
  of: { is: 'words', text: 'Something' },
  ...more,
});
const empty = async (): Promise<ScheduleView> =>
  value(await beginSchedule(mara, { name: 'North quarry', site: 'By the river' }));
const keep = (view: ScheduleView, rows: Row[], actor = mara) =>
  keepPositions(actor, view.id, { version: view.version, rows });

/** Decisions of a build of the demo that is whole. */
async function whole(): Promise<Decision[]> {
  const [found] = await connected().sequelize.query<{ decisions: Decision[] }>(
    `select b.asked || b.decisions as decisions from builds b join model_versions v on v.id = b.model_version_id
     where v.model_id = 'ridgeback' and b.outcome ->> 'complete' = 'true' and b.outcome -> 'warnings' = '[]' and b.special = '[]'
     order by b.id limit 1`,
    { type: QueryTypes.SELECT },
  );
  return found?.decisions ?? [];
}
/** A quote with some items and a build in its last line. */
async function quoteWithBuild() {
  const bare = await readyQuote(mara, 'C-1001', 'Quarry');
  const { id } = value(await beginBuild(mara, { quoteId: bare.id, modelId: 'ridgeback' }));
  value(await saveContent(mara, id, { version: 1, decisions: await whole(), passed: [], special: [] }));
  const quote = value(await putOnQuote(mara, id, { version: bare.version, quantity: 1 }));
  return { quote, build: id };
}

/** Makes a package, as a worker does it; gives what is in it. */
async function packed(view: ScheduleView, more: Partial<PackageInput> = {}) {
  const wanted: PackageInput = { as: 'zip', language: 'en', drawings: true, dataSheets: true, ...more };
  value(await askForPackage(mara, view.id, wanted));
  const worker = new JobWorker([packageJob] as never, { pauseAfter: () => 0 });
  while (await worker.runNext()) continue;
  const [made] = value(await seeSchedule(mara, view.id)).packages;
  if (!made) throw new Error('nothing was made');
  const { bytes } = value(await openShelved(mara, made.id));
  return { made, bytes: new Uint8Array(bytes as Buffer) };
}

describe('a site schedule', () => {
  it('is begun before there is any quote, and seen by the house, by no dealer', async () => {
    const view = await empty();
    expect(view).toMatchObject({ positions: [], customer: null, may: { edit: true } });
    expect((await seeSchedule(joss, view.id)).ok).toBe(true);
    expect(codes(await seeSchedule(rhona, view.id))).toEqual(['schedule.missing']);
    expect((await listSchedules(rhona)).rows).toEqual([]);
    expect((await listSchedules(joss, { find: 'river' })).rows.map(({ id }) => id)).toContain(view.id);
    expect(codes(await beginSchedule(mara, { name: 'a', site: '', customer: view.id }))).toEqual([
      'quote.unknownCustomer',
    ]);
  });

  it('keeps rows all or none: tags that are there twice are told with their rows', async () => {
    const view = await empty();
    const twice = await keep(view, [
      row('Gate 1'),
      row('Lane 2'),
      row(' gate  1'),
      row('A', { quantity: '0' }),
    ]);
    expect(twice).toMatchObject({
      ok: false,
      failures: [
        { code: 'schedule.tagTwice', field: 'rows.2.tag', params: { tag: 'gate  1', row: 1 } },
        { code: 'schedule.noQuantity', field: 'rows.3.quantity' },
      ],
    });
    expect(value(await seeSchedule(mara, view.id)).positions).toEqual([]);
    const kept = value(
      await keep(view, [
        row('Gate 1', { area: 'North', quantity: '2.5', remark: '<b>beside</b> the road' }),
        row('Lane 2', { of: { is: 'words', text: 'ye-kiosk' } }),
      ]),
    );
    expect(kept.positions).toMatchObject([
      { tag: 'Gate 1', area: 'North', quantity: '2.5', remark: '<b>beside</b> the road' },
      { tag: 'Lane 2', of: { is: 'item', sku: 'YE-KIOSK' }, number: 'YE-KIOSK' },
    ]);
    // Tags change places without meeting each other on the way.
    const turned = value(await keep(kept, [row('Lane 2'), row('Gate 1')]));
    expect(turned.positions.map(({ tag }) => tag)).toEqual(['Lane 2', 'Gate 1']);
    expect(codes(await keep(kept, [row('Late')]))).toEqual(['schedule.staleOwn']);
    expect(codes(await keep(kept, [row('Late')], joss))).toEqual(['schedule.stale']);
  });

  it('holds 5,000 positions', async () => {
    const view = await empty();
    const rows = Array.from({ length: 5_000 }, (_, at) =>
      row(`P ${String(at + 1)}`, { area: `A ${String(at % 9)}` }),
    );
    const kept = value(await keep(view, rows));
    expect(kept.positions).toHaveLength(5_000);
    expect(kept.positions.at(-1)?.tag).toBe('P 5000');
    const pages = await pdfLetters(
      new Uint8Array(value(await scheduleFile(mara, view.id, 'pdf')).bytes as Buffer),
    );
    expect(pages.length).toBeGreaterThan(50);
    expect(pages.some((page) => page.includes('P5000'))).toBe(true);
  });

  it('takes the lines of a quote once, each under a tag of its own, and follows them', async () => {
    const { quote, build } = await quoteWithBuild();
    const view = value(await beginSchedule(mara, { name: 'From a quote', site: '', quote: quote.id }));
    expect(view.customer?.name).toBe(quote.customer.name);
    expect(view.positions).toHaveLength(quote.lines.length);
    expect(new Set(view.positions.map(({ tag }) => tag)).size).toBe(quote.lines.length);
    expect(view.positions.at(-1)).toMatchObject({
      build,
      quote: quote.number,
      unfinished: false,
      gone: false,
    });
    const again = value(await scheduleLines(mara, view.id, { version: view.version, quote: quote.id }));
    expect(again.positions).toHaveLength(quote.lines.length);
    const more = value(
      await addSeveral(mara, quote.id, { version: quote.version, rows: [{ sku: 'YE-BOLL', quantity: 3 }] }),
    );
    const grown = value(await scheduleLines(mara, view.id, { version: again.version, quote: quote.id }));
    expect(grown.positions.at(-1)).toMatchObject({ number: 'YE-BOLL', quantity: '3' });
    value(await removeLines(mara, quote.id, { version: more.version, lines: [more.lines.at(-1)?.id ?? ''] }));
    const left = value(await seeSchedule(mara, view.id));
    expect(left.positions.map(({ gone }) => gone)).toEqual([...quote.lines.map(() => false), true]);
    // What is gone may stay where it stood, and nobody brings in what they do not see.
    value(await keep(left, left.positions));
    const foreign = await beginSchedule(rhona, { name: 'Theirs', site: '', quote: quote.id });
    expect(codes(foreign)).toEqual(['quote.missing']);
    const theirs = value(await beginSchedule(rhona, { name: 'Theirs', site: '' }));
    const line = { is: 'line' as const, quote: quote.id, line: quote.lines[0]?.id ?? '' };
    for (const of of [line, { is: 'build' as const, build }])
      expect(codes(await keep(theirs, [row('Gate 1', { of })], rhona))).toEqual(['schedule.unknown']);
  });

  it('goes out as rows that come in as they were', async () => {
    const view = value(await keep(await empty(), [row('Gate 1', { area: 'North', remark: '=1+1' })]));
    const csv = new TextDecoder().decode(value(await scheduleFile(mara, view.id, 'csv')).bytes as Uint8Array);
    expect(csv).toContain('Tag,Area,What,Quantity,Remark');
    expect(csv).toContain("'=1+1");
    expect(codes(await scheduleFile(mara, view.id, 'exe'))).toEqual(['file.format']);
  });

  it('is renamed, and taken away with its packages', async () => {
    const view = await empty();
    const head = { version: view.version, name: 'Other', site: '' };
    expect(value(await changeSchedule(mara, view.id, head)).name).toBe('Other');
    expect(codes(await dropSchedule(rhona, view.id))).toEqual(['schedule.missing']);
    value(await dropSchedule(mara, view.id));
    expect(codes(await seeSchedule(mara, view.id))).toEqual(['schedule.missing']);
  });
});

describe('a specification package', () => {
  it('has a sheet of each position under its tag, and the schedule, as a folder or as one document', async () => {
    const { quote, build } = await quoteWithBuild();
    const begun = value(await beginSchedule(mara, { name: 'Package', site: 'Quarry', quote: quote.id }));
    const last = begun.positions.at(-1);
    if (!last) throw new Error('no positions');
    const view = value(
      await keep(begun, [
        row('Gate 1', { area: 'North', of: last.of }),
        row('../Gate/1', { area: 'North', of: last.of, quantity: '2' }),
        row('Hut', { of: { is: 'item', sku: 'YE-KIOSK' } }),
      ]),
    );
    const { made, bytes } = await packed(view);
    expect(made).toMatchObject({ kind: 'package', movedOn: false, type: 'application/zip' });
    const names = Object.keys(unzipSync(bytes));
    expect(names).toEqual(
      expect.arrayContaining([
        'Package/Site schedule.pdf',
        'Package/Site schedule.xlsx',
        'Package/positions/Gate 1.pdf',
        'Package/positions/_Gate_1.pdf',
      ]),
    );
    expect(names.filter((name) => name.startsWith('Package/positions/'))).toHaveLength(2);
    const sheet = (await pdfLetters(unzipSync(bytes)['Package/positions/Gate 1.pdf'] as Uint8Array)).join(
      ' ',
    );
    const number = quote.lines.at(-1)?.partNumber ?? '';
    expect(sheet).toContain('Gate1·');
    expect(sheet).toContain(number);
    // No price is on any page.
    expect(sheet).not.toMatch(/GBP|EUR/);

    const one = await packed(view, { as: 'pdf', language: 'de', dataSheets: false });
    const pages = await pdfLetters(one.bytes);
    expect(pages[0]).toContain('Package');
    expect(pages.join(' ')).toContain('Lageliste');
    expect(pages.filter((page) => page.includes('Gate1·')).length).toBeGreaterThan(0);

    // What was made before the build moved on says so; it stays what it was.
    const customer = await connected().records.customers.findOne({ where: { number: 'C-1001' }, raw: true });
    const before = value(
      await documentFor(
        mara,
        { quoteId: quote.id, revisionId: null, buildId: build, customerId: customer?.id ?? null },
        { is: 'specification', build },
      ),
    );
    const now = await connected().records.builds.findByPk(build, { raw: true });
    value(
      await saveContent(mara, build, {
        version: now?.version ?? 0,
        decisions: (now?.decisions ?? []).slice(0, -1),
        passed: [],
        special: [],
      }),
    );
    const shelf = await seeShelf(mara);
    expect(shelf.rows.find(({ id }) => id === before.id)?.movedOn).toBe(true);
    const again = value(await makeAgain(mara, before.id));
    expect(again).toMatchObject({ movedOn: false, kind: 'specification' });
    expect(again.id).not.toBe(before.id);
    expect(again.hash).not.toBe(before.hash);
    expect((await seeShelf(rhona, { find: number })).rows).toEqual([]);
    expect(codes(await openShelved(rhona, made.id))).toEqual(['files.missing']);
    value(await keep(view, [row('Gate 9')]));
    const [newest] = value(await seeSchedule(mara, view.id)).packages;
    expect(newest?.movedOn).toBe(true);
  });

  it('is refused where there is nothing in it, and stopped where it is to stop', async () => {
    const view = await empty();
    const wanted: PackageInput = { as: 'zip', language: 'en', drawings: true, dataSheets: true };
    expect(codes(await askForPackage(mara, view.id, wanted))).toEqual(['schedule.empty']);
    expect(codes(await askForPackage(rhona, view.id, wanted))).toEqual(['schedule.missing']);
  });
});

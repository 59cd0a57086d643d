/** Items: kept by rows and one by one, followed wherever they are sold, and by nobody at the same time as another. */
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ItemsView, ItemView, QuoteView } from '../../contract';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { openBench } from '../builds/bench';
import { beginBuild } from '../builds/begin';
import { catalogue } from '../catalogue/catalogue';
import { findItems } from '../desk/search';
import { bring } from '../files/files';
import type { Result } from '../kernel/failure';
import type { AnyJobKind } from '../kernel/jobs/kind';
import { stopJob } from '../kernel/jobs/queue';
import { JobWorker } from '../kernel/jobs/worker';
import { openDemo, personOf } from '../kernel/testing';
import { addByNumber, addSeveral, copyLine, putOnQuote } from '../quotes/lines/quote-builds';
import { readNumbers } from '../quotes/lines/numbers';
import { changeLine } from '../quotes/lines/lines';
import { openQuote, seeQuote } from '../quotes/quotes';
import { dropFamily, keepFamily } from './families';
import { askToKeepItems, changeItem, dropItem, itemsJob, keepItems } from './items';
import { seeItem } from './item-view';
import { seeItems } from './kept';

let [wen, mara, rhona]: Actor[] = [];
const as = (actor: Actor | undefined): Actor => actor as Actor;
beforeAll(async () => {
  await openDemo('items');
  [wen, mara, rhona] = await Promise.all([
    personOf('wen@harrowmoor.example'),
    personOf('mara@harrowmoor.example'),
    personOf('rhona@dunmere.example'),
  ]);
});
afterAll(() => connected().close());

async function kept<T>(result: Promise<Result<T>>): Promise<T> {
  const answer = await result;
  if (!answer.ok) throw new Error(JSON.stringify(answer.failures));
  return answer.value;
}
async function refused(result: Promise<Result<unknown>>): Promise<string[]> {
  const answer = await result;
  return answer.ok ? [] : answer.failures.map(({ code }) => code);
}
const rowOf = async (sku: string) => {
  const row = (await seeItems()).items.find((each) => each.sku === sku);
  if (!row) throw new Error(`${sku} is missing`);
  return row;
};
const change = async (sku: string, more: object): Promise<ItemView> =>
  kept(changeItem(as(wen), sku, { version: (await rowOf(sku)).version, ...more }));

/** A quote for a customer, by somebody. */
async function quoteFor(actor: Actor, name: string): Promise<QuoteView> {
  const customer = await connected().records.customers.findOne({ where: { name } });
  const opened = await kept(openQuote(actor, { customerId: customer?.id ?? '', title: 'Items' }));
  return kept(seeQuote(actor, opened.id));
}
const put = (actor: Actor, quote: Pick<QuoteView, 'id' | 'version'>, sku: string, quantity = 1) =>
  addByNumber(actor, quote.id, { version: quote.version, sku, quantity });

describe('very many rows of items', () => {
  const work = async (): Promise<void> => {
    const worker = new JobWorker([itemsJob] as unknown as AnyJobKind[]);
    while (await worker.runNext());
  };
  const rows = (count: number, named: (at: number) => string) =>
    Array.from({ length: count }, (_, at) => ({
      sku: named(at),
      family: 'floor',
      name: { en: `Sheet ${String(at)}` },
      cost: '1.5',
    }));

  it('are kept in the background, all or none, and not at all once it is stopped', async () => {
    const { count } = await connected().records.items.findAndCountAll({ limit: 1 });
    const asked = await kept(askToKeepItems(as(wen), { rows: rows(1200, (at) => `MANY-${String(at)}`) }));
    await work();
    const { jobs, items, audit } = connected().records;
    expect(await jobs.findByPk(asked.job, { raw: true })).toMatchObject({
      state: 'done',
      outcome: { rows: 1200 },
    });
    expect(await items.count()).toBe(count + 1200);
    expect(await audit.count({ where: { action: 'item.added', subject: 'MANY-7' } })).toBe(1);

    // One wrong row among many, and none is kept.
    const wrong = rows(900, (at) => (at === 700 ? 'MANY-7' : `MORE-${String(at)}`));
    const other = await kept(askToKeepItems(as(wen), { rows: wrong }));
    await work();
    expect(await jobs.findByPk(other.job, { raw: true })).toMatchObject({ state: 'failed' });
    expect(await items.count()).toBe(count + 1200);

    const stopped = await kept(askToKeepItems(as(wen), { rows: rows(600, (at) => `STOP-${String(at)}`) }));
    await kept(stopJob(stopped.job));
    await work();
    expect(await items.count()).toBe(count + 1200);
    await connected().sequelize.query("delete from items where sku like 'MANY-%'");
  });
});

describe('rows of items', () => {
  it('are all kept or none, each wrong one told with its row', async () => {
    const before = await seeItems();
    const sill = await rowOf('SILL-1212-X');
    const answer = await keepItems(as(wen), {
      rows: [
        { sku: 'NEW-1', family: 'floor', name: { en: 'New' }, cost: '10.5', leadDays: 4 },
        { sku: sill.sku, version: sill.version, family: 'nowhere' },
        { sku: 'NEW-2', family: 'floor', name: { en: '' } },
        { sku: 'RIDGEBACK', version: (await rowOf('RIDGEBACK')).version, kind: 'part' },
        { sku: 'NEW-1', family: 'floor', name: { en: 'Again' } },
      ],
    });
    expect(answer.ok ? [] : answer.failures.map(({ code, field }) => `${code} ${field ?? ''}`)).toEqual([
      'family.unknown rows.1.family',
      'item.noName rows.2.name',
      'item.kindStays rows.3.kind',
      'item.twice rows.4.sku',
    ]);
    expect((await seeItems()).items).toEqual(before.items);
  });

  it('come back as they were kept, with who changed what from what to what', async () => {
    await kept(
      keepItems(as(wen), {
        rows: [
          { sku: 'NEW-3', family: 'floor', name: { en: 'Ramp plate', de: 'Rampenblech' }, cost: '10.50' },
        ],
      }),
    );
    expect(await rowOf('NEW-3')).toMatchObject({
      cost: '10.5',
      unit: 'pc',
      active: true,
      sold: true,
      version: 1,
    });
    const after = await change('NEW-3', { cost: '12', note: { en: 'Wide ones from spring on' } });
    expect(after.version).toBe(2);
    expect(after.history.map(({ by, action }) => `${by} ${action}`)).toEqual([
      'Wen Castellane item.changed',
      'Wen Castellane item.added',
    ]);
    expect(after.history[0]?.changes).toContainEqual({ field: 'cost', from: '"10.5"', to: '"12"' });
    // What changes nothing is no change.
    expect((await change('NEW-3', { cost: '12.00' })).version).toBe(2);
  });

  it('are not written over what somebody else kept meanwhile', async () => {
    const { version } = await rowOf('YE-KIOSK');
    const answers = await Promise.all(
      Array.from({ length: 20 }, (_, at) => changeItem(as(wen), 'YE-KIOSK', { version, leadDays: 31 + at })),
    );
    expect(answers.filter(({ ok }) => ok)).toHaveLength(1);
    expect((await rowOf('YE-KIOSK')).leadDays).toBe(31 + answers.findIndex(({ ok }) => ok));
    expect((await rowOf('YE-KIOSK')).version).toBe(version + 1);
    expect(await refused(keepItems(as(wen), { rows: [{ sku: 'YE-KIOSK', version }] }))).toEqual([
      'item.stale',
    ]);
    expect(await refused(keepItems(as(wen), { rows: [{ sku: 'YE-KIOSK' }] }))).toEqual(['item.there']);
    expect(await refused(keepItems(as(wen), { rows: [{ sku: 'GONE-1', version: 1 }] }))).toEqual([
      'item.gone',
    ]);
  });

  it('under random commands are what a simple list of them is', async () => {
    const skus = ['RND-1', 'RND-2', 'RND-3'];
    const command = fc.record({
      sku: fc.constantFrom(...skus),
      is: fc.constantFrom('row', 'change', 'drop', 'stale'),
      leadDays: fc.integer({ min: 0, max: 90 }),
      replacedBy: fc.option(fc.constantFrom(...skus)),
    });
    const simple = new Map<string, { version: number; leadDays: number; replacedBy: string | null }>();
    const leadsBack = (sku: string, to: string): boolean => {
      for (let at: string | null = to; at !== null; at = simple.get(at)?.replacedBy ?? null)
        if (at === sku) return true;
      return false;
    };
    await fc.assert(
      fc.asyncProperty(fc.array(command, { minLength: 3, maxLength: 12 }), async (commands) => {
        for (const { sku, is, leadDays, replacedBy } of commands) {
          const own = simple.get(sku);
          if (is === 'row') {
            const answer = await keepItems(as(wen), {
              rows: [
                {
                  sku,
                  ...(own ? { version: own.version } : {}),
                  family: 'yard',
                  name: { en: sku },
                  leadDays,
                },
              ],
            });
            expect(answer.ok).toBe(true);
            const same = own?.leadDays === leadDays;
            simple.set(sku, {
              version: (own?.version ?? 0) + (same ? 0 : 1),
              leadDays,
              replacedBy: own?.replacedBy ?? null,
            });
          } else if (is === 'change' && own) {
            const may = replacedBy === null || (simple.has(replacedBy) && !leadsBack(sku, replacedBy));
            const answer = await changeItem(as(wen), sku, { version: own.version, replacedBy });
            expect(answer.ok).toBe(may);
            if (may)
              simple.set(sku, {
                ...own,
                replacedBy,
                version: own.version + (own.replacedBy === replacedBy ? 0 : 1),
              });
          } else if (is === 'drop' && own) {
            const used = [...simple].some(([each, item]) => each !== sku && item.replacedBy === sku);
            expect((await dropItem(as(wen), sku, own.version)).ok).toBe(!used);
            if (!used) simple.delete(sku);
          } else if (is === 'stale' && own) {
            expect((await changeItem(as(wen), sku, { version: own.version + 1, leadDays })).ok).toBe(false);
          }
        }
        const rows = (await seeItems()).items.filter(({ sku }) => skus.includes(sku));
        expect(rows.map(({ sku, version, leadDays }) => ({ sku, version, leadDays }))).toEqual(
          [...simple]
            .map(([sku, { version, leadDays }]) => ({ sku, version, leadDays }))
            .sort((a, b) => (a.sku < b.sku ? -1 : 1)),
        );
      }),
      { numRuns: 15 },
    );
  });
});

describe('families', () => {
  it('give their properties to what is inside them, and keep to what their items say', async () => {
    const family = (view: ItemsView, code: string) => view.families.find((each) => each.code === code);
    const floor = family(await seeItems(), 'floor');
    const capacity = {
      id: 'division',
      name: { en: 'Division' },
      is: 'number',
      unit: 't',
      decimals: 1,
    } as const;
    const after = await kept(
      keepFamily(as(wen), 'floor', {
        version: floor?.version ?? 0,
        name: floor?.name ?? {},
        parent: null,
        properties: [...(floor?.properties ?? []), capacity],
      }),
    );
    await kept(
      keepFamily(as(wen), 'floorLow', {
        name: { en: 'Low' },
        parent: 'floor',
        properties: [],
        version: undefined,
      }),
    );
    const seen = await change('SILL-1212-X', { family: 'floorLow', properties: { division: '1.5' } });
    expect(seen.properties.map(({ id }) => id)).toContain('division');
    expect(
      await refused(
        keepFamily(as(wen), 'floor', {
          version: family(after, 'floor')?.version ?? 0,
          name: floor?.name ?? {},
          parent: null,
          properties: floor?.properties ?? [],
        }),
      ),
    ).toEqual(['family.unfit']);
    expect(
      await refused(
        keepFamily(as(wen), 'floor', {
          version: family(after, 'floor')?.version ?? 0,
          name: floor?.name ?? {},
          parent: 'floorLow',
          properties: [],
        }),
      ),
    ).toEqual(['family.circle']);
    expect(await refused(dropFamily(as(wen), 'floorLow', 1))).toEqual(['family.inUse']);
    await change('SILL-1212-X', { family: 'floor', properties: {} });
    await kept(dropFamily(as(wen), 'floorLow', 1));
    expect(family(await seeItems(), 'floorLow')).toBeUndefined();
  });
});

describe('an item that is sold no more', () => {
  it('goes on no new line by any way, and stays on those that have it', async () => {
    const quote = await quoteFor(as(mara), 'Norrvik Skog AB');
    const first = await kept(put(as(mara), quote, 'YE-BOLL'));
    await change('YE-BOLL', { active: false, replacedBy: 'YE-KIOSK' });
    const now = await kept(seeQuote(as(mara), quote.id));
    expect(now.lines[0]).toMatchObject({ sku: 'YE-BOLL', retired: { next: 'YE-KIOSK' } });
    expect(now.totals.net).toBe(first.totals.net);
    expect(await refused(put(as(mara), now, 'ye-boll'))).toEqual(['line.replaced']);
    const several = { version: now.version, rows: [{ sku: 'YE-BOLL', quantity: 1 }] };
    expect(await refused(addSeveral(as(mara), quote.id, several))).toEqual(['line.replaced']);
    expect(
      await refused(copyLine(as(mara), quote.id, now.lines[0]?.id ?? '', { version: now.version })),
    ).toEqual(['line.replaced']);
    const [read] = await kept(readNumbers(as(mara), quote.id, { numbers: ['YE-BOLL'] }));
    expect(read).toMatchObject({ is: 'wrong', code: 'line.replaced' });
    // How many of it are ordered can still be changed.
    const line = now.lines[0]?.id ?? '';
    expect((await changeLine(as(mara), quote.id, line, { version: now.version, quantity: 3 })).ok).toBe(true);
    expect((await catalogue(as(mara))).items.map(({ sku }) => sku)).not.toContain('YE-BOLL');
    expect((await findItems(as(mara), 'YE-BOLL', 5)).map(({ sku }) => sku)).not.toContain('YE-BOLL');
    await change('YE-BOLL', { active: true, replacedBy: null });
    expect((await kept(seeQuote(as(mara), quote.id))).lines[0]?.retired).toBeUndefined();
  });

  it('is not sold inside a new build either', async () => {
    const quote = await quoteFor(as(mara), 'Norrvik Skog AB');
    const { id } = await kept(beginBuild(as(mara), { quoteId: quote.id, modelId: 'beacon' }));
    await change('BC-DESK', { active: false });
    const { version } = await kept(seeQuote(as(mara), quote.id));
    expect(await refused(putOnQuote(as(mara), id, { version, quantity: 1 }))).toEqual(['line.inactive']);
    await change('BC-DESK', {
      active: true,
      bars: [{ class: null, region: 'eu', role: null, reason: { en: 'No' } }],
    });
    expect(await refused(putOnQuote(as(mara), id, { version, quantity: 1 }))).toEqual(['line.barred']);
    // The Bench says so before, in the language of whoever is there, and to nobody whom it does not concern.
    const told = async (actor: Actor | undefined, build: string) =>
      (await kept(openBench(as(actor), build))).facts['BC-DESK']?.unsold;
    expect(await told({ ...as(mara), language: 'de' }, id)).toBe('BC-DESK wird hier nicht verkauft: No');
    const other = await quoteFor(as(mara), 'Callowhill Quarries Ltd');
    const uk = await kept(beginBuild(as(mara), { quoteId: other.id, modelId: 'beacon' }));
    expect(await told(mara, uk.id)).toBeUndefined();
    await change('BC-DESK', { bars: [] });
    expect((await putOnQuote(as(mara), id, { version, quantity: 1 })).ok).toBe(true);
  });

  it('is taken away only where nothing has used it', async () => {
    expect(await refused(dropItem(as(wen), 'YE-BOLL', (await rowOf('YE-BOLL')).version))).toEqual([
      'item.inUse',
    ]);
    expect(await refused(dropItem(as(wen), 'RM-BEAM', (await rowOf('RM-BEAM')).version))).toEqual([
      'item.inUse',
    ]);
    const { uses } = await kept(seeItem('YE-BOLL'));
    // Its kiosk goes with it, lists price it, and quotes have it.
    expect(new Set(uses.map(({ is }) => is))).toEqual(new Set(['list', 'item', 'quote']));
    const beam = await kept(seeItem('RM-BEAM'));
    expect(beam.uses.map(({ is, name }) => `${is} ${name.en ?? ''}`)).toContain('model Ridgeback');
  });
});

describe('an item that is not sold to everybody', () => {
  const bar = { class: null, region: null, role: null, reason: { en: 'Only here', de: 'Nur hier' } };

  it('is refused with its reason where a bar holds, and nowhere else', async () => {
    await change('YE-DISPLAY', { bars: [{ ...bar, region: 'na' }] });
    const [home, away] = [
      await quoteFor(as(mara), 'Norrvik Skog AB'),
      await quoteFor(as(mara), 'Pender Flats Mining Inc'),
    ];
    expect((await put(as(mara), home, 'YE-DISPLAY')).ok).toBe(true);
    const answer = await put(as(mara), away, 'YE-DISPLAY');
    expect(answer.ok ? null : answer.failures[0]).toMatchObject({
      code: 'line.barred',
      params: { sku: 'YE-DISPLAY', reason: 'Only here' },
    });
    await change('YE-DISPLAY', { bars: [{ ...bar, role: 'dealer' }] });
    expect((await catalogue(as(rhona))).items.map(({ sku }) => sku)).not.toContain('YE-DISPLAY');
    expect((await catalogue(as(mara))).items.map(({ sku }) => sku)).toContain('YE-DISPLAY');
    const theirs = await quoteFor(as(rhona), 'Saltmarsh Farm Partners');
    expect(await refused(put(as(rhona), theirs, 'YE-DISPLAY'))).toEqual(['line.barred']);
    await change('YE-DISPLAY', { bars: [] });
    expect((await put(as(rhona), theirs, 'YE-DISPLAY')).ok).toBe(true);
  });

  it('is sold in its steps, and begins with what is usual', async () => {
    await change('YE-BOLL', { step: '4', usualQuantity: '8' });
    const quote = await quoteFor(as(mara), 'Norrvik Skog AB');
    expect(await refused(put(as(mara), quote, 'YE-BOLL', 6))).toEqual(['quantity.steps']);
    const after = await kept(put(as(mara), quote, 'YE-BOLL', 12));
    const line = after.lines[0]?.id ?? '';
    expect(
      await refused(changeLine(as(mara), quote.id, line, { version: after.version, quantity: 13 })),
    ).toEqual(['quantity.steps']);
    expect((await catalogue(as(mara))).items.find(({ sku }) => sku === 'YE-BOLL')?.usual).toBe(8);
    await change('YE-BOLL', { step: null, usualQuantity: null });
  });
});

describe('pictures and data sheets', () => {
  const square = Buffer.from(
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 10"><rect width="10" height="10"/></svg>',
  );

  it('are of their kind, belong to the item, and are let go with another one', async () => {
    const one = await kept(bring(as(wen), { name: 'sill.svg', bytes: square }));
    const two = await kept(bring(as(wen), { name: 'sill-2.svg', bytes: Buffer.from(`${String(square)}\n`) }));
    expect((await change('SILL-1212-X', { picture: one.id, dataSheet: null })).files).toEqual({
      [one.id]: 'sill.svg',
    });
    const { version } = await rowOf('SILL-1212-X');
    expect(await refused(changeItem(as(wen), 'SILL-1212-X', { version, dataSheet: two.id }))).toEqual([
      'item.dataSheetOnly',
    ]);
    // A file of one thing is not that of another as well.
    const sill = await rowOf('SILL-1515-X');
    expect(
      await refused(changeItem(as(wen), 'SILL-1515-X', { version: sill.version, picture: one.id })),
    ).toEqual(['files.used']);
    await change('SILL-1212-X', { picture: two.id });
    const row = await connected().records.files.findByPk(one.id, { raw: true });
    expect(row?.about).toBeNull();
  });
});

/** Price lists and price changes against a simple model of what is in force on a day, and on quotes of before and after. */
import fc from 'fast-check';
import { addDays, format, parseISO } from 'date-fns';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { PriceChangeView, QuoteView } from '../../contract';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { bring } from '../files/files';
import { inDays, today } from '../kernel/clock';
import type { Result } from '../kernel/failure';
import type { AnyJobKind } from '../kernel/jobs/kind';
import { JobWorker } from '../kernel/jobs/worker';
import { log } from '../kernel/log';
import { openDemo, personOf } from '../kernel/testing';
import { desk } from '../desk/desk';
import { freshen } from '../quotes/history/freshen';
import { addByNumber } from '../quotes/lines/quote-builds';
import { openQuote, seeQuote } from '../quotes/quotes';
import { fullTariff } from '../settings/tariffs';
import {
  applyOver,
  dropChange,
  editChange,
  makeChange,
  publishChange,
  seeChange,
  setRows,
  stepChange,
  withdrawChange,
} from './changes';
import { askForPriceImpact, priceImpactFile, priceImpactJob, seePriceImpact } from './impact';
import { entriesFile, seeEntries, seeEntry, seePrices } from './prices';
import { priceSheetJob, takeSheet } from './sheet-job';

let [wen, mara]: Actor[] = [];
const as = (actor: Actor | undefined): Actor => actor as Actor;
beforeAll(async () => {
  log.level = 'silent';
  await openDemo('prices');
  [wen, mara] = await Promise.all([personOf('wen@harrowmoor.example'), personOf('mara@harrowmoor.example')]);
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
const runJobs = async (): Promise<void> => {
  const worker = new JobWorker([priceSheetJob, priceImpactJob] as unknown as AnyJobKind[]);
  while (await worker.runNext());
};
const eur = 'EUR-2026';
const change = (id: string): Promise<PriceChangeView> => kept(seeChange(id));
const begin = async (inForce: string, name = 'Spring'): Promise<string> =>
  (await kept(makeChange(as(wen), { name, inForce, note: '' }))).id;
const put = async (id: string, cells: Record<string, string>, sku = 'YE-BOLL', inside = '') =>
  setRows(as(wen), id, {
    version: (await change(id)).head.version,
    rows: [{ list: eur, sku, inside, cells }],
    out: [],
  });
/** Looks at what a change would do, and publishes it. */
async function publish(id: string): Promise<Result<PriceChangeView>> {
  const { head } = await change(id);
  await kept(askForPriceImpact(as(wen), id, head.version));
  await runJobs();
  await kept(seePriceImpact(id, { page: 0 }));
  return publishChange(as(wen), id, head.version);
}
const priceOn = async (day: string, sku = 'YE-BOLL'): Promise<string | undefined> =>
  (await fullTariff(eur, day)).prices[sku];

describe('price changes under random commands', () => {
  type Command = { do: 'publish'; from: number; price: number | null } | { do: 'withdraw'; which: number };
  const command: fc.Arbitrary<Command> = fc.oneof(
    {
      weight: 3,
      arbitrary: fc.record({
        do: fc.constant('publish' as const),
        from: fc.integer({ min: 0, max: 6 }),
        price: fc.option(fc.integer({ min: 1, max: 900 })),
      }),
    },
    { weight: 1, arbitrary: fc.record({ do: fc.constant('withdraw' as const), which: fc.nat(5) }) },
  );

  it('come to what a diary of days comes to', async () => {
    const [sku] = ['SILL-1212-X'];
    const first = await priceOn(inDays(-1), sku);
    // By day, what begins on it: null where the item is in the list no more.
    const diary = new Map<string, string | null>();
    const published: { id: string; day: string; ahead: boolean }[] = [];
    const expected = (day: string): string | undefined => {
      const last = [...diary.keys()]
        .filter((each) => each <= day)
        .sort()
        .at(-1);
      const price = last === undefined ? first : diary.get(last);
      return price ?? undefined;
    };
    await fc.assert(
      fc.asyncProperty(command, async (given) => {
        if (given.do === 'publish') {
          const day = inDays(given.from);
          const id = await begin(day);
          await kept(
            put(
              id,
              given.price === null ? { method: 'none' } : { method: 'unit', price: String(given.price) },
              sku,
            ),
          );
          const answer = await publish(id);
          // Two from one day cannot be told apart: the second is refused.
          expect(answer.ok).toBe(!diary.has(day));
          if (answer.ok) {
            diary.set(day, given.price === null ? null : String(given.price));
            published.push({ id, day, ahead: day > today() });
          } else expect(answer.failures[0]?.code).toBe('change.sameDay');
        } else {
          const one = published[given.which % Math.max(1, published.length)];
          if (!one) return;
          const { head } = await change(one.id);
          const answer = await withdrawChange(as(wen), one.id, head.version);
          expect(answer.ok).toBe(one.ahead && head.stand === 'ahead');
          if (answer.ok) diary.delete(one.day);
        }
        for (let at = -1; at <= 7; at += 1) expect(await priceOn(inDays(at), sku)).toBe(expected(inDays(at)));
      }),
      { numRuns: 12 },
    );
  });
});

describe('a price change', () => {
  it('is made by a formula over a family, with single figures typed over, and is nothing before it is published', async () => {
    const id = await begin(inDays(3), 'Yard 3.5 %');
    const before = await kept(seeEntries(eur, { family: 'yard', find: '', page: 0, day: undefined }));
    const made = await kept(
      applyOver(as(wen), id, {
        version: 1,
        list: eur,
        formula: '+3.5 %, to the next 0.50',
        family: 'yard',
        find: '',
        skus: null,
        typedToo: false,
      }),
    );
    expect(made.made).toBeGreaterThan(3);
    expect(made.made + made.stuck.reduce((sum, { count }) => sum + count, 0)).toBe(before.count);
    for (const { before: was, after } of made.change.rows) {
      if (was?.entry.method !== 'unit' || after?.entry.method !== 'unit') continue;
      const [old, next] = [Number(was.entry.price), Number(after.entry.price)];
      expect(next).toBeGreaterThanOrEqual(old * 1.035 - 1e-9);
      expect(next).toBeLessThan(old * 1.035 + 0.5);
      expect((next * 2) % 1).toBe(0);
    }
    await kept(put(id, { price: '199.90' }));
    const again = await kept(
      applyOver(as(wen), id, {
        version: (await change(id)).head.version,
        list: eur,
        formula: '+4 %',
        family: 'yard',
        find: '',
        skus: null,
        typedToo: false,
      }),
    );
    expect(again.left).toBe(1);
    // A mark-up on cost can be raised by a share, not rounded.
    expect(made.stuck).toEqual([{ why: 'method', count: 1, skus: ['YE-SPARECELL'] }]);
    const typed = again.change.rows.find(({ sku }) => sku === 'YE-BOLL');
    expect(typed).toMatchObject({ formula: null, after: { entry: { method: 'unit', price: '199.9' } } });
    expect(again.change.sums).toMatchObject({ rows: made.made + 1, typed: 1, wrong: 0 });
    expect(await priceOn(inDays(3))).toBe(await priceOn(today()));
    // Nothing is published before somebody has seen what it would do.
    expect(await refused(publishChange(as(wen), id, again.change.head.version))).toEqual([
      'change.impactUnseen',
    ]);
    await kept(dropChange(as(wen), id, again.change.head.version));
    expect((await seePrices()).changes.some((each) => each.id === id)).toBe(false);
  });

  it('holds from its day on: a quote of before keeps its prices until it is freshened', async () => {
    const customer = await connected().records.customers.findOne({
      where: { priceList: eur, class: 'direct' },
    });
    const opened = await kept(openQuote(as(mara), { customerId: customer?.id ?? '', title: 'Bollards' }));
    const quote = await kept(seeQuote(as(mara), opened.id));
    await kept(addByNumber(as(mara), quote.id, { version: quote.version, sku: 'YE-LAMP', quantity: 2 }));
    await connected().records.lines.update(
      { pricedOn: inDays(-1) },
      { where: { sku: 'YE-LAMP', pricedOn: today() } },
    );
    const price = async (): Promise<string | undefined> =>
      (await kept(seeQuote(as(mara), quote.id))).lines[0]?.price.unitList;
    const was = await price();
    const id = await begin(today(), 'Gratings');
    await kept(put(id, { price: '777.00' }, 'YE-LAMP'));
    const { head } = await change(id);
    await kept(askForPriceImpact(as(wen), id, head.version));
    await runJobs();
    const impact = await kept(seePriceImpact(id, { page: 0 }));
    const own = impact.rows.find(({ at }) => at.id === quote.id);
    expect(own?.is).not.toBe('same');
    expect(Number(own?.net.after) - Number(own?.net.before)).toBeCloseTo(2 * (777 - Number(was)), 2);
    expect(impact.counts.same).toBeGreaterThan(0);
    await kept(publishChange(as(wen), id, head.version));
    expect(await price()).toBe(was);
    const now: QuoteView = await kept(seeQuote(as(mara), quote.id));
    await kept(
      freshen(as(mara), quote.id, { version: now.version, lines: now.lines.map((line) => line.id) }),
    );
    expect(await price()).toBe('777');
    // What is in force is not taken back, and not changed by anybody who reaches the database.
    expect(await refused(withdrawChange(as(wen), id, (await change(id)).head.version))).toEqual([
      'change.notAhead',
    ]);
    await expect(
      connected().sequelize.query(
        `update price_entries set entry = '{"method":"hand"}' where change_id = '${id}'`,
      ),
    ).rejects.toThrow(/never change/);
    const history = await kept(seeEntry({ list: eur, sku: 'YE-LAMP', inside: '' }));
    expect(history.rows.map(({ stand, change: by }) => [stand, by?.name])).toEqual([
      ['now', 'Gratings'],
      ['over', undefined],
    ]);
  });

  it('is refused where it is for yesterday, stale, or has something to mend', async () => {
    expect(await refused(makeChange(as(wen), { name: 'Late', inForce: inDays(-1), note: '' }))).toEqual([
      'change.past',
    ]);
    const id = await begin(inDays(2));
    expect(
      await refused(editChange(as(wen), id, { version: 1, name: 'Late', inForce: inDays(-1), note: '' })),
    ).toEqual(['change.past']);
    const rows = (cells: Record<string, string>, sku = 'YE-BOLL', list = eur) => ({
      list,
      sku,
      inside: '',
      cells,
    });
    const tried = async (...given: ReturnType<typeof rows>[]) => {
      const answer = await setRows(as(wen), id, {
        version: (await change(id)).head.version,
        rows: given,
        out: [],
      });
      return answer.ok ? [] : answer.failures.map(({ code, field }) => `${code} ${field ?? ''}`);
    };
    expect(
      await tried(
        rows({ price: 'dear' }),
        rows({ price: '1' }, 'NOWHERE-1'),
        rows({ price: '1' }, 'YE-LAMP', 'XXX'),
        rows({ price: '1' }, 'YE-KIOSK'),
        rows({ price: '2' }, 'YE-KIOSK'),
        rows({ method: 'sideways' }, 'YE-LAMP'),
      ),
    ).toEqual([
      'cell.noNumber rows.0.price',
      'cell.noItem rows.1.sku',
      'cell.noList rows.2.list',
      'cell.rowTwice rows.4.sku',
      'cell.noMethod rows.5.method',
    ]);
    expect((await change(id)).count).toBe(0);
    // What can be read and is wrong all the same stands in it, and keeps it from being published.
    await kept(put(id, { price: '12.3456' }));
    await kept(put(id, { method: 'bracket', tiers: '1 - 6: 9; 5 - : 8' }, 'YE-LAMP'));
    await kept(put(id, { method: 'graduated', tiers: '0 - 5: 9; 6 - : 8' }, 'YE-KIOSK'));
    expect(
      (await change(id)).rows.flatMap(({ sku, problems }) => problems.map(({ code }) => `${sku} ${code}`)),
    ).toEqual(['YE-BOLL entry.tooFine', 'YE-KIOSK entry.hole', 'YE-LAMP entry.overlap']);
    const { version } = (await change(id)).head;
    expect(await refused(publishChange(as(wen), id, version))).toEqual(['change.wrong']);
    await kept(put(id, { price: '0.01' }));
    expect((await change(id)).rows[0]?.warnings).toContain('belowCost');
    expect(await refused(setRows(as(wen), id, { version, rows: [], out: [] }))).toEqual(['change.stale']);
    expect(
      await refused(
        applyOver(as(wen), id, {
          version: version + 1,
          list: eur,
          formula: '+3 %, up a bit',
          family: null,
          find: '',
          skus: null,
          typedToo: false,
        }),
      ),
    ).toEqual(['changeFormula.notUnderstood']);
  });

  it('is written by one of many who would at the same time', async () => {
    const id = await begin(inDays(4));
    const answers = await Promise.all(
      Array.from({ length: 10 }, (_, at) =>
        setRows(as(wen), id, {
          version: 1,
          rows: [{ list: eur, sku: 'YE-BOLL', inside: '', cells: { price: String(100 + at) } }],
          out: [],
        }),
      ),
    );
    expect(answers.filter(({ ok }) => ok)).toHaveLength(1);
    const won = answers.findIndex(({ ok }) => ok);
    expect((await change(id)).rows[0]?.after?.entry).toEqual({ method: 'unit', price: String(100 + won) });
  });

  it('makes prices of one list from those of another', async () => {
    const id = await begin(inDays(9));
    const made = await kept(
      applyOver(as(wen), id, {
        version: 1,
        list: 'USD-2026',
        formula: 'EUR x 1.1, to 1.00',
        family: null,
        find: '',
        skus: ['YE-BOLL', 'YE-LAMP'],
        typedToo: false,
      }),
    );
    expect(made.made).toBe(2);
    const boll = made.change.rows.find(({ sku }) => sku === 'YE-BOLL');
    const price = Number(await priceOn(inDays(8)));
    expect(boll?.after?.entry).toEqual({ method: 'unit', price: String(Math.floor(price * 1.1 + 0.5)) });
  });
});

describe('steps of a price change', () => {
  const shown = async (id: string): Promise<unknown> => {
    const { rows, head, sums } = await change(id);
    return { rows, sums, name: head.name, inForce: head.inForce, note: head.note };
  };
  const step = async (id: string, way: 'undo' | 'redo') =>
    stepChange(as(wen), id, (await change(id)).head.version, way);
  const steps = fc.array(
    fc.oneof(
      fc.record({
        do: fc.constant('put' as const),
        sku: fc.constantFrom('YE-BOLL', 'YE-LAMP', 'YE-SIGN'),
        price: fc.integer({ min: 20, max: 900 }),
      }),
      fc.record({ do: fc.constant('out' as const), sku: fc.constantFrom('YE-BOLL', 'YE-LAMP', 'YE-SIGN') }),
      fc.record({ do: fc.constant('formula' as const), rise: fc.integer({ min: 1, max: 9 }) }),
      fc.record({ do: fc.constant('edit' as const), ahead: fc.integer({ min: 2, max: 40 }) }),
      fc.record({ do: fc.constant('undo' as const) }),
      fc.record({ do: fc.constant('redo' as const) }),
    ),
    { minLength: 3, maxLength: 9 },
  );

  it('are taken back and done again one by one, whatever was done, as a stack of pictures of it says', async () => {
    await fc.assert(
      fc.asyncProperty(steps, async (all) => {
        const id = await begin(inDays(20), 'Stepwise');
        const past: unknown[] = [];
        const ahead: unknown[] = [];
        for (const each of all) {
          const before = await shown(id);
          const { head } = await change(id);
          const { version } = head;
          if (each.do === 'undo' || each.do === 'redo') {
            const [from, to] = each.do === 'undo' ? [past, ahead] : [ahead, past];
            const answer = await step(id, each.do);
            expect(answer.ok).toBe(from.length > 0);
            if (!answer.ok) continue;
            expect(await shown(id)).toEqual(from.pop());
            to.push(before);
            continue;
          }
          if (each.do === 'put') await kept(put(id, { method: 'unit', price: String(each.price) }, each.sku));
          if (each.do === 'out')
            await kept(setRows(as(wen), id, { version, rows: [], out: [`${eur} ${each.sku} `] }));
          if (each.do === 'formula')
            await kept(
              applyOver(as(wen), id, {
                version,
                list: eur,
                family: 'floor',
                find: '',
                skus: null,
                formula: `+${String(each.rise)} %`,
                typedToo: false,
              }),
            );
          if (each.do === 'edit')
            await kept(
              editChange(as(wen), id, {
                version,
                name: `Stepwise ${String(each.ahead)}`,
                inForce: inDays(each.ahead),
                note: '',
              }),
            );
          past.push(before);
          ahead.length = 0;
        }
        await kept(dropChange(as(wen), id, (await change(id)).head.version));
      }),
      { numRuns: 12 },
    );
  });
});

describe('a published change', () => {
  it('is told on the Desk of whoever has a quote that wants a decision, until it stands on the new prices', async () => {
    const [customer] = await connected().records.customers.findAll({
      where: { number: 'C-1005' },
      raw: true,
    });
    let quote: QuoteView = await kept(
      openQuote(as(mara), { customerId: customer?.id ?? '', title: 'Asked by prices' }),
    );
    quote = await kept(
      addByNumber(as(mara), quote.id, { version: quote.version, sku: 'YE-INTER', quantity: 2 }),
    );
    const id = await begin(today(), 'No posts any more');
    await kept(put(id, { method: 'none' }, 'YE-INTER'));
    const answer = await publish(id);
    expect(answer.ok).toBe(true);
    const own = async (actor: Actor | undefined) =>
      (await desk(as(actor))).repriced.filter(({ quoteId }) => quoteId === quote.id);
    // Priced today already, it stands on what is in force.
    expect(await own(mara)).toEqual([]);
    await connected().records.lines.update({ pricedOn: inDays(-2) }, { where: { sku: 'YE-INTER' } });
    expect(await own(mara)).toMatchObject([
      { name: 'No posts any more', unsold: 1, signs: [], from: today() },
    ]);
    expect(await own(wen)).toEqual([]);
    const csv = await kept(priceImpactFile(as(wen), id, 'csv', { page: 0 }));
    const text = Buffer.from(csv.bytes as Uint8Array).toString('utf8');
    expect(text.split('\r\n').filter((row) => row.includes('Asked by prices'))).toHaveLength(1);
    expect(text.split('\r\n')[1]).toContain(quote.number);
    expect(await refused(priceImpactFile(as(wen), id, 'exe', { page: 0 }))).toEqual(['file.format']);
  });
});

describe('a sheet of prices', () => {
  const brought = async (text: string): Promise<string> =>
    (await kept(bring(as(wen), { name: 'prices.csv', bytes: new TextEncoder().encode(text) }))).id;

  it('comes in as it went out, and rows that cannot be read are kept to be mended', async () => {
    const out = await kept(
      entriesFile(as(wen), eur, 'csv', { family: undefined, find: '', page: 0, day: inDays(4) }),
    );
    const text = new TextDecoder().decode(out.bytes as Uint8Array);
    const id = await begin(inDays(5), 'As it was');
    await kept(takeSheet(as(wen), id, { version: 1, file: await brought(text), list: eur }));
    await runJobs();
    const view = await change(id);
    const { count } = await kept(seeEntries(eur, { family: undefined, find: '', page: 0, day: inDays(4) }));
    expect(view.sums).toMatchObject({ rows: count, raised: 0, lowered: 0, fresh: 0, wrong: 0, ends: 0 });

    const wrong = 'Item;Price\nYE-BOLL;181,00\nNOWHERE-1;5\nYE-LAMP;dear\nYE-BOLL;182\n';
    const next = await begin(inDays(6), 'Mended');
    await kept(takeSheet(as(wen), next, { version: 1, file: await brought(wrong), list: eur }));
    await runJobs();
    const seen = await kept(seeChange(next, { only: 'wrong' }));
    expect(
      seen.rows.map(({ place, wrong: why }) => [place, Object.entries(why?.wrong ?? {})[0]?.[1]?.code]),
    ).toEqual([
      ['row 3', 'cell.noItem'],
      ['row 5', 'cell.rowTwice'],
      ['row 4', 'cell.noNumber'],
    ]);
    expect(await refused(publishChange(as(wen), next, seen.head.version))).toEqual(['change.wrong']);
    await kept(
      setRows(as(wen), next, {
        version: seen.head.version,
        rows: [{ list: eur, sku: 'YE-LAMP', inside: '', cells: { price: '55' } }],
        out: ['row 3', 'row 4', 'row 5'],
      }),
    );
    expect((await change(next)).sums).toMatchObject({ rows: 2, wrong: 0 });
  });

  it('that is none is refused, and so is one for a change that moved on', async () => {
    const id = await begin(inDays(5));
    const { job } = await kept(
      takeSheet(as(wen), id, { version: 1, file: await brought('Name;Price\nx;1\n'), list: eur }),
    );
    await runJobs();
    expect((await connected().records.jobs.findByPk(job))?.problem?.code).toBe('sheet.noNumbers');
    const late = await kept(
      takeSheet(as(wen), id, { version: 1, file: await brought('Item;Price\nYE-BOLL;1\n'), list: eur }),
    );
    await kept(put(id, { price: '3' }));
    await runJobs();
    expect((await connected().records.jobs.findByPk(late.job))?.problem?.code).toBe('change.stale');
    expect((await change(id)).rows.map(({ after }) => after?.entry)).toEqual([
      { method: 'unit', price: '3' },
    ]);
  });
});

/** The day after one, so that a test says what it means. */
const dayAfter = (day: string): string => format(addDays(parseISO(day), 1), 'yyyy-MM-dd');
describe('a list', () => {
  it('tells of each entry what follows it', async () => {
    const id = await begin(inDays(11), 'Later');
    await kept(put(id, { price: '500' }, 'YE-KIOSK'));
    await kept(publish(id));
    const page = await kept(
      seeEntries(eur, { family: undefined, find: 'YE-KIOSK', page: 0, day: undefined }),
    );
    expect(page.rows[0]?.next).toMatchObject({
      from: inDays(11),
      change: id,
      entry: { entry: { price: '500' } },
    });
    const later = await kept(
      seeEntries(eur, { family: undefined, find: 'YE-KIOSK', page: 0, day: dayAfter(inDays(11)) }),
    );
    expect(later.rows[0]?.now.entry).toMatchObject({ price: '500' });
  });
});

/** Terms: kept all or none, followed and never changed, and read by quotes on their days. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { QuoteView, TermRowView, TermsInput, TermsView } from '../../contract';
import { termKindIds, type TermKindId } from '../../core/terms';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { inDays, today } from '../kernel/clock';
import type { Result } from '../kernel/failure';
import type { AnyJobKind } from '../kernel/jobs/kind';
import { JobWorker } from '../kernel/jobs/worker';
import { log } from '../kernel/log';
import { openDemo, personOf } from '../kernel/testing';
import { addByNumber } from '../quotes/lines/quote-builds';
import { openQuote, seeQuote } from '../quotes/quotes';
import { limitsOn, plansOn, taxRatesOn } from '../settings/in-force';
import { reference } from '../settings/reference-data';
import { keepTerms, seeTermHistory, seeTerms, termsFile } from './terms';
import { askForTermsImpact, seeTermsImpact, termsImpactJob } from './try';

let [wen, mara]: Actor[] = [];
const as = (actor: Actor | undefined): Actor => actor as Actor;
beforeAll(async () => {
  log.level = 'silent';
  await openDemo('terms');
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
  return answer.ok ? [] : answer.failures.map(({ code, field }) => `${code} ${field ?? ''}`);
}
const keep = (kind: TermKindId, input: Partial<TermsInput>): Promise<Result<TermsView>> =>
  keepTerms(as(wen), kind, { from: today(), rows: [], gone: [], ...input });
const find = async (kind: TermKindId, cells: Record<string, string>): Promise<TermRowView> => {
  const { rows } = await seeTerms(kind);
  const row = rows.find((each) => Object.entries(cells).every(([id, text]) => each.cells[id] === text));
  if (!row) throw new Error(`no ${JSON.stringify(cells)} among ${kind}`);
  return row;
};
const changed = ({ id, version, cells }: TermRowView, more: Record<string, string>) => ({
  id,
  version,
  cells: { ...cells, ...more },
});

describe('terms', () => {
  it.each(termKindIds)('of the kind %s are kept as they are shown, and go out as a file', async (kind) => {
    const view = await seeTerms(kind);
    expect(view.rows.length).toBeGreaterThan(kind === 'promotions' ? -1 : 0);
    // Sent back as they are, they change nothing.
    const same = await kept(
      keep(kind, {
        rows: view.rows.map(({ id, version, cells, from, to }) => ({ id, version, cells, from, to })),
      }),
    );
    expect(same.rows).toEqual(view.rows);
    const file = await kept(termsFile(as(wen), kind, 'csv'));
    expect(
      new TextDecoder()
        .decode(file.bytes as Uint8Array)
        .trim()
        .split(/\r?\n/),
    ).toHaveLength(view.rows.length + 1);
  });

  it('in force are followed from a day on, and stay for the days before', async () => {
    const row = await find('tax', { country: 'SE' });
    const after = await kept(keep('tax', { from: inDays(5), rows: [changed(row, { rate: '0.3' })] }));
    expect(
      after.rows
        .filter(({ cells }) => cells.country === 'SE')
        .map(({ cells, stand, from }) => [cells.rate, stand, from]),
    ).toEqual([
      ['0.25', 'now', null],
      ['0.3', 'ahead', inDays(5)],
    ]);
    const known = await reference();
    const rateOn = (day: string) =>
      Number(taxRatesOn(known, day).find(({ country }) => country === 'SE')?.rate);
    expect([rateOn(today()), rateOn(inDays(4)), rateOn(inDays(5))]).toEqual([0.25, 0.25, 0.3]);
    const history = await kept(seeTermHistory('tax', row.id));
    expect(history.rows.map(({ stand }) => stand)).toEqual(['ahead', 'now']);
    expect(history.changes[0]).toMatchObject({ by: 'Wen Castellane', action: 'term.added' });
    // What is to come is taken back before its day.
    const ahead = after.rows.find(({ stand }) => stand === 'ahead') as TermRowView;
    await kept(keep('tax', { gone: [{ id: ahead.id, version: ahead.version }] }));
    expect(taxRatesOn(await reference(), inDays(5)).find(({ country }) => country === 'SE')?.rate).toBe(
      '0.250000',
    );
    // What is in force is not taken back into the past.
    expect(
      await refused(keep('tax', { from: inDays(-1), gone: [{ id: row.id, version: row.version }] })),
    ).toEqual(['term.past gone.0']);
  });

  it('are all kept or none, and not over what somebody else kept', async () => {
    const before = await seeTerms('commission');
    const row = before.rows[0] as TermRowView;
    expect(
      await refused(
        keep('commission', {
          rows: [changed(row, { base: '0.02' }), { cells: { role: 'director', base: '0.5', higher: '0.1' } }],
        }),
      ),
    ).toEqual(['term.higher rows.1.higher']);
    expect((await seeTerms('commission')).rows).toEqual(before.rows);
    const answers = await Promise.all(
      [1, 2, 3, 4].map((at) =>
        keep('commission', { from: inDays(3), rows: [changed(row, { base: `0.00${String(at)}` })] }),
      ),
    );
    expect(answers.filter(({ ok }) => ok)).toHaveLength(1);
    expect(await refused(keep('commission', { rows: [{ ...changed(row, {}), version: 7 }] }))).toEqual([
      'term.stale rows.0.',
    ]);
    expect(plansOn(await reference(), today()).find(({ role }) => role === row.cells.role)?.baseRate).toBe(
      Number(row.cells.base).toFixed(6),
    );
  });

  it('name what there is, and an agreement is with somebody', async () => {
    expect(
      await refused(
        keep('agreements', {
          rows: [
            { cells: { en: 'For nobody', rate: '0.1' } },
            { cells: { en: 'For a stranger', customer: 'C-9999', rate: '0.1' } },
            { cells: { en: 'In cents', class: 'key', sku: 'YE-BOLL', list: 'EUR-2026', price: '12.345' } },
            { cells: { en: 'Late', class: 'key', rate: '0.1' }, from: inDays(-2) },
          ],
        }),
      ),
    ).toEqual([
      'term.nobody rows.0.customer',
      'term.unknown rows.1.customer',
      'term.tooFine rows.2.price',
      'term.past rows.3.from',
    ]);
    expect(
      await refused(
        keep('customers', {
          rows: [
            {
              cells: {
                number: 'C-9',
                name: 'X',
                class: 'key',
                list: 'EUR-2026',
                region: 'eu',
                language: 'en',
                paymentDays: '30',
              },
            },
          ],
        }),
      ),
    ).toEqual(['term.newCustomer rows.0.number']);
    const list = await find('lists', { code: 'GBP-2026' });
    expect(await refused(keep('lists', { rows: [changed(list, { currency: 'USD' })] }))).toEqual([
      'term.currencyStays rows.0.currency',
    ]);
  });
});

describe('an agreement', () => {
  it('counts on a quote from its day on, and another follows it', async () => {
    const customer = await connected().records.customers.findOne({ where: { number: 'C-1001' } });
    const opened = await kept(openQuote(as(mara), { customerId: customer?.id ?? '', title: 'Agreed' }));
    const first: QuoteView = await kept(seeQuote(as(mara), opened.id));
    await kept(addByNumber(as(mara), first.id, { version: first.version, sku: 'YE-LAMP', quantity: 1 }));
    const off = async (): Promise<string | undefined> =>
      (await kept(seeQuote(as(mara), first.id))).lines[0]?.price.steps.find(
        ({ kind }) => kind === 'agreement',
      )?.rate;
    expect(await off()).toBeUndefined();
    await kept(
      keep('agreements', {
        rows: [{ cells: { en: 'Lamps', customer: 'C-1001', sku: 'YE-LAMP', rate: '0.11' } }],
      }),
    );
    expect(await off()).toBe('0.11');
    const row = await find('agreements', { en: 'Lamps' });
    await kept(keep('agreements', { from: inDays(6), rows: [changed(row, { rate: '0.2' })] }));
    expect(await off()).toBe('0.11');
    const rows = (await seeTerms('agreements')).rows.filter(({ cells }) => cells.en === 'Lamps');
    expect(rows.map(({ from, to, stand }) => [from, to, stand])).toEqual([
      [today(), inDays(5), 'now'],
      [inDays(6), null, 'ahead'],
    ]);
    const next = rows[1] as TermRowView;
    await kept(keep('agreements', { gone: [{ id: next.id, version: next.version }] }));
    expect((await find('agreements', { en: 'Lamps' })).to).toBeNull();
  });
});

describe('limits', () => {
  it('are tried on open quotes before they are kept', async () => {
    const row = await find('limits', { role: 'engineer', by: 'discount', family: '' });
    const input: TermsInput = {
      from: today(),
      rows: [changed(row, { target: '0', limit: '0', floor: '0' })],
      gone: [],
    };
    const { job } = await kept(askForTermsImpact(as(wen), 'limits', input));
    const again = await kept(askForTermsImpact(as(wen), 'limits', input));
    expect(again.job).toBe(job);
    const worker = new JobWorker([termsImpactJob] as unknown as AnyJobKind[]);
    while (await worker.runNext());
    const seen = await kept(seeTermsImpact(as(wen), job, { page: 0 }));
    expect(seen.counts.decide).toBeGreaterThan(0);
    const one = seen.rows.find(({ is }) => is === 'decide');
    expect(one?.net.before).toBe(one?.net.after);
    expect(one?.signs.after).toContain('manager');
    // Nobody else reads it, and nothing was kept.
    expect(await refused(seeTermsImpact(as(mara), job, { page: 0 }))).toEqual(['job.missing ']);
    expect(limitsOn(await reference(), today()).find(({ id }) => id === row.id)?.limitAt).toBe('0.080000');
    expect(await refused(askForTermsImpact(as(wen), 'tax', input))).toEqual(['term.notTried ']);
  });
});

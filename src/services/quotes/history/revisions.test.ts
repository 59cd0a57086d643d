/** Revisions and freshening, on a real database with the demo in it. */
import { beforeAll, describe, expect, it } from 'vitest';
import type { QuoteView } from '../../../contract';
import { connected } from '../../../data';
import type { Actor } from '../../access/actor';
import { saveContent } from '../../builds/save';
import { inDays, today } from '../../kernel/clock';
import { changeCustomer } from '../customer-change';
import type { Result } from '../../kernel/failure';
import { freshen, seeFreshening } from './freshen';
import { lastPrices } from '../lines/last-prices';
import { changeLine, changeLines, placeLines, removeLines, renameGroup } from '../lines/lines';
import { publish } from '../../catalogue/models';
import { acceptQuote } from '../../orders/orders';
import { addByNumber, addSeveral } from '../lines/quote-builds';
import { changeWhole, openQuote, seeQuote } from '../quotes';
import { compareQuote, loseQuote, reviseQuote, sendQuote } from './revisions';
import { openDemo, personOf } from '../../kernel/testing';
import { step } from './undo';

let mara: Actor;
let rhona: Actor;

const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.failures));
  return result.value;
};
const codes = (result: Result<unknown>): string[] =>
  result.ok ? [] : result.failures.map(({ code }) => code);

async function opened(customer: string, title = 'Revisions'): Promise<QuoteView> {
  const row = await connected().records.customers.findOne({ where: { number: customer } });
  return value(await openQuote(mara, { customerId: row?.id ?? '', title }));
}
const quoteWith = async (rows: { sku: string; quantity: number }[], customer = 'C-1001') => {
  const quote = await opened(customer);
  return value(await addSeveral(mara, quote.id, { version: quote.version, rows }));
};
const at = (quote: QuoteView) => ({ version: quote.version });
/** The quote of the demo with a build on its first line. */
async function demoQuote(number: string): Promise<QuoteView> {
  const row = await connected().records.quotes.findOne({ where: { number } });
  return value(await seeQuote(mara, row?.id ?? ''));
}
const told = (quote: QuoteView): string =>
  quote.lines.map(({ sku, group }) => (group === null ? sku : `${group}:${sku}`)).join(' ');

beforeAll(async () => {
  await openDemo('revisions');
  mara = await personOf('mara@harrowmoor.example');
  rhona = await personOf('rhona@dunmere.example');
});

describe('a quote that was sent', () => {
  it('never changes, and a new revision starts as its copy', async () => {
    let quote = await quoteWith([
      { sku: 'SILL-1212-X', quantity: 2 },
      { sku: 'BC-IP66', quantity: 1 },
    ]);
    expect(quote.revision.shown).toBe('ready');
    quote = value(
      await changeLine(mara, quote.id, quote.lines[0]?.id ?? '', {
        ...at(quote),
        hand: { by: 'rate', value: '3' },
        locked: true,
      }),
    );
    quote = value(await sendQuote(mara, quote.id, at(quote)));
    expect(quote.revision).toMatchObject({ number: 1, state: 'sent', shown: 'sent' });
    expect(quote.may).toMatchObject({ edit: false, revise: true, accept: true, lose: true });
    const sent = quote;
    expect(
      codes(await changeLine(mara, quote.id, quote.lines[0]?.id ?? '', { ...at(quote), quantity: 3 })),
    ).toEqual(['revision.is.sent']);
    await expect(
      connected().records.lines.update({ quantity: 9 }, { where: { id: quote.lines[0]?.id ?? '' } }),
    ).rejects.toThrow('never change');

    quote = value(await reviseQuote(mara, quote.id, at(quote)));
    expect(quote.revision).toMatchObject({ number: 2, state: 'draft' });
    expect(
      quote.lines.map(({ sku, quantity, hand, locked, origin, price }) => ({
        sku,
        quantity,
        hand,
        locked,
        origin,
        net: price.net,
      })),
    ).toEqual(
      sent.lines.map(({ sku, quantity, hand, locked, origin, price }) => ({
        sku,
        quantity,
        hand,
        locked,
        origin,
        net: price.net,
      })),
    );
    expect(codes(await reviseQuote(mara, quote.id, at(quote)))).toEqual(['revision.is.draft']);

    quote = value(await changeLine(mara, quote.id, quote.lines[1]?.id ?? '', { ...at(quote), quantity: 4 }));
    quote = value(await removeLines(mara, quote.id, { ...at(quote), lines: [quote.lines[0]?.id ?? ''] }));
    quote = value(await addByNumber(mara, quote.id, { ...at(quote), sku: 'SV-TRAIN-1', quantity: 1 }));
    const { before, after, lines } = value(await compareQuote(mara, quote.id, 1, 2));
    expect(lines.map(({ is }) => is)).toEqual(['removed', 'changed', 'added']);
    expect([before.totals.net, after.totals.net]).toEqual([sent.totals.net, quote.totals.net]);
    // The one that was sent is still there as it was.
    expect(value(await seeQuote(mara, quote.id, 1)).lines).toEqual(sent.lines);
    expect(value(await seeQuote(mara, quote.id, 1)).may).toMatchObject({
      edit: false,
      accept: false,
      lose: false,
    });
    expect(codes(await seeQuote(mara, quote.id, 7))).toEqual(['revision.missing']);
  });

  it('is not sent with something to mend, beyond a limit, or with a last day that is past', async () => {
    const empty = await opened('C-1001');
    expect(codes(await sendQuote(mara, empty.id, at(empty)))).toEqual(['quote.empty']);
    let quote = await quoteWith([{ sku: 'SILL-1212-X', quantity: 1 }]);
    quote = value(
      await changeLine(mara, quote.id, quote.lines[0]?.id ?? '', {
        ...at(quote),
        hand: { by: 'rate', value: '30' },
      }),
    );
    expect(codes(await sendQuote(mara, quote.id, at(quote)))).toEqual(['quote.unsigned']);
    expect(codes(await changeWhole(mara, quote.id, { ...at(quote), validUntil: inDays(-1) }))).toEqual([
      'quote.validPast',
    ]);
  });

  it('runs out, and is then no longer accepted', async () => {
    let quote = await quoteWith([{ sku: 'SILL-1212-X', quantity: 1 }]);
    quote = value(await sendQuote(mara, quote.id, at(quote)));
    await connected().records.revisions.update({ validUntil: inDays(-1) }, { where: { quoteId: quote.id } });
    const late = value(await seeQuote(mara, quote.id));
    expect(late.revision.shown).toBe('expired');
    expect(late.may.accept).toBe(false);
    expect(codes(await acceptQuote(mara, quote.id, quote.version))).toEqual(['revision.is.expired']);
    const again = value(await reviseQuote(mara, quote.id, at(quote)));
    expect(again.revision.validUntil > today()).toBe(true);
  });

  it('is remembered for the next quote to the same customer', async () => {
    let first = await quoteWith([{ sku: 'YE-KIOSK', quantity: 2 }], 'C-1005');
    first = value(
      await changeLine(mara, first.id, first.lines[0]?.id ?? '', {
        ...at(first),
        hand: { by: 'rate', value: '3' },
      }),
    );
    first = value(await sendQuote(mara, first.id, at(first)));
    const next = await quoteWith(
      [
        { sku: 'YE-KIOSK', quantity: 1 },
        { sku: 'SV-COMM', quantity: 1 },
      ],
      'C-1005',
    );
    const last = value(await lastPrices(mara, next.id, next.lines[0]?.id ?? ''));
    expect(
      last.map(({ number, state, quantity, unitNet }) => ({ number, state, quantity, unitNet })),
    ).toEqual([{ number: first.number, state: 'sent', quantity: 2, unitNet: first.lines[0]?.price.unitNet }]);
    expect(value(await lastPrices(mara, next.id, next.lines[1]?.id ?? ''))).toEqual([]);
    expect(codes(await lastPrices(rhona, next.id, next.lines[0]?.id ?? ''))).toEqual(['line.missing']);
    expect(codes(await lastPrices(mara, first.id, next.lines[0]?.id ?? ''))).toEqual(['line.missing']);
  });

  it('is accepted as it was sent, whatever the list says by then', async () => {
    let quote = await quoteWith([{ sku: 'RB-HUB', quantity: 2 }]);
    quote = value(await sendQuote(mara, quote.id, at(quote)));
    const { priceEntries } = connected().records;
    await priceEntries.update(
      { entry: { method: 'unit', price: '9999' } },
      { where: { priceList: quote.priceList, sku: 'RB-HUB' } },
    );
    const { orderId } = value(await acceptQuote(mara, quote.id, quote.version));
    const order = await connected().records.orders.findByPk(orderId);
    expect(Number(order?.net)).toBe(Number(quote.totals.net));
    const accepted = value(await seeQuote(mara, quote.id));
    expect(accepted.totals).toEqual(quote.totals);
    expect(accepted.may).toMatchObject({ edit: false, revise: false, lose: false });
  });

  it('may be lost, with why, and taken up again', async () => {
    let quote = await quoteWith([{ sku: 'BC-IP66', quantity: 1 }]);
    quote = value(
      await loseQuote(mara, quote.id, { ...at(quote), reason: 'time', note: 'Eight weeks were too long' }),
    );
    expect(quote.revision).toMatchObject({
      state: 'lost',
      lost: { reason: 'time', note: 'Eight weeks were too long' },
    });
    expect(codes(await acceptQuote(mara, quote.id, quote.version))).toEqual(['revision.is.lost']);
    quote = value(await reviseQuote(mara, quote.id, at(quote)));
    expect(quote.revisions.map(({ number, state }) => `${String(number)} ${state}`)).toEqual([
      '2 ready',
      '1 lost',
    ]);
  });

  it('keeps its builds: the new revision works on copies, and the differences name the choices', async () => {
    let quote = await demoQuote('Q-26-0007');
    const old = quote.lines.find((line) => line.buildId);
    quote = value(await sendQuote(mara, quote.id, at(quote)));
    quote = value(await reviseQuote(mara, quote.id, at(quote)));
    const copy = quote.lines.find((line) => line.origin === old?.origin);
    expect(copy?.buildId).not.toBe(old?.buildId);
    const frozen = await connected().records.builds.findByPk(old?.buildId ?? '');
    expect(
      codes(
        await saveContent(mara, old?.buildId ?? '', {
          version: frozen?.version ?? 0,
          decisions: [],
          passed: [],
          special: [],
        }),
      ),
    ).toEqual(['build.settled']);
    await expect(
      connected().records.builds.update({ version: 99 }, { where: { id: old?.buildId ?? '' } }),
    ).rejects.toThrow('never change');
    const open = await connected().records.builds.findByPk(copy?.buildId ?? '');
    const decisions = (open?.decisions ?? []).map((each) => ({
      on: each.on,
      value: each.on === 'length' ? 'm15' : (each.value as string),
    }));
    value(await saveContent(mara, copy?.buildId ?? '', { version: 1, decisions, passed: [], special: [] }));
    const { lines } = value(await compareQuote(mara, quote.id, 1, 2));
    const changed = lines.find(({ is }) => is === 'changed');
    expect(
      changed?.is === 'changed' &&
        changed.choices.map(({ row, before, after }) => [row, before?.en, after?.en]),
    ).toContainEqual(['length', '12 m', '15 m']);
  });

  it('may start from an older revision', async () => {
    let quote = await quoteWith([{ sku: 'BC-IP66', quantity: 1 }]);
    quote = value(await sendQuote(mara, quote.id, at(quote)));
    quote = value(await reviseQuote(mara, quote.id, at(quote)));
    quote = value(await changeLine(mara, quote.id, quote.lines[0]?.id ?? '', { ...at(quote), quantity: 50 }));
    quote = value(await sendQuote(mara, quote.id, at(quote)));
    quote = value(await reviseQuote(mara, quote.id, { ...at(quote), from: 1 }));
    expect(quote.revision.number).toBe(3);
    expect(quote.lines[0]?.quantity).toBe(1);
  });

  it('is not for those whose quote it is not', async () => {
    const quote = await quoteWith([{ sku: 'BC-IP66', quantity: 1 }]);
    for (const act of [
      sendQuote(rhona, quote.id, at(quote)),
      reviseQuote(rhona, quote.id, at(quote)),
      compareQuote(rhona, quote.id, 1, 1),
      seeFreshening(rhona, quote.id),
      freshen(rhona, quote.id, { ...at(quote), lines: [quote.lines[0]?.id ?? ''] }),
    ]) {
      expect(codes(await act)).toEqual(['quote.missing']);
    }
  });
});

describe('freshening', () => {
  /** A quote whose lines stand on prices of ten days ago, and a dearer price since five. */
  async function aged(): Promise<QuoteView> {
    const quote = await quoteWith([
      { sku: 'SILL-1212-X', quantity: 2 },
      { sku: 'BC-IP66', quantity: 1 },
    ]);
    await connected().records.lines.update(
      { pricedOn: inDays(-10) },
      { where: { id: quote.lines.map(({ id }) => id) } },
    );
    const { priceEntries } = connected().records;
    const now = await priceEntries.findOne({
      where: { priceList: quote.priceList, sku: 'SILL-1212-X' },
      order: [['validFrom', 'ASC']],
      raw: true,
    });
    if (now?.entry?.method !== 'unit') throw new Error('SILL-1212-X has another price');
    await priceEntries.upsert({
      ...now,
      validFrom: inDays(-5),
      entry: { method: 'unit', price: String(Number(now.entry.price) + 40) },
    });
    return value(await seeQuote(mara, quote.id));
  }

  it('keeps the prices of its day until asked, tells what would change, and changes only what is taken', async () => {
    let quote = await aged();
    const [sill, box] = quote.lines;
    const seen = value(await seeFreshening(mara, quote.id));
    expect(seen.lines.map(({ differs, pricedOn }) => [differs, pricedOn])).toEqual([
      [true, inDays(-10)],
      [false, inDays(-10)],
    ]);
    const [line] = seen.lines;
    expect(Number(line?.after)).toBeGreaterThan(Number(line?.before));
    // Looking changes nothing.
    expect(value(await seeQuote(mara, quote.id))).toEqual({ ...quote, stand: expect.any(String) as string });
    quote = value(await freshen(mara, quote.id, { ...at(quote), lines: [sill?.id ?? ''] }));
    expect(quote.lines.map(({ pricedOn }) => pricedOn)).toEqual([today(), inDays(-10)]);
    expect(quote.lines[0]?.price.net).toBe(line?.after);
    expect(quote.lines[1]?.price).toEqual(box?.price);
    expect(quote.totals.net).toBe(seen.net.after);
  });

  it('adds new lines at the prices of today', async () => {
    let quote = await aged();
    quote = value(await addByNumber(mara, quote.id, { ...at(quote), sku: 'SILL-1212-X', quantity: 2 }));
    expect(quote.lines.map(({ pricedOn }) => pricedOn)).toEqual([inDays(-10), inDays(-10), today()]);
    expect(Number(quote.lines[2]?.price.net)).toBeGreaterThan(Number(quote.lines[0]?.price.net));
  });

  it('moves builds to the newest version of their model', async () => {
    const quote = await demoQuote('Q-26-0001');
    const line = quote.lines.find((each) => each.buildId);
    if (quote.revision.state !== 'draft') throw new Error('the demo quote is settled');
    const row = await connected().records.modelVersions.findOne({
      where: { modelId: 'ridgeback' },
      order: [['number', 'DESC']],
    });
    const document = structuredClone(row?.document);
    if (!document) throw new Error('no ridgeback');
    document.name = { ...document.name, en: 'Ridgeback, later' };
    await connected().transaction(async () => {
      await publish(document, 'RIDGEBACK', null);
    });
    const seen = value(await seeFreshening(mara, quote.id));
    const fresh = seen.lines.find((each) => each.id === line?.id);
    expect(fresh).toMatchObject({
      version: { from: row?.number, to: (row?.number ?? 0) + 1 },
      differs: true,
    });
    const after = value(await freshen(mara, quote.id, { ...at(quote), lines: [line?.id ?? ''] }));
    const build = await connected().records.builds.findByPk(
      after.lines.find((each) => each.id === line?.id)?.buildId ?? '',
    );
    expect((await connected().records.modelVersions.findByPk(build?.modelVersionId ?? ''))?.number).toBe(
      (row?.number ?? 0) + 1,
    );
  });
});

describe('lines of a quote', () => {
  const rows = ['SILL-1212-X', 'BC-IP66', 'SV-TRAIN-1', 'RB-HUB'].map((sku) => ({ sku, quantity: 1 }));

  it('stand in groups, move, and leave them', async () => {
    let quote = await quoteWith(rows);
    const id = (sku: string) => quote.lines.find((line) => line.sku === sku)?.id ?? '';
    quote = value(
      await changeLines(mara, quote.id, {
        ...at(quote),
        lines: [id('BC-IP66'), id('RB-HUB')],
        group: 'Gate',
      }),
    );
    expect(told(quote)).toBe('SILL-1212-X Gate:BC-IP66 Gate:RB-HUB SV-TRAIN-1');
    quote = value(await placeLines(mara, quote.id, { ...at(quote), lines: [id('SV-TRAIN-1')], to: 3 }));
    expect(told(quote)).toBe('SILL-1212-X Gate:BC-IP66 Gate:SV-TRAIN-1 Gate:RB-HUB');
    quote = value(await renameGroup(mara, quote.id, { ...at(quote), from: 'Gate', to: 'East gate' }));
    quote = value(await changeLines(mara, quote.id, { ...at(quote), lines: [id('BC-IP66')], group: null }));
    expect(told(quote)).toBe('SILL-1212-X East gate:SV-TRAIN-1 East gate:RB-HUB BC-IP66');
    expect(quote.lines.map(({ position }) => position)).toEqual([1, 2, 3, 4]);
    expect(codes(await renameGroup(mara, quote.id, { ...at(quote), from: 'Gate', to: 'West' }))).toEqual([
      'group.missing',
    ]);
  });

  it('come with a discount from a list, but not what may not be discounted', async () => {
    const quote = await opened('C-1001');
    const added = value(
      await addSeveral(mara, quote.id, {
        ...at(quote),
        rows: [
          { sku: 'BC-IP66', quantity: 2, discount: '3,5' },
          { sku: 'SV-COMM', quantity: 1 },
        ],
      }),
    );
    expect(added.lines.map(({ hand }) => hand)).toEqual([{ by: 'rate', value: '0.035' }, null]);
    const refused = await addSeveral(mara, quote.id, {
      ...at(added),
      rows: [{ sku: 'SV-DELIV', quantity: 2, discount: '3' }],
    });
    expect(codes(refused)).toEqual(['line.notDiscountable']);
  });

  it('change together, all or none, and say on which line something is wrong', async () => {
    let quote = await quoteWith(rows);
    const ids = quote.lines.slice(0, 2).map(({ id }) => id);
    quote = value(
      await changeLines(mara, quote.id, {
        ...at(quote),
        lines: ids,
        hand: { by: 'rate', value: '2,5' },
        quantity: 3,
      }),
    );
    expect(quote.lines.map(({ quantity, hand }) => [quantity, hand?.value])).toEqual([
      [3, '0.025'],
      [3, '0.025'],
      [1, undefined],
      [1, undefined],
    ]);
    const refused = await changeLines(mara, quote.id, {
      ...at(quote),
      lines: quote.lines.map(({ id }) => id),
      term: { start: today(), months: 12, days: 0 },
    });
    expect(
      refused.ok ? [] : refused.failures.map(({ code, params }) => [code, params?.code, params?.line]),
    ).toEqual([1, 2, 3, 4].map((line) => ['line.of', 'line.notRecurring', line]));
    expect(value(await seeQuote(mara, quote.id))).toEqual({ ...quote, stand: expect.any(String) as string });
  });
});

describe('undo and redo', () => {
  const shown = (quote: QuoteView) =>
    quote.lines.map(({ sku, quantity, hand }) => `${sku} ${String(quantity)} ${hand?.value ?? ''}`.trim());
  it('take back and make again whatever was changed, lines that were removed among it', async () => {
    let quote = await quoteWith([
      { sku: 'SILL-1212-X', quantity: 2 },
      { sku: 'BC-IP66', quantity: 1 },
    ]);
    const states = [shown(quote)];
    const then = (result: Result<QuoteView>) => {
      quote = value(result);
      states.push(shown(quote));
    };
    then(
      await changeLine(mara, quote.id, quote.lines[0]?.id ?? '', {
        ...at(quote),
        hand: { by: 'rate', value: '3' },
      }),
    );
    then(await removeLines(mara, quote.id, { ...at(quote), lines: [quote.lines[1]?.id ?? ''] }));
    then(await addByNumber(mara, quote.id, { ...at(quote), sku: 'SV-COMM', quantity: 4 }));
    then(await changeWhole(mara, quote.id, { ...at(quote), whole: { by: 'rate', value: '2' } }));
    const { totals } = quote;
    for (const state of [...states].reverse().slice(1)) {
      quote = value(await step(mara, quote.id, 'undo', at(quote)));
      expect(shown(quote)).toEqual(state);
    }
    expect(quote.whole.typed).toBeNull();
    for (const state of states.slice(1)) {
      quote = value(await step(mara, quote.id, 'redo', at(quote)));
      expect(shown(quote)).toEqual(state);
    }
    expect(quote.totals).toEqual(totals);
    expect(quote.steps).toEqual({ undo: true, redo: false });
    expect(codes(await step(mara, quote.id, 'redo', at(quote)))).toEqual(['steps.redo']);
  });

  it('does not bring back a line whose build is gone', async () => {
    let quote = await demoQuote('Q-26-0004');
    const line = quote.lines.find((each) => each.buildId);
    quote = value(await removeLines(mara, quote.id, { ...at(quote), lines: [line?.id ?? ''] }));
    await connected().records.builds.destroy({ where: { id: line?.buildId ?? '' } });
    expect(codes(await step(mara, quote.id, 'undo', at(quote)))).toEqual(['steps.gone']);
  });

  it("a new change ends what could be made again; another person's change is not taken back; another customer ends all", async () => {
    const joss = await personOf('joss@harrowmoor.example');
    let quote = await quoteWith([{ sku: 'SILL-1212-X', quantity: 2 }]);
    quote = value(await changeLine(mara, quote.id, quote.lines[0]?.id ?? '', { ...at(quote), quantity: 5 }));
    quote = value(await step(mara, quote.id, 'undo', at(quote)));
    expect(quote.steps.redo).toBe(true);
    quote = value(await changeLine(mara, quote.id, quote.lines[0]?.id ?? '', { ...at(quote), quantity: 7 }));
    expect(quote.steps.redo).toBe(false);
    quote = value(await changeLine(joss, quote.id, quote.lines[0]?.id ?? '', { ...at(quote), quantity: 9 }));
    expect(codes(await step(mara, quote.id, 'undo', at(quote)))).toEqual(['steps.notYours']);
    expect(value(await seeQuote(mara, quote.id)).steps).toEqual({ undo: false, redo: false });
    const other = await connected().records.customers.findOne({ where: { number: 'C-1002' } });
    quote = value(await changeCustomer(joss, quote.id, { ...at(quote), customerId: other?.id ?? '' }));
    expect(quote.steps).toEqual({ undo: false, redo: false });
  });
});

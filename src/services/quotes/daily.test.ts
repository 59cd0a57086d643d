/**
 * A day's work of several people on the demo: what waits for whom, what may be typed, kept and taken back.
 */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { QuoteView } from '../../contract';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { beginBuild } from '../builds/begin';
import { findCustomers } from '../customers/customers';
import { desk } from '../desk/desk';
import type { Result } from '../kernel/failure';
import { changeLine } from './lines/lines';
import { addByNumber, addSeveral } from './lines/quote-builds';
import { readNumbers } from './lines/numbers';
import { changeWhole, openQuote, seeQuote } from './quotes';
import { changeSaved, saveBuild } from '../builds/saved-builds';
import { openDemo, personOf } from '../kernel/testing';
import { step } from './history/undo';

let [mara, joss, wen, rhona] = [null, null, null, null] as unknown as [Actor, Actor, Actor, Actor];
beforeAll(async () => {
  await openDemo('daily');
  [mara, joss, wen, rhona] = [
    await personOf('mara@harrowmoor.example'),
    await personOf('joss@harrowmoor.example'),
    await personOf('wen@harrowmoor.example'),
    await personOf('rhona@dunmere.example'),
  ];
});
afterAll(() => connected().close());

const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.failures));
  return result.value;
};
const codes = (result: Result<unknown>) => (result.ok ? [] : result.failures.map(({ code }) => code));
async function newQuote(title = ''): Promise<QuoteView> {
  const [customer] = await findCustomers(mara, 'hallersee');
  return value(await openQuote(mara, { customerId: customer?.id ?? '', title }));
}

describe('the Desk', () => {
  it('shows what is one’s own, and the team’s when asked for', async () => {
    const mine = await desk(mara);
    expect(mine.quotes.length).toBeGreaterThan(0);
    expect(mine.quotes.every((quote) => quote.mine)).toBe(true);
    const team = await desk(mara, 'team');
    expect(team.quotes.some((quote) => !quote.mine)).toBe(true);
    expect(team.count).toBeGreaterThan(mine.count);
    expect((await desk(joss)).quotes.every((quote) => quote.owner === 'Joss Adeyemi')).toBe(true);
  });

  it('has no quotes for who has none, and a dealer’s team is the dealer’s', async () => {
    expect((await desk(wen)).quotes).toEqual([]);
    expect((await desk(rhona, 'team')).quotes.every((quote) => !quote.owner.includes('Mara'))).toBe(true);
  });
});

describe('quantities', () => {
  it('are parts of what is measured, and whole of what is counted', async () => {
    let quote = value(
      await addByNumber(mara, (await newQuote()).id, { version: 1, sku: 'RB-CABLE', quantity: 12.5 }),
    );
    expect(quote.lines[0]).toMatchObject({ quantity: 12.5, unit: 'm' });
    expect(Number(quote.lines[0]?.price.net) * 100).toBeCloseTo(
      Math.round(Number(quote.lines[0]?.price.net) * 100),
      6,
    );
    expect(
      codes(await addByNumber(mara, quote.id, { version: quote.version, sku: 'YE-KIOSK', quantity: 1.5 })),
    ).toEqual(['quantity.byPiece']);
    expect(
      codes(
        await addSeveral(mara, quote.id, {
          version: quote.version,
          rows: [
            { sku: 'YE-KIOSK', quantity: 0.5 },
            { sku: 'BC-DLM-10-EN.2', quantity: 1.5 },
          ],
        }),
      ),
    ).toEqual(['quantity.byPiece', 'quantity.byPiece']);
    quote = value(
      await addByNumber(mara, quote.id, { version: quote.version, sku: 'YE-KIOSK', quantity: 2 }),
    );
    expect(
      codes(
        await changeLine(mara, quote.id, quote.lines[1]?.id ?? '', { version: quote.version, quantity: 2.5 }),
      ),
    ).toEqual(['quantity.byPiece']);
    quote = value(
      await changeLine(mara, quote.id, quote.lines[0]?.id ?? '', { version: quote.version, quantity: 0.125 }),
    );
    expect(value(await seeQuote(mara, quote.id)).lines[0]?.quantity).toBe(0.125);
  });

  it('of what comes only inside a build are refused by name, not as unknown', async () => {
    const quote = await newQuote();
    expect(
      codes(await addByNumber(mara, quote.id, { version: quote.version, sku: 'RM-BEAM', quantity: 1 })),
    ).toEqual(['line.notSoldAlone']);
    expect(
      value(await readNumbers(mara, quote.id, { numbers: ['rm-beam', 'NOTHING-9'] })).map(
        (read) => read.is === 'wrong' && read.code,
      ),
    ).toEqual(['line.notSoldAlone', 'line.unknownItem']);
  });
});

describe('what is kept and taken back', () => {
  it('two kept builds never have one name, however it is written', async () => {
    const quote = await newQuote();
    const { id: buildId } = value(await beginBuild(mara, { quoteId: quote.id, modelId: 'beacon' }));
    const kept = value(await saveBuild(mara, { buildId, name: 'Gate terminal', shared: true }));
    for (const name of ['Gate terminal', ' GATE  Terminal ', 'gate terminal'])
      expect(codes(await saveBuild(mara, { buildId, name, shared: false }))).toEqual(['saved.nameTaken']);
    const other = value(await saveBuild(mara, { buildId, name: 'Yard terminal', shared: false }));
    expect(codes(await changeSaved(mara, other.id, { name: 'Gate Terminal' }))).toEqual(['saved.nameTaken']);
    expect(codes(await changeSaved(mara, kept.id, { name: 'gate terminal' }))).toEqual([]);
    const [customer] = await findCustomers(joss, 'hallersee');
    const theirs = value(await openQuote(joss, { customerId: customer?.id ?? '', title: '' }));
    const { id: ofJoss } = value(await beginBuild(joss, { quoteId: theirs.id, modelId: 'beacon' }));
    expect(codes(await saveBuild(joss, { buildId: ofJoss, name: 'Gate terminal', shared: false }))).toEqual([
      'saved.nameTakenBy',
    ]);
    // What nobody else sees takes no name from others.
    expect(codes(await saveBuild(joss, { buildId: ofJoss, name: 'Yard terminal', shared: false }))).toEqual(
      [],
    );
  });

  it('a title is taken back and made again like anything else', async () => {
    let quote = await newQuote('North gate');
    quote = value(await changeWhole(mara, quote.id, { version: quote.version, title: 'South gate' }));
    expect([quote.title, quote.steps]).toEqual(['South gate', { undo: true, redo: false }]);
    quote = value(await step(mara, quote.id, 'undo', { version: quote.version }));
    expect([quote.title, quote.steps]).toEqual(['North gate', { undo: false, redo: true }]);
    quote = value(await step(mara, quote.id, 'redo', { version: quote.version }));
    expect(value(await seeQuote(mara, quote.id)).title).toBe('South gate');
  });
});

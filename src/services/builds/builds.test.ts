/** Builds that stand by themselves, and what was answered for a build wherever it goes. */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Decision } from '../../core/engine';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { findCustomers } from '../customers/customers';
import type { Result } from '../kernel/failure';
import { openDemo, personOf } from '../kernel/testing';
import { putOnQuote } from '../quotes/lines/quote-builds';
import { openQuote } from '../quotes/quotes';
import { beginBuild } from './begin';
import { bestBuild, openBench } from './bench';
import { seeMove } from './moves';
import { saveContent } from './save';
import { changeSaved, listSaved, saveBuild } from './saved-builds';
import { addVariant, removeVariant, seeVariants } from './variants';

let mara: Actor;
let wen: Actor;
let dealer: Actor;
let customerId: string;
beforeAll(async () => {
  await openDemo('builds');
  [mara, wen, dealer] = [
    await personOf('mara@harrowmoor.example'),
    await personOf('wen@harrowmoor.example'),
    await personOf('rhona@dunmere.example'),
  ];
  customerId = (await findCustomers(mara, 'norrvik'))[0]?.id ?? '';
});
afterAll(() => connected().close());

const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.failures));
  return result.value;
};
const code = (result: Result<unknown>) => (result.ok ? 'done' : (result.failures[0]?.code ?? ''));
const asked: Decision[] = [
  { on: 'vehicle', value: 'articulated' },
  { on: 'length', value: 'm12' },
];
const own = () => beginBuild(mara, { customerId, modelId: 'ridgeback', asked });
const saidOf = async (id: string, who = mara) => {
  const { asked: answered, picture } = value(await openBench(who, id));
  return { answered, source: picture.state.rows.vehicle?.source, values: picture.state.values };
};

describe('a build of its own', () => {
  it('is priced for its customer as it would be on a quote', async () => {
    const { id } = value(await own());
    const quote = value(await openQuote(mara, { customerId, title: 'Two scales' }));
    const { id: other } = value(await beginBuild(mara, { quoteId: quote.id, modelId: 'ridgeback', asked }));
    const [alone, quoted] = [value(await openBench(mara, id)), value(await openBench(mara, other))];
    expect([alone.quote, alone.customer, alone.mayChange]).toEqual([undefined, quoted.customer, true]);
    expect(quoted.quote?.number).toBe(quote.number);
    expect(alone.terms).toEqual(quoted.terms);
    expect(alone.terms.agreements).not.toEqual([]);
    expect(alone.picture).toEqual(quoted.picture);
    expect(alone.tariff).toEqual(quoted.tariff);
    // Of the list only what the model can need.
    expect(alone.tariff.prices).toHaveProperty('RB-CABLE');
    expect(Object.keys(alone.tariff.prices).filter((sku) => sku.startsWith('SILL-'))).toEqual([]);
  });

  it('is nobody else’s, is saved, varied and kept, and goes onto no quote but as a copy', async () => {
    const { id } = value(await own());
    for (const other of [wen, dealer]) expect(code(await openBench(other, id))).toBe('build.missing');
    expect(code(await saveContent(dealer, id, { version: 1, decisions: [], passed: [], special: [] }))).toBe(
      'build.missing',
    );
    const saved = value(
      await saveContent(mara, id, {
        version: 1,
        decisions: [{ on: 'length', value: 'm18' }],
        passed: [],
        special: [],
      }),
    );
    expect(saved.version).toBe(2);
    expect(code(await putOnQuote(mara, id, { version: 1, quantity: 1 }))).toBe('build.noQuote');
    const { id: variant } = value(await addVariant(mara, id, { empty: true }));
    expect((await saidOf(variant)).answered).toEqual(asked);
    expect(value(await seeVariants(mara, id)).map(({ letter }) => letter)).toEqual(['A', 'B']);
    expect(code(await removeVariant(mara, variant))).toBe('done');

    const quote = value(await openQuote(mara, { customerId, title: 'The copy' }));
    const copy = value(await beginBuild(mara, { quoteId: quote.id, copyOf: id }));
    const { answered, values } = await saidOf(copy.id, wen);
    expect([answered, values.length]).toEqual([asked, 'm18']);
  });

  it('is for a customer whom the person may sell to', async () => {
    const other = await beginBuild(mara, { customerId: randomUUID(), modelId: 'ridgeback' });
    expect(code(other)).toBe('quote.unknownCustomer');
    expect(code(await beginBuild(dealer, { customerId, modelId: 'ridgeback' }))).toBe(
      'quote.unknownCustomer',
    );
    const [theirs] = await findCustomers(dealer, '');
    const { id } = value(await beginBuild(dealer, { customerId: theirs?.id ?? '', modelId: 'ridgeback' }));
    const quote = value(await openQuote(dealer, { customerId: theirs?.id ?? '', title: 'Theirs' }));
    const on = value(await beginBuild(dealer, { quoteId: quote.id, modelId: 'ridgeback' }));
    // A dealer buys at the dealer's own terms, whoever the scale is for.
    expect(value(await openBench(dealer, id)).terms).toEqual(value(await openBench(dealer, on.id)).terms);
  });
});

describe('what was answered', () => {
  it('is the source of what follows from it, and gives way to a decision', async () => {
    const { id } = value(await own());
    expect(await saidOf(id)).toMatchObject({ answered: asked, source: 'asked' });
    value(
      await saveContent(mara, id, {
        version: 1,
        decisions: [{ on: 'vehicle', value: 'rigid' }],
        passed: [],
        special: [],
      }),
    );
    expect(await saidOf(id)).toMatchObject({ answered: asked, source: 'yours', values: { length: 'm12' } });
  });

  it('is kept with a kept build, and stays where the model has no place for it', async () => {
    const { id } = value(
      await beginBuild(mara, {
        customerId,
        modelId: 'ridgeback',
        asked: [...asked, { on: 'nothing', value: true }],
      }),
    );
    expect((await saidOf(id)).answered).toEqual(asked);
    const kept = value(await saveBuild(mara, { buildId: id, name: 'Articulated, asked', shared: false }));
    const again = value(await beginBuild(mara, { customerId, savedId: kept.id }));
    expect(await saidOf(again.id)).toMatchObject({ answered: asked, source: 'asked' });
  });

  it('counts for the best build and for a move to another version', async () => {
    const { id } = value(await own());
    const best = value(
      await bestBuild(mara, id, {
        weights: [{ measure: 'price', weight: '1' }],
        bounds: [],
        free: [],
      }),
    );
    // What was asked is no decision of the person, and holds all the same.
    expect(best.is).toBe('found');
    if (best.is === 'found') expect(best.decisions.map(({ on }) => on)).not.toContain('vehicle');
    expect(value(await seeMove(mara, id))).toMatchObject({ dropped: [], clashes: 0 });
  });
});

describe('a kept build', () => {
  it('is starred by whoever likes it, and renamed by its owner alone', async () => {
    const { id } = value(await own());
    const kept = value(await saveBuild(mara, { buildId: id, name: 'Quarry gate', shared: true }));
    expect(code(await changeSaved(wen, kept.id, { name: 'Mine now' }))).toBe('saved.notYours');
    expect(code(await changeSaved(wen, kept.id, { starred: true }))).toBe('done');
    expect((await listSaved(wen))[0]).toMatchObject({ id: kept.id, starred: true, mine: false });
    expect((await listSaved(mara)).find((each) => each.id === kept.id)).toMatchObject({ starred: false });
    expect(code(await saveBuild(mara, { buildId: id, name: ' quarry  GATE', shared: false }))).toBe(
      'saved.nameTaken',
    );
    // What a colleague inside shares is nothing to a dealer.
    expect((await listSaved(dealer)).map((each) => each.id)).not.toContain(kept.id);
  });
});

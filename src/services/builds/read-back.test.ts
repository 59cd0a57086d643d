/**
 * Part numbers read back with what is registered for them, on the version of today and on those of before.
 */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Decision } from '../../core/engine';
import type { ModelDocument } from '../../core/model';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { openBench } from './bench';
import { beginBuild } from './begin';
import { saveContent } from './save';
import { findCustomers } from '../customers/customers';
import type { Result } from '../kernel/failure';
import { versionInForce, publish } from '../catalogue/models';
import { readNumbers } from '../quotes/lines/numbers';
import { openQuote } from '../quotes/quotes';
import { readBack, readForBuild } from './read-back';
import { today } from '../kernel/clock';
import { openDemo, personOf } from '../kernel/testing';

let mara: Actor;
beforeAll(async () => {
  await openDemo('read_back');
  mara = await personOf('mara@harrowmoor.example');
});
afterAll(() => connected().close());

const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.failures));
  return result.value;
};
const context = { date: '2026-11-28', values: { region: 'uk' } };
const complete: Decision[] = [
  { on: 'vehicle', value: 'articulated' },
  { on: 'length', value: 'm12' },
];

async function made(modelId: string, decisions: readonly Decision[]) {
  const [customer] = await findCustomers(mara, 'callow');
  const quote = value(await openQuote(mara, { customerId: customer?.id ?? '', title: 'test' }));
  const { id } = value(await beginBuild(mara, { quoteId: quote.id, modelId }));
  const { partNumber, complete: whole } = value(
    await saveContent(mara, id, { version: 1, decisions: [...decisions], passed: [], special: [] }),
  );
  return { quote, id, partNumber, whole };
}
const said = (decisions: readonly Decision[]) =>
  Object.fromEntries(decisions.map(({ on, value: is }) => [on, is]));

describe('a part number', () => {
  it('tells terminals inside apart, and brings them back as they were', async () => {
    const plain = await made('ridgeback', complete);
    const network = await made('ridgeback', [
      ...complete,
      { on: 'terminals/beacon/1/interfaces.ethernet', value: true },
      { on: 'terminals/beacon/1/plateText', value: 'Gate 1; 50 % = half!' },
    ]);
    const again = await made('ridgeback', [
      ...complete,
      { on: 'terminals/beacon/1/interfaces.ethernet', value: true },
      { on: 'terminals/beacon/1/plateText', value: 'Gate 1; 50 % = half!' },
    ]);
    expect(plain.partNumber).toMatch(/^RB-060-120-A-P-S-D-0-3-O\+T\d{4}$/);
    expect(network.partNumber).not.toBe(plain.partNumber);
    expect(again.partNumber).toBe(network.partNumber);
    const read = value(await readBack(network.partNumber, context));
    // The vehicle is the customer's need, and stands in no number.
    expect([read.complete, read.typed]).toEqual([false, []]);
    expect(said(read.decisions)).toMatchObject({
      terminals: 'beacon',
      'terminals/beacon/1/interfaces.ethernet': true,
      'terminals/beacon/1/plateText': 'Gate 1; 50 % = half!',
    });
  });

  it('tells of every extra, and of the cable', async () => {
    const { partNumber } = await made('ridgeback', [
      ...complete,
      { on: 'guards', value: true },
      { on: 'lightning', value: true },
      { on: 'cable', value: '80' },
      { on: 'terminals', value: null },
    ]);
    expect(partNumber).toBe('RB-060-120-A-P-S-D-0-3-O+GL+K080');
    expect(said(value(await readBack(partNumber.toLowerCase(), context)).decisions)).toMatchObject({
      guards: true,
      lightning: true,
      cable: '80',
      terminals: null,
    });
  });

  it('of a bundle tells the builds inside apart', async () => {
    const [one, other] = await Promise.all(
      ['m12', 'm18'].map((length) =>
        made('quarryGate', [
          { on: 'scale/ridgeback/1/vehicle', value: 'articulated' },
          { on: 'scale/ridgeback/1/length', value: length },
        ]),
      ),
    );
    expect([one?.whole, other?.whole]).toEqual([true, true]);
    expect(one?.partNumber).toMatch(/^QG-11V\+\d{4}$/);
    expect(other?.partNumber).not.toBe(one?.partNumber);
    const read = value(await readBack(other?.partNumber ?? '', context));
    expect(said(read.decisions)).toMatchObject({
      'scale/ridgeback/1/length': 'm18',
      'scale/ridgeback/1/surface': 'plate',
    });
    // The builds inside have numbers of their own, closed as well.
    const bench = value(await openBench(mara, other?.id ?? ''));
    expect(Object.values(bench.picture.inside)).toEqual([
      expect.stringMatching(/^RB-060-180-A-P-S-D-0-3-O(\/\w+)?\+T\d{4}$/),
      expect.stringMatching(/^BC-/),
    ]);
  });

  it('with a plate says that its words are to be typed', async () => {
    const { partNumber } = await made('beacon', [{ on: 'plateText', value: 'Weighhouse' }]);
    expect(partNumber).toMatch(/\+E\.[0-9A-Z*]$/);
    expect(value(await readBack(partNumber, context))).toMatchObject({
      typed: ['plateText'],
      complete: false,
    });
  });

  it('printed by an earlier scheme is read by that one, and says so', async () => {
    const before = await made('ridgeback', [
      ...complete,
      { on: 'width', value: 'custom' },
      { on: 'customWidth', value: '3.35' },
    ]);
    const newest = await versionInForce('ridgeback');
    const row = await connected().records.modelVersions.findByPk(newest?.id ?? '');
    const document = row?.document as ModelDocument;
    const changed: ModelDocument = {
      ...document,
      numbering: document.numbering.map((segment) =>
        segment.kind === 'text' && segment.text === 'RB' ? { ...segment, text: 'RW' } : segment,
      ),
    };
    expect((await connected().transaction(() => publish(changed, 'RIDGEBACK', null))).problems).toEqual([]);
    // The version that is in force on the day of the build is the one that is meant.
    expect(value(await readBack(before.partNumber, context)).version.number).toBe(1);
    const onDay = { ...context, date: today() };
    const read = value(await readBack(before.partNumber, onDay));
    expect(read).toMatchObject({ scheme: 1, version: { number: 2 } });
    expect(said(read.decisions)).toMatchObject({ width: 'custom', customWidth: '3.35' });
    // A number of today says nothing of a scheme; one pasted on a build of the older version is read by its
    // own.
    const now = await made('ridgeback', complete);
    expect(now.partNumber).toMatch(/^RW-/);
    expect(value(await readBack(now.partNumber, onDay)).scheme).toBeUndefined();
    expect(value(await readForBuild(mara, now.id, { number: before.partNumber }))).toMatchObject({
      scheme: 1,
    });
    expect(value(await readForBuild(mara, before.id, { number: before.partNumber })).scheme).toBeUndefined();
    expect(value(await readForBuild(mara, before.id, { number: now.partNumber }))).toMatchObject({
      scheme: 2,
    });
    expect(
      value(await readNumbers(mara, now.quote.id, { numbers: [before.partNumber, 'RB-999-1'] })),
    ).toMatchObject([{ is: 'build' }, { is: 'wrong' }]);
  });
});

/** A draft as a worker tries it: what fires, what tests come to, and what is wrong. */
import { beforeEach, expect, it } from 'vitest';
import { demoDocument } from '../../../scripts/demo-documents';
import type { ModelDocument } from '../../core/model';
import { DraftComputation } from './computation';

let computation: DraftComputation;
const document = demoDocument('tarn');
beforeEach(() => {
  computation = new DraftComputation();
  computation.open({
    tariff: { list: 'X', currency: 'EUR', decimals: 2, prices: {} },
    facts: {},
    today: '2026-11-29',
  });
});

it('tries decisions, drops those that have no place, and names the rules that fire', () => {
  const edition = { number: 1, document };
  expect(computation.try(edition, [], {}).seen?.fired).toEqual([]);
  const decisions = [
    { on: 'pads', value: '10' },
    { on: 'gone', value: 'x' },
  ];
  const { seen, problems } = computation.try({ number: 1 }, decisions, {});
  expect(problems).toEqual([]);
  expect(seen?.fired).toEqual(expect.arrayContaining(['manyCases', 'heavySet']));
  expect(seen?.decisions).toEqual([{ on: 'pads', value: '10' }]);
  expect(seen?.picture.state.messages.map(({ rule }) => rule)).toEqual(['heavySet']);
});

it('says what does not compile, and tries nothing', () => {
  const broken: ModelDocument = {
    ...document,
    rules: [{ id: 'bad', kind: 'require', must: 'nobody > 1', reason: { en: 'x', de: 'x' } }],
  };
  const tried = computation.try({ number: 1, document: broken }, [], {});
  expect(tried.seen).toBeUndefined();
  expect(tried.problems).toMatchObject([{ path: 'rules.bad.must', code: 'formula.unknownName' }]);
});

it('runs the tests of what was tried last, and gives way to what is tried next', async () => {
  computation.try({ number: 1, document }, [], {});
  const results = await computation.test(1);
  expect(results?.map(({ failures }) => failures.length)).toEqual((document.tests ?? []).map(() => 0));
  const dearer: ModelDocument = { ...document, rules: [] };
  computation.try({ number: 2, document: dearer }, [], {});
  const red = await computation.test(2);
  expect(red?.some(({ failures }) => failures.length > 0)).toBe(true);
  const under = computation.test(2);
  computation.try({ number: 3, document }, [], {});
  expect(await under).toBeNull();
  expect(await computation.test(2)).toBeNull();
  expect(() => computation.try({ number: 4 }, [], {})).toThrow();
});

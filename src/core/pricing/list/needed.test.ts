/** A list without what a model cannot need prices every build as the whole list does. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoModel } from '../../../../scripts/demo-documents';
import { createEngine, type Decision } from '../../engine';
import type { CompiledModel } from '../../model';
import { making } from '../../production';
import { costOf, factsWithin, itemsNeeded, priceBuild, tariffWithin, type Tariff } from '..';
import type { PriceEntry } from './methods';

fc.configureGlobal({ seed: Number(process.env.SEED ?? 20261128) });
const models = ['ridgeback', 'quarryGate', 'beacon'].map(demoModel);
const others = Array.from({ length: 200 }, (_, at) => `OTHER-${String(at)}`);

/** A list of all that a model needs and much besides: prices of every kind that a build takes. */
function tariffArb(items: readonly string[], bundle: string): fc.Arbitrary<Tariff> {
  const amount = fc.integer({ min: 0, max: 900_000 }).map((cents) => (cents / 100).toFixed(2));
  const entry: fc.Arbitrary<PriceEntry> = fc.oneof(
    amount.map((price): PriceEntry => ({ method: 'unit', price })),
    fc
      .tuple(fc.subarray([...items.slice(0, 12), ...others]), amount)
      .map(([of, rate]): PriceEntry => ({ method: 'share', rate: `0.${rate.replace('.', '')}`, of })),
    amount.map((price): PriceEntry => ({
      method: 'bracket',
      brackets: [{ from: '0', price }],
    })),
  );
  const all = [...items, ...others];
  return fc
    .record({
      each: fc.array(entry, { minLength: all.length, maxLength: all.length }),
      costs: fc.array(amount, { minLength: all.length, maxLength: all.length }),
      own: fc.subarray(all),
      sold: fc.subarray(all),
    })
    .map(({ each, costs, own, sold }): Tariff => {
      const priced = all.map((item, at) => [item, each[at] as PriceEntry] as const);
      return {
        list: 'EU-26',
        currency: 'EUR',
        decimals: 2,
        prices: Object.fromEntries(
          priced.flatMap(([item, one]) => (one.method === 'unit' ? [[item, one.price]] : [])),
        ),
        entries: Object.fromEntries(priced.filter(([, one]) => one.method !== 'unit')),
        inside: { [bundle]: Object.fromEntries(own.map((item) => [item, '12.50'])) },
        recurs: Object.fromEntries(sold.slice(0, 5).map((item) => [item, { baseMonths: 12 }])),
        asSold: sold,
        costs: Object.fromEntries(all.map((item, at) => [item, costs[at] as string])),
        rates: {},
      };
    });
}

describe('what of a list a model needs', () => {
  it.each(models.map((model) => [model.document.id, model] as const))(
    'prices and costs every build of %s as the whole list does',
    (_, model) => {
      const items = itemsNeeded(model);
      const engine = createEngine(model, { date: '2026-11-28', values: { region: 'eu' } });
      const targets = model.document.features.flatMap(({ id, most, options }): Decision[] =>
        options.map((option) =>
          most === 1 ? { on: id, value: option.id } : { on: `${id}.${option.id}`, value: true },
        ),
      );
      let priced = 0;
      fc.assert(
        fc.property(
          tariffArb([...items], model.document.id),
          fc.uniqueArray(fc.constantFrom(...targets), { maxLength: 6, selector: ({ on }) => on }),
          (tariff, decisions: Decision[]) => {
            const few = tariffWithin(tariff, items);
            const { values } = engine.state({ decisions });
            const [whole, price] = [priceBuild(model, values, tariff), priceBuild(model, values, few)];
            expect(price).toEqual(whole);
            const made = making(model, values);
            expect(costOf(made, price.parts, few)).toEqual(costOf(made, whole.parts, tariff));
            priced += price.parts.length;
            expect(JSON.stringify(few)).not.toContain('OTHER-');
          },
        ),
        { numRuns: 40 },
      );
      expect(priced).toBeGreaterThan(40);
    },
  );

  it('names what is inside a bundle too, and facts are narrowed alike', () => {
    const [ridgeback] = models as [CompiledModel];
    const inside = itemsNeeded(demoModel('beacon'));
    const items = itemsNeeded(ridgeback);
    expect([...inside].filter((item) => !items.has(item))).toEqual([]);
    const facts = Object.fromEntries([...items, ...others].map((item) => [item, { leadDays: 3 }]));
    expect(Object.keys(factsWithin(facts, items)).sort()).toEqual([...items].sort());
    // A name that every object has is no item.
    expect(
      tariffWithin({ list: '', currency: 'EUR', decimals: 2, prices: {} }, new Set(['constructor'])),
    ).toEqual({
      list: '',
      currency: 'EUR',
      decimals: 2,
      prices: {},
    });
  });
});

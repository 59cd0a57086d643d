/** Ways out move what is given by the site or the customer last, and say so. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoModel } from '../../../../scripts/demo-documents';
import { compileModel } from '../../model';
import { createEngine, type Decision } from '..';
import { modelArb } from '../testing/random-models';
import { targetsOf } from '../testing/brute-force';

fc.configureGlobal({ seed: Number(process.env.SEED ?? 20261124) });
const context = { date: '2026-06-01', values: {} };

describe('what is given', () => {
  it('is changed last, and only where too little else can be', () => {
    let told = 0;
    const cases = modelArb.chain((model) =>
      fc.record({
        model: fc.constant(model),
        marked: fc.subarray(model.document.features.map(({ id }) => id)),
        decisions: fc.uniqueArray(fc.constantFrom(...targetsOf(model)), {
          minLength: 2,
          maxLength: 4,
          selector: ({ on }) => on,
        }),
        target: fc.constantFrom(...targetsOf(model)),
      }),
    );
    fc.assert(
      fc.property(cases, ({ model: random, marked, decisions, target }) => {
        const { document } = random;
        const compiled = compileModel({
          ...document,
          features: document.features.map((feature) =>
            marked.includes(feature.id) ? { ...feature, given: true } : feature,
          ),
        });
        if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
        const rows = new Set(marked);
        const isGiven = ({ on }: Pick<Decision, 'on'>) => rows.has(on.split('.')[0] as string);
        const engine = createEngine(compiled.model, context);
        const ways = engine.waysOut({ decisions }, target);
        for (const way of ways) {
          const moved = way.changes.filter(isGiven);
          expect([...(way.given ?? [])].sort()).toEqual(
            [...new Set(moved.map(({ on }) => on.split('.')[0]))].sort(),
          );
          if (way.given) told += 1;
          expect(way.state.clashes).toEqual([]);
        }
        // None that moves something given stands before one that does not.
        const first = ways.findIndex((way) => way.given !== undefined);
        expect(ways.slice(Math.max(0, first)).every((way) => first < 0 || way.given !== undefined)).toBe(
          true,
        );
        // The same can be had as without marks: marks only say in which order.
        const plain = createEngine(random, context);
        expect([engine.changesNeeded({ decisions }, target) === null, ways.length === 0]).toEqual([
          plain.changesNeeded({ decisions }, target) === null,
          plain.waysOut({ decisions }, target).length === 0,
        ]);
      }),
      { numRuns: 150 },
    );
    expect(told).toBeGreaterThan(10);
  });

  it('of a vessel is left alone while its mounts can change, and else named', () => {
    const engine = createEngine(demoModel('plumb'), context);
    const vessel: Decision[] = [
      { on: 'emptyMass', value: '2000' },
      { on: 'contentsMass', value: '10000' },
      { on: 'height', value: '4' },
      { on: 'diameter', value: '2' },
      { on: 'supports', value: 's4' },
    ];
    const ways = (mount: string, cell: string) =>
      engine
        .waysOut({ decisions: [...vessel, { on: 'mount', value: mount }] }, { on: 'cell', value: cell })
        .map(({ changes, given }) => [changes.map(({ on }) => on).join(), given?.join()]);
    expect(ways('medium', 'c10000')).toEqual([['mount', undefined]]);
    expect(ways('large', 'c2000')).toEqual([
      ['mount,supports', 'supports'],
      ['mount,contentsMass', 'contentsMass'],
    ]);
  });
});

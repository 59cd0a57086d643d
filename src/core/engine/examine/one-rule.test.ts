/** One rule while it is written, against brute force over random models. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoDocument } from '../../../../scripts/demo-documents';
import { compileModel, type CompiledModel } from '../../model';
import { lookAtRule, lookAtTable } from '..';
import { allBuilds, type Enforced } from '../testing/brute-force';
import { modelArb } from '../testing/random-models';

const context = { date: '2026-06-01', values: {} };
const never = () => false;
fc.configureGlobal({ seed: Number(process.env.SEED ?? 20261129) });

const forbidding = (model: CompiledModel): string[] =>
  model.rules
    .filter(({ rule, severity }) => severity === 'error' && rule.kind !== 'say')
    .map(({ rule }) => rule.id);
const without = (...ids: string[]): Enforced => {
  const left = new Set(ids.map((id) => `rule:${id}`));
  return (part) => !left.has(part);
};
/** The shapes, what shows rows, and only these of the rules that forbid. */
const only = (model: CompiledModel, ids: readonly string[]): Enforced => {
  const kept = new Set(ids);
  return without(...forbidding(model).filter((id) => !kept.has(id)));
};
const sizeOf = (model: CompiledModel, enforced?: Enforced): number => allBuilds(model, enforced).length;

describe('a rule looked at by itself', () => {
  it('takes away as many builds as brute force says, repeats and leaves nothing where it does', () => {
    let [repeated, emptied] = [0, 0];
    fc.assert(
      fc.property(modelArb, (model) => {
        for (const id of forbidding(model)) {
          const look = lookAtRule(model, context, id, never);
          const [all, bare] = [sizeOf(model), sizeOf(model, without(id))];
          expect(look?.nothing !== null, id).toBe(all === 0);
          if (!look) return;
          if (look.nothing) {
            emptied++;
            // The rules that are named leave nothing, and each of them is needed for that.
            expect(sizeOf(model, only(model, look.nothing))).toBe(0);
            for (const one of look.nothing)
              expect(
                sizeOf(
                  model,
                  only(
                    model,
                    look.nothing.filter((each) => each !== one),
                  ),
                ),
              ).toBeGreaterThan(0);
          } else if (look.repeats) {
            repeated++;
            expect(bare).toBe(all);
            const others = sizeOf(model, only(model, look.repeats));
            expect(sizeOf(model, only(model, [...look.repeats, id]))).toBe(others);
          } else if (look.builds) expect(look.builds).toEqual({ without: BigInt(bare), with: BigInt(all) });
          if (look.neverFires) expect(bare).toBe(all);
        }
      }),
      { numRuns: 120 },
    );
    expect(repeated).toBeGreaterThan(3);
    expect(emptied).toBeGreaterThan(0);
  });

  it('says nothing of what forbids nothing, and names what it contradicts', () => {
    const document = demoDocument('tarn');
    const [feature] = document.features;
    const [first, second] = feature?.options ?? [];
    if (!feature || !first || !second) throw new Error('the demo changed');
    const is = (id: string): string => `${feature.id} = "${id}"`;
    const reason = { en: 'x', de: 'x' };
    const result = compileModel({
      ...document,
      rules: [
        ...document.rules,
        { id: 'one', kind: 'require', when: is(first.id), must: 'wireless', reason },
        { id: 'other', kind: 'require', when: is(first.id), must: 'not(wireless)', reason },
        { id: 'told', kind: 'say', when: is(first.id), severity: 'note', reason },
      ],
    });
    if (!result.ok) throw new Error(JSON.stringify(result.problems));
    const values = { [document.context[0]?.id ?? '']: document.context[0]?.values[0]?.id ?? '' };
    const look = lookAtRule(result.model, { date: context.date, values }, 'one', never);
    expect(look?.contradicts).toEqual(['other']);
    expect(lookAtRule(result.model, context, 'told', never)).toBeNull();
    expect(lookAtRule(result.model, context, 'one', () => true)?.builds).toBeNull();
  });
});

describe('a table looked at by itself', () => {
  it('names rows that overlap, values that none lets pass, and the combinations that no row has', () => {
    const document = { ...demoDocument('ridgeback'), rules: [], tests: [] };
    const [one, other] = document.features.filter(({ most, options }) => most === 1 && options.length > 1);
    if (!one || !other) throw new Error('the demo changed');
    const [first, ...rest] = one.options.map(({ id }) => JSON.stringify(id));
    const [begin] = other.options.map(({ id }) => JSON.stringify(id));
    const result = compileModel({
      ...document,
      rules: [
        {
          id: 'table',
          kind: 'table',
          of: [one.id, other.id],
          rows: [
            [first ?? '', '-'],
            [first ?? '', begin ?? ''],
          ],
          listed: 'allowed',
          reason: { en: 'x', de: 'x' },
        },
      ],
    });
    if (!result.ok) throw new Error(JSON.stringify(result.problems));
    const look = lookAtTable(result.model, context.date, 'table');
    expect(look?.overlaps).toEqual([[0, 1]]);
    expect(look?.holes.map(({ column, value }) => [column, JSON.stringify(value)])).toEqual(
      rest.map((value) => [0, value]),
    );
    expect(look?.missing).toEqual(
      rest.flatMap((value) => other.options.map(({ id }) => [value, JSON.stringify(id)])),
    );
    expect(lookAtTable(result.model, context.date, 'nobody')).toBeNull();
  });
});

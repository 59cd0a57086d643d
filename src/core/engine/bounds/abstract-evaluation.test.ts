/**
 * What a formula can still come to: whatever it comes to exactly was foretold, for every choice of what was
 * left.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Exact } from '../../exact';
import { compileFormula, type FeelType, type Scope, type Value } from '../../formula';
import { evaluateAbstract } from './abstract-evaluation';
import { abstractOf, abstractOfAll, type AbstractValue } from './abstract-values';

fc.configureGlobal({ seed: Number(process.env.SEED ?? 20261124) });
const number: FeelType = { is: 'number', unit: 'any' };
const types: Record<string, FeelType> = {
  length: number,
  width: number,
  kind: { is: 'text' },
  guards: { is: 'yesno' },
  parts: { is: 'list', item: { is: 'text' } },
};
const names = Object.keys(types);
const scope: Scope = new Map(names.map((name, slot) => [name, { slot, type: types[name] as FeelType }]));

/** Numbers, conditions and texts over the names, nested a few levels deep. */
const { num, cond } = fc.letrec<{ num: string; cond: string; txt: string }>((tie) => ({
  num: fc.oneof(
    { maxDepth: 3 },
    fc.constantFrom('length', 'width', '0', '1.5', '-2', '7'),
    fc
      .tuple(tie('num'), fc.constantFrom('+', '-', '*', '/'), tie('num'))
      .map(([a, op, b]) => `(${a} ${op} ${b})`),
    fc
      .tuple(fc.constantFrom('ceiling', 'floor', 'abs', 'sqrt', 'odd'), tie('num'))
      .filter(([name]) => name !== 'odd')
      .map(([name, a]) => `${name}(${a})`),
    fc
      .tuple(fc.constantFrom('decimal', 'round up', 'round half up', 'floor'), tie('num'), fc.nat(2))
      .map(([name, a, places]) => `${name}(${a}, ${String(places)})`),
    fc
      .tuple(fc.constantFrom('min', 'max', 'sum'), tie('num'), tie('num'))
      .map(([name, a, b]) => `${name}(${a}, ${b})`),
    fc.tuple(tie('cond'), tie('num'), tie('num')).map(([test, a, b]) => `(if ${test} then ${a} else ${b})`),
    fc.constantFrom(
      'count(parts)',
      'modulo(length, 3)',
      '-width',
      'sum(for x in [length, width] return x * 2)',
    ),
  ),
  cond: fc.oneof(
    { maxDepth: 3 },
    fc
      .tuple(tie('num'), fc.constantFrom('<', '<=', '>', '>=', '=', '!='), tie('num'))
      .map(([a, op, b]) => `${a} ${op} ${b}`),
    fc.constantFrom(
      'guards',
      'kind = "a"',
      'kind != "b"',
      '(kind in ["a", "c"])',
      'list contains(parts, "p")',
      '("q" in parts)',
      'guards = false',
      'kind = null',
      'length = null',
      '(length in [2..5])',
      '(width in (> 3, < 1))',
      'length between 1 and width',
      'some x in [length, 3] satisfies x > width',
      'kind < "b"',
    ),
    fc.tuple(tie('cond'), fc.constantFrom('and', 'or'), tie('cond')).map(([a, op, b]) => `(${a} ${op} ${b})`),
    tie('cond').map((a) => `not(${a})`),
  ),
  txt: fc.constant('kind'),
}));

/** For each name some values that it may still have; null is "not shown". */
const some = <T>(all: readonly T[]) => fc.subarray([...all], { minLength: 1 });
const leftArb = fc.record({
  length: some<number | null>([null, 0, 0.5, 2, 3.25, 18]),
  width: some<number | null>([null, -1, 1, 2.5, 4]),
  kind: some<string | null>([null, 'a', 'b', 'c']),
  guards: some<boolean | null>([null, true, false]),
  parts: some<string[]>([[], ['p'], ['p', 'q']]),
});

const exactly = (value: number | string | boolean | null | string[]): Value =>
  typeof value === 'number' ? new Exact(value) : value;

function foretold(value: Value, { none, yes, no, low, high, texts, list }: AbstractValue): boolean {
  if (value === null) return none;
  if (typeof value === 'boolean') return value ? yes : no;
  if (typeof value === 'string') return texts === 'any' || texts.includes(value);
  if (value instanceof Exact) return low <= value.toNumber() && value.toNumber() <= high;
  return list !== null;
}

describe('an abstract value', () => {
  it('holds every exact result', () => {
    let compared = 0;
    fc.assert(
      fc.property(fc.oneof(num, cond), leftArb, (source, left) => {
        const compiled = compileFormula(source, scope);
        if (!compiled.ok) return;
        const { formula } = compiled;
        const partials: AbstractValue[] = names.map((name) => {
          const values = left[name as keyof typeof left];
          if (name !== 'parts') return abstractOfAll(values.map((value) => exactly(value)));
          const lists = values as string[][];
          return {
            ...abstractOfAll([]),
            list: {
              must: new Set(['p', 'q'].filter((part) => lists.every((each) => each.includes(part)))),
              may: new Set(lists.flat()),
            },
          };
        });
        const seen = evaluateAbstract(formula.expr)((slot) => partials[slot] as AbstractValue);
        for (const length of left.length)
          for (const width of left.width)
            for (const kind of left.kind)
              for (const guards of left.guards)
                for (const parts of left.parts) {
                  const given: Value[] = [length, width, kind, guards, parts].map(exactly);
                  const value = formula.run((slot) => given[slot] as Value);
                  compared++;
                  if (!foretold(value, seen))
                    throw new Error(
                      `${source} came to ${String(value)} for ${JSON.stringify([length, width, kind, guards, parts])}`,
                    );
                }
      }),
      { numRuns: 3_000 },
    );
    expect(compared).toBeGreaterThan(50_000);
  });

  it('is certain of what is certain', () => {
    const seen = (source: string) => {
      const compiled = compileFormula(source, scope);
      if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
      const [low, high] = [abstractOf(new Exact(2)), abstractOf(new Exact(5))];
      const between = { ...low, high: high.high };
      return evaluateAbstract(compiled.formula.expr)((slot) =>
        slot === 0 ? between : slot === 2 ? abstractOfAll(['a', 'b']) : abstractOfAll([true, false]),
      );
    };
    expect(seen('length > 1')).toMatchObject({ yes: true, no: false, none: false });
    expect(seen('length * length > 25')).toMatchObject({ yes: false, no: true, none: false });
    expect(seen('kind = "c"')).toMatchObject({ yes: false, no: true });
    expect(seen('ceiling(length / 6) = 1')).toMatchObject({ yes: true, no: false });
    expect(seen('guards or not(guards)')).toMatchObject({ yes: true });
  });
});

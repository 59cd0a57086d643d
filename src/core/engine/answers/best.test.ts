/** The best build against every build of small random models, and how it behaves when told to stop. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Exact } from '../../exact';
import { compileFormula } from '../../formula';
import { compileModel, Reading, type CompiledModel, type PlainValue } from '../../model';
import { generatedModel } from '../testing/generated-models';
import { createEngine, type BestQuestion, type Decision, type Term } from '..';
import { modelArb, plainModelArb } from '../testing/random-models';
import { allBuilds, valuesOf as valuesSeen, type Build } from '../testing/brute-force';

const context = { date: '2026-06-01', values: {} };
fc.configureGlobal({ seed: Number(process.env.SEED ?? 20261124) });

function termsArb({ document }: CompiledModel): fc.Arbitrary<Term[]> {
  const conditions = document.features.flatMap((feature) =>
    feature.options.map((option) =>
      feature.most > 1 ? `list contains(${feature.id}, "${option.id}")` : `${feature.id} = "${option.id}"`,
    ),
  );
  const formula = fc.oneof(
    fc.constantFrom(...conditions).map((condition) => `if ${condition} then 1 else 0`),
    fc
      .tuple(fc.constantFrom(...conditions), fc.constantFrom('n', 'double', 'n * n - 2 * n'))
      .map(([condition, value]) => `if ${condition} then ${value} else 0`),
    fc.constantFrom('n', 'n * double', 'if y then 2 else 1'),
    // What is counted, filtered and gathered, which is seen only roughly until all of it is settled.
    fc.constantFrom(
      'sum(for i in 1..3 return i * n)',
      'sum(for i in 1..3 return if y then i else 0)',
      'mean([n, double, 1])',
      'count([n, double, 3][item > 2])',
      'n / (double - 3)',
      'max(n, if y then 3 else null)',
      'string length(if y then "yes" else "no")',
      'floor(n ** 2)',
      'sum(for i in 1..2, j in 1..2 return i * j * n)',
    ),
    ...document.features
      .filter((feature) => feature.most > 1)
      .flatMap(({ id, options: [first] }) => [
        fc.constantFrom(
          `count(${id}[item = "${first?.id ?? ''}"])`,
          `sum(for z in ${id} return n)`,
          `sum(for z in ${id} return string length(z))`,
          `count(${id}) * n`,
          `if some z in ${id} satisfies z = "${first?.id ?? ''}" then 2 else double`,
          `count(for z in ${id}[item != "${first?.id ?? ''}"] return z)`,
        ),
      ]),
  );
  return fc.array(
    fc.record({ formula, weight: fc.integer({ min: -30, max: 30 }).map((tenths) => String(tenths / 10)) }),
    { minLength: 1, maxLength: 5 },
  );
}

const valuesOf = (model: CompiledModel, build: Build): Record<string, PlainValue> =>
  Object.fromEntries(
    Object.entries(build).map(([id, value]) => [
      id,
      value === 'hidden'
        ? (model.document.features.find((each) => each.id === id)?.most ?? 1) > 1
          ? []
          : null
        : value,
    ]),
  );

/** A sum's exact value over a build, its formulas compiled once. */
function summer(model: CompiledModel, terms: readonly Term[]): (values: Record<string, PlainValue>) => Exact {
  const formulas = terms.map(({ formula, weight }) => {
    if (typeof formula !== 'string') return { formula, weight };
    const compiled = compileFormula(formula, model.scope);
    if (!compiled.ok) throw new Error(formula);
    return { formula: compiled.formula, weight };
  });
  return (values) => {
    const reading = new Reading(model, values);
    return formulas.reduce((sum, { formula, weight }) => {
      const value = reading.run(formula);
      return value instanceof Exact ? sum.plus(value.times(weight)) : sum;
    }, new Exact(0));
  };
}

const questionArb = plainModelArb.chain((model) =>
  fc.record({
    model: fc.constant(model),
    minimize: termsArb(model),
    bound: fc.option(fc.record({ of: termsArb(model), most: fc.integer({ min: -3, max: 6 }).map(String) })),
    keep: fc.option(
      fc.constantFrom(
        ...model.document.features
          .filter((feature) => feature.most === 1)
          .map((feature): Decision => ({ on: feature.id, value: feature.options[0]?.id as string })),
        { on: 'y', value: true },
      ),
    ),
  }),
);

/** Formulas over what is picked, its numbers, and builds inside: objectives of the other kinds of models. */
const picked = [
  'sum(for p in picked return p.mass * p.quantity)',
  'count(picked)',
  'mean(picked.mass)',
  'count(picked[mass > 2])',
  'sum(picked[quantity = 1].mass)',
  'max(picked.mass)',
];
const inside = [
  'count(k.box)',
  'sum(k.box.weight)',
  'count(k.box[q])',
  'mean(k.box.weight)',
  'sum(for x in k.box return if x.p = "p1" then n else 1)',
  'k.quantity',
  'min(k.box.weight)',
];
const typed = [
  'if s = null then 2 else string length(s)',
  'd.day',
  'o * n',
  'if e = "e1" then double else 1',
  'count([o, n][item > 1])',
];

describe('any formula is an objective and a bound', () => {
  it('on models with quantities, builds inside, dates, texts and numbers that may be absent', () => {
    const readable = (model: CompiledModel) =>
      [...picked, ...inside, ...typed, 'n', 'if y then double else 0'].filter(
        (formula) => compileFormula(formula, model.scope, { is: 'number', unit: 'any' }).ok,
      );
    const questions = modelArb
      .filter((model) => readable(model).length > 2)
      .chain((model) => {
        const formulas = fc.array(
          fc.record({
            formula: fc.constantFrom(...readable(model)),
            weight: fc.integer({ min: -20, max: 20 }).map((tenths) => String(tenths / 10)),
          }),
          { minLength: 1, maxLength: 3 },
        );
        return fc.tuple(
          fc.constant(model),
          formulas,
          fc.option(fc.tuple(formulas, fc.integer({ min: -4, max: 9 }).map(String))),
        );
      });
    fc.assert(
      fc.property(questions, ([model, minimize, bound]) => {
        const [goal, limit] = [summer(model, minimize), summer(model, bound?.[0] ?? [])];
        const kept = allBuilds(model)
          .map((build) => valuesSeen(model, build))
          .filter((values) => !bound || limit(values).lte(bound[1]));
        const engine = createEngine(model, context);
        const answer = engine.best(
          { decisions: [] },
          { minimize, ...(bound ? { bounds: [{ of: bound[0], most: bound[1] }] } : {}) },
        );
        if (kept.length === 0) expect(answer.is).toBe('none');
        else
          expect(answer).toMatchObject({
            is: 'found',
            proven: true,
            value: Exact.min(...kept.map(goal)).toString(),
          });
      }),
      { numRuns: 200 },
    );
  });
});

describe('best build', () => {
  it('is the best of all, keeps decisions and bounds, and is proven', () => {
    fc.assert(
      fc.property(questionArb, ({ model, minimize, bound, keep }) => {
        const decisions = keep ? [keep] : [];
        const question: BestQuestion = { minimize, ...(bound ? { bounds: [bound] } : {}) };
        const [goal, limit] = [summer(model, minimize), summer(model, bound?.of ?? [])];
        const kept = allBuilds(model)
          .filter((build) => !keep || build[keep.on] === 'hidden' || build[keep.on] === keep.value)
          .map((build) => valuesOf(model, build))
          .filter((values) => !bound || limit(values).lte(bound.most));
        const engine = createEngine(model, context);
        const answer = engine.best({ decisions }, question);
        if (kept.length === 0) {
          expect(answer.is).toBe('none');
          return;
        }
        const best = Exact.min(...kept.map(goal));
        if (answer.is !== 'found') throw new Error(answer.is);
        expect([answer.value, answer.proven]).toEqual([best.toString(), true]);
        // Taking it leads to a complete build of just that value.
        const state = engine.state({ decisions: answer.decisions });
        expect([state.complete, answer.decisions.slice(0, decisions.length)]).toEqual([true, decisions]);
        expect(goal(state.values).toString()).toBe(best.toString());
      }),
      { numRuns: 300 },
    );
  });

  const compiled = compileModel(generatedModel({ features: 40, options: 260, rules: 200, seed: 5 }));
  if (!compiled.ok) throw new Error('the generated model does not compile');
  const { model } = compiled;
  const minimize = model.document.features
    .filter((feature) => feature.most === 1)
    .flatMap((feature, at) =>
      feature.options.map((option, index): Term => ({
        formula: `if ${feature.id} = "${option.id}" then 1 else 0`,
        weight: String(((at * 7 + index * 13) % 17) + 1),
      })),
    );

  it('reports ever better builds with a shrinking gap', () => {
    const seen: { value: number; gap: number }[] = [];
    const answer = createEngine(model, context).best(
      { decisions: [] },
      { minimize },
      { progress: ({ value, gap }) => seen.push({ value: Number(value), gap: Number(gap) }) },
    );
    expect(answer.is).toBe('found');
    expect(seen.length).toBeGreaterThan(0);
    for (let index = 1; index < seen.length; index++) {
      expect(seen[index]?.value).toBeLessThan(seen[index - 1]?.value as number);
      expect(seen[index]?.gap).toBeLessThan(seen[index - 1]?.gap as number);
    }
    expect(answer).toMatchObject({ proven: true, gap: '0', value: String(seen[seen.length - 1]?.value) });
  });

  it('stops at once when told, with the best so far and its gap', () => {
    let found = false;
    const answer = createEngine(model, context).best(
      { decisions: [] },
      { minimize },
      {
        progress: () => {
          found = true;
        },
        stop: () => found,
      },
    );
    if (answer.is !== 'found') throw new Error(answer.is);
    expect(answer.proven).toBe(false);
    expect(Number(answer.gap)).toBeGreaterThan(0);
    expect(createEngine(model, context).best({ decisions: [] }, { minimize }, { stop: () => true })).toEqual({
      is: 'stopped',
    });
  });

  it('names a term that it cannot read', () => {
    expect(
      createEngine(model, context).best(
        { decisions: [] },
        { minimize: [{ formula: 'colour + 1', weight: '1' }] },
      ),
    ).toEqual({ is: 'unreadable', formula: 'colour + 1' });
  });
});

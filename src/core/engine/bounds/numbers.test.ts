/**
 * Numbers of many values under formulas over several of them, and engines asked many times: answers are exact
 * and never stale.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compileModel, type CompiledModel, type ModelDocument, type Rule } from '../../model';
import { Encoding } from '../encoding/encoding';
import { generatedModel } from '../testing/generated-models';
import { createEngine, type Decision } from '..';
import { plainModelArb } from '../testing/random-models';

const context = { date: '2026-06-01', values: {} };
fc.configureGlobal({ seed: Number(process.env.SEED ?? 20261124) });
const t = (text: string) => ({ en: text });

interface Tank {
  length: number;
  width: number;
  kind: 'steel' | 'glass' | 'clay';
}

/** Conditions over two numbers and a choice, as FEEL and as what they mean. */
const conditions: [string, (tank: Tank) => boolean][] = [
  ['length * width <= 900', ({ length, width }) => length * width <= 900],
  ['area > 20 * length - 40', ({ length, width }) => length * width > 20 * length - 40],
  [
    'kind = "glass" and length + 2 * width > 95',
    ({ kind, length, width }) => kind === 'glass' && length + 2 * width > 95,
  ],
  [
    '(length - 30) * (length - 30) + (width - 20) * (width - 20) <= 500',
    ({ length, width }) => (length - 30) ** 2 + (width - 20) ** 2 <= 500,
  ],
  [
    '(kind in ["steel", "clay"]) or width / length < 0.75',
    ({ kind, width, length }) => kind !== 'glass' || width / length < 0.75,
  ],
  [
    'floor(length / 7) = floor(width / 5)',
    ({ length, width }) => Math.floor(length / 7) === Math.floor(width / 5),
  ],
  [
    '(if kind = "clay" then 3 * length else width) >= 35',
    ({ kind, length, width }) => (kind === 'clay' ? 3 * length : width) >= 35,
  ],
];

const tanks: Tank[] = [];
for (let length = 1; length <= 60; length++)
  for (let width = 1; width <= 45; width++)
    for (const kind of ['steel', 'glass', 'clay'] as const) tanks.push({ length, width, kind });

function modelOf(rules: Rule[]): CompiledModel {
  const document: ModelDocument = {
    format: 2,
    id: 'tank',
    name: t('tank'),
    languages: ['en'],
    context: [],
    sections: [{ id: 's', name: t('s'), rows: ['kind', 'length', 'width'] }],
    features: [
      {
        id: 'kind',
        name: t('kind'),
        least: 1,
        most: 1,
        options: ['steel', 'glass', 'clay'].map((id) => ({ id, name: t(id) })),
      },
    ],
    parameters: [
      { id: 'length', type: 'number', name: t('length'), unit: '', least: '1', most: '60', step: '1' },
      { id: 'width', type: 'number', name: t('width'), unit: '', least: '1', most: '45', step: '1' },
    ],
    calculations: [{ id: 'area', name: t('area'), type: 'number', unit: '', formula: 'length * width' }],
    rules,
    numbering: [],
    prices: [],
    surcharges: [],
    materials: [],
    operations: [],
    figures: { more: [] },
  };
  const compiled = compileModel(document);
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
  return compiled.model;
}

const decisionArb = fc.oneof(
  fc.integer({ min: 1, max: 60 }).map((value): Decision => ({ on: 'length', value: String(value) })),
  fc.integer({ min: 1, max: 45 }).map((value): Decision => ({ on: 'width', value: String(value) })),
  fc.constantFrom('steel', 'glass', 'clay').map((value): Decision => ({ on: 'kind', value })),
);
const has = (tank: Tank, { on, value }: Decision): boolean => String(tank[on as keyof Tank]) === value;

describe('numbers under formulas', () => {
  it('have exactly the values that extend to a build, question after question of one engine', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ which: fc.nat(conditions.length - 1), must: fc.boolean() }), {
          minLength: 1,
          maxLength: 3,
        }),
        fc.array(fc.uniqueArray(decisionArb, { maxLength: 2, selector: (decision) => decision.on }), {
          minLength: 2,
          maxLength: 5,
        }),
        (chosen, questions) => {
          const rules = chosen.map(({ which, must }, index): Rule => {
            const [source] = conditions[which] as (typeof conditions)[number];
            return {
              id: `r${String(index)}`,
              reason: t('rule'),
              kind: 'require',
              must: must ? source : `not(${source})`,
            };
          });
          const valid = tanks.filter((tank) =>
            chosen.every(
              ({ which, must }) => (conditions[which] as (typeof conditions)[number])[1](tank) === must,
            ),
          );
          const engine = createEngine(modelOf(rules), context);
          for (const decisions of questions) {
            const { rows, clashes } = engine.state({ decisions });
            expect(clashes.length === 0).toBe(
              valid.some((tank) => decisions.every((decision) => has(tank, decision))),
            );
            if (clashes.length > 0) continue;
            for (const row of ['length', 'width'] as const) {
              const others = decisions.filter((decision) => decision.on !== row);
              const expected = [
                ...new Set(
                  valid
                    .filter((tank) => others.every((decision) => has(tank, decision)))
                    .map((tank) => tank[row]),
                ),
              ].sort((a, b) => a - b);
              const found = (rows[row]?.allowed ?? []).flatMap(({ least, most }) =>
                Array.from({ length: Number(most) - Number(least) + 1 }, (_, index) => Number(least) + index),
              );
              expect([row, decisions, found]).toEqual([row, decisions, expected]);
            }
            for (const option of rows.kind?.options ?? []) {
              const others = decisions.filter((decision) => decision.on !== 'kind');
              expect(option.standing === 'free').toBe(
                valid.some(
                  (tank) => tank.kind === option.id && others.every((decision) => has(tank, decision)),
                ),
              );
            }
          }
        },
      ),
      { numRuns: 150 },
    );
  });

  it('stay exact where a condition is too wide to be written out as clauses', () => {
    const [long, broad] = [400, 300];
    const wide: [string, (length: number, width: number) => boolean][] = [
      [
        '(length - 200) * (length - 200) + (width - 150) * (width - 150) <= 14400',
        (length, width) => (length - 200) ** 2 + (width - 150) ** 2 <= 14_400,
      ],
      ['length * width <= 30000', (length, width) => length * width <= 30_000],
      ['length * length > 300 * width', (length, width) => length * length > 300 * width],
    ];
    const model = modelOf(
      wide.map(([must], index): Rule => ({
        id: `r${String(index)}`,
        reason: t('rule'),
        kind: 'require',
        must,
      })),
    );
    const document = {
      ...model.document,
      parameters: model.document.parameters.map((parameter) => ({
        ...parameter,
        most: String(parameter.id === 'length' ? long : broad),
      })),
    };
    const compiled = compileModel(document);
    if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
    expect(new Encoding(compiled.model, context).conditions.wide.length).toBeGreaterThan(0);
    const engine = createEngine(compiled.model, context);
    const holds = (length: number, width: number): boolean =>
      wide.every(([, meaning]) => meaning(length, width));
    const range = (most: number) => Array.from({ length: most }, (_, index) => index + 1);
    const asRanges = (values: number[]) =>
      values.reduce<[number, number][]>((found, value) => {
        const last = found[found.length - 1];
        if (last?.[1] === value - 1) last[1] = value;
        else found.push([value, value]);
        return found;
      }, []);
    const told = (decisions: Decision[], row: string) =>
      (engine.state({ decisions }).rows[row]?.allowed ?? []).map(({ least, most }) => [
        Number(least),
        Number(most),
      ]);
    expect(told([], 'length')).toEqual(
      asRanges(range(long).filter((length) => range(broad).some((width) => holds(length, width)))),
    );
    for (const width of [30, 31, 80, 150, 209, 270]) {
      const expected = asRanges(range(long).filter((length) => holds(length, width)));
      if (expected.length > 0)
        expect([width, told([{ on: 'width', value: String(width) }], 'length')]).toEqual([width, expected]);
      else
        expect(engine.state({ decisions: [{ on: 'width', value: String(width) }] }).clashes.length).toBe(1);
    }
    for (const length of [82, 111, 200, 317]) {
      const expected = asRanges(range(broad).filter((width) => holds(length, width)));
      if (expected.length > 0)
        expect([length, told([{ on: 'length', value: String(length) }], 'width')]).toEqual([
          length,
          expected,
        ]);
    }
  });

  it('stay exact where several numbers are open in several wide conditions, beside rules that cut them', () => {
    const [wide, deep, high] = [40, 50, 60];
    const numbers = (id: string, most: number) =>
      ({ id, type: 'number', name: t(id), unit: '', least: '1', most: String(most), step: '1' }) as const;
    const three = fc.record({
      sum: fc.integer({ min: 60, max: 2_000 }),
      square: fc.integer({ min: 2, max: 60 }),
      rest: fc.integer({ min: 20, max: 2_500 }),
      cut: fc.integer({ min: 2, max: 38 }),
      given: fc.option(fc.tuple(fc.constantFrom('a', 'b', 'c'), fc.integer({ min: 1, max: 40 }))),
    });
    let several = 0;
    fc.assert(
      fc.property(three, ({ sum, square, rest, cut, given }) => {
        const rules = [
          `a * b + c <= ${String(sum)}`,
          `a * a > ${String(square)} * c / b`,
          `b * c - a >= ${String(rest)}`,
          `a <= ${String(cut)} or c > 20`,
        ].map((must, index): Rule => ({ id: `r${String(index)}`, reason: t('rule'), kind: 'require', must }));
        const compiled = compileModel({
          ...modelOf([]).document,
          rules,
          sections: [],
          features: [],
          parameters: [numbers('a', wide), numbers('b', deep), numbers('c', high)],
          calculations: [],
          figures: { more: [] },
        });
        if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
        const found = { a: new Set<number>(), b: new Set<number>(), c: new Set<number>() };
        for (let a = 1; a <= wide; a++) {
          for (let b = 1; b <= deep; b++) {
            for (let c = 1; c <= high; c++) {
              if (a * b + c > sum || a * a * b <= square * c || b * c - a < rest || (a > cut && c <= 20))
                continue;
              const values = { a, b, c };
              // A row's own decision is what choosing there replaces.
              for (const row of ['a', 'b', 'c'] as const)
                if (!given || given[0] === row || values[given[0] as 'a'] === given[1])
                  found[row].add(values[row]);
            }
          }
        }
        const state = createEngine(compiled.model, context).state({
          decisions: given ? [{ on: given[0], value: String(given[1]) }] : [],
        });
        if (state.clashes.length > 0) return;
        for (const row of ['a', 'b', 'c'] as const) {
          const told = (state.rows[row]?.allowed ?? []).flatMap(({ least, most }) =>
            Array.from({ length: Number(most) - Number(least) + 1 }, (_, index) => Number(least) + index),
          );
          if (told.length > 1) several++;
          expect([row, told]).toEqual([row, [...found[row]].sort((one, other) => one - other)]);
        }
      }),
      { numRuns: 40 },
    );
    expect(several).toBeGreaterThan(20);
  });

  it('of a million steps cost no more than the cuts that rules make', () => {
    const document = modelOf([
      { id: 'r', reason: t('rule'), kind: 'require', when: 'kind = "clay"', must: 'length * 2 <= 777777.7' },
    ]).document;
    const [length, width] = document.parameters as [
      Extract<ModelDocument['parameters'][number], { type: 'number' }>,
      ModelDocument['parameters'][number],
    ];
    const compiled = compileModel({
      ...document,
      parameters: [{ ...length, least: '0', most: '500000', step: '0.5' }, width],
    });
    if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
    const engine = createEngine(compiled.model, context);
    expect(engine.state({ decisions: [{ on: 'kind', value: 'clay' }] }).rows.length?.allowed).toEqual([
      { least: '0', most: '388888.5' },
    ]);
    const ways = engine.waysOut(
      { decisions: [{ on: 'length', value: '400000' }] },
      { on: 'kind', value: 'clay' },
    );
    expect(ways.map((way) => way.changes)).toEqual([[{ on: 'length', from: '400000', to: '388888.5' }]]);
  });
});

describe('an engine asked many times', () => {
  const steps = (model: CompiledModel, draws: readonly number[]): Decision[][] => {
    const all = model.document.features.flatMap((feature) =>
      feature.options.map((option): Decision =>
        feature.most > 1
          ? { on: `${feature.id}.${option.id}`, value: true }
          : { on: feature.id, value: option.id },
      ),
    );
    const found: Decision[][] = [[]];
    for (const draw of draws) {
      const before = found[found.length - 1] as Decision[];
      const next = all[draw % all.length] as Decision;
      // Every third draw takes a decision back instead.
      found.push(
        draw % 3 === 0
          ? before.filter((_, index) => index !== draw % Math.max(1, before.length))
          : [...before.filter((each) => each.on !== next.on), next],
      );
    }
    return found;
  };

  it('answers as a new one would, whatever it was asked before', () => {
    fc.assert(
      fc.property(plainModelArb, fc.array(fc.nat(999), { minLength: 3, maxLength: 8 }), (model, draws) => {
        const engine = createEngine(model, context);
        for (const decisions of steps(model, draws))
          expect(engine.state({ decisions })).toEqual(createEngine(model, context).state({ decisions }));
      }),
      { numRuns: 120 },
    );
  });

  it('does so on larger models too', () => {
    for (const seed of [21, 22, 29]) {
      const compiled = compileModel(generatedModel({ features: 60, options: 420, rules: 300, seed }));
      if (!compiled.ok) throw new Error('the generated model does not compile');
      const { model } = compiled;
      const engine = createEngine(model, context);
      const draws = Array.from({ length: 25 }, (_, index) => (index * 7919 + seed * 104_729) % 9973);
      for (const [index, decisions] of steps(model, draws).entries()) {
        const state = engine.state({ decisions });
        if (index % 4 === 0) expect(state).toEqual(createEngine(model, context).state({ decisions }));
      }
    }
  });
});

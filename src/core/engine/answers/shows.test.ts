/**
 * Several rules that show one row: all in force must say so, in every answer of the engine and on every date
 * and place.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compileModel, type CompiledModel, type ModelDocument, type Rule } from '../../model';
import { Solver } from '../../solver';
import { cnfOf } from './dimacs';
import { checkUp, createEngine } from '..';
import { allBuilds, targetsOf } from '../testing/brute-force';

fc.configureGlobal({ seed: Number(process.env.SEED ?? 20261124) });
const t = (text: string) => ({ en: text });
const option = (id: string) => ({ id, name: t(id) });

const documentOf = (rules: readonly Rule[]): ModelDocument => ({
  format: 2,
  id: 'shown',
  name: t('shown'),
  languages: ['en'],
  context: [{ id: 'region', name: t('region'), values: [option('eu'), option('na')] }],
  sections: [{ id: 's', name: t('s'), rows: ['size', 'colour', 'extras', 'finish', 'lamp'] }],
  features: [
    { id: 'size', name: t('size'), least: 1, most: 1, options: [option('small'), option('large')] },
    { id: 'colour', name: t('colour'), least: 1, most: 1, options: [option('red'), option('green')] },
    { id: 'extras', name: t('extras'), least: 0, most: 2, options: [option('bell'), option('rack')] },
    { id: 'finish', name: t('finish'), least: 1, most: 1, options: [option('matt'), option('gloss')] },
  ],
  parameters: [{ id: 'lamp', type: 'yesno', name: t('lamp') }],
  calculations: [],
  rules: [...rules],
  numbering: [],
  prices: [],
  surcharges: [],
  materials: [],
  operations: [],
  figures: { more: [] },
});
function compiled(rules: readonly Rule[]): CompiledModel {
  const result = compileModel(documentOf(rules));
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.model;
}

const shows = fc
  .array(
    fc.record({
      of: fc.constantFrom('finish', 'lamp', 'extras'),
      when: fc.constantFrom(
        'size = "large"',
        'colour = "red"',
        'not(colour = "red")',
        'size = "small" or colour = "green"',
      ),
      from: fc.constantFrom(undefined, '2026-03-01', '2026-09-01'),
      until: fc.constantFrom(undefined, '2026-07-31'),
      where: fc.constantFrom(undefined, ['eu'], ['na']),
    }),
    { minLength: 2, maxLength: 6 },
  )
  .map((all) =>
    all.map(({ of, when, from, until, where }, at): Rule => ({
      id: `show${String(at)}`,
      kind: 'show',
      of,
      when,
      reason: t(`show ${String(at)}`),
      ...(from ? { from } : {}),
      ...(until ? { until } : {}),
      ...(where ? { where: { region: where } } : {}),
    })),
  );
const isInForce = ({ from, until, where }: Rule, date: string, region: string) =>
  (!from || from <= date) && (!until || date <= until) && (!where || (where.region ?? []).includes(region));

describe('several rules that show one row', () => {
  it('mean the same in standings, reasons, counts and clauses as all of them together', () => {
    let several = 0;
    fc.assert(
      fc.property(
        shows,
        fc.constantFrom('2026-01-15', '2026-06-01', '2026-10-01'),
        fc.constantFrom('eu', 'na'),
        (rules, date, region) => {
          const inForce = rules.filter((rule) => isInForce(rule, date, region));
          if (new Set(inForce.map((rule) => rule.kind === 'show' && rule.of)).size < inForce.length)
            several += 1;
          const model = compiled(rules);
          const context = { date, values: { region } };
          const plain = compiled(inForce);
          const builds = allBuilds(plain);
          const engine = createEngine(model, context);
          const possible = (on: string, value: unknown): boolean => {
            const [id = '', part] = on.split('.');
            return builds.some((build) =>
              part === undefined
                ? build[id] === value
                : build[id] !== 'hidden' && (build[id] as string[]).includes(part) === value,
            );
          };
          for (const { on, value } of targetsOf(plain)) {
            if (value !== true && typeof value !== 'string') continue;
            const [id = '', part] = on.split('.');
            // Asked with the row's own conditions open: what can be had at all.
            expect([on, value, engine.reason({ decisions: [] }, { on, value }).length === 0]).toEqual([
              on,
              value,
              possible(on, value),
            ]);
            const row = engine.state({
              decisions: [
                { on: 'size', value: 'large' },
                { on: 'colour', value: 'red' },
              ],
            }).rows[id];
            const there = builds.filter((build) => build.size === 'large' && build.colour === 'red');
            expect([id, part, row?.shown]).toEqual([id, part, there.some((build) => build[id] !== 'hidden')]);
          }
          expect(
            checkUp(model, date, () => false).builds.find((each) => each.context.region === region)?.count,
          ).toEqual({ exact: true, builds: BigInt(builds.length) });
          const cnf = cnfOf(model, context);
          const solver = new Solver();
          const lits = Array.from({ length: cnf?.variables ?? 0 }, () => solver.add());
          const lit = (signed: number) =>
            signed > 0 ? (lits[signed - 1] as number) : (lits[-signed - 1] as number) ^ 1;
          for (const clause of cnf?.clauses ?? []) solver.addClause(clause.map(lit));
          for (const { on, value, literal } of cnf?.values ?? []) {
            const wanted = value === 'true' ? true : value === 'false' ? false : value;
            if (wanted !== false)
              expect([on, value, solver.ask({ assume: [lit(literal)] }).is === 'yes']).toEqual([
                on,
                value,
                possible(on, wanted),
              ]);
          }
        },
      ),
      { numRuns: 120 },
    );
    expect(several).toBeGreaterThan(20);
  });

  it('are each a cause of what they keep away, and none of what they do not', () => {
    const rule = (id: string, when: string): Rule => ({ id, kind: 'show', of: 'lamp', when, reason: t(id) });
    const engine = createEngine(compiled([rule('large', 'size = "large"'), rule('red', 'colour = "red"')]), {
      date: '2026-06-01',
      values: { region: 'eu' },
    });
    const causes = engine.reason(
      {
        decisions: [
          { on: 'size', value: 'large' },
          { on: 'colour', value: 'green' },
        ],
      },
      { on: 'lamp', value: true },
    );
    expect(causes).toMatchObject([
      { kind: 'decision', decision: { on: 'colour' } },
      { kind: 'rule', rule: 'red' },
    ]);
  });
});

/**
 * The solver against every assignment of small random problems, asked many times so that what it learned on
 * the way counts.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { always, not, Solver, variableOf, type Lit, type Theory, type Witness } from './index';

interface Problem {
  variables: number;
  values: number;
  clauses: { lits: number[]; cut: number | null }[];
  cards: { lits: number[]; most: number; guard: number | null }[];
  /**
   * The weighted sum of the first variables and the number must not be this, modulo 5: a constraint that
   * clauses do not tell.
   */
  forbidden: number | null;
  questions: { assume: number[]; cut: number | null; wishes: number[] }[];
}

const problemArb: fc.Arbitrary<Problem> = fc.integer({ min: 3, max: 7 }).chain((variables) => {
  const lit = fc.nat(2 * variables - 1);
  const cut = fc.option(fc.integer({ min: -5, max: 5 }));
  return fc.record({
    variables: fc.constant(variables),
    values: fc.integer({ min: 1, max: 6 }),
    clauses: fc.array(fc.record({ lits: fc.array(lit, { minLength: 1, maxLength: 3 }), cut }), {
      maxLength: 14,
    }),
    cards: fc.array(
      fc.record({
        lits: fc.uniqueArray(lit, { minLength: 2, maxLength: 5, selector: (each) => each >> 1 }),
        most: fc.nat(3),
        guard: fc.option(lit),
      }),
      { maxLength: 3 },
    ),
    forbidden: fc.option(fc.nat(4)),
    questions: fc.array(
      fc.record({
        assume: fc.uniqueArray(lit, { maxLength: 4, selector: (each) => each >> 1 }),
        cut,
        wishes: fc.array(lit, { maxLength: 3 }),
      }),
      { minLength: 4, maxLength: 10 },
    ),
  });
});

/** A cut k stands for "at most k", a negative one for its opposite. */
type Meaning = { bits: boolean[]; code: number };
const lit0 = (lit: number): Lit => lit + 2;
const holds = (meaning: Meaning, lit: number): boolean => ((lit & 1) === 0) === meaning.bits[lit >> 1];
const cutHolds = ({ code }: Meaning, cut: number): boolean => (cut >= 0 ? code <= cut : code > -cut - 1);

const weighted = (bits: boolean[], code: number): number =>
  (bits.slice(0, 3).reduce((sum, bit, index) => sum + (bit ? index + 1 : 0), 0) + code) % 5;

function meanings(problem: Problem): Meaning[] {
  const found: Meaning[] = [];
  for (let mask = 0; mask < 1 << problem.variables; mask++) {
    const bits = Array.from({ length: problem.variables }, (_, index) => ((mask >> index) & 1) === 1);
    for (let code = 0; code < problem.values; code++) {
      const meaning = { bits, code };
      const clauses = problem.clauses.every(
        ({ lits, cut }) =>
          lits.some((lit) => holds(meaning, lit)) || (cut !== null && cutHolds(meaning, cut)),
      );
      const cards = problem.cards.every(
        ({ lits, most, guard }) =>
          (guard !== null && !holds(meaning, guard)) ||
          lits.filter((lit) => holds(meaning, lit)).length <= most,
      );
      if (clauses && cards && (problem.forbidden === null || weighted(bits, code) !== problem.forbidden))
        found.push(meaning);
    }
  }
  return found;
}

/** Speaks only when all it reads is settled. */
class Sum implements Theory {
  readonly lits: Lit[];
  readonly numbers = [0];
  constructor(private readonly forbidden: number) {
    this.lits = [2, 4, 6];
  }
  propagate(clauses: Parameters<Theory['propagate']>[0]): void {
    const { low, high, lowLit, highLit } = clauses.bounds(0);
    if (low !== high || this.lits.some((lit) => clauses.value(lit) === 0)) return;
    const bits = this.lits.map((lit) => clauses.value(lit) > 0);
    if (weighted(bits, low) !== this.forbidden) return;
    const settled = [
      ...this.lits.map((lit, index) => (bits[index] ? lit : not(lit))),
      lowLit,
      highLit,
    ].filter((lit) => lit !== always);
    clauses.imply(settled.map(not));
  }
  check(overlay: Parameters<Theory['check']>[0]): Lit {
    if (
      weighted(
        this.lits.map((lit) => overlay.holds(lit)),
        overlay.code(0),
      ) !== this.forbidden
    )
      return -1;
    const open = this.lits.find((lit) => overlay.value(lit) === 0);
    if (open !== undefined) return overlay.holds(open) ? open : not(open);
    const { low, high } = overlay.bounds(0);
    const middle = (low + high) >> 1;
    const cut = overlay.cut(0, middle);
    return overlay.code(0) <= middle ? cut : not(cut);
  }
}

function build(problem: Problem): { solver: Solver; cutLit: (cut: number) => Lit } {
  const solver = new Solver();
  for (let index = 0; index < problem.variables; index++) solver.add();
  const number = solver.addNumber(problem.values);
  const cutLit = (cut: number): Lit =>
    cut >= 0 ? solver.atMost(number, cut) : not(solver.atMost(number, -cut - 1));
  for (const { lits, cut } of problem.clauses)
    solver.addClause([...lits.map(lit0), ...(cut === null ? [] : [cutLit(cut)])]);
  for (const { lits, most, guard } of problem.cards)
    solver.addAtMost(lits.map(lit0), most, guard === null ? always : lit0(guard));
  if (problem.forbidden !== null) solver.addTheory(new Sum(problem.forbidden));
  return { solver, cutLit };
}

const read = (witness: Witness, problem: Problem): Meaning => ({
  bits: Array.from({ length: problem.variables }, (_, index) => witness.holds(2 * (index + 1))),
  code: witness.codes[0] as number,
});

describe('the solver', () => {
  it('answers exactly, from nothing and by repair, with a true witness or a true core', () => {
    fc.assert(
      fc.property(problemArb, (problem) => {
        const all = meanings(problem);
        const { solver, cutLit } = build(problem);
        let base: Witness | null = null;
        for (const { assume, cut, wishes } of problem.questions) {
          const lits = [...assume.map(lit0), ...(cut === null ? [] : [cutLit(cut)])];
          const fits = (meaning: Meaning, some: readonly Lit[]) =>
            assume.every((lit) => !some.includes(lit0(lit)) || holds(meaning, lit)) &&
            (cut === null || !some.includes(lits[lits.length - 1] as Lit) || cutHolds(meaning, cut));
          const answer = solver.ask({ assume: lits, base, wishes: wishes.map(lit0) });
          expect(answer.is).toBe(all.some((meaning) => fits(meaning, lits)) ? 'yes' : 'no');
          if (answer.is === 'no') {
            for (const lit of answer.core) expect(lits).toContain(lit);
            expect(all.some((meaning) => fits(meaning, answer.core))).toBe(false);
          }
          if (answer.is !== 'yes') continue;
          const witness = answer.witness();
          const meaning = read(witness, problem);
          expect(all).toContainEqual(meaning);
          expect(fits(meaning, lits)).toBe(true);
          expect(witness.meets(lits)).toBe(true);
          if (base) {
            const before: Witness = base;
            const differing = Array.from(
              { length: problem.variables + 1 },
              (_, variable) => 2 * variable,
            ).filter((lit) => before.holds(lit) !== witness.holds(lit));
            for (const lit of differing) expect(answer.changed.map(variableOf)).toContain(variableOf(lit));
          }
          base = witness;
        }
      }),
      { numRuns: 2_000 },
    );
  });

  it('tells from what a change touches whether a witness still stands', () => {
    fc.assert(
      fc.property(
        problemArb,
        fc.uniqueArray(fc.nat(13), { minLength: 1, maxLength: 3, selector: (lit) => lit >> 1 }),
        (given, flips) => {
          const problem = { ...given, forbidden: null };
          const { solver } = build(problem);
          const answer = solver.ask({ assume: [] });
          if (answer.is !== 'yes') return;
          const all = meanings(problem);
          const witness = answer.witness();
          const changed = flips.filter((lit) => lit >> 1 < problem.variables && !witness.holds(lit0(lit)));
          const { bits, code } = read(witness, problem);
          const after = {
            bits: bits.map((bit, index) => (changed.some((lit) => lit >> 1 === index) ? !bit : bit)),
            code,
          };
          const expected = all.some((meaning) => JSON.stringify(meaning) === JSON.stringify(after));
          expect(solver.stands(witness, changed.map(lit0))).toBe(expected);
        },
      ),
      { numRuns: 1_000 },
    );
  });

  it('gives a question up when it may not go on, and answers it later', () => {
    const solver = new Solver();
    const [pigeons, holes] = [8, 7];
    const at = Array.from({ length: pigeons }, () => Array.from({ length: holes }, () => solver.add()));
    for (const pigeon of at) solver.addClause(pigeon);
    for (let hole = 0; hole < holes; hole++) {
      for (let one = 0; one < pigeons; one++)
        for (let other = 0; other < one; other++)
          solver.addClause([not(at[one]?.[hole] as Lit), not(at[other]?.[hole] as Lit)]);
    }
    expect(solver.ask({ assume: [], budget: 20 }).is).toBe('stopped');
    expect(solver.ask({ assume: [] })).toEqual({ is: 'no', core: [] });
  });

  it('keeps a number of a million values in a handful of literals', () => {
    const solver = new Solver();
    const number = solver.addNumber(1_000_000);
    const before = solver.variables;
    solver.addClause([not(solver.atMost(number, 499_999)), solver.atMost(number, 10)]);
    const answer = solver.ask({ assume: [solver.atMost(number, 400_000), not(solver.atMost(number, 5))] });
    expect(answer.is === 'yes' && answer.witness().codes[number]).toBeLessThanOrEqual(10);
    expect(solver.ask({ assume: [solver.atMost(number, 400_000), not(solver.atMost(number, 10))] }).is).toBe(
      'no',
    );
    expect(solver.variables - before).toBe(4);
  });
});

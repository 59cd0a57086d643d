/**
 * Two other solvers that work out the same standings: Debian's native MiniSat, and MiniSat compiled to
 * JavaScript.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Cnf } from '../src/core/engine';

export interface PeerAnswer {
  /** Literals of values that some build beside the assumptions has. */
  free: Set<number>;
  /** Time spent solving, without reading files or building clauses. */
  milliseconds: number;
  runs: number;
}

/**
 * Native MiniSat has no questions in sequence: it is run until no uncovered value is left, each time asked
 * for at least one, with uncovered values written negated, since it tries "false" first; so each run covers
 * as many as it can.
 */
export function askMinisat({ variables, clauses, values }: Cnf, assume: readonly number[]): PeerAnswer {
  const folder = mkdtempSync(join(tmpdir(), 'peers-'));
  const wanted = new Set(values.map((value) => value.literal));
  const free = new Set<number>();
  let milliseconds = 0;
  let runs = 0;
  try {
    for (;;) {
      const flipped = new Set<number>();
      for (const literal of wanted) if (literal > 0) flipped.add(literal);
      const sign = (literal: number): number => (flipped.has(Math.abs(literal)) ? -literal : literal);
      const all = [...clauses, ...assume.map((literal) => [literal]), [...wanted]];
      writeFileSync(
        join(folder, 'in'),
        `p cnf ${String(variables)} ${String(all.length)}\n${all.map((clause) => `${clause.map(sign).join(' ')} 0`).join('\n')}\n`,
      );
      const printed = run(join(folder, 'in'), join(folder, 'out'));
      runs++;
      const seconds = (name: string): number =>
        Number(new RegExp(`${name}\\s*:\\s*([\\d.]+)`).exec(printed)?.[1] ?? 0);
      milliseconds += 1000 * Math.max(0, seconds('CPU time') - seconds('Parse time'));
      const [verdict, model = ''] = readFileSync(join(folder, 'out'), 'utf8').split('\n');
      if (verdict !== 'SAT') return { free, milliseconds, runs };
      for (const each of model.split(' ').map(Number)) {
        const literal = sign(each);
        if (wanted.delete(literal)) free.add(literal);
      }
    }
  } finally {
    rmSync(folder, { recursive: true });
  }
}

function run(input: string, output: string): string {
  try {
    return execFileSync('minisat', [input, output], {
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'ignore'],
    });
  } catch (thrown) {
    // It ends with 10 or 20 for "yes" and "no".
    return (thrown as { stdout?: string }).stdout ?? '';
  }
}

interface Logic {
  Solver: new () => {
    require(...formulas: unknown[]): void;
    solveAssuming(formula: unknown): { getTrueVars(): string[] } | null;
  };
  or(...operands: string[]): unknown;
  and(...operands: string[]): unknown;
}

/** MiniSat compiled to JavaScript: asked value by value, each answer counting for all values that it has. */
export async function askLogicSolver({
  clauses,
  values,
}: Cnf): Promise<(assume: readonly number[]) => PeerAnswer> {
  const { default: logic } = (await import('logic-solver')) as unknown as { default: Logic };
  const solver = new logic.Solver();
  const term = (literal: number): string => (literal < 0 ? `-v${String(-literal)}` : `v${String(literal)}`);
  for (const clause of clauses) solver.require(logic.or(...clause.map(term)));
  return (assume) => {
    const start = performance.now();
    const free = new Set<number>();
    let runs = 0;
    for (const { literal } of values) {
      if (free.has(literal)) continue;
      runs++;
      const solution = solver.solveAssuming(logic.and(...assume.map(term), term(literal)));
      if (!solution) continue;
      const holds = new Set(solution.getTrueVars());
      for (const value of values)
        if (holds.has(`v${String(Math.abs(value.literal))}`) === value.literal > 0) free.add(value.literal);
    }
    return { free, milliseconds: performance.now() - start, runs };
  };
}

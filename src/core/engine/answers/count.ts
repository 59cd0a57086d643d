/**
 * How many different builds a model has in a context.
 *
 * Weighted model counting: settle a literal, propagate, split what is left into parts that share no
 * constraint, count each part once and remember it. A hidden row has one latent value here, so that every
 * build is counted once.
 */
import { always, not, variableOf, type Lit } from '../../solver';
import { valueCount, type Encoding } from '../encoding/encoding';

/** How many builds there are, or how many at most where counting them takes too long. */
export type Count = { exact: true; builds: bigint } | { exact: false; most: bigint };

/**
 * Counts builds; where `stop` says so, or a rule needs arithmetic that is not clauses, gives an upper bound
 * instead.
 */
export function countBuilds(encoding: Encoding, stop: () => boolean): Count {
  const bound = (): Count => ({
    exact: false,
    most: encoding.rows.reduce((product, row) => product * BigInt(valueCount(row)), 1n),
  });
  if (encoding.conditions.wide.length > 0) return bound();
  const weights = new Map<Lit, bigint>();
  pinHidden(encoding);
  const { clauses, cardinalities } = encoding.solver.constraints();
  let last = encoding.solver.variables;
  let factor = 1n;
  for (const row of encoding.rows) {
    if (row.kind !== 'number') continue;
    const cuts = encoding.solver.numbers.cuts(row.number);
    const lits = cuts.map((cut) => encoding.solver.atMost(row.number, cut));
    // A cell between cuts is one literal that weighs as many values as it has.
    const cells = [...cuts, row.entry.grid.count - 1].map((to, index) => ({
      lit: 2 * last++,
      size: to - (index === 0 ? -1 : (cuts[index - 1] as number)),
    }));
    if (cells.length === 1) {
      factor *= BigInt(cells[0]?.size ?? 1);
      clauses.push([cells[0]?.lit as Lit]);
      continue;
    }
    clauses.push(cells.map((cell) => cell.lit));
    cells.forEach(({ lit, size }, index) => {
      weights.set(lit, BigInt(size));
      lits.forEach((cut, at) => clauses.push([not(lit), index <= at ? cut : not(cut)]));
    });
    cardinalities.push({ lits: cells.map((cell) => cell.lit), most: 1, guard: always });
  }
  const counter = new Counter(last, clauses, cardinalities, weights, stop);
  const builds = counter.run();
  return builds === null ? bound() : { exact: true, builds: builds * factor };
}

/** A hidden row keeps one latent value. */
function pinHidden({ rows, solver }: Encoding): void {
  for (const row of rows) {
    if (row.shown === always) continue;
    if (row.kind === 'choice') solver.addClause([row.shown, row.latent[0] as Lit]);
    else if (row.kind === 'many') for (const lit of row.latent) solver.addClause([row.shown, not(lit)]);
    else if (row.kind === 'yesno') solver.addClause([row.shown, not(row.latent)]);
    else solver.addClause([row.shown, solver.atMost(row.number, 0)]);
  }
}

interface Constraint {
  lits: readonly Lit[];
  /** Of a cardinality; -1 of a clause. */
  most: number;
  guard: Lit;
  holding: number;
  open: number;
}

class Counter {
  private readonly value: Int8Array;
  private readonly constraints: Constraint[];
  private readonly of: number[][];
  private readonly trail: Lit[] = [];
  private readonly known = new Map<string, bigint>();
  private steps = 0;
  private stopped = false;
  /** Asked after what may have stopped it. */
  private hasStopped(): boolean {
    return this.stopped;
  }

  constructor(
    private readonly variables: number,
    clauses: readonly (readonly Lit[])[],
    cardinalities: readonly { lits: readonly Lit[]; most: number; guard: Lit }[],
    private readonly weights: ReadonlyMap<Lit, bigint>,
    private readonly stop: () => boolean,
  ) {
    this.value = new Int8Array(2 * variables);
    this.constraints = [...clauses.map((lits) => ({ lits, most: -1, guard: always })), ...cardinalities].map(
      (each) => ({ ...each, holding: 0, open: each.lits.length }),
    );
    this.of = Array.from({ length: 2 * variables }, () => []);
    this.constraints.forEach(({ lits, most, guard }, index) => {
      for (const lit of lits) this.of[lit]?.push(index);
      if (most >= 0 && guard !== always && !lits.includes(guard)) this.of[guard]?.push(index);
    });
  }

  run(): bigint | null {
    const units = this.constraints.flatMap(({ lits, most }) =>
      most < 0 && lits.length === 1 ? [lits[0] as Lit] : [],
    );
    if (this.constraints.some(({ lits, most }) => most < 0 && lits.length === 0) || !this.settle(units))
      return 0n;
    const all = Array.from({ length: this.variables }, (_, variable) => variable);
    const total = this.weightFrom(0) * this.parts(all);
    return this.stopped ? null : total;
  }

  private weightFrom(mark: number): bigint {
    let product = 1n;
    for (let at = mark; at < this.trail.length; at++)
      product *= this.weights.get(this.trail[at] as Lit) ?? 1n;
    return product;
  }

  /** The count over the open ones of some variables, part by part. */
  private parts(variables: readonly number[]): bigint {
    let product = 1n;
    const seen = new Set<number>();
    for (const variable of variables) {
      if (this.value[2 * variable] !== 0 || seen.has(variable)) continue;
      const part: number[] = [variable];
      const bound = new Set<number>();
      seen.add(variable);
      for (const each of part) {
        for (const lit of [2 * each, 2 * each + 1]) {
          for (const index of this.of[lit] as number[]) {
            if (bound.has(index) || !this.active(index)) continue;
            bound.add(index);
            const { lits, guard } = this.constraints[index] as Constraint;
            for (const other of [...lits, guard].map(variableOf)) {
              if (this.value[2 * other] !== 0 || seen.has(other)) continue;
              seen.add(other);
              part.push(other);
            }
          }
        }
      }
      product *= bound.size === 0 ? (this.weights.get(2 * variable) ?? 1n) + 1n : this.count(part, bound);
      if (product === 0n || this.stopped) return 0n;
    }
    return product;
  }

  private count(part: readonly number[], bound: ReadonlySet<number>): bigint {
    if ((++this.steps & 255) === 0 && this.stop()) this.stopped = true;
    if (this.stopped) return 0n;
    const left = [...bound]
      .sort((a, b) => a - b)
      .map((index) => {
        const { most, holding, guard } = this.constraints[index] as Constraint;
        return most < 0
          ? String(index)
          : `${String(index)}:${String(most - holding)}${guard !== always && this.value[guard] === 0 ? '?' : ''}`;
      });
    const key = `${[...part].sort((a, b) => a - b).join(',')};${left.join(',')}`;
    const known = this.known.get(key);
    if (known !== undefined) return known;
    const variable = this.busiest(part);
    let total = 0n;
    for (const lit of [2 * variable, 2 * variable + 1]) {
      const mark = this.trail.length;
      if (this.settle([lit])) total += this.weightFrom(mark) * this.parts(part);
      this.undo(mark);
    }
    if (!this.hasStopped()) this.known.set(key, total);
    return total;
  }

  private busiest(part: readonly number[]): number {
    let best = part[0] as number;
    let most = -1;
    for (const variable of part) {
      let score = 0;
      for (const index of this.of[2 * variable] as number[]) if (this.active(index)) score++;
      for (const index of this.of[2 * variable + 1] as number[]) if (this.active(index)) score++;
      if (score > most) [best, most] = [variable, score];
    }
    return best;
  }

  /** Whether a constraint can still be broken. */
  private active(index: number): boolean {
    const { most, holding, open, guard } = this.constraints[index] as Constraint;
    if (most < 0) return holding === 0;
    return (guard === always || (this.value[guard] as number) >= 0) && holding + open > most;
  }

  /** Settles literals and what follows; false where something is broken. */
  private settle(lits: readonly Lit[]): boolean {
    const queue = [...lits];
    for (const lit of queue) {
      if ((this.value[lit] as number) > 0) continue;
      if ((this.value[lit] as number) < 0) return false;
      this.value[lit] = 1;
      this.value[not(lit)] = -1;
      this.trail.push(lit);
      for (const index of this.of[lit] as number[]) this.move(index, lit, 1);
      for (const index of this.of[not(lit)] as number[]) this.move(index, not(lit), 1);
      for (const side of [lit, not(lit)])
        for (const index of this.of[side] as number[]) if (!this.follow(index, queue)) return false;
    }
    return true;
  }

  private move(index: number, lit: Lit, by: 1 | -1): void {
    const constraint = this.constraints[index] as Constraint;
    // A guard is not counted.
    if (constraint.most >= 0 && lit === constraint.guard && !constraint.lits.includes(lit)) return;
    constraint.open -= by;
    if ((this.value[lit] as number) > 0) constraint.holding += by;
  }

  private follow(index: number, queue: Lit[]): boolean {
    const { lits, most, guard, holding, open } = this.constraints[index] as Constraint;
    if (most < 0) {
      if (holding > 0 || open > 1) return true;
      if (open === 0) return false;
      queue.push(lits.find((lit) => this.value[lit] === 0) as Lit);
      return true;
    }
    const guarded = guard === always ? 1 : (this.value[guard] as number);
    if (guarded < 0 || holding < most) return true;
    if (holding > most) {
      if (guarded > 0) return false;
      queue.push(not(guard));
    } else if (guarded > 0) for (const lit of lits) if (this.value[lit] === 0) queue.push(not(lit));
    return true;
  }

  private undo(mark: number): void {
    while (this.trail.length > mark) {
      const lit = this.trail.pop() as Lit;
      for (const index of this.of[lit] as number[]) this.move(index, lit, -1);
      for (const index of this.of[not(lit)] as number[]) this.move(index, not(lit), -1);
      this.value[lit] = 0;
      this.value[not(lit)] = 0;
    }
  }
}

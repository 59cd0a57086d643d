/**
 * Complete search over a network: propagation by trying values against what each constraint can still come to, then branching.
 * At a leaf every constraint has been checked exactly, so an answer is never a guess.
 */
import type { Constraint, Domain, Network, Outcome } from './network';
import type { Outlook, OutlookEnv } from './outlook';

/** One code per variable: a complete valid build. */
export type Witness = Int32Array;

export type Assumptions = ReadonlyMap<number, Domain>;

export interface Question {
  assume: Assumptions;
  /** Codes tried first, by variable. */
  hints?: ArrayLike<number | undefined> | undefined;
  /** Constraints left out, for finding causes. */
  without?: ReadonlySet<number>;
  /** Collects the constraints that cut anything. */
  involved?: Set<number>;
}

/** Thrown when a question took more than the budget: nothing is claimed then. */
export class OutOfBudget extends Error {}

/** Longest domain in which each value is tried; longer ones are cut from both ends. */
const tryEach = 12;

export class Search {
  private readonly exactAnswers: Map<string, boolean>[];
  private readonly rounds: Int32Array;
  private round = 0;
  private domains: Domain[] = [];
  private readonly looked: (Outlook | undefined)[];
  private readonly lookedAt: Int32Array;
  private generation = 1;
  private readonly env: OutlookEnv;
  /** Nodes that all questions together may still visit. */
  budget = 2_000_000;

  constructor(readonly network: Network) {
    const { constraints, model } = network;
    this.exactAnswers = constraints.map(() => new Map<string, boolean>());
    this.rounds = new Int32Array(constraints.length);
    this.looked = new Array<Outlook | undefined>(model.entries.length);
    this.lookedAt = new Int32Array(model.entries.length);
    this.env = (slot) => {
      if (this.lookedAt[slot] === this.generation) return this.looked[slot] as Outlook;
      const seen = network.lookOfSlot(slot, this.domains, this.env);
      this.looked[slot] = seen;
      this.lookedAt[slot] = this.generation;
      return seen;
    };
  }

  /** A complete valid build under the assumptions, or null where there is none. */
  solve(question: Question): Witness | null {
    const domains = this.narrowed(question);
    return domains && this.branch(domains, question);
  }

  /** The domains left after propagation alone; null on contradiction. Values gone are impossible; values left may still be. */
  narrowed(question: Question): Domain[] | null {
    const domains = this.network.variables.map((variable) => {
      const assumed = question.assume.get(variable.index);
      return assumed ? variable.domain.filter((code) => assumed.includes(code)) : variable.domain;
    });
    if (domains.some((domain) => domain.length === 0)) return null;
    return this.propagate(domains, this.network.constraints.map((each) => each.index), question) ? domains : null;
  }

  /** Whether a complete assignment keeps every constraint; exact. */
  accepts(codes: Witness): boolean {
    const env = this.network.environment((variable) => codes[variable] as number);
    return this.network.constraints.every((constraint) => constraint.holds(env, (variable) => codes[variable] as number));
  }

  private branch(domains: Domain[], question: Question): Witness | null {
    if (this.budget-- <= 0) throw new OutOfBudget();
    const next = smallest(domains, this.network);
    if (next === -1) return Int32Array.from(domains, (domain) => domain[0] as number);
    const domain = domains[next] as Domain;
    for (const part of alternatives(domain, question.hints?.[next])) {
      const narrower = domains.slice();
      narrower[next] = part;
      const watchers = this.network.variables[next]?.watchers ?? [];
      if (!this.propagate(narrower, watchers, question)) continue;
      const found = this.branch(narrower, question);
      if (found) return found;
    }
    return null;
  }

  /** Cuts values that some constraint refuses, until nothing changes. False on contradiction. */
  private propagate(domains: Domain[], start: readonly number[], question: Question): boolean {
    this.domains = domains;
    this.generation++;
    const queue = start.filter((index) => !question.without?.has(index));
    const round = ++this.round;
    const waiting = this.rounds;
    for (const index of queue) waiting[index] = round;
    for (let head = 0; head < queue.length; head++) {
      const constraint = this.network.constraints[queue[head] as number] as Constraint;
      waiting[constraint.index] = 0;
      const outcome = this.judge(constraint);
      if (outcome === 'kept') continue;
      if (outcome === 'broken') {
        question.involved?.add(constraint.index);
        return false;
      }
      for (const variable of constraint.scope) {
        const before = domains[variable] as Domain;
        if (before.length === 1) continue;
        const after = before.length <= tryEach ? before.filter((code) => this.tryOut(constraint, variable, [code])) : this.trim(constraint, variable, before);
        if (after.length === before.length) continue;
        question.involved?.add(constraint.index);
        if (after.length === 0) return false;
        this.set(variable, after);
        for (const watcher of this.network.variables[variable]?.watchers ?? []) {
          if (waiting[watcher] === round || question.without?.has(watcher)) continue;
          waiting[watcher] = round;
          queue.push(watcher);
        }
      }
    }
    return true;
  }

  private set(variable: number, domain: Domain): void {
    this.domains[variable] = domain;
    this.generation++;
  }

  private tryOut(constraint: Constraint, variable: number, part: Domain): boolean {
    const before = this.domains[variable] as Domain;
    this.set(variable, part);
    const outcome = this.judge(constraint);
    this.set(variable, before);
    return outcome !== 'broken';
  }

  /** Drops values from both ends of a long domain, in halves, as far as they are refused together. */
  private trim(constraint: Constraint, variable: number, domain: Domain): Domain {
    let [from, to] = [0, domain.length];
    for (let size = (to - from) >> 1; size >= 1; size >>= 1) {
      while (from + size <= to && !this.tryOut(constraint, variable, domain.slice(from, from + size))) from += size;
    }
    for (let size = (to - from) >> 1; size >= 1; size >>= 1) {
      while (to - size >= from && !this.tryOut(constraint, variable, domain.slice(to - size, to))) to -= size;
    }
    if (to - from === 1 && !this.tryOut(constraint, variable, domain.slice(from, to))) return [];
    return domain.slice(from, to);
  }

  private judge(constraint: Constraint): Outcome {
    const { domains } = this;
    let key = '';
    for (const variable of constraint.scope) {
      const domain = domains[variable] as Domain;
      if (domain.length !== 1) {
        return constraint.outlook(this.env, domains);
      }
      key += `${String(domain[0])},`;
    }
    const answers = this.exactAnswers[constraint.index] as Map<string, boolean>;
    let holds = answers.get(key);
    if (holds === undefined) {
      const code = (variable: number) => (domains[variable] as Domain)[0] as number;
      holds = constraint.holds(this.network.environment(code), code);
      if (answers.size > 20_000) answers.clear();
      answers.set(key, holds);
    }
    return holds ? 'kept' : 'broken';
  }
}

/** The unsettled variable with the fewest values, more watched first; -1 when all are settled. */
function smallest(domains: readonly Domain[], network: Network): number {
  let best = -1;
  let score = Infinity;
  for (let index = 0; index < domains.length; index++) {
    const { length } = domains[index] as Domain;
    if (length === 1) continue;
    const mine = length - (network.variables[index]?.watchers.length ?? 0) / 1000;
    if (mine < score) [best, score] = [index, mine];
  }
  return best;
}

/** The hint first, then the rest: one by one where few, in halves where many. */
function alternatives(domain: Domain, hint: number | undefined): Domain[] {
  const first = hint !== undefined && domain.includes(hint) ? hint : undefined;
  const rest = first === undefined ? domain : domain.filter((code) => code !== first);
  const middle = rest.length >> 1;
  const parts = rest.length <= 8 ? rest.map((code) => [code]) : [rest.slice(0, middle), rest.slice(middle)];
  return first === undefined ? parts : [[first], ...parts];
}

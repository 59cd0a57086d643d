/**
 * Complete search over a network: propagation by trying values against what each constraint can still come to, then branching.
 * At a leaf every constraint has been checked exactly, so an answer is never a guess.
 */
import { HIDDEN, type Constraint, type Domain, type Network, type Outcome } from './network';
import { anything, type Outlook, type OutlookEnv } from './outlook';

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

/** A place in the search: what is left for each variable, and which constraints nothing left can break (or are left out). */
interface Node {
  domains: Domain[];
  kept: Uint8Array;
}

/** Longest domain in which each value is tried; longer ones are cut from both ends. */
const tryEach = 12;

export class Search {
  private readonly exactAnswers: Map<string, boolean>[];
  private readonly rounds: Int32Array;
  private round = 0;
  private domains: Domain[] = [];
  /** Per slot: the outlook last worked out, and the domains it was worked out for. */
  private readonly looked: { domains: Domain[]; outlook: Outlook }[];
  /** Per slot of one variable: the outlook of each single code. */
  private readonly lookedOne: Map<number, Outlook>[];
  private readonly env: OutlookEnv;
  /** Nodes that all questions together may still visit. */
  budget = 2_000_000;

  constructor(readonly network: Network) {
    const { constraints, model } = network;
    this.exactAnswers = constraints.map(() => new Map<string, boolean>());
    this.rounds = new Int32Array(constraints.length);
    this.looked = model.entries.map(() => ({ domains: [], outlook: anything }));
    this.lookedOne = model.entries.map(() => new Map());
    this.env = (slot) => this.lookAt(slot);
  }

  private lookAt(slot: number): Outlook {
    const { domains, network } = this;
    const scope = network.scopeOfSlot(slot);
    if (scope.length === 1) {
      const domain = domains[scope[0] as number] as Domain;
      if (domain.length === 1) {
        const known = this.lookedOne[slot]?.get(domain[0] as number);
        if (known) return known;
        const outlook = network.lookOfSlot(slot, domains, this.env);
        this.lookedOne[slot]?.set(domain[0] as number, outlook);
        return outlook;
      }
    }
    const last = this.looked[slot] as { domains: Domain[]; outlook: Outlook };
    // Domains are never changed in place, so the same arrays mean the same outlook.
    if (last.domains.length > 0 && scope.every((variable, index) => domains[variable] === last.domains[index])) return last.outlook;
    const outlook = network.lookOfSlot(slot, domains, this.env);
    this.looked[slot] = { domains: scope.map((variable) => domains[variable] as Domain), outlook };
    return outlook;
  }

  /** A complete valid build under the assumptions, or null where there is none. */
  solve(question: Question): Witness | null {
    const node = this.root(question);
    return node && this.branch(node, question);
  }

  /** The domains left after propagation alone; null on contradiction. Values gone are impossible; values left may still be. */
  narrowed(question: Question): Domain[] | null {
    return this.root(question)?.domains ?? null;
  }

  private root(question: Question): Node | null {
    const domains = this.network.variables.map((variable) => {
      const assumed = question.assume.get(variable.index);
      return assumed ? variable.domain.filter((code) => assumed.includes(code)) : variable.domain;
    });
    if (domains.some((domain) => domain.length === 0)) return null;
    const node = { domains, kept: new Uint8Array(this.network.constraints.length) };
    for (const index of question.without ?? []) node.kept[index] = 1;
    return this.propagate(node, this.network.constraints.map((each) => each.index), question) ? node : null;
  }

  /** A complete valid build with one variable changed, where that alone is still valid; exact, and far cheaper than a search. */
  varied(witness: Witness, variable: number, code: number): Witness | null {
    const codes = witness.slice();
    codes[variable] = code;
    for (const index of this.network.variables[variable]?.watchers ?? []) {
      const constraint = this.network.constraints[index] as Constraint;
      let key = '';
      for (const each of constraint.scope) key += `${String(codes[each])},`;
      if (!this.exactly(constraint, key, (each) => codes[each] as number)) return null;
    }
    return codes;
  }

  private branch(node: Node, question: Question): Witness | null {
    if (this.budget-- <= 0) throw new OutOfBudget();
    const { domains, kept } = node;
    const next = smallest(node, this.network);
    if (next === -1) return Int32Array.from(domains, (domain, index) => preferred(domain, question.hints?.[index]));
    for (const part of alternatives(domains[next] as Domain, question.hints?.[next])) {
      const narrower = { domains: domains.slice(), kept: kept.slice() };
      narrower.domains[next] = part;
      if (!this.propagate(narrower, this.network.variables[next]?.watchers ?? [], question)) continue;
      const found = this.branch(narrower, question);
      if (found) return found;
    }
    return null;
  }

  /** Cuts values that some constraint refuses, until nothing changes. False on contradiction. */
  private propagate({ domains, kept }: Node, start: readonly number[], question: Question): boolean {
    this.domains = domains;
    const queue = start.filter((index) => kept[index] === 0);
    const round = ++this.round;
    const waiting = this.rounds;
    for (const index of queue) waiting[index] = round;
    for (let head = 0; head < queue.length; head++) {
      const constraint = this.network.constraints[queue[head] as number] as Constraint;
      waiting[constraint.index] = 0;
      const outcome = this.judge(constraint);
      if (outcome === 'kept') {
        kept[constraint.index] = 1;
        continue;
      }
      if (outcome === 'broken') {
        question.involved?.add(constraint.index);
        return false;
      }
      for (const variable of constraint.scope) {
        const before = domains[variable] as Domain;
        if (before.length === 1) continue;
        const after = before.length <= tryEach ? before.filter((code) => this.tryOut(constraint, variable, single(code))) : this.trim(constraint, variable, before);
        if (after.length === before.length) continue;
        question.involved?.add(constraint.index);
        if (after.length === 0) return false;
        this.set(variable, after);
        for (const watcher of this.network.variables[variable]?.watchers ?? []) {
          if (waiting[watcher] === round || kept[watcher] === 1) continue;
          waiting[watcher] = round;
          queue.push(watcher);
        }
      }
    }
    return true;
  }

  private set(variable: number, domain: Domain): void {
    this.domains[variable] = domain;
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
    return this.exactly(constraint, key, (variable) => (domains[variable] as Domain)[0] as number) ? 'kept' : 'broken';
  }

  /** Remembers exact answers by the codes of the constraint's scope. */
  private exactly(constraint: Constraint, key: string, code: (variable: number) => number): boolean {
    const answers = this.exactAnswers[constraint.index] as Map<string, boolean>;
    let holds = answers.get(key);
    if (holds === undefined) {
      holds = constraint.holds(this.network.environment(code), code);
      if (answers.size > 20_000) answers.clear();
      answers.set(key, holds);
    }
    return holds;
  }
}

/** The unsettled variable with the fewest values that some constraint still waits for, more watched first; -1 when none is left. */
function smallest({ domains, kept }: Node, network: Network): number {
  let best = -1;
  let score = Infinity;
  for (let index = 0; index < domains.length; index++) {
    const { length } = domains[index] as Domain;
    if (length === 1) continue;
    const watchers = network.variables[index]?.watchers ?? [];
    const mine = length - watchers.length / 1000;
    if (mine < score && watchers.some((watcher) => kept[watcher] === 0)) [best, score] = [index, mine];
  }
  return best;
}

const preferred = (domain: Domain, hint: number | undefined): number => (hint !== undefined && domain.includes(hint) ? hint : (domain[0] as number));

/** The hint first, then the rest: one by one where few, in halves where many. */
function alternatives(domain: Domain, hint: number | undefined): Domain[] {
  const first = hint !== undefined && domain.includes(hint) ? hint : undefined;
  const rest = first === undefined ? domain : domain.filter((code) => code !== first);
  const middle = rest.length >> 1;
  const parts = rest.length <= 8 ? rest.map(single) : [rest.slice(0, middle), rest.slice(middle)];
  return first === undefined ? parts : [single(first), ...parts];
}

const singles: Domain[] = [];

/** The domain of one code; always the same array for the same code. */
function single(code: number): Domain {
  return (singles[code - HIDDEN] ??= [code]);
}

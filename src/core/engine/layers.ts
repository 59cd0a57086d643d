/**
 * Advice and defaults on top of decisions: each proposal in its priority, taken where its condition surely holds and a complete
 * build remains, and only if every value still free in the rows left to the person stays free. What waits is not taken.
 */
import type { Proposal } from '../model';
import { not, type Lit, type Witness } from '../solver';
import type { Encoding } from './encoding';
import type { Source } from './index';
import { canDiffer, rangesOf, type NumberRow, type Range } from './ranges';
import type { Reach } from './reach';
import type { Truth } from './truth';
import type { Code, Variable } from './variables';

/** A proposal with its literals. */
interface Wish {
  proposal: Proposal;
  variable: Variable;
  lits: readonly Lit[];
  /** Names of its questions. */
  key: string;
  when: Truth | null;
}

export interface Settled {
  /** A complete build with all that was taken. */
  build: Witness;
  sources: ReadonlyMap<Variable, Source>;
  /** Variables whose default waits for what a person has still to choose. */
  waits: ReadonlySet<Variable>;
  /** Whether a row surely exists, surely does not, or is open. */
  existence(variable: Variable): 'shown' | 'hidden' | 'open';
  /** Whether the variable can have no other value than in the build. */
  single(variable: Variable): boolean;
}

export class Layers {
  private readonly wishes: readonly Wish[];
  private readonly proposed = new Set<Variable>();

  constructor(
    private readonly encoding: Encoding,
    private readonly variables: readonly Variable[],
    private readonly reach: Reach,
  ) {
    const byOn = new Map(variables.map((variable) => [variable.on, variable]));
    this.wishes = encoding.model.proposals.flatMap((proposal, index): Wish[] => {
      if (proposal.rule && !encoding.inForce(proposal.rule)) return [];
      const variable = byOn.get(proposal.on);
      const lits = encoding.decided(proposal.on, proposal.value);
      if (!variable || !lits) return [];
      this.proposed.add(variable);
      return [{ proposal, variable, lits, key: `p${String(index)}`, when: proposal.when ? encoding.conditions.of(proposal.when) : null }];
    });
  }

  /** `known` are the variables that decisions and firm rules have settled. */
  settle(assume: readonly Lit[], near: Witness, known: ReadonlyMap<Variable, Source>): Settled {
    const { reach } = this;
    const sources = new Map(known);
    const refused = reach.move(assume, reach.base ?? near);
    if (refused) throw new Error('decisions that were kept do not stand together');
    let taken = assume;
    const asking = new Asking(this.variables.filter((variable) => !known.has(variable) && !this.proposed.has(variable)), this.encoding, reach);
    const waiting = new Set(this.wishes);
    /** What would take a value from the person; that stays so. */
    const victims = new Set<Wish>();
    const postponed = new Set<Variable>();

    /** Takes a proposal if it fits and leaves the person everything; false where it has to wait. */
    const take = (wish: Wish): boolean => {
      const wider = [...taken, ...wish.lits];
      if (reach.move(wider)) return true;
      if (!asking.keepAll()) {
        reach.move(taken);
        victims.add(wish);
        return false;
      }
      taken = wider;
      sources.set(wish.variable, wish.proposal.source);
      asking.refresh();
      return true;
    };
    /** Whether a proposal's turn has come; it is open while its condition is. */
    const ready = (wish: Wish): boolean => !victims.has(wish) && (wish.when === null || !reach.can(`${wish.key}n`, [not(wish.when.yes)]) || !reach.can(`${wish.key}y`, [wish.when.yes]));

    while (waiting.size > 0) {
      const blocked = new Set<Variable>();
      let found: Wish | undefined;
      for (const wish of waiting) {
        if (sources.has(wish.variable)) waiting.delete(wish);
        else if (!blocked.has(wish.variable)) {
          if (ready(wish)) {
            found = wish;
            break;
          }
          blocked.add(wish.variable);
        }
      }
      if (!found) {
        // Where everything waits for something open, the first gives way.
        const [first] = waiting;
        if (!first) break;
        waiting.delete(first);
        postponed.add(first.variable);
        continue;
      }
      const applies = found.when === null || reach.can(`${found.key}y`, [found.when.yes]);
      if (!applies || !this.open(found) || take(found)) waiting.delete(found);
    }
    const build = reach.base as Witness;
    const existence = (variable: Variable): 'shown' | 'hidden' | 'open' => {
      const { hidden, shown } = variable;
      if (!hidden || !reach.can(hidden.key, hidden.lits)) return 'shown';
      return reach.can(shown.key, shown.lits) ? 'open' : 'hidden';
    };
    const single = (variable: Variable): boolean => {
      if (variable.row.kind === 'number') return !canDiffer(variable.row, build, this.encoding, reach);
      const code = variable.codes.find((each) => build.meets(each.lits));
      return code !== undefined && !reach.can(code.key + 1, code.otherwise);
    };
    const askedStill = asking.any();
    const waits = new Set([...postponed].filter((variable) => askedStill && !sources.has(variable)));
    return { build, sources, waits, existence, single };
  }

  /** Whether a proposal would settle something: its variable can exist with another value. */
  private open({ variable, lits, key }: Wish): boolean {
    if (variable.row.kind !== 'number') {
      return this.reach.can(`${key}o`, [variable.row.shown, ...lits.map(not)].filter((lit) => lit !== 0));
    }
    return lits.some((lit, index) => this.reach.can(`${key}o${String(index)}`, [variable.row.shown, not(lit)].filter((each) => each !== 0)));
  }
}

/** The variables left to a person that surely exist and have several values, with all the values they can have. */
class Asking {
  private readonly choices = new Map<Variable, readonly Code[]>();
  private readonly numbers = new Map<NumberRow, readonly Range[]>();
  private rest: readonly Variable[];

  constructor(
    candidates: readonly Variable[],
    private readonly encoding: Encoding,
    private readonly reach: Reach,
  ) {
    this.rest = candidates;
    this.refresh();
  }

  /** Variables that have come to surely exist are asked from now on. */
  refresh(): void {
    this.rest = this.rest.filter((variable) => {
      const { hidden, codes, row } = variable;
      if (hidden && this.reach.can(hidden.key, hidden.lits)) return true;
      if (row.kind === 'number') {
        const ranges = rangesOf(row, this.encoding, this.reach);
        if (ranges.length > 1 || ranges.some(([from, to]) => from < to)) this.numbers.set(row, ranges);
      } else {
        const left = codes.filter((code) => this.reach.can(code.key, code.lits));
        if (left.length > 1) this.choices.set(variable, left);
      }
      return false;
    });
  }

  keepAll(): boolean {
    for (const codes of this.choices.values()) for (const code of codes) if (!this.reach.can(code.key, code.lits)) return false;
    for (const [row, ranges] of this.numbers) if (rangesOf(row, this.encoding, this.reach).flat().join() !== ranges.flat().join()) return false;
    return true;
  }

  any(): boolean {
    return this.choices.size > 0 || this.numbers.size > 0;
  }
}

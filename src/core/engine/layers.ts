/**
 * Advice and defaults on top of decisions: each proposal in its priority, taken where its condition surely holds and a complete
 * build remains, and only if every value still free in the rows left to the person stays free. What would take one away waits.
 */
import type { Proposal } from '../model';
import { always, not, type Lit, type Witness } from '../solver';
import type { Encoding } from './encoding';
import type { Source } from './index';
import { canDiffer, rangesOf, type NumberRow, type Range } from './ranges';
import type { Reach, Wish } from './reach';
import type { Variable } from './variables';

/** A proposal as literals. */
interface Offer {
  /** Place in the priority. */
  rank: number;
  proposal: Proposal;
  variable: Variable;
  lits: readonly Lit[];
  /** The variable's having another value than the one offered; each alone. */
  otherwise: readonly Wish[];
  /** Its condition's holding, and not holding; null where there is none. */
  when: { holds: Wish; fails: Wish } | null;
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
  private readonly offers: readonly Offer[];
  private readonly proposed = new Set<Variable>();

  constructor(
    private readonly encoding: Encoding,
    private readonly variables: readonly Variable[],
    private readonly reach: Reach,
  ) {
    const byOn = new Map(variables.map((variable) => [variable.on, variable]));
    const wish = (...lits: Lit[]): Wish => ({ key: encoding.newKey(), lits: lits.filter((lit) => lit !== always) });
    this.offers = encoding.model.proposals.flatMap((proposal, rank): Offer[] => {
      if (proposal.rule && !encoding.inForce(proposal.rule)) return [];
      const variable = byOn.get(proposal.on);
      const lits = encoding.decided(proposal.on, proposal.value);
      if (!variable || !lits) return [];
      this.proposed.add(variable);
      const when = proposal.when && encoding.conditions.of(proposal.when).yes;
      return [{ rank, proposal, variable, lits, otherwise: lits.map((lit) => wish(variable.row.shown, not(lit))), when: when === undefined ? null : { holds: wish(when), fails: wish(not(when)) } }];
    });
  }

  /** `known` are the variables that decisions and firm rules have settled. */
  settle(assume: readonly Lit[], near: Witness, known: ReadonlyMap<Variable, Source>): Settled {
    const { reach } = this;
    const sources = new Map(known);
    reach.startFrom(near);
    if (reach.move(assume)) throw new Error('decisions that were kept do not stand together');
    const asking = new Asking(this.variables.filter((variable) => !known.has(variable) && !this.proposed.has(variable)), this.encoding, reach);
    const postponed = this.takeOffers(sources, asking);
    const build = reach.base as Witness;
    const existence = ({ hidden, shown }: Variable): 'shown' | 'hidden' | 'open' => (!hidden || !reach.can(hidden) ? 'shown' : reach.can(shown) ? 'open' : 'hidden');
    const single = (variable: Variable): boolean => {
      if (variable.row.kind === 'number') return !canDiffer(variable.row, build, this.encoding, reach);
      const code = variable.codes.find((each) => build.meets(each.wish.lits));
      return code !== undefined && !reach.can(code.otherwise);
    };
    const waits = new Set([...postponed].filter((variable) => asking.any() && !sources.has(variable)));
    return { build, sources, waits, existence, single };
  }

  /** Takes offers in their priority, adding to the sources; gives the variables of those that never had their turn. */
  private takeOffers(sources: Map<Variable, Source>, asking: Asking): Set<Variable> {
    const { reach } = this;
    const waiting = new Set(this.offers);
    /** Offers that would take a value from the person: what they would take stays free, so they wait for good. */
    const stuck = new Set<Offer>();
    const postponed = new Set<Variable>();
    for (;;) {
      const found = this.nextReady(waiting, stuck, sources);
      if (found) {
        waiting.delete(found);
        const applies = found.when === null || reach.can(found.when.holds);
        if (!applies || !found.otherwise.some((other) => reach.can(other)) || reach.extend(found.lits)) continue;
        if (asking.keepAll()) {
          sources.set(found.variable, found.proposal.source);
          asking.refresh();
        } else {
          reach.retract(found.lits.length);
          stuck.add(found);
        }
        continue;
      }
      // Where everything waits for something open, the first gives way.
      const first = [...waiting, ...stuck].reduce<Offer | null>((a, b) => (a && a.rank < b.rank ? a : b), null);
      if (!first) return postponed;
      waiting.delete(first);
      stuck.delete(first);
      postponed.add(first.variable);
    }
  }

  /** The first offer whose turn has come: no earlier one for the same variable waits, and its condition is certain either way. */
  private nextReady(waiting: Set<Offer>, stuck: ReadonlySet<Offer>, sources: ReadonlyMap<Variable, Source>): Offer | null {
    const blocked = new Map<Variable, number>();
    for (const { variable, rank } of stuck) if (rank < (blocked.get(variable) ?? Infinity)) blocked.set(variable, rank);
    for (const offer of waiting) {
      const { variable, rank, when } = offer;
      if (sources.has(variable)) waiting.delete(offer);
      else if (rank < (blocked.get(variable) ?? Infinity)) {
        if (when === null || !this.reach.can(when.fails) || !this.reach.can(when.holds)) return offer;
        blocked.set(variable, rank);
      }
    }
    return null;
  }
}

/** The variables left to a person that surely exist and have several values, with all the values they can have. */
class Asking {
  private choices = 0;
  private readonly numbers = new Map<NumberRow, readonly Range[]>();
  private rest: readonly Variable[];

  constructor(
    candidates: readonly Variable[],
    private readonly encoding: Encoding,
    private readonly reach: Reach,
  ) {
    reach.watchNothing();
    this.rest = candidates;
    this.refresh();
  }

  /** Variables that have come to surely exist are asked from now on. */
  refresh(): void {
    this.rest = this.rest.filter((variable) => {
      const { hidden, codes, row } = variable;
      if (hidden && this.reach.can(hidden)) return true;
      if (row.kind === 'number') {
        const ranges = rangesOf(row, this.encoding, this.reach);
        if (ranges.length > 1 || ranges.some(([from, to]) => from < to)) this.numbers.set(row, ranges);
        return false;
      }
      const left = codes.filter((code) => this.reach.can(code.wish));
      if (left.length < 2) return false;
      this.choices++;
      for (const code of left) this.reach.watch(code.wish);
      return false;
    });
  }

  keepAll(): boolean {
    if (!this.reach.keepsWatched()) return false;
    for (const [row, ranges] of this.numbers) if (rangesOf(row, this.encoding, this.reach).flat().join() !== ranges.flat().join()) return false;
    return true;
  }

  any(): boolean {
    return this.choices > 0 || this.numbers.size > 0;
  }
}

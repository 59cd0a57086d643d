/**
 * Advice and defaults on top of decisions: each proposal in its priority, taken where its condition surely
 * holds and a complete build remains, and only if every value still free in the rows left to the person stays
 * free. What would take one away waits.
 */
import { Exact } from '../../exact';
import { Day, type Formula, type Value } from '../../formula';
import type { DecisionValue, Proposal } from '../../model';
import { always, never, not, type Lit, type Witness } from '../../solver';
import type { Encoding } from '../encoding/encoding';
import type { Source } from '../types';
import { canDiffer, rangesOf, type NumberRow, type Range } from '../bounds/ranges';
import type { WitnessCache, Wish } from './witness-cache';
import { valueIn, type Subject } from '../encoding/truth';
import type { Variable } from '../encoding/variables';

/**
 * A proposal. What it offers is known from the start, or by a formula once all that the formula reads is
 * settled.
 */
interface Offer {
  /** Place in the priority. */
  rank: number;
  proposal: Proposal;
  variable: Variable;
  offered: Offered | { subject: Subject; reads: readonly Variable[] };
  /** Its condition's holding, and not holding; null where there is none. */
  when: { holds: Wish; fails: Wish } | null;
}

/** A value as literals. */
interface Offered {
  value: DecisionValue;
  lits: readonly Lit[];
  itself: Wish;
  /** The variable's having another value than the one offered; each alone. */
  otherwise: readonly Wish[];
}

export interface Settled {
  /** A complete build with all that was taken. */
  build: Witness;
  sources: ReadonlyMap<Variable, Source>;
  /** What advice and defaults gave, by variable. */
  given: ReadonlyMap<Variable, DecisionValue>;
  /** Variables whose default waits for what a person has still to choose. */
  waits: ReadonlySet<Variable>;
  /** Whether a row surely exists, surely does not, or is open. */
  existence(variable: Variable): 'shown' | 'hidden' | 'open';
  /** Whether the variable can have no other value than in the build. */
  single(variable: Variable): boolean;
}

export class Defaults {
  private readonly offers: readonly Offer[];
  private readonly proposed = new Set<Variable>();
  private readonly made = new Map<string, Offered | null>();
  private readonly memory: AskingMemory = {
    watched: new Set(),
    doubtful: new Set(),
    doubtfulHidden: new Set(),
    ofHidden: new Map(),
    victims: new Map(),
  };

  constructor(
    private readonly encoding: Encoding,
    private readonly variables: readonly Variable[],
    private readonly witnesses: WitnessCache,
  ) {
    const byOn = new Map(variables.map((variable) => [variable.on, variable]));
    const wish = (...lits: Lit[]): Wish => ({
      key: encoding.newKey(),
      lits: lits.filter((lit) => lit !== always),
    });
    this.offers = encoding.model.proposals.flatMap((proposal, rank): Offer[] => {
      if (proposal.rule && !encoding.inForce(proposal.rule)) return [];
      const variable = byOn.get(proposal.on);
      const offered =
        variable &&
        (isFormula(proposal.value) ? this.byFormula(proposal.value) : this.offer(variable, proposal.value));
      if (!variable || !offered) return [];
      this.proposed.add(variable);
      const when = proposal.when && encoding.conditions.of(proposal.when).yes;
      return [
        {
          rank,
          proposal,
          variable,
          offered,
          when: when === undefined ? null : { holds: wish(when), fails: wish(not(when)) },
        },
      ];
    });
  }

  /**
   * A value that is offered; null where the row has no such value. Made once, so that wishes keep their keys.
   */
  private offer(variable: Variable, value: DecisionValue): Offered | null {
    const key = `${variable.on} = ${JSON.stringify(value)}`;
    const known = this.made.get(key);
    if (known !== undefined) return known;
    const lits = this.encoding.decided(variable.on, value);
    const wishes = lits?.map((lit, index): Wish => ({
      key: this.encoding.newKey(`${key}:${String(index)}`),
      lits: [variable.row.shown, not(lit)].filter((each) => each !== always),
    }));
    const offered =
      lits && wishes
        ? {
            value,
            lits,
            itself: { key: this.encoding.newKey(key), lits: lits.filter((each) => each !== always) },
            otherwise: wishes,
          }
        : null;
    this.made.set(key, offered);
    return offered;
  }

  private byFormula(formula: Formula): Extract<Offer['offered'], { subject: Subject }> {
    const subject = this.encoding.conditions.subject(formula.expr);
    return { subject, reads: this.variables.filter((variable) => subject.rows.includes(variable.row)) };
  }

  /** `known` are the variables that decisions and firm rules have settled. */
  settle(assume: readonly Lit[], near: Witness, known: ReadonlyMap<Variable, Source>): Settled {
    const { witnesses } = this;
    const sources = new Map(known);
    witnesses.startFrom(near);
    if (witnesses.move(assume)) throw new Error('decisions that were kept do not stand together');
    const asking = new Asking(
      this.variables.filter((variable) => !known.has(variable) && !this.proposed.has(variable)),
      this.memory,
      this.encoding,
      witnesses,
    );
    const given = new Map<Variable, DecisionValue>();
    const postponed = this.takeOffers(sources, given, asking);
    const build = witnesses.base as Witness;
    const waits = new Set(asking.any() ? [...postponed].filter((variable) => !sources.has(variable)) : []);
    return {
      build,
      sources,
      given,
      waits,
      existence: (variable) => this.existence(variable),
      single: (variable) => this.single(variable),
    };
  }

  private existence({ hidden, shown }: Variable): 'shown' | 'hidden' | 'open' {
    if (!hidden || !this.witnesses.can(hidden)) return 'shown';
    return this.witnesses.can(shown) ? 'open' : 'hidden';
  }

  private single(variable: Variable): boolean {
    const build = this.witnesses.base as Witness;
    if (variable.row.kind === 'number') return !canDiffer(variable.row, build, this.encoding, this.witnesses);
    const code = variable.codes.find((each) => build.meets(each.wish.lits));
    return code !== undefined && !this.witnesses.can(code.otherwise);
  }

  /**
   * What is offered now; "open" while a formula reads something that is not settled, null where it gives no
   * value of the row.
   */
  private offeredNow({ offered, variable }: Offer): Offered | 'open' | null {
    if (!('subject' in offered)) return offered;
    const settled = offered.reads.every((each) => {
      const existence = this.existence(each);
      return existence === 'hidden' || (existence === 'shown' && this.single(each));
    });
    if (!settled) return 'open';
    const build = this.witnesses.base as Witness;
    const values = new Map(
      offered.subject.rows.map((row) => [
        row.slot,
        valueIn(row, {
          holds: (lit) => lit === always || (lit !== never && build.holds(lit)),
          code: (number) => build.codes[number] as number,
        }),
      ]),
    );
    const value = plainOf(offered.subject.exact((slot) => values.get(slot) ?? null));
    return value === undefined ? null : this.offer(variable, value);
  }

  /**
   * Takes offers in their priority, adding to the sources; gives the variables of those that never had their
   * turn.
   */
  private takeOffers(
    sources: Map<Variable, Source>,
    given: Map<Variable, DecisionValue>,
    asking: Asking,
  ): Set<Variable> {
    const { witnesses } = this;
    const queue = new Queue(this.offers.filter(({ variable }) => !sources.has(variable)));
    const postponed = new Set<Variable>();
    const applies = ({ when }: Offer): boolean => when === null || witnesses.can(when.holds);
    const certain = (offer: Offer): boolean => {
      const decided =
        offer.when === null || !witnesses.can(offer.when.fails) || !witnesses.can(offer.when.holds);
      return decided && (!applies(offer) || this.offeredNow(offer) !== 'open');
    };
    for (;;) {
      const found = queue.next(certain);
      if (!found) {
        // Where everything waits for something open, the first gives way.
        const first = queue.giveWay();
        if (!first) return postponed;
        postponed.add(first.variable);
        continue;
      }
      const offered = applies(found) ? this.offeredNow(found) : null;
      if (offered === null || offered === 'open' || !offered.otherwise.some((other) => witnesses.can(other)))
        queue.drop(found);
      else if (asking.surelyRefuses(offered)) {
        // What cannot be had at all takes nothing from anybody.
        if (witnesses.can(offered.itself)) queue.hold(found);
        else queue.drop(found);
      } else if (witnesses.extend(offered.lits)) queue.drop(found);
      else if (asking.allows(offered)) {
        sources.set(found.variable, found.proposal.source);
        given.set(found.variable, offered.value);
        queue.settle(found.variable);
        asking.refresh();
      } else {
        witnesses.retract(offered.lits.length);
        queue.hold(found);
      }
    }
  }
}

/**
 * Offers in their priority. One waits while an earlier one for the same variable does, or while its condition
 * is open.
 */
class Queue {
  /** By variable, in order of rank; only the first of each can have its turn. */
  private readonly waiting = new Map<Variable, Offer[]>();
  /** Offers that are the first of their variable, by rank. */
  private readonly first: (Offer | undefined)[] = [];
  /**
   * Of these, the ones that would take a value from the person: what they would take stays free, so they wait
   * for good.
   */
  private readonly held: boolean[] = [];
  /** No first offer stands before this rank, and none that is not held before the other. */
  private lowest = 0;
  private lowestFree = 0;

  constructor(offers: readonly Offer[]) {
    for (const offer of offers) {
      const list = this.waiting.get(offer.variable);
      if (list) list.push(offer);
      else {
        this.waiting.set(offer.variable, [offer]);
        this.first[offer.rank] = offer;
      }
    }
  }

  next(certain: (offer: Offer) => boolean): Offer | undefined {
    const { first, held } = this;
    while (this.lowestFree < first.length && (!first[this.lowestFree] || held[this.lowestFree]))
      this.lowestFree++;
    for (let rank = this.lowestFree; rank < first.length; rank++) {
      const offer = first[rank];
      if (offer && !held[rank] && certain(offer)) return offer;
    }
    return undefined;
  }

  hold({ rank }: Offer): void {
    this.held[rank] = true;
  }

  /** The offer has had its turn. */
  drop({ rank, variable }: Offer): void {
    this.first[rank] = undefined;
    const list = this.waiting.get(variable) as Offer[];
    list.shift();
    const [next] = list;
    if (!next) return;
    this.first[next.rank] = next;
    this.lowest = Math.min(this.lowest, next.rank);
    this.lowestFree = Math.min(this.lowestFree, next.rank);
  }

  /** Nothing more is offered for the variable. */
  settle(variable: Variable): void {
    for (const { rank } of this.waiting.get(variable) ?? []) this.first[rank] = undefined;
    this.waiting.delete(variable);
  }

  /** Drops the first of those that wait. */
  giveWay(): Offer | null {
    while (this.lowest < this.first.length && !this.first[this.lowest]) this.lowest++;
    const offer = this.first[this.lowest];
    if (!offer) return null;
    this.drop(offer);
    return offer;
  }
}

/**
 * The variables left to a person that surely exist and have several values, with all the values they can
 * have.
 */
class Asking {
  private readonly numbers = new Map<NumberRow, readonly Range[]>();
  private readonly watched = new Set<Wish>();
  private readonly doubtful: Set<Wish>;
  private readonly doubtfulHidden: Set<Wish>;

  constructor(
    candidates: readonly Variable[],
    private readonly memory: AskingMemory,
    private readonly encoding: Encoding,
    private readonly witnesses: WitnessCache,
  ) {
    this.doubtful = memory.doubtful;
    this.doubtfulHidden = memory.doubtfulHidden;
    for (const variable of candidates) this.look(variable);
    for (const wish of memory.watched) if (!this.watched.has(wish)) witnesses.unwatch(wish);
    memory.watched = this.watched;
    this.doubtful.clear();
    this.doubtfulHidden.clear();
  }

  private look(variable: Variable): void {
    const { hidden, codes, row } = variable;
    const { witnesses } = this;
    if (hidden && witnesses.can(hidden)) {
      this.memory.ofHidden.set(hidden, variable);
      this.watched.add(hidden);
      witnesses.watch(hidden, this.doubtfulHidden);
      return;
    }
    if (row.kind === 'number') {
      const ranges = rangesOf(row, this.encoding, witnesses);
      if (ranges.length > 1 || ranges.some(([from, to]) => from < to)) this.numbers.set(row, ranges);
      return;
    }
    const left = codes.filter((code) => witnesses.can(code.wish));
    if (left.length < 2) return;
    for (const { wish } of left) {
      this.watched.add(wish);
      witnesses.watch(wish, this.doubtful);
    }
  }

  /** Variables that have come to surely exist are asked from now on. */
  refresh(): void {
    for (const hidden of this.doubtfulHidden) {
      this.doubtfulHidden.delete(hidden);
      if (this.witnesses.can(hidden)) continue;
      this.watched.delete(hidden);
      this.witnesses.unwatch(hidden);
      this.look(this.memory.ofHidden.get(hidden) as Variable);
    }
  }

  /** Whether an offer just assumed leaves everything; what it takes is remembered. */
  allows(offer: Offered): boolean {
    for (const wish of this.doubtful) {
      if (!this.witnesses.can(wish)) {
        this.memory.victims.set(offer, { wish, core: this.witnesses.coreOf(wish) ?? [] });
        return false;
      }
      this.doubtful.delete(wish);
    }
    for (const [row, ranges] of this.numbers)
      if (rangesOf(row, this.encoding, this.witnesses).flat().join() !== ranges.flat().join()) return false;
    return true;
  }

  /** Whether what an offer took before would be taken for the same cause again. */
  surelyRefuses(offer: Offered): boolean {
    const victim = this.memory.victims.get(offer);
    return (
      victim !== undefined &&
      this.watched.has(victim.wish) &&
      victim.core.every((lit) => offer.lits.includes(lit) || this.witnesses.assumes(lit))
    );
  }

  any(): boolean {
    return this.numbers.size > 0 || [...this.watched].some((wish) => !this.memory.ofHidden.has(wish));
  }
}

const isFormula = (value: DecisionValue | Formula): value is Formula =>
  value !== null && typeof value === 'object';

/** A formula's result as a decision would say it; undefined where no row can have it. */
function plainOf(value: Value): DecisionValue | undefined {
  if (value === null || typeof value === 'boolean' || typeof value === 'string') return value;
  return value instanceof Exact || value instanceof Day ? String(value) : undefined;
}

/** What is worth keeping from one state to the next. */
interface AskingMemory {
  watched: Set<Wish>;
  doubtful: Set<Wish>;
  doubtfulHidden: Set<Wish>;
  ofHidden: Map<Wish, Variable>;
  /** What an offer would have taken, and the assumptions by which. */
  victims: Map<Offered, { wish: Wish; core: readonly Lit[] }>;
}

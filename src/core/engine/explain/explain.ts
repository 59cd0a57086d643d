/** Why not, and how then: smallest causes and smallest changes, by asking again with parts left out. */
import { type DecisionValue, codeOf, plainAt } from '../../model';
import { always, type Lit, type Witness } from '../../solver';
import { assumedOf, litsOf, type Assumed } from '../encoding/assumed';
import { Encoding, type Part } from '../encoding/encoding';
import { OutOfBudget, type WitnessCache } from '../answers/witness-cache';
import { between } from '../encoding/rows';
import type { Cause, Decision, EngineInput, Limits, State, Target, WayOut } from '../types';
import type { Variable } from '../encoding/variables';

/** Ways out to offer. */
const enough = 4;
/** So many that change nothing given are enough to offer no others. */
const fewWays = 3;
/** Most decisions that one way out changes. */
const mostChanges = 5;

/** What can take part in a cause: a decision, or a part of the model by the literal that puts it in force. */
type Piece = { lits: readonly Lit[] } & ({ decision: Decision } | { part: Part });

/** Which pieces are left out first: what is tried first is left out more. */
type Order = 'rules first' | 'decisions first';

/** What makes states, as far as explaining asks it. */
export interface Asked {
  readonly encoding: Encoding;
  readonly byOn: ReadonlyMap<string, Variable>;
  readonly witnesses: WitnessCache;
  assumed: (input: EngineInput) => Assumed[];
  state: (input: EngineInput) => State;
}

/** Answers why something cannot be had, and what would have to change. */
export class Explainer {
  /** The model with each part under a literal of its own; made when first something is asked why. */
  private apart: Encoding | undefined;
  /** A build of it with all parts in force, to search from. */
  private near: Witness | null = null;
  private limits: Limits = {};

  constructor(private readonly maker: Asked) {}

  private get parts(): Encoding {
    if (this.apart) return this.apart;
    this.apart = new Encoding(this.maker.encoding.model, this.maker.encoding.context, true);
    this.limit(this.apart);
    const answer = this.apart.solver.ask({
      assume: [...this.apart.parts.keys()],
      wishes: this.apart.preferred,
    });
    if (answer.is === 'yes') this.near = answer.witness();
    return this.apart;
  }

  /** A smallest set of decisions and parts that together forbid the target; empty where it is possible. */
  reason(input: EngineInput, target: Target): Cause[] {
    const decisions = this.maker.assumed(input).filter((each) => each.decision.on !== target.on);
    return this.conflict(decisions, target);
  }

  /**
   * A second smallest set, with nothing in common with the first or, where there is none, without one part of
   * it; empty where there is no other.
   */
  secondReason(input: EngineInput, target: Target): Cause[] {
    const decisions = this.maker.assumed(input).filter((each) => each.decision.on !== target.on);
    const wish = this.parts.wanted(target.on, target.value);
    if (!wish) return [];
    const pieces = this.pieces(decisions);
    const first = this.smallestOf(pieces, decisions.length, wish, both);
    if (!first) return [];
    const others = [
      pieces.filter((each) => !first.includes(each)),
      ...first.map((one) => pieces.filter((each) => each !== one)),
    ];
    for (const some of others) {
      const second = this.smallestOf(some, some.filter((each) => 'decision' in each).length, wish, both);
      if (second) return second.map(causeOf);
    }
    return [];
  }

  /** Lets questions about causes take what a whole question may. */
  allow({ budget = Infinity, stop }: Limits): void {
    this.limits = { budget, ...(stop ? { stop } : {}) };
    if (this.apart) this.limit(this.apart);
  }

  private limit({ solver }: Encoding): void {
    solver.allowance = this.limits.budget ?? Infinity;
    solver.stop = this.limits.stop;
  }

  /**
   * The causes of a clash of one decision with others: no decision among them can be left out, whatever the
   * rules.
   */
  clash(kept: readonly Assumed[], last: Assumed): Cause[] {
    return this.conflict([...kept, last], undefined, ['decisions first']);
  }

  /**
   * A smallest set of decisions and parts that cannot stand together (with the wish); empty where they can.
   */
  conflict(decisions: readonly Assumed[], target?: Target, orders: readonly Order[] = both): Cause[] {
    const wish = target ? this.parts.wanted(target.on, target.value) : [];
    if (!wish) return [];
    return (this.smallestOf(this.pieces(decisions), decisions.length, wish, orders) ?? []).map(causeOf);
  }

  private pieces(decisions: readonly Assumed[]): Piece[] {
    const own = decisions.flatMap(({ decision }): Piece[] => {
      const lits = this.parts.decided(decision.on, decision.value);
      return lits ? [{ decision, lits }] : [];
    });
    return [...own, ...[...this.parts.parts].map(([lit, part]): Piece => ({ part, lits: [lit] }))];
  }

  private smallestOf(
    pieces: readonly Piece[],
    decisions: number,
    wish: readonly Lit[],
    orders: readonly Order[],
  ): Piece[] | null {
    const guilty = this.core(pieces, wish);
    if (!guilty) return null;
    // What stands in nobody's decision is explained by rules alone; else the shorter of two chains is told.
    const alone = decisions > 0 ? this.core(pieces.slice(decisions), wish) : guilty;
    const found = alone
      ? [this.smallest(alone, wish, 'rules first')]
      : orders.map((order) =>
          this.smallest(
            order === 'rules first'
              ? guilty
              : pieces.filter((piece) => 'part' in piece || guilty.includes(piece)),
            wish,
            order,
          ),
        );
    const rules = (some: Piece[]) => some.filter((piece) => 'part' in piece).length;
    found.sort((a, b) => a.length - b.length || rules(a) - rules(b));
    return found[0] as Piece[];
  }

  /**
   * Leaves out pieces one by one as long as the rest still conflicts; each refusal narrows the rest to what
   * it used.
   */
  private smallest(guilty: readonly Piece[], wish: readonly Lit[], order: Order): Piece[] {
    let left = [...guilty];
    const isRule = (piece: Piece): boolean => 'part' in piece;
    for (const rules of order === 'rules first' ? [true, false] : [false, true]) {
      if (rules && order === 'decisions first') left = this.core(left, wish) ?? left;
      for (const piece of guilty.filter((each) => isRule(each) === rules)) {
        if (!left.includes(piece)) continue;
        const fewer = this.fewer(
          left.filter((each) => each !== piece),
          wish,
        );
        if (fewer === 'unknown') return left;
        // The refusal may do without more than was left out; of the other kind nothing is given up before its
        // turn.
        if (fewer)
          left = left.filter((each) => each !== piece && (fewer.includes(each) || isRule(each) !== rules));
      }
    }
    return left;
  }

  /** As `core`; where the budget ends, what is known already has to do: a cause, if not a smallest one. */
  private fewer(pieces: readonly Piece[], wish: readonly Lit[]): Piece[] | null | 'unknown' {
    try {
      return this.core(pieces, wish);
    } catch (thrown) {
      if (thrown instanceof OutOfBudget) return 'unknown';
      throw thrown;
    }
  }

  /** Pieces that cannot stand together with the wish; null where all can. */
  private core(pieces: readonly Piece[], wish: readonly Lit[]): Piece[] | null {
    // Parts stand first: they are the same from question to question, and what follows from them is kept.
    const parts = pieces.filter((piece) => 'part' in piece);
    const assume = [...parts, ...pieces.filter((piece) => 'decision' in piece)].flatMap(
      (piece) => piece.lits,
    );
    const answer = this.parts.solver.ask({ assume: [...assume, ...wish], base: this.near });
    if (answer.is === 'stopped') throw new OutOfBudget();
    if (answer.is === 'yes') {
      if (parts.length === this.parts.parts.size) this.near = answer.witness();
      return null;
    }
    const core = new Set(answer.core);
    return pieces.filter((piece) => piece.lits.some((lit) => core.has(lit)));
  }

  /** Smallest sets of decisions to change, each with the state it leads to. */
  waysOut(input: EngineInput, target?: Target): WayOut[] {
    const wish = target && this.maker.encoding.wanted(target.on, target.value);
    if (target && !wish) return [];
    const kept = (
      target ? input.decisions.filter((decision) => decision.on !== target.on) : input.decisions
    ).slice();
    const decided = assumedOf({ ...input, decisions: kept }, this.maker.encoding, this.maker.byOn).filter(
      (each) => each.decision.on !== target?.on,
    );
    const found: WayOut[] = [];
    for (const change of this.changesLast(decided, wish ?? [], enough)) {
      if (change.length === 0) return [];
      found.push(
        ...this.ways(
          input,
          kept,
          change,
          decided.filter((each) => !change.includes(each)),
          target,
          wish ?? [],
        ),
      );
    }
    const moves = ({ given = [] }: WayOut): number => Number(given.length > 0);
    return found
      .sort((a, b) => moves(a) - moves(b) || a.changes.length - b.changes.length)
      .slice(0, 2 * enough);
  }

  /** The size of the smallest set of decisions whose change makes the target possible. */
  changesNeeded(input: EngineInput, target: Target): number | null {
    const wish = this.maker.encoding.wanted(target.on, target.value);
    if (!wish) return null;
    const [first] = this.changesLast(
      this.maker.assumed(input).filter((each) => each.decision.on !== target.on),
      wish,
      1,
    );
    return first ? first.length : null;
  }

  /**
   * As `changes`, what is given by the site or the customer, and what they asked for, last: only where too few
   * sets do without it.
   */
  private changesLast(decided: readonly Assumed[], wish: readonly Lit[], wanted: number): Assumed[][] {
    const isFast = (each: Assumed): boolean => this.isTheirs(each);
    if (!decided.some(isFast)) return this.changes(decided, wish, wanted);
    const first = this.changes(decided, wish, wanted, isFast);
    if (first.length >= Math.min(wanted, fewWays)) return first;
    const known = new Set(
      first.map((set) =>
        set
          .map((each) => each.decision.on)
          .sort()
          .join(),
      ),
    );
    return [
      ...first,
      ...this.changes(decided, wish, wanted).filter(
        (set) =>
          !known.has(
            set
              .map((each) => each.decision.on)
              .sort()
              .join(),
          ),
      ),
    ].slice(0, wanted);
  }

  /** Said by the customer and not by whoever decides: an answer, or on a row that the site gives. */
  private isTheirs({ source, decision }: Assumed): boolean {
    return source === 'asked' || this.isGiven(decision.on);
  }

  private isGiven(on: string): boolean {
    const { model } = this.maker.encoding;
    const entry = model.entries[model.slots.get(on.split('.')[0] ?? '') ?? -1];
    return (
      (entry?.kind === 'feature'
        ? entry.feature.given
        : entry && 'parameter' in entry
          ? entry.parameter.given
          : false) === true
    );
  }

  /**
   * Sets of decisions to give up so that the wish fits, smallest first, none within another.
   * Each set must hit every cause; causes are found as sets fail (implicit hitting sets).
   */
  private changes(
    decided: readonly Assumed[],
    wish: readonly Lit[],
    wanted: number,
    fast: (each: Assumed) => boolean = () => false,
  ): Assumed[][] {
    const mine = decided.filter((each) => !fast(each));
    const found: Assumed[][] = [];
    const causes: Assumed[][] = [];
    let hopeless = false as boolean;
    const visit = (change: Assumed[], size: number): void => {
      if (
        hopeless ||
        found.length >= wanted ||
        found.some((smaller) => smaller.every((each) => change.includes(each)))
      )
        return;
      let cause = causes.find((each) => !each.some((one) => change.includes(one)));
      if (!cause) {
        const core = this.refusal(
          decided.filter((each) => !change.includes(each)),
          wish,
        );
        if (!core) {
          found.push(change);
          return;
        }
        cause = core.filter((each) => mine.includes(each));
        if (cause.length === 0) {
          hopeless = true;
          return;
        }
        causes.push(cause);
      }
      if (change.length < size) for (const each of cause) visit([...change, each], size);
    };
    for (
      let size = 0;
      size <= Math.min(mostChanges, mine.length) && found.length < wanted && !hopeless;
      size++
    )
      visit([], size);
    return found;
  }

  /**
   * Decisions that cannot stand together with the wish, as few as a second look finds; null where they can.
   */
  private refusal(decided: readonly Assumed[], wish: readonly Lit[]): Assumed[] | null {
    const { encoding, witnesses } = this.maker;
    const answer = encoding.solver.ask({ assume: [...litsOf(decided), ...wish], base: witnesses.base });
    if (answer.is === 'stopped') throw new OutOfBudget();
    if (answer.is === 'yes') return null;
    const core = new Set(answer.core);
    return decided.filter((each) => each.lits.some((lit) => core.has(lit)));
  }

  /** For one decision to change: each other value it could have. For several: what the rules make of them. */
  private ways(
    input: EngineInput,
    kept: Decision[],
    change: Assumed[],
    rest: Assumed[],
    target: Target | undefined,
    wish: readonly Lit[],
  ): WayOut[] {
    const keys = new Set(change.map((each) => each.decision.on));
    const base = kept.filter((decision) => !keys.has(decision.on));
    const wished = target ? [{ on: target.on, value: target.value }] : [];
    const given = [
      ...new Set(
        change.filter((each) => this.isTheirs(each)).map((each) => each.decision.on.split('.')[0] ?? ''),
      ),
    ];
    const to = (values: (DecisionValue | undefined)[]): WayOut => {
      const changed = change.flatMap((each, index) =>
        values[index] === undefined ? [] : [{ on: each.decision.on, value: values[index] }],
      );
      const decisions = [...base, ...changed, ...wished];
      return {
        changes: change.map((each, index) => ({
          on: each.decision.on,
          from: each.decision.value,
          to: values[index],
        })),
        decisions,
        ...(given.length > 0 ? { given } : {}),
        state: this.maker.state({ ...input, decisions }),
      };
    };
    const [only] = change;
    if (change.length === 1 && only) {
      const values = this.otherValues(only, rest, wish);
      if (values.length > 0) return values.map((value) => to([value]));
      return only.source === 'asked' ? [] : [to([undefined])];
    }
    const values = this.answeredOtherwise(change, rest, wish);
    return values ? [to(values)] : [];
  }

  /**
   * An answer cannot be taken back by a decision, only decided otherwise: a value for each answer that
   * changes, all of which fit together, and nothing for the decisions. Null where one cannot be had otherwise.
   */
  private answeredOtherwise(
    change: readonly Assumed[],
    rest: readonly Assumed[],
    wish: readonly Lit[],
  ): (DecisionValue | undefined)[] | null {
    const { encoding } = this.maker;
    const fixed = [...wish];
    const values: (DecisionValue | undefined)[] = [];
    for (const each of change) {
      if (each.source === 'yours') {
        values.push(undefined);
        continue;
      }
      const [value] = this.otherValues(each, rest, fixed);
      const lits = value === undefined ? undefined : encoding.decided(each.decision.on, value);
      if (value === undefined || !lits) return null;
      values.push(value);
      fixed.push(...lits);
    }
    return values;
  }

  /** Values that one decision could have instead: every choice, or the nearest numbers below and above. */
  private otherValues(
    { variable, decision }: Assumed,
    rest: readonly Assumed[],
    wish: readonly Lit[],
  ): DecisionValue[] {
    const { encoding, witnesses } = this.maker;
    const { row } = variable;
    const ask = (lits: readonly Lit[]) =>
      encoding.solver.ask({
        assume: [...litsOf(rest), ...wish, ...lits.filter((lit) => lit !== always)],
        base: witnesses.base,
      });
    if (row.kind !== 'number') {
      const fitting = variable.codes.filter(
        (code) => code.value !== decision.value && ask(code.wish.lits).is === 'yes',
      );
      return fitting.slice(0, enough).map((code) => code.value);
    }
    const own = codeOf(row.entry.grid, decision.value as string | null) as number;
    const fits = (from: number, to: number): number | null => {
      const answer = from > to ? null : ask([row.shown, ...between(row.number, from, to, encoding.solver)]);
      return answer?.is === 'yes' ? (answer.witness().codes[row.number] as number) : null;
    };
    // What a text should say instead nobody can tell; it may be left out.
    if (row.entry.kind === 'length')
      return row.entry.grid.optional && own > 0 && fits(0, 0) !== null ? [null] : [];
    const nearest = [greatest(0, own - 1, fits), least(own + 1, row.entry.grid.count - 1, fits)];
    return nearest.flatMap((code) => (code === null ? [] : [plainAt(row.entry.grid, code)]));
  }
}

/** The greatest code from one to another that fits; `fits` gives some fitting code of a range, or null. */
function greatest(
  from: number,
  to: number,
  fits: (from: number, to: number) => number | null,
): number | null {
  let best = fits(from, to);
  let end = to;
  while (best !== null && best < end) {
    const middle = (best + end + 1) >> 1;
    const higher = fits(middle, end);
    if (higher === null) end = middle - 1;
    else best = higher;
  }
  return best;
}

function least(from: number, to: number, fits: (from: number, to: number) => number | null): number | null {
  const mirrored = greatest(-to, -from, (a, b) => {
    const code = fits(-b, -a);
    return code === null ? null : -code;
  });
  return mirrored === null ? null : -mirrored;
}

const both: readonly Order[] = ['rules first', 'decisions first'];

const causeOf = (piece: Piece): Cause =>
  'decision' in piece
    ? { kind: 'decision', decision: piece.decision }
    : piece.part.kind === 'rule'
      ? {
          kind: 'rule',
          rule: piece.part.rule.id,
          reason: piece.part.rule.reason,
          ...(piece.part.rule.help === undefined ? {} : { help: piece.part.rule.help }),
        }
      : { kind: 'shape', row: piece.part.row };

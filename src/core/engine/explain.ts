/** Why not, and how then: smallest causes and smallest changes, by asking the search again with parts left out. */
import type { DecisionValue } from '../model';
import type { Cause, Decision, EngineInput, Target, WayOut } from './index';
import { HIDDEN, type Constraint, type Domain, type Variable } from './network';
import type { Assumptions } from './search';
import { assumptions, type Assumed } from './assumed';
import type { StateMaker } from './state';

/** Ways out to offer. */
const enough = 4;
/** Most decisions that one way out changes. */
const mostChanges = 3;

export class Explainer {
  constructor(private readonly maker: StateMaker) {}

  /** A smallest set of decisions and constraints that together forbid the target; empty where it is possible. */
  reason(decided: readonly Assumed[], target: Target): Cause[] {
    const wish = this.wish(target);
    return wish ? this.conflict(decided.filter((each) => each.decision.on !== target.on), wish) : [];
  }

  /** The causes of a clash of one decision with others: no decision among them can be left out, whatever the rules. */
  clash(decided: readonly Assumed[], last: Assumed): Cause[] {
    return this.conflict(decided, [last.variable, last.domain], ['decisions first']);
  }

  /** A smallest set of decisions and constraints that cannot stand together (with the wish); empty where they can. */
  conflict(decided: readonly Assumed[], wish?: Wish, orders: readonly Order[] = ['rules first', 'decisions first']): Cause[] {
    const { network } = this.maker;
    const involved = new Set<number>();
    if (!this.refused(withWish(decided, wish), { involved })) return [];

    const outside = network.constraints.map((each) => each.index).filter((index) => !involved.has(index));
    // What stands in nobody's decision is explained by rules alone; else the shorter of two chains is told.
    const found =
      decided.length === 0 || this.refused(withWish([], wish))
        ? [this.smallest([], wish, outside, 'rules first')]
        : orders.map((order) => this.smallest(decided, wish, outside, order));
    found.sort((x, y) => x.guilty.length + x.rules.length - (y.guilty.length + y.rules.length) || x.rules.length - y.rules.length);
    const { guilty, rules } = found[0] as Conflict;
    return [
      ...guilty.map((each): Cause => ({ kind: 'decision', decision: each.decision })),
      ...rules.map(({ origin }): Cause =>
        origin.kind === 'rule' ? { kind: 'rule', rule: origin.rule.id, reason: origin.rule.reason } : { kind: 'shape', row: origin.entry.id },
      ),
    ];
  }

  /** Leaves out decisions and constraints one by one, in the order given, as long as the rest still conflicts. */
  private smallest(decided: readonly Assumed[], wish: Wish | undefined, outside: readonly number[], order: Order): Conflict {
    const { constraints } = this.maker.network;
    let guilty = decided;
    let without: ReadonlySet<number> = new Set();
    const dropDecisions = () => {
      for (const each of decided) {
        const fewer = guilty.filter((other) => other !== each);
        if (this.refused(withWish(fewer, wish), { without })) guilty = fewer;
      }
    };
    const dropRules = () => {
      // What the first search touched need not be what the fewer decisions run into.
      const untouched = new Set(outside);
      if (this.refused(withWish(guilty, wish), { without: untouched })) without = untouched;
      for (const { index } of constraints) {
        if (without.has(index)) continue;
        const fewer = new Set(without).add(index);
        if (this.refused(withWish(guilty, wish), { without: fewer })) without = fewer;
      }
    };
    if (order === 'rules first') dropRules();
    dropDecisions();
    if (order === 'decisions first') dropRules();
    return { guilty, rules: constraints.filter((each) => !without.has(each.index)) };
  }

  /** Smallest sets of decisions to change, each with the state it leads to. */
  waysOut(input: EngineInput, target?: Target): WayOut[] {
    const wish = target && this.wish(target);
    if (target && !wish) return [];
    const kept = (target ? input.decisions.filter((decision) => decision.on !== target.on) : input.decisions).slice();
    const decided = this.maker.assumed({ ...input, decisions: kept });
    const mine = decided.filter((each) => each.source === 'yours');
    // Whatever makes the target fit must change a decision of every cause, so of this one.
    const cause = new Set(target ? this.reason(decided, target).flatMap((each) => (each.kind === 'decision' ? [each.decision.on] : [])) : mine.map((each) => each.decision.on));
    const sets: Assumed[][] = [];
    const found: WayOut[] = [];
    for (let size = 1; size <= Math.min(mostChanges, mine.length) && sets.length < enough; size++) {
      for (const change of combinations(mine, size)) {
        if (!change.some((each) => cause.has(each.decision.on))) continue;
        if (sets.length >= enough || sets.some((smaller) => smaller.every((each) => change.includes(each)))) continue;
        const rest = decided.filter((each) => !change.includes(each));
        if (!this.maker.feasibleBuild(withWish(rest, wish))) continue;
        sets.push(change);
        found.push(...this.ways(input, kept, change, rest, target, wish));
      }
    }
    return found.sort((a, b) => a.changes.length - b.changes.length).slice(0, 2 * enough);
  }

  /** The size of the smallest set of decisions whose change makes the target possible. */
  changesNeeded(input: EngineInput, target: Target): number | null {
    const wish = this.wish(target);
    const decided = this.maker.assumed({ ...input, decisions: input.decisions.filter((decision) => decision.on !== target.on) });
    const mine = decided.filter((each) => each.source === 'yours');
    if (this.maker.feasibleBuild(withWish(decided, wish))) return 0;
    const cause = new Set(this.conflict(decided, wish, ['rules first']).flatMap((each) => (each.kind === 'decision' ? [each.decision.on] : [])));
    for (let size = 1; size <= Math.min(mostChanges, mine.length); size++) {
      for (const change of combinations(mine, size)) {
        if (!change.some((each) => cause.has(each.decision.on))) continue;
        if (this.maker.feasibleBuild(withWish(decided.filter((each) => !change.includes(each)), wish))) return size;
      }
    }
    return null;
  }

  /** For one decision to change: each other value it could have. For several: what the rules make of them. */
  private ways(input: EngineInput, kept: Decision[], change: Assumed[], rest: Assumed[], target: Target | undefined, wish: Wish | undefined): WayOut[] {
    const keys = new Set(change.map((each) => each.decision.on));
    const base = kept.filter((decision) => !keys.has(decision.on));
    const wished = target ? [{ on: target.on, value: target.value }] : [];
    const to = (values: (DecisionValue | undefined)[]): WayOut => {
      const changed = change.flatMap((each, index) => (values[index] === undefined ? [] : [{ on: each.decision.on, value: values[index] as DecisionValue }]));
      const decisions = [...base, ...changed, ...wished];
      return {
        changes: change.map((each, index) => ({ on: each.decision.on, from: each.decision.value, to: values[index] })),
        decisions,
        state: this.maker.state({ ...input, decisions }),
      };
    };
    if (change.length === 1) {
      const [only] = change as [Assumed];
      return this.otherValues(only, rest, wish).map((value) => to([value]));
    }
    return [to(change.map(() => undefined))];
  }

  /** Values that one decision could have instead: every choice, or the nearest numbers below and above. */
  private otherValues({ variable, domain }: Assumed, rest: Assumed[], wish: Wish | undefined): DecisionValue[] {
    const { network } = this.maker;
    const own = domain[domain.length - 1] as number;
    const fits = (code: number) => this.maker.feasibleBuild(withWish(rest, wish, [variable, [code]])) !== null;
    const others = variable.domain.filter((code) => code !== own && code !== HIDDEN);
    const nearest =
      variable.kind === 'number'
        ? [others.filter((code) => code < own).reverse().find(fits), others.filter((code) => code > own).find(fits)]
        : others.filter(fits).slice(0, enough);
    return nearest.flatMap((code) => (code === undefined ? [] : [network.plain(variable, code) as DecisionValue]));
  }

  private refused(assume: Assumptions, options: { without?: ReadonlySet<number>; involved?: Set<number> } = {}): boolean {
    return this.maker.search.solve({ assume, ...options }) === null;
  }

  private wish({ on, value }: Target): Wish | undefined {
    const variable = this.maker.network.byKey.get(on);
    const code = variable && this.maker.network.codeFor(variable, value);
    return variable && code !== null && code !== undefined ? [variable, [code]] : undefined;
  }
}

type Wish = [Variable, Domain];

/** Which parts are left out first: what is tried first is left out more. */
type Order = 'rules first' | 'decisions first';

interface Conflict {
  guilty: readonly Assumed[];
  rules: readonly Constraint[];
}

function withWish(decided: readonly Assumed[], ...wishes: (Wish | undefined)[]): Map<number, Domain> {
  const assume = assumptions(decided);
  for (const wish of wishes) if (wish) assume.set(wish[0].index, wish[1]);
  return assume;
}

function* combinations<T>(list: readonly T[], size: number, from = 0): Generator<T[]> {
  if (size === 0) {
    yield [];
    return;
  }
  for (let index = from; index <= list.length - size; index++) {
    for (const rest of combinations(list, size - 1, index + 1)) yield [list[index] as T, ...rest];
  }
}

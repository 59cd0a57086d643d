/**
 * One rule of a model looked at while it is written: what it meets, whether others say it already, and how much it
 * takes away.
 */
import type { CompiledModel, CompiledRule } from '../../model';
import { always, type Lit } from '../../solver';
import { countBuilds } from '../answers/count';
import { Encoding } from '../encoding/encoding';
import type { Context } from '../types';

/** What there is to say of a rule, in one context. */
export interface RuleLook {
  /** Rules that leave nothing at all to build, this one among them or not; null where something is left. */
  nothing: readonly string[] | null;
  /** Its condition cannot come about even without the other rules. */
  neverFires: boolean;
  /** The fewest rules that say together what it says, where it takes nothing away beside the others. */
  repeats: readonly string[] | null;
  /** Rules with each of which it leaves nothing where both apply, though each alone does. */
  contradicts: readonly string[];
  /** How many builds there are without the rule and with it; null where counting was stopped. */
  builds: { without: bigint; with: bigint } | null;
}

/**
 * Looks at a rule that forbids; null for one that does not, or that is not in force in this context. `stop` ends the
 * counting of builds.
 */
export function lookAtRule(
  model: CompiledModel,
  context: Context,
  id: string,
  stop: () => boolean,
): RuleLook | null {
  const encoding = new Encoding(model, context, true);
  const forbids = ({ rule, severity }: CompiledRule): boolean =>
    severity === 'error' && rule.kind !== 'say' && encoding.inForce(rule);
  const rule = model.rules.find((each) => each.rule.id === id && forbids(each));
  if (!rule) return null;
  const others = model.rules.filter((each) => each !== rule && !each.rule.id.includes('/') && forbids(each));
  return new Look(encoding, rule, others).all(() => counted(model, context, rule, stop));
}

/** How many builds there are without a rule and with it. */
function counted(
  model: CompiledModel,
  context: Context,
  rule: CompiledRule,
  stop: () => boolean,
): RuleLook['builds'] {
  const bare = { ...model, rules: model.rules.filter((each) => each !== rule) };
  const [without, withIt] = [bare, model].map((each) =>
    stop() ? null : countBuilds(new Encoding(each, context), stop),
  );
  return without?.exact && withIt?.exact ? { without: without.builds, with: withIt.builds } : null;
}

class Look {
  private readonly meaning: { premise: Lit; broken: Lit };
  private readonly force: readonly Lit[];
  private readonly frame: readonly Lit[];
  private readonly guards = new Map<string, Lit>();

  constructor(
    private readonly encoding: Encoding,
    private readonly rule: CompiledRule,
    private readonly others: readonly CompiledRule[],
  ) {
    // Literals first, so that all are there before the first question.
    this.meaning = encoding.meaning(rule);
    if (claims(rule)) for (const other of others) if (claims(other)) encoding.meaning(other);
    const parts = [...encoding.parts];
    this.force = parts.map(([lit]) => lit);
    for (const [lit, part] of parts) if (part.kind === 'rule') this.guards.set(part.rule.id, lit);
    this.frame = parts.flatMap(([lit, part]) =>
      part.kind === 'shape' || part.rule.kind === 'show' ? [lit] : [],
    );
  }

  all(count: () => RuleLook['builds']): RuleLook {
    const { broken } = this.meaning;
    const nothing = this.refusing(this.force);
    const neverFires = nothing === null && !this.can([...this.frame, broken]);
    const rest = this.force.filter((lit) => lit !== this.guards.get(this.rule.rule.id));
    const repeats = nothing === null && !neverFires ? this.refusing([...rest, broken]) : null;
    return {
      nothing,
      neverFires,
      repeats,
      contradicts: nothing === null ? this.contradicts() : [],
      builds: nothing === null && !neverFires && repeats === null ? count() : null,
    };
  }

  private contradicts(): string[] {
    const mine = this.guards.get(this.rule.rule.id);
    if (!claims(this.rule) || mine === undefined) return [];
    const names = new Set(this.rule.must.flatMap((each) => each.names));
    return this.others
      .filter(
        (other) => claims(other) && other.must.some((each) => each.names.some((name) => names.has(name))),
      )
      .filter((other) => {
        const theirs = this.guards.get(other.rule.id);
        if (theirs === undefined) return false;
        const both = [...this.frame, this.meaning.premise, this.encoding.meaning(other).premise];
        return !this.can([...both, mine, theirs]) && this.can([...both, mine]) && this.can([...both, theirs]);
      })
      .map((other) => other.rule.id);
  }

  private ask(assume: readonly Lit[]) {
    return this.encoding.solver.ask({ assume: assume.filter((lit) => lit !== always) });
  }

  private can(assume: readonly Lit[]): boolean {
    return this.ask(assume).is === 'yes';
  }

  /** A smallest set of rules under which these cannot stand together, by their ids; null where they can. */
  private refusing(assume: readonly Lit[]): string[] | null {
    const answer = this.ask(assume);
    if (answer.is !== 'no') return null;
    const { parts } = this.encoding;
    // What is no part, such as the rule's being broken, is always asked.
    const fixed = assume.filter((lit) => !parts.has(lit));
    let kept = answer.core.filter((lit) => parts.has(lit));
    for (const lit of [...kept]) {
      const fewer = kept.filter((each) => each !== lit);
      if (!this.can([...fixed, ...fewer])) kept = fewer;
    }
    return kept.flatMap((lit) => {
      const part = parts.get(lit);
      return part?.kind === 'rule' ? [part.rule.id] : [];
    });
  }
}

/** Whether a rule says what must be, so that it can contradict another that does. */
const claims = ({ rule }: CompiledRule): boolean =>
  rule.kind === 'require' || rule.kind === 'set' || rule.kind === 'limit';

/** From decisions to a state: standings, layers of values, clashes, messages. */
import type { CompiledModel, Entry, Proposal } from '../model';
import { open, Reading, type PlainValue, type Values } from '../model';
import { assumptions, type Assumed } from './assumed';
import { Explainer } from './explain';
import type { AllowedRange, Clash, EngineInput, Message, OptionState, RowState, Source, Standing, State } from './index';
import { HIDDEN, Network, NONE, type Context, type Domain, type Variable } from './network';
import type { Outlook, OutlookEnv } from './outlook';
import { look } from './outlook';
import { Search, type Assumptions, type Witness } from './search';

/** Complete builds kept to answer later questions without a search. */
const poolSize = 400;
/** Known builds tried with one value changed before a search is made. */
const variations = 8;

export class StateMaker {
  readonly network: Network;
  readonly search: Search;
  readonly explainer: Explainer;
  private readonly pool: Witness[] = [];
  private possible: Set<number>[] | undefined;

  constructor(model: CompiledModel, context: Context) {
    this.network = new Network(model, context);
    this.search = new Search(this.network);
    this.explainer = new Explainer(this);
  }

  /** Decisions in the order of the model, so that nothing depends on the order in which they were made. */
  assumed({ asked = [], decisions }: EngineInput): Assumed[] {
    const byKey = new Map<string, Assumed>();
    for (const [source, list] of [['asked', asked], ['yours', decisions]] as const) {
      for (const decision of list) {
        const variable = this.network.byKey.get(decision.on);
        const code = variable && this.network.codeFor(variable, decision.value);
        if (!variable || code === null || code === undefined) continue;
        byKey.set(decision.on, { decision, variable, domain: variable.domain.includes(HIDDEN) ? [HIDDEN, code] : [code], source });
      }
    }
    return [...byKey.values()].sort((a, b) => a.variable.index - b.variable.index);
  }

  state(input: EngineInput): State {
    this.search.budget = 2_000_000;
    const all = this.assumed(input);
    const { kept, clashes } = this.consistent(all);
    const assume = assumptions(kept);
    const feasible = this.feasible(assume);
    const settled = this.layers(kept, assume, feasible);
    return this.write(all, clashes, this.replaceable(kept, feasible), settled);
  }

  /** Whether some complete build meets the assumptions; remembers the build. */
  feasibleBuild(assume: Assumptions, hints?: ArrayLike<number | undefined>): Witness | null {
    for (const witness of this.pool) if (meets(witness, assume)) return witness;
    const found = this.search.solve({ assume, hints });
    if (found) this.remember(found);
    return found;
  }

  private remember(witness: Witness): void {
    this.pool.unshift(witness);
    if (this.pool.length > poolSize) this.pool.pop();
  }

  /** Keeps as many decisions as fit together, in the model's order; each one left out gives a clash with its smallest cause. */
  private consistent(all: Assumed[]): { kept: Assumed[]; clashes: Clash[] } {
    if (this.feasibleBuild(assumptions(all))) return { kept: all, clashes: [] };
    const kept: Assumed[] = [];
    const clashes: Clash[] = [];
    if (!this.feasibleBuild(new Map())) return { kept, clashes: [{ decisions: [], causes: this.explainer.conflict([]) }] };
    for (const each of all) {
      if (this.feasibleBuild(assumptions([...kept, each]))) {
        kept.push(each);
        continue;
      }
      const causes = this.explainer.clash(kept, each);
      const others = causes.flatMap((cause) => (cause.kind === 'decision' ? [cause.decision] : []));
      clashes.push({ decisions: [...others, each.decision], causes });
    }
    return { kept, clashes };
  }

  /** Per variable, exactly the codes that some complete build under the assumptions has. */
  private feasible(assume: Assumptions): Set<number>[] {
    const { variables } = this.network;
    const found = variables.map(() => new Set<number>());
    const near: Witness[] = [];
    const mark = (witness: Witness) => {
      if (near.length < variations) near.push(witness);
      variables.forEach(({ index }) => found[index]?.add(witness[index] as number));
    };
    for (const witness of this.pool) if (meets(witness, assume)) mark(witness);
    const domains = this.search.narrowed({ assume });
    if (!domains) return found;
    for (const { index } of variables) {
      for (const code of domains[index] as Domain) {
        if (found[index]?.has(code)) continue;
        if (this.nearby(near, index, code)) {
          found[index]?.add(code);
          continue;
        }
        // Steer each new build towards values not yet seen, so that one build answers for many options.
        const hints = variables.map((other) => (domains[other.index] as Domain).find((each) => !found[other.index]?.has(each)));
        const witness = this.search.solve({ assume: new Map(assume).set(index, [code]), hints });
        if (!witness) continue;
        this.remember(witness);
        mark(witness);
      }
    }
    return found;
  }

  /** Whether one of some valid builds stays valid with just this one variable changed. */
  private nearby(builds: readonly Witness[], variable: number, code: number): boolean {
    return builds.some((build) => {
      const found = this.search.varied(build, variable, code);
      if (found) this.remember(found);
      return found !== null;
    });
  }

  /** As `feasible`, but for a variable with a decision: the codes it could have if that one decision were another. */
  private replaceable(kept: readonly Assumed[], feasible: readonly Set<number>[]): Set<number>[] {
    const free = feasible.map((codes) => new Set(codes));
    for (const { variable } of kept) {
      const assume = assumptions(kept.filter((other) => other.variable !== variable));
      const near = this.pool.filter((witness) => meets(witness, assume)).slice(0, variations);
      for (const code of this.search.narrowed({ assume })?.[variable.index] ?? []) {
        const known = free[variable.index]?.has(code) === true || this.nearby(near, variable.index, code);
        if (known || this.feasibleBuild(new Map(assume).set(variable.index, [code]))) free[variable.index]?.add(code);
      }
    }
    return free;
  }

  /** Codes that some complete build has at all in this context. */
  private contextually(): Set<number>[] {
    return (this.possible ??= this.feasible(new Map()));
  }

  /**
   * Firm rules, then advice and defaults by priority, each kept only if a complete build remains, and only if it takes
   * nothing away from what is still a person's to choose: a default on a part must not settle the open length.
   */
  private layers(kept: Assumed[], decided: Assumptions, free: Set<number>[]): Settled {
    const { network, search } = this;
    const sources = new Map<number, Source>(kept.map((each) => [each.variable.index, each.source]));
    for (const { index } of network.variables) if (!sources.has(index) && free[index]?.size === 1) sources.set(index, 'follows');
    const assume = new Map<number, Domain>(decided);
    free.forEach((codes, index) => {
      if (codes.size === 1) assume.set(index, [...codes]);
    });
    let domains = search.narrowed({ assume });
    if (!domains) return { domains: network.variables.map(() => []), sources, waits: new Set() };

    const proposed = new Set(network.model.proposals.map((each) => each.on));
    const askable = network.variables.filter((variable) => !sources.has(variable.index) && !proposed.has(variable.key)).map((variable) => variable.index);
    const wishOf = (proposal: Proposal): { index: number; wish: Domain } | null => {
      const variable = network.byKey.get(proposal.on) as Variable;
      const code = network.codeFor(variable, proposal.value);
      const left = (domains as Domain[])[variable.index] as Domain;
      if (code === null || sources.has(variable.index) || !left.includes(code) || left.length === 1) return null;
      return { index: variable.index, wish: left.filter((each) => each === code || each === HIDDEN) };
    };
    const asks = (index: number): boolean => ((domains as Domain[])[index] as Domain).length > 1 && !((domains as Domain[])[index] as Domain).includes(HIDDEN);
    const takesAway = (narrower: Domain[] | null): boolean =>
      narrower !== null && askable.some((index) => asks(index) && (narrower[index] as Domain).length < ((domains as Domain[])[index] as Domain).length);
    const standing = (proposal: Proposal): 'kept' | 'broken' | 'open' => {
      const truth = this.truth(proposal, domains as Domain[]);
      const wanted = truth === 'kept' ? wishOf(proposal) : null;
      return wanted && takesAway(search.narrowed({ assume: new Map(assume).set(wanted.index, wanted.wish) })) ? 'open' : truth;
    };

    let witness: Witness | null = null;
    const postponed = new Set<string>();
    const waiting = network.model.proposals.filter((each) => !each.rule || network.inForce(each.rule));
    while (waiting.length > 0) {
      const blocked = new Set<string>();
      const ready = waiting.findIndex((proposal) => {
        if (blocked.has(proposal.on)) return false;
        if (standing(proposal) !== 'open') return true;
        blocked.add(proposal.on);
        return false;
      });
      // Where everything waits for something open, the first gives way.
      const [proposal] = waiting.splice(Math.max(ready, 0), 1) as [Proposal];
      const wanted = ready !== -1 && this.truth(proposal, domains) === 'kept' ? wishOf(proposal) : null;
      if (ready === -1) postponed.add(proposal.on);
      if (!wanted) continue;
      const { index, wish } = wanted;
      const wider = new Map(assume).set(index, wish);
      if (!witness || !meets(witness, wider)) witness = this.feasibleBuild(wider, hintsFrom(witness, domains));
      if (!witness) continue;
      assume.set(index, wish);
      sources.set(index, proposal.source);
      domains = search.narrowed({ assume }) as Domain[];
    }
    for (const { index } of network.variables) {
      const left = domains[index] as Domain;
      if (left.length > 1 && !sources.has(index)) {
        const still = left.filter((code) => this.feasibleBuild(new Map(assume).set(index, [code])));
        domains[index] = still;
      }
      if ((domains[index] as Domain).length === 1 && !sources.has(index)) sources.set(index, 'follows');
    }
    // While a person has something to choose, what waits for it is not theirs to do.
    const asked = askable.some(asks);
    const waits = new Set(network.variables.filter((variable) => asked && postponed.has(variable.key)).map((variable) => variable.index));
    return { domains, sources, waits };
  }

  private truth(proposal: Proposal, domains: readonly Domain[]): 'kept' | 'broken' | 'open' {
    if (!proposal.when) return 'kept';
    const cache = new Map<number, Outlook>();
    const env: OutlookEnv = (slot) => {
      const seen = cache.get(slot) ?? this.network.lookOfSlot(slot, domains, env);
      cache.set(slot, seen);
      return seen;
    };
    const seen = look(proposal.when.expr, this.network.model.scope)(env);
    return !seen.yes ? 'broken' : seen.no || seen.none ? 'open' : 'kept';
  }

  private write(all: Assumed[], clashes: Clash[], free: Set<number>[], settled: Settled): State {
    const { model, context } = this.network;
    const clashing = new Set(clashes.flatMap((clash) => clash.decisions.map((decision) => decision.on)));
    const decided = new Map(all.map((each) => [each.variable.index, each]));
    const rows: Record<string, RowState> = {};
    const values: Record<string, PlainValue> = { ...context.values };
    model.entries.forEach((entry, slot) => {
      if (entry.kind === 'context' || entry.kind === 'calculation') return;
      const row = this.row(entry, slot, free, settled, decided, clashing);
      rows[entry.id] = row;
      if (row.value !== undefined) values[entry.id] = row.value;
    });
    const sections = model.document.sections.map((section) => {
      const own = section.rows.flatMap((id) => rows[id] ?? []).filter((row) => row.shown);
      return { id: section.id, shown: own.length > 0, todo: own.filter((row) => row.todo).length, clashes: own.filter((row) => row.clashing).length };
    });
    const complete = clashes.length === 0 && Object.values(rows).every((row) => row.value !== undefined);
    return { rows, values, clashes, messages: messages(this.network, values), sections, complete };
  }

  private row(entry: Entry, slot: number, free: Set<number>[], settled: Settled, decided: Map<number, Assumed>, clashing: Set<string>): RowState {
    const variables = this.network.ofSlot.get(slot) as readonly Variable[];
    const [first] = variables as [Variable];
    const left = (variable: Variable) => settled.domains[variable.index] as Domain;
    // A decision that clashes is still shown as it was made.
    const forced = (variable: Variable): Domain => {
      const own = decided.get(variable.index);
      return own && clashing.has(variable.key) ? own.domain.filter((code) => code !== HIDDEN) : left(variable);
    };
    const source = (variable: Variable): Source =>
      decided.get(variable.index)?.source ?? settled.sources.get(variable.index) ?? 'open';
    const standing = (variable: Variable, code: number): Standing =>
      free[variable.index]?.has(code) ? 'free' : this.contextually()[variable.index]?.has(code) ? 'swap' : 'barred';
    const hiddenNow = variables.every((variable) => forced(variable).includes(HIDDEN));
    const base = { id: entry.kind === 'context' ? '' : entry.id, shown: !hiddenNow, clashing: variables.some((variable) => clashing.has(variable.key)) };
    if (hiddenNow) {
      const certain = variables.every((variable) => left(variable).length === 1);
      const value: PlainValue = entry.kind === 'feature' && entry.many ? [] : null;
      return { ...base, source: certain ? 'follows' : 'open', todo: false, ...(certain ? { value } : {}) };
    }
    if (entry.kind === 'feature' && entry.many) {
      const options = entry.feature.options.map((option, index): OptionState => {
        const variable = variables[index] as Variable;
        const taken = forced(variable).length === 1 && forced(variable)[0] === 1;
        return { id: option.id, standing: standing(variable, 1), taken, source: source(variable), changeable: standing(variable, taken ? 0 : 1) === 'free' };
      });
      const isOpen = variables.some((variable) => forced(variable).length !== 1);
      const takenIds = options.filter((option) => option.taken).map((option) => option.id);
      const strongest = order.find((each) => options.some((option) => option.source === each && (option.taken || each === 'yours'))) ?? 'usual';
      const todo = variables.some((variable) => forced(variable).length !== 1 && !settled.waits.has(variable.index));
      return { ...base, source: isOpen ? 'open' : strongest, todo, options, ...(isOpen ? {} : { value: takenIds }) };
    }
    const codes = forced(first);
    const code = codes.length === 1 ? (codes[0] as number) : undefined;
    const isOpen = code === undefined;
    const written = isOpen ? {} : { value: this.network.plain(first, code) };
    const common = { ...base, source: isOpen ? ('open' as const) : source(first), todo: isOpen && !settled.waits.has(first.index), ...written };
    if (entry.kind === 'number') return { ...common, allowed: this.ranges(first, free[first.index] as Set<number>) };
    if (entry.kind === 'yesno') return { ...common, yes: standing(first, 1), no: standing(first, 0) };
    const count = entry.kind === 'feature' ? entry.feature.options : [];
    const options = count.map((option, index): OptionState => ({
      id: option.id,
      standing: standing(first, index),
      taken: code === index,
      source: code === index ? source(first) : 'open',
      changeable: code === index ? (free[first.index]?.size ?? 0) > 1 : standing(first, index) === 'free',
    }));
    return { ...common, options };
  }

  private ranges(variable: Variable, free: Set<number>): AllowedRange[] {
    const codes = [...free].filter((code) => code >= 0).sort((a, b) => a - b);
    const ranges: [number, number][] = [];
    for (const code of codes) {
      const last = ranges[ranges.length - 1];
      if (last && last[1] === code - 1) last[1] = code;
      else ranges.push([code, code]);
    }
    const plain = (code: number) => String(this.network.plain(variable, code));
    return ranges.map(([least, most]) => ({ least: plain(least), most: plain(most) }));
  }
}

interface Settled {
  domains: Domain[];
  sources: Map<number, Source>;
  /** Open variables whose default waits for what a person has still to choose. */
  waits: Set<number>;
}

const order: Source[] = ['yours', 'asked', 'follows', 'advised', 'usual'];

function meets(witness: Witness, assume: Assumptions): boolean {
  for (const [variable, domain] of assume) if (!domain.includes(witness[variable] as number)) return false;
  return true;
}

/** Keeps a new build close to the one before, and to what is settled. */
function hintsFrom(witness: Witness | null, domains: readonly Domain[]): (number | undefined)[] {
  return domains.map((domain, index) => (witness && domain.includes(witness[index] as number) ? witness[index] : domain.find((code) => code !== HIDDEN && code !== NONE)));
}

/** Warnings and notes that hold for the settled values. */
function messages(network: Network, values: Values): Message[] {
  const reading = new Reading(network.model, values);
  return network.model.rules.flatMap(({ rule, severity, when, must, all, rows }) => {
    if ((severity === 'error' && rule.kind !== 'say') || !network.inForce(rule)) return [];
    const is = (formula: Parameters<Reading['run']>[0]) => reading.run(formula);
    const applies = !when || is(when) === true;
    const listed = rows?.some((row) => row.every((cell) => is(cell) === true));
    const unsettledRow = rows?.some((row) => row.some((cell) => is(cell) === open));
    const broken =
      rule.kind === 'say' ? true
        : rule.kind === 'table' ? !unsettledRow && listed === (rule.listed === 'forbidden')
          : all ? all.every((each) => is(each) === true)
            : must.some((each) => is(each) !== true && is(each) !== open);
    return applies && broken ? [{ rule: rule.id, severity: severity as Message['severity'], text: rule.reason }] : [];
  });
}


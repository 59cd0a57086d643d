/**
 * From decisions to a state: which decisions stand together, what is free beside them, what the layers
 * settle.
 */
import { plainAt, valueAt, type CompiledModel, type CompiledRule, type PlainValue } from '../../model';
import { always, type Lit, type Witness } from '../../solver';
import { assumedOf, litsOf, type Assumed } from '../encoding/assumed';
import { Encoding } from '../encoding/encoding';
import type {
  AllowedRange,
  Clash,
  Context,
  EngineInput,
  Limits,
  OptionState,
  RowState,
  Source,
  Standing,
  State,
} from '../types';
import { Explainer } from '../explain/explain';
import { Defaults, type Settled } from './defaults';
import { messagesOf, speakingRules } from './messages';
import { possible, type Range } from '../bounds/ranges';
import { OutOfBudget, WitnessCache } from './witness-cache';
import { Standings } from './standings';
import { variablesOf, type Code, type Variable } from '../encoding/variables';

/** What could not be decided in the budget. */
class Doubts {
  private readonly list = new Set<Variable | Code>();
  any = false;

  has(what: Variable | Code): boolean {
    return this.list.has(what);
  }

  add(what: Variable | Code): void {
    this.list.add(what);
    this.any = true;
  }

  /** The answer to a question about something; no, and a doubt, where it could not be had. */
  about(what: Code, question: () => boolean): boolean {
    return possible(question, () => this.add(what));
  }

  /**
   * The answer to a question; where it could not be had something else, and a doubt about what it was asked
   * of.
   */
  within<T>(question: () => T, otherwise: T, what: readonly Variable[]): T {
    try {
      return question();
    } catch (thrown) {
      if (!(thrown instanceof OutOfBudget)) throw thrown;
      this.any = true;
      for (const each of what) this.add(each);
      return otherwise;
    }
  }
}

/** Writes the state of a build, and what a budget left undecided. */
export class StateMaker {
  readonly encoding: Encoding;
  readonly variables: readonly Variable[];
  readonly byOn: ReadonlyMap<string, Variable>;
  /** What can be had beside the decisions of the state made last. */
  readonly witnesses: WitnessCache;
  readonly explainer: Explainer;
  private readonly standings: Standings;
  private readonly layers: Defaults;
  private readonly speaking: readonly CompiledRule[];
  private readonly ofRow = new Map<string, Variable[]>();

  constructor(
    model: CompiledModel,
    context: Context,
    private readonly limits: Limits = {},
  ) {
    this.encoding = new Encoding(model, context);
    this.variables = variablesOf(this.encoding);
    this.byOn = new Map(this.variables.map((variable) => [variable.on, variable]));
    for (const variable of this.variables)
      this.ofRow.set(variable.row.id, [...(this.ofRow.get(variable.row.id) ?? []), variable]);
    const { solver, preferred } = this.encoding;
    this.witnesses = new WitnessCache(solver, preferred);
    this.standings = new Standings(this.encoding, this.witnesses, new WitnessCache(solver, preferred));
    this.layers = new Defaults(this.encoding, this.variables, new WitnessCache(solver, preferred));
    this.explainer = new Explainer(this);
    this.speaking = speakingRules(this.encoding);
  }

  assumed(input: EngineInput): Assumed[] {
    return assumedOf(input, this.encoding, this.byOn);
  }

  /** Begins a question that may take the whole budget. */
  begin(): void {
    this.explainer.allow(this.limits);
    this.encoding.solver.allowance = this.limits.budget ?? Infinity;
    this.encoding.solver.stop = this.limits.stop;
  }

  state(input: EngineInput): State {
    const all = this.assumed(input);
    const doubts = new Doubts();
    const found = doubts.within(() => this.consistent(all), null, this.variables);
    // Not even a build that keeps the decisions was found in the budget, nor that there is none.
    if (!found) {
      for (const { codes } of this.variables) for (const code of codes) doubts.add(code);
      return this.write(all, [], new Map(), null, doubts);
    }
    const { kept, clashes } = found;
    const { base } = this.witnesses;
    // Where nothing can be built at all, no decision was kept.
    if (!base || !kept) return this.write(all, clashes, new Map(), null, doubts);
    const own = new Map<Variable, readonly Lit[]>(kept.map((each) => [each.variable, each.lits]));
    const free = new Map<Variable, Free>();
    const sources = new Map<Variable, Source>(kept.map((each) => [each.variable, each.source]));
    for (const variable of this.variables) {
      const found = this.freeOf(variable, own.get(variable), doubts);
      free.set(variable, found);
      if (!own.has(variable) && this.count(variable, found, doubts) === 1) sources.set(variable, 'follows');
    }
    const settled = doubts.within<Settled>(
      () => this.layers.settle(litsOf(kept), base, sources),
      {
        build: base,
        sources,
        given: new Map(),
        waits: new Set(),
        existence: ({ row }) => (row.shown === always ? 'shown' : 'open'),
        single: () => false,
      },
      this.variables.filter((variable) => !sources.has(variable)),
    );
    return this.write(all, clashes, free, settled, doubts);
  }

  private freeOf(variable: Variable, own: readonly Lit[] | undefined, doubts: Doubts): Free {
    const codes = variable.codes.map((code) => doubts.about(code, () => this.standings.free(code, own)));
    return {
      codes,
      count: codes.reduce((sum, free) => sum + Number(free), 0),
      ranges: this.standings.ranges(variable, own, () => doubts.add(variable)),
    };
  }

  /** Values a variable can have, its not existing among them; two stands for more. */
  private count(variable: Variable, { count, ranges }: Free, doubts: Doubts): number {
    const numbers = ranges.reduce((sum, [from, to]) => sum + Math.min(2, to - from + 1), 0);
    const unsure = doubts.any && (doubts.has(variable) || variable.codes.some((code) => doubts.has(code)));
    const mayHide =
      variable.hidden !== null && !doubts.within(() => !this.standings.canHide(variable), false, [variable]);
    return count + numbers + (unsure || mayHide ? 1 : 0);
  }

  /**
   * Keeps as many decisions as fit together, in the model's order; each one left out gives a clash with its
   * smallest cause.
   */
  private consistent(all: Assumed[]): { kept: Assumed[] | null; clashes: Clash[] } {
    if (!this.witnesses.move(litsOf(all))) return { kept: all, clashes: [] };
    if (this.witnesses.move([]))
      return { kept: null, clashes: [{ decisions: [], causes: this.explainer.conflict([]) }] };
    const kept: Assumed[] = [];
    const clashes: Clash[] = [];
    for (const each of all) {
      if (!this.witnesses.move(litsOf([...kept, each]))) {
        kept.push(each);
        continue;
      }
      const causes = this.explainer.clash(kept, each);
      const others = causes.flatMap((cause) => (cause.kind === 'decision' ? [cause.decision] : []));
      clashes.push({
        decisions: [...others.filter((decision) => decision !== each.decision), each.decision],
        causes,
      });
    }
    return { kept, clashes };
  }

  private write(
    all: Assumed[],
    clashes: Clash[],
    free: ReadonlyMap<Variable, Free>,
    settled: Settled | null,
    doubts: Doubts,
  ): State {
    const { encoding } = this;
    const clashing = new Set(clashes.flatMap((clash) => clash.decisions.map((decision) => decision.on)));
    const decided = new Map(all.map((each) => [each.variable, each]));
    const rows: Record<string, RowState> = {};
    const values: Record<string, PlainValue> = { today: encoding.context.date, ...encoding.context.values };
    for (const { id } of encoding.rows) {
      const writer = new RowWriter(this.ofRow.get(id) ?? [], {
        free,
        settled,
        decided,
        clashing,
        standings: this.standings,
        doubts,
      });
      const row = writer.write();
      rows[id] = row;
      if (row.value !== undefined) values[id] = row.value;
    }
    const sections = encoding.model.sections.map((section) => {
      const own = section.rows.flatMap((id) => rows[id] ?? []).filter((row) => row.shown);
      return {
        id: section.id,
        shown: own.length > 0,
        todo: own.filter((row) => row.todo).length,
        clashes: own.filter((row) => row.clashing).length,
      };
    });
    const complete = clashes.length === 0 && Object.values(rows).every((row) => row.value !== undefined);
    return {
      rows,
      values,
      clashes,
      messages: messagesOf(encoding.model, this.speaking, values),
      sections,
      complete,
      ...(doubts.any ? { unproven: true } : {}),
    };
  }
}

/** Values of a variable that are free: codes of a choice, ranges of a number. */
interface Free {
  /** Of each code, whether it is free, and how many are. */
  codes: readonly boolean[];
  count: number;
  ranges: readonly Range[];
}

interface Found {
  free: ReadonlyMap<Variable, Free>;
  /** Null where nothing can be built in the context at all. */
  settled: Settled | null;
  decided: ReadonlyMap<Variable, Assumed>;
  clashing: ReadonlySet<string>;
  standings: Standings;
  doubts: Doubts;
}

/** Places of the two codes of an option of a multiple choice. */
const [take, leave] = [0, 1];
const order: Source[] = ['yours', 'asked', 'follows', 'advised', 'usual'];
/** What somebody said counts also where it is that an option is not wanted. */
const isSaid = (source: Source): boolean => source === 'yours' || source === 'asked';

class RowWriter {
  private readonly first: Variable;

  constructor(
    private readonly variables: readonly Variable[],
    private readonly found: Found,
  ) {
    this.first = variables[0] as Variable;
  }

  write(): RowState {
    const { first, variables, found } = this;
    const clashing = variables.some((variable) => found.clashing.has(variable.on));
    const unproven = (): { unproven?: true } =>
      found.doubts.any && variables.some((variable) => found.doubts.has(variable)) ? { unproven: true } : {};
    const base = { id: first.row.id, clashing };
    const existence =
      first.row.shown === always
        ? 'shown'
        : ((found.settled &&
            found.doubts.within(() => found.settled?.existence(first) ?? null, null, [first])) ??
          'open');
    // A decision that clashes is still shown as it was made.
    const hidden = existence !== 'shown' && !variables.every((variable) => this.clashes(variable));
    if (hidden) {
      const value: PlainValue = first.row.kind === 'many' ? [] : null;
      return {
        ...base,
        shown: false,
        source: existence === 'hidden' ? 'follows' : 'open',
        todo: false,
        ...(existence === 'hidden' ? { value } : {}),
        ...unproven(),
      };
    }
    const shown = { ...base, shown: true };
    if (first.row.kind === 'many') return { ...shown, ...this.many(), ...unproven() };
    const code = this.value(first);
    const isOpen = code === undefined;
    const common = {
      ...shown,
      source: isOpen ? ('open' as const) : this.source(first),
      todo: isOpen && !found.settled?.waits.has(first),
      ...(isOpen ? {} : { value: code }),
      ...unproven(),
    };
    switch (first.row.kind) {
      case 'number':
        return {
          ...common,
          allowed: this.allowed(),
          ...(first.row.entry.grid.optional
            ? { mayBeEmpty: (found.free.get(first)?.ranges[0]?.[0] ?? 1) === 0 }
            : {}),
        };
      case 'yesno':
        return {
          ...common,
          ...(first.codes.some((code) => found.doubts.has(code)) ? { unproven: true } : {}),
          yes: this.standing(first, 0),
          no: this.standing(first, 1),
        };
      case 'choice': {
        const several = (found.free.get(first)?.count ?? 0) > 1;
        const options: OptionState[] = [];
        first.codes.forEach(({ value }, index) => {
          if (typeof value !== 'string') return;
          const standing = this.standing(first, index);
          const taken = value === code;
          options.push(
            this.marked(
              {
                id: value,
                standing,
                taken,
                source: taken ? common.source : 'open',
                changeable: taken ? several : standing === 'free',
              },
              first,
              index,
            ),
          );
        });
        return { ...common, options };
      }
    }
  }

  private many(): Pick<RowState, 'source' | 'todo' | 'options' | 'value'> {
    const { variables, found } = this;
    const options = variables.map((variable): OptionState => {
      const taken = this.value(variable) === true;
      const id = variable.on.slice(variable.row.id.length + 1);
      return this.marked(
        {
          id,
          standing: this.standing(variable, take),
          taken,
          source: this.source(variable),
          changeable: this.standing(variable, taken ? leave : take) === 'free',
        },
        variable,
        take,
      );
    });
    const open = variables.filter((variable) => this.value(variable) === undefined);
    const strongest =
      order.find((each) =>
        options.some((option) => option.source === each && (option.taken || isSaid(each))),
      ) ?? 'usual';
    const taken = options.filter((option) => option.taken).map((option) => option.id);
    return {
      source: open.length > 0 ? 'open' : strongest,
      todo: open.some((variable) => !found.settled?.waits.has(variable)),
      options,
      ...(open.length > 0 ? {} : { value: taken }),
    };
  }

  private clashes(variable: Variable): boolean {
    return this.found.clashing.has(variable.on) && this.found.decided.has(variable);
  }

  /** The value as it travels; undefined while open. */
  private value(variable: Variable): PlainValue | undefined {
    const { settled, decided } = this.found;
    if (this.clashes(variable)) return (decided.get(variable) as Assumed).decision.value;
    if (!settled) return undefined;
    const known = settled.sources.has(variable);
    if (!known && !this.found.doubts.within(() => settled.single(variable), false, [variable]))
      return undefined;
    const { row } = variable;
    if (row.kind === 'number') {
      const value = plainAt(row.entry.grid, settled.build.codes[row.number] as number);
      return row.entry.kind !== 'length' || value === null
        ? value
        : (decided.get(variable)?.decision.value ?? settled.given.get(variable) ?? undefined);
    }
    return valueIn(variable, settled.build);
  }

  private source(variable: Variable): Source {
    return (
      this.found.decided.get(variable)?.source ??
      this.found.settled?.sources.get(variable) ??
      (this.value(variable) === undefined ? 'open' : 'follows')
    );
  }

  private standing(variable: Variable, at: number): Standing {
    const { free, standings, doubts } = this.found;
    const code = variable.codes[at] as Code;
    if (free.get(variable)?.codes[at]) return 'free';
    return (
      standings.known(code) ??
      (doubts.about(code, () => standings.refused(code) === 'barred') ? 'barred' : 'swap')
    );
  }

  private marked(option: OptionState, variable: Variable, at: number): OptionState {
    const { doubts } = this.found;
    return doubts.any && doubts.has(variable.codes[at] as Code) ? { ...option, unproven: true } : option;
  }

  private allowed(): AllowedRange[] {
    const { row } = this.first;
    if (row.kind !== 'number') return [];
    const { grid } = row.entry;
    const plain = (code: number): string => String(valueAt(grid, code));
    const first = Number(grid.optional);
    return (this.found.free.get(this.first)?.ranges ?? []).flatMap(([from, to]) =>
      to < first ? [] : [{ least: plain(Math.max(from, first)), most: plain(to) }],
    );
  }
}

const valueIn = (variable: Variable, build: Witness): PlainValue | undefined =>
  variable.codes.find((code) => build.meets(code.wish.lits))?.value;

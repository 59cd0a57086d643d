/**
 * The command line of a model: `check`, `state`, `why`, `ways`, `best`, `count`, `read` and `cnf`.
 * A command gives a JSON value (or DIMACS text) and a code: 0 for yes, 1 for an answer of no, 2 where the
 * question itself is wrong.
 */
import {
  checkDecisions,
  checkUp,
  cnfOf,
  createEngine,
  OutOfBudget,
  readNumber,
  runModelTest,
  testEngines,
  writeDimacs,
  type BestQuestion,
  type Context,
  type Decision,
  type Engine,
  type Target,
  type Term,
  type TestResult,
} from '../engine';
import { compileModel, featureAt, withLibrary, type CompiledModel, type DecisionValue } from '../model';
import { partNumber } from '../numbering';

/** What a command reads besides its arguments. */
export interface Surroundings {
  /** Text of a file; throws where there is none. */
  read(path: string): string;
  /** Today as an ISO date. */
  today: string;
  /** Milliseconds of a clock that only runs on. */
  now(): number;
}

/** What a command writes, and the code that it ends with. */
export interface Answer {
  code: 0 | 1 | 2;
  /** Text is printed as it is, anything else as JSON. */
  out: unknown;
}

/** Seconds that a question may take, where not told otherwise. */
const usualSeconds = 60;
/** Time that counting builds may take. */
const countingMilliseconds = 1_000;
const usage = [
  'check FILE | count FILE | cnf FILE | read FILE PARTNUMBER',
  'state FILE [--set ROW=VALUE ...]',
  'why FILE [--set ...] --option FEATURE.OPTION | --value PARAMETER=VALUE',
  'ways FILE [--set ...] [--option FEATURE.OPTION | --value PARAMETER=VALUE]',
  'best FILE [--set ...] --minimize "FORMULA" [--weight N] [--bound "FORMULA<=N" | --bound "FORMULA>=N"]',
  'all with [--seconds N] and [--context FILE]: {"date": "2026-06-01", "values": {"region": "eu"}}',
];

class Wrong extends Error {
  constructor(readonly what: unknown) {
    super('wrong question');
  }
}

/** Runs a command on a model; writes nothing itself. */
export function runCommand(args: readonly string[], surroundings: Surroundings): Answer {
  try {
    return new Command(args, surroundings).run();
  } catch (thrown) {
    if (thrown instanceof Wrong) return { code: 2, out: { error: thrown.what } };
    throw thrown;
  }
}

class Command {
  private readonly name: string;
  private readonly plain: string[] = [];
  private readonly options = new Map<string, string[]>();
  /** Whether the time that the command may take is over. */
  private readonly stop: () => boolean;

  constructor(
    args: readonly string[],
    private readonly surroundings: Surroundings,
  ) {
    const [name = '', ...rest] = args;
    this.name = name;
    for (let at = 0; at < rest.length; at++) {
      const word = rest[at] as string;
      if (!word.startsWith('--')) {
        this.plain.push(word);
        continue;
      }
      const value = rest[++at];
      if (value === undefined) throw new Wrong(`${word} wants a value`);
      this.options.set(word.slice(2), [...(this.options.get(word.slice(2)) ?? []), value]);
    }
    const seconds = Number(this.options.get('seconds')?.[0] ?? usualSeconds);
    if (!(seconds > 0)) throw new Wrong('--seconds is not a number above zero');
    const end = surroundings.now() + 1000 * seconds;
    this.stop = () => surroundings.now() > end;
  }

  run(): Answer {
    const known = ['check', 'state', 'why', 'ways', 'best', 'count', 'read', 'cnf'];
    if (!known.includes(this.name)) throw new Wrong({ usage });
    const compiled = compileModel(this.document(this.plain[0] ?? fail('a model file is missing')));
    if (!compiled.ok) return { code: this.name === 'check' ? 1 : 2, out: { problems: compiled.problems } };
    const { model } = compiled;
    const context = this.context(model);
    switch (this.name) {
      case 'check': {
        const end = this.surroundings.now() + countingMilliseconds;
        const report = checkUp(model, context.date, () => this.surroundings.now() > end);
        const tests = this.tests(model, context);
        const fine = report.findings.length === 0 && tests.every((test) => test.failures.length === 0);
        return { code: fine ? 0 : 1, out: { ...report, tests } };
      }
      case 'count': {
        const end = this.surroundings.now() + countingMilliseconds;
        return { code: 0, out: checkUp(model, context.date, () => this.surroundings.now() > end).builds };
      }
      case 'cnf': {
        const cnf = cnfOf(model, context);
        return cnf
          ? { code: 0, out: writeDimacs(cnf) }
          : { code: 1, out: { error: 'a rule of this model needs arithmetic' } };
      }
      case 'read': {
        const read = readNumber(
          createEngine(model, context, { stop: this.stop }),
          this.plain[1] ?? fail('a part number is missing'),
        );
        return { code: read.is === 'build' ? 0 : 1, out: read };
      }
    }
    try {
      return this.configure(createEngine(model, context, { stop: this.stop }));
    } catch (thrown) {
      if (thrown instanceof OutOfBudget) return { code: 1, out: { unproven: true } };
      throw thrown;
    }
  }

  private tests(model: CompiledModel, context: Context): TestResult[] {
    const engineFor = testEngines(model, context);
    return (model.document.tests ?? []).map((test) => runModelTest(engineFor(test), test));
  }

  private configure(engine: Engine): Answer {
    const decisions = this.decisions(engine.model);
    const input = { decisions };
    if (this.name === 'state') {
      const state = engine.state(input);
      return {
        code: state.clashes.length === 0 ? 0 : 1,
        out: { ...state, partNumber: partNumber(engine.model, state.values).text },
      };
    }
    if (this.name === 'best') {
      const answer = engine.best(input, this.question(), { stop: this.stop });
      if (answer.is === 'unreadable') throw new Wrong(answer);
      return { code: answer.is === 'found' ? 0 : 1, out: answer };
    }
    const target = this.target(engine.model);
    if (this.name === 'ways') {
      const ways = engine.waysOut(input, target).map(({ changes, decisions: after, state }) => ({
        changes,
        decisions: after,
        complete: state.complete,
      }));
      return { code: ways.length > 0 ? 0 : 1, out: ways };
    }
    if (!target) throw new Wrong('--option or --value is missing');
    const causes = engine.reason(input, target);
    return {
      code: causes.length === 0 ? 0 : 1,
      out: {
        free: causes.length === 0,
        causes,
        second: causes.length === 0 ? [] : engine.secondReason(input, target),
      },
    };
  }

  /**
   * A document with the models and classes it names; those that it does not carry are looked for beside its
   * file.
   */
  private document(path: string): unknown {
    const given = this.json(path);
    const folder = path.includes('/') ? path.slice(0, path.lastIndexOf('/') + 1) : '';
    return withLibrary(given, (id) => {
      try {
        return this.json(`${folder}${id}.json`);
      } catch (thrown) {
        if (thrown instanceof Wrong) return undefined;
        throw thrown;
      }
    });
  }

  private json(path: string): unknown {
    try {
      // Editors of some systems put a mark of the byte order in front.
      return JSON.parse(this.surroundings.read(path).replace(/^\uFEFF/, ''));
    } catch (thrown) {
      throw new Wrong(`${path}: ${thrown instanceof Error ? thrown.message : 'cannot be read'}`);
    }
  }

  private context({ document }: CompiledModel): Context {
    const usual = Object.fromEntries(document.context.map((input) => [input.id, input.values[0]?.id ?? '']));
    const [file] = this.options.get('context') ?? [];
    const given = (file === undefined ? {} : this.json(file)) as Partial<Context>;
    for (const input of document.context) {
      const value = given.values?.[input.id];
      if (value !== undefined && !input.values.some((each) => each.id === value))
        throw new Wrong(`${input.id} has no value ${value}`);
    }
    return { date: given.date ?? this.surroundings.today, values: { ...usual, ...given.values } };
  }

  private decisions(model: CompiledModel): Decision[] {
    const found = (this.options.get('set') ?? []).map((text) => this.valueOf(model, text));
    const problems = checkDecisions(model, found);
    if (problems.length > 0) throw new Wrong({ decisions: problems });
    return found;
  }

  /**
   * "row=value"; of a yes/no or an option of a multiple choice "true" or "false", nothing after "=" for none.
   */
  private valueOf(model: CompiledModel, text: string): Decision {
    const [, on = '', written = ''] = /^([^=]+)=(.*)$/.exec(text) ?? fail(`"${text}" is not ROW=VALUE`);
    const kind = model.entries[model.slots.get(on) ?? -1]?.kind;
    const truth = kind === 'yesno' || on.includes('.');
    const value: DecisionValue =
      truth && (written === 'true' || written === 'false')
        ? written === 'true'
        : written === ''
          ? null
          : written;
    return { on, value };
  }

  private target(model: CompiledModel): Target | undefined {
    const [option] = this.options.get('option') ?? [];
    const [value] = this.options.get('value') ?? [];
    if (option === undefined)
      return value === undefined ? undefined : this.checked(model, this.valueOf(model, value));
    const [id = '', chosen = ''] = option.split('.');
    const many = (featureAt(model, id)?.most ?? 1) > 1;
    return this.checked(model, many ? { on: option, value: true } : { on: id, value: chosen });
  }

  private checked(model: CompiledModel, target: Target): Target {
    const problems = checkDecisions(model, [target]);
    if (problems.length > 0) throw new Wrong({ decisions: problems });
    return target;
  }

  private question(): BestQuestion {
    const formulas = this.options.get('minimize') ?? fail('--minimize is missing');
    const weights = this.options.get('weight') ?? [];
    const terms = formulas.map((formula, index): Term => ({ formula, weight: weights[index] ?? '1' }));
    const bounds = (this.options.get('bound') ?? []).map((text) => {
      const [, formula = '', sign = '', limit = ''] =
        /^(.*?)\s*(<=|>=)\s*(-?[\d.]+)$/.exec(text) ?? fail(`"${text}" is not FORMULA<=N or FORMULA>=N`);
      return { of: [{ formula, weight: '1' }], ...(sign === '<=' ? { most: limit } : { least: limit }) };
    });
    return { minimize: terms, bounds };
  }
}

function fail(what: string): never {
  throw new Wrong(what);
}

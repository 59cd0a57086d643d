/** What a draft of a model comes to, as a worker works it out: whether it is sound, and a build tried out on it. */
import {
  checkDecisions,
  createEngine,
  lookAtRule,
  lookAtTable,
  runModelTest,
  testEngines,
  usualLimits,
  type Context,
  type Decision,
  type Engine,
  type RuleLook,
  type TableLook,
  type Target,
  type TestResult,
} from '../../core/engine';
import {
  compileModel,
  open,
  outlineOf,
  Reading,
  type CompiledModel,
  type ModelDocument,
} from '../../core/model';
import type { ModelProblem, Outline } from '../../core/model';
import { pictureOf, type BenchMeans, type BenchPicture } from '../../core/builds';
import { sceneOf, type Scene } from '../../core/drawing';
import { numberBySegment } from '../../core/numbering';
import type { Tariff } from '../../core/pricing';
import type { Why } from '../bench/types';
import { whyOf } from '../bench/why';

/** What a draft is tried out with. */
export interface TryMeans {
  tariff: Tariff;
  facts: Readonly<Record<string, { leadDays: number; mass?: string }>>;
  /** A day in ISO form. */
  today: string;
}

/** What came of a draft. */
export interface Tried {
  problems: readonly ModelProblem[];
  /** Of a model that compiles. */
  seen?: {
    outline: Outline;
    picture: BenchPicture;
    scene: Scene | null;
    context: Context;
    /** Those that still have a place. */
    decisions: readonly Decision[];
    /** Rules whose condition holds in what is tried. */
    fired: readonly string[];
    /** What each segment of the number comes to: null while it is open, "" where it is not there. */
    segments: readonly (string | null)[];
  };
}

/** A document by its number; with it when it is first spoken of. */
export interface Edition {
  number: number;
  document?: ModelDocument;
}

/** An edition that was compiled. */
interface Compiled {
  number: number;
  document: ModelDocument;
  model: CompiledModel | null;
  problems: readonly ModelProblem[];
  /** Its engine in the context that was tried last. */
  engine?: Engine;
}

/** Builds are counted for so many milliseconds at most while a rule is written. */
const countingTime = 300;
/** An example is looked for with so many conflicts at most. */
const exampleBudget = 20_000;

const pause = () => new Promise((next) => setTimeout(next));

/** Compiles and tries, one document after another. */
export class DraftComputation {
  private means: TryMeans | undefined;
  private last: Compiled | undefined;

  open(means: TryMeans): void {
    this.means = means;
  }

  /** Tries an edition with decisions, in a context whose first values stand where nothing is said. */
  try(edition: Edition, decisions: readonly Decision[], values: Readonly<Record<string, string>>): Tried {
    const { means } = this;
    if (!means) throw new Error('a draft is opened first');
    const compiled = this.compiled(edition);
    const { document, model, problems } = compiled;
    if (!model) return { problems };
    const lost = new Set(checkDecisions(model, [...decisions]).map(({ on }) => on));
    const kept = decisions.filter(({ on }) => !lost.has(on));
    const engine = this.engineOf(compiled, model, values);
    const { context } = engine;
    const picture = pictureOf(meansOf(engine, means), { decisions: [...kept], special: [] });
    return {
      problems,
      seen: {
        outline: outlineOf(model),
        picture,
        scene: document.drawing ? sceneOf(model, picture.state.values) : null,
        context,
        decisions: kept,
        fired: firedIn(model, picture),
        segments: numberBySegment(model, picture.state.values).map((cell) => (cell ? cell.text : '')),
      },
    };
  }

  /**
   * Runs the tests of the edition that was tried last, one at a time; nothing where another is asked about meanwhile,
   * which does not wait for them.
   */
  async test(number: number): Promise<readonly TestResult[] | null> {
    const { last, means } = this;
    if (last?.number !== number || !last.model || !means) return null;
    const { model } = last;
    const engineOf = testEngines(model, { date: means.today, values: contextOf(model, {}) });
    const results: TestResult[] = [];
    for (const test of model.document.tests ?? []) {
      await pause();
      if (this.last !== last) return null;
      results.push(runModelTest(engineOf(test), test));
    }
    return results;
  }

  /** Looks at a rule of the edition that was tried last; nothing where that is another by now. */
  look(number: number, rule: string, values: Readonly<Record<string, string>>): RuleLook | null {
    const { last, means } = this;
    if (last?.number !== number || !last.model || !means) return null;
    const context: Context = { date: means.today, values: contextOf(last.model, values) };
    const end = performance.now() + countingTime;
    return lookAtRule(last.model, context, rule, () => performance.now() > end);
  }

  /** Looks at the rows of a table rule beside each other. */
  table(number: number, rule: string): TableLook | null {
    const { last, means } = this;
    if (last?.number !== number || !last.model || !means) return null;
    return lookAtTable(last.model, means.today, rule);
  }

  /** Why something cannot be had in what is tried, and the ways to it; nothing where that is another by now. */
  why(
    number: number,
    decisions: readonly Decision[],
    values: Readonly<Record<string, string>>,
    target: Target,
  ): Why | null {
    const { last, means } = this;
    if (last?.number !== number || !last.model || !means) return null;
    const engine = this.engineOf(last, last.model, values);
    const made = { decisions: [...decisions], special: [] };
    return whyOf(engine, (each) => pictureOf(meansOf(engine, means), each), made, target);
  }

  /** The drawing of some complete build that keeps what is decided; nothing where none is found soon. */
  example(
    number: number,
    decisions: readonly Decision[],
    values: Readonly<Record<string, string>>,
  ): Scene | null {
    const { last } = this;
    if (last?.number !== number || !last.model?.document.drawing) return null;
    const engine = this.engineOf(last, last.model, values);
    const found = engine.best({ decisions: [...decisions] }, { minimize: [] }, { budget: exampleBudget });
    return found.is === 'found'
      ? sceneOf(last.model, engine.state({ decisions: found.decisions }).values)
      : null;
  }

  /** The engine of an edition; the same one as long as nothing about its place changes. */
  private engineOf(
    compiled: Compiled,
    model: CompiledModel,
    values: Readonly<Record<string, string>>,
  ): Engine {
    const context: Context = { date: this.means?.today ?? '', values: contextOf(model, values) };
    const { engine } = compiled;
    if (engine && JSON.stringify(engine.context) === JSON.stringify(context)) return engine;
    return (compiled.engine = createEngine(model, context, usualLimits));
  }

  private compiled({ number, document }: Edition): Compiled {
    if (this.last?.number === number) return this.last;
    if (!document) throw new Error('an edition comes with its document first');
    const result = compileModel(document);
    this.last = {
      number,
      document,
      model: result.ok ? result.model : null,
      problems: result.ok ? [] : result.problems,
    };
    return this.last;
  }
}

const meansOf = (engine: Engine, { tariff, facts, today }: TryMeans): BenchMeans => ({
  engine,
  tariff,
  facts,
  terms: { quantity: 1, day: today },
});

function contextOf(
  { document }: CompiledModel,
  values: Readonly<Record<string, string>>,
): Record<string, string> {
  return Object.fromEntries(
    document.context.flatMap(({ id, values: known }) => {
      const chosen = known.find((each) => each.id === values[id]) ?? known[0];
      return chosen ? [[id, chosen.id]] : [];
    }),
  );
}

/** Rules of the model itself whose condition holds; those without one hold always, and say nothing by it. */
function firedIn(model: CompiledModel, { state }: BenchPicture): string[] {
  const reading = new Reading(model, state.values);
  const holds = (path: string): boolean => reading.at(path) === true;
  return model.rules
    .filter(({ rule, when, all }) => {
      if (rule.id.includes('/')) return false;
      if (when) {
        const value = reading.run(when);
        return value !== open && value === true;
      }
      return all !== undefined && all.some((each) => reading.run(each) === true);
    })
    .map(({ rule }) => rule.id)
    .concat(
      model.document.rules.flatMap(({ id, kind }) =>
        (kind === 'show' || kind === 'usual' || kind === 'set') && holds(`rules.${id}.when`) ? [id] : [],
      ),
    );
}

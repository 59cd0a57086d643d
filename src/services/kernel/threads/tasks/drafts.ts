/** What a draft of a model is worth: whether it is sound, and what it would make of builds out there. */
import {
  contextsOf,
  examineIn,
  foundTogether,
  runModelTest,
  testEngines,
  type Decision,
  type Context,
  type Finding,
  type FoundIn,
  type TestResult,
} from '../../../../core/engine';
import { compileModel, type ModelDocument, type ModelProblem } from '../../../../core/model';
import { impactOn, type BuildImpact } from '../../../../core/modelling';
import type { SpecialPart } from '../../../../core/builds';
import type { Surroundings } from '../thread';
import { engineFor, type Kept } from './kept';

/** A build that a draft is tried on, with the version it stands on. */
export interface BuildToTry {
  version: string;
  /** The list that it is priced by. */
  tariff: string;
  values: Record<string, string>;
  asked: readonly Decision[];
  decisions: readonly Decision[];
  special: readonly SpecialPart[];
}

function tested(
  document: ModelDocument,
  day: string,
): { problems: ModelProblem[]; tests: TestResult[]; contexts: Context[] } {
  const result = compileModel(document);
  if (!result.ok) return { problems: result.problems, tests: [], contexts: [] };
  const { model } = result;
  const values = Object.fromEntries(
    model.document.context.flatMap(({ id, values: [first] }) => (first ? [[id, first.id]] : [])),
  );
  const engineOf = testEngines(model, { date: day, values });
  const tests = (model.document.tests ?? []).map((test) => runModelTest(engineOf(test), test));
  return { problems: [], tests, contexts: contextsOf(model, day) };
}

function examinedIn(document: ModelDocument, context: Context): FoundIn {
  const result = compileModel(document);
  return result.ok ? examineIn(result.model, context) : { always: [], possible: [] };
}

/** Tasks of the Workshop. */
export const draftTasks = (kept: Kept) => ({
  /** Compiles a document, examines it on a day, and runs its tests. What does not compile is not examined. */
  examine: ({
    document,
    day,
  }: {
    document: ModelDocument;
    day: string;
  }): { problems: ModelProblem[]; findings: Finding[]; tests: TestResult[] } => {
    const { problems, tests, contexts } = tested(document, day);
    return {
      problems,
      findings: foundTogether(contexts.map((context) => examinedIn(document, context))),
      tests,
    };
  },

  /** Compiles a document and runs its tests on a day; the contexts are what is left to examine. */
  testDraft: ({ document, day }: { document: ModelDocument; day: string }) => tested(document, day),

  /** Examines a document that compiles in one context. */
  examineIn: ({ document, context }: { document: ModelDocument; context: Context }): FoundIn =>
    examinedIn(document, context),

  /** What a draft would make of some builds, all by the prices and on the day given. */
  impact: (
    {
      draft,
      day,
      facts,
      builds,
    }: { draft: string; day: string; facts: string; builds: readonly BuildToTry[] },
    surroundings: Surroundings,
  ): BuildImpact[] =>
    builds.map(({ version, tariff, values, asked, decisions, special }) => {
      const means = (on: string) => ({
        engine: engineFor(kept, { version: on, context: { date: day, values }, asked }, surroundings),
        tariff: kept.tariff(tariff),
        terms: { quantity: 1, day },
        facts: kept.facts(facts),
      });
      return impactOn(means(version), means(draft), { decisions: [...decisions], special: [...special] });
    }),
});

/** What a draft of a model is worth: whether it is sound, and what it would make of builds out there. */
import {
  checkUp,
  runModelTest,
  testEngines,
  type Decision,
  type Finding,
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
    const result = compileModel(document);
    if (!result.ok) return { problems: result.problems, findings: [], tests: [] };
    const { model } = result;
    const values = Object.fromEntries(
      model.document.context.flatMap(({ id, values: [first] }) => (first ? [[id, first.id]] : [])),
    );
    const engineOf = testEngines(model, { date: day, values });
    const tests = (model.document.tests ?? []).map((test) => runModelTest(engineOf(test), test));
    // How many builds there are is asked for apart.
    return { problems: [], findings: checkUp(model, day, () => true).findings, tests };
  },

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

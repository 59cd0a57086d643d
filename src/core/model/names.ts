/** Looking things up in the places of a model, and compiling formulas there. */
import { compileFormula, type Expr, type FeelType, type Formula, type FormulaProblem } from '../formula';
import type { Entry } from './entries';
import { named } from './expressions';
import { yesno, type Declaration, type Draft, type Home } from './places';
import type { ModelProblem } from './problem';

/** Names that formulas of a model may use. */
export class Names {
  constructor(
    readonly declaration: Declaration,
    readonly report: (
      path: string,
      code: ModelProblem['code'],
      params?: ModelProblem['params'],
      at?: number,
    ) => void,
  ) {}

  /** The slot of a row or calculation by the id that a place calls it. */
  slotOf({ scope, prefix }: Home, id: string): number | undefined {
    return this.declaration.slots.get(scope.get(id)?.id ?? prefix + id);
  }

  draft(home: Home, id: string): Draft | undefined {
    return this.declaration.drafts[this.slotOf(home, id) ?? -1];
  }

  entry(home: Home, id: string): Entry | undefined {
    return this.draft(home, id)?.entry;
  }

  typeAt(home: Home, id: string): FeelType | undefined {
    return this.draft(home, id)?.type;
  }

  nameOf(home: Home, id: string): Expr {
    const slot = this.slotOf(home, id) as number;
    return named((this.declaration.drafts[slot]?.entry as Entry).id, slot);
  }

  /** `before`: characters of the source that the modeller did not write. */
  formula({ scope }: Home, path: string, source: string, wanted: FeelType, before = 0): Formula | undefined {
    const compiled = compileFormula(source, scope, wanted);
    if (compiled.ok) return compiled.formula;
    this.formulaProblems(
      path,
      before === 0
        ? compiled.problems
        : compiled.problems.map((problem) => ({ ...problem, at: Math.max(0, problem.at - before) })),
    );
    return undefined;
  }

  formulaProblems(path: string, problems: FormulaProblem[]): void {
    for (const { code, at, params } of problems) this.report(path, code, params, at);
  }

  condition(home: Home, path: string, source: string | undefined): Formula | undefined {
    return source === undefined ? undefined : this.formula(home, path, source, yesno);
  }
}

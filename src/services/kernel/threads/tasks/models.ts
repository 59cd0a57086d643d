/** What a model says of decisions and values: whether it takes them, what follows, numbers and words. */
import { checkDecisions, OutOfBudget, type Decision, type DecisionProblem } from '../../../../core/engine';
import { exact } from '../../../../core/exact';
import {
  compileModel,
  open,
  Reading,
  type CompiledModel,
  type ModelDocument,
  type ModelProblem,
  type Values,
} from '../../../../core/model';
import {
  markedSpecial,
  partNumber,
  registrations,
  sequenceKey,
  type Registration,
} from '../../../../core/numbering';
import { warningsOf, type BuildContent, type WarningView } from '../../../../core/builds';
import { reachedIn, summarise, type Reached, type SummaryRow } from '../../../builds/build-summary';
import type { Surroundings } from '../thread';
import { engineFor, type Built, type Given, type Kept } from './kept';

/** What follows from what was made of a build. */
export interface Outcome {
  values: Values;
  complete: boolean;
  todo: number;
  clashes: number;
  warnings: WarningView[];
  mass?: string;
}

/** Mass by the model's own figure, in kg whatever unit the model reckons in. */
function massIn(model: CompiledModel, values: Values): { mass?: string } {
  const { mass } = model.document.figures;
  const value = mass === undefined ? open : new Reading(model, values).named(mass);
  if (value === open || value === null) return {};
  const unit = model.document.calculations.find(({ id }) => id === mass)?.unit;
  return {
    mass: exact(String(value))
      .times(unit === 't' ? 1000 : 1)
      .toString(),
  };
}

/** What has to be registered of a build itself, and of those inside it. */
function toRegister(
  model: CompiledModel,
  values: Values,
): { own: Registration | undefined; inside: Registration[] } {
  const all = registrations(model, values);
  const needed = sequenceKey(model, values) !== null;
  return { own: needed ? all[0] : undefined, inside: needed ? all.slice(1) : all };
}

/** Tasks that need a model alone. */
export const modelTasks = (kept: Kept) => ({
  /** Why a document is no model; nothing where it is one. */
  compile: ({ document }: { document: ModelDocument }): ModelProblem[] => {
    const result = compileModel(document);
    return result.ok ? [] : result.problems;
  },

  /** What a model has no place for. */
  check: ({ version, decisions }: { version: string; decisions: readonly Decision[] }): DecisionProblem[] =>
    checkDecisions(kept.model(version), decisions),

  /** All that follows from what was made, and what has to be registered where codes cannot say it. */
  outcome: (
    { decisions, passed, ...given }: Given & Pick<BuildContent, 'decisions' | 'passed'>,
    surroundings: Surroundings,
  ): { outcome: Outcome; own: Registration | undefined; inside: Registration[] } => {
    const model = kept.model(given.version);
    const state = engineFor(kept, given, surroundings).state({ decisions });
    // What was cut short is not proven, and is never kept as what follows from a build.
    if (surroundings.stopped()) throw new OutOfBudget();
    return {
      outcome: {
        values: state.values,
        complete: state.complete,
        todo: state.sections.reduce((sum, section) => sum + section.todo, 0),
        clashes: state.clashes.length,
        warnings: warningsOf(state, passed),
        ...massIn(model, state.values),
      },
      ...(state.complete ? toRegister(model, state.values) : { own: undefined, inside: [] }),
    };
  },

  /** The part number with what is registered for it. */
  number: ({
    version,
    values,
    sequence,
    special,
  }: Built & { sequence?: number; special?: { number: number | undefined } }): string => {
    const text = partNumber(kept.model(version), values, sequence);
    return (special ? markedSpecial(text, special.number) : text).text;
  },

  registrations: ({ version, values }: Built): Registration[] => registrations(kept.model(version), values),

  /** Builds in words. */
  words: (builds: readonly Built[]): { rows: SummaryRow[]; reached: Reached[] }[] =>
    builds.map(({ version, values }) => ({
      rows: summarise(kept.model(version), values),
      reached: reachedIn(kept.model(version), values),
    })),
});

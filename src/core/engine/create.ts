/** From a compiled model and a context to an engine. */
import type { CompiledModel, ModelTest } from '../model';
import { bestBuild } from './answers/best';
import type { Context, Limits } from './types';
import type { Engine } from './engine';
import { enginesFor } from './examine/model-tests';
import { StateMaker } from './answers/state';

/**
 * Conflicts that a question of a person may take: far more than any that was ever needed, and still an end.
 */
export const usualLimits: Limits = { budget: 200_000 };

/**
 * `limits` hold for each question. A state that reaches them says of what it is not proven; a cause is then
 * one that forbids, if not a
 * smallest; where not even that is known, `OutOfBudget` is thrown and nothing is claimed.
 */
export function createEngine(model: CompiledModel, context: Context, limits: Limits = {}): Engine {
  const maker = new StateMaker(model, context, limits);
  const begun = (): StateMaker => {
    maker.begin();
    return maker;
  };
  return {
    model,
    context,
    state: (input) => begun().state(input),
    reason: (input, target) => begun().explainer.reason(input, target),
    secondReason: (input, target) => begun().explainer.secondReason(input, target),
    waysOut: (input, target) => begun().explainer.waysOut(input, target),
    best: (input, question, options) => bestBuild(model, context, input, question, options),
    changesNeeded: (input, target) => begun().explainer.changesNeeded(input, target),
  };
}

/**
 * Engines of a model for its tests, by the day and the context that they name; `usual` is what they leave
 * open.
 */
export const testEngines = (model: CompiledModel, usual: Context): ((test: ModelTest) => Engine) =>
  enginesFor(model, usual, createEngine);

/** An engine for a build whose needs were answered. */
import type { Engine } from './engine';
import type { Decision, EngineInput } from './types';

/**
 * The same engine, to which the answers belong like the context: whatever it is asked, it is asked with them.
 * A person's decision on the same thing still wins.
 */
export function withAsked(engine: Engine, asked: readonly Decision[]): Engine {
  if (asked.length === 0) return engine;
  const given = (input: EngineInput): EngineInput => ({ asked, ...input });
  return {
    model: engine.model,
    context: engine.context,
    state: (input) => engine.state(given(input)),
    reason: (input, target) => engine.reason(given(input), target),
    secondReason: (input, target) => engine.secondReason(given(input), target),
    waysOut: (input, target) => engine.waysOut(given(input), target),
    best: (input, question, options) => engine.best(given(input), question, options),
    changesNeeded: (input, target) => engine.changesNeeded(given(input), target),
  };
}

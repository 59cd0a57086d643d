/** The questions that an engine answers. */
import type { CompiledModel } from '../model';
import type { BestAnswer, BestOptions, BestQuestion } from './answers/best';
import type { Cause, Context, EngineInput, State, Target, WayOut } from './types';

/** A model bound to a context. */
export interface Engine {
  readonly model: CompiledModel;
  readonly context: Context;
  state(input: EngineInput): State;
  /**
   * A smallest cause for a value that is not free: taking away any one part removes the bar. Empty when it is
   * free.
   */
  reason(input: EngineInput, target: Target): Cause[];
  /** Another smallest cause, independent of the first as far as there is one; empty where there is none. */
  secondReason(input: EngineInput, target: Target): Cause[];
  /**
   * Smallest changes of decisions that make the target possible (or, without target, that solve the clashes);
   * fewest changes first, what is given from outside last.
   */
  waysOut(input: EngineInput, target?: Target): WayOut[];
  /**
   * The best complete build that keeps the decisions: proven, or the best so far with its gap. Never throws
   * for want of time.
   */
  best(input: EngineInput, question: BestQuestion, options?: BestOptions): BestAnswer;
  /**
   * How many decisions the smallest way out changes; null where there is none. Far cheaper than the ways
   * themselves.
   */
  changesNeeded(input: EngineInput, target: Target): number | null;
}

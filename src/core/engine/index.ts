/**
 * The engine: from decisions to a state, exactly.
 *
 * `createEngine` binds a compiled model to a context. Everything it answers is a pure function of its input;
 * what it keeps
 * between calls (complete builds already found) only makes the same answers faster.
 *
 * Promises (tested against brute force): an option is free if and only if a complete valid build has it and
 * keeps every decision;
 * decisions are never changed; the state does not depend on the order of decisions; every reason is minimal;
 * every way out works.
 */
import type { CompiledModel, DecisionValue, ModelTest, PlainValue, Severity, Texts, Values } from '../model';
import { bestBuild, type BestAnswer, type BestOptions, type BestQuestion } from './best';
import type { Context } from './encoding';
import { enginesFor } from './model-tests';
import { StateMaker, type Limits } from './state';

export type { Context } from './encoding';
export type { BestAnswer, BestOptions, BestProgress, BestQuestion, Term } from './best';
export { checkUp, type Finding } from './checkup';
export { cnfOf, writeDimacs, type Cnf } from './dimacs';
export { runModelTest, type TestResult } from './model-tests';
export { readNumber, type ReadBack } from './read';
export { OutOfBudget } from './reach';
export type { Limits } from './state';
export { checkDecisions, type DecisionProblem } from './decisions';
export { differences, type Difference } from './differences';

/** One value that a person set. `on` is "feature", "feature.option" (taken or not) or "parameter". */
export interface Decision {
  on: string;
  value: DecisionValue;
}

export interface EngineInput {
  /** From the needs answered; a person's decision on the same thing wins. */
  asked?: readonly Decision[];
  decisions: readonly Decision[];
}

export type Source = 'yours' | 'asked' | 'follows' | 'advised' | 'usual' | 'open';
/** free: can be taken now. swap: could, if decisions change. barred: cannot be had in this context. */
export type Standing = 'free' | 'swap' | 'barred';

export interface OptionState {
  id: string;
  standing: Standing;
  taken: boolean;
  /** Where the option's being taken or not comes from. */
  source: Source;
  /** Whether a person may still change it: false where a rule forces it. */
  changeable: boolean;
  /** The budget ended before it was known whether it is free: it is shown as if it were not. */
  unproven?: true;
}

/**
 * Allowed numbers from least to most, in the parameter's steps; of a date ISO days, of a text its lengths.
 */
export interface AllowedRange {
  least: string;
  most: string;
}

export interface RowState {
  id: string;
  shown: boolean;
  /** Absent while open. */
  value?: PlainValue;
  source: Source;
  /** Something must still be chosen. */
  todo: boolean;
  /** A decision on it cannot stand beside others. */
  clashing: boolean;
  /** Of a feature. */
  options?: OptionState[];
  /** Of a number: exactly the values that lead to a complete build. */
  allowed?: AllowedRange[];
  /** Of an optional number, date or text: whether it may stay without a value. */
  mayBeEmpty?: boolean;
  /** Of a yes/no parameter. */
  yes?: Standing;
  no?: Standing;
  /** The budget ended before its values, its being there, or what it comes to by itself was decided. */
  unproven?: true;
}

/** One thing that takes part in a "no". */
export type Cause =
  | { kind: 'decision'; decision: Decision }
  /** `help`: where to read more. */
  | { kind: 'rule'; rule: string; reason: Texts; help?: string }
  /** What a feature itself asks, such as a least number of options. */
  | { kind: 'shape'; row: string };

export interface Clash {
  decisions: Decision[];
  causes: Cause[];
}

export interface Message {
  rule: string;
  severity: Exclude<Severity, 'error'>;
  text: Texts;
  /** Where to read more. */
  help?: string;
}

export interface State {
  rows: Readonly<Record<string, RowState>>;
  /**
   * Values by id of what is settled, context included; what prices, part number and materials are read from.
   */
  values: Values;
  clashes: Clash[];
  messages: Message[];
  sections: { id: string; shown: boolean; todo: number; clashes: number }[];
  /** Nothing to do and no clash: the build can be sold and made. */
  complete: boolean;
  /** The budget ended somewhere: what is claimed is true, but something that could be had may be missing. */
  unproven?: true;
}

export interface Target {
  on: string;
  value: DecisionValue;
}

export interface WayOut {
  /** Decisions that change: from what, to what; undefined where it is left to the rules. */
  changes: { on: string; from: DecisionValue; to: DecisionValue | undefined }[];
  /**
   * Rows that change though the site or the customer gives them; absent where none does. Such ways come last.
   */
  given?: string[];
  /** The decisions after taking this way out, the wished-for one included. */
  decisions: Decision[];
  state: State;
}

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

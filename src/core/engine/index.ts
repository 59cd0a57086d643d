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
export type { Context } from './types';
export type { BestAnswer, BestOptions, BestProgress, BestQuestion, Term } from './answers/best';
export { checkUp, examineIn, foundTogether, type Finding, type FoundIn } from './examine/checkup';
export { lookAtRule, type RuleLook } from './examine/one-rule';
export { cnfOf, writeDimacs, type Cnf } from './answers/dimacs';
export { contextsOf, lookAtTable, type TableLook } from './examine/tables';
export { runModelTest, type TestResult } from './examine/model-tests';
export { readNumber, type ReadBack } from './answers/read';
export { OutOfBudget } from './answers/witness-cache';
export { checkDecisions, type DecisionProblem } from './answers/decisions';
export { differences, type Difference } from './answers/differences';
export type { Engine } from './engine';
export { withAsked } from './asked';
export { createEngine, testEngines, usualLimits } from './create';
export type {
  Decision,
  Source,
  Standing,
  OptionState,
  AllowedRange,
  RowState,
  Cause,
  Message,
  State,
  Target,
  WayOut,
} from './types';

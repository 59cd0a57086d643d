import type { Lit } from '../../solver';
import type { Encoding } from './encoding';
import type { Decision, EngineInput } from '../types';
import type { Variable } from './variables';

/** A decision as the literals that it fixes. */
export interface Assumed {
  decision: Decision;
  variable: Variable;
  lits: readonly Lit[];
  source: 'yours' | 'asked';
}

/**
 * Decisions in the order of the model, so that nothing depends on the order in which they were made. A
 * person's comes before an asked one.
 */
export function assumedOf(
  { asked = [], decisions }: EngineInput,
  encoding: Encoding,
  byOn: ReadonlyMap<string, Variable>,
): Assumed[] {
  const found = new Map<string, Assumed>();
  for (const [source, list] of [
    ['asked', asked],
    ['yours', decisions],
  ] as const) {
    for (const decision of list) {
      const variable = byOn.get(decision.on);
      const lits = encoding.decided(decision.on, decision.value);
      if (variable && lits) found.set(decision.on, { decision, variable, lits, source });
    }
  }
  return [...found.values()].sort((a, b) => a.variable.index - b.variable.index);
}

/** All literals that decisions fix. */
export const litsOf = (list: readonly Assumed[]): Lit[] => list.flatMap((each) => each.lits);

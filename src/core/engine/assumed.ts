import type { Decision } from './index';
import type { Domain, Variable } from './network';

/** A decision on a variable, as the codes it leaves: its own, and "hidden" where the variable may not exist. */
export interface Assumed {
  decision: Decision;
  variable: Variable;
  domain: Domain;
  source: 'yours' | 'asked';
}

export const assumptions = (list: readonly Assumed[]): Map<number, Domain> => new Map(list.map((each) => [each.variable.index, each.domain]));

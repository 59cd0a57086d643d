/**
 * The solver: clauses, cardinalities, numbers and theories under assumptions.
 *
 * It learns a clause from every conflict and keeps it, so that asking gets faster. It answers most questions
 * by repair:
 * given a witness of nearly the same question it changes only what the new assumptions touch, and searches
 * there.
 * A "no" comes with the assumptions that cause it.
 */
export { always, never, not, variableOf, type Lit } from './literal';
export { Witness } from './witness';
export { Solver } from './solver';
export type { Clauses, Overlay, Theory } from './theory';

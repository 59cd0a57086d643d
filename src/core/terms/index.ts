/** What is said from a day on: kinds of terms, what holds, what is wrong, and what becomes of rows that are changed. */
export { inForce, standOf, type Dated, type Stand } from './in-force';
export { termKindIds, termKinds, type TermField, type TermKindId } from './kinds';
export { termKey, termProblems, type TermMeans } from './check';
export { readCondition, writeCondition } from './conditions';
export { readLevels, writeLevels } from './levels';
export { afterSteps, planFor, planRemoval, standAmong, standsOf, type KeptTerm, type TermStep } from './plan';

/** A field for a text in a language of its own. Fetched by the rooms that have one. */
export type { CodeProblem } from './code-problem';
export { CodeField, type CodeProposal, type CodeProposals } from './CodeField';

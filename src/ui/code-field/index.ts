/** A field for a text in a language of its own. Fetched by the rooms that have one. */
export { CodeField, type CodeProblem, type CodeProposal, type CodeProposals } from './CodeField';

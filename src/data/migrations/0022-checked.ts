import type { Migration } from './migration';

/** What the check-up of a draft came to, for the document and the day for which it was made. */
export const checked: Migration = {
  name: '0022-checked',
  up: `
alter table model_drafts add column checked json;
`,
};

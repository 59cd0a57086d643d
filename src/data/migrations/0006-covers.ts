import type { Migration } from './index';

/** For how long an item covers what it is sold with, such as a warranty. */
export const covers: Migration = {
  name: '0006-covers',
  up: `
alter table items add column covers_months int check (covers_months between 1 and 600);
`,
};

import type { Migration } from './index';

/** What a piece costs whose price is typed on the line, where that is known better than in general. */
export const ownCost: Migration = {
  name: '0007-own-cost',
  up: `
alter table quote_lines add column typed_cost numeric(18,6) check (typed_cost >= 0);
`,
};

import type { Migration } from './migration';

/**
 * Prices that an item has inside a bundle, and for how long an item covers what it is sold with, such as a
 * warranty.
 */
export const inside: Migration = {
  name: '0006-inside',
  up: `
alter table items add column covers_months int check (covers_months between 1 and 600);
alter table price_entries add column inside text not null default '', drop constraint price_entries_pkey, add primary key (price_list, sku, inside, valid_from);
`,
};

import type { Migration } from './migration';

/** What was done to a price change that is made ready, so that it can be taken back and done again, step by step. */
export const priceSteps: Migration = {
  name: '0026-price-steps',
  up: `
create table price_change_steps (
  change_id uuid not null references price_changes on delete cascade, number int not null, undone boolean not null default false,
  user_id uuid references users, at timestamptz not null default now(), what text not null,
  places json, before json not null, after json not null, primary key (change_id, number)
);
`,
};

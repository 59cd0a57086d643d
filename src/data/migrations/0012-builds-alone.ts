import type { Migration } from './migration';

/**
 * A build belongs to a quote or to a person, who says for whom it is priced; the needs answered for it are kept
 * with it, and with what is kept of it.
 */
export const buildsAlone: Migration = {
  name: '0012-builds-alone',
  up: `
alter table builds
  alter column quote_id drop not null, alter column revision_id drop not null,
  add column owner_id uuid references users on delete cascade,
  add column priced_for jsonb,
  add column asked jsonb not null default '[]',
  add constraint builds_home check ((quote_id is null) = (revision_id is null) and (quote_id is null) = (owner_id is not null) and (owner_id is null) = (priced_for is null));
create index builds_owner on builds (owner_id) where owner_id is not null;
alter table saved_builds add column asked jsonb not null default '[]';
`,
};

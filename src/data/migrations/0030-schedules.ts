import type { Migration } from './migration';

/**
 * Site schedules: what stands where on a site, each position under a tag of its own; and packages on the shelf, which
 * belong to a schedule.
 */
export const schedules: Migration = {
  name: '0030-schedules',
  up: `
create table schedules (
  id uuid primary key,
  number bigint generated always as identity unique,
  name text not null,
  site text not null default '',
  customer_id uuid references customers on delete set null,
  owner_id uuid not null references users,
  version int not null default 1,
  made_at timestamptz not null default now(),
  updated_at timestamptz not null default now(),
  updated_by uuid not null references users
);
create index schedules_customer on schedules (customer_id) where customer_id is not null;
create index schedules_owner on schedules (owner_id, updated_at desc);

create table schedule_positions (
  id uuid primary key,
  schedule_id uuid not null references schedules on delete cascade,
  position int not null,
  tag text not null,
  tag_key text not null check (tag_key <> ''),
  area text not null default '',
  quantity numeric(18, 6) not null check (quantity > 0),
  remark text not null default '',
  quote_id uuid references quotes on delete set null,
  line_origin uuid,
  build_id uuid references builds on delete set null,
  sku text,
  words text not null default '',
  constraint schedule_positions_tag unique (schedule_id, tag_key),
  constraint schedule_positions_place unique (schedule_id, position)
);
create index schedule_positions_quote on schedule_positions (quote_id) where quote_id is not null;
create index schedule_positions_build on schedule_positions (build_id) where build_id is not null;

alter table shelf add column schedule_id uuid references schedules on delete cascade;
create index shelf_schedule on shelf (schedule_id, made_at desc) where schedule_id is not null;
create index shelf_made on shelf (made_at desc);
`,
};

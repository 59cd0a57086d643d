import type { Migration } from './migration';

/**
 * Price changes: sets of entries that are made ready, looked at, and in force from a day. An entry without a price says
 * that the item is in the list no more. What is granted, limited and charged is said from a day on too, so that what is
 * in force need never be changed: it is followed by something else.
 */
export const terms: Migration = {
  name: '0025-terms',
  up: `
create table price_changes (
  id uuid primary key, name text not null, note text not null default '', in_force date not null,
  state text not null default 'draft' check (state in ('draft', 'published', 'withdrawn')), version int not null default 1,
  made_at timestamptz not null default now(), made_by uuid references users, changed_at timestamptz not null default now(),
  settled_at timestamptz, settled_by uuid references users,
  impact_job uuid, impact_version int, impact_seen boolean not null default false
);
create table price_change_rows (
  change_id uuid not null references price_changes on delete cascade, place text not null, price_list text not null, sku text not null,
  inside text not null default '', entry jsonb, base_months int, least_months int, formula text, wrong json, primary key (change_id, place)
);
create index price_change_rows_sku on price_change_rows (sku);
-- What a price change brought is in force from its day on as it was published.
create function refuse_entry_change() returns trigger language plpgsql as $$
begin
  if tg_op = 'UPDATE' then raise exception 'entries of a price change never change'; end if;
  if old.valid_from < current_date then raise exception 'entries in force are followed by others, and stay'; end if;
  return old;
end $$;
create table what_ifs (job uuid not null, position int not null, verdict text not null, row json not null, primary key (job, position));

alter table price_entries alter column entry drop not null, add column change_id uuid references price_changes;
create trigger price_entries_fixed before update or delete on price_entries for each row when (old.change_id is not null) execute function refuse_entry_change();
create index price_entries_change on price_entries (change_id) where change_id is not null;

alter table price_lists add column version int not null default 1;
alter table customers add column version int not null default 1;
alter table grants add column version int not null default 1, add column follows uuid references grants on delete set null;
alter table quantity_discounts add column valid_from date, add column valid_to date, add column version int not null default 1;
alter table limits add column valid_from date, add column valid_to date, add column version int not null default 1,
  drop constraint limits_role_family_by_key, add unique nulls not distinct (role, family, by, valid_from);
alter table policies add column follows uuid references policies on delete set null, add column valid_from date, add column valid_to date, add column version int not null default 1;
alter table tax_rates add column valid_from date, add column valid_to date, add column version int not null default 1,
  drop constraint tax_rates_country_class_key, add unique nulls not distinct (country, class, valid_from);
alter table commission_plans drop constraint commission_plans_pkey, add column id uuid not null default gen_random_uuid(),
  add column valid_from date, add column valid_to date, add column version int not null default 1,
  add primary key (id), add unique nulls not distinct (role, valid_from);
alter table work_centres drop constraint work_centres_pkey, add column id uuid not null default gen_random_uuid(),
  add column valid_from date, add column valid_to date, add column version int not null default 1,
  add primary key (id), add unique nulls not distinct (code, valid_from);
`,
};

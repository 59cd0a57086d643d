import type { Migration } from './migration';

/** Prices by day, quotes in several revisions, lines in groups, leases and commission. */
export const revisions: Migration = {
  name: '0005-revisions',
  up: `
alter table price_entries add column valid_from date not null default '2000-01-01', add column valid_to date, drop constraint price_entries_pkey, add primary key (price_list, sku, valid_from);
alter table price_entries alter column valid_from drop default;

alter table quote_revisions
  drop constraint quote_revisions_state_check, add constraint quote_revisions_state_check check (state in ('draft','sent','lost','accepted')),
  add column made_at timestamptz not null default now(), add column made_by uuid references users, add column settled_at timestamptz, add column settled_by uuid references users,
  add column lost jsonb, add column taxed jsonb, add column lease jsonb, add column resale numeric(9,6), add constraint quote_revisions_lost check ((state = 'lost') = (lost is not null));
update quote_revisions r set made_at = q.created_at, made_by = q.owner_id from quotes q where q.id = r.quote_id;
update quote_revisions r set settled_at = o.created_at, settled_by = o.created_by from orders o where o.revision_id = r.id;

alter table builds add column revision_id uuid references quote_revisions on delete cascade;
update builds b set revision_id = (select id from quote_revisions r where r.quote_id = b.quote_id order by number desc limit 1);
alter table builds alter column revision_id set not null;
create index builds_revision on builds (revision_id);

alter table quote_lines add column origin uuid, add column priced_on date, add column rates jsonb, add column resale numeric(18,6) check (resale >= 0), add column group_name text check (group_name <> '');
alter table quote_lines disable trigger quote_lines_frozen;
update quote_lines l set origin = l.id, priced_on = coalesce((select (b.context ->> 'date')::date from builds b where b.id = l.build_id), (select r.made_at::date from quote_revisions r where r.id = l.revision_id));
alter table quote_lines enable trigger quote_lines_frozen;
alter table quote_lines alter column origin set not null, alter column priced_on set not null;

alter table customers add column payment_days int not null default 30 check (payment_days between 0 and 365);
alter table addresses add column position int not null default 0;
create table quote_steps (revision_id uuid not null references quote_revisions on delete cascade, number int not null, undone boolean not null default false, user_id uuid not null references users, change jsonb not null, primary key (revision_id, number));
create table policies (id uuid primary key, role text not null, name jsonb not null, condition text not null, signs text not null);
alter table sign_offs add column policies jsonb not null default '[]';
create table commission_plans (role text primary key, base_rate numeric(9,6) not null check (base_rate between 0 and 1), higher_rate numeric(9,6) not null check (higher_rate between 0 and 1));

create or replace function refuse_frozen() returns trigger language plpgsql as $$
begin
  if exists (select 1 from quote_revisions r where r.id = old.revision_id and r.state <> 'draft') then raise exception 'lines of a revision that was sent never change'; end if;
  if tg_op = 'DELETE' then return old; end if;
  return new;
end $$;
create function refuse_frozen_build() returns trigger language plpgsql as $$
begin
  if exists (select 1 from quote_revisions r where r.id = old.revision_id and r.state <> 'draft') and new.revision_id = old.revision_id then raise exception 'builds of a revision that was sent never change'; end if;
  return new;
end $$;
create trigger builds_frozen before update on builds for each row execute function refuse_frozen_build();
`,
};

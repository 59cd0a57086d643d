import type { Migration } from './migration';

/**
 * Drafts of models with the edits made on them, and from which day a version is in force. A version itself never
 * changes; that it is in force, or was withdrawn, is told beside it.
 */
export const workshop: Migration = {
  name: '0021-workshop',
  up: `
create table model_releases (
  version_id uuid primary key references model_versions,
  in_force date not null,
  note text not null default '',
  base_id uuid references model_versions,
  agreed_by uuid references users,
  withdrawn_at timestamptz,
  withdrawn_by uuid references users,
  withdrawn_note text,
  constraint releases_withdrawn check ((withdrawn_at is null) = (withdrawn_note is null))
);
insert into model_releases (version_id, in_force)
  select id, case when number = 1 then date '2000-01-01' else published_at::date end from model_versions;
create trigger model_releases_stamp after insert or update or delete or truncate on model_releases for each statement execute function stamp_reference();

create table model_drafts (
  id uuid primary key,
  model_id text not null,
  sku text not null,
  name text not null,
  base_id uuid references model_versions,
  document json not null,
  hash text not null,
  version int not null default 1,
  made_by uuid not null references users,
  made_at timestamptz not null default now(),
  changed_by uuid not null references users,
  changed_at timestamptz not null default now(),
  impact_job uuid,
  impact_hash text,
  impact_seen boolean not null default false,
  agreed_by uuid references users,
  agreed_hash text,
  closed_at timestamptz,
  published_id uuid references model_versions,
  constraint drafts_agreed check ((agreed_by is null) = (agreed_hash is null))
);
create index model_drafts_open on model_drafts (model_id) where closed_at is null;

create table model_edits (
  draft_id uuid not null references model_drafts on delete cascade,
  number int not null,
  version int not null,
  edit json not null,
  inverse json not null,
  by uuid not null references users,
  at timestamptz not null default now(),
  undone boolean not null default false,
  primary key (draft_id, number)
);

create table model_impacts (
  draft_id uuid not null references model_drafts on delete cascade,
  hash text not null,
  position int not null,
  verdict text not null check (verdict in ('same', 'other', 'decide', 'lost')),
  row json not null,
  primary key (draft_id, hash, position)
);

alter table house_parts drop constraint house_parts_part_check,
  add constraint house_parts_part_check check (part in ('company', 'calendar', 'numbers', 'markets', 'workshop'));
`,
};

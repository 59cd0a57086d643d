import type { Migration } from './migration';

/**
 * Variants, warnings passed, special parts, saved builds, alternatives on a quote, and what a person prefers.
 */
export const bench: Migration = {
  name: '0002-bench',
  up: `
alter table users add column preferences jsonb not null default '{}';
alter table builds
  add column talk_id uuid, add column letter text not null default 'A' check (letter ~ '^[A-Z]$'),
  add column passed jsonb not null default '[]', add column special jsonb not null default '[]';
update builds set talk_id = id;
alter table builds alter column talk_id set not null, add constraint builds_variant unique (talk_id, letter);
update builds set outcome = jsonb_set(outcome, '{warnings}', coalesce((select jsonb_agg(jsonb_build_object('rule', '', 'text', warning)) from jsonb_array_elements(outcome -> 'warnings') warning), '[]'));
alter table quote_lines add column alternative boolean not null default false;
create table saved_builds (
  id uuid primary key, owner_id uuid not null references users on delete cascade, name text not null check (name <> ''), shared boolean not null default false,
  model_id text not null references models, part_number text not null, decisions jsonb not null, saved_at timestamptz not null default now()
);
create index saved_builds_owner on saved_builds (owner_id);
create table stars (user_id uuid not null references users on delete cascade, saved_id uuid not null references saved_builds on delete cascade, primary key (user_id, saved_id));
`,
};

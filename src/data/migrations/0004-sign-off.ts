import type { Migration } from './migration';

/** Limits by role, who signs what goes beyond them, and what was signed. */
export const signOff: Migration = {
  name: '0004-sign-off',
  up: `
alter table users drop constraint users_role_check, add constraint users_role_check check (role in ('engineer','manager','director','modeller','dealer'));
create table limits (
  id uuid primary key, role text not null, family text references families, by text not null check (by in ('discount','margin')),
  target numeric(9,6) not null, limit_at numeric(9,6) not null, floor numeric(9,6) not null, signs text not null, above text not null, unique nulls not distinct (role, family, by)
);
create table sign_offs (
  id uuid primary key, revision_id uuid not null references quote_revisions on delete cascade, role text not null, reason text not null, figures jsonb not null,
  asked_by uuid not null references users, asked_at timestamptz not null default now(), state text not null check (state in ('asked','yes','no','counter','over')),
  answered_by uuid references users, answered_at timestamptz, comment text not null default '', counter jsonb not null default '[]'
);
create index sign_offs_revision on sign_offs (revision_id, asked_at);
`,
};

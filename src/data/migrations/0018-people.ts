import type { Migration } from './migration';

/**
 * People are made and put aside by who runs the house, set their passwords by a link that works once, and have
 * deputies for sign-off from day to day. Who answers a sign-off in somebody's place is written beside it.
 */
export const people: Migration = {
  name: '0018-people',
  up: `
alter table users add aside_at timestamptz, add version integer not null default 1, alter password_hash drop not null;
drop trigger users_stamp on users;
create trigger users_stamp after insert or delete or update of name, role, dealer_id, quota, aside_at on users for each statement execute function stamp_reference();
create table password_links (
  token_hash text primary key,
  user_id uuid not null references users on delete cascade,
  made_at timestamptz not null default now(),
  expires_at timestamptz not null,
  used_at timestamptz
);
create index password_links_user on password_links (user_id);
create table deputies (
  id uuid primary key,
  user_id uuid not null references users on delete cascade,
  deputy_id uuid not null references users,
  starts date not null,
  ends date not null check (ends >= starts),
  check (user_id <> deputy_id)
);
create index deputies_user on deputies (user_id);
create trigger deputies_stamp after insert or update or delete or truncate on deputies for each statement execute function stamp_reference();
alter table sign_offs add answered_for uuid references users;
`,
};

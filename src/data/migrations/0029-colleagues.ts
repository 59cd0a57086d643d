import type { Migration } from './migration';

/**
 * Work between colleagues about a quote: notes, and who handed it to whom; what is asked of colleagues, with a special
 * part as it was answered; days to follow up on; what the customer gave along.
 */
export const colleagues: Migration = {
  name: '0029-colleagues',
  up: `
create table quote_notes (
  id uuid primary key,
  number bigint generated always as identity unique,
  quote_id uuid not null references quotes on delete cascade,
  words text not null,
  handed_from uuid references users,
  handed_to uuid references users,
  made_by uuid not null references users,
  made_at timestamptz not null default now(),
  constraint quote_notes_handed check ((handed_from is null) = (handed_to is null)),
  constraint quote_notes_words check (words <> '' or handed_to is not null)
);
create index quote_notes_quote on quote_notes (quote_id, number desc);

create table quote_requests (
  id uuid primary key,
  number bigint generated always as identity unique,
  quote_id uuid not null references quotes on delete cascade,
  kind text not null check (kind in ('look', 'technical')),
  line_origin uuid,
  line_named jsonb,
  item text,
  asked_of uuid references users,
  role text,
  words text not null,
  made_by uuid not null references users,
  made_at timestamptz not null default now(),
  answer text,
  part jsonb,
  answered_by uuid references users,
  answered_at timestamptz,
  taken_at timestamptz,
  closed_at timestamptz,
  constraint quote_requests_asked check ((asked_of is null) <> (role is null)),
  constraint quote_requests_line check ((line_origin is null) = (kind = 'look')),
  constraint quote_requests_answered check ((answered_at is null) = (answer is null) and (answered_at is null) = (answered_by is null)),
  constraint quote_requests_part check (part is null or (answer is not null and item is not null)),
  constraint quote_requests_taken check (taken_at is null or part is not null)
);
create index quote_requests_quote on quote_requests (quote_id, number desc);
create index quote_requests_open on quote_requests (number) where answered_at is null and closed_at is null;
create index quote_requests_own on quote_requests (made_by) where closed_at is null;

create table follow_ups (
  id uuid primary key,
  number bigint generated always as identity unique,
  quote_id uuid not null references quotes on delete cascade,
  day date not null,
  words text not null,
  for_user uuid not null references users,
  made_by uuid not null references users,
  made_at timestamptz not null default now(),
  done_at timestamptz,
  done_by uuid references users,
  constraint follow_ups_done check ((done_at is null) = (done_by is null))
);
create index follow_ups_quote on follow_ups (quote_id, day);
create index follow_ups_due on follow_ups (for_user, day) where done_at is null;

create table quote_files (
  quote_id uuid not null references quotes on delete cascade,
  file_id uuid not null references files,
  kind text not null check (kind in ('drawing', 'order', 'other')),
  words text not null,
  made_by uuid not null references users,
  made_at timestamptz not null default now(),
  primary key (quote_id, file_id)
);
create index quote_files_file on quote_files (file_id);
`,
};

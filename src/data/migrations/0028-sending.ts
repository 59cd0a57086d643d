import type { Migration } from './migration';

/**
 * What goes out: documents as they were made, on the shelf; mails as they went, byte for byte; shares, by which a
 * customer sees a quote or a build, and what they answered. `outbox_*` is the simulated mail server's own.
 */
export const sending: Migration = {
  name: '0028-sending',
  up: `
create table shelf_contents (
  hash text primary key check (hash ~ '^[0-9a-f]{64}$'),
  size integer not null check (size = octet_length(bytes)),
  bytes bytea not null,
  made_at timestamptz not null default now()
);
create table shelf (
  id uuid primary key,
  kind text not null,
  name text not null,
  type text not null,
  hash text not null references shelf_contents,
  quote_id uuid references quotes on delete cascade,
  revision_id uuid references quote_revisions on delete cascade,
  build_id uuid references builds on delete set null,
  customer_id uuid references customers on delete cascade,
  stand text not null,
  made_by uuid not null references users,
  made_at timestamptz not null default now()
);
create index shelf_quote on shelf (quote_id, made_at desc);
create index shelf_build on shelf (build_id, made_at desc) where build_id is not null;
create index shelf_customer on shelf (customer_id, made_at desc);
create index shelf_contents_of on shelf (hash);
create unique index shelf_quotation on shelf (revision_id, type) where kind = 'quotation';

create table shares (
  id uuid primary key,
  token_hash text not null unique,
  quote_id uuid references quotes on delete cascade,
  revision_id uuid references quote_revisions on delete cascade,
  build_id uuid references builds on delete cascade,
  for_name text not null,
  for_address text not null,
  language text not null,
  until date not null,
  made_by uuid not null references users,
  made_at timestamptz not null default now(),
  revoked_at timestamptz,
  revoked_by uuid references users,
  first_seen_at timestamptz,
  last_seen_at timestamptz,
  seen int not null default 0,
  constraint shares_of check ((revision_id is null) <> (build_id is null)),
  constraint shares_quote check (revision_id is null or quote_id is not null),
  constraint shares_revoked check ((revoked_at is null) = (revoked_by is null))
);
create index shares_quote on shares (quote_id, made_at desc) where quote_id is not null;
create index shares_build on shares (build_id, made_at desc) where build_id is not null;
create table share_answers (
  id uuid primary key,
  number bigint generated always as identity unique,
  share_id uuid not null references shares on delete cascade,
  quote_id uuid references quotes on delete cascade,
  revision_id uuid references quote_revisions on delete cascade,
  answer text not null check (answer in ('accepted', 'declined', 'question', 'change')),
  line_id uuid references quote_lines on delete set null,
  line_named text not null default '',
  reason text,
  words text not null,
  name text not null,
  address text not null,
  agent text not null,
  document text check (document ~ '^[0-9a-f]{64}$'),
  at timestamptz not null default now(),
  outcome jsonb,
  reply text,
  done_at timestamptz,
  done_by uuid references users,
  constraint share_answers_document check (answer <> 'accepted' or document is not null),
  constraint share_answers_done check (done_by is null or done_at is not null)
);
create unique index share_answers_once on share_answers (revision_id) where answer = 'accepted';
create index share_answers_share on share_answers (share_id, number);
create index share_answers_open on share_answers (quote_id) where done_at is null;
create index share_answers_quote on share_answers (quote_id, number);

create table mails (
  id uuid primary key,
  number bigint generated always as identity unique,
  message_id text not null unique,
  quote_id uuid references quotes on delete cascade,
  revision_id uuid references quote_revisions on delete cascade,
  build_id uuid references builds on delete cascade,
  customer_id uuid references customers on delete cascade,
  share_id uuid references shares on delete set null,
  sender jsonb not null,
  recipients jsonb not null,
  subject text not null,
  words text not null,
  link text,
  language text not null,
  wanted jsonb not null,
  state text not null default 'making' check (state in ('making', 'unmade', 'waiting', 'handing', 'sent', 'refused', 'unsure')),
  raw bytea,
  hash text check (hash ~ '^[0-9a-f]{64}$'),
  server text,
  refused jsonb not null default '[]',
  returned jsonb not null default '[]',
  problem jsonb,
  tries int not null default 0,
  handed_at timestamptz,
  sent_at timestamptz,
  made_by uuid not null references users,
  made_at timestamptz not null default now(),
  constraint mails_raw check ((raw is null) = (hash is null)),
  constraint mails_made check (state in ('making', 'unmade') or raw is not null),
  constraint mails_sent check ((state = 'sent') = (sent_at is not null))
);
create index mails_listed on mails (number desc);
create index mails_quote on mails (quote_id, number desc);
create table mail_documents (
  mail_id uuid not null references mails on delete cascade,
  position int not null,
  shelf_id uuid not null references shelf,
  primary key (mail_id, position)
);
create index mail_documents_shelf on mail_documents (shelf_id);

create table outbox_mails (
  message_id text primary key,
  sender text not null,
  recipients jsonb not null,
  raw bytea not null,
  at timestamptz not null default now()
);
create table outbox_server (
  only_one boolean primary key default true check (only_one),
  down boolean not null default false
);
insert into outbox_server default values;
`,
};

import type { Migration } from './migration';

/**
 * Sign-in counted by account and address, with devices that are known; answers kept for requests that may
 * come again; a stamp that tells whether anything changed that prices are made from; and with each revision
 * what lists show of it.
 */
export const stand: Migration = {
  name: '0008-stand',
  up: `
drop table sign_in_attempts;
create table sign_in_attempts (id bigserial primary key, account text not null, address text not null, at timestamptz not null default now());
create index sign_in_attempts_account on sign_in_attempts (account, at);
create index sign_in_attempts_address on sign_in_attempts (address, at);
create table devices (token_hash text primary key, user_id uuid not null references users on delete cascade, seen_at timestamptz not null default now());
create index sessions_expiry on sessions (expires_at);

create table answers (user_id uuid not null references users on delete cascade, key text not null, asked text not null, answer json, at timestamptz not null default now(), primary key (user_id, key));
create index answers_at on answers (at);

create sequence reference_stamps;
create table reference_stamp (one boolean primary key default true check (one), stamp bigint not null);
insert into reference_stamp (stamp) values (nextval('reference_stamps'));
-- A number never comes twice, not even where a change is rolled back, so that what is remembered under one is never of another.
create function stamp_reference() returns trigger language plpgsql as $$
begin
  update reference_stamp set stamp = nextval('reference_stamps');
  return null;
end $$;
${[
  'price_lists',
  'families',
  'items',
  'price_entries',
  'grants',
  'quantity_discounts',
  'work_centres',
  'models',
  'model_versions',
  'tax_rates',
  'limits',
  'policies',
  'commission_plans',
]
  .map(
    (table) =>
      `create trigger ${table}_stamp after insert or update or delete or truncate on ${table} for each statement execute function stamp_reference();`,
  )
  .join('\n')}
create trigger users_stamp after insert or delete or update of name, role, dealer_id, quota on users for each statement execute function stamp_reference();

-- What lists show of a revision, kept by whatever changes it; of a draft it holds for the stamp it was worked out under.
create table revision_facts (
  revision_id uuid primary key references quote_revisions on delete cascade, net numeric not null, line_count int not null, problem_count int not null,
  sendable boolean not null, signing text check (signing in ('needed', 'asked')), stamp bigint not null);
create index quotes_updated on quotes (updated_at desc);
create index quotes_owner on quotes (owner_id);
-- In a currency without decimals a quote may come to more than a million millions.
alter table orders alter column net type numeric;
create index orders_created on orders (created_at desc);
create index quote_lines_build on quote_lines (build_id);
`,
};

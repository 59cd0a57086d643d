import type { Migration } from './migration';

/**
 * Everything from people to work orders. Money is numeric; what must not change is guarded by the database
 * itself.
 */
export const first: Migration = {
  name: '0001-first',
  up: `
create table price_lists (
  code text primary key, name jsonb not null, currency char(3) not null, decimals int not null check (decimals between 0 and 4),
  cost_rate numeric(18,6) not null check (cost_rate > 0), valid_from date not null
);
create table customers (
  id uuid primary key, number text not null unique, name text not null, class text not null check (class in ('direct','key','dealer','public')),
  price_list text not null references price_lists, language char(2) not null, region text not null, dealer_id uuid references customers,
  contact_name text not null, contact_email text not null
);
create index customers_name on customers (lower(name) text_pattern_ops);
create table addresses (
  id uuid primary key, customer_id uuid not null references customers on delete cascade, kind text not null check (kind in ('invoice','delivery')),
  street text not null, town text not null, postcode text not null, country char(2) not null
);
create table users (
  id uuid primary key, email text not null unique check (email = lower(email)), name text not null, language char(2) not null,
  role text not null check (role in ('engineer','manager','modeller','dealer')), password_hash text not null, dealer_id uuid references customers, quota numeric(18,6),
  check ((role = 'dealer') = (dealer_id is not null))
);
create table sessions (token_hash text primary key, user_id uuid not null references users on delete cascade, expires_at timestamptz not null);
create table sign_in_attempts (email text not null, at timestamptz not null default now());
create index sign_in_attempts_email on sign_in_attempts (email, at);

create table families (code text primary key, name jsonb not null, position int not null);
create table items (
  sku text primary key, family text not null references families, name jsonb not null, kind text not null check (kind in ('part','model','software','service')),
  unit text not null, cost numeric(18,6) not null check (cost >= 0), lead_days int not null check (lead_days >= 0), mass numeric(18,6), sold boolean not null
);
create table price_entries (price_list text not null references price_lists, sku text not null references items, price numeric(18,6) not null check (price >= 0), primary key (price_list, sku));
create table agreements (
  id uuid primary key, class text not null, family text not null references families, rate numeric(9,6) not null check (rate between 0 and 1), valid_from date not null
);
create table work_centres (code text primary key, name jsonb not null, rate numeric(18,6) not null check (rate >= 0));

create table models (id text primary key, sku text not null unique references items);
create table model_versions (
  id uuid primary key, model_id text not null references models, number int not null, document json not null, hash text not null,
  published_at timestamptz not null default now(), published_by uuid references users, unique (model_id, number)
);
create function refuse_change() returns trigger language plpgsql as $$ begin raise exception '% rows never change', tg_table_name; end $$;
create trigger model_versions_fixed before update or delete on model_versions for each row execute function refuse_change();
create table registered_numbers (model_id text not null references models, key text not null, number int not null, primary key (model_id, key), unique (model_id, number));

create sequence quote_numbers;
create table quotes (
  id uuid primary key, number text not null unique, title text not null, customer_id uuid not null references customers, owner_id uuid not null references users,
  version int not null default 1, created_at timestamptz not null default now(), updated_at timestamptz not null default now(), updated_by uuid not null references users
);
create table builds (
  id uuid primary key, model_version_id uuid not null references model_versions, quote_id uuid not null references quotes on delete cascade,
  context jsonb not null, decisions jsonb not null, outcome jsonb not null, version int not null default 1
);
create table quote_revisions (
  id uuid primary key, quote_id uuid not null references quotes on delete cascade, number int not null, state text not null check (state in ('draft','accepted')),
  price_list text not null references price_lists, customer jsonb not null, valid_until date not null, unique (quote_id, number)
);
create table quote_lines (
  id uuid primary key, revision_id uuid not null references quote_revisions on delete cascade, position int not null, build_id uuid unique references builds, sku text not null references items,
  quantity int not null check (quantity between 1 and 99999), discount numeric(9,6) not null check (discount between 0 and 1), frozen jsonb
);
create function refuse_frozen() returns trigger language plpgsql as $$
begin
  if exists (select 1 from quote_revisions r where r.id = old.revision_id and r.state <> 'draft') then raise exception 'lines of an accepted revision never change'; end if;
  if tg_op = 'DELETE' then return old; end if;
  return new;
end $$;
create trigger quote_lines_frozen before update or delete on quote_lines for each row execute function refuse_frozen();

create sequence order_numbers;
create table orders (
  id uuid primary key, number text not null unique, quote_id uuid not null unique references quotes, revision_id uuid not null references quote_revisions,
  currency char(3) not null, net numeric(18,6) not null, promised date not null, created_at timestamptz not null default now(), created_by uuid not null references users
);
create table work_orders (
  id uuid primary key, number text not null unique, order_id uuid not null references orders, line_id uuid not null references quote_lines, title jsonb not null,
  part_number text not null, quantity int not null check (quantity > 0), decisions jsonb not null, materials jsonb not null, operations jsonb not null, due date not null
);
create table audit_entries (id bigserial primary key, at timestamptz not null default now(), user_id uuid references users, action text not null, subject text not null, details jsonb not null);
create trigger audit_entries_fixed before update or delete on audit_entries for each row execute function refuse_change();
`,
};

import type { Migration } from './migration';

/**
 * Prices by method and for a time, what customers are granted, and what is typed on lines and on the whole
 * quote.
 */
export const pricing: Migration = {
  name: '0003-pricing',
  up: `
alter table items add column discountable boolean not null default true, add column tax_class text not null default 'standard';

alter table price_entries add column entry jsonb, add column base_months int check (base_months > 0), add column least_months int check (least_months >= 0);
update price_entries set entry = jsonb_build_object('method', 'unit', 'price', trim_scale(price)::text);
alter table price_entries alter column entry set not null, drop column price;

alter table agreements rename to grants;
alter table grants
  add column kind text not null default 'agreement' check (kind in ('agreement','promotion')), add column name jsonb not null default '{"en": "Class discount", "de": "Klassenrabatt"}',
  add column customer_id uuid references customers on delete cascade, add column sku text references items, add column price_list text references price_lists,
  add column price numeric(18,6) check (price >= 0), add column valid_to date, add column fixed boolean not null default false,
  alter column class drop not null, alter column family drop not null, alter column rate drop not null, alter column valid_from drop not null,
  add constraint grants_one_kind check ((rate is null) <> (price is null)), add constraint grants_price_in_list check (price is null or (price_list is not null and sku is not null));
create table quantity_discounts (
  id uuid primary key, name jsonb not null, family text references families, sku text references items, by text not null check (by in ('whole','slice')), levels jsonb not null,
  check ((family is null) <> (sku is null))
);

create table tax_rates (id uuid primary key, country char(2) not null, class text, rate numeric(9,6) not null check (rate between 0 and 1), unique nulls not distinct (country, class));

alter table quote_lines
  add column hand jsonb, add column locked boolean not null default false, add column optional boolean not null default false, add column term jsonb, add column typed_price numeric(18,6) check (typed_price >= 0);
alter table quote_lines disable trigger quote_lines_frozen;
update quote_lines set hand = jsonb_build_object('by', 'rate', 'value', trim_scale(discount)::text) where discount <> 0;
alter table quote_lines enable trigger quote_lines_frozen;
alter table quote_lines drop column discount;
alter table quote_revisions add column whole jsonb;
`,
};

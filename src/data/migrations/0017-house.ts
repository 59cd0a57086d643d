import type { Migration } from './migration';

/**
 * The house's own data, part by part, and how far its numbers are. What prices and days are made from is
 * remembered under the stamp of the reference data, so a change of the house renews that too.
 */
export const house: Migration = {
  name: '0017-house',
  up: `
create table house_parts (
  part text primary key check (part in ('company', 'calendar', 'numbers')),
  value jsonb not null,
  version integer not null default 1,
  changed_at timestamptz not null default now(),
  changed_by uuid references users
);
create trigger house_parts_stamp after insert or update or delete or truncate on house_parts for each statement execute function stamp_reference();
create table number_counters (
  range text not null,
  year integer not null,
  next bigint not null check (next > 0),
  primary key (range, year)
);
insert into number_counters (range, year, next)
  select 'quote', 0, case when is_called then last_value + 1 else last_value end from quote_numbers
  union all
  select 'order', 0, case when is_called then last_value + 1 else last_value end from order_numbers;
drop sequence quote_numbers;
drop sequence order_numbers;
`,
};

import type { Migration } from './migration';

/** What freight costs by price list and country of delivery, from a day on. Without a country: to all that have none of their own. */
export const freight: Migration = {
  name: '0027-freight',
  up: `
create table freight_rates (
  id uuid primary key default gen_random_uuid(), price_list text not null references price_lists, country text,
  base numeric not null, per_kg numeric not null, least numeric not null,
  valid_from date, valid_to date, version int not null default 1, unique nulls not distinct (price_list, country, valid_from)
);
create trigger freight_rates_stamp after insert or update or delete or truncate on freight_rates for each statement execute function stamp_reference();
`,
};

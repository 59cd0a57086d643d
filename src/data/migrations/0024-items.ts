import type { Migration } from './migration';

/**
 * What the house knows of an item besides its price: texts for colleagues and customers, properties by its family, to
 * whom and by whom it is sold, in which steps, what replaces it and goes with it. Families stand inside each other.
 */
export const items: Migration = {
  name: '0024-items',
  up: `
alter table families
  add column parent text references families,
  add column properties json not null default '[]',
  add column version int not null default 1;
alter table items
  add column note jsonb not null default '{}',
  add column says jsonb not null default '{}',
  add column properties jsonb not null default '{}',
  add column active boolean not null default true,
  add column bars json not null default '[]',
  add column usual_quantity numeric(18,6) check (usual_quantity > 0),
  add column step numeric(18,6) check (step > 0),
  add column serials boolean not null default false,
  add column replaced_by text references items,
  add column goes_with json not null default '[]',
  add column picture uuid,
  add column data_sheet uuid,
  add column version int not null default 1;
create index items_replaced_by on items (replaced_by) where replaced_by is not null;
create index quote_lines_sku on quote_lines (sku);
`,
};

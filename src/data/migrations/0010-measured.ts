import type { Migration } from './migration';

/**
 * What is measured is sold in parts of its unit, to three decimals. Kept as the number that every computation
 * begins with: of so few digits a double gives back the decimal that was written.
 */
export const measured: Migration = {
  name: '0010-measured',
  up: `
alter table quote_lines drop constraint quote_lines_quantity_check;
alter table quote_lines alter column quantity type double precision;
alter table quote_lines add constraint quote_lines_quantity_check check (quantity > 0 and quantity <= 99999 and quantity = round(quantity::numeric, 3)::double precision);
`,
};

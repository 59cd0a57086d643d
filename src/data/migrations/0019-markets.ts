import type { Migration } from './migration';

/** The house says in which markets it sells. */
export const markets: Migration = {
  name: '0019-markets',
  up: `
alter table house_parts drop constraint house_parts_part_check,
  add constraint house_parts_part_check check (part in ('company', 'calendar', 'numbers', 'markets'));
`,
};
